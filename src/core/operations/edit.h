#pragma once
// Edits of a document that touch more than one value of one object. Pure functions: what does not apply (the
// object is gone, of another kind) returns the document as it was.

#include <functional>
#include <optional>
#include <vector>

#include "core/derive/model.h"
#include "core/objects/points.h"
#include "core/objects/surface.h"
#include "core/survey/points.h"

namespace erdwerk::operations {

// Edits speak of the objects they change.
using derive::Derived;
using document::Accepted;
using document::changed;
using document::Document;
using document::NewObject;
using document::Settings;
using namespace objects;

// Survey points
Document addPoints(const Document& document, const std::string& setName,
                   std::vector<survey::SurveyPoint> points, ObjectId* set = nullptr);
Document setPoint(const Document& document, PointRef ref, survey::SurveyPoint point);
Document setPointHeight(const Document& document, PointRef ref, std::optional<double> height);
Document movePoint(const Document& document, PointRef ref, geometry::Vec2 place);
/// What names them or points after them is carried along, and said, where the edit is performed.
Document removePoints(const Document& document, const std::vector<PointRef>& points);
/// The next number that no set has.
Document renumberPoint(const Document& document, PointRef ref);
/// Its number with the first letter behind it that makes it the only one: 204 to 204a.
Document letterPoint(const Document& document, PointRef ref);
/// A line through points of one set, in the order given; heights are fixed where the points have them.
Document connectPoints(const Document& document, ObjectId set, const survey::Chain& chain,
                       const std::string& name, ObjectId* line = nullptr);

// Surfaces
Document addSource(const Document& document, ObjectId surface, Source source);
Document removeSource(const Document& document, ObjectId surface, ObjectId object);
Document setMaxEdge(const Document& document, ObjectId surface, double maxEdge);
/// Replaces a source in its place in the order.
Document setSource(const Document& document, ObjectId surface, Source source);
/// Moves a source up (by < 0) or down in the order.
Document moveSource(const Document& document, ObjectId surface, ObjectId object, int by);
/// Any change of what the triangulation depends on.
Document changeDefinition(const Document& document, ObjectId surface,
                          const std::function<void(SurfaceDefinition&)>& change);
Document addEdit(const Document& document, ObjectId surface, SurfaceEdit edit);
bool hasSource(const Document& document, ObjectId surface, ObjectId object);
/// What could be a source more, in the role that it would have first.
std::vector<Source> possibleSources(const Document& document, ObjectId surface);
/// Clouds and rasters of the project: what a surface can be compared with.
std::vector<ObjectId> denseObjects(const Document& document);
/// Whether any of its sources, or of the members of its groups, is a cloud or a raster.
bool hasDenseSources(const Document& document, ObjectId surface);
/// A surface from the given sets and lines: a closed line that surrounds everything is not taken for an edge
/// by itself.
Document addSurface(const Document& document, const std::string& name, const std::vector<Source>& sources,
                    ObjectId* id = nullptr);

// Lines
Document setLine(const Document& document, ObjectId line, linework::Line3D value);
/// Puts a grade point with this fixed height where the line passes the place (or sets the vertex that is
/// there).
Document setHeightOnLine(const Document& document, ObjectId line, geometry::Vec2 place, double height);
/// Vertices without a height get the rule `interpolated`, or the nearest height at the ends.
Document interpolateMissing(const Document& document, ObjectId line);
Document closeLine(const Document& document, ObjectId line);

// Findings
Document accept(const Document& document, Accepted accepted);

// Objects
Document rename(const Document& document, ObjectId id, std::string name);
Document setGroup(const Document& document, ObjectId id, ObjectId group);

}  // namespace erdwerk::operations
