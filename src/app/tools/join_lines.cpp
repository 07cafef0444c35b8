// Makes two lines one, at their nearest ends.

#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/operations/lines.h"

namespace erdwerk::app::tools {

ToolDeclaration joinLines() {
    PickSpec spec{.title = tr("Join lines"),
                  .steps = {lineStep(tr("Pick the line that keeps its name")),
                            {tr("Joined on"), tr("Pick the line to join to it"), Accept::Line}},
                  .apply = [](const Session&, const Picks& k) {
                      return operations::joinLines(k[0].ref.object, k[1].ref.object);
                  }};
    return {.id = QStringLiteral("join"),
            .text = tr("Join lines"),
            .help = tr("Makes two lines one, at their nearest ends"),
            .icon = {"M3 18 L10 13 M14 11 L21 6", "M10 13 L14 11"},
            .key = QStringLiteral("J"),
            .whyNot = aLine,
            .suits = isOneOf<objects::Line>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
