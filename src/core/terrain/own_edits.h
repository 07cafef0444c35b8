#pragma once
// Changes by hand to a finished surface.

#include "core/base/result.h"
#include "core/terrain/tin.h"

namespace erdwerk::terrain {

enum class EditKind { FlipSide, RemoveTriangle, RemovePoint, AddPoint, MovePoint, Raise, TakeOver };

/// `at` names the side, triangle or point that is nearest to it; `to` is where a point is added or moved, and
/// for Raise `to.z` is the amount.
struct OwnEdit {
    EditKind kind = EditKind::FlipSide;
    Vec2 at;
    Vec3 to;
    friend bool operator==(const OwnEdit&, const OwnEdit&) = default;
};

/// Work is local but for a copy of the arrays. BadInput when the edit does not apply: a side of the rim or a
/// constrained one cannot be flipped, nor one whose two triangles do not form a convex quadrilateral; an
/// added point must lie inside the surface and not on a vertex; nothing lies at the place. TakeOver is done
/// by `Patch`.
Result<Tin> edited(const Tin& tin, const OwnEdit& edit);

}  // namespace erdwerk::terrain
