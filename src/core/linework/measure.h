#pragma once
// Measuring along places that somebody points at.

#include <optional>
#include <vector>

#include "core/base/quantity.h"
#include "core/geometry/vec.h"

namespace erdwerk::linework {

struct MeasuredPlace {
    geometry::Vec2 plan;
    std::optional<double> height;
};

struct MeasuredLeg {
    double run = 0;  ///< in plan, project units
    Angle azimuth;
    std::optional<double> rise;   ///< when both ends have heights
    std::optional<double> slope;  ///< distance in space, likewise
    [[nodiscard]] std::optional<Grade> grade() const {
        return rise && run > 0 ? std::optional(Grade::riseOverRun(*rise / run)) : std::nullopt;
    }
};

struct Measured {
    std::vector<MeasuredLeg> legs;  ///< one fewer than places
    double run = 0;                 ///< of all legs
    std::optional<double> rise;     ///< from the first place to the last, when both have heights
    double area = 0;                ///< in plan, of the figure closed from the last place to the first
};

/// Area by the shoelace formula. A figure that crosses itself has the area of its signed parts.
Measured measure(const std::vector<MeasuredPlace>& places);

}  // namespace erdwerk::linework
