// Puts a height control between corners.

#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/operations/lines.h"

namespace erdwerk::app::tools {

ToolDeclaration insertGradePoint() {
    PickSpec spec{
        .title = tr("Insert a grade point"),
        .steps = {{tr("Place"), tr("Click on a line where the grade point goes"), Accept::LinePlace}},
        .apply = [](const Session&, const Picks& k) {
            return operations::insertGradePoint(linePlace(k[0]));
        }};
    return {.id = QStringLiteral("grade-insert"),
            .text = tr("Insert a grade point"),
            .help = tr("Puts a height control between corners"),
            .icon = {"M4 16 L20 8", "M10.5 8.5 L13.5 15.5"},
            .key = QStringLiteral("G"),
            .whyNot = aLine,
            .suits = isOneOf<objects::Line>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
