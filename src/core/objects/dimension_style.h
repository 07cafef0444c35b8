#pragma once
// The style of dimensions.

#include "core/annotate/dimension.h"
#include "core/objects/kind.h"

namespace erdwerk::objects {

struct DimensionStyle {
    annotate::DimensionStyle style;
    friend bool operator==(const DimensionStyle&, const DimensionStyle&) = default;
};

template <>
struct Kind<DimensionStyle> : StandsAlone<DimensionStyle> {
    static constexpr std::string_view name = "dimension-style";
    static constexpr std::optional<Role> sourceRole = std::nullopt;
};

}  // namespace erdwerk::objects
