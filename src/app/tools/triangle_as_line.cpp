// A triangle as a closed 3D line.

#include "app/kinds/current.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "app/tools/surface_ghosts.h"
#include "core/operations/ground.h"

namespace erdwerk::app::tools {

ToolDeclaration triangleAsLine() {
    PickSpec spec{.title = tr("Triangle as a line"),
                  .steps = {placeStep(tr("Triangle"), tr("Click a triangle; it becomes a closed 3D line"))},
                  .apply =
                      [](const Session& s, const Picks& k) {
                          return operations::triangleAt(s.results(), currentSurface(s), k[0].place);
                      },
                  .ghost = ghostTriangle};
    return {.id = QStringLiteral("take-triangle"),
            .text = tr("Triangle as a line"),
            .help = tr("A triangle as a closed 3D line"),
            .icon = {"M5 18 L12 8 L19 18 Z", "M9 5 H15"},
            .key = QStringLiteral(""),
            .whyNot = aSurface,
            .suits = isOneOf<objects::Surface>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
