// A stretch of a line at the height of a contour.

#include "app/kinds/current.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/operations/shape.h"

namespace erdwerk::app::tools {

namespace {

std::optional<double> levelOf(const Session& session, const Picks& picks) {
    if (picks.size() > 2) return picks[2].height;
    return operations::contourHeightAt(session.derived(), currentSurface(session), picks[0].place);
}

QString askHeight(const Session& session, const Picks& picks) {
    const auto height = levelOf(session, picks);
    if (!height) return tr("There is no surface here: type the height of the stretch");
    return tr("Level at %1: Enter, or type another height")
        .arg(QString::fromStdString(formatHeight(height, session.document().settings().display)));
}

}  // namespace

ToolDeclaration levelWith() {
    PickSpec spec{.title = tr("Level with"),
                  .steps = {{tr("From"), tr("Click where the line meets the contour"), Accept::LinePlace},
                            {tr("To"), tr("Click where it meets it again"), Accept::LinePlace}},
                  .apply = [](const Session& s, const Picks& k) -> document::Edit {
                      const auto height = levelOf(s, k);
                      if (!height) return refusal("type the height of the stretch");
                      return operations::levelWith(s.results(), {linePlace(k[0]), linePlace(k[1])}, *height);
                  },
                  .asks = askHeight,
                  .answered = typedNumber,
                  .repeats = false};
    return {.id = QStringLiteral("level-with"),
            .text = tr("Level with"),
            .help = tr("A stretch of a line at one height, that of the contour it meets; the rest stays"),
            .icon = {"M3 18 C7 18 7 12 10 12 H15 C18 12 18 6 21 6", "M10 8 V16 M15 8 V16"},
            .key = QStringLiteral("Shift+L"),
            .whyNot = aLine,
            .suits = isOneOf<objects::Line>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
