#pragma once
// Edits that mend what the checks find.

#include "core/geometry/vec.h"
#include "core/operations/edit.h"

namespace erdwerk::operations {

/// Both lines get a corner at this place (or the vertex that stands there is used), with this height.
Edit shareCorner(ObjectId first, ObjectId second, geometry::Vec2 place, double height);

/// The corner of either line that is nearest to the place goes onto the other line, and takes its height
/// there.
Edit moveNearestCorner(const Results& seen, ObjectId first, ObjectId second, geometry::Vec2 place);

/// What an open line has beyond a place on it: the shorter of the two parts. Nothing for a closed line.
std::optional<double> overshoot(const Document& document, ObjectId line, geometry::Vec2 place);
/// Takes the shorter part away; the line then ends at the place, with this height.
Edit trimOvershoot(const Results& seen, ObjectId line, geometry::Vec2 place, double height);

/// An end of a line goes to a place, with this height.
Edit moveEnd(ObjectId line, bool last, geometry::Vec3 place);
/// The same onto another line, which gets a grade point of this height there.
Edit moveEndOnto(ObjectId line, bool last, geometry::Vec3 place, ObjectId other);

/// Puts a grade point with this fixed height where the line passes the place (or sets the vertex that is
/// there).
Edit setHeightOnLine(ObjectId line, geometry::Vec2 place, double height);
/// Vertices without a height get the rule `interpolated`, or the nearest height at the ends.
Edit interpolateMissing(ObjectId line);

}  // namespace erdwerk::operations
