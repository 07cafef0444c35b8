#pragma once
// A grade or ratio from here to the next control: "to 2%", "to 3:1".

#include "core/linework/rules/rule_kind.h"

namespace erdwerk::linework {

struct GradeToNext {
    Grade grade;
    std::string typed = {};  ///< as it was typed; empty: made from the figure
    friend bool operator==(const GradeToNext&, const GradeToNext&) = default;
};

template <>
struct RuleKind<GradeToNext> {
    static constexpr std::string_view name = "grade-to-next";
    static constexpr bool isControl = true;
    static constexpr bool looksBack = false;
    static constexpr bool looksAhead = true;
    static constexpr Standing standing = Standing::Own;
    static constexpr bool straight = true;
    static void references(const GradeToNext&, const std::function<void(ObjectId)>&) {}
    static Result<double> solve(const GradeToNext& rule, Asking& ask);
    /// Measured to the other neighbour, so that every figure stays what it was but for its sign.
    static struct GradeFromPrevious reversed(const GradeToNext& rule);
    static std::string text(const GradeToNext& rule, const RuleNames&);
    static std::optional<Result<GradeToNext>> parse(const std::string& text, const RuleNames&);
    static RuleFields write(const GradeToNext& rule);
    static Result<GradeToNext> read(const RuleFields& fields);
};

}  // namespace erdwerk::linework
