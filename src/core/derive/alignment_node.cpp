// Alignments: the path and stations along it.

#include "core/derive/evaluation.h"

namespace erdwerk::derive {

std::shared_ptr<const route::AlignmentGeometry> Evaluation::alignment(ObjectId id) {
    if (const auto it = out.alignments.find(id); it != out.alignments.end()) return it->second;
    const auto* payload = document.get<Alignment>(id);
    const auto on = payload == nullptr ? nullptr : line(payload->line);
    if (!on) return nullptr;
    auto result = remembered<route::AlignmentGeometry>("alignment", id, {document.find(id), on}, {}, [&] {
        return route::alignmentOn(payload->reversed ? geometry::reversed(on->path) : on->path,
                                  payload->startStation);
    });
    out.alignments[id] = result;
    return result;
}

void work(Evaluation& evaluation, ObjectId id, const Alignment&) {
    evaluation.alignment(id);
}

}  // namespace erdwerk::derive
