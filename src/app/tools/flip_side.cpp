// Takes the other diagonal of two triangles.

#include "app/kinds/current.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "app/tools/surface_ghosts.h"
#include "core/objects/surface.h"
#include "core/operations/surfaces.h"
#include "core/terrain/own_edits.h"

namespace erdwerk::app::tools {

ToolDeclaration flipSide() {
    PickSpec spec{.title = tr("Flip a side"),
                  .steps = {placeStep(tr("Side"), tr("Click near the side that two triangles share"))},
                  .apply =
                      [](const Session& s, const Picks& k) {
                          return operations::ownEdit(
                              s.results(), currentSurface(s),
                              {{terrain::EditKind::FlipSide, k[0].place, geometry::Vec3{}}, {}, true});
                      },
                  .ghost = ghostFlip};
    return {.id = QStringLiteral("flip-side"),
            .text = tr("Flip a side"),
            .help = tr("Takes the other diagonal of two triangles"),
            .icon = {"M12 4 L20 12 L12 20 L4 12 Z", "M4 12 H20 M12 8 L12 16"},
            .key = QStringLiteral("L"),
            .whyNot = aSurface,
            .suits = isOneOf<objects::Surface>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
