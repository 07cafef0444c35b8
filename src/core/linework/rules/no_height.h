#pragma once
// No height: others look past it.

#include "core/linework/rules/rule_kind.h"

namespace erdwerk::linework {

struct NoHeight {
    friend bool operator==(const NoHeight&, const NoHeight&) = default;
};

template <>
struct RuleKind<NoHeight> {
    static constexpr std::string_view name = "none";
    static constexpr bool isControl = false;
    static constexpr bool looksBack = false;
    static constexpr bool looksAhead = false;
    static constexpr Standing standing = Standing::Own;
    static constexpr bool straight = true;
    static void references(const NoHeight&, const std::function<void(ObjectId)>&) {}
    static Result<double> solve(const NoHeight&, Asking&) { return notGiven(); }
    static NoHeight reversed(const NoHeight& rule) { return rule; }
    static std::string text(const NoHeight&, const RuleNames&) { return "none"; }
    static std::optional<Result<NoHeight>> parse(const std::string& text, const RuleNames&) {
        return plainWord(text) == "none" ? std::optional<Result<NoHeight>>(NoHeight{}) : std::nullopt;
    }
    static RuleFields write(const NoHeight&) { return {}; }
    static Result<NoHeight> read(const RuleFields&) { return NoHeight{}; }
};

}  // namespace erdwerk::linework
