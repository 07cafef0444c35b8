#include "core/linework/rules/rise_from_previous.h"

#include <cmath>

#include "core/base/display.h"
#include "core/base/notation.h"
#include "core/linework/rules/rise_to_next.h"

namespace erdwerk::linework {

Result<double> RuleKind<RiseFromPrevious>::solve(const RiseFromPrevious& rule, Asking& ask) {
    const auto other = ask.previous();
    if (!other) return tl::unexpected(other.error());
    return other->height + rule.rise;
}

RiseToNext RuleKind<RiseFromPrevious>::reversed(const RiseFromPrevious& rule) {
    return RiseToNext{-rule.rise, negatedText(rule.typed, true)};
}

std::string RuleKind<RiseFromPrevious>::text(const RiseFromPrevious& rule, const RuleNames&) {
    return (rule.typed.empty() ? signedText(rule.rise) : rule.typed);
}

std::optional<Result<RiseFromPrevious>> RuleKind<RiseFromPrevious>::parse(const std::string& text,
                                                                          const RuleNames&) {
    const auto entry = parseHeightEntry(text);
    const auto* typed = entry ? std::get_if<TypedRise>(&*entry) : nullptr;
    if (typed == nullptr) return std::nullopt;
    return Result<RiseFromPrevious>(RiseFromPrevious{typed->rise, plainWord(text)});
}

RuleFields RuleKind<RiseFromPrevious>::write(const RiseFromPrevious& rule) {
    RuleFields out{{{"rise", rule.rise}}, {}, {}};
    if (!rule.typed.empty()) out.words["typed"] = rule.typed;
    return out;
}

Result<RiseFromPrevious> RuleKind<RiseFromPrevious>::read(const RuleFields& fields) {
    const auto value = fields.figure("rise");
    if (!value) return tl::unexpected(value.error());
    return RiseFromPrevious{*value, fields.word("typed")};
}

}  // namespace erdwerk::linework
