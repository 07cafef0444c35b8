#pragma once
// Surfaces and their sources, as edits. A surface that is gone is BadInput.

#include "core/geometry/vec.h"
#include "core/objects/role.h"
#include "core/operations/edit.h"

namespace erdwerk::objects {
struct Source;
struct SurfaceDefinition;
struct SurfaceEdit;
}  // namespace erdwerk::objects

namespace erdwerk::operations {

/// A surface from these points and lines (breaklines); from all points, or all lines, when there are none.
Edit newSurface(std::vector<ObjectId> sources);
/// A surface of this name from these sources.
Edit addSurface(const std::string& name, std::vector<Source> sources);
/// A line as a source; an edge, opening or island must be closed.
Edit addRole(ObjectId surface, ObjectId line, Role role);
/// The role of lines that are sources of a surface already; BadInput where an edge, opening or island is
/// open.
Edit setRoles(ObjectId surface, std::vector<ObjectId> lines, Role role);
/// Last of all, in the one role that it then has; a surface has one edge.
Edit addSource(ObjectId surface, Source source);
Edit removeSource(ObjectId surface, ObjectId object);
/// Replaces a source in its place in the order.
Edit setSource(ObjectId surface, Source source);
/// Moves a source up (by < 0) or down in the order.
Edit moveSource(ObjectId surface, ObjectId object, int by);
Edit setMaxEdge(ObjectId surface, double maxEdge);
/// Any change of what the triangulation depends on.
Edit changeDefinition(ObjectId surface, std::function<void(SurfaceDefinition&)> change);
/// An own edit of a surface, when it applies to it as these results have it.
Edit ownEdit(const Results& seen, ObjectId surface, SurfaceEdit edit);
/// The same, whether it applies or not: where it does not, a finding says why.
Edit addOwnEdit(ObjectId surface, SurfaceEdit edit);
/// Adds points to the set of this name and makes the set a source of the surface.
Edit addToSurface(ObjectId surface, const std::string& setName, std::vector<geometry::Vec3> points,
                  const std::string& code);

bool hasSource(const Document& document, ObjectId surface, ObjectId object);
/// What could be a source more, in the role that it would have first.
std::vector<Source> possibleSources(const Document& document, ObjectId surface);
/// Clouds and rasters of the project: what a surface can be compared with.
std::vector<ObjectId> denseObjects(const Document& document);
/// Whether any of its sources, or of the members of its groups, is a cloud or a raster.
bool hasDenseSources(const Document& document, ObjectId surface);

}  // namespace erdwerk::operations
