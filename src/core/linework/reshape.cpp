#include "core/linework/reshape.h"

#include <algorithm>
#include <cmath>

#include "core/linework/edit.h"
#include "core/linework/pieces.h"

namespace erdwerk::linework {

namespace {

using geometry::cross;
using geometry::directionOf;
using geometry::dot;
using geometry::Segment;

constexpr double tangentWithin = 1e-6;  ///< radians

/// The side before and after a corner, as positions in the plan path; nothing at an end of an open line.
std::optional<std::pair<std::size_t, std::size_t>> sidesOf(const Line3D& line, std::size_t corner) {
    const auto corners = cornersOf(line);
    const auto it = std::find(corners.begin(), corners.end(), corner);
    if (it == corners.end()) return std::nullopt;
    const auto k = static_cast<std::size_t>(it - corners.begin());
    if (!line.closed && (k == 0 || k + 1 == corners.size())) return std::nullopt;
    return std::pair{(k + corners.size() - 1) % corners.size(), k};
}

double startOf(const geometry::Path& path, std::size_t segment) {
    double out = 0;
    for (std::size_t s = 0; s < segment; ++s) out += lengthOf(path[s]);
    return out;
}

std::size_t controlsOf(const Line3D& line) {
    return static_cast<std::size_t>(std::count_if(line.vertices.begin(), line.vertices.end(),
                                                  [](const LineVertex& v) { return isControl(v.rule); }));
}

double turn(Vec2 in, Vec2 out) {
    return std::atan2(cross(in, out), dot(in, out));
}

Vec2 unit(Vec2 v) {
    const double size = geometry::length(v);
    return size > 0 ? v * (1 / size) : Vec2{};
}

/// The closed line from another of its corners on.
Line3D from(const Line3D& line, std::size_t vertex) {
    Line3D out = line;
    std::rotate(out.vertices.begin(), out.vertices.begin() + static_cast<std::ptrdiff_t>(vertex),
                out.vertices.end());
    return out;
}

/// A vertex for each of those before that stands on; nothing for a new one.
using Came = std::vector<std::optional<double>>;

/// What keeps the heights that vertices had at the distances they came from.
WantedHeight asBefore(const ResolvedLine& before, const Came& came) {
    return [&before, &came](std::size_t vertex, double) -> std::optional<Wanted> {
        if (vertex >= came.size() || !came[vertex]) return std::nullopt;
        return wantedFrom(before, *came[vertex]);
    };
}

}  // namespace

Result<Reshaped> roundCorner(const Line3D& line, const ResolvedLine& resolved, std::size_t vertex,
                             double radius, const Surroundings& around) {
    const auto sides = sidesOf(line, vertex);
    if (!sides) return badInput("pick a corner between two sides");
    if (!(radius > 0) || !std::isfinite(radius)) return badInput("a radius is above 0");
    const Segment& in = resolved.path[sides->first];
    const Segment& out = resolved.path[sides->second];
    if (isCurved(in) || isCurved(out)) return badInput("only a corner between two straight sides is rounded");
    const Vec2 u = unit(in.end - in.start);
    const Vec2 w = unit(out.end - out.start);
    const double delta = turn(u, w);
    if (std::abs(delta) < tangentWithin) return badInput("the line does not turn at this corner");
    if (M_PI - std::abs(delta) < tangentWithin) return badInput("the line turns back at this corner");
    const double tangent = radius * std::tan(std::abs(delta) / 2);
    const double room = std::min(lengthOf(in), lengthOf(out));
    if (tangent > room + cutsMeet)
        return badInput("the radius does not fit the sides; at most " +
                        std::to_string(room / std::tan(std::abs(delta) / 2)) + " here");

    const double here = resolved.vertices[vertex].distance;
    const auto lost = [&](double d) {
        const double off = std::abs(d - here);
        return std::min(off, line.closed ? resolved.length - off : off) <= tangent + cutsMeet;
    };
    if (auto fixed = withPlacesFixed(line, resolved, lost); !(fixed.line == line)) {
        const auto corner = static_cast<std::size_t>(
            std::count_if(line.vertices.begin(), line.vertices.begin() + static_cast<std::ptrdiff_t>(vertex),
                          [](const LineVertex& v) { return v.isCorner; }));
        auto round = roundCorner(fixed.line, resolve(fixed.line, around), cornersOf(fixed.line)[corner],
                                 radius, around);
        if (round) round->settled.insert(round->settled.end(), fixed.settled.begin(), fixed.settled.end());
        return round;
    }
    // The arc stands between two corners of the list.
    const bool wraps = line.closed && (vertex == 0 || sides->second + 1 == resolved.path.size());
    if (wraps) {
        const std::size_t start = cornersOf(line)[sides->first];
        const Line3D turned = from(line, start);
        const std::size_t n = line.vertices.size();
        // Rules that find their place do so in any order of the list.
        return roundCorner(turned, resolve(turned, around), (vertex + n - start) % n, radius, around);
    }
    const double at = startOf(resolved.path, sides->second);
    const auto cut = withCurveCut(line, resolved, at - tangent);
    const auto both =
        withCurveCut(cut.line, cut.line == line ? resolved : resolve(cut.line, around), at + tangent);
    Line3D next = both.line;
    cornerAt(next, at + tangent);
    const std::size_t begin = cornerAt(next, at - tangent);
    const std::size_t end = cornerAt(next, at + tangent);
    const std::size_t before = controlsOf(next);
    const Vec2 corner = in.end;
    const Vec2 bisector = unit(w - u);
    next.vertices[begin].through = corner + bisector * (radius / std::cos(delta / 2) - radius);
    next.vertices.erase(next.vertices.begin() + static_cast<std::ptrdiff_t>(begin) + 1,
                        next.vertices.begin() + static_cast<std::ptrdiff_t>(end));
    const double shorter = 2 * tangent - radius * std::abs(delta);
    const std::size_t left = before - controlsOf(next);
    auto kept = keepHeights(std::move(next),
                            [&](std::size_t, double d) -> std::optional<Wanted> {
                                return wantedFrom(resolved, d > at - tangent + cutsMeet
                                                                ? std::min(resolved.length, d + shorter)
                                                                : d);
                            },
                            around, {begin, begin + 1});
    for (const auto* settled : {&cut.settled, &both.settled})
        kept.settled.insert(kept.settled.end(), settled->begin(), settled->end());
    kept.left = left;
    return kept;
}

namespace {

/// Where an arc's tangents meet, when both neighbours are straights that touch it.
std::optional<Vec2> tangentsMeet(const Segment& in, const geometry::Arc& arc, const Segment& out) {
    if (isCurved(in) || isCurved(out)) return std::nullopt;
    const auto same = [](Angle a, Angle b) {
        return std::abs(std::remainder(a.radians() - b.radians(), 2 * M_PI)) < tangentWithin;
    };
    if (!same(tangentAt(in, 1), arc.direction(0)) || !same(arc.direction(1), tangentAt(out, 0)))
        return std::nullopt;
    if (std::abs(arc.sweep.radians()) > M_PI - tangentWithin) return std::nullopt;
    const Vec2 u = directionOf(arc.direction(0));
    return arc.start + u * (arc.radius * std::tan(std::abs(arc.sweep.radians()) / 2));
}

/// Grade points of a side that got another length, its far or near end moved: those that fit keep their
/// place.
void keepPlaces(Line3D& line, std::size_t corner, double before, double after, bool nearEndMoved) {
    for (std::size_t i = corner + 1; i < line.vertices.size() && !line.vertices[i].isCorner;) {
        const double d = line.vertices[i].fraction * before;
        const double fraction = (nearEndMoved ? d - (before - after) : d) / after;
        if (fraction > 0 && fraction < 1) {
            line.vertices[i].fraction = fraction;
            ++i;
        } else {
            line.vertices.erase(line.vertices.begin() + static_cast<std::ptrdiff_t>(i));
        }
    }
}

/// An arc between two straights that touch it, and the line with another radius for it.
class TangentArc {
public:
    TangentArc(const Line3D& line, const ResolvedLine& resolved, std::size_t segment,
               const geometry::Arc& arc, Vec2 meeting)
        : line_(line), resolved_(resolved), segment_(segment), arc_(arc), meeting_(meeting) {}

