#pragma once
// The line where the slopes from two 3D lines meet: a ditch bottom between two tops, a ridge between two
// toes.

#include <span>
#include <vector>

#include "core/base/quantity.h"
#include "core/base/result.h"
#include "core/geometry/vec.h"

namespace erdwerk::linework {

/// What a grade of a face is measured along: at right angles to its side in plan, or down its steepest fall.
enum class SlopeAlong { Perpendicular, Fall };

struct MeetOptions {
    Grade a;  ///< upwards positive, going away from the first line towards the second
    Grade b;  ///< and from the second towards the first
    SlopeAlong along = SlopeAlong::Perpendicular;
    friend bool operator==(const MeetOptions&, const MeetOptions&) = default;
};

/// Each side of a chain carries the plane through it with the grade; where two sides meet their planes are
/// extended, or cut, to where they meet. Nothing lies beyond the ends of a chain, at right angles to it, nor
/// where a side is steeper than the fall that was asked for. The chains run in the direction of `a`, places
/// that are the same within a micrometre share a vertex. NotFound when the slopes never meet; BadInput for a
/// chain without length. Costs the product of the numbers of sides.
Result<std::vector<std::vector<geometry::Vec3>>> meetingLine(std::span<const geometry::Vec3> a,
                                                             std::span<const geometry::Vec3> b,
                                                             const MeetOptions& options);

}  // namespace erdwerk::linework
