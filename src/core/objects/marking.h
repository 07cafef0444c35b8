#pragma once
// What is marked along an alignment, kept by name.

#include "core/objects/kind.h"
#include "core/route/marking.h"

namespace erdwerk::objects {

struct Marking {
    route::MarkingSettings marking;
    friend bool operator==(const Marking&, const Marking&) = default;
};

template <>
struct Kind<Marking> : StandsAlone<Marking> {
    static constexpr std::string_view name = "marking";
    static constexpr std::optional<Role> sourceRole = std::nullopt;
};

}  // namespace erdwerk::objects
