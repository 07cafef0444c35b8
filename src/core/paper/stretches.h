#pragma once
// A line cut into stretches that each fit a plan frame turned along it, one sheet after the other.

#include <array>
#include <vector>

#include "core/base/result.h"
#include "core/geometry/path.h"

namespace erdwerk::paper {

/// Where a turned frame lies: its middle on the ground and the azimuth that is up on paper.
struct TurnedPlace {
    geometry::Vec2 centre;
    Angle up;
};

/// A stretch runs from left to right on paper, its ends level, its bends in the middle of the height.
/// Distances along the path; a stretch of no length lies along its tangent. Requires a path.
TurnedPlace turnedAlong(const geometry::Path& path, double from, double to);

/// Width and height on paper, in ground units, of what a stretch takes when it lies so.
std::array<double, 2> extentAlong(const geometry::Path& path, double from, double to);

struct Stretch {
    double from = 0;
    double to = 0;
    friend bool operator==(const Stretch&, const Stretch&) = default;
};
/// The fewest stretches of one length (the last may be shorter) that each fit `width` by `height` (ground
/// units); their ends stand at whole multiples of `round` where that takes no more of them (0: wherever).
/// BadInput when the path is empty, a bend is too wide for the height, or more than 500 are needed.
Result<std::vector<Stretch>> stretchesAlong(const geometry::Path& path, double width, double height,
                                            double round);

}  // namespace erdwerk::paper
