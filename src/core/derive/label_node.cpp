// Labels: their texts and where they stand.

#include "core/derive/evaluation.h"

namespace erdwerk::derive {

void work(Evaluation& evaluation, ObjectId id, const Label& label) {
    const Document& document = evaluation.document;
    const auto* style = document.get<LabelStyle>(label.style);
    const auto target = document.find(label.target);
    if (style == nullptr || !target) return;
    const auto on = evaluation.line(label.target);
    const auto along = on ? nullptr : evaluation.alignment(label.target);
    const geometry::Path* path = on ? &on->path : (along ? &along->path : nullptr);
    const auto* points = document.get<Points>(label.target);
    if (path != nullptr ? label.part >= path->size()
                        : (points == nullptr || label.part >= points->set.size()))
        return;
    const Input anchor = on ? Input(on) : (along ? Input(along) : Input(target));
    evaluation.out.labels[id] = evaluation.remembered<annotate::LabelText>(
        "label", id, {document.find(id), anchor, document.find(label.style), document.settingsPointer()}, {},
        [&] {
            const DisplaySettings& display = document.settings().display;
            return path != nullptr ? annotate::labelSegment((*path)[label.part], style->style, display)
                                   : annotate::labelPoint(points->set[label.part], style->style, display);
        });
}

}  // namespace erdwerk::derive
