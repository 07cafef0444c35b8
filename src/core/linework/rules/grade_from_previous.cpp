#include "core/linework/rules/grade_from_previous.h"

#include <cmath>

#include "core/base/display.h"
#include "core/base/notation.h"
#include "core/linework/rules/grade_to_next.h"

namespace erdwerk::linework {

Result<double> RuleKind<GradeFromPrevious>::solve(const GradeFromPrevious& rule, Asking& ask) {
    const auto other = ask.previous();
    if (!other) return tl::unexpected(other.error());
    return other->height + rule.grade.riseOverRun() * other->run;
}

GradeToNext RuleKind<GradeFromPrevious>::reversed(const GradeFromPrevious& rule) {
    return GradeToNext{Grade::riseOverRun(-rule.grade.riseOverRun()), negatedText(rule.typed)};
}

std::string RuleKind<GradeFromPrevious>::text(const GradeFromPrevious& rule, const RuleNames&) {
    return (rule.typed.empty() ? formatExact(std::round(rule.grade.percent() * 1e9) / 1e9) + "%"
                               : rule.typed);
}

std::optional<Result<GradeFromPrevious>> RuleKind<GradeFromPrevious>::parse(const std::string& text,
                                                                            const RuleNames&) {
    const auto entry = parseHeightEntry(text);
    const auto* typed = entry ? std::get_if<TypedGrade>(&*entry) : nullptr;
    if (typed == nullptr) return std::nullopt;
    return Result<GradeFromPrevious>(GradeFromPrevious{typed->grade, plainWord(text)});
}

RuleFields RuleKind<GradeFromPrevious>::write(const GradeFromPrevious& rule) {
    RuleFields out{{{"grade", rule.grade.riseOverRun()}}, {}, {}};
    if (!rule.typed.empty()) out.words["typed"] = rule.typed;
    return out;
}

Result<GradeFromPrevious> RuleKind<GradeFromPrevious>::read(const RuleFields& fields) {
    const auto value = fields.figure("grade");
    if (!value) return tl::unexpected(value.error());
    return GradeFromPrevious{Grade::riseOverRun(*value), fields.word("typed")};
}

}  // namespace erdwerk::linework
