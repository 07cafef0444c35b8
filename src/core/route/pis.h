#pragma once
// Alignments by their points of intersection.

#include <optional>
#include <vector>

#include "core/base/result.h"
#include "core/geometry/path.h"

namespace erdwerk::route {

using geometry::Path;
using geometry::Vec2;

/// A point where two tangents meet, and the curve between them. Lengths in project units; of a spiral along
/// it.
struct Pi {
    Vec2 place;
    double radius = 0;     ///< 0: a bare corner
    double spiralIn = 0;   ///< before the arc; 0: none
    double spiralOut = 0;  ///< after it
    friend bool operator==(const Pi&, const Pi&) = default;
};

/// The tangents of a curve with spirals of different lengths, from the PI back to its beginning and on to its
/// end:
///   in = k1 + (R + p2) / sin D - (R + p1) / tan D,   out the same with 1 and 2 changed,
/// where p = y - R (1 - cos s) is how far the spiral shifts the arc away from the tangent, k = x - R sin s
/// how far it draws it out, s = L / 2R the spiral's turn and x, y its end, seen from its beginning along the
/// tangent (the usual setting-out formulas for spiralled curves). `turn` is between 0 and pi.
struct CurveTangents {
    double in = 0;
    double out = 0;
};
CurveTangents curveTangents(double radius, double spiralIn, double spiralOut, Angle turn);

/// Straights, spirals and arcs, each tangent to the next but for bare corners. The first and the last PI are
/// the ends. BadInput, with the PI's number, for fewer than two, places that repeat, a radius or spiral below
/// 0, a spiral without a radius, spirals that turn farther than the tangents do, tangents that turn right
/// back, and curves that overlap (with the length that is missing).
Result<Path> pathOf(const std::vector<Pi>& pis);

/// The PIs of a path, where it is one that they can give: every joint tangent or between two straights, every
/// arc or pair of spirals turning by less than half a circle. Nothing otherwise. `pathOf` gives the path back
/// to 1e-6.
std::optional<std::vector<Pi>> pisOf(const Path& path);

/// The radius with which the middle of the curve at a PI comes nearest to a place: with E from the PI to the
/// place along the line that halves the angle between the tangents, and p the mean shift of its spirals (L² /
/// 24 R), (R + p) / cos(D/2) = R + E. Nothing for an end, for tangents that run straight on or right back,
/// and for a place on the outer side.
std::optional<double> radiusThrough(const std::vector<Pi>& pis, std::size_t pi, Vec2 place);
/// The middle of the arc at a PI; nothing for a bare corner and where the PIs give no path.
std::optional<Vec2> curveMiddle(const std::vector<Pi>& pis, std::size_t pi);

/// The same PIs with one radius at all bare corners between the ends.
std::vector<Pi> withRadius(std::vector<Pi> pis, double radius);

}  // namespace erdwerk::route
