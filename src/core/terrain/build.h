#pragma once
// Building a surface from points, breaklines and one outer boundary: a constrained Delaunay triangulation.

#include <optional>
#include <string>
#include <vector>

#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/terrain/tin.h"

namespace erdwerk::terrain {

struct Breakline {
    std::vector<Vec3> corners;
    bool closed = false;
};

/// The line round the surface, first corner not repeated. With a height at every corner it is a breakline as
/// well; otherwise it takes the heights of the ground it cuts.
struct Boundary {
    std::vector<Vec2> ring;
    std::vector<std::optional<double>> heights;
    [[nodiscard]] bool hasHeights() const;
};

struct BuildInput {
    std::vector<Vec3> points;
    std::vector<Breakline> lines;
    std::optional<Boundary> boundary;
    double maxEdge = 0;  ///< project units; 0 keeps every rim triangle
};

/// Points (or corners) in one place: the first in order counts.
struct Duplicate {
    std::size_t kept = 0;     ///< position among the points
    std::size_t dropped = 0;  ///< position among the points
};

/// Where two lines cross. The surface takes the height of the line that comes first in order.
struct Crossing {
    Vec2 place;
    std::size_t first = 0;  ///< position among the lines; the boundary comes after the last
    std::size_t second = 0;
    double firstHeight = 0;
    double secondHeight = 0;
};

struct BuiltSurface {
    Tin tin;
    std::size_t points = 0;  ///< input points that take part
    std::vector<Duplicate> duplicates;
    std::vector<Crossing> crossings;
};

/// Vertices are the points that take part in their order, then line corners, then crossings, then places
/// where a boundary without heights cuts the ground. Points outside the boundary take no part. Rim triangles
/// with an edge longer than `maxEdge` are peeled from the outside; so are needles thinner than a millionth of
/// their longest edge. Fails with Degenerate when no triangle results, BadInput for coordinates that are not
/// finite or a boundary that crosses itself, Cancelled. Costs about one CGAL insertion of all points.
Result<BuiltSurface> build(BuildInput input, const Context& context = {});

/// Constrained Delaunay triangles over plan positions (distinct) and sides (position pairs, which may meet
/// only at ends); the triangles cover the convex hull. Made for small pieces.
std::vector<std::uint32_t> constrainedTriangles(const std::vector<Vec2>& positions,
                                                const std::vector<std::array<std::uint32_t, 2>>& sides);

}  // namespace erdwerk::terrain
