#include "core/linework/rules/on_line.h"

#include <cmath>

#include "core/base/display.h"
#include "core/base/notation.h"

namespace erdwerk::linework {

Result<double> RuleKind<OnLine>::solve(const OnLine& rule, Asking& ask) {
    const auto other = ask.nearestOf(rule.line);
    if (!other) return tl::unexpected(other.error());
    const double fall = rule.crossfall ? rule.crossfall->riseOverRun() * other->run : 0.0;
    return other->height + rule.amount + fall;
}

std::string RuleKind<OnLine>::text(const OnLine& rule, const RuleNames& names) {
    std::string out = "=" + nameText(names.nameOf(rule.line));
    if (rule.crossfall)
        return out + (!rule.typed.empty()
                          ? rule.typed
                          : signedText(std::round(rule.crossfall->percent() * 1e9) / 1e9) + "%");
    return rule.amount != 0 ? out + signedText(rule.amount) : out;
}

std::optional<Result<OnLine>> RuleKind<OnLine>::parse(const std::string& text, const RuleNames& names) {
    if (trimmed(text).substr(0, 1) != "=") return std::nullopt;
    const auto named = parseNamed(std::string(trimmed(text).substr(1)));
    if (!named) return Result<OnLine>(tl::unexpected(named.error()));
    const ObjectId id = names.lineNamed ? names.lineNamed(named->name) : ObjectId{};
    const bool falls = !named->amount.empty() && !parseNumber(named->amount);
    if (!id)
        return Result<OnLine>(
            fail(ErrorCode::NotFound,
                 std::string("there is no ") + (falls ? "3D line" : "surface or 3D line") + " named '" +
                     named->name + "'" +
                     (named->amount.empty() ? "" : "; a name that ends like an amount stands in quotes")));
    OnLine rule{id, 0, {}, {}};
    if (falls) {
        const auto entry = parseHeightEntry(named->amount);
        rule.crossfall = std::get<TypedGrade>(*entry).grade;
        rule.typed = named->amount;
    } else if (!named->amount.empty()) {
        rule.amount = *parseNumber(named->amount);
    }
    return Result<OnLine>(rule);
}

RuleFields RuleKind<OnLine>::write(const OnLine& rule) {
    RuleFields out{{{"amount", rule.amount}}, {}, {{"line", rule.line}}};
    if (rule.crossfall) out.figures["crossfall"] = rule.crossfall->riseOverRun();
    if (!rule.typed.empty()) out.words["typed"] = rule.typed;
    return out;
}

Result<OnLine> RuleKind<OnLine>::read(const RuleFields& fields) {
    const auto line = fields.object("line");
    const auto amount = fields.figure("amount");
    if (!line) return tl::unexpected(line.error());
    if (!amount) return tl::unexpected(amount.error());
    OnLine rule{*line, *amount, {}, fields.word("typed")};
    if (const auto crossfall = fields.figure("crossfall")) rule.crossfall = Grade::riseOverRun(*crossfall);
    return rule;
}

}  // namespace erdwerk::linework
