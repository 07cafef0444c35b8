#include "app/kinds/all_kinds.h"

namespace erdwerk::app {

namespace {

template <class Layer>
std::array<const Layer*, objects::kindCount> listed() {
    return []<class... T>(objects::KindList<T...>) {
        return std::array<const Layer*, objects::kindCount>{&kindOf<T>()...};
    }(objects::Kinds{});
}

}  // namespace

const ObjectKind& kindOf(const objects::Payload& payload) {
    static const auto kinds = listed<ObjectKind>();
    return *kinds[payload.index()];
}

PlanLayers planLayers() {
    return listed<PlanLayer>();
}

SceneLayers sceneLayers() {
    return listed<SceneLayer>();
}

}  // namespace erdwerk::app
