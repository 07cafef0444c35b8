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

/// How figures are written where a format has them as text for people (CSV): with all their digits, or with
/// the display's decimals and the unit in the heading.
enum class Figures { Full, AsShown };

/// By the ending: .erdwerk .xml .gpkg .geojson .csv, or .obj .glb for all surfaces. Returns what the format
/// cannot hold.
Result<std::vector<std::string>> exportFile(const std::string& path, const derive::Derived& derived,
                                            Figures figures = Figures::Full);

}  // namespace erdwerk::format
