#include "core/objects/alignment.h"

namespace erdwerk::objects {

void Kind<Alignment>::references(const Alignment& object, const Visit& visit) {
    if (object.line) visit(object.line);
}

std::optional<Alignment> Kind<Alignment>::without(Alignment, ObjectId) {
    return std::nullopt;
}

}  // namespace erdwerk::objects
