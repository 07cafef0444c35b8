#pragma once
// A set of survey points.

#include "core/objects/kind.h"
#include "core/survey/points.h"

namespace erdwerk::objects {

struct Points {
    survey::PointSet set;
};

/// A point of a set, by position.
struct PointRef {
    ObjectId set;
    std::size_t index = 0;
};

template <>
struct Kind<Points> : StandsAlone<Points> {
    static constexpr std::string_view name = "points";
    static constexpr std::optional<Role> sourceRole = Role::Points;
};

}  // namespace erdwerk::objects
