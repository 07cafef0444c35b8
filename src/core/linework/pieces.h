#pragma once
// Parts of a 3D line.

#include "core/linework/keep_heights.h"

namespace erdwerk::linework {

/// Nearer than this along the line a cut falls on the vertex that is there, in project units.
inline constexpr double cutsMeet = 1e-6;

/// The part of a line between two distances along it, an open line. Its heights are those of before: a rule
/// that looked across the cut becomes the height it had, a vertical curve is cut into curves of its own. Of a
/// closed line the part runs from `from` on, over its start when `to` is not beyond it; all of it when they
/// are the same. BadInput outside the line, and when nothing lies between.
Result<Reshaped> pieceOf(const Line3D& line, const ResolvedLine& resolved, double from, double to,
                         const Surroundings& around);

/// Cuts a line at these distances. An open line gives one piece more than there are cuts inside it, a closed
/// one as many as there are cuts. BadInput when no cut lies inside.
Result<std::vector<Reshaped>> cutAt(const Line3D& line, const ResolvedLine& resolved,
                                    std::vector<double> distances, const Surroundings& around);

/// Rules that find their place themselves become heights where they stand, when that or a control that they
/// are measured from lies where it is `lost`.
Reshaped withPlacesFixed(const Line3D& line, const ResolvedLine& resolved,
                         const std::function<bool(double distance)>& lost);

/// A vertical curve over a distance along the line becomes two that meet there, with a control between; else
/// the line as it is. A rise that is measured from the control of the curve becomes its height.
Reshaped withCurveCut(const Line3D& line, const ResolvedLine& resolved, double distance);

/// A vertex that can carry a control at a distance: the one that is there, or a new grade point. Its
/// position.
std::size_t controlAt(Line3D& line, double distance);

/// A corner at a distance along the line: the one that is there, a grade point that becomes one, or a new
/// one, interpolated. Its position among the vertices.
std::size_t cornerAt(Line3D& line, double distance);

}  // namespace erdwerk::linework
