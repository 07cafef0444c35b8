#pragma once
// Where a height comes from. The list below is the one list of rules.

#include <variant>

#include "core/linework/rules/crossing_line.h"
#include "core/linework/rules/fixed_height.h"
#include "core/linework/rules/grade_from_previous.h"
#include "core/linework/rules/grade_to_next.h"
#include "core/linework/rules/interpolated.h"
#include "core/linework/rules/meeting_grades.h"
#include "core/linework/rules/no_height.h"
#include "core/linework/rules/on_line.h"
#include "core/linework/rules/on_surface.h"
#include "core/linework/rules/rise_from_previous.h"
#include "core/linework/rules/rise_to_next.h"

namespace erdwerk::linework {

using HeightRule = std::variant<NoHeight, FixedHeight, GradeFromPrevious, RiseFromPrevious, OnSurface,
                                Interpolated, GradeToNext, RiseToNext, OnLine, CrossingLine, MeetingGrades>;

/// Others measure from a point with this rule: it is neither empty nor interpolated.
bool isControl(const HeightRule& rule);
bool looksBack(const HeightRule& rule);
bool looksAhead(const HeightRule& rule);
/// See RuleKind: a control that comes between it and its neighbour, on the straight between, changes nothing.
bool isStraight(const HeightRule& rule);
/// A control that is measured from another point of its line.
bool isRelative(const HeightRule& rule);
/// How a grade point with it comes to its place.
Standing standing(const HeightRule& rule);
void references(const HeightRule& rule, const std::function<void(ObjectId)>& visit);
/// The rule with one object that it names exchanged for another.
HeightRule exchanged(HeightRule rule, ObjectId from, ObjectId to);
Result<double> solve(const HeightRule& rule, Asking& ask);
HeightRule reversed(const HeightRule& rule);
/// As it was typed: "101.25", "3:1", "+0.15", "=Ground+0.10", "x Ditch 3", "interpolated", "none".
std::string ruleText(const HeightRule& rule, const RuleNames& names);
/// BadInput for what is no rule; NotFound for a name that is not there. An "@ " in front is passed over.
Result<HeightRule> parseRule(const std::string& text, const RuleNames& names);
/// The word of a rule in files, and its fields.
std::string_view ruleName(const HeightRule& rule);
RuleFields writeRule(const HeightRule& rule);
Result<HeightRule> readRule(const std::string& name, const RuleFields& fields);

}  // namespace erdwerk::linework
