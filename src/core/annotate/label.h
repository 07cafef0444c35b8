#pragma once
// Labels: what they say is worked out from the geometry they are anchored to, so they are never stale.

#include <optional>
#include <string>
#include <vector>

#include "core/annotate/label_style.h"
#include "core/base/display.h"
#include "core/geometry/path.h"
#include "core/survey/points.h"

namespace erdwerk::annotate {

/// One line of a label's text, and where it stands (see StyleLine).
struct LabelLine {
    std::string text;
    Stand stand = Stand::Above;
    double along = 0.5;
    double gap = 1;
    std::size_t styleLine = 0;  ///< which of the style
    friend bool operator==(const LabelLine&, const LabelLine&) = default;
};

/// What a label says, about what, and how it is written.
struct LabelText {
    LabelKind kind = LabelKind::Segment;
    std::vector<LabelLine> lines;
    geometry::Vec2 place;            ///< on the geometry
    Angle direction;                 ///< that the text runs along, upright; 90° where it is not turned
    geometry::Path stretch;          ///< the side that it runs along; empty when it stands beside its place
    bool against = false;            ///< the stretch runs against the direction in which the text is read
    double height = 1.9;             ///< of capital letters, in millimetres on paper
    bool tags = false;               ///< a tag may stand for it where its side is too short
    std::optional<Angle> fall = {};  ///< an arrow that way
    std::optional<geometry::Vec2> byHand = {};  ///< where the middle of its texts was put by hand
    std::string problem = {};                   ///< why it says nothing; empty when it does
    /// The lines that stand above, and the others, each joined by two spaces.
    [[nodiscard]] std::string above() const;
    [[nodiscard]] std::string below() const;
    friend bool operator==(const LabelText&, const LabelText&) = default;
};

/// How a label writes: a style, the project's display, and words typed by hand that stand for the style's
/// lines, one after the other: "Wall {distance} m" with fields in braces. Empty: the style's own.
struct LabelWriting {
    const LabelStyle& style;
    const DisplaySettings& display;
    const std::string& words;
};
/// BadInput for a brace that is not closed and for a field that this kind of label does not have.
Result<void> checkWords(const std::string& words, LabelKind kind);

/// Of a side from start to end, with the heights there where they are known.
LabelText labelSegment(const geometry::Segment& segment, const LabelWriting& how,
                       std::optional<double> startHeight = {}, std::optional<double> endHeight = {});
LabelText labelPoint(const survey::SurveyPoint& point, const LabelWriting& how);

struct StationFigures {
    double station = 0;  ///< as it is read
    double offset = 0;   ///< positive to the right
    Angle direction;     ///< of travel
};
LabelText labelStation(geometry::Vec2 place, const StationFigures& figures, const LabelWriting& how);

/// A place on a surface (Contour, Spot or Slope by the style): its height, and the gradient there (height per
/// unit to the east and to the north).
LabelText labelPlace(geometry::Vec2 place, double height, geometry::Vec2 gradient, const LabelWriting& how);

struct AreaFigures {
    std::string name;
    double area = 0;
    double perimeter = 0;
};
LabelText labelArea(geometry::Vec2 place, const AreaFigures& figures, const LabelWriting& how);

struct ControlFigures {
    std::string line;
    std::optional<double> height;
    std::optional<Grade> next;  ///< to the next control
    double distance = 0;        ///< along the line
};
LabelText labelControl(geometry::Vec2 place, const ControlFigures& figures, const LabelWriting& how);

/// The direction or its opposite, so that text along it reads from the left or from below; up to 10° off
/// upright it reads from below.
Angle upright(Angle direction);

}  // namespace erdwerk::annotate
