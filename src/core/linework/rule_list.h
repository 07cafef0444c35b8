#pragma once
// Rules as text: of one point with its vertical curve ("2% curve 40"), and of a whole line as files carry it
// in the attribute `rules`: entries separated by ";", in the order of the line, one for each corner and one
// for each grade point between them. A grade point's entry begins with "@" and its plan distance from the
// start
// ("@25 2%"); one whose rule finds its place may have none ("@ meet 2% -3%"). An empty entry is no height.

#include "core/linework/line3d.h"

namespace erdwerk::linework {

struct TypedControl {
    HeightRule rule;
    std::optional<VerticalCurve> curve;
};
/// BadInput for what is no rule, or a curve that is none; NotFound for a name that is not there.
Result<TypedControl> parseControl(const std::string& text, const RuleNames& names);
std::string controlText(const LineVertex& vertex, const RuleNames& names);

/// `line` has corners only; their heights are replaced. BadInput names the entry (from 1): a wrong number of
/// them, one that cannot be read, a grade point that does not stand between its corners. NotFound as above.
Result<Line3D> withRules(Line3D line, const std::string& rules, const RuleNames& names);
std::string rulesText(const Line3D& line, const RuleNames& names);

}  // namespace erdwerk::linework
