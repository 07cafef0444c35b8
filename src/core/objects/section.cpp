#include "core/objects/section.h"

#include <algorithm>

namespace erdwerk::objects {

void Kind<Section>::references(const Section& object, const Visit& visit) {
    if (object.along) visit(object.along);
    for (const ObjectId id : object.off) visit(id);
}

std::optional<Section> Kind<Section>::without(Section object, ObjectId gone) {
    if (object.along == gone) return std::nullopt;
    std::erase(object.off, gone);
    return object;
}

}  // namespace erdwerk::objects
