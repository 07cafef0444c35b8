#pragma once
// The figure that lines make round a place.

#include <vector>

#include "core/base/result.h"
#include "core/geometry/path.h"

namespace erdwerk::linework {

/// The closed figure round a place: of stretches of the paths between the places where they cross or touch
/// (see pathCrossings; a path does not cross itself), counter-clockwise. The smallest one that has the place
/// inside; islands in it are left out. BadInput where the paths close nothing round it. Costs the number of
/// sides squared, most of it comparisons of boxes.
Result<geometry::Path> enclosureOf(const std::vector<geometry::Path>& paths, geometry::Vec2 place);

}  // namespace erdwerk::linework
