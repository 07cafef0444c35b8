#pragma once
// Alignments: stationing along a path of straights, arcs and clothoids.

#include <string>
#include <vector>

#include "core/geometry/path.h"
#include "core/route/stationing.h"

namespace erdwerk::route {

using geometry::Path;
using geometry::Vec2;

/// Joints that turn by more than this are not tangent.
inline constexpr Angle tangencyTolerance = Angle::radians(1e-4);

/// Where one element goes over into the next. T a straight, C an arc, S a spiral.
enum class PointKind { Begin, End, Pc, Pt, CurveToCurve, Reverse, Corner, Ts, St, Sc, Cs, Ss };
/// BP, EP, PC, PT, PCC (same side), PRC (other side), PI, TS, ST, SC, CS or SS.
std::string_view shortName(PointKind kind);

struct KeyPoint {
    PointKind kind = PointKind::Begin;
    double station = 0;  ///< as it is read
    Vec2 place;
    Angle direction;  ///< of travel, behind the point (ahead at the start)
    double distance = 0;
};

/// A joint where the direction jumps.
struct Break {
    std::size_t segment = 0;  ///< the one behind the joint
    double station = 0;       ///< as it is read
    Vec2 place;
    Angle turn;  ///< signed, clockwise positive
    double distance = 0;
};

/// Where the tangents of a curve meet: of an arc with the spirals that wind up to it and unwind from it.
struct Intersection {
    std::size_t first = 0;  ///< elements of the curve
    std::size_t last = 0;
    Vec2 place;
    double distance = 0;  ///< that of the curve's beginning and the tangent
    double tangent = 0;
    Angle turn;  ///< signed, clockwise positive
};

struct AlignmentGeometry {
    Path path;
    double startStation = 0;
    double length = 0;
    std::vector<KeyPoint> keyPoints;
    std::vector<Break> breaks;
    Stationing stationing;
    std::vector<double> starts;  ///< distance of each element's start
    [[nodiscard]] double endStation() const { return stationing.stationAt(length); }
    /// Profiles count on from the start without equations: distance + start station.
    [[nodiscard]] double running(double distance) const { return startStation + distance; }
    /// What is read at a running station.
    [[nodiscard]] double read(double running) const { return stationing.stationAt(running - startStation); }
};

AlignmentGeometry alignmentOn(Path path, Stationing stationing);
AlignmentGeometry alignmentOn(Path path, double startStation);

/// One for each arc with its spirals, and each spiral or arc by itself otherwise; none for what turns by half
/// a circle or more. Bare corners are not among them.
std::vector<Intersection> intersections(const AlignmentGeometry& alignment);

/// Distances at which what is read is a multiple of an interval > 0, rising; at most ten million (else none).
std::vector<double> multiplesAlong(const AlignmentGeometry& alignment, double interval);

struct Tick {
    double station = 0;  ///< as it is read
    Vec2 place;
    Angle direction;
    bool major = false;  ///< carries a label
};
/// Ticks at multiples of `interval`, every fifth of them major; none where there would be more than 100 000.
/// Requires interval > 0.
std::vector<Tick> ticks(const AlignmentGeometry& alignment, double interval);

struct StationOffset {
    double station = 0;  ///< running
    double offset = 0;   ///< positive to the right
};
/// Requires a path that is not empty.
StationOffset stationOffset(const AlignmentGeometry& alignment, Vec2 place);
/// Place at a running station and offset, clamped to the ends.
Vec2 placeAt(const AlignmentGeometry& alignment, double running, double offset = 0);

}  // namespace erdwerk::route
