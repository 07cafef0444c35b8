// Puts a corner onto a line.

#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/operations/plan_shape.h"

namespace erdwerk::app::tools {

namespace {

/// "25" or "every 5" along the line in hand.
Result<Snap> everySoMuch(const Session& session, const QString& text) {
    const std::string hint = "type E, N, a distance, or every 5";
    if (text.contains(QLatin1Char(','))) return badInput(hint);
    return typedForLine(session, text, hint);
}

}  // namespace

ToolDeclaration insertCorner() {
    PickSpec spec{.title = tr("Insert a corner"),
                  .steps = {{tr("Place"), tr("Click on a line where the corner goes"), Accept::LinePlace}},
                  .apply =
                      [](const Session&, const Picks& k) {
                          return k[0].kind == SnapKind::Typed
                                     ? operations::insertTyped(k[0].ref.object, k[0].name.toStdString())
                                     : operations::insertCorner(linePlace(k[0]));
                      },
                  .entryHint = tr("E, N  ·  25  ·  every 5"),
                  .typed = everySoMuch};
    return {.id = QStringLiteral("corner-insert"),
            .text = tr("Insert a corner"),
            .help = tr("Puts a corner onto a line"),
            .icon = {"M4 18 L12 7 L20 18", "M10 5 H14 V9 H10 Z"},
            .key = QStringLiteral("I"),
            .whyNot = aLine,
            .suits = isOneOf<objects::Line>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
