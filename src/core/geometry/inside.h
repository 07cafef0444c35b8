#pragma once
// A place inside a figure.

#include <vector>

#include "core/geometry/vec.h"

namespace erdwerk::geometry {

/// A place inside a ring, for its name or to find it again: in the middle of the widest stretch of the rows
/// through its middle heights. Requires a ring that is not empty.
Vec2 placeInside(const std::vector<Vec2>& ring);

}  // namespace erdwerk::geometry
