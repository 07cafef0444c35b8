// Sides and corners that become arcs.

#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/operations/plan_shape.h"

namespace erdwerk::app::tools {

namespace {

/// The corner that was picked, or the arc.
document::Edit roundOrChange(const Session& s, const Picks& k) {
    if (k[0].ref.part)
        return operations::roundCorner(s.results(), k[0].ref.object, *k[0].ref.part, *k[1].height);
    return operations::setArcRadius(s.results(), k[0].ref.object, k[0].segment, *k[1].height);
}

/// After an arc the next one of its line; nothing after the last.
std::optional<Snap> nextArc(const Session& session, const Picks& k) {
    const auto* line = session.derived().definition(k[0].ref.object);
    if (k[0].ref.part || line == nullptr) return std::nullopt;
    const auto path = planPath(*line);
    for (std::size_t s = k[0].segment + 1; s < path.size(); ++s) {
        const auto arc = geometry::arcOf(path[s]);
        if (!arc) continue;
        Snap out = k[0];
        out.segment = s;
        out.fraction = 0.5;
        out.place = pointAt(path[s], 0.5);
        out.name = tr("arc of radius %1")
                       .arg(QString::fromStdString(
                           formatLength(arc->radius, session.document().settings().display)));
        return out;
    }
    return std::nullopt;
}

/// "straight", "smooth", or a place that the arc goes through.
Result<Snap> sideKindOrPlace(const Session& session, const QString& text) {
    const QString word = text.trimmed().toLower();
    if (word != tr("straight") && word != tr("smooth")) return typedPlace(session, text);
    Snap snap;
    snap.kind = SnapKind::Typed;
    snap.name = text.trimmed();
    return snap;
}

}  // namespace

ToolDeclaration roundCorner() {
    PickSpec spec{
        .title = tr("Round a corner"),
        .steps = {{tr("Corner or arc"), tr("Click on the corner to round, or on an arc for another radius"),
                   Accept::LinePlace},
                  typedStep(tr("Radius"), tr("Type the radius; Enter alone goes on to the next arc"))},
        .apply = roundOrChange,
        .next = nextArc,
        .typed = [](const Session& s, const QString& text) -> Result<Snap> {
            return typedPositive(s, text);
        }};
    return {.id = QStringLiteral("round"),
            .text = tr("Round a corner"),
            .help = tr("A corner becomes an arc that touches both sides; an arc gets another radius"),
            .icon = {"M4 20 V12 M12 4 H20", "M4 12 A8 8 0 0 1 12 4"},
            .key = QStringLiteral("N"),
            .whyNot = aLine,
            .suits = isOneOf<objects::Line>,
            .make = picking(std::move(spec))};
}

ToolDeclaration bendSide() {
    PickSpec spec{.title = tr("Bend a side"),
                  .steps = {{tr("Side"), tr("Click on the side to bend"), Accept::LinePlace},
                            placeStep(tr("Through"),
                                      tr("Click where the arc goes through, or type straight or smooth"))},
                  .apply =
                      [](const Session&, const Picks& k) {
                          if (k[1].kind == SnapKind::Typed && k[1].name.toLower() == tr("smooth"))
                              return operations::setSideSmooth(k[0].ref.object, k[0].segment);
                          return operations::setSide(
                              k[0].ref.object, k[0].segment,
                              k[1].kind == SnapKind::Typed ? std::nullopt : std::optional(k[1].place));
                      },
                  .entryHint = tr("E, N  ·  straight  ·  smooth"),
                  .typed = sideKindOrPlace};
    return {
        .id = QStringLiteral("bend"),
        .text = tr("Bend a side"),
        .help = tr(
            "A side becomes an arc through a place, goes smoothly through its corners, or is straight again"),
        .icon = {"M4 18 H20", "M4 18 C8 6 16 6 20 18"},
        .key = QStringLiteral("B"),
        .whyNot = aLine,
        .suits = isOneOf<objects::Line>,
        .make = picking(std::move(spec))};
}

ToolDeclaration arcOfRun() {
    PickSpec spec{.title = tr("Make one arc"),
                  .steps = {{tr("First"), tr("Pick the first corner of the run"), Accept::Vertex},
                            {tr("Last"), tr("Pick the last corner of the run"), Accept::Vertex}},
                  .apply = [](const Session& s, const Picks& k) -> document::Edit {
                      if (k[0].ref.object != k[1].ref.object)
                          return refusal("both corners must be of one line");
                      return operations::fitArc(s.results(), k[0].ref.object, *k[0].ref.part, *k[1].ref.part);
                  }};
    return {.id = QStringLiteral("arc-of-run"),
            .text = tr("Make one arc"),
            .help = tr("The best arc instead of a run of corners, and how far they are off it"),
            .icon = {"M4 18 L7 10 L12 6 L17 9 L20 18", "M4 18 A8.5 8.5 0 0 1 20 18"},
            .key = QStringLiteral("K"),
            .whyNot = aLine,
            .suits = isOneOf<objects::Line>,
            .make = picking(std::move(spec))};
}

ToolDeclaration smoothLine() {
    PickSpec spec{.title = tr("Curve smoothly"),
                  .steps = {lineStep(tr("Pick the line that is to go smoothly through its corners"))},
                  .apply = [](const Session& s, const Picks& k) {
                      return operations::smoothLine(s.results(), k[0].ref.object);
                  }};
    return {.id = QStringLiteral("smooth"),
            .text = tr("Curve smoothly"),
            .help = tr("Straight sides become arcs that touch each other at the corners"),
            .icon = {"M4 17 L9 8 L15 16 L20 7", "M4 17 C6 9 8 6 10 9 C13 15 15 18 17 14 C18.5 11 19 9 20 7"},
            .key = QStringLiteral("Y"),
            .whyNot = aLine,
            .suits = isOneOf<objects::Line>,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
