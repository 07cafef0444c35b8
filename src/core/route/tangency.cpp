#include "core/route/tangency.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/route/alignment.h"

namespace erdwerk::route {

namespace {

using geometry::Arc;

/// From an arc into a straight.
std::optional<Mended> outOfArc(Path path, std::size_t i) {
    const auto arc = arcOf(path[i]);
    if (!arc || isCurved(path[i + 1])) return std::nullopt;
    const Vec2 joint = path[i].end;
    const Vec2 far = path[i + 1].end;
    const double away = geometry::distance(arc->centre, far);
    if (away <= arc->radius) return std::nullopt;
    // Where the tangents from the far end touch the circle, to both sides of the way to its centre.
    const double half = std::acos(arc->radius / away);
    const Angle toFar = geometry::azimuth(arc->centre, far);
    std::optional<Vec2> best;
    for (const double side : {1.0, -1.0}) {
        const Vec2 touch =
            arc->centre + geometry::directionOf(toFar + Angle::radians(side * half)) * arc->radius;
        if (!best || geometry::distance(touch, joint) < geometry::distance(*best, joint)) best = touch;
    }
    const double moved = geometry::distance(*best, joint);
    if (moved > std::min(arc->length(), lengthOf(path[i + 1])) / 4) return std::nullopt;
    // The arc keeps its circle and its sense.
    const double turn = (geometry::azimuth(arc->centre, *best) - arc->startAzimuth).normalized().radians();
    Arc other = *arc;
    other.sweep = Angle::radians(arc->right() ? turn : turn - 2 * std::numbers::pi);
    path[i] = {path[i].start, *best, other.at(0.5)};
    path[i + 1].start = *best;
    return Mended{std::move(path), moved};
}

}  // namespace

std::optional<Mended> madeTangent(const Path& path, std::size_t element) {
    if (element + 1 >= path.size()) return std::nullopt;
    std::optional<Mended> out;
    if (arcOf(path[element])) {
        out = outOfArc(path, element);
    } else {
        out = outOfArc(geometry::reversed(path), path.size() - 2 - element);
        if (out) out->path = geometry::reversed(out->path);
    }
    if (!out) return std::nullopt;
    const auto before = alignmentOn(path, 0).breaks;
    const auto after = alignmentOn(out->path, 0).breaks;
    const bool mended =
        std::none_of(after.begin(), after.end(), [&](const Break& b) { return b.segment == element; });
    if (!mended || after.size() >= before.size()) return std::nullopt;
    return out;
}

namespace {

/// What a centre lies on that is `radius` away from an element, to one side: a straight or a circle.
struct Aside {
    bool circle = false;
    Vec2 origin;  ///< of the straight, or the circle's centre
    Vec2 way;     ///< of the straight, a unit
    double radius = 0;
};

/// Nothing for a spiral, and for an arc too sharp for the side.
std::optional<Aside> asideOf(const geometry::Segment& element, double radius, bool right) {
    if (element.spiral) return std::nullopt;
    if (const auto arc = arcOf(element)) {
        const double other = arc->right() == right ? arc->radius - radius : arc->radius + radius;
        if (!(other > 0)) return std::nullopt;
        return Aside{true, arc->centre, {}, other};
    }
    const Vec2 way = geometry::directionOf(geometry::azimuth(element.start, element.end));
    const Vec2 out = right ? Vec2{way.y, -way.x} : Vec2{-way.y, way.x};
    return Aside{false, element.start + out * radius, way, 0};
}

std::vector<Vec2> onStraight(const Aside& straight, const Aside& other) {
    if (!other.circle) {
        const double across = geometry::cross(straight.way, other.way);
        if (std::abs(across) < 1e-12) return {};
        const double t = geometry::cross(other.origin - straight.origin, other.way) / across;
        return {straight.origin + straight.way * t};
    }
    const double along = geometry::dot(other.origin - straight.origin, straight.way);
    const Vec2 foot = straight.origin + straight.way * along;
    const double away = geometry::distance(foot, other.origin);
    if (away > other.radius) return {};
    const double half = std::sqrt(other.radius * other.radius - away * away);
    return {foot - straight.way * half, foot + straight.way * half};
}

std::vector<Vec2> crossed(const Aside& a, const Aside& b) {
    if (!a.circle) return onStraight(a, b);
    if (!b.circle) return onStraight(b, a);
    const double apart = geometry::distance(a.origin, b.origin);
    if (!(apart > 0) || apart > a.radius + b.radius || apart < std::abs(a.radius - b.radius)) return {};
    const double along = (apart * apart + a.radius * a.radius - b.radius * b.radius) / (2 * apart);
    const double half = std::sqrt(std::max(0.0, a.radius * a.radius - along * along));
    const Vec2 way = (b.origin - a.origin) * (1 / apart);
    const Vec2 foot = a.origin + way * along;
    const Vec2 aside{-way.y * half, way.x * half};
    return {foot + aside, foot - aside};
}

}  // namespace

Result<Path> withCurve(const Path& path, std::size_t element, double radius) {
    if (element + 1 >= path.size()) return badInput("there is no joint behind that element");
    if (!(radius > 0) || !std::isfinite(radius)) return badInput("a radius must be above 0");
    const Vec2 joint = path[element].end;
    const double turn =
        (tangentAt(path[element + 1], 0) - tangentAt(path[element], 1)).signedTurn().radians();
    if (std::abs(turn) < tangencyTolerance.radians()) return badInput("that joint is tangent already");
    const auto before = asideOf(path[element], radius, turn > 0);
    const auto after = asideOf(path[element + 1], radius, turn > 0);
    if (!before || !after) return badInput("an arc of that radius does not fit between these two elements");
    std::optional<Vec2> centre;
    for (const Vec2 c : crossed(*before, *after))
        if (!centre || geometry::distance(c, joint) < geometry::distance(*centre, joint)) centre = c;
    if (!centre) return badInput("an arc of that radius touches only one of both elements");
    const double from = nearestFraction(path[element], *centre);
    const double to = nearestFraction(path[element + 1], *centre);
    if (!(from > 1e-9) || !(from < 1 - 1e-12) || !(to > 1e-12) || !(to < 1 - 1e-9))
        return badInput("an arc of that radius is longer than its elements; take a smaller one");
    Path out = path;
    out[element] = part(path[element], 0, from);
    out[element + 1] = part(path[element + 1], to, 1);
    out.insert(out.begin() + static_cast<std::ptrdiff_t>(element) + 1,
               geometry::tangentArc(out[element].end, tangentAt(out[element], 1), out[element + 1].start));
    return out;
}

}  // namespace erdwerk::route
