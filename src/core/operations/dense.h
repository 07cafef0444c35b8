#pragma once
// Clouds, rasters and creases: edits that make lines and surfaces of them, and classes.

#include "core/derive/dense_source.h"
#include "core/document/transaction.h"
#include "core/operations/edit.h"
#include "core/survey/cloud.h"
#include "core/terrain/crease.h"

namespace erdwerk::operations {

/// Adds found creases to the groups of crests and toes, which are made when they are not there. Heights are
/// fixed; a closed crease becomes a closed line.
Document addCreases(const Document& document, const std::vector<terrain::Crease>& creases,
                    const std::string& crestGroup = "Crests", const std::string& toeGroup = "Toes",
                    std::vector<ObjectId>* made = nullptr);

/// A surface from a cloud or raster, thinned to a tenth of a metre (in project units) and checked against it.
/// The groups Crests and Toes come first when they are there, then closed lines as edges without heights of
/// their own. The document as it was when `dense` is neither a cloud nor a raster.
Document addThinnedSurface(const Document& document, ObjectId dense, const std::vector<ObjectId>& edges,
                           ObjectId* id = nullptr);

/// Gives the points of a cloud inside a ring another class (LAS 1.4 class number).
Document classify(const Document& document, ObjectId cloud, const std::vector<geometry::Vec2>& ring,
                  std::uint8_t classNumber);
/// Classes that were worked out on `seen` (see terrain::groundClasses) become those of the cloud; from then
/// on only the ground takes part. BadInput when the cloud holds other points or classes by now.
document::Edit keepGround(ObjectId cloud, std::shared_ptr<const survey::PointCloud> seen,
                          std::vector<std::uint8_t> classes);

}  // namespace erdwerk::operations
