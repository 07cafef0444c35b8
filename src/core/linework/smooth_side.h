#pragma once
// Smooth sides: two arcs that touch each other at a joint, between corners that the line goes smoothly
// through. The joint is a corner of the line (LineVertex::joint) that is placed by the corners around it.

#include "core/linework/line3d.h"

namespace erdwerk::linework {

/// Two arcs from a corner to the next.
struct Biarc {
    geometry::Segment first;
    geometry::Segment second;
    [[nodiscard]] double share() const;  ///< of the first in the length of both
};

/// Unit tangents at the ends, with equal lengths of tangent at the joint (the usual choice); nothing where
/// the line would turn back.
std::optional<Biarc> biarc(Vec2 from, Vec2 to, Vec2 tangentFrom, Vec2 tangentTo);

/// At each corner the tangent of the circle through it and its neighbours, at the ends of an open line
/// that of the next corner, mirrored at the chord; nothing where the line turns back, or for fewer than
/// three corners.
std::optional<std::vector<Vec2>> smoothTangents(const std::vector<Vec2>& corners, bool closed);

/// The joint of the smooth side that a corner begins, or that a joint itself stands in; nothing when the
/// side is another kind.
std::optional<std::size_t> jointOf(const Line3D& line, std::size_t corner);

/// After a change at or beside a corner: the smooth sides that depend on its place get new arcs. A corner
/// with one smooth side is touched by it along its other side. A side that cannot be fitted stays.
void refitSmooth(Line3D& line, std::size_t corner);

/// A side between two corners goes smoothly through them; vertices with no height beside have none at the
/// joint. BadInput when it is a part of a smooth side already or cannot be one.
Result<Line3D> withSmoothSide(const Line3D& line, std::size_t segment);
/// The straight from corner to corner instead of the smooth side that a segment belongs to.
Result<Line3D> withoutSmoothSide(const Line3D& line, std::size_t segment);

/// Marks of joints that no longer stand in a smooth side go.
void dropLooseJoints(Line3D& line);

}  // namespace erdwerk::linework
