#pragma once
// Dividing a closed figure in two.

#include "core/base/result.h"
#include "core/geometry/path.h"

namespace erdwerk::parcel {

using geometry::Path;
using geometry::Vec2;

/// Two closed paths in the direction of the figure; the cut is the last segment of the first and the first of
/// the second, the other way.
struct SplitFigure {
    Path first;   ///< to the right of the cut as it was given
    Path second;  ///< to the left of it
};

/// Area of a closed figure on the right of a line through a place, in any number of pieces. Exact for
/// straights and arcs: by Green's theorem about the place, from which the closing sides along the line have
/// no area.
double areaRightOf(const Path& figure, Vec2 place, Angle direction);

/// By the line through two places. BadInput when it does not cross the boundary just twice. Requires a closed
/// figure.
Result<SplitFigure> splitAlong(const Path& figure, Vec2 from, Vec2 to);

/// By a line parallel to a straight side so that the part beside it has an area. BadInput for a side that is
/// not straight, an area that the figure does not have, or a cut into more than two.
Result<SplitFigure> splitOffParallel(const Path& figure, std::size_t side, double area);

/// By a line through a place on the boundary so that the part to the right of it, looking from there, has an
/// area. The same failures.
Result<SplitFigure> splitOffThrough(const Path& figure, Vec2 place, double area);

}  // namespace erdwerk::parcel
