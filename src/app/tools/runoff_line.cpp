// The way that water takes over the surface from a place.

#include "app/kinds/current.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "app/tools/surface_ghosts.h"
#include "core/operations/ground.h"

namespace erdwerk::app::tools {

ToolDeclaration runoffLine() {
    PickSpec spec{
        .title = tr("Runoff line"),
        .steps = {placeStep(tr("From"), tr("Click where the water falls; its way is kept as a line"))},
        .apply =
            [](const Session& s, const Picks& k) {
                return operations::runoffLine(s.results(), currentSurface(s), k[0].place);
            },
        .typed = typedPlace,
        .ghost = ghostRunoff};
    return {.id = QStringLiteral("drop"),
            .text = tr("Runoff line"),
            .help = tr("The way that water takes over the surface from a place"),
            .icon = {"M4 19 C9 19 9 14 13 14 C17 14 17 18 21 18", "M12 3 C15 7 15 10 12 10 C9 10 9 7 12 3"},
            .key = QStringLiteral("P"),
            .whyNot = aSurface,
            .suits = isOneOf<objects::Surface>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
