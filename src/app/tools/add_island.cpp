// Surface again inside an opening.

#include "app/kinds/current.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/operations/surfaces.h"

namespace erdwerk::app::tools {

ToolDeclaration addIsland() {
    PickSpec spec{
        .title = tr("Add an island"),
        .steps = {lineStep(tr("Pick the closed line, in an opening, inside which there is surface again"))},
        .apply = [](const Session& s, const Picks& k) {
            return operations::addRole(currentSurface(s), k[0].ref.object, objects::Role::Island);
        }};
    return {.id = QStringLiteral("island"),
            .text = tr("Add an island"),
            .help = tr("Surface again inside an opening"),
            .icon = {"M4 5 H20 V19 H4 Z M7 8 H17 V16 H7 Z", "M10 11 L14 11 L14 13.5 L10 13.5 Z"},
            .key = QStringLiteral("I"),
            .whyNot = aSurface,
            .suits = isOneOf<objects::Line>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
