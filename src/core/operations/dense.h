#pragma once
// Clouds, rasters and creases: edits that make lines and surfaces of them, and classes.

#include "core/operations/edit.h"
#include "core/survey/cloud.h"
#include "core/terrain/crease.h"

namespace erdwerk::operations {

/// Adds found creases to the groups of crests and toes, which are made when they are not there. Heights are
/// fixed; a closed crease becomes a closed line.
Edit addCreases(std::vector<terrain::Crease> creases, const std::string& crestGroup = "Crests",
                const std::string& toeGroup = "Toes");

/// A surface from a cloud or raster, thinned to a tenth of a metre (in project units) and checked against it.
/// The groups Crests and Toes come first when they are there, then these closed lines as edges without
/// heights of their own. BadInput when `dense` is neither a cloud nor a raster.
Edit surfaceFromDense(ObjectId dense, const std::vector<ObjectId>& closedLines);

/// Gives the points of a cloud inside a ring another class (LAS 1.4 class number). Looks at every point.
document::LongEdit classify(ObjectId cloud, std::vector<geometry::Vec2> ring, std::uint8_t classNumber);
/// Classes that were worked out on `seen` (see terrain::groundClasses) become those of the cloud; from then
/// on only the ground takes part. BadInput when the cloud holds other points or classes by now.
Edit keepGround(ObjectId cloud, std::shared_ptr<const survey::PointCloud> seen,
                std::vector<std::uint8_t> classes);

}  // namespace erdwerk::operations
