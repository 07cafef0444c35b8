// Ends the surface on a closed line.

#include "app/kinds/current.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/operations/surfaces.h"

namespace erdwerk::app::tools {

ToolDeclaration setEdge() {
    PickSpec spec{.title = tr("Set the edge"),
                  .steps = {lineStep(tr("Pick the closed line the surface ends on"))},
                  .apply =
                      [](const Session& s, const Picks& k) {
                          return operations::addRole(currentSurface(s), k[0].ref.object, objects::Role::Edge);
                      },
                  .repeats = false};
    return {.id = QStringLiteral("edge"),
            .text = tr("Set the edge"),
            .help = tr("Ends the surface on a closed line"),
            .icon = {"M9 10 L13 9 L15 14 L10 15 Z", "M4 6 L18 4 L20 17 L6 20 Z"},
            .key = QStringLiteral("E"),
            .whyNot = aSurface,
            .suits = isOneOf<objects::Line>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
