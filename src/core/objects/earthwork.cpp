#include "core/objects/earthwork.h"

namespace erdwerk::objects {

std::string_view sortName(EarthworkSort sort) {
    static constexpr std::array<std::string_view, 3> names{"batter", "pad", "pond"};
    return names[static_cast<std::size_t>(sort)];
}

void Kind<Earthwork>::references(const Earthwork& object, const Visit& visit) {
    visit(object.edge);
    visit(object.ground);
    for (const ObjectId line : object.inside) visit(line);
}

std::optional<Earthwork> Kind<Earthwork>::without(Earthwork object, ObjectId gone) {
    if (object.edge == gone) return std::nullopt;
    if (object.ground == gone) object.ground = {};
    std::erase(object.inside, gone);
    return object;
}

}  // namespace erdwerk::objects
