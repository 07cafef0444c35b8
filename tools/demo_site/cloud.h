#pragma once
// Made-up point clouds of the site, as a drone or a scanner would bring them.

#include <cstdint>

#include "core/survey/cloud.h"

namespace erdwerk::demo {

/// What a cloud is made like.
struct CloudPlan {
    geometry::Box area;
    double spacing = 0.25;  ///< metres between points, jittered
    double noise = 0.02;    ///< metres, whole width of the even spread in height
    bool shrubs = true;     ///< some stand on the ground, and a hut
    bool coloured = true;
    std::uint32_t seed = 5;
};

struct MadeCloud {
    survey::PointCloud cloud;  ///< all unclassified, heights to the millimetre
    std::vector<bool> ground;  ///< the truth: which points are ground
};

MadeCloud makeCloud(const CloudPlan& plan);

/// North Knoll and what surrounds it, 88 m square, some 124 000 points.
CloudPlan northKnoll();

}  // namespace erdwerk::demo
