#include "core/linework/rules/on_surface.h"

#include "core/base/notation.h"

namespace erdwerk::linework {

std::string RuleKind<OnSurface>::text(const OnSurface& rule, const RuleNames& names) {
    return "=" + nameText(names.nameOf(rule.surface)) +
           (rule.amount != 0 ? signedText(rule.amount) : std::string());
}

std::optional<Result<OnSurface>> RuleKind<OnSurface>::parse(const std::string& text, const RuleNames& names) {
    if (trimmed(text).substr(0, 1) != "=") return std::nullopt;
    const auto named = parseNamed(std::string(trimmed(text).substr(1)));
    if (!named) return Result<OnSurface>(tl::unexpected(named.error()));
    const auto amount = named->amount.empty() ? 0.0 : parseNumber(named->amount);
    if (!amount) return std::nullopt;  // a crossfall: only from a line
    if (const ObjectId id = names.surfaceNamed(named->name)) return Result<OnSurface>(OnSurface{id, *amount});
    return std::nullopt;
}

Result<OnSurface> RuleKind<OnSurface>::read(const RuleFields& fields) {
    const auto surface = fields.object("surface");
    const auto amount = fields.figure("amount");
    if (!surface) return tl::unexpected(surface.error());
    if (!amount) return tl::unexpected(amount.error());
    return OnSurface{*surface, *amount};
}

}  // namespace erdwerk::linework
