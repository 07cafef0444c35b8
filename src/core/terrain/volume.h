#pragma once
// Volumes between two surfaces.

#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/terrain/locator.h"

namespace erdwerk::terrain {

struct Volumes {
    double cut = 0;   ///< where `from` lies above `to`
    double fill = 0;  ///< where `to` lies above `from`
    double area = 0;  ///< in plan, where both exist
    double cutArea = 0;
    double fillArea = 0;
    [[nodiscard]] double net() const { return fill - cut; }
};

/// Exact for the two triangulations: every pair of overlapping triangles is intersected in plan, the
/// difference of two planes integrated over the piece, and the piece split where the difference changes sign.
/// Parallel.
Result<Volumes> volumeBetween(const TinLocator& from, const TinLocator& to, const Context& context = {});

}  // namespace erdwerk::terrain
