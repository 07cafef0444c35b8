#include "core/linework/rules/crossing_line.h"

#include "core/base/display.h"
#include "core/base/notation.h"

namespace erdwerk::linework {

Result<double> RuleKind<CrossingLine>::solve(const CrossingLine& rule, Asking& ask) {
    auto height = ask.crossed();
    if (height) *height += rule.amount;
    return height;
}

std::string RuleKind<CrossingLine>::text(const CrossingLine& rule, const RuleNames& names) {
    return "x " + nameText(names.nameOf(rule.line)) +
           (rule.amount != 0 ? signedText(rule.amount) : std::string());
}

std::optional<Result<CrossingLine>> RuleKind<CrossingLine>::parse(const std::string& text,
                                                                  const RuleNames& names) {
    const std::string_view word = trimmed(text);
    if (word.size() < 2 || (word[0] != 'x' && word[0] != 'X') || word[1] != ' ') return std::nullopt;
    const auto named = parseNamed(std::string(word.substr(2)));
    if (!named) return Result<CrossingLine>(tl::unexpected(named.error()));
    const auto amount = named->amount.empty() ? 0.0 : parseNumber(named->amount);
    if (!amount)
        return Result<CrossingLine>(
            badInput("where a line is crossed only an amount can be added, like x Ditch 3+0.10"));
    const ObjectId id = names.lineNamed ? names.lineNamed(named->name) : ObjectId{};
    if (!id)
        return Result<CrossingLine>(
            fail(ErrorCode::NotFound, "there is no 3D line named '" + named->name + "'"));
    return Result<CrossingLine>(CrossingLine{id, *amount, false});
}

RuleFields RuleKind<CrossingLine>::write(const CrossingLine& rule) {
    RuleFields out{{{"amount", rule.amount}}, {}, {{"line", rule.line}}};
    if (rule.nearestHere) out.words["nearest"] = "here";
    return out;
}

Result<CrossingLine> RuleKind<CrossingLine>::read(const RuleFields& fields) {
    const auto line = fields.object("line");
    const auto amount = fields.figure("amount");
    if (!line) return tl::unexpected(line.error());
    if (!amount) return tl::unexpected(amount.error());
    return CrossingLine{*line, *amount, fields.word("nearest") == "here"};
}

}  // namespace erdwerk::linework
