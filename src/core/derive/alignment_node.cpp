// Alignments: the path and stations along it.

#include "core/derive/evaluation.h"

namespace erdwerk::derive {

namespace {

/// Of its own; empty where the PIs give none.
geometry::Path ownPath(const Alignment& alignment) {
    if (alignment.pis.empty()) return alignment.elements;
    auto path = route::pathOf(alignment.pis);
    return path ? std::move(*path) : geometry::Path{};
}

}  // namespace

std::shared_ptr<const route::AlignmentGeometry> Evaluation::alignment(ObjectId id) {
    if (const auto it = out.alignments.find(id); it != out.alignments.end()) return it->second;
    const auto* payload = document.get<Alignment>(id);
    if (payload == nullptr) return nullptr;
    std::vector<Input> inputs{document.find(id)};
    std::shared_ptr<const linework::ResolvedLine> on;
    if (payload->line) {
        on = line(payload->line);
        if (!on) return nullptr;
        inputs.push_back(on);
    }
    auto result = remembered<route::AlignmentGeometry>("alignment", id, std::move(inputs), {}, [&] {
        geometry::Path path = on ? on->path : ownPath(*payload);
        auto stationing = route::Stationing::withEquations(payload->startStation, payload->equations);
        return route::alignmentOn(payload->reversed ? geometry::reversed(path) : std::move(path),
                                  stationing ? *stationing : route::Stationing(payload->startStation));
    });
    out.alignments[id] = result;
    return result;
}

void work(Evaluation& evaluation, ObjectId id, const Alignment&) {
    evaluation.alignment(id);
}

}  // namespace erdwerk::derive
