#pragma once
// A grade point where the line crosses another 3D line in plan, at its height there plus an amount:
// "x Ditch 3", "x Ditch 3+0.10". Of several crossings the one nearest to where the point was put, or the
// first one on its side of the line (then the first at all).

#include "core/linework/rules/rule_kind.h"

namespace erdwerk::linework {

struct CrossingLine {
    ObjectId line;
    double amount = 0;         ///< added to the height of the other line
    bool nearestHere = false;  ///< the crossing nearest to the point's fraction of its side
    friend bool operator==(const CrossingLine&, const CrossingLine&) = default;
};

template <>
struct RuleKind<CrossingLine> {
    static constexpr std::string_view name = "crossing";
    static constexpr bool isControl = true;
    static constexpr bool looksBack = false;
    static constexpr bool looksAhead = false;
    static constexpr Standing standing = Standing::Crossing;
    static constexpr bool straight = true;
    static void references(const CrossingLine& rule, const std::function<void(ObjectId)>& visit) {
        visit(rule.line);
    }
    static Result<double> solve(const CrossingLine& rule, Asking& ask);
    static CrossingLine reversed(const CrossingLine& rule) { return rule; }
    static std::string text(const CrossingLine& rule, const RuleNames& names);
    static std::optional<Result<CrossingLine>> parse(const std::string& text, const RuleNames& names);
    static RuleFields write(const CrossingLine& rule);
    static Result<CrossingLine> read(const RuleFields& fields);
};

}  // namespace erdwerk::linework
