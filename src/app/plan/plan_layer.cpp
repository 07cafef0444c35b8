#include "app/plan/plan_layer.h"

namespace erdwerk::app {

std::vector<Snap> snapsAt(const Snapshot& snapshot, const ViewTransform& view, const PlanLayers& layers,
                          QPointF cursor, double pixels, const std::optional<geometry::Vec2>& from,
                          const TextsShown* texts) {
    SnapSearch search(snapshot, view, cursor, pixels, from, texts);
    for (const auto& [id, object] : search.document().objects())
        if (const PlanLayer& layer = layerOf(layers, *object);
            !search.document().hidden(*object) && shows(search.document().shown().off, layer))
            layer.hit(search, id);
    return search.finish();
}

}  // namespace erdwerk::app
