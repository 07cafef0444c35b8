// GeoPackage.

#include "core/format/declared/left_behind.h"
#include "core/format/declared/vectors.h"
#include "core/format/project_file.h"
#include "core/format/project_layers.h"

namespace erdwerk::format {

namespace {

Result<std::vector<std::string>> write(const std::string& path, const derive::Derived& derived, Figures) {
    if (const auto done = exportGeoPackage(path, derived); !done) return tl::unexpected(done.error());
    return leftBehind(derived.document, {"profile", "label", "sheet", "cloud", "raster", "backdrop"});
}

}  // namespace

Format geoPackage() {
    return {.name = "GeoPackage", .endings = {".gpkg"}, .read = readVectors, .write = write};
}

}  // namespace erdwerk::format
