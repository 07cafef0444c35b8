#pragma once
// Heights of whole lines and stretches.

#include "core/linework/drape.h"
#include "core/linework/give_heights.h"
#include "core/operations/rules.h"

namespace erdwerk::operations {

/// Raises (below 0: lowers) what is meant, rules kept: fixed heights and amounts change, what is measured
/// from a point that is raised too follows by itself; a rule that cannot follow becomes the height it has.
/// BadInput when nothing changes.
Edit lift(const Results& seen, const std::vector<LinePart>& parts, double amount);
/// Every control of the line takes its height from another line at its nearest place; `typed` is what is
/// added: nothing, "+0.10", "-2%", "3:1".
Edit matchLine(ObjectId line, ObjectId other, const std::string& typed);

/// One grade between the first and the last of these points of a line: those between are interpolated.
Edit oneGrade(ObjectId line, std::vector<std::size_t> points);
Edit interpolate(const std::vector<LinePart>& parts);
/// The grade that leads to this point goes on to the end of the line: what has a rule behind it loses it, the
/// last corner has the grade. BadInput for the first point and in a closed line.
Edit carryGradeOn(const Results& seen, ObjectId line, std::size_t point);
/// Corners and grade points of one line, as removeVertex does for one.
Edit removePoints(ObjectId line, std::vector<std::size_t> points);
/// Moves the next control to this run from a point, when it is a grade point. `text` is a length.
Edit setTypedRun(const Results& seen, ObjectId line, std::size_t point, const std::string& text);

/// A stretch of a line, by places on it.
struct Stretch {
    LinePlace from;
    LinePlace to;
};
/// Level between two places of a line, at this height; the rest keeps its rules.
Edit levelWith(const Results& seen, const Stretch& stretch, double height);
/// The height that a level stretch from this place is meant to have: of the contour when the place lies near
/// one (within a tenth of the interval), else of the surface. Nothing off the surface.
std::optional<double> contourHeightAt(const Derived& seen, ObjectId surface, geometry::Vec2 place);
/// Only between two distances along the line: the rest keeps its rules.
Edit drapeStretch(const Results& seen, ObjectId surface, ObjectId line, double from, double to,
                  const linework::DrapeOptions& options, bool asValues);
/// As drapeLine, with options; `asValues`: the heights of now, which do not follow.
Edit drapeLine(const Results& seen, ObjectId surface, ObjectId line, const linework::DrapeOptions& options,
               bool asValues);

/// What of a project gives heights to these lines: other lines with heights, survey points with one, texts
/// (points without height that have a note, or a code that is a figure), leaders (lines without heights that
/// begin or end at such a text).
/// With a prefix only texts that begin with it.
struct HeightsAsked {
    std::vector<ObjectId> lines;   ///< that get heights
    std::vector<ObjectId> giving;  ///< lines that give theirs; no other line does
    linework::GiveOptions options = {};
    std::string prefix = {};
};
linework::HeightGivers giversFor(const Derived& seen, const HeightsAsked& asked);
/// Lines that have no height at all, or `flat` everywhere, and are no leaders.
std::vector<ObjectId> flatLines(const Derived& seen, const linework::GiveOptions& options);
/// Is it one of those?
bool isFlat(const Derived& seen, ObjectId line, const linework::GiveOptions& options);
Result<linework::HeightsGiven> heightsFor(const Derived& seen, const HeightsAsked& asked,
                                          const Context& context = {});
/// A stretch of a line that would be steeper than its own limit, or else than the project's.
struct SteepStretch {
    std::size_t line = 0;  ///< position among the lines
    double from = 0;       ///< distances along it
    double to = 0;
    Grade grade;
};
std::vector<SteepStretch> tooSteep(const Derived& seen, const std::vector<ObjectId>& lines,
                                   const linework::HeightsGiven& found);
/// All corners of these lines get one height.
Edit levelAt(const std::vector<ObjectId>& lines, double height);
/// Puts in what heightsFor found, in the order of `lines`.
Edit giveHeights(const Results& seen, const std::vector<ObjectId>& lines,
                 const linework::HeightsGiven& found);

}  // namespace erdwerk::operations
