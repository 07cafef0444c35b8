// Puts a point into the surface itself.

#include "app/kinds/current.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "app/tools/surface_ghosts.h"
#include "core/objects/surface.h"
#include "core/operations/surfaces.h"
#include "core/terrain/own_edits.h"

namespace erdwerk::app::tools {

ToolDeclaration addSurfacePoint() {
    PickSpec spec{.title = tr("Add a surface point"),
                  .steps = {placeStep(tr("Place"), tr("Click where the point goes, or type E, N, height"))},
                  .apply =
                      [](const Session& s, const Picks& k) {
                          return operations::ownEdit(
                              s.results(), currentSurface(s),
                              {{terrain::EditKind::AddPoint, k[0].place, placeOf(s, k[0])}, {}, true});
                      },
                  .entryHint = QStringLiteral("48010.5, 91020.25, 320.4"),
                  .typed = typedPlace,
                  .ghost = ghostTriangle};
    return {.id = QStringLiteral("surface-point-add"),
            .text = tr("Add a surface point"),
            .help = tr("Puts a point into the surface itself"),
            .icon = {"M4 18 L12 7 L20 18 Z", "M12 11 V17 M9 14 H15"},
            .key = QStringLiteral("D"),
            .whyNot = aSurface,
            .suits = isOneOf<objects::Surface>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
