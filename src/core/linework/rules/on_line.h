#pragma once
// The height of another 3D line at its nearest place in plan, with an amount ("=Pad edge+0.10") or a
// crossfall ("=Pad edge-2%", "=Pad edge-3:1": the grade times the plan distance to that place).

#include "core/linework/rules/rule_kind.h"

namespace erdwerk::linework {

struct OnLine {
    ObjectId line;
    double amount = 0;               ///< added to the line's height
    std::optional<Grade> crossfall;  ///< from the line to here
    std::string typed = {};          ///< the crossfall as it was typed, with its sign
    friend bool operator==(const OnLine&, const OnLine&) = default;
};

template <>
struct RuleKind<OnLine> {
    static constexpr std::string_view name = "line";
    static constexpr bool isControl = true;
    static constexpr bool looksBack = false;
    static constexpr bool looksAhead = false;
    static constexpr Standing standing = Standing::Own;
    static constexpr bool straight = true;
    static void references(const OnLine& rule, const std::function<void(ObjectId)>& visit) {
        visit(rule.line);
    }
    static Result<double> solve(const OnLine& rule, Asking& ask);
    static OnLine reversed(const OnLine& rule) { return rule; }
    static std::string text(const OnLine& rule, const RuleNames& names);
    static std::optional<Result<OnLine>> parse(const std::string& text, const RuleNames& names);
    static RuleFields write(const OnLine& rule);
    static Result<OnLine> read(const RuleFields& fields);
};

}  // namespace erdwerk::linework
