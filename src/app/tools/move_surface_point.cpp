// Moves a point of the surface itself.

#include "app/kinds/current.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "app/tools/surface_ghosts.h"
#include "core/objects/surface.h"
#include "core/operations/surfaces.h"
#include "core/terrain/own_edits.h"

namespace erdwerk::app::tools {

ToolDeclaration moveSurfacePoint() {
    PickSpec spec{.title = tr("Move a surface point"),
                  .steps = {placeStep(tr("Point"), tr("Click near the surface point to move")),
                            placeStep(tr("To"), tr("Click where it goes, or type E, N, height"))},
                  .apply =
                      [](const Session& s, const Picks& k) {
                          return operations::ownEdit(
                              s.results(), currentSurface(s),
                              {{terrain::EditKind::MovePoint, k[0].place, placeOf(s, k[1])}, {}, true});
                      },
                  .entryHint = QStringLiteral("48010.5, 91020.25, 320.4"),
                  .typed = typedPlace,
                  .ghost = ghostVertex};
    return {.id = QStringLiteral("surface-point-move"),
            .text = tr("Move a surface point"),
            .help = tr("Moves a point of the surface itself"),
            .icon = {"M4 18 L10 8 L20 18 Z", "M10 8 L18 6 M18 6 L15 4.5 M18 6 L15.5 8.5"},
            .key = QStringLiteral("M"),
            .whyNot = aSurface,
            .suits = isOneOf<objects::Surface>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
