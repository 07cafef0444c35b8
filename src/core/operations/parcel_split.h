#pragma once
// Parcels of the figures that lines make, and parcels divided in two.

#include "core/operations/lines.h"
#include "core/parcel/split.h"

namespace erdwerk::operations {

/// How a parcel is to be divided: by the line through two places, or so that the part beside a straight side,
/// or on the right of a line through a place on the boundary, has an area.
struct ParcelCut {
    enum class By { Line, Parallel, Through };
    By by = By::Line;
    geometry::Vec2 from;  ///< of Line; a place on the side of Parallel; the place of Through
    geometry::Vec2 to;    ///< of Line
    double area = 0;      ///< of the others
};
/// The two parts, as they would be; BadInput with words for people.
Result<parcel::SplitFigure> splitOf(const Derived& derived, ObjectId parcel, const ParcelCut& cut);

/// The parcel keeps the part with its point of beginning, and its line; the other part gets a line and a
/// parcel of its own, with the wording and the names of its sides. Corners keep their heights, new ones have
/// none. A boundary that followed the figure of lines is a line of its own then, which is said. `seen`: what
/// the cut was shown on; with another boundary meanwhile it is refused.
Edit splitParcel(const Results& seen, ObjectId parcel, const ParcelCut& cut);

/// The figure that the shown lines make round a place (see linework/enclosure.h).
Result<geometry::Path> figureRound(const Derived& derived, geometry::Vec2 place);
/// A closed line of it without heights, which follows the lines, and its parcel; refused when a line has
/// changed since `seen`.
Edit parcelRound(const Results& seen, geometry::Vec2 place);

}  // namespace erdwerk::operations
