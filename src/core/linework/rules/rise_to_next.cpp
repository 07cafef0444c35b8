#include "core/linework/rules/rise_to_next.h"

#include <cmath>

#include "core/base/display.h"
#include "core/base/notation.h"
#include "core/linework/rules/rise_from_previous.h"

namespace erdwerk::linework {

Result<double> RuleKind<RiseToNext>::solve(const RiseToNext& rule, Asking& ask) {
    const auto other = ask.next();
    if (!other) return tl::unexpected(other.error());
    return other->height - rule.rise;
}

RiseFromPrevious RuleKind<RiseToNext>::reversed(const RiseToNext& rule) {
    return RiseFromPrevious{-rule.rise, negatedText(rule.typed, true)};
}

std::string RuleKind<RiseToNext>::text(const RiseToNext& rule, const RuleNames&) {
    return std::string("to ") + (rule.typed.empty() ? signedText(rule.rise) : rule.typed);
}

std::optional<Result<RiseToNext>> RuleKind<RiseToNext>::parse(const std::string& text, const RuleNames&) {
    const std::string word = plainWord(text);
    if (word.rfind("to ", 0) != 0) return std::nullopt;
    const std::string figure = plainWord(word.substr(3));
    const auto entry = parseHeightEntry(figure);
    const auto* typed = entry ? std::get_if<TypedRise>(&*entry) : nullptr;
    if (typed == nullptr) return std::nullopt;
    return Result<RiseToNext>(RiseToNext{typed->rise, figure});
}

RuleFields RuleKind<RiseToNext>::write(const RiseToNext& rule) {
    RuleFields out{{{"rise", rule.rise}}, {}, {}};
    if (!rule.typed.empty()) out.words["typed"] = rule.typed;
    return out;
}

Result<RiseToNext> RuleKind<RiseToNext>::read(const RuleFields& fields) {
    const auto value = fields.figure("rise");
    if (!value) return tl::unexpected(value.error());
    return RiseToNext{*value, fields.word("typed")};
}

}  // namespace erdwerk::linework
