#pragma once
// Smooth lines.

#include "core/linework/keep_heights.h"

namespace erdwerk::linework {

/// All straight sides become arcs that touch each other at the corners: two arcs for each side (a biarc),
/// with the tangent at a corner that of the circle through it and its neighbours. Corners keep places and
/// heights. BadInput for fewer than three corners.
Result<Reshaped> smoothed(const Line3D& line, const ResolvedLine& resolved, const Surroundings& around);

/// The shape alone: rules stay as they are, whatever heights they come to.
Result<Line3D> smoothShape(const Line3D& line);

}  // namespace erdwerk::linework
