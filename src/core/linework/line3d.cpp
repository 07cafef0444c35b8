#include "core/linework/line3d.h"

#include <algorithm>
#include <cmath>

namespace erdwerk::linework {

std::optional<std::string> validate(const Line3D& line) {
    const auto corners = cornersOf(line);
    if (corners.size() < 2) return "a line needs at least two corners";
    if (!line.vertices.front().isCorner) return "the first vertex must be a corner";
    if (!line.closed && !line.vertices.back().isCorner) return "the last vertex must be a corner";
    double last = 0;
    for (const LineVertex& v : line.vertices) {
        if (v.isCorner) {
            if (!std::isfinite(v.place.x) || !std::isfinite(v.place.y))
                return "a corner is not a finite place";
            last = 0;
        } else {
            if (!(v.fraction > last) || !(v.fraction < 1))
                return "grade points must stand in order between their corners";
            last = v.fraction;
        }
    }
    return std::nullopt;
}

Line3D lineThrough(const std::vector<Vec2>& corners, const std::vector<std::optional<double>>& heights,
                   bool closed) {
    Line3D line;
    line.closed = closed;
    for (std::size_t i = 0; i < corners.size(); ++i) {
        LineVertex v;
        v.place = corners[i];
        if (i < heights.size() && heights[i]) v.rule = FixedHeight{*heights[i]};
        line.vertices.push_back(v);
    }
    return line;
}

std::vector<std::size_t> cornersOf(const Line3D& line) {
    std::vector<std::size_t> out;
    for (std::size_t i = 0; i < line.vertices.size(); ++i)
        if (line.vertices[i].isCorner) out.push_back(i);
    return out;
}

Path planPath(const Line3D& line) {
    Path path;
    const auto corners = cornersOf(line);
    const std::size_t n = corners.size();
    for (std::size_t k = 0; k + (line.closed ? 0 : 1) < n; ++k) {
        const LineVertex& from = line.vertices[corners[k]];
        path.push_back({from.place, line.vertices[corners[(k + 1) % n]].place, from.through});
    }
    return path;
}

std::optional<std::size_t> controlOf(const Line3D& line, std::size_t i, bool ahead) {
    const std::size_t n = line.vertices.size();
    for (std::size_t step = 1; step < n; ++step) {
        if (!line.closed && (ahead ? i + step >= n : step > i)) return std::nullopt;
        const std::size_t k = ahead ? (i + step) % n : (i + n - step) % n;
        if (isControl(line.vertices[k].rule)) return k;
    }
    return std::nullopt;
}

std::size_t segmentOf(const Line3D& line, std::size_t vertex) {
    std::size_t corners = 0;
    for (std::size_t i = 0; i <= vertex && i < line.vertices.size(); ++i)
        if (line.vertices[i].isCorner) ++corners;
    return corners == 0 ? 0 : corners - 1;
}

bool ResolvedLine::complete() const {
    return std::all_of(vertices.begin(), vertices.end(),
                       [](const ResolvedVertex& v) { return v.height.has_value(); });
}

std::size_t ResolvedLine::positionOf(std::size_t vertex) const {
    if (order.empty()) return vertex;
    return static_cast<std::size_t>(std::find(order.begin(), order.end(), vertex) - order.begin());
}

std::optional<Grade> ResolvedLine::gradeAhead(std::size_t i) const {
    const std::size_t next = positionOf(i) + 1;
    const bool wraps = next >= vertices.size();
    if (wraps && !closed) return std::nullopt;
    const ResolvedVertex& a = vertices[i];
    const ResolvedVertex& b = vertices[ordered(wraps ? 0 : next)];
    const double run = (wraps ? length : b.distance) - a.distance;
    if (!a.height || !b.height || run <= 0) return std::nullopt;
    return Grade::riseOverRun((*b.height - *a.height) / run);
}

ResolvedLine placed(const Line3D& line) {
    ResolvedLine out;
    out.closed = line.closed;
    out.path = planPath(line);
    out.vertices.resize(line.vertices.size());
    double base = 0;
    double size = 0;
    std::size_t segment = 0;
    bool started = false;
    for (std::size_t i = 0; i < line.vertices.size(); ++i) {
        const LineVertex& v = line.vertices[i];
        ResolvedVertex& r = out.vertices[i];
        if (v.isCorner) {
            if (started) {
                base += size;
                ++segment;
            }
            started = true;
            size = segment < out.path.size() ? lengthOf(out.path[segment]) : 0;
            r.place = v.place;
            r.distance = base;
        } else {
            r.place = pointAt(out.path[segment], v.fraction);
            r.distance = base + size * v.fraction;
        }
    }
    out.length = geometry::lengthOf(out.path);
    return out;
}

namespace {

/// Nearer than this along the line is the same place, in project units.
constexpr double samePlace = 1e-9;

/// The vertical curve over a distance, and how far in; null when there is none.
const ResolvedCurve* curveOver(const ResolvedLine& line, double distance, double& in) {
    if (line.curves.empty()) return nullptr;
    const auto covers = [&](const ResolvedCurve& c, double at) {
        in = at - c.start;
        return in >= 0 && in <= c.length;
    };
    const auto after = std::upper_bound(line.curves.begin(), line.curves.end(), distance,
                                        [](double at, const ResolvedCurve& c) { return at < c.start; });
    if (after != line.curves.begin() && covers(*std::prev(after), distance)) return &*std::prev(after);
    if (!line.closed) return nullptr;
    if (covers(line.curves.front(), distance - line.length)) return &line.curves.front();
    if (covers(line.curves.back(), distance + line.length)) return &line.curves.back();
    return nullptr;
}

/// On the straights between the vertices.
std::optional<double> tangentHeight(const ResolvedLine& line, double distance) {
    const std::size_t n = line.vertices.size();
    // The last vertex that does not stand behind.
    std::size_t low = 0;
    std::size_t high = n;
    while (low < high) {
        const std::size_t middle = (low + high) / 2;
        if (line.vertices[line.ordered(middle)].distance <= distance)
            low = middle + 1;
        else
            high = middle;
    }
    const auto at = [&](std::size_t k) -> const ResolvedVertex& { return line.vertices[line.ordered(k)]; };
    if (low > 0 && distance - at(low - 1).distance <= samePlace && at(low - 1).height)
        return at(low - 1).height;
    if (low < n && at(low).distance - distance <= samePlace && at(low).height) return at(low).height;
    if (low == 0 || (low == n && !line.closed)) return std::nullopt;
    const ResolvedVertex& a = at(low - 1);
    const ResolvedVertex& b = at(low == n ? 0 : low);
    const double end = low == n ? line.length : b.distance;
    if (!a.height || !b.height || distance > end + samePlace) return std::nullopt;
    return *a.height + (*b.height - *a.height) * (distance - a.distance) / (end - a.distance);
}

}  // namespace

std::optional<double> heightAt(const ResolvedLine& line, double distance) {
    const auto straight = tangentHeight(line, distance);
    double in = 0;
    const auto* curve = straight ? curveOver(line, distance, in) : nullptr;
    return curve == nullptr ? straight : curve->height(in);
}

namespace {

/// Where a stretch of the line between two vertices is cut: distances strictly inside, in order.
class Cuts {
public:
    Cuts(const ResolvedLine& line, double sagitta, std::optional<double> step)
        : line_(line), sagitta_(sagitta), step_(step) {
        for (const auto& s : line.path) {
            starts_.push_back(base_);
            base_ += lengthOf(s);
        }
    }

