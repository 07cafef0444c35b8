#include "core/linework/rules/on_surface.h"

#include "core/base/notation.h"

namespace erdwerk::linework {

std::string RuleKind<OnSurface>::text(const OnSurface& rule, const RuleNames& names) {
    return "=" + names.nameOf(rule.surface) + (rule.amount != 0 ? signedText(rule.amount) : std::string());
}

std::optional<Result<OnSurface>> RuleKind<OnSurface>::parse(const std::string& text, const RuleNames& names) {
    const auto entry = parseHeightEntry(text);
    const auto* typed = entry ? std::get_if<TypedSurface>(&*entry) : nullptr;
    if (typed == nullptr) return std::nullopt;
    const ObjectId id = names.surfaceNamed(typed->surface);
    if (!id)
        return Result<OnSurface>(
            fail(ErrorCode::NotFound, "there is no surface named '" + typed->surface + "'"));
    return Result<OnSurface>(OnSurface{id, typed->amount});
}

Result<OnSurface> RuleKind<OnSurface>::read(const RuleFields& fields) {
    const auto surface = fields.object("surface");
    const auto amount = fields.figure("amount");
    if (!surface) return tl::unexpected(surface.error());
    if (!amount) return tl::unexpected(amount.error());
    return OnSurface{*surface, *amount};
}

}  // namespace erdwerk::linework
