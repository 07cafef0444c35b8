// Takes one triangle out of the surface.

#include "app/kinds/current.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "app/tools/surface_ghosts.h"
#include "core/objects/surface.h"
#include "core/operations/surfaces.h"
#include "core/terrain/own_edits.h"

namespace erdwerk::app::tools {

ToolDeclaration removeTriangle() {
    PickSpec spec{.title = tr("Remove a triangle"),
                  .steps = {placeStep(tr("Triangle"), tr("Click inside the triangle to remove"))},
                  .apply =
                      [](const Session& s, const Picks& k) {
                          return operations::ownEdit(
                              s.results(), currentSurface(s),
                              {{terrain::EditKind::RemoveTriangle, k[0].place, geometry::Vec3{}}, {}, true});
                      },
                  .ghost = ghostTriangle};
    return {.id = QStringLiteral("triangle-remove"),
            .text = tr("Remove a triangle"),
            .help = tr("Takes one triangle out of the surface"),
            .icon = {"M4 18 L12 5 L20 18 Z", "M9 11 L15 16 M15 11 L9 16"},
            .key = QStringLiteral("R"),
            .whyNot = aSurface,
            .suits = isOneOf<objects::Surface>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
