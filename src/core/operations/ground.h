#pragma once
// Points, surfaces and clouds, as edits.

#include "core/objects/points.h"
#include "core/operations/extract.h"
#include "core/operations/lines.h"
#include "core/survey/points.h"

namespace erdwerk::operations {

/// One line through the points by number, or one for each code among them; BadInput when nothing comes of it.
Edit connectPoints(ObjectId set, std::vector<std::size_t> members, bool byCode);
/// Adds a survey point to the first set ("Points" when there is none).
Edit addPoint(survey::SurveyPoint point);
/// Typed: a height, a rise from the one it has, or `=Surface+0.10` as these results have it; nothing takes it
/// away.
Edit setTypedHeight(const Results& seen, objects::PointRef point, const std::string& text);
/// A surface from these points and lines (breaklines); from all points, or all lines, when there are none.
Edit newSurface(std::vector<ObjectId> sources);
/// A line as a source; an edge, opening or island must be closed.
Edit addRole(ObjectId surface, ObjectId line, objects::Role role);
/// The role of lines that are sources of a surface already; BadInput where an edge, opening or island is
/// open.
Edit setRoles(ObjectId surface, std::vector<ObjectId> lines, objects::Role role);
Edit removeSource(ObjectId surface, ObjectId object);
/// An own edit of a surface, when it applies to it as these results have it.
Edit ownEdit(const Results& seen, ObjectId surface, objects::SurfaceEdit edit);
Edit surfaceFromDense(ObjectId dense, const std::vector<ObjectId>& closedLines);
/// The way that water takes over a surface, as a line in the group "Runoff".
Edit runoffLine(const Results& seen, ObjectId surface, geometry::Vec2 from);
/// Parts that were taken of a surface (operations::partsOf), as objects beside whatever is in the document by
/// then.
Edit addParts(operations::Parts parts);
/// The contours of the level that is nearest at a place.
Edit contourAt(const Results& seen, ObjectId surface, geometry::Vec2 place);
Edit triangleAt(const Results& seen, ObjectId surface, geometry::Vec2 place);
/// Only the points inside the ring of a closed line take part.
Edit cropCloud(const Results& seen, ObjectId cloud, ObjectId line);

/// The ring of a closed line, arcs cut.
Result<std::vector<geometry::Vec2>> ringOf(const Derived& derived, ObjectId line);
/// Places on a grid inside a closed line with the heights of a cloud, raster or surface; not more than a
/// million.
Result<std::vector<geometry::Vec3>> gridOf(const Derived& derived, ObjectId source, ObjectId line,
                                           double spacing);
/// Those as a set of survey points, "Grid of NAME 1".
Edit addGrid(ObjectId source, std::vector<geometry::Vec3> places);

/// Removes points of sets, and whole objects with what cannot be without them.
Edit remove(std::vector<ObjectId> objects, std::vector<objects::PointRef> points);
/// Adds what a check found to be meant so.
Edit accept(document::Accepted accepted);
Edit takeBackAcceptance(document::Accepted accepted);
Edit changeSettings(std::function<void(document::Settings&)> change);

}  // namespace erdwerk::operations
