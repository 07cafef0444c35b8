// Moves the whole surface up or down.

#include "app/kinds/current.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/objects/surface.h"
#include "core/operations/surfaces.h"
#include "core/terrain/own_edits.h"

namespace erdwerk::app::tools {

ToolDeclaration liftSurface() {
    PickSpec spec{
        .title = tr("Lift"),
        .steps = {typedStep(tr("By"), tr("Type how much to lift the whole surface; a minus lowers it"))},
        .apply =
            [](const Session& s, const Picks& k) {
                return operations::ownEdit(
                    s.results(), currentSurface(s),
                    {{terrain::EditKind::Raise, geometry::Vec2{}, {0, 0, *k[0].height}}, {}, true});
            },
        .repeats = false,
        .entryHint = QStringLiteral("-0.30"),
        .typed = typedNumber};
    return {.id = QStringLiteral("surface-raise"),
            .text = tr("Lift"),
            .help = tr("Moves the whole surface up or down"),
            .icon = {"M3 19 L9 15 L15 18 L21 14", "M12 12 V4 M9 7 L12 4 L15 7"},
            .key = QStringLiteral("W"),
            .whyNot = aSurface,
            .suits = isOneOf<objects::Surface>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
