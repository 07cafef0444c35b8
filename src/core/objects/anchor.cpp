#include "core/objects/anchor.h"

namespace erdwerk::objects {

std::string_view anchorName(Anchor::On on) {
    switch (on) {
        case Anchor::On::Vertex:
            return "vertex";
        case Anchor::On::Side:
            return "side";
        case Anchor::On::Gone:
            return "gone";
        case Anchor::On::Place:
            break;
    }
    return "place";
}

Anchor carried(Anchor anchor, const Carry& carry) {
    if (!anchor.object) return anchor;
    const Part part{anchor.object, anchor.index};
    const bool vertex = anchor.on == Anchor::On::Vertex;
    if (const auto now = vertex ? carry.vertex(part) : carry.side(part)) {
        anchor.object = now->object;
        anchor.index = now->index;
        return anchor;
    }
    anchor.on = Anchor::On::Gone;
    anchor.object = {};
    return anchor;
}

}  // namespace erdwerk::objects
