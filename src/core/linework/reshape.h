#pragma once
// Other shapes for a 3D line in plan: corners that become arcs, other radii, arcs through a run of corners,
// more points. Heights at places that stay are those of before (see keepHeights).

#include "core/linework/keep_heights.h"

namespace erdwerk::linework {

/// A corner between two straight sides becomes an arc that touches both. Its tangent points have the heights
/// that the sides have there; the corner's own goes with it. BadInput at an end, beside an arc, for a radius
/// that does not fit the sides.
Result<Reshaped> roundCorner(const Line3D& line, const ResolvedLine& resolved, std::size_t vertex,
                             double radius, const Surroundings& around);

/// Another radius for an arc. Between two straights that touch it they stay where they are, and its ends move
/// along them; else its ends stay. BadInput for a radius that does not fit, and for a side that is no arc.
Result<Reshaped> setRadius(const Line3D& line, const ResolvedLine& resolved, std::size_t segment,
                           double radius, const Surroundings& around);

struct FittedArc {
    Reshaped reshaped;
    double radius = 0;
    double deviation = 0;  ///< in plan, of the corner that is farthest off
};
/// One arc instead of a run of corners, through its first and last: of all circles through both the one with
/// the least sum of squared distances from the others (Gauss-Newton). Controls between go onto the arc at
/// their nearest place. BadInput for fewer than three corners and for corners on a straight line.
Result<FittedArc> fitArc(const Line3D& line, const ResolvedLine& resolved, std::size_t firstCorner,
                         std::size_t lastCorner, const Surroundings& around);

/// Interpolated corners every `spacing` along the line from its start, where none stands. BadInput for a
/// spacing that gives none or more than 5000.
Result<Line3D> withCornersEvery(const Line3D& line, double spacing);

}  // namespace erdwerk::linework
