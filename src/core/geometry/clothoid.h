#pragma once
// A clothoid as an element of a plan path: its curvature changes evenly along it.

#include <vector>

#include "core/geometry/vec.h"

namespace erdwerk::geometry {

/// The shape of a clothoid, wherever it lies. Curvatures are 1 over the radius, positive to the right, 0
/// where it meets a straight; in units of `length`, which is > 0.
struct Spiral {
    double startCurvature = 0;
    double endCurvature = 0;
    double length = 0;

    /// From the start, in the direction of travel there: azimuth and distance of the end.
    [[nodiscard]] Angle chordAzimuth() const;
    [[nodiscard]] double chord() const;
    /// How far it has turned at a fraction of its length, in radians, clockwise positive.
    [[nodiscard]] double turnedAt(double fraction) const {
        return length * fraction * (startCurvature + (endCurvature - startCurvature) * fraction / 2);
    }
    /// From one fraction to another, heading north at the start.
    [[nodiscard]] Vec2 way(double from, double to) const;
    /// How far it turns in all, clockwise positive.
    [[nodiscard]] Angle turn() const { return Angle::radians((startCurvature + endCurvature) / 2 * length); }
    friend bool operator==(const Spiral&, const Spiral&) = default;
};

/// Places are integrated by Gauss and Legendre's rule of ten points over stretches that turn by less than
/// half a radian (error below 1e-15 of the length), so spirals that turn round several times are no harder
/// than short ones.
struct Clothoid {
    Vec2 start;
    Vec2 end;
    Angle azimuth;  ///< of travel at the start
    Spiral shape;

    /// A vector of the shape, which heads north at the start, as it lies here.
    [[nodiscard]] Vec2 turned(Vec2 v) const;

    // As every element, see PlanElement.
    [[nodiscard]] double length() const { return shape.length; }
    [[nodiscard]] Vec2 at(double fraction) const;
    [[nodiscard]] Angle direction(double fraction) const;
    [[nodiscard]] double curvature(double fraction) const {
        return shape.startCurvature + (shape.endCurvature - shape.startCurvature) * fraction;
    }
    [[nodiscard]] double nearest(Vec2 p) const;
    [[nodiscard]] std::vector<double> touches(Vec2 from) const;
    [[nodiscard]] Box bounds() const;
    [[nodiscard]] int pieces(double sagitta) const;
    [[nodiscard]] double bulge() const;
};

}  // namespace erdwerk::geometry
