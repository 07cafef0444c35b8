#pragma once
// Dimensions: what is measured between places that are tied to things, and how it is drawn on paper.

#include <optional>
#include <string>
#include <string_view>
#include <vector>

#include "core/base/display.h"
#include "core/base/result.h"
#include "core/geometry/path.h"

namespace erdwerk::annotate {

enum class DimensionKind {
    Aligned,  ///< the distance between two places
    Linear,   ///< the part of it along an azimuth
    Chain,    ///< from each place to the next, on one line
    Angle,    ///< between two sides
    Delta,    ///< of an arc
    Radius,   ///< of an arc
    Slope,    ///< the grade from one place to another
    Height    ///< the difference in height of two places
};
inline constexpr int dimensionKinds = 8;
/// "aligned", "linear" …: as stored in files.
std::string_view dimensionName(DimensionKind kind);
const std::vector<DimensionKind>& allDimensionKinds();
/// How many things it is tied to, at least; all but chains have just that many.
std::size_t anchorsOf(DimensionKind kind);
/// Angles, deltas and radii are of sides, all others of places.
bool isOfSides(DimensionKind kind);

enum class ArrowKind { Filled, Open, Stroke, Dot, None };
std::string_view arrowName(ArrowKind kind);
const std::vector<ArrowKind>& allArrowKinds();
enum class DimensionText { Automatic, Inside, Outside };
std::string_view textName(DimensionText text);

/// Lengths in millimetres on paper.
struct DimensionStyle {
    ArrowKind arrows = ArrowKind::Filled;
    double arrowSize = 2;
    bool extensions = true;                         ///< from what is measured to the dimension line
    double extensionGap = 1;                        ///< between what is measured and the extension line
    double overshoot = 1.5;                         ///< of the extension line over the dimension line
    DimensionText text = DimensionText::Automatic;  ///< outside where it does not fit between the arrows
    double textGap = 0.8;                           ///< between text and line
    double height = 1.9;                            ///< of capital letters
    int decimals = 2;
    friend bool operator==(const DimensionStyle&, const DimensionStyle&) = default;
};
/// BadInput for lengths below 0 or above 100, texts that are not 0.5 to 50 high, decimals that are not 0
/// to 9.
Result<void> validate(const DimensionStyle& style);

/// What a dimension is tied to, as it is now.
struct MeasuredPlace {
    geometry::Vec2 place;
    std::optional<double> height;
    std::optional<geometry::Segment> side;  ///< that it lies on
};

/// One dimension line with its text.
struct DimensionSpan {
    geometry::Vec2 from;
    geometry::Vec2 to;
    std::optional<geometry::Vec2> centre = {};  ///< an arc about it from `from` to `to`, turning by `turn`
    double turn = 0;                            ///< radians, clockwise positive
    std::optional<geometry::Vec2> origin = {};  ///< what is measured at `from`: an extension line from there
    std::optional<geometry::Vec2> target = {};  ///< … at `to`
    bool arrowAtFrom = true;
    bool arrowAtTo = true;
    double value = 0;  ///< project units, radians, rise over run
    std::string text;
    friend bool operator==(const DimensionSpan&, const DimensionSpan&) = default;
};

struct Dimensioned {
    std::vector<DimensionSpan> spans;
    std::string problem;  ///< why nothing can be measured; empty when it can
    friend bool operator==(const Dimensioned&, const Dimensioned&) = default;
};

/// Where a dimension line lies: `offset` is from the first place to the right of the way to the last one (of
/// an azimuth: to the right of it), for an angle and a delta the radius of its arc about the corner or
/// centre; `azimuth` is of a linear dimension, or of a chain that has one.
struct DimensionLine {
    double offset = 0;
    std::optional<Angle> azimuth;
    friend bool operator==(const DimensionLine&, const DimensionLine&) = default;
};

/// Heights of slopes and height differences are those of the places; a missing one is the problem.
Dimensioned measure(DimensionKind kind, const std::vector<MeasuredPlace>& at, const DimensionLine& line,
                    const DimensionStyle& style, const DisplaySettings& display);

/// Where the straights cross that touch two sides at (or nearest to) these places; nothing for parallels.
std::optional<geometry::Vec2> cornerOfSides(const geometry::Segment& a, geometry::Vec2 onA,
                                            const geometry::Segment& b, geometry::Vec2 onB);

/// What is drawn of a span at a scale: in project units.
struct DimensionDrawing {
    std::vector<std::vector<geometry::Vec2>> lines;  ///< dimension and extension lines
    struct Arrow {
        geometry::Vec2 tip;
        geometry::Vec2 direction;  ///< that it points in, of length 1
    };
    std::vector<Arrow> arrows;
    geometry::Path line;  ///< that the text belongs to
    bool fits = true;     ///< the text stands between the arrows
};
/// `unitsPerMillimetre` of paper; `width` of the text in millimetres. Where arrows have no room between the
/// ends they stand outside and point inwards.
DimensionDrawing drawn(const DimensionSpan& span, const DimensionStyle& style, double width,
                       double unitsPerMillimetre);

}  // namespace erdwerk::annotate
