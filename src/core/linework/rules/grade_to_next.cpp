#include "core/linework/rules/grade_to_next.h"

#include <cmath>

#include "core/base/display.h"
#include "core/base/notation.h"
#include "core/linework/rules/grade_from_previous.h"

namespace erdwerk::linework {

Result<double> RuleKind<GradeToNext>::solve(const GradeToNext& rule, Asking& ask) {
    const auto other = ask.next();
    if (!other) return tl::unexpected(other.error());
    return other->height - rule.grade.riseOverRun() * other->run;
}

GradeFromPrevious RuleKind<GradeToNext>::reversed(const GradeToNext& rule) {
    return GradeFromPrevious{Grade::riseOverRun(-rule.grade.riseOverRun()), negatedText(rule.typed)};
}

std::string RuleKind<GradeToNext>::text(const GradeToNext& rule, const RuleNames&) {
    return std::string("to ") + (rule.typed.empty()
                                     ? formatExact(std::round(rule.grade.percent() * 1e9) / 1e9) + "%"
                                     : rule.typed);
}

std::optional<Result<GradeToNext>> RuleKind<GradeToNext>::parse(const std::string& text, const RuleNames&) {
    const std::string word = plainWord(text);
    if (word.rfind("to ", 0) != 0) return std::nullopt;
    const std::string figure = plainWord(word.substr(3));
    const auto entry = parseHeightEntry(figure);
    if (!entry) return Result<GradeToNext>(badInput("'" + text + "' is no grade, ratio or rise to the next"));
    const auto* typed = entry ? std::get_if<TypedGrade>(&*entry) : nullptr;
    if (typed == nullptr) return std::nullopt;
    return Result<GradeToNext>(GradeToNext{typed->grade, figure});
}

RuleFields RuleKind<GradeToNext>::write(const GradeToNext& rule) {
    RuleFields out{{{"grade", rule.grade.riseOverRun()}}, {}, {}};
    if (!rule.typed.empty()) out.words["typed"] = rule.typed;
    return out;
}

Result<GradeToNext> RuleKind<GradeToNext>::read(const RuleFields& fields) {
    const auto value = fields.figure("grade");
    if (!value) return tl::unexpected(value.error());
    return GradeToNext{Grade::riseOverRun(*value), fields.word("typed")};
}

}  // namespace erdwerk::linework
