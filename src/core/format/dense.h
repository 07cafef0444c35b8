#pragma once
// Dense heights, from whatever holds them.

#include <string>
#include <vector>

#include "core/survey/cloud.h"

namespace erdwerk::format {

/// A point cloud (LAS, PLY, text x y z), a raster (cell centres) or a surface (its vertices: LandXML,
/// PROJECT.erdwerk:NAME), by the ending. Places are exactly those of the file; withheld points are left out.
/// Classes apply to clouds that have them.
Result<std::vector<geometry::Vec3>> readDense(const std::string& path, const survey::CloudFilter& filter = {},
                                              const Context& context = {});

}  // namespace erdwerk::format
