#include "core/linework/edit.h"

#include <algorithm>
#include <cassert>

#include "core/linework/smooth_side.h"

namespace erdwerk::linework {

namespace {

/// Position of the vertex that starts a segment, and one past its last grade point.
struct SegmentRange {
    std::size_t corner;
    std::size_t end;
};

Result<SegmentRange> rangeOf(const Line3D& line, std::size_t segment) {
    const auto corners = cornersOf(line);
    const std::size_t segments = line.closed ? corners.size() : corners.size() - 1;
    if (corners.empty() || segment >= segments) return badInput("the line has no such segment");
    const std::size_t end = segment + 1 < corners.size() ? corners[segment + 1] : line.vertices.size();
    return SegmentRange{corners[segment], end};
}

Result<Line3D> checked(Line3D line) {
    if (auto problem = validate(line)) return badInput(std::move(*problem));
    return line;
}

auto at(Line3D& line, std::size_t i) {
    return line.vertices.begin() + static_cast<std::ptrdiff_t>(i);
}

}  // namespace

namespace {

Result<Line3D> dividedAt(const Line3D& line, std::size_t segment, double fraction) {
    const auto range = rangeOf(line, segment);
    if (!range) return tl::unexpected(range.error());
    if (!(fraction > 0) || !(fraction < 1)) return badInput("there is a corner here already");
    const auto whole = planPath(line)[segment];
    Line3D out = line;
    LineVertex corner;
    corner.place = pointAt(whole, fraction);
    corner.rule = Interpolated{};
    out.vertices[range->corner].through = part(whole, 0, fraction).through;
    corner.through = part(whole, fraction, 1).through;
    std::size_t where = range->corner + 1;
    for (std::size_t i = range->corner + 1; i < range->end; ++i) {
        LineVertex& v = out.vertices[i];
        if (v.fraction == fraction) {
            // The grade point that stands here becomes the corner.
            corner.rule = v.rule;
            corner.curve = v.curve;
            out.vertices[i] = corner;
            for (std::size_t k = i + 1; k < range->end; ++k)
                out.vertices[k].fraction = (out.vertices[k].fraction - fraction) / (1 - fraction);
            return checked(std::move(out));
        }
        if (v.fraction < fraction) {
            v.fraction /= fraction;
            where = i + 1;
        } else {
            v.fraction = (v.fraction - fraction) / (1 - fraction);
        }
    }
    out.vertices.insert(at(out, where), corner);
    return checked(std::move(out));
}

}  // namespace

Result<Line3D> insertCorner(const Line3D& line, std::size_t segment, double fraction) {
    auto out = dividedAt(line, segment, fraction);
    if (!out) return out;
    const auto corners = cornersOf(line);
    const auto joint = jointOf(line, corners[segment]);
    if (!joint) return out;
    // Both parts of a smooth side are smooth: the one that is a single arc is divided in its middle.
    const std::size_t single = *joint == corners[segment] ? segment + 1 : segment;
    auto both = dividedAt(*out, single, 0.5);
    if (!both) return both;
    LineVertex& middle = both->vertices[cornersOf(*both)[single + 1]];
    middle.joint = !isControl(middle.rule);
    return both;
}

Result<Line3D> insertGradePoint(const Line3D& line, std::size_t segment, double fraction, HeightRule rule) {
    const auto range = rangeOf(line, segment);
    if (!range) return tl::unexpected(range.error());
    if (!(fraction > 0) || !(fraction < 1)) return badInput("a grade point stands between two corners");
    std::size_t where = range->corner + 1;
    for (; where < range->end && line.vertices[where].fraction <= fraction; ++where)
        if (line.vertices[where].fraction == fraction) return badInput("there is a grade point here already");
    Line3D out = line;
    LineVertex v;
    v.isCorner = false;
    v.fraction = fraction;
    v.rule = std::move(rule);
    out.vertices.insert(at(out, where), std::move(v));
    return checked(std::move(out));
}

Result<Line3D> moveCorner(const Line3D& line, std::size_t vertex, Vec2 place) {
    if (vertex >= line.vertices.size() || !line.vertices[vertex].isCorner)
        return badInput("pick a corner to move");
    if (jointOf(line, vertex) == vertex)
        return badInput("two arcs of a smooth side meet here; move the corners beside it");
    const auto corners = cornersOf(line);
    const std::size_t n = corners.size();
    const auto k =
        static_cast<std::size_t>(std::find(corners.begin(), corners.end(), vertex) - corners.begin());
    Line3D out = line;
    out.vertices[vertex].place = place;
    // What bends the sides keeps its shape over the new chords.
    const auto rebend = [&](std::size_t from, std::size_t to) {
        LineVertex& start = out.vertices[from];
        start.through = between({line.vertices[from].place, line.vertices[to].place, start.through},
                                start.place, out.vertices[to].place)
                            .through;
    };
    if (k + 1 < n || line.closed) rebend(vertex, corners[(k + 1) % n]);
    if (k > 0 || line.closed) rebend(corners[(k + n - 1) % n], vertex);
    refitSmooth(out, vertex);
    return checked(std::move(out));
}

Result<Line3D> moveGradePoint(const Line3D& line, std::size_t vertex, double fraction) {
    if (vertex >= line.vertices.size() || line.vertices[vertex].isCorner)
        return badInput("pick a grade point to move");
    Line3D out = line;
    out.vertices[vertex].fraction = fraction;
    return checked(std::move(out));
}

Result<Line3D> withoutVertex(const Line3D& line, std::size_t vertex) {
    if (vertex >= line.vertices.size()) return badInput("the line has no such point");
    Line3D out = line;
    if (!line.vertices[vertex].isCorner) {
        out.vertices.erase(at(out, vertex));
        return checked(std::move(out));
    }
    const auto corners = cornersOf(line);
    const std::size_t n = corners.size();
    if (n <= (line.closed ? 3U : 2U))
        return badInput(line.closed ? "a closed line needs three corners" : "a line needs two corners");
    const auto k =
        static_cast<std::size_t>(std::find(corners.begin(), corners.end(), vertex) - corners.begin());
    const std::size_t end = k + 1 < n ? corners[k + 1] : line.vertices.size();
    if (!line.closed && (k == 0 || k + 1 == n)) {
        // An end takes its grade points with it.
        const std::size_t from = k == 0 ? 0 : corners[k - 1] + 1;
        const std::size_t to = k == 0 ? end : line.vertices.size();
        out.vertices.erase(at(out, from), at(out, to));
        if (k + 1 == n) out.vertices.back().through.reset();
        return checked(std::move(out));
    }
    if (k == 0) {  // closed: begin at the next corner instead
        std::rotate(out.vertices.begin(), at(out, corners[1]), out.vertices.end());
        return withoutVertex(out, vertex + line.vertices.size() - corners[1]);
    }
    const Path path = planPath(line);
    const std::size_t before = corners[k - 1];
    const double first = lengthOf(path[k - 1]);
    const double second = lengthOf(path[k]);
    const double share = first + second > 0 ? first / (first + second) : 0.5;
    for (std::size_t i = before + 1; i < vertex; ++i) out.vertices[i].fraction *= share;
    for (std::size_t i = vertex + 1; i < end; ++i)
        out.vertices[i].fraction = share + out.vertices[i].fraction * (1 - share);
    out.vertices[before].through.reset();
    out.vertices.erase(at(out, vertex));
    return checked(std::move(out));
}

Result<Line3D> removeVertex(const Line3D& line, std::size_t vertex) {
    if (vertex >= line.vertices.size() || !line.vertices[vertex].isCorner) return withoutVertex(line, vertex);
    const auto corners = cornersOf(line);
    const std::size_t n = corners.size();
    const auto k =
        static_cast<std::size_t>(std::find(corners.begin(), corners.end(), vertex) - corners.begin());
    const auto after = jointOf(line, vertex);
    const auto before = k > 0 || line.closed ? jointOf(line, corners[(k + n - 1) % n]) : std::nullopt;
    if (after == vertex || (!after && !before)) return withoutVertex(line, vertex);
    // One smooth side in place of two; at an end the smooth side goes too.
    const bool end = !line.closed && (k == 0 || k + 1 == n);
    std::optional<Vec2> joint;
    if (after && before) joint = line.vertices[*after].place;
    if (end) joint = line.vertices[after ? *after : *before].place;
    const Vec2 beside = line.vertices[corners[k == 0 ? n - 1 : k - 1]].place;
    auto out = withoutVertex(line, vertex);
    const auto cornerAt = [&](Vec2 place) {
        const auto& all = out->vertices;
        const auto it = std::find_if(all.begin(), all.end(),
                                     [&](const LineVertex& v) { return v.isCorner && v.place == place; });
        return static_cast<std::size_t>(it - all.begin());
    };
    if (out && joint) out = withoutVertex(*out, cornerAt(*joint));
    if (!out) return out;
    const std::size_t near =
        cornerAt(end ? out->vertices[k == 0 ? 0 : cornersOf(*out).back()].place : beside);
    refitSmooth(*out, near < out->vertices.size() ? near : 0);
    return checked(std::move(*out));
}

Result<Line3D> setRule(const Line3D& line, std::size_t vertex, HeightRule rule) {
    if (vertex >= line.vertices.size()) return badInput("the line has no such point");
    Line3D out = line;
    out.vertices[vertex].rule = std::move(rule);
    return out;
}

Result<Line3D> appendCorner(const Line3D& line, Vec2 place, HeightRule rule) {
    if (line.closed) return badInput("a closed line has no end to continue");
    Line3D out = line;
    LineVertex v;
    v.place = place;
    v.rule = std::move(rule);
    out.vertices.push_back(v);
    return out;
}

Result<Line3D> join(const Line3D& a, const Line3D& b, double tolerance) {
    if (a.closed || b.closed) return badInput("a closed line has no end to join");
    if (a.vertices.empty() || b.vertices.empty()) return badInput("pick two lines to join");
    Line3D out = a;
    auto from = b.vertices.begin();
    if (geometry::distance(a.vertices.back().place, b.vertices.front().place) <= tolerance) {
        out.vertices.back().through = from->through;
        if (std::holds_alternative<NoHeight>(out.vertices.back().rule)) out.vertices.back().rule = from->rule;
        ++from;
    }
    out.vertices.insert(out.vertices.end(), from, b.vertices.end());
    return checked(std::move(out));
}

Line3D reversed(const Line3D& line) {
    const std::size_t n = line.vertices.size();
    const auto corners = cornersOf(line);
    std::vector<std::optional<Vec2>> through(n);
    for (std::size_t k = 0; k < corners.size(); ++k) {
        const bool wraps = k + 1 == corners.size();
        if (!wraps || line.closed) through[corners[wraps ? 0 : k + 1]] = line.vertices[corners[k]].through;
    }
    Line3D out;
    out.closed = line.closed;
    // A closed line keeps its first corner first.
    for (std::size_t k = 0; k < n; ++k) {
        const std::size_t i = line.closed ? (n - k) % n : n - 1 - k;
        LineVertex v = line.vertices[i];
        v.rule = linework::reversed(v.rule);
        v.through = v.isCorner ? through[i] : std::nullopt;
        if (!v.isCorner) v.fraction = 1 - v.fraction;
        out.vertices.push_back(v);
    }
    return out;
}

Line3D frozen(const Line3D& line, const ResolvedLine& resolved, const std::vector<bool>& marked) {
    struct OnSide {
        double fraction;
        LineVertex vertex;
    };
    std::vector<double> starts;
    double base = 0;
    for (const auto& s : resolved.path) {
        starts.push_back(base);
        base += lengthOf(s);
    }
    std::vector<std::vector<OnSide>> sides(starts.size());
    std::vector<LineVertex> corners;
    for (std::size_t i = 0; i < line.vertices.size(); ++i) {
        LineVertex v = line.vertices[i];
        std::size_t side = segmentOf(line, i);
        if (marked[i]) {
            const ResolvedVertex& r = resolved.vertices[i];
            if (standing(v.rule) != Standing::Own && r.height) {
                // It stays where it was found, maybe on another side.
                side = static_cast<std::size_t>(std::upper_bound(starts.begin(), starts.end(), r.distance) -
                                                starts.begin()) -
                       1;
                const double length = lengthOf(resolved.path[side]);
                v.fraction = length > 0 ? (r.distance - starts[side]) / length : 0.5;
            }
            v.rule = r.height ? HeightRule{FixedHeight{*r.height}} : HeightRule{NoHeight{}};
            if (!r.height) v.curve.reset();
        }
        if (v.isCorner)
            corners.push_back(v);
        else
            sides[side].push_back({v.fraction, v});
    }
    constexpr double least = 1e-12;
    Line3D out;
    out.closed = line.closed;
    for (std::size_t c = 0; c < corners.size(); ++c) {
        out.vertices.push_back(corners[c]);
        if (c >= sides.size()) continue;
        std::stable_sort(sides[c].begin(), sides[c].end(),
                         [](const OnSide& a, const OnSide& b) { return a.fraction < b.fraction; });
        double last = 0;
        for (auto& g : sides[c]) {
            last = g.vertex.fraction = std::clamp(g.fraction, last + least, 1 - least);
            out.vertices.push_back(std::move(g.vertex));
        }
    }
    return out;
}

}  // namespace erdwerk::linework
