#pragma once
// Labels: what they say is worked out from the geometry they are anchored to, so they are never stale.

#include <optional>
#include <string>
#include <vector>

#include "core/base/display.h"
#include "core/geometry/path.h"
#include "core/survey/points.h"

namespace erdwerk::annotate {

enum class LabelKind { Segment, Curve, Point };
std::string_view kindName(LabelKind kind);

enum class Field {
    Direction,
    Distance,
    Radius,
    Delta,
    ArcLength,
    Chord,
    ChordDirection,
    Number,
    Northing,
    Easting,
    Height,
    Code
};
std::string_view fieldName(Field field);
/// The fields a kind can show, in their usual order.
const std::vector<Field>& fieldsOf(LabelKind kind);

struct StyleField {
    Field field = Field::Distance;
    std::string prefix;
    int decimals = 2;   ///< of seconds for angles
    bool above = true;  ///< above the line or point, else below
    friend bool operator==(const StyleField&, const StyleField&) = default;
};

struct LabelStyle {
    LabelKind kind = LabelKind::Segment;
    std::vector<StyleField> fields;
    friend bool operator==(const LabelStyle&, const LabelStyle&) = default;
};

LabelStyle defaultStyle(LabelKind kind);

/// Text above and below, and where it stands: `place` on the geometry, text running along `direction`
/// (upright).
struct LabelText {
    std::string above;
    std::string below;
    geometry::Vec2 place;
    Angle direction;
};

LabelText labelSegment(const geometry::Segment& segment, const LabelStyle& style,
                       const DisplaySettings& display);
LabelText labelPoint(const survey::SurveyPoint& point, const LabelStyle& style,
                     const DisplaySettings& display);

/// The direction or its opposite, so that text along it reads from the left or from below.
Angle upright(Angle direction);

}  // namespace erdwerk::annotate
