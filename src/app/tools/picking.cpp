#include "app/tools/picking.h"

#include "app/kinds/current.h"
#include "core/base/notation.h"
#include "core/terrain/locator.h"

namespace erdwerk::app::tools {

std::function<std::unique_ptr<Tool>(Session&)> picking(PickSpec spec) {
    return [spec = std::move(spec)](Session& session) { return std::make_unique<PickTool>(session, spec); };
}

PickStep lineStep(const QString& prompt) {
    return {QObject::tr("Line"), prompt, Accept::Line};
}

PickStep placeStep(const QString& role, const QString& prompt) {
    return {role, prompt, Accept::Place};
}

PickStep typedStep(const QString& role, const QString& prompt) {
    return {role, prompt, Accept::Typed};
}

operations::LinePlace linePlace(const Snap& pick) {
    return {pick.ref.object, pick.ref.part, pick.segment, pick.fraction};
}

document::LongEdit longRefusal(std::string reason) {
    return
        [reason = std::move(reason)](const document::Document&, const Context&) -> Result<document::Edited> {
            return badInput(reason);
        };
}

document::Edit refusal(std::string reason) {
    return [reason = std::move(reason)](const document::Document&) -> Result<document::Edited> {
        return badInput(reason);
    };
}

ObjectId currentCloud(const Session& session) {
    const ObjectId dense = currentDense(session);
    if (session.document().get<objects::Cloud>(dense) != nullptr) return dense;
    const auto all = session.document().all<objects::Cloud>();
    return all.empty() ? ObjectId{} : all.front();
}

geometry::Vec3 placeOf(const Session& session, const Snap& pick) {
    const auto* surface = session.derived().surface(currentSurface(session));
    const auto height =
        pick.height ? pick.height : (surface != nullptr ? surface->heightAt(pick.place) : std::nullopt);
    return {pick.place.x, pick.place.y, height.value_or(0)};
}

namespace {

Snap typedSnap(const QString& name, double value = 0) {
    Snap snap;
    snap.kind = SnapKind::Typed;
    snap.name = name;
    snap.height = value;
    return snap;
}

}  // namespace

Result<Snap> typedForLine(const Session& session, const QString& text, const std::string& hint) {
    const auto line = session.selected<objects::Line>();
    if (!line) return badInput(hint);
    Snap snap = typedSnap(text.trimmed());
    snap.ref = {*line, std::nullopt};
    return snap;
}

Result<Snap> typedPlace(const Session& session, const QString& text) {
    const auto& display = session.document().settings().display;
    const auto place = parsePlaceEntry(text.toStdString(), display);
    if (!place) return tl::unexpected(place.error());
    const auto* position = std::get_if<TypedPosition>(&*place);
    if (position == nullptr) return badInput("type a position: E, N or E, N, height");
    Snap snap;
    snap.place = {position->easting, position->northing};
    snap.height = position->height;
    snap.name = QString::fromStdString(formatPosition(snap.place.x, snap.place.y, display));
    return snap;
}

Result<Snap> typedNumber(const Session&, const QString& text) {
    const auto value = typedFigure(text);
    if (!value) return badInput("type a figure");
    return typedSnap(text.trimmed(), *value);
}

Result<Snap> typedPositive(const Session& session, const QString& text) {
    auto snap = typedNumber(session, text);
    if (snap && !(*snap->height > 0)) return badInput("type a figure above 0");
    return snap;
}

Result<Snap> typedName(const Session&, const QString& text) {
    return typedSnap(text.trimmed());
}

void noGhost(QPainter&, const ViewTransform&, const Session&, const Picks&) {}

void ghostLine(QPainter& painter, const ViewTransform& view, const Session& session, const Picks& picks) {
    if (picks.empty()) return;
    if (const auto* line = derive::Derived::in(session.derived().lines, picks.front().ref.object))
        paintGhostPath(painter, view, line->path, {});
}

}  // namespace erdwerk::app::tools
