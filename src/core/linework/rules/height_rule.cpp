#include "core/linework/rules/height_rule.h"

#include "core/base/notation.h"

namespace erdwerk::linework {

namespace {

template <class T>
using KindOf = RuleKind<std::decay_t<T>>;

/// Calls `use` with the type of each rule in turn until it says true.
template <class Use, std::size_t... I>
void eachRule(const Use& use, std::index_sequence<I...>) {
    (void)(use(std::type_identity<std::variant_alternative_t<I, HeightRule>>{}) || ...);
}

template <class Use>
void eachRule(const Use& use) {
    eachRule(use, std::make_index_sequence<std::variant_size_v<HeightRule>>{});
}

}  // namespace

bool isControl(const HeightRule& rule) {
    return std::visit([](const auto& r) { return KindOf<decltype(r)>::isControl; }, rule);
}
bool looksBack(const HeightRule& rule) {
    return std::visit([](const auto& r) { return KindOf<decltype(r)>::looksBack; }, rule);
}
bool looksAhead(const HeightRule& rule) {
    return std::visit([](const auto& r) { return KindOf<decltype(r)>::looksAhead; }, rule);
}

bool isStraight(const HeightRule& rule) {
    return std::visit([](const auto& r) { return KindOf<decltype(r)>::straight; }, rule);
}

Standing standing(const HeightRule& rule) {
    return std::visit([](const auto& r) { return KindOf<decltype(r)>::standing; }, rule);
}

bool isRelative(const HeightRule& rule) {
    return isControl(rule) && (looksBack(rule) || looksAhead(rule));
}

void references(const HeightRule& rule, const std::function<void(ObjectId)>& visit) {
    std::visit([&](const auto& r) { KindOf<decltype(r)>::references(r, visit); }, rule);
}

HeightRule exchanged(HeightRule rule, ObjectId from, ObjectId to) {
    const auto exchange = [&](ObjectId& named) {
        if (named == from) named = to;
    };
    std::visit(
        [&](auto& r) {
            if constexpr (requires { r.surface; }) exchange(r.surface);
            if constexpr (requires { r.line; }) exchange(r.line);
        },
        rule);
    return rule;
}

Result<double> solve(const HeightRule& rule, Asking& ask) {
    return std::visit([&](const auto& r) { return KindOf<decltype(r)>::solve(r, ask); }, rule);
}

HeightRule reversed(const HeightRule& rule) {
    return std::visit([](const auto& r) -> HeightRule { return KindOf<decltype(r)>::reversed(r); }, rule);
}

std::string ruleText(const HeightRule& rule, const RuleNames& names) {
    return std::visit([&](const auto& r) { return KindOf<decltype(r)>::text(r, names); }, rule);
}

Result<HeightRule> parseRule(const std::string& input, const RuleNames& names) {
    std::string text(trimmed(input));
    if (text.rfind("@ ", 0) == 0) text = trimmed(std::string_view(text).substr(2));
    std::optional<Result<HeightRule>> out;
    eachRule([&](auto type) {
        auto parsed = RuleKind<typename decltype(type)::type>::parse(text, names);
        if (!parsed) return false;
        out = *parsed ? Result<HeightRule>(HeightRule(std::move(**parsed)))
                      : Result<HeightRule>(tl::unexpected(parsed->error()));
        return true;
    });
    if (out) return std::move(*out);
    // The notation itself says best what is wrong with it.
    const auto entry = parseHeightEntry(text);
    return entry ? Result<HeightRule>(badInput("'" + text + "' is no height rule"))
                 : Result<HeightRule>(tl::unexpected(entry.error()));
}

std::string_view ruleName(const HeightRule& rule) {
    return std::visit([](const auto& r) { return KindOf<decltype(r)>::name; }, rule);
}

RuleFields writeRule(const HeightRule& rule) {
    return std::visit([](const auto& r) { return KindOf<decltype(r)>::write(r); }, rule);
}

Result<HeightRule> readRule(const std::string& name, const RuleFields& fields) {
    std::optional<Result<HeightRule>> out;
    eachRule([&](auto type) {
        using Rule = typename decltype(type)::type;
        if (RuleKind<Rule>::name != name) return false;
        auto read = RuleKind<Rule>::read(fields);
        out = read ? Result<HeightRule>(HeightRule(std::move(*read)))
                   : Result<HeightRule>(tl::unexpected(read.error()));
        return true;
    });
    if (!out) return badInput("unknown height rule '" + name + "'");
    return std::move(*out);
}

}  // namespace erdwerk::linework
