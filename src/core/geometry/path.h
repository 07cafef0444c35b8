#pragma once
// Plan geometry of lines, alignments and parcels: elements, end to end.

#include <optional>
#include <span>
#include <vector>

#include "core/geometry/element.h"

namespace erdwerk::geometry {

struct Nearest {
    std::size_t segment = 0;
    double fraction = 0;
    Vec2 place;
    double distance = 0;  ///< positive to the right of the direction of travel, negative to the left
};

/// Places where a straight from a place touches an element; none for a straight or from inside an arc's
/// circle.
std::vector<Nearest> tangentPlaces(const Segment& segment, Vec2 from);

/// A chain of segments; each begins where the one before ends.
using Path = std::vector<Segment>;

/// Straights from place to place.
Path pathThrough(std::span<const Vec2> places);
double lengthOf(const Path& path);
Box boundsOf(const Path& path);
/// Whether any of it is not straight.
bool hasCurves(const Path& path);
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
/// Places at equal distances of about `spacing`, both ends among them; at least three and not more than
/// `most` + 1. None on an empty path.
std::vector<Vec2> placesAlong(const Path& path, double spacing, int most);
Path reversed(const Path& path);
/// Straight pieces, none of which leaves its element by more than `sagitta`; first and last point included.
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
