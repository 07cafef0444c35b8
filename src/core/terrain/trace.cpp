#include "core/terrain/trace.h"

#include <algorithm>
#include <cmath>

#include "core/geometry/predicates.h"

namespace erdwerk::terrain {

namespace {

struct Hit {
    double fraction;
    Vec2 place;
    double height;
};

void hitsOfEdge(const Vec3& u, const Vec3& v, Vec2 a, Vec2 b, std::vector<Hit>& out) {
    const Vec2 along = b - a;
    const double square = geometry::dot(along, along);
    const auto fractionOf = [&](Vec2 p) { return geometry::dot(p - a, along) / square; };
    const int atU = geometry::orientation(a, b, u.plan());
    const int atV = geometry::orientation(a, b, v.plan());
    // A vertex exactly on the segment is met itself, with its own height.
    for (const auto& [side, vertex] : {std::pair{atU, u}, std::pair{atV, v}}) {
        const double t = fractionOf(vertex.plan());
        if (side == 0 && t >= 0 && t <= 1) out.push_back({t, vertex.plan(), vertex.z});
    }
    if (atU * atV >= 0) return;
    const double s = geometry::crossingFraction(u.plan(), v.plan(), a, b);
    const Vec2 place = geometry::lerp(u.plan(), v.plan(), s);
    const double t = fractionOf(place);
    if (t < -1e-12 || t > 1 + 1e-12) return;
    if (geometry::meeting(u.plan(), v.plan(), a, b) == geometry::Meeting::None) return;
    out.push_back({std::clamp(t, 0.0, 1.0), place, u.z + s * (v.z - u.z)});
}

/// Edges of the triangles, each once (of two triangles that share one, the one with the lower number has it).
template <class Visit>
void eachEdge(const Tin& tin, const std::vector<std::uint32_t>& triangles, const Visit& visit) {
    for (const std::uint32_t t : triangles)
        for (int i = 0; i < 3; ++i) {
            const std::uint32_t n = tin.neighbour(t, i);
            if (n != Tin::none && n < t) continue;
            visit(tin.vertex(tin.corner(t, (i + 1) % 3)), tin.vertex(tin.corner(t, (i + 2) % 3)));
        }
}

/// Hits put in order between the ends; `at` gives the place of a fraction.
template <class At>
std::vector<TracePoint> inOrder(const TinLocator& surface, std::vector<Hit> hits, double size, const At& at) {
    std::vector<TracePoint> out;
    std::sort(hits.begin(), hits.end(), [](const Hit& x, const Hit& y) { return x.fraction < y.fraction; });
    const double tolerance = std::max(1e-9, 1e-9 / size);
    out.push_back({0, at(0.0), std::nullopt, std::nullopt, false});
    for (const Hit& h : hits) {
        if (h.fraction - out.back().fraction <= tolerance) {
            if (!out.back().height) out.back().height = h.height;
            out.back().onEdge = true;
            continue;
        }
        out.push_back({h.fraction, h.place, h.height, std::nullopt, true});
    }
    if (1 - out.back().fraction <= tolerance && out.size() > 1) {
        out.back().fraction = 1;
        out.back().place = at(1.0);
    } else {
        out.push_back({1, at(1.0), std::nullopt, std::nullopt, false});
    }
    for (std::size_t k = 0; k + 1 < out.size(); ++k)
        out[k].triangleAfter = surface.triangleAt(at((out[k].fraction + out[k + 1].fraction) / 2));
    for (TracePoint& p : out)
        if (!p.height) p.height = surface.heightAt(p.place);
    return out;
}

/// A stretch of a curved element that turns to one side, and by less than a quarter of a circle.
struct Stretch {
    double from = 0;
    double to = 0;
    Vec2 start;
    Vec2 end;
    Vec2 ahead;   ///< direction of travel at the start
    Vec2 onward;  ///< and at the end
};

/// Where a function without a turning point between them is 0, its values at both ends being of different
/// signs: by Newton's method, and by halving where that leaves what is left.
template <class Value, class Slope>
double zeroBetween(double low, double high, double atLow, const Value& value, const Slope& slope) {
    double t = (low + high) / 2;
    for (int i = 0; i < 80 && high - low > 1e-16; ++i) {
        const double v = value(t);
        if (v == 0) return t;
        ((v < 0) == (atLow < 0) ? low : high) = t;
        const double next = t - v / slope(t);
        const double before = t;
        t = next > low && next < high ? next : (low + high) / 2;
        if (std::abs(t - before) < 1e-16) break;
    }
    return t;
}

/// Hits of an edge along a stretch of an element.
template <class E>
class CurveHits {
public:
    CurveHits(const E& element, std::vector<Hit>& out) : element_(element), out_(out) {}

