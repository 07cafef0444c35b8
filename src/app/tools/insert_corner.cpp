// Puts a corner onto a line.

#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/operations/lines.h"

namespace erdwerk::app::tools {

ToolDeclaration insertCorner() {
    PickSpec spec{
        .title = tr("Insert a corner"),
        .steps = {{tr("Place"), tr("Click on a line where the corner goes"), Accept::LinePlace}},
        .apply = [](const Session&, const Picks& k) { return operations::insertCorner(linePlace(k[0])); }};
    return {.id = QStringLiteral("corner-insert"),
            .text = tr("Insert a corner"),
            .help = tr("Puts a corner onto a line"),
            .icon = {"M4 18 L12 7 L20 18", "M10 5 H14 V9 H10 Z"},
            .key = QStringLiteral("I"),
            .whyNot = aLine,
            .suits = isOneOf<objects::Line>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
