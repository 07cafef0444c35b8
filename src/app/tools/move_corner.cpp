// Moves a corner to a clicked or typed place.

#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/operations/lines.h"

namespace erdwerk::app::tools {

ToolDeclaration moveCorner() {
    PickSpec spec{.title = tr("Move a corner"),
                  .steps = {{tr("Corner"), tr("Pick the corner to move"), Accept::Vertex},
                            placeStep(tr("To"), tr("Click where it goes, or type E, N"))},
                  .apply =
                      [](const Session&, const Picks& k) {
                          // What is clicked offers its height; a typed place may have one.
                          const bool offers = k[1].kind != SnapKind::Surface || k[1].kind == SnapKind::Typed;
                          return operations::moveVertexTo(k[0].ref.object, *k[0].ref.part, k[1].place,
                                                          offers ? k[1].height : std::nullopt);
                      },
                  .entryHint = QStringLiteral("48010.5, 91020.25"),
                  .typed = typedPlace};
    return {.id = QStringLiteral("move-vertex"),
            .text = tr("Move a corner"),
            .help = tr("Moves a corner to a clicked or typed place"),
            .icon = {"M4 18 L10 9 L20 18", "M12 3 V9 M9 6 H15"},
            .key = QStringLiteral("M"),
            .whyNot = aLine,
            .suits = isOneOf<objects::Line>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
