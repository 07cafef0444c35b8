// Deletes a corner or grade point.

#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/operations/lines.h"

namespace erdwerk::app::tools {

ToolDeclaration deleteCorner() {
    PickSpec spec{
        .title = tr("Delete a corner"),
        .steps = {{tr("Point"), tr("Pick the corner or grade point to delete"), Accept::VertexInHand}},
        .apply = [](const Session&, const Picks& k) {
            return operations::removeVertex(k[0].ref.object, *k[0].ref.part);
        }};
    return {.id = QStringLiteral("vertex-remove"),
            .text = tr("Delete a corner"),
            .help = tr("Deletes a corner or grade point"),
            .icon = {"M4 18 L12 7 L20 18", "M9.5 4.5 L14.5 9.5 M14.5 4.5 L9.5 9.5"},
            .key = QStringLiteral("E"),
            .whyNot = aLine,
            .suits = isOneOf<objects::Line>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
