#pragma once
// The shape of lines in plan. After each edit heights at the same place are those of before; what became of
// rules that could not keep their meaning is said.

#include "core/linework/reach.h"
#include "core/linework/reshape.h"
#include "core/linework/smooth.h"
#include "core/linework/thin_line.h"
#include "core/operations/lines.h"

namespace erdwerk::operations {

/// Cuts a line in two. The second part is "NAME (2)", in the same group and style. A closed line is opened.
Edit splitLine(const Results& seen, LinePlace at);
/// Cuts a line wherever others cross it: these, or with none given all lines that are shown.
Edit splitAtCrossings(const Results& seen, ObjectId line, const std::vector<ObjectId>& others = {});
/// Takes out what lies between two places of a line; of a closed one the shorter way round. The rest keeps
/// its name, a second part is "NAME (2)". BadInput when nothing would be left.
Edit cutStretchOut(const Results& seen, LinePlace from, LinePlace to);

struct JoinOptions {
    /// Ends that are nearer than this become one corner, where the first line ends; others are joined by a
    /// straight side. Project units.
    double gap = 0.001;
    /// The height of that corner, when the lines differ there.
    enum class Step { First, Second, Mean } step = Step::First;
};
/// Whichever ends are nearest meet, lines turned as needed; `first` keeps its name, and what stood on
/// `second` stands on it.
Edit joinLines(const Results& seen, ObjectId first, ObjectId second, const JoinOptions& options = {});
/// What a join would have to settle.
struct JoinGap {
    double gap = 0;                    ///< in plan between the ends that would meet
    std::optional<double> first = {};  ///< heights there
    std::optional<double> second = {};
};
std::optional<JoinGap> gapBetween(const Derived& seen, ObjectId first, ObjectId second);

/// Trims a line to a line or an alignment, or takes it on to it; see linework::reachTo. `picked` is on the
/// part that stays, or nearer to the end that goes on.
Edit reachLine(const Results& seen, LinePlace picked, ObjectId target);

Edit roundCorner(const Results& seen, ObjectId line, std::size_t vertex, double radius);
Edit setArcRadius(const Results& seen, ObjectId line, std::size_t segment, double radius);
/// Straight without `through`, else an arc through that place. Rules stay as they are.
Edit setSide(ObjectId line, std::size_t segment, std::optional<geometry::Vec2> through);
/// Smooth through the corners at its ends; it follows them, and the smooth sides beside it.
Edit setSideSmooth(ObjectId line, std::size_t segment);
/// Arcs instead of runs of chords that came from a file (see linework::chordedArcs). BadInput when it has
/// none.
Edit chordsToArcs(ObjectId line);
/// How far coordinates of a file may be rounded: a millimetre, in the project's unit.
double roundingOf(const document::Document& document);
Edit fitArc(const Results& seen, ObjectId line, std::size_t firstCorner, std::size_t lastCorner);
Edit smoothLine(const Results& seen, ObjectId line);
document::LongEdit thinLines(const Results& seen, const std::vector<ObjectId>& lines,
                             const linework::ThinLineOptions& options);
/// "0.02", "0.02 5 3deg"… see parseThin.
Result<linework::ThinLineOptions> parseThin(const std::string& text);
/// At "25" or, with several, "every 5".
Edit insertTyped(ObjectId line, const std::string& text);
/// A corner goes to a typed "E, N".
Edit setTypedPlace(ObjectId line, std::size_t vertex, const std::string& text);

}  // namespace erdwerk::operations
