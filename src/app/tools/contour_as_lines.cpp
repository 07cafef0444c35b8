// The contours of one height as 3D lines.

#include "app/kinds/current.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/operations/ground.h"

namespace erdwerk::app::tools {

ToolDeclaration contourAsLines() {
    PickSpec spec{.title = tr("Contour as lines"),
                  .steps = {placeStep(tr("At"), tr("Click a contour; it becomes 3D lines of its own"))},
                  .apply =
                      [](const Session& s, const Picks& k) {
                          return operations::contourAt(s.results(), currentSurface(s), k[0].place);
                      },
                  .ghost = noGhost};
    return {.id = QStringLiteral("take-contour"),
            .text = tr("Contour as lines"),
            .help = tr("The contours of one height as 3D lines"),
            .icon = {"M4 17 C6 10 18 10 20 17", "M7 8 H17"},
            .key = QStringLiteral(""),
            .whyNot = aSurface,
            .suits = isOneOf<objects::Surface>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