    void add(const Stretch& s, const Vec3& u, const Vec3& v) {
        const double edge = geometry::distance(u.plan(), v.plan());
        const Vec2 along = (v.plan() - u.plan()) * (1 / edge);
        const auto off = [&](Vec2 place) { return geometry::cross(along, place - u.plan()); };
        const auto value = [&](double t) { return off(element_.at(t)); };
        const auto turned = [&](double t) {
            return geometry::cross(along, geometry::directionOf(element_.direction(t)));
        };
        const auto slope = [&](double t) { return element_.length() * turned(t); };
        const auto between = [&](double from, double to, double atFrom, double atTo) {
            if (std::abs(atFrom) <= touching) hit(from, u, v, along, edge);
            if (std::abs(atTo) <= touching) hit(to, u, v, along, edge);
            if (std::abs(atFrom) <= touching || std::abs(atTo) <= touching || (atFrom < 0) == (atTo < 0))
                return;
            hit(zeroBetween(from, to, atFrom, value, slope), u, v, along, edge);
        };
        const double atStart = off(s.start);
        const double atEnd = off(s.end);
        const double first = geometry::cross(along, s.ahead);
        if (first * geometry::cross(along, s.onward) >= 0) {
            between(s.from, s.to, atStart, atEnd);
            return;
        }
        // It runs along the edge's direction in between: farthest from the edge there.
        const auto bent = [&](double t) {
            const Vec2 d = geometry::directionOf(element_.direction(t));
            // Curvature is positive to the right, where directions turn clockwise.
            return -element_.length() * element_.curvature(t) * geometry::dot(along, d);
        };
        const double turn = zeroBetween(s.from, s.to, first, turned, bent);
        const double atTurn = value(turn);
        between(s.from, turn, atStart, atTurn);
        between(turn, s.to, atTurn, atEnd);
    }

private:
    static constexpr double touching = 1e-10;

    void hit(double t, const Vec3& u, const Vec3& v, Vec2 along, double edge) {
        const Vec2 place = element_.at(t);
        const double way = geometry::dot(along, place - u.plan());
        constexpr double same = 1e-9;
        if (way < -same || way > edge + same) return;
        if (way < same)
            out_.push_back({t, place, u.z});
        else if (way > edge - same)
            out_.push_back({t, place, v.z});
        else
            out_.push_back({t, place, u.z + way / edge * (v.z - u.z)});
    }

