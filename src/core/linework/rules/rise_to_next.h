#pragma once
// A rise from here to the next control: "to +0.15".

#include "core/linework/rules/rule_kind.h"

namespace erdwerk::linework {

struct RiseToNext {
    double rise = 0;
    std::string typed = {};  ///< as it was typed; empty: made from the figure
    friend bool operator==(const RiseToNext&, const RiseToNext&) = default;
};

template <>
struct RuleKind<RiseToNext> {
    static constexpr std::string_view name = "rise-to-next";
    static constexpr bool isControl = true;
    static constexpr bool looksBack = false;
    static constexpr bool looksAhead = true;
    static constexpr Standing standing = Standing::Own;
    static constexpr bool straight = false;
    static void references(const RiseToNext&, const std::function<void(ObjectId)>&) {}
    static Result<double> solve(const RiseToNext& rule, Asking& ask);
    /// Measured to the other neighbour, so that every figure stays what it was but for its sign.
    static struct RiseFromPrevious reversed(const RiseToNext& rule);
    static std::string text(const RiseToNext& rule, const RuleNames&);
    static std::optional<Result<RiseToNext>> parse(const std::string& text, const RuleNames&);
    static RuleFields write(const RiseToNext& rule);
    static Result<RiseToNext> read(const RuleFields& fields);
};

}  // namespace erdwerk::linework
