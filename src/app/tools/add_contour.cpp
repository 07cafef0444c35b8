// Makes a line of one height a source of the surface.

#include "app/kinds/current.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/operations/surfaces.h"

namespace erdwerk::app::tools {

ToolDeclaration addContour() {
    PickSpec spec{.title = tr("Add a contour"),
                  .steps = {lineStep(tr("Pick the line that lies on one height"))},
                  .apply = [](const Session& s, const Picks& k) {
                      return operations::addRole(currentSurface(s), k[0].ref.object, objects::Role::Contour);
                  }};
    return {.id = QStringLiteral("contour-add"),
            .text = tr("Add a contour"),
            .help = tr("Makes a line of one height a source of the surface"),
            .icon = {"M4 16 C6 8 18 8 20 16", "M8 17 C9 13 15 13 16 17"},
            .key = QStringLiteral("A"),
            .whyNot = aSurface,
            .suits = isOneOf<objects::Line>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
