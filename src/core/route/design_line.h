#pragma once
// A design in space: the 3D line over its alignment.

#include "core/linework/line3d.h"
#include "core/route/design.h"

namespace erdwerk::route {

/// The line from the first PVI to the last (as far as the alignment goes): corners where the elements meet,
/// arcs as arcs, spirals cut to straights within 1 mm, a grade point with the PVI's height and vertical curve
/// at each PVI. So heights between are exact. BadInput for a design of fewer than two PVIs, one whose curves
/// overlap, and one that the alignment does not reach.
Result<linework::Line3D> designLine(const AlignmentGeometry& alignment, const std::vector<Pvi>& design);

}  // namespace erdwerk::route
