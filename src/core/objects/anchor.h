#pragma once
// Where a dimension holds on to something.

#include "core/geometry/vec.h"
#include "core/objects/kind.h"

namespace erdwerk::objects {

/// A vertex of a line, a survey point, a place on a side of a line, or a place of its own in plan.
struct Anchor {
    enum class On { Place, Vertex, Side, Gone };
    On on = On::Place;
    ObjectId object;         ///< none on a place, and when it is gone
    std::size_t index = 0;   ///< of the vertex, point or side
    double fraction = 0.5;   ///< along the side
    geometry::Vec2 place{};  ///< the place itself; of others where it was when it was picked
    friend bool operator==(const Anchor&, const Anchor&) = default;
};
/// "place", "vertex", "side", "gone": as stored in files.
std::string_view anchorName(Anchor::On on);

/// Carried through an edit; Gone when its part is gone (the edit then gives it the place where that was).
Anchor carried(Anchor anchor, const Carry& carry);

}  // namespace erdwerk::objects
