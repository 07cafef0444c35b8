#include "core/linework/thin.h"

#include <algorithm>
#include <cmath>

#include "core/linework/edit.h"

namespace erdwerk::linework {

namespace {

/// Which vertices go.
class Thinning {
public:
    Thinning(const Line3D& line, const ResolvedLine& resolved, const ThinOptions& options)
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
        const geometry::Vec3 ab{b.x - a.x, b.y - a.y, b.z - a.z};
        const geometry::Vec3 ap{p.x - a.x, p.y - a.y, p.z - a.z};
        const double size = ab.x * ab.x + ab.y * ab.y + ab.z * ab.z;
        const double t =
            size > 0 ? std::clamp((ap.x * ab.x + ap.y * ab.y + ap.z * ab.z) / size, 0.0, 1.0) : 0.0;
        return std::hypot(ap.x - t * ab.x, ap.y - t * ab.y, ap.z - t * ab.z);
    }

private:
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
        const geometry::Vec3 u{b.x - a.x, b.y - a.y, b.z - a.z};
        const geometry::Vec3 w{c.x - b.x, c.y - b.y, c.z - b.z};
        const double across = std::hypot(u.y * w.z - u.z * w.y, u.z * w.x - u.x * w.z, u.x * w.y - u.y * w.x);
        return std::atan2(across, u.x * w.x + u.y * w.y + u.z * w.z);
    }

    const Line3D& line_;
    const ResolvedLine& resolved_;
    const ThinOptions& options_;
    std::vector<bool> gone_;
};

}  // namespace

Result<Thinned> thinned(const Line3D& line, const ResolvedLine& resolved, const ThinOptions& options,
                        const Surroundings& around) {
    const bool any = options.deviation > 0 || options.angle.radians() > 0 || options.spacing > 0;
    if (!any || !std::isfinite(options.deviation + options.angle.radians() + options.spacing))
        return badInput("type a deviation, an angle or a spacing above 0");
    Thinning thinning(line, resolved, options);
    const auto gone = thinning.run();
    Thinned out;
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
    Line3D thin = line;
    std::vector<double> came;
    for (const auto& r : resolved.vertices) came.push_back(r.distance);
    const auto drop = [&](std::size_t i) {
        auto next = removeVertex(thin, i);
        if (!next) return;
        thin = std::move(*next);
        came.erase(came.begin() + static_cast<std::ptrdiff_t>(i));
    };
    std::vector<bool> going = gone;
    // Grade points go first: their sides are still there.
    for (const bool corners : {false, true})
        for (std::size_t i = thin.vertices.size(); i-- > 0;)
            if (going[i] && thin.vertices[i].isCorner == corners) {
                drop(i);
                going.erase(going.begin() + static_cast<std::ptrdiff_t>(i));
            }
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
