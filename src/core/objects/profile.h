#pragma once
// A profile.

#include <vector>

#include "core/objects/kind.h"
#include "core/route/profile.h"
#include "core/route/profile_rows.h"

namespace erdwerk::objects {

/// A design over the ground of an alignment.
struct Profile {
    ObjectId alignment;
    ObjectId ground;  ///< a surface
    std::vector<route::Pvi> design;
    double exaggeration = 5;
    /// Loose lines that give the ground where no surface does: a point wherever one crosses the axis.
    std::vector<ObjectId> across = {};
    /// Of the table under it.
    std::vector<route::ProfileRow> rows = {route::ProfileRow::Station, route::ProfileRow::Ground,
                                           route::ProfileRow::Design};
    double scale = 0;  ///< 1 : scale along, on the screen and on paper; 0: as it fits
};

template <>
struct Kind<Profile> : HasNoParts<Profile> {
    static constexpr std::string_view name = "profile";
    static constexpr std::optional<Role> sourceRole = std::nullopt;
    static void references(const Profile& object, const Visit& visit);
    static std::optional<Profile> without(Profile object, ObjectId gone);
};

}  // namespace erdwerk::objects
