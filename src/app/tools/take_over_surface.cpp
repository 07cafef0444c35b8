// Another surface inside its edge, this one outside it.

#include "app/kinds/current.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/objects/surface.h"
#include "core/operations/surfaces.h"
#include "core/terrain/own_edits.h"

namespace erdwerk::app::tools {

namespace {

document::Edit takeOver(const Session& s, const Picks& k) {
    const ObjectId other = s.document().byName<objects::Surface>(k[0].name.toStdString());
    if (!other) return refusal("there is no surface of that name");
    return operations::ownEdit(s.results(), currentSurface(s),
                               {{terrain::EditKind::TakeOver, {}, {}}, other, true});
}

}  // namespace

ToolDeclaration takeOverSurface() {
    PickSpec spec{
        .title = tr("Take over a surface"),
        .steps = {typedStep(tr("Surface"), tr("Type the name of the surface to take over inside its edge"))},
        .apply = takeOver,
        .repeats = false,
        .entryHint = tr("name of a surface"),
        .typed = typedName};
    return {.id = QStringLiteral("surface-take-over"),
            .text = tr("Take over a surface"),
            .help = tr("Another surface inside its edge, this one outside it"),
            .icon = {"M3 19 L9 13 L15 17 L21 12", "M9 10 L12 6 L16 9"},
            .key = QStringLiteral("K"),
            .whyNot = aSurface,
            .suits = isOneOf<objects::Surface>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
