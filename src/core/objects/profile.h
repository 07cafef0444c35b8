#pragma once
// A profile.

#include <vector>

#include "core/objects/kind.h"
#include "core/route/profile.h"

namespace erdwerk::objects {

/// A design over the ground of an alignment.
struct Profile {
    ObjectId alignment;
    ObjectId ground;  ///< a surface
    std::vector<route::Pvi> design;
    double exaggeration = 5;
};

template <>
struct Kind<Profile> : HasNoParts<Profile> {
    static constexpr std::string_view name = "profile";
    static constexpr std::optional<Role> sourceRole = std::nullopt;
    static void references(const Profile& object, const Visit& visit);
    static std::optional<Profile> without(Profile object, ObjectId gone);
};

}  // namespace erdwerk::objects
