#pragma once
// Cut and fill between two surfaces as a map, and by region.

#include <string>

#include "core/terrain/volume.h"

namespace erdwerk::terrain {

/// Difference `to` minus `from` at the centres of square cells; NaN where either is missing.
struct CutFillMap {
    Vec2 origin;  ///< south-west corner
    double cell = 1;
    int columns = 0;
    int rows = 0;
    std::vector<float> difference;  ///< row by row from the south
    double largestCut = 0;          ///< >= 0
    double largestFill = 0;         ///< >= 0
};
/// At most `most` cells over the part both may cover. Parallel.
Result<CutFillMap> cutFillMap(const TinLocator& from, const TinLocator& to, std::size_t most = 250'000,
                              const Context& context = {});

struct Region {
    std::string name;
    std::vector<Vec2> ring;  ///< first corner not repeated
};
struct RegionVolumes {
    std::string name;
    Volumes volumes;
};
/// One row for each region; both surfaces are cut exactly along its ring. A region off the surfaces has
/// zeros.
Result<std::vector<RegionVolumes>> volumesByRegion(const TinLocator& from, const TinLocator& to,
                                                   const std::vector<Region>& regions,
                                                   const Context& context = {});

}  // namespace erdwerk::terrain
