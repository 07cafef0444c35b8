// Turns the direction round; heights and grades stay.

#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/operations/lines.h"

namespace erdwerk::app::tools {

ToolDeclaration reverseLine() {
    PickSpec spec{
        .title = tr("Reverse a line"),
        .steps = {lineStep(tr("Pick the line whose direction is to be turned round"))},
        .apply = [](const Session&, const Picks& k) { return operations::reverseLine(k[0].ref.object); }};
    return {.id = QStringLiteral("reverse"),
            .text = tr("Reverse a line"),
            .help = tr("Turns the direction round; heights and grades stay"),
            .icon = {"M4 8 H20", "M16 4 L20 8 M20 16 H4 M8 12 L4 16 L8 20"},
            .key = QStringLiteral("R"),
            .whyNot = aLine,
            .suits = isOneOf<objects::Line>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
