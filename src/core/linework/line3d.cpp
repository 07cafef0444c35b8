#include "core/linework/line3d.h"

#include <algorithm>
#include <cmath>

namespace erdwerk::linework {

bool isRelative(const HeightRule& rule) {
    return std::holds_alternative<GradeFromPrevious>(rule) || std::holds_alternative<RiseFromPrevious>(rule);
}

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

namespace {

class Resolver {
public:
    Resolver(const Line3D& line, const SurfaceHeight& surfaceHeight)
        : line_(line), surfaceHeight_(surfaceHeight), state_(line.vertices.size(), State::Open) {}

    ResolvedLine run() {
        places();
        for (std::size_t i = 0; i < line_.vertices.size(); ++i) height(i);
        return std::move(out_);
    }

private:
    enum class State { Open, Busy, Done };

    void places() {
        out_.closed = line_.closed;
        out_.path = planPath(line_);
        out_.vertices.resize(line_.vertices.size());
        double base = 0;
        double size = 0;
        std::size_t segment = 0;
        bool started = false;
        for (std::size_t i = 0; i < line_.vertices.size(); ++i) {
            const LineVertex& v = line_.vertices[i];
            ResolvedVertex& r = out_.vertices[i];
            if (v.isCorner) {
                if (started) {
                    base += size;
                    ++segment;
                }
                started = true;
                size = segment < out_.path.size() ? lengthOf(out_.path[segment]) : 0;
                r.place = v.place;
                r.distance = base;
            } else {
                r.place = pointAt(out_.path[segment], v.fraction);
                r.distance = base + size * v.fraction;
            }
        }
        out_.length = geometry::lengthOf(out_.path);
    }

    void height(std::size_t i) {
        if (state_[i] == State::Done) return;
        ResolvedVertex& r = out_.vertices[i];
        if (state_[i] == State::Busy) {
            r.circular = true;
            r.problem = "the height rules go in a circle";
            return;
        }
        state_[i] = State::Busy;
        const HeightRule& rule = line_.vertices[i].rule;
        if (const auto* fixed = std::get_if<FixedHeight>(&rule)) {
            r.height = fixed->height;
        } else if (const auto* surface = std::get_if<OnSurface>(&rule)) {
            onSurface(r, *surface);
        } else if (std::holds_alternative<Interpolated>(rule)) {
            between(i);
        } else if (isRelative(rule)) {
            fromPrevious(i);
        } else {
            r.problem = "no height is given";
        }
        if (r.circular) r.height.reset();
        state_[i] = State::Done;
    }

    void onSurface(ResolvedVertex& r, const OnSurface& rule) {
        const auto h = surfaceHeight_(rule.surface, r.place);
        if (!h) {
            r.problem = h.error().text;
            r.circular = h.error().code == ErrorCode::Circular;
        } else if (!*h) {
            r.problem = "the surface does not reach this place";
        } else {
            r.height = **h + rule.amount;
        }
    }

    void fromPrevious(std::size_t i) {
        ResolvedVertex& r = out_.vertices[i];
        if (i == 0 && !line_.closed) {
            r.problem = "the first point has no previous one to rise from";
            return;
        }
        const std::size_t p = i == 0 ? line_.vertices.size() - 1 : i - 1;
        height(p);
        const ResolvedVertex& before = out_.vertices[p];
        if (!before.height) {
            r.circular = r.circular || before.circular;
            r.problem = before.circular ? before.problem : "the point before has no height";
            return;
        }
        const HeightRule& rule = line_.vertices[i].rule;
        const double run = i == 0 ? out_.length - before.distance : r.distance - before.distance;
        if (const auto* grade = std::get_if<GradeFromPrevious>(&rule))
            r.height = *before.height + grade->grade.riseOverRun() * run;
        else
            r.height = *before.height + std::get<RiseFromPrevious>(rule).rise;
    }

    /// The nearest vertex in one direction whose rule is not Interpolated.
    [[nodiscard]] std::optional<std::size_t> anchor(std::size_t i, bool forward) const {
        const std::size_t n = line_.vertices.size();
        for (std::size_t step = 1; step < n; ++step) {
            if (!line_.closed && (forward ? i + step >= n : step > i)) return std::nullopt;
            const std::size_t k = forward ? (i + step) % n : (i + n - step) % n;
            if (!std::holds_alternative<Interpolated>(line_.vertices[k].rule)) return k;
        }
        return std::nullopt;
    }

    void between(std::size_t i) {
        ResolvedVertex& r = out_.vertices[i];
        const auto back = anchor(i, false);
        const auto ahead = anchor(i, true);
        if (!back || !ahead) {
            r.problem = "there is no height on both sides to interpolate between";
            return;
        }
        height(*back);
        // A rule ahead that is measured from this very point closes a circle.
        height(*ahead);
        const ResolvedVertex& a = out_.vertices[*back];
        const ResolvedVertex& b = out_.vertices[*ahead];
        if (!a.height || !b.height) {
            if (!r.circular) r.problem = "a neighbouring height is missing";
            r.circular = r.circular || a.circular || b.circular;
            return;
        }
        double from = a.distance;
        double to = b.distance;
        if (from > r.distance) from -= out_.length;
        if (to < r.distance) to += out_.length;
        const double t = to > from ? (r.distance - from) / (to - from) : 0;
        r.height = *a.height + t * (*b.height - *a.height);
    }

    const Line3D& line_;
    const SurfaceHeight& surfaceHeight_;
    std::vector<State> state_;
    ResolvedLine out_;
};

}  // namespace

ResolvedLine resolve(const Line3D& line, const SurfaceHeight& surfaceHeight) {
    return Resolver(line, surfaceHeight).run();
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
        // Places on the arc between two vertices; straights add none.
        const auto at =
            std::upper_bound(starts.begin(), starts.end(), v.distance + 1e-9) - starts.begin() - 1;
        const auto& segment = line.path[static_cast<std::size_t>(std::max<std::ptrdiff_t>(at, 0))];
        const double size = lengthOf(segment);
        if (geometry::arcOf(segment) && size > 0) {
            const double from = starts[static_cast<std::size_t>(at)];
            const auto piece = part(segment, (v.distance - from) / size, std::min(1.0, (to - from) / size));
            const auto places = geometry::flattened({piece}, sagitta);
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
