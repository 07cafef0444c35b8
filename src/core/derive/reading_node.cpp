// Descriptions that are read back: their courses, and what they and a parcel do not agree on.

#include "core/derive/evaluation.h"
#include "core/derive/parcel_result.h"
#include "core/objects/reading.h"
#include "core/parcel/as_called.h"
#include "core/parcel/called_figure.h"
#include "core/parcel/compare_calls.h"
#include "core/parcel/read_back.h"

namespace erdwerk::derive {

void work(Evaluation& evaluation, ObjectId id, const Reading& reading) {
    const auto compared = reading.parcel ? evaluation.parcel(reading.parcel) : nullptr;
    const auto object = evaluation.document.find(id);
    const auto settings = evaluation.document.settingsPointer();
    evaluation.out.readings[id] =
        evaluation.remembered<ReadingResult>("reading", id, {object, compared, settings}, {}, [&] {
            ReadingResult out;
            auto read = parcel::readDescription(reading.text, reading.unit);
            if (!read) {
                out.problem = read.error().text;
                return out;
            }
            out.read = std::move(*read);
            const double factor = metresPer(out.read.unit) / metresPer(settings->display.unit);
            out.drawn = parcel::drawnCourses(out.read);
            out.shape = parcel::shapeOf(out.drawn);
            out.path = parcel::figureOf(out.drawn, reading.at, reading.north, factor);
            out.compared = compared != nullptr;
            out.differences =
                compared ? comparedWith(out.read, out.drawn,
                                        parcel::asCalled(compared->geometry, 1 / factor, reading.north))
                         : contradictions(out.read, out.drawn);
            return out;
        });
}

}  // namespace erdwerk::derive
