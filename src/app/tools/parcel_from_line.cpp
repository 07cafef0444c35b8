// Courses, area, closure and description of a closed line.

#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/operations/records.h"

namespace erdwerk::app::tools {

ToolDeclaration parcelFromLine() {
    PickSpec spec{
        .title = tr("Parcel from a line"),
        .steps = {lineStep(tr("Pick the closed line round the parcel"))},
        .apply = [](const Session&, const Picks& k) { return operations::makeParcel(k[0].ref.object); },
        .repeats = false};
    return {.id = QStringLiteral("parcel"),
            .text = tr("Parcel from a line"),
            .help = tr("Courses, area, closure and description of a closed line"),
            .icon = {"M5 8 L16 5 L20 17 L7 19 Z", "M5 8 H5.1 M3.5 6.5 H6.5 V9.5 H3.5 Z"},
            .key = QStringLiteral("P"),
            .whyNot = aLine,
            .suits = isOneOf<objects::Line>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
