// Moves, copies, turns and mirrors what is selected.

#include "app/base/theme.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/base/notation.h"
#include "core/objects/points.h"
#include "core/operations/plan_move.h"

namespace erdwerk::app::tools {

namespace {

using geometry::Vec2;
using linework::PlanMove;

QString somethingSelected(const Session& session) {
    return session.selection().empty() ? tr("select lines or survey points first") : QString();
}

std::vector<operations::LinePart> selected(const Session& session) {
    std::vector<operations::LinePart> out;
    for (const Ref& ref : session.selection()) {
        const bool set = session.document().get<objects::Points>(ref.object) != nullptr;
        out.emplace_back(ref.object, set ? ref.part : std::nullopt);
    }
    std::sort(out.begin(), out.end());
    out.erase(std::unique(out.begin(), out.end()), out.end());
    return out;
}

bool copies(const Picks& picks) {
    return std::any_of(picks.begin(), picks.end(), [](const Snap& s) {
        return s.kind == SnapKind::Typed && s.name.endsWith(tr("copy"));
    });
}

/// A word or figure of the tool, the mode behind it taken off: "12.5, -3 copy".
Snap typedMode(const QString& text) {
    Snap snap;
    snap.kind = SnapKind::Typed;
    snap.name = text.trimmed();
    return snap;
}

QString withoutMode(const QString& text) {
    QString out = text.trimmed();
    if (out.endsWith(tr("copy"))) out.chop(4);
    return out.trimmed();
}

std::optional<PlanMove> moveOf(const Picks& k) {
    return PlanMove::by(k[1].kind == SnapKind::Typed ? k[1].place : k[1].place - k[0].place);
}

std::optional<PlanMove> turnOf(const Picks& k) {
    return PlanMove::turned(Angle::degrees(k[1].height.value_or(0)), k[0].place);
}

std::optional<PlanMove> mirrorOf(const Picks& k) {
    if (geometry::distance(k[0].place, k[1].place) < 1e-9) return std::nullopt;
    return PlanMove::mirrored(k[0].place, k[1].place);
}

using MoveOf = std::optional<PlanMove> (*)(const Picks&);

auto apply(MoveOf move) {
    return [move](const Session& s, const Picks& k) -> document::Edit {
        const auto how = move(k);
        if (!how) return refusal("the two places are the same");
        return operations::movePlan(selected(s), *how, copies(k));
    };
}

auto ghostOf(MoveOf move) {
    return [move](QPainter& painter, const ViewTransform& view, const Session& session, const Picks& picks) {
        if (picks.size() < 2) return;
        const auto how = move(picks);
        if (!how) return;
        painter.setPen(QPen(theme::clay, 2, Qt::DashLine));
        for (const auto& [id, part] : selected(session)) {
            if (const auto* line = session.derived().definition(id))
                paintGhostPath(painter, view, planPath(linework::moved(*line, *how)), {});
            const auto* points = session.document().get<objects::Points>(id);
            if (points == nullptr || !part) continue;
            const QPointF at = view.toPicture((*how)(points->set[*part].plan));
            painter.drawEllipse(at, 4, 4);
        }
    };
}

/// A place, or a shift: "by 12.5, -3", "az 45 10".
Result<Snap> typedShift(const Session& session, const QString& text) {
    const QString typed = text.trimmed();
    const bool by = typed.startsWith(tr("by"));
    const auto place = parsePlaceEntry((by ? typed.mid(2) : typed).trimmed().toStdString(),
                                       session.document().settings().display);
    if (!place) return tl::unexpected(place.error());
    const auto* course = std::get_if<TypedCourse>(&*place);
    if (!by && course == nullptr) return typedPlace(session, text);
    Snap out = typedMode(text);
    if (course != nullptr) {
        out.place = geometry::directionOf(course->azimuth) * course->distance;
    } else {
        const auto& shift = std::get<TypedPosition>(*place);
        out.place = {shift.easting, shift.northing};
    }
    return out;
}

Result<Snap> typedTurn(const Session& session, const QString& text) {
    if (text.contains(QLatin1Char(','))) return typedPlace(session, text);
    QString figure = withoutMode(text);
    const bool back = figure.startsWith(QLatin1Char('-')) || figure.startsWith(QChar(0x2212));
    if (back || figure.startsWith(QLatin1Char('+'))) figure.remove(0, 1);
    const auto angle = parseAngle(figure.toStdString());
    if (!angle) return badInput("type an angle in degrees, clockwise; -12 turns the other way");
    Snap out = typedMode(text);
    out.height = back ? -angle->degrees() : angle->degrees();
    return out;
}

}  // namespace

namespace {

PickSpec shifting(const QString& title, bool copy) {
    return {.title = title,
            .steps = {placeStep(tr("From"), tr("Click the place to start from")),
                      placeStep(tr("To"), tr("Click where it goes, or type how far: by dE, dN"))},
            .apply = [copy](const Session& s,
                            const Picks& k) { return operations::movePlan(selected(s), *moveOf(k), copy); },
            .repeats = copy,
            .entryHint = tr("E, N  ·  by 12.5, -3  ·  az 45 10"),
            .typed = typedShift,
            .ghost = ghostOf(moveOf)};
}

Result<Snap> typedCopy(const Session& session, const QString& text) {
    if (text.trimmed() == tr("copy")) return typedMode(text);
    return typedPlace(session, text);
}

}  // namespace

ToolDeclaration moveThings() {
    return {.id = QStringLiteral("plan-move"),
            .text = tr("Move"),
            .help = tr("Moves the selected lines and survey points"),
            .icon = {"M3 17 L9 9 M12 19 L18 11", "M11 7 H19 M16 4 L19 7 L16 10"},
            .key = QStringLiteral("Shift+M"),
            .whyNot = somethingSelected,
            .make = picking(shifting(tr("Move"), false))};
}

ToolDeclaration copyThings() {
    return {.id = QStringLiteral("plan-copy"),
            .text = tr("Copy in plan"),
            .help = tr("Makes copies of the selected lines and survey points, as often as you click"),
            .icon = {"M3 17 L9 9 M8 19 L14 11 M13 21 L19 13", "M13 6 H21 M17 2 V10"},
            .key = QStringLiteral("Shift+C"),
            .whyNot = somethingSelected,
            .make = picking(shifting(tr("Copy in plan"), true))};
}

ToolDeclaration turnThings() {
    PickSpec spec{
        .title = tr("Turn"),
        .steps = {placeStep(tr("About"), tr("Click the place to turn about")),
                  typedStep(tr("By"), tr("Type the angle, clockwise; copy behind it leaves the first"))},
        .apply = apply(turnOf),
        .repeats = false,
        .entryHint = tr("90  ·  -12°30'  ·  90 copy"),
        .typed = typedTurn,
        .ghost = ghostOf(turnOf)};
    return {.id = QStringLiteral("plan-turn"),
            .text = tr("Turn"),
            .help = tr("Turns the selected lines and survey points about a place"),
            .icon = {"M5 19 L15 9", "M8 5 A9 9 0 0 1 19 14 M19 14 L21 11 M19 14 L16 12.5"},
            .key = QStringLiteral("Shift+T"),
            .whyNot = somethingSelected,
            .make = picking(std::move(spec))};
}

ToolDeclaration mirrorThings() {
    PickSpec spec{.title = tr("Mirror"),
                  .steps = {placeStep(tr("Axis from"), tr("Click the first place of the axis")),
                            placeStep(tr("to"), tr("Click the second place of the axis"))},
                  .apply = apply(mirrorOf),
                  .asks =
                      [](const Session&, const Picks&) {
                          return tr("Enter mirrors what is selected, or type copy to keep it as well");
                      },
                  .repeats = false,
                  .typed = typedCopy,
                  .ghost = ghostOf(mirrorOf)};
    return {.id = QStringLiteral("plan-mirror"),
            .text = tr("Mirror"),
            .help = tr("Mirrors the selected lines and survey points at a straight"),
            .icon = {"M4 17 L9 7 M20 17 L15 7", "M12 3 V21"},
            .key = QStringLiteral("Shift+I"),
            .whyNot = somethingSelected,
            .make = picking(std::move(spec))};
}

}  // namespace erdwerk::app::tools
