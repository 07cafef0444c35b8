// Only the points inside a closed line take part.

#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/operations/ground.h"

namespace erdwerk::app::tools {

ToolDeclaration cropCloud() {
    PickSpec spec{.title = tr("Crop a cloud"),
                  .steps = {lineStep(tr("Pick the closed line inside which the cloud's points take part"))},
                  .apply =
                      [](const Session& s, const Picks& k) {
                          return operations::cropCloud(s.results(), currentCloud(s), k[0].ref.object);
                      },
                  .repeats = false,
                  .ghost = ghostLine};
    return {.id = QStringLiteral("cloud-crop"),
            .text = tr("Crop a cloud"),
            .help = tr("Only the points inside a closed line take part"),
            .icon = {"M7 3 V17 H21", "M3 7 H17 V21"},
            .key = QStringLiteral("O"),
            .whyNot = aCloud,
            .suits = isOneOf<objects::Cloud, objects::Line>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
