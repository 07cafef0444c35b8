// The line stays, the surface no longer follows it.

#include "app/kinds/current.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/operations/surfaces.h"

namespace erdwerk::app::tools {

ToolDeclaration takeOutLine() {
    PickSpec spec{.title = tr("Take out a line"),
                  .steps = {lineStep(tr("Pick the line to take out of the surface"))},
                  .apply = [](const Session& s, const Picks& k) {
                      return operations::removeSource(currentSurface(s), k[0].ref.object);
                  }};
    return {.id = QStringLiteral("breakline-remove"),
            .text = tr("Take out a line"),
            .help = tr("The line stays, the surface no longer follows it"),
            .icon = {"M3 18 L12 5 L21 18 Z", "M8 15 H16"},
            .key = QStringLiteral("T"),
            .whyNot = aSurface,
            .suits = isOneOf<objects::Line>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
