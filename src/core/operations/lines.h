#pragma once
// What a person does to 3D lines, as edits: split, join, drape, reverse, draw, continue, give heights.

#include "core/linework/height_solver.h"
#include "core/linework/rule_list.h"
#include "core/operations/edit.h"

namespace erdwerk::operations {

/// A place on a line: one of its vertices, or somewhere on a segment of its plan path.
struct LinePlace {
    ObjectId line;
    std::optional<std::size_t> vertex;
    std::size_t segment = 0;
    double fraction = 0;
};

/// How far along its line a place is.
Result<double> distanceOf(const Derived& seen, const LinePlace& at);
/// A line that is its own; BadInput for one that is gone or follows others.
Result<const objects::Line*> ownLine(const Document& document, ObjectId id);
/// BadInput when the line is a source of the surface.
Edit drapeLine(const Results& seen, ObjectId surface, ObjectId line);
Edit reverseLine(ObjectId line);
Edit closeLine(ObjectId line);
Edit insertCorner(LinePlace at);
Edit insertGradePoint(LinePlace at);
Edit removeVertex(ObjectId line, std::size_t vertex);
/// A corner goes to the place, a grade point along its side to where it is nearest.
Edit moveVertex(ObjectId line, std::size_t vertex, geometry::Vec2 to);

/// The same onto something that has a height: it takes it, unless a rule of its own says otherwise.
Edit moveVertexTo(ObjectId line, std::size_t vertex, geometry::Vec2 to, std::optional<double> height);

/// A new line, "Line 1", "Line 2" …
Edit drawLine(linework::Line3D line);
/// Puts drawn vertices before the first (`atStart`, in the order they were drawn, from the line outwards) or
/// after the last of a line. Whatever else was done to the line meanwhile stays. Heights are worked out in
/// the drawn direction.
Edit continueLine(ObjectId line, bool atStart, const std::vector<linework::LineVertex>& drawn,
                  std::optional<geometry::Vec2> throughFromEnd);
/// The line as it would be: what continueLine makes, without a document.
linework::Line3D continued(const linework::Line3D& line, bool atStart,
                           const std::vector<linework::LineVertex>& drawn,
                           std::optional<geometry::Vec2> throughFromEnd);

/// Typed notation as a rule, and a rule as it was typed; names are those of the document.
linework::RuleNames namesIn(const Document& document);
Result<linework::HeightRule> typedRule(const Document& document, const std::string& text);
std::string ruleText(const Document& document, const linework::HeightRule& rule);
/// With its vertical curve: "2% curve 40".
std::string controlText(const Document& document, const linework::LineVertex& vertex);
/// BadInput for a rule that looks back from the first point of an open line.
Edit setRule(ObjectId line, std::size_t vertex, linework::HeightRule rule);
/// A rule, with a vertical curve behind it or none.
Edit setTypedRule(ObjectId line, std::size_t vertex, const std::string& text);
/// The rule only; a vertical curve stays.
Edit setTypedHeight(ObjectId line, std::size_t vertex, const std::string& text);
/// BadInput at an end of an open line, and at a point without a height of its own.
Edit setCurve(ObjectId line, std::size_t vertex, std::optional<linework::VerticalCurve> curve);
/// "40", "K12", "curve 40"; "none" or nothing takes it away.
Edit setTypedCurve(ObjectId line, std::size_t vertex, const std::string& text);
/// The same rule at several points, of one line or of many; BadInput when one of them cannot have it.
Edit setTypedRules(std::vector<std::pair<ObjectId, std::size_t>> points, const std::string& text);
/// What can be typed for the way from a control to the next.
enum class ToNextFigure { Rise, Grade, Ratio };
/// A bare figure is a rise, per cent, or the run of a ratio; `2%`, `3:1`, `+0.15` mean the same in each. It
/// becomes the rule of the next control (of the next point, when there is no control after it); of this point
/// when its own height is measured from the next.
Edit setTypedToNext(ObjectId line, std::size_t vertex, ToNextFigure figure, const std::string& text);
/// Moves a grade point along its side to this distance from the start of the line.
Edit moveGradePointTo(ObjectId line, std::size_t vertex, double distance);

/// Grades that the line is meant to keep, as parseGradeLimits reads them.
Edit setTypedLimits(ObjectId line, const std::string& text);

/// Surfaces and lines as these results have them, for resolving the rules of one more.
linework::Surroundings surroundings(const Derived& derived);

}  // namespace erdwerk::operations
