#pragma once
// Edits that mend what the checks find. Pure; what does not apply returns the document as it was.

#include "core/objects/surface.h"
#include "core/operations/edit.h"

namespace erdwerk::operations {

/// Both lines get a corner at this place (or the vertex that stands there is used), with this height.
Document shareCorner(const Document& document, ObjectId first, ObjectId second, geometry::Vec2 place,
                     double height);

/// The corner of either line that is nearest to the place goes onto the other line, and takes its height
/// there.
Document moveNearestCorner(const Document& document, const Derived& derived, ObjectId first, ObjectId second,
                           geometry::Vec2 place);

/// What an open line has beyond a place on it: the shorter of the two parts. Nothing for a closed line.
std::optional<double> overshoot(const Document& document, ObjectId line, geometry::Vec2 place);
/// Takes the shorter part away; the line then ends at the place, with this height.
Document trimOvershoot(const Document& document, const Derived& derived, ObjectId line, geometry::Vec2 place,
                       double height);

/// An end of a line goes to a place, with this height.
Document moveEnd(const Document& document, ObjectId line, bool last, geometry::Vec3 place);

/// Adds points to the set of this name and makes the set a source of the surface.
Document addToSurface(const Document& document, ObjectId surface, const std::string& setName,
                      const std::vector<geometry::Vec3>& points, const std::string& code);

/// Adds an own edit of a surface when it applies to it as it is now; else says why not.
Result<Document> tryEdit(const Derived& derived, ObjectId surface, const SurfaceEdit& edit);

}  // namespace erdwerk::operations
