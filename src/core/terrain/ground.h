#pragma once
// Which points of a cloud are ground.

#include <vector>

#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/survey/cloud.h"

namespace erdwerk::terrain {

struct GroundOptions {
    double cell = 0;            ///< metres or other project unit; 0: from the density of the points
    double largestObject = 20;  ///< width in plan of the largest building or tree to be taken away
    double slope = 0.15;        ///< rise over run above which a step in the openings is an object
    double above = 0.15;        ///< how far off the ground, square to it, a point may lie
};

/// For each point whether it is ground. By the simple morphological filter of Pingel, Clarke and McBride ("An
/// improved simple morphological filter for the terrain classification of airborne LIDAR data", 2013): the
/// lowest heights on a grid are opened with disks that grow to the largest object; cells that an opening
/// lowers by more than the slope allows are objects. What an opening takes off a rock or bank passes over
/// into the remaining ground without a step along a good part of its rim, which no building or tree does: it
/// stays ground. A point is ground when it lies within `above` of the triangulated lowest points of the
/// ground cells. Deterministic. Fails with Degenerate for fewer than three places, Cancelled.
Result<std::vector<bool>> groundPoints(const std::vector<geometry::Vec3>& points,
                                       const GroundOptions& options = {}, const Context& context = {});

/// Classes of all points of a cloud after telling ground: ground is class 2, what was 2 and is not becomes 1,
/// the rest stays. Withheld points and noise (classes 7 and 18) take no part and stay.
Result<std::vector<std::uint8_t>> groundClasses(const survey::PointCloud& cloud,
                                                const GroundOptions& options = {},
                                                const Context& context = {});

}  // namespace erdwerk::terrain
