#include "app/kinds/all_kinds.h"

namespace erdwerk::app {

namespace {

constexpr std::size_t count = std::variant_size_v<objects::Payload>;

template <class Layer>
std::array<const Layer*, count> listed() {
    return []<std::size_t... I>(std::index_sequence<I...>) {
        return std::array<const Layer*, count>{&kindOf<std::variant_alternative_t<I, objects::Payload>>()...};
    }
    (std::make_index_sequence<count>{});
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
