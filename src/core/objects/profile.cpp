#include "core/objects/profile.h"

#include <algorithm>

namespace erdwerk::objects {

void Kind<Profile>::references(const Profile& object, const Visit& visit) {
    visit(object.alignment);
    visit(object.ground);
    for (const ObjectId line : object.across) visit(line);
}

std::optional<Profile> Kind<Profile>::without(Profile object, ObjectId gone) {
    if (object.alignment == gone) return std::nullopt;
    if (object.ground == gone) object.ground = {};
    std::erase(object.across, gone);
    return object;
}

}  // namespace erdwerk::objects
