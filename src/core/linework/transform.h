#pragma once
// Moving, turning and mirroring in plan.

#include "core/linework/line3d.h"

namespace erdwerk::linework {

/// A movement of the plan that keeps lengths.
class PlanMove {
public:
    static PlanMove by(Vec2 shift);
    /// Clockwise (as azimuths run) about a place.
    static PlanMove turned(Angle angle, Vec2 about);
    /// At the straight through two places. Requires that they differ.
    static PlanMove mirrored(Vec2 a, Vec2 b);

    [[nodiscard]] Vec2 operator()(Vec2 place) const;

private:
    Vec2 origin_;
    Vec2 x_{1, 0};  ///< where the axes go
    Vec2 y_{0, 1};
    Vec2 to_;
};

/// Corners and arcs go, rules stay.
Line3D moved(const Line3D& line, const PlanMove& move);

}  // namespace erdwerk::linework
