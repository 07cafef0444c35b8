#pragma once
// Following a line over a surface: where it crosses triangle edges, enters and leaves.

#include <optional>
#include <vector>

#include "core/geometry/path.h"
#include "core/terrain/locator.h"

namespace erdwerk::terrain {

struct TracePoint {
    double fraction = 0;  ///< of its length, 0 to 1
    Vec2 place;
    std::optional<double> height;                ///< nothing off the surface
    std::optional<std::uint32_t> triangleAfter;  ///< under the stretch that follows; nothing off the surface
    bool onEdge = false;  ///< an edge or vertex of the surface, not just an end of the line
};

/// In order along a-b: both ends, and between them each place where a triangle edge or vertex is met. Places
/// closer than 1e-9 of the length (and at least 1e-9 units) are one. A stretch that runs along an edge
/// belongs to the triangle with the lowest number beside it.
std::vector<TracePoint> trace(const TinLocator& surface, Vec2 a, Vec2 b);

/// The same along an element of a path: on arcs and clothoids, not on chords of them (to about 1e-13 of its
/// length). An edge that it only touches is met once.
std::vector<TracePoint> trace(const TinLocator& surface, const geometry::Segment& element);

/// The same along a path; distance from its start instead of the fraction.
struct SectionPoint {
    double distance = 0;
    Vec2 place;
    std::optional<double> height;
};
/// With a `sagitta` above 0 there are more places on curves, so that straights between them are no farther
/// off, for who draws it.
std::vector<SectionPoint> tracePath(const TinLocator& surface, const geometry::Path& path,
                                    double sagitta = 0);

/// Rise per unit of plan of a triangle, to the east and to the north. Requires one that has an area.
Vec2 gradientOf(const Tin& tin, std::uint32_t triangle);

}  // namespace erdwerk::terrain
