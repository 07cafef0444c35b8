// Joins the end of a line to its start.

#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/operations/lines.h"

namespace erdwerk::app::tools {

ToolDeclaration closeLine() {
    PickSpec spec{
        .title = tr("Close a line"),
        .steps = {lineStep(tr("Pick the open line to close"))},
        .apply = [](const Session&, const Picks& k) { return operations::closeLine(k[0].ref.object); }};
    return {.id = QStringLiteral("close-line"),
            .text = tr("Close a line"),
            .help = tr("Joins the end of a line to its start"),
            .icon = {"M5 16 L9 6 L19 9", "M19 9 L16 18 L5 16"},
            .key = QStringLiteral("C"),
            .whyNot = aLine,
            .suits = isOneOf<objects::Line>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
