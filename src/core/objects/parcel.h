#pragma once
// A parcel.

#include <string>

#include "core/objects/kind.h"

namespace erdwerk::objects {

/// Follows the plan of a line.
struct Parcel {
    ObjectId line;
    bool reversed = false;
    std::size_t begin = 0;  ///< corner of the (reversed) path that is the point of beginning
    std::string beginning;  ///< its name
    friend bool operator==(const Parcel&, const Parcel&) = default;
};

template <>
struct Kind<Parcel> {
    static constexpr std::string_view name = "parcel";
    static constexpr std::optional<Role> sourceRole = std::nullopt;
    static void references(const Parcel& object, const Visit& visit);
    static std::optional<Parcel> without(const Parcel& object, ObjectId gone);
    static std::optional<Parcel> carried(Parcel object, const Carry& carry, std::vector<std::string>* lost);
};

}  // namespace erdwerk::objects
