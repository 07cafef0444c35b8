#include "core/geometry/path.h"

#include <algorithm>
#include <numbers>

#include "core/geometry/predicates.h"

namespace erdwerk::geometry {

namespace {
constexpr double pi = std::numbers::pi;
}

Vec2 Arc::at(double fraction) const {
    return centre + directionOf(startAzimuth + Angle::radians(sweep.radians() * fraction)) * radius;
}

std::optional<Arc> arcOf(const Segment& s) {
    if (!s.through) return std::nullopt;
    // Centre of the circle through three points, taken about the start so that large coordinates do not
    // cancel.
    const Vec2 b = *s.through - s.start;
    const Vec2 c = s.end - s.start;
    const double chord = length(c);
    const double d = 2 * cross(b, c);
    if (chord == 0 || std::abs(d) <= 1e-9 * chord * chord) return std::nullopt;
    const double b2 = dot(b, b);
    const double c2 = dot(c, c);
    const Vec2 centre{(c.y * b2 - b.y * c2) / d, (b.x * c2 - c.x * b2) / d};
    Arc arc;
    arc.centre = s.start + centre;
    arc.radius = length(centre);
    arc.startAzimuth = azimuth(arc.centre, s.start);
    const double turn = (azimuth(arc.centre, s.end) - arc.startAzimuth).normalized().radians();
    const double middle = (azimuth(arc.centre, *s.through) - arc.startAzimuth).normalized().radians();
    arc.sweep = Angle::radians(middle < turn ? turn : turn - 2 * pi);
    return arc;
}

Segment tangentArc(Vec2 start, Angle tangent, Vec2 end) {
    const double chord = distance(start, end);
    const double deflection = (azimuth(start, end) - tangent).signedTurn().radians();
    if (chord == 0 || std::abs(deflection) < 1e-9 || std::abs(deflection) > pi - 1e-9)
        return {start, end, std::nullopt};
    // The chord turns half of delta away from the tangent; the arc's middle stands a sagitta off the chord.
    const double sagitta = chord / 2 * std::tan(deflection / 2);
    const Vec2 along = (end - start) * (1 / chord);
    return {start, end, lerp(start, end, 0.5) + leftOf(along) * sagitta};
}

Segment arcByRadius(Vec2 start, Vec2 end, double radius, bool right, bool major) {
    const double half = distance(start, end) / 2;
    const double toChord = std::sqrt(std::max(0.0, radius * radius - half * half));
    const double sagitta = major ? radius + toChord : radius - toChord;
    const Vec2 along = (end - start) * (1 / (2 * half));
    // A curve to the right bulges to the left of its chord.
    return {start, end, lerp(start, end, 0.5) + leftOf(along) * (right ? sagitta : -sagitta)};
}

double lengthOf(const Segment& s) {
    if (const auto arc = arcOf(s)) return arc->radius * std::abs(arc->sweep.radians());
    return distance(s.start, s.end);
}

Vec2 pointAt(const Segment& s, double fraction) {
    if (fraction <= 0) return s.start;
    if (fraction >= 1) return s.end;
    if (const auto arc = arcOf(s)) return arc->at(fraction);
    return lerp(s.start, s.end, fraction);
}

Angle tangentAt(const Segment& s, double fraction) {
    const auto arc = arcOf(s);
    if (!arc) return azimuth(s.start, s.end);
    const Angle outward = arc->startAzimuth + Angle::radians(arc->sweep.radians() * fraction);
    return (outward + Angle::radians(arc->right() ? pi / 2 : -pi / 2)).normalized();
}

Segment part(const Segment& s, double from, double to) {
    Segment out{pointAt(s, from), pointAt(s, to), std::nullopt};
    if (const auto arc = arcOf(s)) out.through = arc->at((from + to) / 2);
    return out;
}

Segment reversed(const Segment& s) {
    return {s.end, s.start, s.through};
}

double bulgeArea(const Segment& s) {
    const auto arc = arcOf(s);
    if (!arc) return 0;
    const double delta = std::abs(arc->sweep.radians());
    const double area = arc->radius * arc->radius / 2 * (delta - std::sin(delta));
    return arc->right() ? area : -area;
}

Box boundsOf(const Segment& s) {
    Box box;
    box.add(s.start);
    box.add(s.end);
    if (const auto arc = arcOf(s)) {
        for (int quarter = 0; quarter < 4; ++quarter) {
            const Angle at = Angle::radians(quarter * pi / 2);
            const Angle from = arc->right() ? arc->startAzimuth : arc->startAzimuth + arc->sweep;
            if ((at - from).normalized().radians() <= std::abs(arc->sweep.radians()))
                box.add(arc->centre + directionOf(at) * arc->radius);
        }
    }
    return box;
}

std::vector<Nearest> tangentPlaces(const Segment& segment, Vec2 from) {
    const auto arc = arcOf(segment);
    if (!arc) return {};
    const double d = distance(arc->centre, from);
    if (d <= arc->radius) return {};
    // Seen from the centre, the places of touch stand this far to both sides of the direction to `from`.
    const Angle aside = Angle::radians(std::acos(arc->radius / d));
    const Angle towards = azimuth(arc->centre, from);
    std::vector<Nearest> out;
    for (const Angle at : {towards + aside, towards - aside}) {
        const double sweep = arc->sweep.radians();
        double turn = (at - arc->startAzimuth).normalized().radians();
        if (sweep < 0) turn = turn == 0 ? 0 : 2 * pi - turn;
        if (turn > std::abs(sweep)) continue;
        out.push_back({0, turn / std::abs(sweep), arc->centre + directionOf(at) * arc->radius, 0});
    }
    return out;
}

double lengthOf(const Path& path) {
    double sum = 0;
    for (const Segment& s : path) sum += lengthOf(s);
    return sum;
}

double distanceAlong(const Path& path, const Nearest& nearest) {
    double sum = nearest.fraction * lengthOf(path[nearest.segment]);
    for (std::size_t i = 0; i < nearest.segment; ++i) sum += lengthOf(path[i]);
    return sum;
}

namespace {

double nearestFraction(const Segment& s, Vec2 p) {
    if (const auto arc = arcOf(s)) {
        const double sweep = arc->sweep.radians();
        double turn = (azimuth(arc->centre, p) - arc->startAzimuth).normalized().radians();
        if (sweep < 0) turn = turn == 0 ? 0 : 2 * pi - turn;
        if (turn <= std::abs(sweep)) return turn / std::abs(sweep);
        return distance(p, s.start) <= distance(p, s.end) ? 0 : 1;
    }
    const Vec2 along = s.end - s.start;
    const double square = dot(along, along);
    return square == 0 ? 0 : std::clamp(dot(p - s.start, along) / square, 0.0, 1.0);
}

}  // namespace

std::optional<Nearest> nearestOn(const Path& path, Vec2 p) {
    std::optional<Nearest> best;
    for (std::size_t i = 0; i < path.size(); ++i) {
        const double t = nearestFraction(path[i], p);
        const Vec2 place = pointAt(path[i], t);
        const double d = distance(place, p);
        if (best && d >= std::abs(best->distance)) continue;
        const Vec2 along = directionOf(tangentAt(path[i], t));
        best = Nearest{i, t, place, cross(along, p - place) > 0 ? -d : d};
    }
    return best;
}

PathPosition positionAt(const Path& path, double along) {
    double left = std::max(0.0, along);
    for (std::size_t i = 0; i < path.size(); ++i) {
        const double size = lengthOf(path[i]);
        if (left <= size || i + 1 == path.size()) {
            const double t = size == 0 ? 0 : std::min(1.0, left / size);
            return {i, t, pointAt(path[i], t), tangentAt(path[i], t)};
        }
        left -= size;
    }
    return {};
}

Path reversed(const Path& path) {
    Path out;
    out.reserve(path.size());
    for (auto it = path.rbegin(); it != path.rend(); ++it) out.push_back(reversed(*it));
    return out;
}

std::vector<Vec2> flattened(const Path& path, double sagitta) {
    std::vector<Vec2> out;
    for (const Segment& s : path) {
        if (out.empty()) out.push_back(s.start);
        if (const auto arc = arcOf(s)) {
            const double step = 2 * std::acos(std::clamp(1 - sagitta / arc->radius, -1.0, 1.0));
            const double wanted = std::abs(arc->sweep.radians()) / std::max(step, 1e-4);
            const int pieces = std::clamp(static_cast<int>(std::ceil(wanted)), 2, 4096);
            for (int k = 1; k < pieces; ++k) out.push_back(arc->at(static_cast<double>(k) / pieces));
        }
        out.push_back(s.end);
    }
    return out;
}

double signedArea(std::span<const Vec2> ring) {
    double twice = 0;
    for (std::size_t i = 1; i + 1 < ring.size(); ++i)
        twice += cross(ring[i] - ring[0], ring[i + 1] - ring[0]);
    return twice / 2;
}

double signedArea(const Path& ring) {
    std::vector<Vec2> corners;
    double bulges = 0;
    for (const Segment& s : ring) {
        corners.push_back(s.start);
        bulges += bulgeArea(s);
    }
    // A bulge to the left of a counter-clockwise side takes area away.
    return signedArea(corners) - bulges;
}

Side sideOf(std::span<const Vec2> ring, Vec2 p) {
    bool inside = false;
    for (std::size_t i = 0, j = ring.size() - 1; i < ring.size(); j = i++) {
        const Vec2 a = ring[j];
        const Vec2 b = ring[i];
        if (std::min(a.y, b.y) > p.y || std::max(a.y, b.y) < p.y) continue;
        const int turn = orientation(a, b, p);
        if (turn == 0 && std::min(a.x, b.x) <= p.x && p.x <= std::max(a.x, b.x)) return Side::OnEdge;
        if ((a.y > p.y) != (b.y > p.y) && (turn > 0) == (b.y > a.y)) inside = !inside;
    }
    return inside ? Side::Inside : Side::Outside;
}

}  // namespace erdwerk::geometry
