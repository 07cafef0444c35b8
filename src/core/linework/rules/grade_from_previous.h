#pragma once
// A grade or ratio from the previous control: "2%", "3:1", "1 in 3".

#include "core/linework/rules/rule_kind.h"

namespace erdwerk::linework {

struct GradeFromPrevious {
    Grade grade;
    std::string typed = {};  ///< as it was typed; empty: made from the figure
    friend bool operator==(const GradeFromPrevious&, const GradeFromPrevious&) = default;
};

template <>
struct RuleKind<GradeFromPrevious> {
    static constexpr std::string_view name = "grade";
    static constexpr bool isControl = true;
    static constexpr bool looksBack = true;
    static constexpr bool looksAhead = false;
    static constexpr Standing standing = Standing::Own;
    static constexpr bool straight = true;
    static void references(const GradeFromPrevious&, const std::function<void(ObjectId)>&) {}
    static Result<double> solve(const GradeFromPrevious& rule, Asking& ask);
    /// Measured to the other neighbour, so that every figure stays what it was but for its sign.
    static struct GradeToNext reversed(const GradeFromPrevious& rule);
    static std::string text(const GradeFromPrevious& rule, const RuleNames&);
    static std::optional<Result<GradeFromPrevious>> parse(const std::string& text, const RuleNames&);
    static RuleFields write(const GradeFromPrevious& rule);
    static Result<GradeFromPrevious> read(const RuleFields& fields);
};

}  // namespace erdwerk::linework
