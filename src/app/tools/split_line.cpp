// Cuts a line in two.

#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/operations/lines.h"

namespace erdwerk::app::tools {

ToolDeclaration splitLine() {
    PickSpec spec{.title = tr("Split a line"),
                  .steps = {{tr("Cut at"), tr("Click on the line where it is to be cut"), Accept::LinePlace}},
                  .apply = [](const Session& s, const Picks& k) {
                      return operations::splitLine(s.results(), linePlace(k[0]));
                  }};
    return {.id = QStringLiteral("split"),
            .text = tr("Split a line"),
            .help = tr("Cuts a line in two"),
            .icon = {"M3 17 L10 12 M14 10 L21 5", "M12 5 V17"},
            .key = QStringLiteral("S"),
            .whyNot = aLine,
            .suits = isOneOf<objects::Line>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