    [[nodiscard]] std::vector<double> between(double from, double to) const {
        std::vector<double> out;
        addArc(from, to, out);
        const auto& curves = line_.curves;
        const auto first = std::partition_point(curves.begin(), curves.end(),
                                                [&](const ResolvedCurve& c) { return c.end() <= from; });
        for (auto c = first; c != curves.end() && c->start < to; ++c) addCurve(*c, 0, from, to, out);
        if (line_.closed && !curves.empty()) {  // over the beginning
            addCurve(curves.front(), line_.length, from, to, out);
            addCurve(curves.back(), -line_.length, from, to, out);
        }
        std::sort(out.begin(), out.end());
        out.erase(std::unique(out.begin(), out.end(), [](double a, double b) { return b - a < samePlace; }),
                  out.end());
        std::erase_if(out, [&](double d) { return d - from < samePlace || to - d < samePlace; });
        return out;
    }
    /// On the element that holds the stretch from `from` on.
    [[nodiscard]] Vec2 place(double from, double at) const {
        const std::size_t k = segmentAt(from);
        const double size = lengthOf(line_.path[k]);
        return pointAt(line_.path[k], size > 0 ? std::clamp((at - starts_[k]) / size, 0.0, 1.0) : 0.0);
    }

private:
    [[nodiscard]] std::size_t segmentAt(double from) const {
        const auto it = std::upper_bound(starts_.begin(), starts_.end(), from + samePlace);
        return it == starts_.begin() ? 0 : static_cast<std::size_t>(it - starts_.begin()) - 1;
    }
    void addArc(double from, double to, std::vector<double>& out) const {
        const std::size_t k = segmentAt(from);
        if (!isCurved(line_.path[k])) return;
        const double size = lengthOf(line_.path[k]);
        const auto piece = part(line_.path[k], std::max(0.0, (from - starts_[k]) / size),
                                std::min(1.0, (to - starts_[k]) / size));
        const std::size_t chords = flattened(piece, sagitta_).size() - 1;
        for (std::size_t i = 1; i < chords; ++i)
            out.push_back(from + (to - from) * static_cast<double>(i) / static_cast<double>(chords));
    }
    void addCurve(const ResolvedCurve& c, double turn, double from, double to,
                  std::vector<double>& out) const {
        const double start = c.start + turn;
        if (start >= to || start + c.length <= from) return;
        // A chord of a parabola of curvature change / length is off by change * chord^2 / (8 * length).
        const double change = std::abs(c.out.riseOverRun() - c.in.riseOverRun());
        const double most = step_ ? *step_ : std::sqrt(8 * sagitta_ * c.length / change);
        const auto pieces =
            static_cast<std::size_t>(std::clamp(std::ceil(c.length / most - samePlace), 1.0, 100000.0));
        for (std::size_t i = 0; i <= pieces; ++i) {
            const double chord = step_ ? *step_ : c.length / static_cast<double>(pieces);
            const double at = start + std::min(c.length, chord * static_cast<double>(i));
            if (at > from && at < to) out.push_back(at);
        }
    }

