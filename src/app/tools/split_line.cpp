// Cuts a line in two, or wherever others cross it.

#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/operations/plan_shape.h"

namespace erdwerk::app::tools {

namespace {

Result<Snap> crossings(const Session& session, const QString& text) {
    if (text.trimmed().toLower() != tr("crossings")) return badInput("type E, N, a distance, or crossings");
    return typedForLine(session, text, "select the line first that is cut at its crossings");
}

}  // namespace

ToolDeclaration splitLine() {
    PickSpec spec{.title = tr("Split a line"),
                  .steps = {{tr("Cut at"), tr("Click on the line where it is to be cut"), Accept::LinePlace}},
                  .apply =
                      [](const Session& s, const Picks& k) {
                          return k[0].kind == SnapKind::Typed
                                     ? operations::splitAtCrossings(s.results(), k[0].ref.object)
                                     : operations::splitLine(s.results(), linePlace(k[0]));
                      },
                  .entryHint = tr("E, N  ·  25  ·  crossings"),
                  .typed = crossings};
    return {.id = QStringLiteral("split"),
            .text = tr("Split a line"),
            .help = tr("Cuts a line in two, or at all its crossings"),
            .icon = {"M3 17 L10 12 M14 10 L21 5", "M12 5 V17"},
            .key = QStringLiteral("S"),
            .whyNot = aLine,
            .suits = isOneOf<objects::Line>,
            .make = picking(std::move(spec))};
}

ToolDeclaration cutStretchOut() {
    PickSpec spec{.title = tr("Cut a stretch out"),
                  .steps = {{tr("From"), tr("Click on the line where the stretch begins"), Accept::LinePlace},
                            {tr("To"), tr("Click on the line where it ends"), Accept::LinePlace}},
                  .apply =
                      [](const Session& s, const Picks& k) {
                          return operations::cutStretchOut(s.results(), linePlace(k[0]), linePlace(k[1]));
                      },
                  .repeats = false,
                  .entryHint = tr("E, N  ·  25")};
    return {.id = QStringLiteral("cut-out"),
            .text = tr("Cut a stretch out"),
            .help = tr("Takes out what lies between two places of a line"),
            .icon = {"M3 17 L8 14 M16 9 L21 6", "M8 10 V18 M16 5 V13"},
            .key = QStringLiteral("U"),
            .whyNot = aLine,
            .suits = isOneOf<objects::Line>,
            .make = picking(std::move(spec))};
}

ToolDeclaration reachLine() {
    PickSpec spec{
        .title = tr("Trim or extend"),
        .steps = {{tr("Line"), tr("Click on the part of a line that stays, or near the end that goes on"),
                   Accept::LinePlace},
                  {tr("To"), tr("Pick the line or alignment to go to"), Accept::LineOrAlignment}},
        .apply = [](const Session& s, const Picks& k) {
            return operations::reachLine(s.results(), linePlace(k[0]), k[1].ref.object);
        }};
    return {.id = QStringLiteral("reach"),
            .text = tr("Trim or extend"),
            .help = tr("Trims a line where another crosses it, or takes it on to it with its last grade"),
            .icon = {"M17 3 V21", "M3 12 H11 M13.5 9 L17 12 L13.5 15"},
            .key = QStringLiteral("X"),
            .whyNot = aLine,
            .suits = isOneOf<objects::Line>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
