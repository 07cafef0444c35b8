#pragma once
// Changes of a 3D line. Each takes a line and returns another; what cannot be done is an Error and changes
// nothing.

#include "core/linework/line3d.h"

namespace erdwerk::linework {

/// Puts a corner onto the line at a fraction of a segment of planPath. Its height is interpolated; the
/// segment's arc is divided, and both parts of a smooth side are smooth. Grade points keep their places.
/// Requires 0 < fraction < 1.
Result<Line3D> insertCorner(const Line3D& line, std::size_t segment, double fraction);
/// The same for a grade point; BadInput where one stands already.
Result<Line3D> insertGradePoint(const Line3D& line, std::size_t segment, double fraction,
                                HeightRule rule = Interpolated{});
/// Arcs that meet at the corner become straights unless the neighbours allow the through-point to be kept;
/// smooth sides around it are fitted anew. BadInput for the joint of one.
Result<Line3D> moveCorner(const Line3D& line, std::size_t vertex, Vec2 place);
/// Moves a grade point along its segment, staying between its neighbours.
Result<Line3D> moveGradePoint(const Line3D& line, std::size_t vertex, double fraction);
/// Deleting a corner joins its sides to one straight, onto which their grade points are carried over in
/// proportion; smooth sides on both sides of it (smooth_side.h) become one.
Result<Line3D> removeVertex(const Line3D& line, std::size_t vertex);
/// The same without regard to smooth sides.
Result<Line3D> withoutVertex(const Line3D& line, std::size_t vertex);
Result<Line3D> setRule(const Line3D& line, std::size_t vertex, HeightRule rule);
Result<Line3D> appendCorner(const Line3D& line, Vec2 place, HeightRule rule);

/// b's start follows a's end; they share the corner when they are within `tolerance` in plan.
Result<Line3D> join(const Line3D& a, const Line3D& b, double tolerance = 1e-6);
/// The other direction with the same heights: what was measured from the point before is measured to the
/// next, with the same figure and the other sign.
Line3D reversed(const Line3D& line);

/// The marked vertices with the heights they have as fixed ones, in the places they have; what has no height
/// has none, and an interpolated one only becomes fixed when it is marked.
Line3D frozen(const Line3D& line, const ResolvedLine& resolved, const std::vector<bool>& marked);

}  // namespace erdwerk::linework
