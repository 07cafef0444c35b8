#pragma once
// Straight between the nearest controls on both sides: typed as "interpolated" or "~".

#include "core/linework/rules/rule_kind.h"

namespace erdwerk::linework {

struct Interpolated {
    friend bool operator==(const Interpolated&, const Interpolated&) = default;
};

template <>
struct RuleKind<Interpolated> {
    static constexpr std::string_view name = "interpolated";
    static constexpr bool isControl = false;
    static constexpr bool looksBack = true;
    static constexpr bool looksAhead = true;
    static constexpr Standing standing = Standing::Own;
    static constexpr bool straight = true;
    static void references(const Interpolated&, const std::function<void(ObjectId)>&) {}
    static Result<double> solve(const Interpolated&, Asking& ask) {
        const auto a = ask.previous();
        if (!a) return tl::unexpected(a.error());
        const auto b = ask.next();
        if (!b) return tl::unexpected(b.error());
        const double run = a->run + b->run;
        return run > 0 ? a->height + (b->height - a->height) * (a->run / run) : a->height;
    }
    static Interpolated reversed(const Interpolated& rule) { return rule; }
    static std::string text(const Interpolated&, const RuleNames&) { return "interpolated"; }
    static std::optional<Result<Interpolated>> parse(const std::string& text, const RuleNames&) {
        const std::string word = plainWord(text);
        return word == "interpolated" || word == "~" ? std::optional<Result<Interpolated>>(Interpolated{})
                                                     : std::nullopt;
    }
    static RuleFields write(const Interpolated&) { return {}; }
    static Result<Interpolated> read(const RuleFields&) { return Interpolated{}; }
};

}  // namespace erdwerk::linework
