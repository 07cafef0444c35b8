#include "app/scene/scene_layer.h"

#include <algorithm>

namespace erdwerk::app {

using geometry::Vec2;
using geometry::Vec3;

SceneContent::SceneContent(SnapshotPointer snapshot, std::vector<Ref> selection)
    : snapshot_(std::move(snapshot)), selection_(std::move(selection)) {}

bool SceneContent::selected(ObjectId id) const {
    return std::any_of(selection_.begin(), selection_.end(), [id](const Ref& r) { return r.object == id; });
}

void SceneContent::addMesh(SceneMesh mesh, double lowest, double highest) {
    ground_.plan.add(mesh.tin->bounds());
    ground_.low = std::min(ground_.low, lowest);
    ground_.high = std::max(ground_.high, highest);
    meshes_.push_back(std::move(mesh));
}

void SceneContent::addDense(SceneDense dense, const geometry::Box& bounds, double lowest, double highest) {
    ground_.plan.add(bounds);
    ground_.low = std::min(ground_.low, lowest);
    ground_.high = std::max(ground_.high, highest);
    dense_.push_back(std::move(dense));
}

void SceneContent::addStroke(SceneStroke stroke) {
    if (stroke.places.size() > 1) strokes_.push_back(std::move(stroke));
}

void SceneContent::addOnGround(const geometry::Path& path, const QColor& colour, float width) {
    std::vector<Vec3> run;
    for (const Vec2 p : geometry::placesAlong(path, 1.5, 4000)) {
        if (const auto h = derived().topHeight(p)) {
            run.push_back({p.x, p.y, *h + 0.08});
            continue;
        }
        addStroke({std::move(run), colour, width});
        run.clear();
    }
    addStroke({std::move(run), colour, width});
}

SceneContent::Extent SceneContent::extent() const {
    if (!ground_.plan.empty()) return ground_;
    Extent out{{}, 1e300, -1e300};
    for (const auto& stroke : strokes_)
        for (const Vec3& p : stroke.places) {
            out.plan.add(p.plan());
            out.low = std::min(out.low, p.z);
            out.high = std::max(out.high, p.z);
        }
    return out;
}

SceneContent contentOf(const SnapshotPointer& snapshot, const std::vector<Ref>& selection,
                       const SceneLayers& layers) {
    SceneContent content(snapshot, selection);
    const auto& document = snapshot->derived.document;
    for (const auto& [id, object] : document.objects())
        if (!document.hidden(*object)) layers[object->payload.index()]->show(content, id);
    return content;
}

}  // namespace erdwerk::app
