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

}  // namespace erdwerk::route
