#pragma once
// Writing a document in any of the formats, by the file's ending.

#include <string>
#include <vector>

#include "core/derive/model.h"

namespace erdwerk::format {

struct SurfaceToWrite;

/// One surface, by the ending (see formats.h); as a raster with this cell.
Result<void> exportSurface(const std::string& path, const derive::Derived& derived, ObjectId surface,
                           double cell = 0);

/// The same for one that stands in no project.
Result<void> writeSurface(const std::string& path, const SurfaceToWrite& surface);

/// How figures are written where a format has them as text for people (CSV): with all their digits, or with
/// the display's decimals and the unit in the heading.
enum class Figures { Full, AsShown };

/// By the ending (see formats.h). Returns what the format cannot hold.
Result<std::vector<std::string>> exportFile(const std::string& path, const derive::Derived& derived,
                                            Figures figures = Figures::Full);

}  // namespace erdwerk::format
