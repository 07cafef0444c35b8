// Makes a line a breakline of the surface.

#include "app/kinds/current.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/operations/surfaces.h"

namespace erdwerk::app::tools {

ToolDeclaration addBreakline() {
    PickSpec spec{.title = tr("Add a breakline"),
                  .steps = {lineStep(tr("Pick the line that becomes a breakline of the surface"))},
                  .apply = [](const Session& s, const Picks& k) {
                      return operations::addRole(currentSurface(s), k[0].ref.object,
                                                 objects::Role::Breakline);
                  }};
    return {.id = QStringLiteral("breakline-add"),
            .text = tr("Add a breakline"),
            .help = tr("Makes a line a breakline of the surface"),
            .icon = {"M3 18 L12 5 L21 18 Z", "M7 17 L13 9"},
            .key = QStringLiteral("B"),
            .whyNot = aSurface,
            .suits = isOneOf<objects::Line>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
