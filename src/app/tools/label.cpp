// Labels a side, a curve or a survey point; it follows the geometry.

#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/operations/records.h"

namespace erdwerk::app::tools {

ToolDeclaration label() {
    PickSpec spec{.title = tr("Label"),
                  .steps = {placeStep(tr("Of"), tr("Pick a side, a curve or a survey point to label"))},
                  .apply = [](const Session&, const Picks& k) {
                      return operations::makeLabel(k[0].ref.object, k[0].ref.part, k[0].segment);
                  }};
    return {.id = QStringLiteral("label"),
            .text = tr("Label"),
            .help = tr("Labels a side, a curve or a survey point; it follows the geometry"),
            .icon = {"M4 19 L20 19", "M7 14 L10 6 L13 14 M8.2 11 H11.8 M16 9 H19"},
            .key = QStringLiteral("L"),
            .whyNot = anOpenProject,
            .suits = isOneOf<objects::Line, objects::Points, objects::Parcel, objects::Alignment>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
