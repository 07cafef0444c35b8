#include "core/objects/alignment.h"

namespace erdwerk::objects {

void Kind<Alignment>::references(const Alignment& object, const Visit& visit) {
    if (object.line) visit(object.line);
    if (object.criteria) visit(object.criteria);
}

std::optional<Alignment> Kind<Alignment>::without(Alignment object, ObjectId gone) {
    if (object.line == gone) return std::nullopt;
    if (object.criteria == gone) object.criteria = {};
    return object;
}

}  // namespace erdwerk::objects
