#pragma once
// A fixed height: "101.25", or "h -3.20".

#include "core/linework/rules/rule_kind.h"

namespace erdwerk::linework {

struct FixedHeight {
    double height = 0;
    friend bool operator==(const FixedHeight&, const FixedHeight&) = default;
};

template <>
struct RuleKind<FixedHeight> {
    static constexpr std::string_view name = "fixed";
    static constexpr bool isControl = true;
    static constexpr bool looksBack = false;
    static constexpr bool looksAhead = false;
    static constexpr Standing standing = Standing::Own;
    static constexpr bool straight = true;
    static void references(const FixedHeight&, const std::function<void(ObjectId)>&) {}
    static Result<double> solve(const FixedHeight& rule, Asking&) { return rule.height; }
    static FixedHeight reversed(const FixedHeight& rule) { return rule; }
    static std::string text(const FixedHeight& rule, const RuleNames&);
    static std::optional<Result<FixedHeight>> parse(const std::string& text, const RuleNames&);
    static RuleFields write(const FixedHeight& rule) { return {{{"height", rule.height}}, {}, {}}; }
    static Result<FixedHeight> read(const RuleFields& fields);
};

}  // namespace erdwerk::linework
