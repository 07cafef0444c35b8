// Rasters of heights, and pictures; both stay in their files.

#include "core/format/formats.h"
#include "core/format/raster_file.h"
#include "core/terrain/locator.h"
#include "core/terrain/sampling.h"

namespace erdwerk::format {

namespace {

Result<Imported> read(const document::Document& document, const std::string& path, const ImportOptions&,
                      const Context& context) {
    return addRaster(document, path, context);
}

Result<void> writeOne(const std::string& path, const SurfaceToWrite& surface) {
    std::optional<terrain::TinLocator> own;
    if (surface.locator == nullptr) own.emplace(std::make_shared<const terrain::Tin>(surface.tin));
    const auto& locator = surface.locator == nullptr ? *own : *surface.locator;
    const double cell = surface.cell > 0 ? surface.cell : roundStep(terrain::meanSpacing(locator.tin()));
    const auto raster = terrain::rasterOf(locator, cell);
    if (!raster) return tl::unexpected(raster.error());
    return writeRaster(path, *raster, {});
}

}  // namespace

Format rasters() {
    return {.name = "GeoTIFF raster",
            .endings = {".tif", ".tiff", ".asc", ".vrt", ".img", ".dem", ".jpg", ".jpeg", ".png"},
            .sort = FileSort::Raster,
            .read = read,
            .writeSurface = writeOne};
}

}  // namespace erdwerk::format
