#pragma once
// Ending a surface on a boundary.

#include "core/base/result.h"
#include "core/terrain/build.h"

namespace erdwerk::terrain {

/// BadInput for fewer than three corners, repeated corners, sides that cross or a ring without area.
Result<void> validate(const Boundary& boundary);

/// Requires that the sides of the ring are constrained edges. Keeps the triangles inside (outside).
Tin keepInside(const Tin& tin, const std::vector<Vec2>& ring);
Tin keepOutside(const Tin& tin, const std::vector<Vec2>& ring);

enum class Keep { Inside, Outside };

/// Cuts the surface along the ring: the part that stays keeps exactly its heights. The sides of the ring
/// become constrained edges with a vertex wherever they cross an edge of the surface.
Tin clip(const Tin& tin, const std::vector<Vec2>& ring, Keep keep = Keep::Inside);

/// Two surfaces that do not overlap as one. They are not linked where they touch.
Tin joined(const Tin& a, const Tin& b);

}  // namespace erdwerk::terrain
