#pragma once
// Contour lines of a surface.

#include <vector>

#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/terrain/tin.h"

namespace erdwerk::terrain {

struct Contour {
    double height = 0;
    bool closed = false;       ///< then the first place is repeated as the last
    std::vector<Vec2> places;  ///< higher ground on the right of the direction of travel
};

struct ContourOptions {
    double interval = 1;  ///< project units, > 0; levels are its multiples from 0
    /// Rounds corners at triangle edges. A rounded line leaves its level by less than half an interval at
    /// every place, so neighbouring lines never meet.
    bool smooth = false;
};

/// Sorted by height. A vertex exactly on a level counts as just above it, so the line runs through the
/// vertex; flat triangles get no line inside. At most a million levels (BadInput beyond). Parallel over
/// levels.
Result<std::vector<Contour>> contours(const Tin& tin, const ContourOptions& options,
                                      const Context& context = {});

/// Index contours are those whose level number is a multiple of `every`.
bool isIndexContour(double height, double interval, int every);

}  // namespace erdwerk::terrain
