#pragma once
// A named set of objects with its own colour; hidden and shown as one.

#include <string>

#include "core/objects/kind.h"

namespace erdwerk::objects {

struct Group {
    std::string colour;  ///< #rrggbb
};

template <>
struct Kind<Group> : StandsAlone<Group> {
    static constexpr std::string_view name = "group";
    static constexpr std::optional<Role> sourceRole = Role::Breakline;  ///< of the lines in it
};

}  // namespace erdwerk::objects
