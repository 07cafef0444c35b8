#pragma once
// The one place that decides on which side of a line a point lies. Exact: a fast floating-point filter, then
// exact arithmetic (CGAL's exact predicates) where the filter cannot tell. Nobody else tests the sign of a
// determinant.

#include <cmath>

#include "core/geometry/vec.h"

namespace erdwerk::geometry {

namespace detail {
int orientationExact(Vec2 a, Vec2 b, Vec2 c);
}

/// +1 when a, b, c turn left, -1 when they turn right, 0 when they are exactly on one line.
inline int orientation(Vec2 a, Vec2 b, Vec2 c) {
    const double left = (a.x - c.x) * (b.y - c.y);
    const double right = (a.y - c.y) * (b.x - c.x);
    const double det = left - right;
    // Error bound of Shewchuk, "Adaptive Precision Floating-Point Arithmetic and Fast Robust Geometric
    // Predicates".
    const double bound = 3.3306690738754716e-16 * (std::abs(left) + std::abs(right));
    if (det > bound) return 1;
    if (-det > bound) return -1;
    return detail::orientationExact(a, b, c);
}

/// +1 when d lies inside the circle through a, b, c (which turn left), -1 outside, 0 on it.
int inCircle(Vec2 a, Vec2 b, Vec2 c, Vec2 d);

/// How two segments meet.
enum class Meeting { None, Crossing, Touching, Overlap };

/// Crossing: interiors cross in one place. Touching: they share one place that is an end of at least one.
/// Overlap: collinear and sharing more than a place. Exact.
Meeting meeting(Vec2 a, Vec2 b, Vec2 c, Vec2 d);

/// Fraction along a-b at which the line c-d is crossed. Requires that the lines are not parallel.
double crossingFraction(Vec2 a, Vec2 b, Vec2 c, Vec2 d);

}  // namespace erdwerk::geometry
