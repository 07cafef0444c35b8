// Parcels: courses, area, closure, description.

#include "core/derive/evaluation.h"

namespace erdwerk::derive {

void work(Evaluation& evaluation, ObjectId id, const Parcel& of) {
    const Document& document = evaluation.document;
    const auto on = evaluation.line(of.line);
    if (!on) return;
    const auto object = document.find(id);
    evaluation.out.parcels[id] =
        evaluation.remembered<ParcelResult>("parcel", id, {object, on, document.settingsPointer()}, {}, [&] {
            ParcelResult result;
            result.geometry = parcel::survey(of.reversed ? geometry::reversed(on->path) : on->path, of.begin);
            const DisplaySettings& display = document.settings().display;
            result.description = parcel::describe(result.geometry, {object->name, of.beginning, display});
            result.table = parcel::courseTable(result.geometry, display);
            return result;
        });
}

}  // namespace erdwerk::derive
