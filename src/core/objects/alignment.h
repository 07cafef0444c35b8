#pragma once
// An alignment.

#include "core/objects/kind.h"

namespace erdwerk::objects {

/// Follows the plan of a line.
struct Alignment {
    ObjectId line;
    bool reversed = false;
    double startStation = 0;
    double tickInterval = 20;
};

template <>
struct Kind<Alignment> : HasNoParts<Alignment> {
    static constexpr std::string_view name = "alignment";
    static constexpr std::optional<Role> sourceRole = std::nullopt;
    static void references(const Alignment& object, const Visit& visit);
    static std::optional<Alignment> without(Alignment object, ObjectId gone);
};

}  // namespace erdwerk::objects