    const ResolvedLine& line_;
    double sagitta_;
    std::optional<double> step_;
    std::vector<double> starts_;
    double base_ = 0;
};

}  // namespace

std::vector<std::vector<Vec3>> runsWithHeights(const ResolvedLine& line, double sagitta,
                                               std::optional<double> step) {
    std::vector<std::vector<Vec3>> runs;
    std::vector<Vec3> run;
    const auto finish = [&] {
        if (run.size() > 1) runs.push_back(run);
        run.clear();
    };
    const auto add = [&](Vec2 place, double distance, double straight) {
        double in = 0;
        const auto* curve = curveOver(line, distance, in);
        run.push_back({place.x, place.y, curve != nullptr ? curve->height(in) : straight});
    };
    const Cuts cuts(line, sagitta, step);
    const std::size_t n = line.vertices.size();
    for (std::size_t i = 0; i < n; ++i) {
        const ResolvedVertex& v = line.vertices[line.ordered(i)];
        if (!v.height) {
            finish();
            continue;
        }
        add(v.place, v.distance, *v.height);
        if (i + 1 == n && !line.closed) break;
        const ResolvedVertex& next = line.vertices[line.ordered((i + 1) % n)];
        if (!next.height) continue;
        const double to = i + 1 < n ? next.distance : line.length;
        for (const double d : cuts.between(v.distance, to))
            add(cuts.place(v.distance, d), d,
                *v.height + (d - v.distance) / (to - v.distance) * (*next.height - *v.height));
        if (i + 1 == n) add(next.place, line.length, *next.height);
    }
    finish();
    return runs;
}

}  // namespace erdwerk::linework
