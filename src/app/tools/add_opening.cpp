// No surface inside a closed line.

#include "app/kinds/current.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/operations/surfaces.h"

namespace erdwerk::app::tools {

ToolDeclaration addOpening() {
    PickSpec spec{.title = tr("Add an opening"),
                  .steps = {lineStep(tr("Pick the closed line inside which there is no surface"))},
                  .apply = [](const Session& s, const Picks& k) {
                      return operations::addRole(currentSurface(s), k[0].ref.object, objects::Role::Opening);
                  }};
    return {.id = QStringLiteral("opening"),
            .text = tr("Add an opening"),
            .help = tr("No surface inside a closed line"),
            .icon = {"M4 5 H20 V19 H4 Z", "M9 9 L15 9 L15 15 L9 15 Z"},
            .key = QStringLiteral("O"),
            .whyNot = aSurface,
            .suits = isOneOf<objects::Line>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
