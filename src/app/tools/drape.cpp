// Lays a line on the surface, with a grade point at each triangle edge.

#include "app/kinds/current.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/operations/lines.h"

namespace erdwerk::app::tools {

ToolDeclaration drape() {
    PickSpec spec{.title = tr("Drape a line"),
                  .steps = {lineStep(tr("Pick the line to lay on the surface"))},
                  .apply = [](const Session& s, const Picks& k) {
                      return operations::drapeLine(s.results(), currentSurface(s), k[0].ref.object);
                  }};
    return {.id = QStringLiteral("drape"),
            .text = tr("Drape a line"),
            .help = tr("Lays a line on the surface, with a grade point at each triangle edge"),
            .icon = {"M3 16 C8 8 11 20 21 11", "M4 5 L20 5 M8 5 V9 M15 5 V10"},
            .key = QStringLiteral("P"),
            .whyNot = aSurfaceAndALine,
            .suits = isOneOf<objects::Line>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
