#include "core/linework/rules/fixed_height.h"

#include "core/base/display.h"
#include "core/base/notation.h"

namespace erdwerk::linework {

std::string RuleKind<FixedHeight>::text(const FixedHeight& rule, const RuleNames&) {
    // A bare minus would be a rise.
    return (rule.height < 0 ? "h " : "") + formatExact(rule.height);
}

std::optional<Result<FixedHeight>> RuleKind<FixedHeight>::parse(const std::string& text, const RuleNames&) {
    const std::string word = plainWord(text);
    if (word.rfind("h ", 0) == 0) {
        const auto height = parseNumber(word.substr(2));
        if (!height) return Result<FixedHeight>(badInput("'" + text + "' is not a height"));
        return Result<FixedHeight>(FixedHeight{*height});
    }
    const auto entry = parseHeightEntry(text);
    const auto* height = entry ? std::get_if<TypedHeight>(&*entry) : nullptr;
    return height == nullptr ? std::nullopt : std::optional<Result<FixedHeight>>(FixedHeight{height->height});
}

Result<FixedHeight> RuleKind<FixedHeight>::read(const RuleFields& fields) {
    const auto height = fields.figure("height");
    if (!height) return tl::unexpected(height.error());
    return FixedHeight{*height};
}

}  // namespace erdwerk::linework
