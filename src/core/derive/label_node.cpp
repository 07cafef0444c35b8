// Labels: their texts and where they stand.

#include "core/derive/evaluation.h"

namespace erdwerk::derive {

void work(Evaluation& evaluation, ObjectId id, const Label& label) {
    const Document& document = evaluation.document;
    const auto* style = document.get<LabelStyle>(label.style);
    const auto target = document.find(label.target);
    if (style == nullptr || !target) return;
    const auto on = evaluation.line(label.target);
    const auto* points = document.get<Points>(label.target);
    if (on ? label.part >= on->path.size() : (points == nullptr || label.part >= points->set.size())) return;
    const Input anchor = on ? Input(on) : Input(target);
    evaluation.out.labels[id] = evaluation.remembered<annotate::LabelText>(
        "label", id, {document.find(id), anchor, document.find(label.style), document.settingsPointer()}, {},
        [&] {
            const DisplaySettings& display = document.settings().display;
            return on ? annotate::labelSegment(on->path[label.part], style->style, display)
                      : annotate::labelPoint(points->set[label.part], style->style, display);
        });
}

}  // namespace erdwerk::derive
