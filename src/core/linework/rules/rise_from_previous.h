#pragma once
// A rise from the previous control: "+0.15", "-0.15".

#include "core/linework/rules/rule_kind.h"

namespace erdwerk::linework {

struct RiseFromPrevious {
    double rise = 0;
    std::string typed = {};  ///< as it was typed; empty: made from the figure
    friend bool operator==(const RiseFromPrevious&, const RiseFromPrevious&) = default;
};

template <>
struct RuleKind<RiseFromPrevious> {
    static constexpr std::string_view name = "rise";
    static constexpr bool isControl = true;
    static constexpr bool looksBack = true;
    static constexpr bool looksAhead = false;
    static constexpr Standing standing = Standing::Own;
    static constexpr bool straight = false;
    static void references(const RiseFromPrevious&, const std::function<void(ObjectId)>&) {}
    static Result<double> solve(const RiseFromPrevious& rule, Asking& ask);
    /// Measured to the other neighbour, so that every figure stays what it was but for its sign.
    static struct RiseToNext reversed(const RiseFromPrevious& rule);
    static std::string text(const RiseFromPrevious& rule, const RuleNames&);
    static std::optional<Result<RiseFromPrevious>> parse(const std::string& text, const RuleNames&);
    static RuleFields write(const RiseFromPrevious& rule);
    static Result<RiseFromPrevious> read(const RuleFields& fields);
};

}  // namespace erdwerk::linework
