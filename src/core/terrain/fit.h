#pragma once
// How well a surface fits dense points.

#include <optional>
#include <vector>

#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/terrain/locator.h"

namespace erdwerk::terrain {

/// For each point its height above the surface (up is positive, measured upright); nothing outside the
/// surface. Parallel.
Result<std::vector<std::optional<double>>> deviationsOf(const TinLocator& surface,
                                                        const std::vector<Vec3>& points,
                                                        const Context& context = {});

struct FitFigures {
    std::size_t points = 0;   ///< compared
    std::size_t outside = 0;  ///< off the surface
    double mean = 0;
    double rms = 0;
    double largestUp = 0;    ///< 0 when no point lies above
    double largestDown = 0;  ///< <= 0
    /// 95 per cent of the absolute deviations are at most this: the smallest of them for which that is so.
    double p95 = 0;
    std::size_t within = 0;  ///< points whose absolute deviation is at most the tolerance
    std::vector<std::size_t>
        histogram;  ///< equal bins from -range to +range; what lies beyond is in the end bins
    double range = 0;
    [[nodiscard]] double withinShare() const {
        return points == 0 ? 0 : static_cast<double>(within) / static_cast<double>(points);
    }
};

/// `range` of the histogram is twice the tolerance.
FitFigures figuresOf(const std::vector<std::optional<double>>& deviations, double tolerance,
                     std::size_t bins = 40);

/// The worst deviation in each cell of a grid over the points.
struct DeviationMap {
    Vec2 origin;  ///< south-west corner
    double cell = 1;
    int columns = 0;
    int rows = 0;
    std::vector<float> worst;  ///< row by row from the south; NaN where no point was compared
};
/// At most `most` cells, none smaller than `leastCell`.
DeviationMap deviationMap(const std::vector<Vec3>& points,
                          const std::vector<std::optional<double>>& deviations, double leastCell,
                          std::size_t most = 250'000);

/// The places that deviate most, the worst first, no two nearer to each other than `apart`.
struct WorstPlace {
    std::size_t point = 0;
    double deviation = 0;
};
std::vector<WorstPlace> worstPlaces(const std::vector<Vec3>& points,
                                    const std::vector<std::optional<double>>& deviations, double tolerance,
                                    double apart, std::size_t most);

}  // namespace erdwerk::terrain
