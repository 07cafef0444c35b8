#include "app/kinds/current.h"

#include "core/objects/cloud.h"
#include "core/objects/height_raster.h"
#include "core/objects/surface.h"

namespace erdwerk::app {

ObjectId currentSurface(const Session& session) {
    if (const auto selected = session.selected<objects::Surface>()) return *selected;
    // What begins with another surface has no sources to work on.
    const auto all = session.document().all<objects::Surface>();
    for (auto it = all.rbegin(); it != all.rend(); ++it)
        if (!session.document().get<objects::Surface>(*it)->definition->base) return *it;
    return {};
}

ObjectId currentDense(const Session& session) {
    if (const auto cloud = session.selected<objects::Cloud>()) return *cloud;
    if (const auto raster = session.selected<objects::HeightRaster>()) return *raster;
    if (const auto surface = session.selected<objects::Surface>()) return *surface;
    const auto& document = session.document();
    for (const ObjectId id : document.all<objects::Cloud>())
        if (document.get<objects::Cloud>(id)->cloud) return id;
    for (const ObjectId id : document.all<objects::HeightRaster>())
        if (document.get<objects::HeightRaster>(id)->raster) return id;
    return currentSurface(session);
}

}  // namespace erdwerk::app
