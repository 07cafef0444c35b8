#pragma once
// Fewer points for a 3D line, as many as its shape and its heights need.

#include "core/linework/keep_heights.h"

namespace erdwerk::linework {

/// How a line is thinned; each that is above 0 counts, a point goes when all of those say so.
struct ThinLineOptions {
    double deviation = 0;  ///< in space, of any point left out from the line that is left; project units
    Angle angle = {};      ///< between the directions before and after, in space
    double spacing = 0;    ///< in plan from the last point that stays
};
struct ThinnedLine {
    Reshaped reshaped;
    std::size_t before = 0;  ///< vertices
    std::size_t gone = 0;
    double deviation = 0;  ///< in space, the largest of those left out
};
/// Ends, points of arcs and of vertical curves stay. BadInput when no option is above 0.
Result<ThinnedLine> thinnedLine(const Line3D& line, const ResolvedLine& resolved,
                                const ThinLineOptions& options, const Surroundings& around);

}  // namespace erdwerk::linework
