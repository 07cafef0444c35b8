#include "core/objects/label.h"

namespace erdwerk::objects {

std::string_view labelOnName(Label::On on) {
    switch (on) {
        case Label::On::Vertex:
            return "vertex";
        case Label::On::Whole:
            return "whole";
        case Label::On::Place:
            return "place";
        case Label::On::Side:
            break;
    }
    return "side";
}

void Kind<Label>::references(const Label& object, const Visit& visit) {
    visit(object.target);
    visit(object.style);
}

std::optional<Label> Kind<Label>::without(const Label&, ObjectId) {
    return std::nullopt;
}

std::optional<Label> Kind<Label>::carried(Label object, const Carry& carry, std::vector<std::string>*) {
    if (object.on == Label::On::Whole || object.on == Label::On::Place) return object;
    const Part part{object.target, object.part};
    const bool vertex = object.on == Label::On::Vertex || carry.isPoints(object.target);
    const auto now = vertex ? carry.vertex(part) : carry.side(part);
    if (!now) return std::nullopt;
    object.target = now->object;
    object.part = now->index;
    return object;
}

}  // namespace erdwerk::objects
