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

struct Chained {
    geometry::Path path;
    std::vector<std::size_t> order;  ///< of the pieces along the path
    std::vector<bool> turned;        ///< of those, whether against the direction they were drawn in
    double largestGap = 0;           ///< that was closed
};

/// Pieces in any order and direction, end to end; it runs in the direction of the first. Ends within `gap` of
/// each other meet; what comes on is moved there. BadInput names the pieces that do not chain, or that meet
/// three at one end.
Result<Chained> chained(const std::vector<ChainPiece>& pieces, double gap = 0.01);

/// Advice on which way stations run: true when a path ends more to the west than to the east, or, where it
/// runs about north and south, more to the south.
bool runsAgainstUsual(const geometry::Path& path);

}  // namespace erdwerk::route
