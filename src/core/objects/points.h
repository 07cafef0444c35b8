#pragma once
// A set of survey points.

#include <memory>
#include <string>
#include <vector>

#include "core/objects/kind.h"
#include "core/objects/point_ref.h"
#include "core/survey/points.h"

namespace erdwerk::objects {

/// A point of a set by where it stands on an alignment.
struct TiedPoint {
    std::string number;
    double station = 0;  ///< as it is read
    double offset = 0;   ///< positive to the right
    friend bool operator==(const TiedPoint&, const TiedPoint&) = default;
};
struct StationTie {
    ObjectId alignment;
    std::vector<TiedPoint> points;
    friend bool operator==(const StationTie&, const StationTie&) = default;
};

struct Points {
    survey::PointSet set;
    /// Points that stand by station and offset and follow their alignment; shared because most sets have
    /// none.
    std::shared_ptr<const StationTie> tie = {};
};

template <>
struct Kind<Points> : HasNoParts<Points> {
    static constexpr std::string_view name = "points";
    static constexpr std::optional<Role> sourceRole = Role::Points;
    static void references(const Points& object, const Visit& visit) {
        if (object.tie) visit(object.tie->alignment);
    }
    static std::optional<Points> without(Points object, ObjectId gone) {
        if (object.tie && object.tie->alignment == gone) object.tie = {};
        return object;
    }
};

}  // namespace erdwerk::objects
