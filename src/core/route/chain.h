#pragma once
// Loose lines and arcs as one path.

#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/geometry/path.h"

namespace erdwerk::route {

/// A piece by its name, as it was drawn.
struct ChainPiece {
    std::string name;
    geometry::Path path;
};

/// A gap that was closed, and what gave way. Curves keep their radius and length, or are lengthened along
/// themselves.
struct ClosedJoint {
    enum class By {
        Lengthened,  ///< straights (or arcs) lengthened or shortened, directions as they were
        Turned,      ///< a straight turned to the end that it was to meet
        Shifted      ///< a curve moved as a whole, both being curves
    };
    std::size_t element = 0;  ///< of the path, the one that begins there
    geometry::Vec2 place;
    double gap = 0;  ///< between both ends before
    By by = By::Lengthened;
    Angle turn;  ///< of a straight that turned
};
/// "lengthened", "turned" or "shifted".
std::string_view wordFor(ClosedJoint::By by);

struct Chained {
    geometry::Path path;
    std::vector<std::size_t> order;   ///< of the pieces along the path
    std::vector<bool> turned;         ///< of those, whether against the direction they were drawn in
    double largestGap = 0;            ///< that was closed
    std::vector<ClosedJoint> closed;  ///< in the order of the path
};

/// Pieces in any order and direction, end to end; it runs in the direction of the first. Ends within `gap` of
/// each other meet: where straights can be lengthened or shortened to do so, they are (up to three times the
/// gap, so nothing else moves); else a straight turns; a curve that follows a curve is shifted to its end,
/// and what comes on behind it makes up for that. BadInput names the pieces that do not chain, or that meet
/// three at one end.
Result<Chained> chained(const std::vector<ChainPiece>& pieces, double gap = 0.01);

/// Advice on which way stations run: true when a path ends more to the west than to the east, or, where it
/// runs about north and south, more to the south.
bool runsAgainstUsual(const geometry::Path& path);

}  // namespace erdwerk::route
