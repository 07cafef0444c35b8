#include "core/objects/label.h"

namespace erdwerk::objects {

void Kind<Label>::references(const Label& object, const Visit& visit) {
    visit(object.target);
    visit(object.style);
}

std::optional<Label> Kind<Label>::without(Label, ObjectId) {
    return std::nullopt;
}

std::optional<Label> Kind<Label>::carried(Label object, const Carry& carry, std::vector<std::string>*) {
    const Part part{object.target, object.part};
    const auto now = carry.isPoints(object.target) ? carry.vertex(part) : carry.side(part);
    if (!now) return std::nullopt;
    object.target = now->object;
    object.part = now->index;
    return object;
}

}  // namespace erdwerk::objects
