#include "core/objects/profile.h"

namespace erdwerk::objects {

void Kind<Profile>::references(const Profile& object, const Visit& visit) {
    visit(object.alignment);
    visit(object.ground);
}

std::optional<Profile> Kind<Profile>::without(Profile object, ObjectId gone) {
    if (object.alignment == gone) return std::nullopt;
    if (object.ground == gone) object.ground = {};
    return object;
}

}  // namespace erdwerk::objects
