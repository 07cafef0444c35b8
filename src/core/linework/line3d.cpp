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

std::optional<Grade> ResolvedLine::gradeAhead(std::size_t i) const {
    const bool wraps = i + 1 >= vertices.size();
    if (wraps && !closed) return std::nullopt;
    const ResolvedVertex& a = vertices[i];
    const ResolvedVertex& b = vertices[wraps ? 0 : i + 1];
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

std::optional<double> heightAt(const ResolvedLine& line, double distance) {
    const std::size_t n = line.vertices.size();
    for (std::size_t i = 0; i + (line.closed ? 0 : 1) < n; ++i) {
        const ResolvedVertex& a = line.vertices[i];
        const ResolvedVertex& b = line.vertices[(i + 1) % n];
        const double end = i + 1 < n ? b.distance : line.length;
        if (distance < a.distance || distance > end) continue;
        if (!a.height || !b.height) return std::nullopt;
        if (end == a.distance) return a.height;
        return *a.height + (*b.height - *a.height) * (distance - a.distance) / (end - a.distance);
    }
    return std::nullopt;
}

std::vector<std::vector<Vec3>> runsWithHeights(const ResolvedLine& line, double sagitta) {
    std::vector<std::vector<Vec3>> runs;
    std::vector<Vec3> run;
    const auto finish = [&] {
        if (run.size() > 1) runs.push_back(run);
        run.clear();
    };
    std::vector<double> starts;
    double base = 0;
    for (const auto& s : line.path) {
        starts.push_back(base);
        base += lengthOf(s);
    }
    const std::size_t n = line.vertices.size();
    for (std::size_t i = 0; i < n; ++i) {
        const ResolvedVertex& v = line.vertices[i];
        if (!v.height) {
            finish();
            continue;
        }
        run.push_back({v.place.x, v.place.y, *v.height});
        if (i + 1 == n && !line.closed) break;
        const ResolvedVertex& next = line.vertices[(i + 1) % n];
        if (!next.height) continue;
        const double to = i + 1 < n ? next.distance : line.length;
        // Places on the curve between two vertices; straights add none.
        const auto at =
            std::upper_bound(starts.begin(), starts.end(), v.distance + 1e-9) - starts.begin() - 1;
        const auto& segment = line.path[static_cast<std::size_t>(std::max<std::ptrdiff_t>(at, 0))];
        const double size = lengthOf(segment);
        if (size > 0) {
            const double from = starts[static_cast<std::size_t>(at)];
            const auto piece = part(segment, (v.distance - from) / size, std::min(1.0, (to - from) / size));
            const auto places = flattened(piece, sagitta);
            for (std::size_t k = 1; k + 1 < places.size(); ++k) {
                const double t = static_cast<double>(k) / static_cast<double>(places.size() - 1);
                run.push_back({places[k].x, places[k].y, *v.height + t * (*next.height - *v.height)});
            }
        }
        if (i + 1 == n) run.push_back({next.place.x, next.place.y, *next.height});
    }
    finish();
    return runs;
}

}  // namespace erdwerk::linework
