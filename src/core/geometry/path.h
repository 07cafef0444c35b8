#pragma once
// Plan geometry of lines, alignments and parcels: straights and circular arcs, end to end.

#include <optional>
#include <span>
#include <vector>

#include "core/geometry/vec.h"

namespace erdwerk::geometry {

/// A straight, or a circular arc through `through` (any point of the arc strictly between the ends, as in the
/// CIRCULARSTRING of ISO 19125 / SQL-MM). Three points on one line make a straight.
struct Segment {
    Vec2 start;
    Vec2 end;
    std::optional<Vec2> through;
};

/// Circular arc. `sweep` is the signed turn from start to end as seen from the centre: positive is clockwise
/// (a curve to the right), since azimuths run clockwise.
struct Arc {
    Vec2 centre;
    double radius = 0;
    Angle startAzimuth;  ///< from the centre to the start
    Angle sweep;
    [[nodiscard]] bool right() const { return sweep.radians() > 0; }
    [[nodiscard]] Vec2 at(double fraction) const;
};

/// Nothing for a straight (also when the three points are on one line, or the sagitta is below 1e-9 of the
/// chord).
std::optional<Arc> arcOf(const Segment& segment);
/// The arc from `start`, leaving in direction `tangent`, to `end`; a straight when `end` lies ahead.
Segment tangentArc(Vec2 start, Angle tangent, Vec2 end);
/// Arc by ends, radius and side. Requires radius >= half the chord. The arc is the shorter one unless
/// `major`.
Segment arcByRadius(Vec2 start, Vec2 end, double radius, bool right, bool major = false);

double lengthOf(const Segment& segment);
/// Requires 0 <= fraction <= 1; exact at both ends.
Vec2 pointAt(const Segment& segment, double fraction);
/// Direction of travel at a fraction of the length.
Angle tangentAt(const Segment& segment, double fraction);
/// The part between two fractions, in the same direction.
Segment part(const Segment& segment, double from, double to);
Segment reversed(const Segment& segment);
/// Area between the chord and the arc, positive when the arc bulges to the left of the chord; 0 for a
/// straight.
double bulgeArea(const Segment& segment);
Box boundsOf(const Segment& segment);

struct Nearest {
    std::size_t segment = 0;
    double fraction = 0;
    Vec2 place;
    double distance = 0;  ///< positive to the right of the direction of travel, negative to the left
};

/// Places where a straight from outside an arc's circle touches the arc; none for a straight or from inside.
std::vector<Nearest> tangentPlaces(const Segment& segment, Vec2 from);

/// A chain of segments; each begins where the one before ends.
using Path = std::vector<Segment>;

double lengthOf(const Path& path);
/// Nearest place on the path; nothing for an empty path.
std::optional<Nearest> nearestOn(const Path& path, Vec2 place);
/// How far along the path a nearest place lies, from the start.
double distanceAlong(const Path& path, const Nearest& nearest);
struct PathPosition {
    std::size_t segment = 0;
    double fraction = 0;
    Vec2 place;
    Angle direction;
};
/// Position at a distance from the start, clamped to the ends. Requires a path that is not empty.
PathPosition positionAt(const Path& path, double distance);
Path reversed(const Path& path);
/// Straight pieces with arcs cut so that no piece leaves its arc by more than `sagitta`; first and last point
/// included.
std::vector<Vec2> flattened(const Path& path, double sagitta);

/// Signed area of a ring given without repeating its first point, counter-clockwise positive (the shoelace
/// formula, summed about the first point so that large coordinates do not cancel).
double signedArea(std::span<const Vec2> ring);
/// The same for a closed path with arcs.
double signedArea(const Path& ring);

enum class Side { Inside, OnEdge, Outside };
/// Exact for straight-sided rings (first point not repeated), by crossings of a ray.
Side sideOf(std::span<const Vec2> ring, Vec2 place);

}  // namespace erdwerk::geometry
