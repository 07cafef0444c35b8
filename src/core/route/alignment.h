#pragma once
// Alignments: stationing along a path of straights and arcs.

#include <string>
#include <vector>

#include "core/geometry/path.h"

namespace erdwerk::route {

using geometry::Path;
using geometry::Vec2;

/// Joints that turn by more than this are not tangent.
inline constexpr Angle tangencyTolerance = Angle::radians(1e-4);

enum class PointKind { Begin, End, Pc, Pt, CurveToCurve, Corner };
/// BP, EP, PC, PT, PCC or PI.
std::string_view shortName(PointKind kind);

struct KeyPoint {
    PointKind kind = PointKind::Begin;
    double station = 0;
    Vec2 place;
    Angle direction;  ///< of travel, behind the point (ahead at the start)
};

/// A joint where the direction jumps.
struct Break {
    std::size_t segment = 0;  ///< the one behind the joint
    double station = 0;
    Vec2 place;
    Angle turn;  ///< signed, clockwise positive
};

struct AlignmentGeometry {
    Path path;
    double startStation = 0;
    double length = 0;
    std::vector<KeyPoint> keyPoints;
    std::vector<Break> breaks;
    [[nodiscard]] double endStation() const { return startStation + length; }
};

AlignmentGeometry alignmentOn(Path path, double startStation);

struct Tick {
    double station = 0;
    Vec2 place;
    Angle direction;
    bool major = false;  ///< carries a label
};
/// Ticks at multiples of `interval`, every fifth of them major. Requires interval > 0.
std::vector<Tick> ticks(const AlignmentGeometry& alignment, double interval);

struct StationOffset {
    double station = 0;
    double offset = 0;  ///< positive to the right
};
/// Requires a path that is not empty.
StationOffset stationOffset(const AlignmentGeometry& alignment, Vec2 place);
/// Place at a station and offset, clamped to the ends.
Vec2 placeAt(const AlignmentGeometry& alignment, double station, double offset = 0);

}  // namespace erdwerk::route
