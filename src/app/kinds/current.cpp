#include "app/kinds/current.h"

namespace erdwerk::app {

ObjectId currentSurface(const Session& session) {
    if (const auto selected = session.selected<objects::Surface>()) return *selected;
    const auto all = session.document().all<objects::Surface>();
    return all.empty() ? ObjectId{} : all.back();
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
