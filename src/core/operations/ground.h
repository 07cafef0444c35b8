#pragma once
// What is taken from surfaces and clouds, as edits.

#include "core/geometry/vec.h"
#include "core/operations/edit.h"
#include "core/operations/extract.h"

namespace erdwerk::operations {

/// The way that water takes over a surface, as a line in the group "Runoff".
Edit runoffLine(const Results& seen, ObjectId surface, geometry::Vec2 from);
/// Parts that were taken of a surface (operations::partsOf), as objects beside whatever is in the document by
/// then.
Edit addParts(operations::Parts parts);
/// The contours of the level that is nearest at a place.
Edit contourAt(const Results& seen, ObjectId surface, geometry::Vec2 place);
Edit triangleAt(const Results& seen, ObjectId surface, geometry::Vec2 place);
/// Only the points inside the ring of a closed line take part.
Edit cropCloud(const Results& seen, ObjectId cloud, ObjectId line);

/// The ring of a closed line, arcs cut.
Result<std::vector<geometry::Vec2>> ringOf(const Derived& derived, ObjectId line);
/// Places on a grid inside a closed line with the heights of a cloud, raster or surface; not more than a
/// million.
Result<std::vector<geometry::Vec3>> gridOf(const Derived& derived, ObjectId source, ObjectId line,
                                           double spacing);
/// Those as a set of survey points, "Grid of NAME 1".
Edit addGrid(ObjectId source, std::vector<geometry::Vec3> places);

}  // namespace erdwerk::operations
