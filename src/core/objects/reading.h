#pragma once
// A description that is read back.

#include <string>

#include "core/geometry/vec.h"
#include "core/objects/kind.h"
#include "core/parcel/read_back.h"

namespace erdwerk::objects {

struct Reading {
    std::string text;      ///< as it was pasted or opened
    geometry::Vec2 at;     ///< the point of beginning in the plan
    Angle north = {};      ///< azimuth in the plan of the north that is called
    ObjectId parcel = {};  ///< that it is compared with; may be none
    /// Of lengths that say none.
    parcel::CalledUnit unit = parcel::CalledUnit::Metre;
    friend bool operator==(const Reading&, const Reading&) = default;
};

template <>
struct Kind<Reading> : HasNoParts<Reading> {
    static constexpr std::string_view name = "reading";
    static constexpr std::optional<Role> sourceRole = std::nullopt;
    static void references(const Reading& object, const Visit& visit) {
        if (object.parcel) visit(object.parcel);
    }
    static std::optional<Reading> without(Reading object, ObjectId) {
        object.parcel = {};
        return object;
    }
};

}  // namespace erdwerk::objects
