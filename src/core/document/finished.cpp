#include "core/document/finished.h"

#include "core/objects/surface.h"

namespace erdwerk::document {

ObjectId finishedOf(const Document& document, ObjectId ground) {
    if (!ground) return {};
    for (const ObjectId id : document.all<objects::Surface>())
        if (document.get<objects::Surface>(id)->definition->base == ground) return id;
    return {};
}

}  // namespace erdwerk::document
