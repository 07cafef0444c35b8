#include "core/format/declared/meshes.h"

#include "core/derive/surface_result.h"

namespace erdwerk::format {

std::vector<NamedTin> surfacesOf(const derive::Derived& derived) {
    std::vector<NamedTin> out;
    for (const auto& [id, surface] : derived.surfaces)
        if (surface->locator) out.push_back({derived.document.nameOf(id), &surface->locator->tin()});
    return out;
}

std::vector<std::string> leftBySurfaces(const document::Document& document) {
    return leftBehind(document, {"points", "line", "alignment", "profile", "parcel", "label", "sheet",
                                 "cloud", "raster", "backdrop"});
}

}  // namespace erdwerk::format