    Result<Reshaped> with(double radius, const Surroundings& around) {
        const auto& before = resolved_.path[segment_ - 1];
        const auto& after = resolved_.path[segment_ + 1];
        const double half = std::abs(arc_.sweep.radians()) / 2;
        const double tangent = radius * std::tan(half);
        const double first = geometry::distance(before.start, meeting_);
        const double last = geometry::distance(meeting_, after.end);
        if (tangent > std::min(first, last) - cutsMeet)
            return badInput("the radius does not fit the sides; below " +
                            std::to_string(std::min(first, last) / std::tan(half)) + " here");
        inMore_ = first - tangent - lengthOf(before);
        outMore_ = last - tangent - lengthOf(after);
        const double from = startOf(resolved_.path, segment_) + std::min(0.0, inMore_);
        const double to = startOf(resolved_.path, segment_ + 1) - std::min(0.0, outMore_);
        for (const auto& c : resolved_.curves)
            if (c.end() > from + cutsMeet && c.start < to - cutsMeet)
                return badInput("a vertical curve lies over the arc; take it away first");
        Line3D next = moved(tangent, radius, half);
        const auto place = placed(next);
        arcStart_ = startOf(place.path, segment_);
        arcEnd_ = arcStart_ + lengthOf(place.path[segment_]);
        const std::size_t left = controlsOf(line_) - controlsOf(next);
        const auto corners = cornersOf(next);
        auto kept = keepHeights(std::move(next), [this](std::size_t, double d) { return wanted(d); }, around,
                                {corners[segment_], corners[(segment_ + 1) % corners.size()]});
        kept.left = left;
        return kept;
    }

private:
    [[nodiscard]] Line3D moved(double tangent, double radius, double half) const {
        const auto corners = cornersOf(line_);
        const std::size_t begin = corners[segment_];
        const std::size_t end = corners[(segment_ + 1) % corners.size()];
        const Vec2 u = directionOf(arc_.direction(0));
        const Vec2 w = directionOf(arc_.direction(1));
        Line3D next = line_;
        next.vertices[begin].place = meeting_ - u * tangent;
        next.vertices[end].place = meeting_ + w * tangent;
        next.vertices[begin].through = meeting_ + unit(w - u) * (radius / std::cos(half) - radius);
        // The later one in the list first, for the positions.
        const double in = lengthOf(resolved_.path[segment_ - 1]);
        const double out = lengthOf(resolved_.path[segment_ + 1]);
        keepPlaces(next, end, out, out + outMore_, true);
        keepPlaces(next, corners[segment_ - 1], in, in + inMore_, false);
        return next;
    }
    /// On the straights all heights stay, also where these are longer now: there the grade goes on.
    [[nodiscard]] std::optional<Wanted> wanted(double d) const {
        const double oldStart = startOf(resolved_.path, segment_);
        const double oldEnd = oldStart + arc_.length();
        if (d <= arcStart_ - cutsMeet) return wantedFrom(resolved_, d);
        if (std::abs(d - arcStart_) <= cutsMeet) return inMore_ > 0 ? on(oldStart, -1, inMore_) : fixed(d);
        if (d < arcEnd_ - cutsMeet) return std::nullopt;
        if (d <= arcEnd_ + cutsMeet) return outMore_ > 0 ? on(oldEnd, 1, outMore_) : fixed(oldEnd - outMore_);
        return wantedFrom(resolved_, std::min(resolved_.length, d - arcEnd_ + oldEnd - outMore_));
    }
    [[nodiscard]] Wanted fixed(double old) const {
        const auto height = heightAt(resolved_, old);
        return {height, height};
    }
    [[nodiscard]] Wanted on(double from, double towards, double way) const {
        constexpr double step = 1e-2;
        const auto height = heightAt(resolved_, from);
        const auto inside = heightAt(resolved_, from + towards * step);
        if (!height || !inside) return {height, height};
        const double there = *height - (*inside - *height) / step * way;
        return {there, there};
    }

