#pragma once
// What is marked along an alignment: ticks, stations, points of change, curves, speeds, equations.

#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/route/alignment.h"

namespace erdwerk::route {

struct MarkingSettings {
    double small = 20;    ///< between short ticks; 0: none
    double large = 100;   ///< between long ones, which carry their station; 0: none
    bool points = true;   ///< of change, with their symbol and station
    bool curves = false;  ///< radius, length and delta of arcs, parameter and length of spirals
    bool speeds = true;   ///< where a design speed begins
    bool equations = true;
    bool right = false;   ///< stations stand to the right of the line
    double height = 2.6;  ///< of texts on paper, in millimetres
    friend bool operator==(const MarkingSettings&, const MarkingSettings&) = default;
};

/// With intervals that fit the unit: 20 and 100 m, or 50 and 100 ft.
MarkingSettings defaultMarking(LengthUnit unit);
/// BadInput for intervals below 0, large ones below small ones, and heights that are not 0.5 to 20.
Result<void> validate(const MarkingSettings& marking);

enum class MarkKind { SmallTick, LargeTick, Point, Curve, Speed, Equation };

/// One thing to draw.
struct Mark {
    MarkKind kind = MarkKind::SmallTick;
    double distance = 0;
    Vec2 place;
    Angle direction;                     ///< of travel there
    std::string text;                    ///< empty: none
    PointKind point = PointKind::Begin;  ///< of a point of change
};

struct SpeedMark {
    double distance = 0;
    double speed = 0;
};

/// In order of kinds, then along the line. An interval that would give more than 100 000 ticks gives none.
std::vector<Mark> marksOf(const AlignmentGeometry& alignment, const MarkingSettings& marking,
                          const std::vector<SpeedMark>& speeds, const DisplaySettings& display);

/// "R 60.00  L 45.12  Δ 43°05'10\"" of an arc, "A 48.99  L 40.00" of a spiral; empty for a straight.
std::string curveWords(const geometry::Segment& element, const DisplaySettings& display);

}  // namespace erdwerk::route
