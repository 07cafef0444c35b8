#pragma once
// Putting joints right that are out by a little.

#include <optional>

#include "core/base/result.h"
#include "core/geometry/path.h"

namespace erdwerk::route {

struct Mended {
    geometry::Path path;
    double moved = 0;  ///< how far the joint went
};

/// The joint behind an element made tangent by the least change: between an arc and a straight the joint
/// slides along the arc's circle to where the straight, its other end kept, touches it. Nothing where no such
/// place lies within a quarter of the shorter of both, for any other two elements, and where another joint
/// would no longer be tangent for it.
std::optional<Mended> madeTangent(const geometry::Path& path, std::size_t element);

/// An arc of a radius put into the joint behind an element, tangent to both: it lies on the side that the
/// joint turns to, its centre where the two elements, moved aside by the radius, cross nearest to the joint.
/// BadInput for a joint that is tangent, for spirals, and where the arc does not fit on both elements.
Result<geometry::Path> withCurve(const geometry::Path& path, std::size_t element, double radius);

}  // namespace erdwerk::route
