#pragma once
// The style of labels.

#include "core/annotate/label_style.h"
#include "core/objects/kind.h"

namespace erdwerk::objects {

struct LabelStyle {
    annotate::LabelStyle style;
    friend bool operator==(const LabelStyle&, const LabelStyle&) = default;
};

template <>
struct Kind<LabelStyle> : StandsAlone<LabelStyle> {
    static constexpr std::string_view name = "label-style";
    static constexpr std::optional<Role> sourceRole = std::nullopt;
};

}  // namespace erdwerk::objects
