// Takes a point out of the surface; its source keeps it.

#include "app/kinds/current.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "app/tools/surface_ghosts.h"
#include "core/objects/surface.h"
#include "core/operations/surfaces.h"
#include "core/terrain/own_edits.h"

namespace erdwerk::app::tools {

ToolDeclaration leaveOutSurfacePoint() {
    PickSpec spec{.title = tr("Leave out a surface point"),
                  .steps = {placeStep(tr("Point"),
                                      tr("Click near the surface point to leave out; its source keeps it"))},
                  .apply =
                      [](const Session& s, const Picks& k) {
                          return operations::ownEdit(
                              s.results(), currentSurface(s),
                              {{terrain::EditKind::RemovePoint, k[0].place, geometry::Vec3{}}, {}, true});
                      },
                  .ghost = ghostVertex};
    return {.id = QStringLiteral("surface-point-remove"),
            .text = tr("Leave out a surface point"),
            .help = tr("Takes a point out of the surface; its source keeps it"),
            .icon = {"M4 18 L12 7 L20 18 Z", "M9 14 H15"},
            .key = QStringLiteral("U"),
            .whyNot = aSurface,
            .suits = isOneOf<objects::Surface>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