    const Line3D& line_;
    const ResolvedLine& resolved_;
    std::size_t segment_;
    const geometry::Arc& arc_;
    Vec2 meeting_;
    double inMore_ = 0;   ///< how much longer the straight before is
    double outMore_ = 0;  ///< and the one after
    double arcStart_ = 0;
    double arcEnd_ = 0;
};

}  // namespace

Result<Reshaped> setRadius(const Line3D& line, const ResolvedLine& resolved, std::size_t segment,
                           double radius, const Surroundings& around) {
    const auto& path = resolved.path;
    const std::size_t n = path.size();
    const auto arc = segment < n ? geometry::arcOf(path[segment]) : std::nullopt;
    if (!arc) return badInput("pick an arc of the line");
    if (!(radius > 0) || !std::isfinite(radius)) return badInput("a radius is above 0");
    if (line.closed && (segment == 0 || segment + 1 == n)) {
        const Line3D turned = from(line, cornersOf(line)[(segment + n - 1) % n]);
        return setRadius(turned, resolve(turned, around), 1, radius, around);
    }
    if (segment > 0 && segment + 1 < n)
        if (const auto meeting = tangentsMeet(path[segment - 1], *arc, path[segment + 1]))
            return TangentArc(line, resolved, segment, *arc, *meeting).with(radius, around);
    if (2 * radius < geometry::distance(arc->start, arc->end))
        return badInput("the radius is less than half the chord between the ends of the arc");
    const bool major = std::abs(arc->sweep.radians()) > M_PI;
    Reshaped out{line};
    out.line.vertices[cornersOf(line)[segment]].through =
        geometry::arcByRadius(arc->start, arc->end, radius, arc->right(), major).through;
    return out;
}

namespace {

struct Circle {
    Vec2 centre;
    double radius = 0;
};

/// Of all circles through both ends, given by their centre's place on the chord's middle perpendicular.
std::optional<Circle> circleThrough(Vec2 a, Vec2 b, const std::vector<Vec2>& others) {
    const Vec2 middle = (a + b) * 0.5;
    const double h = geometry::distance(a, b) / 2;
    if (!(h > 0)) return std::nullopt;
    const Vec2 along = unit(b - a);
    const Vec2 up = geometry::leftOf(along);
    std::vector<Vec2> q;
    double num = 0;
    double den = 0;
    for (const Vec2 p : others) {
        const Vec2 r{dot(p - middle, along), dot(p - middle, up)};
        q.push_back(r);
        num += (r.x * r.x + r.y * r.y - h * h) * r.y;
        den += 2 * r.y * r.y;
    }
    if (!(den > 1e-18 * h * h)) return std::nullopt;
    double k = num / den;
    for (int round = 0; round < 50; ++round) {
        double jj = 0;
        double jr = 0;
        const double radius = std::hypot(h, k);
        for (const Vec2 p : q) {
            const double d = std::hypot(p.x, p.y - k);
            if (!(d > 0)) continue;
            const double slope = (k - p.y) / d - k / radius;
            jj += slope * slope;
            jr += slope * (d - radius);
        }
        if (!(jj > 0)) break;
        const double step = jr / jj;
        k -= step;
        if (std::abs(step) < 1e-13 * radius) break;
    }
    if (!std::isfinite(k) || std::abs(k) > 1e7 * h) return std::nullopt;
    return Circle{middle + up * k, std::hypot(h, k)};
}

}  // namespace

Result<FittedArc> fitArc(const Line3D& line, const ResolvedLine& resolved, std::size_t firstCorner,
                         std::size_t lastCorner, const Surroundings& around) {
    if (firstCorner > lastCorner) std::swap(firstCorner, lastCorner);
    const auto& vs = line.vertices;
    if (lastCorner >= vs.size() || !vs[firstCorner].isCorner || !vs[lastCorner].isCorner)
        return badInput("pick the first and the last corner of the run");
    std::vector<Vec2> between;
    for (std::size_t i = firstCorner + 1; i < lastCorner; ++i)
        if (vs[i].isCorner) between.push_back(vs[i].place);
    if (between.empty()) return badInput("there is no corner between these two");
    const Vec2 a = vs[firstCorner].place;
    const Vec2 b = vs[lastCorner].place;
    const auto circle = circleThrough(a, b, between);
    if (!circle) return badInput("these corners lie on a straight line");
    FittedArc out;
    out.radius = circle->radius;
    for (const Vec2 p : between)
        out.deviation =
            std::max(out.deviation, std::abs(geometry::distance(p, circle->centre) - circle->radius));
    const Vec2 middle = between[between.size() / 2];
    const Segment arc{a, b, circle->centre + unit(middle - circle->centre) * circle->radius};
    Line3D next;
    next.closed = line.closed;
    Came came;
    const auto add = [&](LineVertex v, std::optional<double> d) {
        next.vertices.push_back(std::move(v));
        came.push_back(d);
    };
    for (std::size_t i = 0; i <= firstCorner; ++i) add(vs[i], resolved.vertices[i].distance);
    next.vertices.back().through = arc.through;
    double last = 0;
    std::size_t left = 0;
    for (std::size_t i = firstCorner + 1; i < lastCorner; ++i) {
        if (!isControl(vs[i].rule)) continue;
        LineVertex v = vs[i];
        v.isCorner = false;
        v.through.reset();
        v.fraction = nearestFraction(arc, resolved.vertices[i].place);
        if (v.fraction <= last + 1e-9 || v.fraction >= 1 - 1e-9) {
            ++left;
            continue;
        }
        last = v.fraction;
        add(std::move(v), resolved.vertices[i].distance);
    }
    for (std::size_t i = lastCorner; i < vs.size(); ++i) add(vs[i], resolved.vertices[i].distance);
    if (auto problem = validate(next)) return badInput(std::move(*problem));
    out.reshaped = keepHeights(std::move(next), asBefore(resolved, came), around);
    out.reshaped.left = left;
    return out;
}

Result<Line3D> withCornersEvery(const Line3D& line, double spacing) {
    const double length = placed(line).length;
    if (!(spacing > 0) || !std::isfinite(spacing)) return badInput("a spacing is above 0");
    if (spacing >= length) return badInput("the spacing is longer than the line");
    if (length / spacing > 5000) return badInput("that would be more than 5000 corners");
    Line3D out = line;
    const auto count = static_cast<std::size_t>(std::ceil(length / spacing - 1e-9)) - 1;
    for (std::size_t k = 1; k <= count; ++k) cornerAt(out, spacing * static_cast<double>(k));
    return out;
}

}  // namespace erdwerk::linework
