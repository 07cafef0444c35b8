#include "core/objects/dimension.h"

namespace erdwerk::objects {

void Kind<Dimension>::references(const Dimension& object, const Visit& visit) {
    for (const Anchor& anchor : object.anchors)
        if (anchor.object) visit(anchor.object);
    if (object.style) visit(object.style);
}

std::optional<Dimension> Kind<Dimension>::without(Dimension object, ObjectId gone) {
    for (Anchor& anchor : object.anchors)
        if (anchor.object == gone) {
            anchor.on = Anchor::On::Gone;
            anchor.object = {};
        }
    if (object.style == gone) object.style = {};
    return object;
}

std::optional<Dimension> Kind<Dimension>::carried(Dimension object, const Carry& carry,
                                                  std::vector<std::string>* lost) {
    for (Anchor& anchor : object.anchors) {
        const bool held = static_cast<bool>(anchor.object);
        anchor = objects::carried(anchor, carry);
        if (held && !anchor.object && lost != nullptr) lost->emplace_back("an end");
    }
    return object;
}

}  // namespace erdwerk::objects
