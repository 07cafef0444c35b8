#pragma once
// Writing a document in any of the formats, by the file's ending.

#include <string>
#include <vector>

#include "core/derive/model.h"

namespace erdwerk::format {

/// One surface, by the ending: .xml .ply .obj .glb, or .tif as a raster of this cell (0: as wide as the
/// vertices stand apart on average, rounded).
Result<void> exportSurface(const std::string& path, const derive::Derived& derived, ObjectId surface,
                           double cell = 0);

/// By the ending: .erdwerk .xml .gpkg .geojson .csv, or .obj .glb for all surfaces. Returns what the format
/// cannot hold.
Result<std::vector<std::string>> exportFile(const std::string& path, const derive::Derived& derived);

}  // namespace erdwerk::format