    const E& element_;
    std::vector<Hit>& out_;
};

/// Short enough for the surface's squares and for their turn; curvature changes evenly along every element.
template <class E>
std::vector<Stretch> stretchesOf(const E& element, double square) {
    const double size = element.length();
    const double in = element.curvature(0);
    const double out = element.curvature(1);
    const double turn = std::max(std::abs(in), std::abs(out)) * size;
    const double pieces = std::clamp(std::max(size / (2 * square), turn / 0.4), 1.0, 1e6);
    const int count = static_cast<int>(std::ceil(pieces));
    std::vector<double> at;
    for (int k = 0; k <= count; ++k) at.push_back(static_cast<double>(k) / count);
    if (in * out < 0) {
        at.push_back(in / (in - out));
        std::sort(at.begin(), at.end());
    }
    const auto placeAt = [&](double t) {
        return t <= 0 ? Vec2(element.start) : t >= 1 ? Vec2(element.end) : element.at(t);
    };
    std::vector<Stretch> all;
    Stretch s;
    s.end = placeAt(0);
    s.onward = geometry::directionOf(element.direction(0));
    for (std::size_t k = 1; k < at.size(); ++k) {
        s = {at[k - 1],      at[k],    s.end,
             placeAt(at[k]), s.onward, geometry::directionOf(element.direction(at[k]))};
        all.push_back(s);
    }
    return all;
}

template <class E>
std::vector<TracePoint> traceCurve(const TinLocator& surface, const geometry::Segment& segment,
                                   const E& element) {
    std::vector<Hit> hits;
    CurveHits<E> curve(element, hits);
    for (const Stretch& s : stretchesOf(element, surface.cellSize())) {
        geometry::Box box;
        box.add(s.start);
        box.add(s.end);
        // An arc that turns by less than half a radian bulges by less than an eighth of its chord.
        box = box.grown(geometry::distance(s.start, s.end) / 8 + 1e-9);
        eachEdge(surface.tin(), surface.near(box), [&](const Vec3& u, const Vec3& v) { curve.add(s, u, v); });
    }
    return inOrder(surface, std::move(hits), element.length(), [&](double t) { return pointAt(segment, t); });
}

}  // namespace

std::vector<TracePoint> trace(const TinLocator& surface, Vec2 a, Vec2 b) {
    const double size = geometry::distance(a, b);
    if (size == 0) return {{0, a, surface.heightAt(a), surface.triangleAt(a), false}};
    std::vector<Hit> hits;
    eachEdge(surface.tin(), surface.along(a, b),
             [&](const Vec3& u, const Vec3& v) { hitsOfEdge(u, v, a, b, hits); });
    return inOrder(surface, std::move(hits), size,
                   [&](double t) { return t >= 1 ? b : geometry::lerp(a, b, t); });
}

std::vector<TracePoint> trace(const TinLocator& surface, const geometry::Segment& element) {
    if (!isCurved(element)) return trace(surface, element.start, element.end);
    return std::visit([&](const auto& e) { return traceCurve(surface, element, e); }, elementOf(element));
}

std::vector<SectionPoint> tracePath(const TinLocator& surface, const geometry::Path& path, double sagitta) {
    std::vector<SectionPoint> out;
    double distance = 0;
    for (const geometry::Segment& element : path) {
        const double size = lengthOf(element);
        if (size == 0) continue;
        const auto points = trace(surface, element);
        for (std::size_t k = 0; k < points.size(); ++k) {
            if (k > 0 && sagitta > 0) {
                const auto piece = part(element, points[k - 1].fraction, points[k].fraction);
                const std::size_t chords = flattened(piece, sagitta).size() - 1;
                const double each =
                    (points[k].fraction - points[k - 1].fraction) / static_cast<double>(chords);
                for (std::size_t c = 1; c < chords; ++c) {
                    const double at = points[k - 1].fraction + each * static_cast<double>(c);
                    const Vec2 place = pointAt(element, at);
                    out.push_back({distance + at * size, place, surface.heightAt(place)});
                }
            }
            // Between two places off the surface nothing is drawn; at a rim the height belongs to the
            // surface.
            if (k > 0 || out.empty())
                out.push_back({distance + points[k].fraction * size, points[k].place, points[k].height});
        }
        distance += size;
    }
    return out;
}

Vec2 gradientOf(const Tin& tin, std::uint32_t triangle) {
    const auto [a, b, c] = tin.triangle(triangle);
    const Vec2 u = b.plan() - a.plan();
    const Vec2 v = c.plan() - a.plan();
    const double area = geometry::cross(u, v);
    const double up = b.z - a.z;
    const double over = c.z - a.z;
    return {(up * v.y - over * u.y) / area, (over * u.x - up * v.x) / area};
}

}  // namespace erdwerk::terrain
