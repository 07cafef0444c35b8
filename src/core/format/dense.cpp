#include "core/format/dense.h"

#include <algorithm>
#include <filesystem>

#include "core/format/cloud_file.h"
#include "core/format/import.h"
#include "core/format/las.h"
#include "core/format/output.h"
#include "core/format/ply.h"
#include "core/format/raster_file.h"

namespace erdwerk::format {

using geometry::Vec3;

Result<std::vector<Vec3>> readDense(const std::string& path, const survey::CloudFilter& filter,
                                    const Context& context) {
    const std::string ending = endingOf(path);
    if (sortOf(path) == FileSort::Raster) {
        const auto raster = readRaster(path, context);
        if (!raster) return tl::unexpected(raster.error());
        return raster->places();
    }
    if (ending == ".xml" || path.find(".erdwerk") != std::string::npos) {
        const auto surface = openSurface(path);
        if (!surface) return tl::unexpected(surface.error());
        const auto vertices = (*surface)->tin().vertices();
        return std::vector<Vec3>(vertices.begin(), vertices.end());
    }
    if (ending == ".ply") return readPlyPoints(path);
    if (ending != ".las" && ending != ".laz" && !readLasHeader(path)) return readXyzPlaces(path, context);
    const auto cloud = readLas(path, context);
    if (!cloud) return tl::unexpected(cloud.error());
    auto places = survey::placesOf(*cloud, filter, context);
    if (places && places->empty())
        return badInput(filter.classes.empty() ? "holds no points that take part"
                                               : "holds no points of the classes asked for",
                        path, 1);
    return places;
}

}  // namespace erdwerk::format
