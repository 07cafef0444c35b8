#pragma once
// Styles of labels: which figures they say, how each is written, and where the texts stand.

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/result.h"

namespace erdwerk::annotate {

/// What a label is about.
enum class LabelKind {
    Segment,  ///< a straight side of a line, or a straight of an alignment
    Curve,    ///< an arc or a spiral of one
    Point,    ///< a survey point
    Station,  ///< a station of an alignment, beside it or on it
    Contour,  ///< a contour of a surface, near a place
    Spot,     ///< a place on a surface: its height
    Slope,    ///< a place on a surface: which way and how steeply it falls
    Area,     ///< a parcel
    Control   ///< a corner or grade point of a 3D line
};
inline constexpr int labelKinds = 9;
/// "segment", "curve", "point" …: as stored in files.
std::string_view kindName(LabelKind kind);
const std::vector<LabelKind>& allLabelKinds();

enum class Field {
    Direction,  ///< bearing or azimuth, as the project says
    Distance,
    Grade,
    Ratio,
    Rise,
    Radius,
    Delta,
    ArcLength,
    Chord,
    ChordDirection,
    Tangent,
    Number,
    Northing,
    Easting,
    Height,
    Code,
    Note,
    Station,
    Offset,
    Name,
    Area,
    OtherArea,  ///< hectares, or acres where the project has feet
    Perimeter
};
std::string_view fieldName(Field field);
/// The fields a kind can show, in their usual order.
const std::vector<Field>& fieldsOf(LabelKind kind);

/// How an angle ends.
enum class Seconds { Shown, Minutes, Degrees };

struct StyleField {
    Field field = Field::Distance;
    std::string prefix;
    std::string suffix = {};
    int decimals = 2;                  ///< of seconds for angles
    bool leadingZeros = true;          ///< 0.50 and 05°; else .50 and 5°
    Seconds seconds = Seconds::Shown;  ///< of angles in degrees; else rounded to minutes or degrees
    friend bool operator==(const StyleField&, const StyleField&) = default;
};

/// Across the line that a label is about, or beside the point: above reads as on paper.
enum class Stand { Above, InLine, Below };
std::string_view standName(Stand stand);

/// One line of text.
struct StyleLine {
    std::vector<StyleField> fields;
    Stand stand = Stand::Above;
    double along = 0.5;  ///< 0: at the start as it is read, left of a point; 1: at the end, right of a point
    double gap = 1;      ///< in millimetres on paper, from the line or the symbol to the text
    friend bool operator==(const StyleLine&, const StyleLine&) = default;
};

struct LabelStyle {
    LabelKind kind = LabelKind::Segment;
    std::vector<StyleLine> lines;
    double height = 1.9;  ///< of capital letters, in millimetres on paper
    bool tags = true;     ///< sides too short for their text get a tag
    friend bool operator==(const LabelStyle&, const LabelStyle&) = default;
};

LabelStyle defaultStyle(LabelKind kind);
/// BadInput, with what is wrong: a field that its kind does not have, a height that is not 0.5 to 50, a gap
/// below 0 or above 100, decimals that are not 0 to 9, a place along that is not 0 to 1, no field at all.
Result<void> validate(const LabelStyle& style);

}  // namespace erdwerk::annotate
