#pragma once
// Heights for flat lines: from 3D lines that cross or touch them, from points near them, from texts near them
// or at the far end of a leader that touches them.

#include <optional>
#include <string>
#include <vector>

#include "core/base/progress.h"
#include "core/linework/line3d.h"

namespace erdwerk::linework {

struct FlatLine {
    std::string name;
    Line3D line;  ///< heights that it has stay, and count as given
};

struct GivingLine {
    std::string name;
    ResolvedLine line;
};
struct GivingPoint {
    std::string name;
    Vec2 place;
    double height = 0;
};
struct GivingText {
    std::string text;
    Vec2 place;
};

struct HeightGivers {
    std::vector<GivingLine> lines;
    std::vector<GivingPoint> points;
    std::vector<GivingText> texts;
    std::vector<Path> leaders;
    std::string prefix;  ///< that texts with heights begin with; the others are passed over
};

struct GiveOptions {
    double tolerance = 0.05;          ///< in plan, between a giver and what it gives to; > 0
    std::optional<double> otherwise;  ///< for what no giver reaches
    /// A line whose heights are all this one counts as one without; nothing: no such line does.
    std::optional<double> flat = 0.0;
};

/// Whether all its heights are fixed, and one and the same figure (to 1e-9): the usual height of what was
/// drawn in plan.
bool isLevelAt(const Line3D& line, double height);
/// The line with no height anywhere; grade points go.
Line3D withoutHeights(const Line3D& line);

/// Who gave a height: the exact height of a line beats that of a point, which beats a text.
enum class GiverSort { Own, Line, Point, Text, Otherwise };

struct GivenHeight {
    std::size_t line = 0;  ///< position among the lines
    Vec2 at;
    double distance = 0;  ///< along the line
    double height = 0;
    GiverSort sort = GiverSort::Line;
    std::string from;  ///< in words: "line 'Kerb'", "point 1001", "text '101.25'"
    /// Others that give another height to the same place, and were beaten: who, and what.
    std::vector<std::pair<std::string, double>> differs;
};
struct MissedHeight {
    std::size_t line = 0;
    Vec2 at;
    std::string why;
};
/// A text or leader that gives nothing, and why.
struct UnusedGiver {
    Vec2 at;
    std::string text;
    std::string why;
};

struct HeightsGiven {
    std::vector<Line3D> lines;  ///< as they become, in the order given
    std::vector<GivenHeight> given;
    std::vector<MissedHeight> missed;
    std::vector<UnusedGiver> unused;
};

/// A text as a height: behind the prefix a number, with a decimal point or comma. Nothing when it is none.
std::optional<double> heightOfText(const std::string& text, const std::string& prefix);

/// A corner, or another place of a line (a grade point there), within the tolerance of a giver gets its
/// height; corners between two that were given are interpolated; those beyond the last, and lines that got
/// nothing, are missed. A leader that touches two lines gives to none.
Result<HeightsGiven> giveHeights(const std::vector<FlatLine>& lines, const HeightGivers& givers,
                                 const GiveOptions& options, const Context& context = {});

}  // namespace erdwerk::linework
