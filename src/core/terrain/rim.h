#pragma once
// Trimming a surface at its rim.

#include "core/terrain/tin.h"

namespace erdwerk::terrain {

struct RimOptions {
    double maxEdge = 0;            ///< project units; 0: no limit
    double needleRatio = 1e-6;     ///< height over longest edge below which a rim triangle is a needle
    bool keepConstrained = false;  ///< never peel through a constrained rim edge (the sides of a boundary)
};

/// Takes away rim triangles with an edge longer than `maxEdge`, and needles, from the outside until none is
/// left.
Tin peelRim(const Tin& tin, const RimOptions& options);

}  // namespace erdwerk::terrain
