#pragma once
// The fewest triangles that still are the terrain, within a tolerance.

#include <optional>
#include <vector>

#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/terrain/build.h"

namespace erdwerk::terrain {

struct ThinOptions {
    double tolerance = 0.1;  ///< greatest deviation in height, project units, > 0
    /// Radians, 0: not asked for. Where two neighbouring triangles differ in slope by more than this, and no
    /// line runs between them, a quarter of the tolerance holds in both.
    double slopeChange = 0;
    std::vector<Breakline> lines;  ///< sides of the surface, with their heights
    std::optional<Boundary> boundary =
        std::nullopt;              ///< the surface ends on it, and only points inside take part
    std::vector<Vec3> fixed = {};  ///< points that become vertices whatever the tolerance
    CrossingRule onCrossing = CrossingRule::First;
};

struct Thinned {
    Tin tin;
    std::size_t pointsIn = 0;     ///< points that take part: inside the boundary
    double largestDeviation = 0;  ///< over all of them, in height, measured on the finished surface
    double largestProved = 0;     ///< the same over those that are not excused: never above the tolerance
    std::size_t outside = 0;      ///< points that take part where the surface does not reach
    std::size_t beyond = 0;       ///< points beyond the tolerance that are not excused (see `thin`)
    /// Points within the tolerance, in plan, of a line: there the line holds.
    std::size_t excused = 0;
    /// Points in the place of another with a height that differs by more than the tolerance.
    std::size_t contradicting = 0;
    std::vector<Crossing> crossings;  ///< of the lines; a boundary with heights comes after the last
};

/// Greedy insertion (Garland and Heckbert, "Fast polygonal approximation of terrains and height fields",
/// 1995): from the convex hull and the lines on, the point farthest from the surface becomes a vertex, until
/// none that is not excused is farther than the tolerance. Afterwards every point that takes part is measured
/// on the finished surface, whatever the way there. Vertices are points that take part, line corners and
/// crossings, and places where a boundary without heights cuts the surface. Deterministic. Costs a few plain
/// triangulations of all points. Fails with Degenerate when there is no triangle, BadInput for a tolerance
/// that is not above 0 or places that are not finite, Cancelled.
Result<Thinned> thin(const std::vector<Vec3>& points, const ThinOptions& options,
                     const Context& context = {});

}  // namespace erdwerk::terrain
