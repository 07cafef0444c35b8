#pragma once
// The height of a surface, plus an amount: "=Ground", "=Ground+0.10".

#include "core/linework/rules/rule_kind.h"

namespace erdwerk::linework {

struct OnSurface {
    ObjectId surface;
    double amount = 0;  ///< added to the surface's height
    friend bool operator==(const OnSurface&, const OnSurface&) = default;
};

template <>
struct RuleKind<OnSurface> {
    static constexpr std::string_view name = "surface";
    static constexpr bool isControl = true;
    static constexpr bool looksBack = false;
    static constexpr bool looksAhead = false;
    static constexpr Standing standing = Standing::Own;
    static constexpr bool straight = true;
    static void references(const OnSurface& rule, const std::function<void(ObjectId)>& visit) {
        visit(rule.surface);
    }
    static Result<double> solve(const OnSurface& rule, Asking& ask) {
        auto height = ask.surface(rule.surface);
        if (height) *height += rule.amount;
        return height;
    }
    static OnSurface reversed(const OnSurface& rule) { return rule; }
    static std::string text(const OnSurface& rule, const RuleNames& names);
    static std::optional<Result<OnSurface>> parse(const std::string& text, const RuleNames& names);
    static RuleFields write(const OnSurface& rule) {
        return {{{"amount", rule.amount}}, {}, {{"surface", rule.surface}}};
    }
    static Result<OnSurface> read(const RuleFields& fields);
};

}  // namespace erdwerk::linework
