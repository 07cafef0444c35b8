#pragma once
// Where plan paths cross or touch.

#include <utility>
#include <vector>

#include "core/geometry/path.h"

namespace erdwerk::linework {

using geometry::Path;

/// Nearer than this the end of one side lies on another, in project units.
inline constexpr double pathsTouch = 1e-6;

/// Distances along both paths of each place where they cross, or an end of a side of one lies on the other;
/// ordered along the first, places within pathsTouch are one. Costs the product of the numbers of sides, most
/// of it comparisons of boxes.
std::vector<std::pair<double, double>> pathCrossings(const Path& path, const Path& other);

}  // namespace erdwerk::linework
