// A parcel of the figure that lines make round a place.

#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/operations/parcel_split.h"

namespace erdwerk::app::tools {

namespace {

void figureGhost(QPainter& painter, const ViewTransform& view, const Session& session, const Picks& picks) {
    if (picks.empty()) return;
    const auto figure = operations::figureRound(session.derived(), picks.back().place);
    if (!figure) return;
    const double area = std::abs(geometry::signedArea(*figure));
    paintGhostPath(painter, view, *figure,
                   QString::fromStdString(formatArea(area, session.document().settings().display)));
}

}  // namespace

ToolDeclaration parcelInside() {
    PickSpec spec{
        .title = tr("Parcel round a place"),
        .steps = {placeStep(tr("Inside"), tr("Click inside the figure that lines make"))},
        .apply = [](const Session& session,
                    const Picks& k) { return operations::parcelRound(session.results(), k[0].place); },
        .repeats = true,
        .ghost = figureGhost};
    return {.id = QStringLiteral("parcel-inside"),
            .text = tr("Parcel round a place"),
            .help = tr("A boundary of the lines that close round a click, and its parcel"),
            .icon = {"M4 6 L20 4 M18 2 L20 20 M22 18 L4 20 M5 22 L6 3",
                     "M12 12 m-1.5 0 a1.5 1.5 0 1 0 3 0 a1.5 1.5 0 1 0 -3 0"},
            .key = {},
            .whyNot = aLine,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
