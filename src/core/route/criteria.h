#pragma once
// What a design has to keep to, and whether it does.

#include <optional>
#include <string>
#include <vector>

#include "core/base/quantity.h"
#include "core/route/design.h"

namespace erdwerk::route {

/// Limits at one design speed; each may be absent. Lengths in the criteria's unit, K in that for each per
/// cent.
struct SpeedLimits {
    double speed = 0;
    std::optional<double> minRadius;
    std::optional<double> minSpiral;
    std::optional<double> minCrestK;
    std::optional<double> minSagK;
    friend bool operator==(const SpeedLimits&, const SpeedLimits&) = default;
};

struct Criteria {
    std::string name;
    std::string source;  ///< where the figures come from, with the arithmetic
    LengthUnit unit = LengthUnit::Metre;
    std::vector<SpeedLimits> bySpeed;  ///< rising speeds
    std::optional<double> maxGrade;    ///< per cent
    std::optional<double> minGrade;    ///< per cent
    std::optional<double> minCurveLength;
    std::optional<double> minTangent;
    std::optional<double> maxDeflection;  ///< degrees that a corner without a curve may turn
    friend bool operator==(const Criteria&, const Criteria&) = default;
};

/// BadInput for speeds that repeat or do not rise, and limits that are not above 0.
Result<void> validate(const Criteria& criteria);
/// Lengths in another unit.
Criteria inUnit(Criteria criteria, LengthUnit unit);
/// The limits at a speed: of two between which it lies those of the higher. BadInput above all of them.
Result<const SpeedLimits*> limitsAt(const Criteria& criteria, double speed);

/// What ships: for lanes, from formulas of motion that its `source` writes out.
Criteria laneCriteria();
/// "radius 60  spiral 20  crest 9  sag 8": what of a speed's limits there is, and what is typed for it.
std::string limitsText(const SpeedLimits& limits);
Result<SpeedLimits> parseLimits(double speed, const std::string& text);

/// A design speed that holds from a distance on.
struct SpeedFrom {
    double distance = 0;
    double speed = 0;
    friend bool operator==(const SpeedFrom&, const SpeedFrom&) = default;
};

/// What is asked of a stretch and not kept.
enum class DesignFault {
    Radius,
    Spiral,
    Crest,
    Sag,
    Grade,
    CurveLength,
    TangentLength,
    Deflection,
    NotTangent
};
/// "radius", "spiral", "crest", "sag", "grade", "curve-length", "tangent-length", "deflection",
/// "not-tangent".
std::string_view faultName(DesignFault fault);

struct DesignFinding {
    DesignFault fault = DesignFault::Radius;
    double from = 0;  ///< distances along the line
    double to = 0;
    double value = 0;  ///< lengths in the unit of the criteria given, grades in per cent, angles in degrees
    double limit = 0;
};

/// Plan and profile against criteria in the alignment's unit; `speeds` by rising distance, before the first
/// of them what depends on speed is not checked. Arcs: radius, length, and the spirals between them and
/// straights (0 where there is none). Straights between two curves: length. Joints: not tangent (with a
/// curve) or a deflection (between straights) beyond its limit. PVIs: K of crest and sag, 0 where a grade
/// breaks without a curve. Straight grades: steepest and flattest. Stretches that follow the ground have no
/// grade of their own. Running stations of the PVIs. In order
/// along the line. Fails as limitsAt does.
Result<std::vector<DesignFinding>> checkDesign(const AlignmentGeometry& alignment,
                                               const std::vector<Pvi>& pvis, const Criteria& criteria,
                                               const std::vector<SpeedFrom>& speeds);

}  // namespace erdwerk::route
