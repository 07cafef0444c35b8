#pragma once
// What the edits of this room are put together from: a document with one thing changed. What is named must be
// there: edits look first, and say so when it is not.

#include "core/linework/line3d.h"
#include "core/objects/point_ref.h"
#include "core/objects/surface.h"
#include "core/operations/edit.h"
#include "core/survey/points.h"

namespace erdwerk::operations {

/// A line with other vertices.
Document withLine(const Document& document, ObjectId line, linework::Line3D value);
/// Points in the set of this name, which is made when there is none.
Document withPointsIn(const Document& document, const std::string& setName,
                      std::vector<survey::SurveyPoint> points, ObjectId* set = nullptr);
Document withPoint(const Document& document, PointRef ref, survey::SurveyPoint point);
/// Positions may come twice. What names them or points after them is carried along where the edit is
/// performed.
Document withoutPoints(const Document& document, const std::vector<PointRef>& points);
/// A line more through points of one set, in the order given; heights are fixed where the points have them.
/// None where fewer than two places are left.
Document withLineThrough(const Document& document, ObjectId set, const survey::Chain& chain,
                         const std::string& name);
/// Any change of what the triangulation of a surface depends on.
Document withDefinition(const Document& document, ObjectId surface,
                        const std::function<void(SurfaceDefinition&)>& change);
/// A source last of all, in the one role that it then has; a surface has one edge.
Document withSource(const Document& document, ObjectId surface, Source source);
Document withOwnEdit(const Document& document, ObjectId surface, SurfaceEdit edit);
Document withGroup(const Document& document, ObjectId object, ObjectId group);

}  // namespace erdwerk::operations
