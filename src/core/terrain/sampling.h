#pragma once
// Heights of a surface or of dense points at regular places.

#include <vector>

#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/survey/raster.h"
#include "core/terrain/build.h"
#include "core/terrain/locator.h"

namespace erdwerk::terrain {

/// Heights at the centres of cells that stand on multiples of the cell's side; absent outside the surface.
/// BadInput for a cell that is not above 0 or gives more than 400 million cells.
Result<survey::Raster> rasterOf(const TinLocator& surface, double cell, const Context& context = {});

/// Places on multiples of the spacing, inside the ring (or everywhere), with the surface's heights.
Result<std::vector<Vec3>> sampleOnGrid(const TinLocator& surface, double spacing,
                                       const std::vector<Vec2>& ring, const Context& context = {});

/// Side of the square that one vertex has on average.
double meanSpacing(const Tin& tin);

}  // namespace erdwerk::terrain
