#pragma once
// Rasters of heights in any format that GDAL reads (GeoTIFF, ASCII grid …).

#include <string>

#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/objects/backdrop.h"
#include "core/objects/object.h"
#include "core/survey/raster.h"

namespace erdwerk::format {

/// The first band. Cells with the file's no-data value or without a finite value are absent. BadInput for
/// pictures of several bands, rasters without a place, and more than 400 million cells.
Result<survey::Raster> readRaster(const std::string& path, const Context& context = {});

struct RasterOutput {
    bool doublePrecision = false;
    double noData = -9999;
};
/// GeoTIFF; absent cells get the no-data value.
Result<void> writeRaster(const std::string& path, const survey::Raster& raster, const RasterOutput& options);

/// A picture of the ground: three or more bands as red, green, blue, or one as grey; reduced to at most 4096
/// columns and rows. BadInput without a place in the world.
Result<objects::Picture> readPicture(const std::string& path, const Context& context = {});

/// A raster with one band that is not of bytes holds heights; anything else is a picture. NotFound when the
/// file cannot be opened as either.
Result<bool> holdsHeights(const std::string& path);

}  // namespace erdwerk::format
