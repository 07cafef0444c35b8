#pragma once
// Survey points, as edits. One that is gone is BadInput.

#include "core/objects/point_ref.h"
#include "core/operations/edit.h"
#include "core/survey/points.h"

namespace erdwerk::operations {

/// Adds points to the set of this name, which is made when there is none.
Edit addPoints(const std::string& setName, std::vector<survey::SurveyPoint> points);
/// Adds a survey point to the first set ("Points" when there is none).
Edit addPoint(survey::SurveyPoint point);
Edit setPoint(PointRef ref, survey::SurveyPoint point);
Edit setPointHeight(PointRef ref, std::optional<double> height);
/// Typed: a height, a rise from the one it has, or `=Surface+0.10` as these results have it; nothing takes it
/// away.
Edit setTypedHeight(const Results& seen, PointRef ref, const std::string& text);
Edit movePoint(PointRef ref, geometry::Vec2 place);
Edit removePoints(std::vector<PointRef> points);
/// The next number that no set has.
Edit renumberPoint(PointRef ref);
/// Its number with the first letter behind it that makes it the only one: 204 to 204a.
Edit letterPoint(PointRef ref);
/// One line through the points by number, or one for each code among them; BadInput when nothing comes of it.
Edit connectPoints(ObjectId set, std::vector<std::size_t> members, bool byCode);

}  // namespace erdwerk::operations
