#pragma once
// Following a straight over a surface: where it crosses triangle edges, enters and leaves.

#include <optional>
#include <vector>

#include "core/terrain/locator.h"

namespace erdwerk::terrain {

struct TracePoint {
    double fraction = 0;  ///< along the segment, 0 to 1
    Vec2 place;
    std::optional<double> height;                ///< nothing off the surface
    std::optional<std::uint32_t> triangleAfter;  ///< under the stretch that follows; nothing off the surface
    bool onEdge = false;  ///< an edge or vertex of the surface, not just an end of the segment
};

/// In order along a-b: both ends, and between them each place where a triangle edge or vertex is met. Places
/// closer than 1e-9 of the length (and at least 1e-9 units) are one. A stretch that runs along an edge
/// belongs to the triangle with the lowest number beside it.
std::vector<TracePoint> trace(const TinLocator& surface, Vec2 a, Vec2 b);

/// The same along a chain of straights; distance from the chain's start instead of the fraction.
struct SectionPoint {
    double distance = 0;
    Vec2 place;
    std::optional<double> height;
};
std::vector<SectionPoint> traceChain(const TinLocator& surface, const std::vector<Vec2>& chain);

}  // namespace erdwerk::terrain
