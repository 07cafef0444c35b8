#pragma once
// A straight element of a plan path.

#include <vector>

#include "core/geometry/vec.h"

namespace erdwerk::geometry {

struct Straight {
    Vec2 start;
    Vec2 end;

    [[nodiscard]] double length() const { return distance(start, end); }
    [[nodiscard]] Vec2 at(double fraction) const { return lerp(start, end, fraction); }
    [[nodiscard]] Angle direction(double) const { return azimuth(start, end); }
    [[nodiscard]] double curvature(double) const { return 0; }
    [[nodiscard]] double nearest(Vec2 p) const {
        const Vec2 along = end - start;
        const double square = dot(along, along);
        return square == 0 ? 0 : std::clamp(dot(p - start, along) / square, 0.0, 1.0);
    }
    [[nodiscard]] std::vector<double> touches(Vec2) const { return {}; }
    [[nodiscard]] Box bounds() const {
        Box box;
        box.add(start);
        box.add(end);
        return box;
    }
    [[nodiscard]] int pieces(double) const { return 1; }
    [[nodiscard]] double bulge() const { return 0; }
};

}  // namespace erdwerk::geometry
