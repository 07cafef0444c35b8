#include "app/base/selection.h"

#include <algorithm>

#include "core/document/document.h"
#include "core/document/edit_trace.h"

namespace erdwerk::app {

std::optional<Ref> refAfter(const Ref& ref, const document::EditTrace& trace,
                            const document::Document& after) {
    if (!ref.part) {
        const auto object = trace.object(ref.object);
        return object && after.find(*object) ? std::optional(Ref{*object, {}}) : std::nullopt;
    }
    const auto part = trace.vertex({ref.object, *ref.part});
    if (!part || !after.find(part->object)) return std::nullopt;
    return Ref{part->object, part->index};
}

bool Selection::holds(ObjectId id) const {
    return std::any_of(refs_.begin(), refs_.end(), [&](const Ref& r) { return r.object == id; });
}

void Selection::set(std::vector<Ref> refs) {
    if (refs == refs_) return;
    refs_ = std::move(refs);
    Q_EMIT changed();
}

void Selection::carry(const document::EditTrace& trace, const document::Document& after) {
    std::vector<Ref> now;
    for (const Ref& r : refs_)
        if (const auto next = refAfter(r, trace, after);
            next && std::find(now.begin(), now.end(), *next) == now.end())
            now.push_back(*next);
    set(std::move(now));
}

void Selection::setHover(const std::optional<Hover>& hover) {
    hover_ = hover;
    Q_EMIT hoverChanged();
}

void Selection::clear() {
    hover_.reset();
    set({});
}

}  // namespace erdwerk::app

#include "moc_selection.cpp"
