#pragma once
// A circular arc as an element of a plan path.

#include <vector>

#include "core/geometry/vec.h"

namespace erdwerk::geometry {

/// `sweep` is the signed turn from start to end as seen from the centre: positive is clockwise (a curve to
/// the right), since azimuths run clockwise.
struct Arc {
    Vec2 centre;
    double radius = 0;
    Angle startAzimuth;  ///< from the centre to the start
    Angle sweep;
    Vec2 start;  ///< exactly, not by way of the centre
    Vec2 end;
    [[nodiscard]] bool right() const { return sweep.radians() > 0; }

    // As every element, see PlanElement.
    [[nodiscard]] double length() const { return radius * std::abs(sweep.radians()); }
    [[nodiscard]] Vec2 at(double fraction) const;
    [[nodiscard]] Angle direction(double fraction) const;
    [[nodiscard]] double curvature(double) const { return right() ? 1 / radius : -1 / radius; }
    [[nodiscard]] double nearest(Vec2 p) const;
    [[nodiscard]] std::vector<double> touches(Vec2 from) const;
    [[nodiscard]] Box bounds() const;
    [[nodiscard]] int pieces(double sagitta) const;
    [[nodiscard]] double bulge() const;
};

}  // namespace erdwerk::geometry
