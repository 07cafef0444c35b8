#include "core/linework/thin_line.h"

#include <algorithm>
#include <cmath>

namespace erdwerk::linework {

namespace {

/// Which vertices go.
class Thinning {
public:
    Thinning(const Line3D& line, const ResolvedLine& resolved, const ThinLineOptions& options)
        : line_(line), resolved_(resolved), options_(options), gone_(line.vertices.size(), false) {}

    std::vector<bool> run() {
        std::size_t last = 0;
        const std::size_t n = line_.vertices.size();
        for (std::size_t i = 1; i + (line_.closed ? 0 : 1) < n; ++i) {
            if (!mayGo(i) || !goes(last, i)) {
                last = i;
                continue;
            }
            gone_[i] = true;
        }
        // A closed line keeps three corners, whatever the figures say.
        std::size_t corners = 0;
        for (std::size_t i = 0; i < n; ++i) corners += line_.vertices[i].isCorner && !gone_[i] ? 1 : 0;
        for (std::size_t i = 0; i < n && corners < (line_.closed ? 3U : 2U); ++i)
            if (line_.vertices[i].isCorner && gone_[i]) {
                gone_[i] = false;
                ++corners;
            }
        return gone_;
    }

    /// From the straight between two vertices, in space (in plan where a height is missing).
    [[nodiscard]] double offStraight(std::size_t from, std::size_t to, std::size_t i) const {
        const auto a = place(from);
        const auto b = place(to);
        const auto p = place(i);
        const auto ab = between(a, b);
        const auto ap = between(a, p);
        const double size = ab.x * ab.x + ab.y * ab.y + ab.z * ab.z;
        const double t =
            size > 0 ? std::clamp((ap.x * ab.x + ap.y * ab.y + ap.z * ab.z) / size, 0.0, 1.0) : 0.0;
        return std::hypot(ap.x - t * ab.x, ap.y - t * ab.y, ap.z - t * ab.z);
    }

private:
    static geometry::Vec3 between(const geometry::Vec3& a, const geometry::Vec3& b) {
        return {b.x - a.x, b.y - a.y, b.z - a.z};
    }
    [[nodiscard]] geometry::Vec3 place(std::size_t i) const {
        const auto& v = resolved_.vertices[i % resolved_.vertices.size()];
        return {v.place.x, v.place.y, v.height.value_or(0)};
    }
    [[nodiscard]] std::size_t after(std::size_t i) const { return (i + 1) % line_.vertices.size(); }
    [[nodiscard]] bool mayGo(std::size_t i) const {
        const auto& v = line_.vertices[i];
        if (v.curve || v.through || standing(v.rule) != Standing::Own) return false;
        std::size_t corner = i;
        while (corner > 0 && !line_.vertices[corner - 1].isCorner) --corner;
        const bool onArc = corner > 0 && line_.vertices[corner - 1].through.has_value();
        return !onArc &&
               resolved_.vertices[i].height.has_value() == resolved_.vertices[after(i)].height.has_value();
    }
    [[nodiscard]] bool goes(std::size_t last, std::size_t i) const {
        const std::size_t next = after(i);
        if (options_.spacing > 0 &&
            resolved_.vertices[i].distance - resolved_.vertices[last].distance >= options_.spacing)
            return false;
        if (options_.angle.radians() > 0 && turnAt(last, i, next) >= options_.angle.radians()) return false;
        if (options_.deviation > 0)
            for (std::size_t k = last + 1; k <= i; ++k)
                if (offStraight(last, next, k) > options_.deviation) return false;
        return true;
    }
    [[nodiscard]] double turnAt(std::size_t last, std::size_t i, std::size_t next) const {
        const auto a = place(last);
        const auto b = place(i);
        const auto c = place(next);
        const auto u = between(a, b);
        const auto w = between(b, c);
        const double across = std::hypot(u.y * w.z - u.z * w.y, u.z * w.x - u.x * w.z, u.x * w.y - u.y * w.x);
        return std::atan2(across, u.x * w.x + u.y * w.y + u.z * w.z);
    }

    const Line3D& line_;
    const ResolvedLine& resolved_;
    const ThinLineOptions& options_;
    std::vector<bool> gone_;
};

/// The vertices that stay. Sides that become one are straight; their grade points stand on it at the same
/// share of its length.
Line3D withOnly(const Line3D& line, const std::vector<std::size_t>& stay) {
    const auto at = placed(line);
    const auto corner = [&](std::size_t k) { return line.vertices[stay[k]].isCorner; };
    const auto distanceOf = [&](std::size_t k) {
        return k < stay.size() ? at.vertices[stay[k]].distance : at.length;
    };
    Line3D out;
    out.closed = line.closed;
    for (std::size_t k = 0; k < stay.size();) {
        std::size_t next = k + 1;
        while (next < stay.size() && !corner(next)) ++next;
        // One side as before, or several that become one?
        const std::size_t end = next < stay.size() ? stay[next] : line.vertices.size();
        bool merged = false;
        for (std::size_t i = stay[k] + 1; i < end; ++i) merged = merged || line.vertices[i].isCorner;
        out.vertices.push_back(line.vertices[stay[k]]);
        for (std::size_t g = k + 1; g < next; ++g) {
            LineVertex v = line.vertices[stay[g]];
            if (merged) v.fraction = (distanceOf(g) - distanceOf(k)) / (distanceOf(next) - distanceOf(k));
            out.vertices.push_back(std::move(v));
        }
        k = next;
    }
    return out;
}

}  // namespace

Result<ThinnedLine> thinnedLine(const Line3D& line, const ResolvedLine& resolved,
                                const ThinLineOptions& options, const Surroundings& around) {
    const bool any = options.deviation > 0 || options.angle.radians() > 0 || options.spacing > 0;
    if (!any || !std::isfinite(options.deviation + options.angle.radians() + options.spacing))
        return badInput("type a deviation, an angle or a spacing above 0");
    Thinning thinning(line, resolved, options);
    const auto gone = thinning.run();
    ThinnedLine out;
    out.before = line.vertices.size();
    std::vector<std::size_t> stay;
    for (std::size_t i = 0; i < gone.size(); ++i) {
        if (gone[i])
            ++out.gone;
        else
            stay.push_back(i);
    }
    for (std::size_t k = 0; k < stay.size(); ++k) {
        const std::size_t next =
            k + 1 < stay.size() ? stay[k + 1] : (line.closed ? gone.size() : stay[k] + 1);
        for (std::size_t i = stay[k] + 1; i < next; ++i)
            out.deviation = std::max(out.deviation, thinning.offStraight(stay[k], next, i));
    }
    std::vector<double> came;
    came.reserve(stay.size());
    for (const std::size_t k : stay) came.push_back(resolved.vertices[k].distance);
    Line3D thin = withOnly(line, stay);
    if (auto problem = validate(thin)) return badInput(std::move(*problem));
    const auto controls = [](const Line3D& l) {
        return static_cast<std::size_t>(std::count_if(l.vertices.begin(), l.vertices.end(),
                                                      [](const LineVertex& v) { return isControl(v.rule); }));
    };
    const std::size_t left = controls(line) - controls(thin);
    out.reshaped = keepHeights(
        std::move(thin),
        [&](std::size_t vertex, double) -> std::optional<Wanted> {
            return wantedFrom(resolved, came[vertex]);
        },
        around);
    out.reshaped.left = left;
    return out;
}

}  // namespace erdwerk::linework
