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

/// No surface inside; or, for an island, surface again inside an opening. With a height at every corner the
/// ring is a breakline as well, otherwise it takes the heights of the ground it cuts.
struct Opening {
    Boundary ring;
    bool island = false;
};

/// Which height a surface takes where two lines cross.
enum class CrossingRule { First, Higher, Lower, Mean };

struct BuildInput {
    std::vector<Vec3> points;
    std::vector<Breakline> lines;
    std::optional<Boundary> boundary;
    std::vector<Opening> openings;
    double maxEdge = 0;       ///< project units; 0 keeps every rim triangle
    double narrowest = 1e-6;  ///< height over longest edge below which a rim triangle is left out
    CrossingRule onCrossing = CrossingRule::First;
};

/// Points (or corners) in one place: the first in order counts.
struct Duplicate {
    std::size_t kept = 0;     ///< position among the points
    std::size_t dropped = 0;  ///< position among the points
};

/// Where two lines cross. The surface takes the height by the rule.
struct Crossing {
    Vec2 place;
    std::size_t first =
        0;  ///< position among the lines; the boundary comes after the last, then the openings
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
/// with an edge longer than `maxEdge` are peeled from the outside; so are those narrower than `narrowest`.
/// Openings and islands are cut after the boundary, in that order; islands count inside openings only. Fails
/// with Degenerate when no triangle results, BadInput for coordinates that are not finite or a boundary that
/// crosses itself, Cancelled. Costs about one CGAL insertion of all points.
Result<BuiltSurface> build(BuildInput input, const Context& context = {});

// The same in steps, for keeping what lies between: addRings, triangulate, ended.

/// Rings with heights are breaklines as well: added after the lines, the boundary's first.
void addRings(BuildInput& input);
/// The triangulation before anything is cut or peeled: it covers the convex hull of points and lines
/// (boundary and openings are not looked at). `points` is how many are vertices.
Result<BuiltSurface> triangulate(const BuildInput& input, const Context& context = {});

/// Ends a triangulation on a boundary: on its constrained sides when it has heights, else by cutting.
/// Requires a valid boundary.
Tin endOn(const Tin& tin, const Boundary& boundary);
/// Boundary, openings and islands, rim.
Tin trimmed(const Tin& whole, const BuildInput& input);
/// What a build does after triangulating: trims `tin`, which is that of `whole`, leaves out crossings that
/// are no conflict of the surface, and counts the points that take part. Requires `input` with its rings
/// added; its points are not looked at.
BuiltSurface ended(const BuiltSurface& whole, const Tin& tin, const BuildInput& input);
/// BadInput for a boundary, opening or island that crosses itself or has no area.
Result<void> validateRings(const BuildInput& input);
/// The boundary as a line, when it has heights.
Breakline lineOf(const Boundary& boundary);

/// Constrained Delaunay triangles over plan positions (distinct) and sides (position pairs, which may meet
/// only at ends); the triangles cover the convex hull. Made for small pieces.
std::vector<std::uint32_t> constrainedTriangles(const std::vector<Vec2>& positions,
                                                const std::vector<std::array<std::uint32_t, 2>>& sides);

}  // namespace erdwerk::terrain
