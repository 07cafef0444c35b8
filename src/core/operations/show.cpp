#include "core/operations/show.h"

namespace erdwerk::operations {

using document::Document;
using document::Edited;

namespace {

document::Edit ofShown(std::function<void(document::Shown&)> change) {
    return [change = std::move(change)](const Document& d) -> Result<Edited> {
        document::Shown next = d.shown();
        change(next);
        return next == d.shown() ? d : d.withShown(std::move(next));
    };
}

void put(objects::PlanPartsOff& off, objects::PlanPart part, bool shown) {
    if (shown)
        off.erase(part);
    else
        off.insert(part);
}

}  // namespace

document::Edit setShown(std::vector<ObjectId> objects, bool shown) {
    return ofShown([objects = std::move(objects), shown](document::Shown& s) {
        for (const ObjectId id : objects) {
            if (shown)
                s.hidden.erase(id);
            else
                s.hidden.insert(id);
        }
    });
}

document::Edit setPlanPart(objects::PlanPart part, bool shown) {
    return ofShown([=](document::Shown& s) { put(s.off, part, shown); });
}

}  // namespace erdwerk::operations
