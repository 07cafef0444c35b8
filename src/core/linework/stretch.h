#pragma once
// Other heights for a part of a line.

#include <vector>

#include "core/linework/line3d.h"

namespace erdwerk::linework {

struct StretchPoint {
    double distance = 0;  ///< along the line
    HeightRule rule;
};

/// Between two distances the points given are the controls: grade points that were there go, corners without
/// a point are interpolated. Points get a grade point where no vertex stands. What lies outside keeps its
/// rules. BadInput unless 0 <= from < to <= length.
Result<Line3D> withStretch(const Line3D& line, double from, double to,
                           const std::vector<StretchPoint>& points);

/// Level between two distances: both ends have this height, nothing between has its own.
Result<Line3D> levelStretch(const Line3D& line, double from, double to, double height);

}  // namespace erdwerk::linework
