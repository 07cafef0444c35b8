#pragma once
// Lines laid on a surface.

#include <optional>
#include <vector>

#include "core/linework/line3d.h"
#include "core/terrain/locator.h"

namespace erdwerk::linework {

struct DrapeOptions {
    double amount = 0;         ///< added to the surface's heights, in project units
    bool cornersOnly = false;  ///< else a vertex at each triangle edge that is crossed, too
    /// Leave out vertices between corners that are within this of the line; >= 0.
    std::optional<double> thin;
    bool keepFixed = false;  ///< heights that are fixed stay, else they give way
};

/// What a path becomes on a surface: stretches that lie on it, and the plan length that does not.
struct DrapedRuns {
    std::vector<std::vector<Vec3>> runs;
    double outside = 0;
};
/// Places lie on the path itself, arcs too, which are cut to `sagitta`. With corners only a side is left out
/// when one of its ends is off the surface.
DrapedRuns drapedRuns(const Path& path, const terrain::TinLocator& surface, const DrapeOptions& options,
                      double sagitta = 0.005);

/// Positions of what to keep of a chain so that none of the others is farther than `tolerance` in height from
/// the straight between the kept ones beside it (Douglas and Peucker's method on heights). The ends and what
/// is marked are kept. `distance` does not fall.
std::vector<std::size_t> thinned(const std::vector<double>& distance, const std::vector<double>& height,
                                 const std::vector<bool>& marked, double tolerance);

/// Lays the line on a surface as rules: corners get its height, and a grade point is put on each triangle
/// edge crossed (on arcs as many more as keep it within 1 mm of the surface). Fails with BadInput when no
/// corner lies on the surface. Existing grade points are replaced, those with fixed heights too unless they
/// are kept.
Result<Line3D> drape(const Line3D& line, const terrain::TinLocator& surface, ObjectId surfaceId,
                     const DrapeOptions& options = {});

}  // namespace erdwerk::linework
