#include "core/operations/markings.h"

#include "core/base/notation.h"
#include "core/objects/alignment.h"
#include "core/objects/marking.h"

namespace erdwerk::operations {

Edit saveMarking(const std::string& name, const route::MarkingSettings& marking, ObjectId alignment) {
    return [=](const Document& d) -> Result<Edited> {
        const std::string by(trimmed(name));
        if (by.empty()) return badInput("type a name for the marking");
        if (auto valid = route::validate(marking); !valid) return tl::unexpected(valid.error());
        ObjectId id = d.byName<objects::Marking>(by);
        Document out =
            id ? d.withPayload(id, objects::Marking{marking}) : d.added(by, objects::Marking{marking}, &id);
        if (out.get<objects::Alignment>(alignment) != nullptr)
            out = document::changed<objects::Alignment>(out, alignment,
                                                        [&](objects::Alignment& a) { a.marking = id; });
        return out;
    };
}

Edit changeOwnMarking(ObjectId marking, std::function<Result<void>(route::MarkingSettings&)> change) {
    return [marking, change = std::move(change)](const Document& d) -> Result<Edited> {
        const auto* own = d.get<objects::Marking>(marking);
        if (own == nullptr) return badInput("the marking is gone");
        route::MarkingSettings next = own->marking;
        if (auto done = change(next); !done) return tl::unexpected(done.error());
        if (auto valid = route::validate(next); !valid) return tl::unexpected(valid.error());
        return d.withPayload(marking, objects::Marking{next});
    };
}

Edit changeMarking(ObjectId alignment, std::function<Result<void>(route::MarkingSettings&)> change) {
    return [alignment, change = std::move(change)](const Document& d) -> Result<Edited> {
        const auto* a = d.get<objects::Alignment>(alignment);
        if (a == nullptr) return badInput("the alignment is gone");
        if (d.get<objects::Marking>(a->marking) != nullptr) return changeOwnMarking(a->marking, change)(d);
        route::MarkingSettings next = markingOf(d, *a);
        if (auto done = change(next); !done) return tl::unexpected(done.error());
        const auto name = document::freshName<objects::Marking>(d, "Marking of " + d.nameOf(alignment));
        return saveMarking(name, next, alignment)(d);
    };
}

route::MarkingSettings markingOf(const document::Document& document, const objects::Alignment& alignment) {
    if (const auto* own = document.get<objects::Marking>(alignment.marking)) return own->marking;
    route::MarkingSettings out = route::defaultMarking(document.settings().display.unit);
    out.small = alignment.tickInterval;
    out.large = 5 * alignment.tickInterval;
    return out;
}

}  // namespace erdwerk::operations
