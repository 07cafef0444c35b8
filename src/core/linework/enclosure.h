#pragma once
// The figure that lines make round a place.

#include <vector>

#include "core/base/result.h"
#include "core/geometry/path.h"
#include "core/linework/line3d.h"

namespace erdwerk::linework {

struct Enclosure {
    geometry::Path figure;           ///< closed, counter-clockwise
    std::vector<std::size_t> paths;  ///< those that it has stretches of, rising
};

/// The closed figure round a place: of stretches of the paths between the places where they cross or touch
/// (see pathCrossings; a path does not cross itself), counter-clockwise. The smallest one that has the place
/// inside; islands in it are left out. BadInput where the paths close nothing round it. Costs the number of
/// sides squared, most of it comparisons of boxes.
Result<Enclosure> enclosureOf(const std::vector<geometry::Path>& paths, geometry::Vec2 place);

/// The figure in which each of the paths has a stretch; BadInput where they close none, or one that leaves
/// some of them out.
Result<geometry::Path> figureOfAll(const std::vector<geometry::Path>& paths, geometry::Vec2 place);

/// A closed line without heights along a closed path.
Line3D lineRound(const geometry::Path& figure);

}  // namespace erdwerk::linework
