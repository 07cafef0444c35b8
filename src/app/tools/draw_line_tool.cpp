#include "app/tools/draw_line_tool.h"

#include "core/document/edit.h"
#include "core/linework/edit.h"

namespace erdwerk::app {

using geometry::Vec2;
using linework::HeightRule;

DrawLineTool::DrawLineTool(Session& session) : Tool(session, tr("Draw 3D line")) {}

QString DrawLineTool::prompt() const {
    if (line_.vertices.empty()) return tr("Click the first corner, or type its position");
    if (line_.vertices.size() < 2)
        return tr(
            "Click the next corner, or type a place; a height typed now belongs to the corner just set");
    return arc_ ? tr("Click the end of the arc, or type 'straight'; Enter ends the line")
                : tr("Click the next corner or type it; type a height for the last one, 'arc' for a curve; "
                     "Enter ends the line");
}

QString DrawLineTool::entryHint() const {
    return tr("48010.5, 91020.25   az 45.5 35.20   101.25   2%   +0.15   3:1   =Ground");
}

std::vector<Chip> DrawLineTool::chips() const {
    std::vector<Chip> out;
    if (continues_)
        out.push_back({tr("Continues"), QString::fromStdString(session_.document().nameOf(continues_))});
    if (line_.vertices.empty()) return out;
    out.push_back({tr("Corners"), QString::number(line_.vertices.size())});
    const auto path = planPath(line_);
    out.push_back({tr("Length"), QString::fromStdString(formatLength(
                                     geometry::lengthOf(path), session_.document().settings().display))});
    out.push_back({tr("Last height"), ruleText(session_.document(), line_.vertices.back().rule)});
    return out;
}

void DrawLineTool::hoverAt(const Snap& snap) {
    hover_ = snap;
    Q_EMIT changed();
}

void DrawLineTool::remember() {
    before_.push_back(line_);
    after_.clear();
}

HeightRule DrawLineTool::ruleFor(const Snap& snap) const {
    if (snap.height && snap.kind != SnapKind::Surface) return linework::FixedHeight{*snap.height};
    const ObjectId surface = currentSurface(session_);
    const auto* locator = session_.derived().surface(surface);
    if (locator != nullptr && locator->triangleAt(snap.place)) return linework::OnSurface{surface, 0};
    return linework::NoHeight{};
}

void DrawLineTool::continueLine(const Snap& snap) {
    const auto* line = session_.document().get<document::Line>(snap.ref.object);
    const auto resolved = session_.derived().lines.find(snap.ref.object);
    if (line == nullptr || resolved == session_.derived().lines.end()) return;
    continues_ = snap.ref.object;
    fromItsStart_ = snap.ref.part == std::size_t{0};
    line_ = fromItsStart_ ? linework::reversed(line->line, *resolved->second) : line->line;
}

std::optional<Vec2> DrawLineTool::throughFor(Vec2 place) const {
    if (!arc_ || line_.vertices.empty()) return std::nullopt;
    const auto path = planPath(line_);
    if (path.empty()) return std::nullopt;
    return geometry::tangentArc(line_.vertices.back().place, tangentAt(path.back(), 1), place).through;
}

void DrawLineTool::addCorner(Vec2 place, HeightRule rule) {
    if (!line_.vertices.empty() && line_.vertices.back().place == place) return;
    remember();
    if (!line_.vertices.empty()) line_.vertices.back().through = throughFor(place);
    auto next = linework::appendCorner(line_, place, std::move(rule));
    if (next) line_ = std::move(*next);
    arc_ = false;
    Q_EMIT changed();
}

void DrawLineTool::clickAt(const Snap& snap) {
    if (line_.vertices.empty() && snap.kind == SnapKind::End) {
        remember();
        continueLine(snap);
        Q_EMIT changed();
        return;
    }
    // A click on the first corner closes the line.
    if (!continues_ && line_.vertices.size() > 2 && hover_ &&
        geometry::distance(snap.place, line_.vertices.front().place) < 1e-6) {
        remember();
        line_.closed = true;
        return complete();
    }
    addCorner(snap.place, ruleFor(snap));
}

bool DrawLineTool::enterPlace(const PlaceEntry& entry) {
    if (const auto* course = std::get_if<TypedCourse>(&entry)) {
        if (line_.vertices.empty()) {
            Q_EMIT failed(tr("A course needs a corner to start from"));
            return false;
        }
        Snap snap;
        snap.place = line_.vertices.back().place + geometry::directionOf(course->azimuth) * course->distance;
        addCorner(snap.place, ruleFor(snap));
        return true;
    }
    const auto& position = std::get<TypedPosition>(entry);
    Snap snap;
    snap.place = {position.easting, position.northing};
    addCorner(snap.place,
              position.height ? HeightRule{linework::FixedHeight{*position.height}} : ruleFor(snap));
    return true;
}

bool DrawLineTool::enter(const QString& text) {
    const QString plain = text.trimmed().toLower();
    if (plain == tr("arc") || plain == tr("straight")) {
        if (plain == tr("arc") && line_.vertices.size() < 2) {
            Q_EMIT failed(tr("An arc needs a side before it to be tangent to"));
            return false;
        }
        arc_ = plain == tr("arc");
        Q_EMIT changed();
        return true;
    }
    const auto place = parsePlaceEntry(text.toStdString(), session_.document().settings().display);
    if (place) return enterPlace(*place);
    const auto rule = ruleFromEntry(session_.document(), text);
    if (!rule) {
        Q_EMIT failed(QString::fromStdString(rule.error().text));
        return false;
    }
    if (line_.vertices.empty()) {
        Q_EMIT failed(tr("Set the first corner before its height"));
        return false;
    }
    if (line_.vertices.size() == 1 && isRelative(*rule)) {
        Q_EMIT failed(tr("The first corner has no corner before it to rise from"));
        return false;
    }
    remember();
    line_.vertices.back().rule = *rule;
    Q_EMIT changed();
    return true;
}

bool DrawLineTool::stepBack() {
    if (before_.empty()) return false;
    after_.push_back(line_);
    line_ = before_.back();
    before_.pop_back();
    if (line_.vertices.empty()) continues_ = {};
    Q_EMIT changed();
    return true;
}

bool DrawLineTool::stepForward() {
    if (after_.empty()) return false;
    before_.push_back(line_);
    line_ = after_.back();
    after_.pop_back();
    Q_EMIT changed();
    return true;
}

void DrawLineTool::complete() {
    if (const auto problem = validate(line_)) {
        if (!line_.vertices.empty()) Q_EMIT failed(QString::fromStdString(*problem));
        Q_EMIT finished();
        return;
    }
    const auto& document = session_.document();
    if (continues_) {
        // The rules of the new corners are worked out in the drawn direction, then turned back with it.
        auto value = line_;
        if (fromItsStart_) {
            const auto resolved =
                linework::resolve(line_, [this](ObjectId id, Vec2 p) -> Result<std::optional<double>> {
                    const auto* surface = session_.derived().surface(id);
                    return surface == nullptr ? std::optional<double>{} : surface->heightAt(p);
                });
            value = linework::reversed(line_, resolved);
        }
        session_.apply(tr("Continue %1").arg(QString::fromStdString(document.nameOf(continues_))),
                       document::setLine(document, continues_, value));
        session_.select({{continues_, std::nullopt}});
    } else {
        ObjectId id;
        const auto next = document.added(document::freshName<document::Line>(document, "Line"),
                                         document::Line{line_, {}}, &id);
        session_.apply(tr("Draw %1").arg(QString::fromStdString(next.nameOf(id))), next);
        session_.select({{id, std::nullopt}});
    }
    line_ = {};
    before_.clear();
    after_.clear();
    continues_ = {};
    Q_EMIT finished();
}

std::optional<Vec2> DrawLineTool::origin() const {
    if (line_.vertices.empty()) return std::nullopt;
    return line_.vertices.back().place;
}

void DrawLineTool::paintGhost(QPainter& painter, const ViewTransform& view) const {
    if (line_.vertices.empty()) return;
    auto ghost = line_;
    if (hover_) {
        ghost.vertices.back().through = throughFor(hover_->place);
        linework::LineVertex v;
        v.place = hover_->place;
        ghost.vertices.push_back(v);
    }
    const auto path = planPath(ghost);
    QString figure;
    if (hover_ && !path.empty()) {
        const auto& display = session_.document().settings().display;
        figure = QString::fromStdString(
            formatLength(lengthOf(path.back()), display) + "  " +
            formatDirection(geometry::azimuth(path.back().start, path.back().end), display));
    }
    paintGhostPath(painter, view, path, figure);
}

}  // namespace erdwerk::app
