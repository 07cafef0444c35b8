#pragma once
// The wording of legal descriptions.

#include "core/objects/kind.h"
#include "core/parcel/description.h"

namespace erdwerk::objects {

/// Its name is the object's. A sentence that is not valid is a finding; the plain wording stands in for it.
struct Wording {
    parcel::DescriptionTemplate wording;
    friend bool operator==(const Wording&, const Wording&) = default;
};

template <>
struct Kind<Wording> : StandsAlone<Wording> {
    static constexpr std::string_view name = "wording";
    static constexpr std::optional<Role> sourceRole = std::nullopt;
};

}  // namespace erdwerk::objects
