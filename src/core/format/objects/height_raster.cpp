#include "core/objects/height_raster.h"
#include "core/format/attached.h"
#include "core/format/objects/json_kind.h"

namespace erdwerk::format {

using namespace objects;

template <>
json Json<HeightRaster>::write(const HeightRaster& p, const JsonContext<HeightRaster>& c) {
    return {{"file", inFolder(p.file, c.folder)}};
}

template <>
HeightRaster Json<HeightRaster>::read(const json& j, const JsonContext<HeightRaster>& c) {
    HeightRaster out;
    out.file = fromFolder(word(j.at("file")), c.folder);
    if (auto raster = attachedRaster(out.file))
        out.raster = std::move(*raster);
    else
        out.problem = raster.error().text;
    return out;
}

}  // namespace erdwerk::format
