// Gives a line of straights and arcs its stationing.

#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/operations/records.h"

namespace erdwerk::app::tools {

ToolDeclaration alignmentFromLine() {
    PickSpec spec{
        .title = tr("Alignment from a line"),
        .steps = {lineStep(tr("Pick the line of straights and arcs; the arrows show its direction"))},
        .apply = [](const Session&, const Picks& k) { return operations::makeAlignment(k[0].ref.object); },
        .repeats = false};
    return {.id = QStringLiteral("alignment"),
            .text = tr("Alignment from a line"),
            .help = tr("Gives a line of straights and arcs its stationing"),
            .icon = {"M4 20 L9 13 C11 9 15 9 17 7 L20 4", "M8 10 L12 13 M14 6 L17 10"},
            .key = QStringLiteral("A"),
            .whyNot = aLine,
            .suits = isOneOf<objects::Line>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
