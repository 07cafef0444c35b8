#include "app/tools/draw_line.h"

#include "app/kinds/current.h"
#include "app/tools/all_tools.h"
#include "core/linework/edit.h"
#include "core/operations/lines.h"

namespace erdwerk::app {

using geometry::Vec2;
using linework::HeightRule;

DrawLineTool::DrawLineTool(Session& session) : Tool(session, tr("Draw 3D line")) {
    connect(&session_, &Session::edited, this, &DrawLineTool::carry);
}

linework::Line3D DrawLineTool::line() const {
    linework::Line3D out;
    if (const auto* on = session_.document().get<objects::Line>(state_.continues)) {
        out = on->line;
        if (state_.atStart) out = linework::reversed(out);
        if (!state_.drawn.empty()) out.vertices.back().through = state_.throughFromEnd;
    }
    out.vertices.insert(out.vertices.end(), state_.drawn.begin(), state_.drawn.end());
    out.closed = state_.closed;
    return out;
}

void DrawLineTool::carry(const document::EditTrace& trace) {
    const auto follow = [&](State& state) {
        if (!state.continues) return true;
        const auto object = trace.object(state.continues);
        if (object && session_.document().get<objects::Line>(*object) != nullptr) {
            state.continues = *object;
            return true;
        }
        state.continues = {};
        return false;
    };
    bool lost = !follow(state_);
    for (auto* states : {&before_, &after_})
        for (State& s : *states) follow(s);
    if (lost)
        Q_EMIT failed(tr("The line that was continued is gone; what was drawn stays a line of its own"));
    Q_EMIT changed();
}

QString DrawLineTool::prompt() const {
    const auto count = line().vertices.size();
    if (count == 0) return tr("Click the first corner, or type its position");
    if (count < 2)
        return tr(
            "Click the next corner, or type a place; a height typed now belongs to the corner just set");
    return arc_ ? tr("Click the end of the arc, or type 'straight'; Enter ends the line")
                : tr("Click or type the next corner, or the height of the last; Enter ends the line");
}

QString DrawLineTool::entryHint() const {
    return tr("E, N   az 45.5 35.20   101.25   2%   +0.15   3:1   =Ground   arc");
}

std::vector<Chip> DrawLineTool::chips() const {
    const ObjectId ground = heightsFrom();
    std::vector<Chip> out{
        {tr("Heights from"),
         ground ? QString::fromStdString(session_.document().nameOf(ground)) : tr("nothing")}};
    if (state_.continues)
        out.push_back(
            {tr("Continues"), QString::fromStdString(session_.document().nameOf(state_.continues))});
    const auto shown = line();
    if (shown.vertices.empty()) return out;
    out.push_back({tr("Corners"), QString::number(shown.vertices.size())});
    const auto path = planPath(shown);
    out.push_back({tr("Length"), QString::fromStdString(formatLength(
                                     geometry::lengthOf(path), session_.document().settings().display))});
    out.push_back({tr("Last height"), lastHeight(shown)});
    return out;
}

QString DrawLineTool::lastHeight(const linework::Line3D& shown) const {
    const auto& document = session_.document();
    const auto rule = QString::fromStdString(operations::ruleText(document, shown.vertices.back().rule));
    const auto& last = linework::resolve(shown, operations::surroundings(session_.derived())).vertices.back();
    if (!last.height) return rule;
    const auto height = QString::fromStdString(formatHeight(last.height, document.settings().display));
    return std::holds_alternative<linework::FixedHeight>(shown.vertices.back().rule)
               ? height
               : height + QStringLiteral(", ") + rule;
}

ObjectId DrawLineTool::heightsFrom() const {
    if (heightsFrom_ && (!*heightsFrom_ || session_.document().find(*heightsFrom_))) return *heightsFrom_;
    return currentSurface(session_);
}

void DrawLineTool::repick(std::size_t chip) {
    if (chip != 0) return;
    // The next surface, then none.
    auto all = session_.document().all<objects::Surface>();
    all.push_back({});
    const auto it = std::find(all.begin(), all.end(), heightsFrom());
    heightsFrom_ = it == all.end() || it + 1 == all.end() ? all.front() : *(it + 1);
    Q_EMIT changed();
}

void DrawLineTool::hoverAt(const Snap& snap) {
    hover_ = snap;
    Q_EMIT changed();
}

void DrawLineTool::remember() {
    before_.push_back(state_);
    after_.clear();
}

HeightRule DrawLineTool::ruleFor(const Snap& snap) const {
    if (snap.height && snap.kind != SnapKind::Surface) return linework::FixedHeight{*snap.height};
    const ObjectId surface = heightsFrom();
    const auto* locator = session_.derived().surface(surface);
    if (locator != nullptr && locator->triangleAt(snap.place)) return linework::OnSurface{surface, 0};
    return linework::NoHeight{};
}

void DrawLineTool::continueLine(const Snap& snap) {
    const auto* on = session_.document().get<objects::Line>(snap.ref.object);
    if (on == nullptr || on->line.closed) return;
    remember();
    state_.continues = snap.ref.object;
    state_.atStart = snap.ref.part == std::size_t{0};
    Q_EMIT changed();
}

std::optional<Vec2> DrawLineTool::throughFor(Vec2 place) const {
    if (!arc_) return std::nullopt;
    const auto path = planPath(line());
    if (path.empty()) return std::nullopt;
    return geometry::tangentArc(path.back().end, tangentAt(path.back(), 1), place).through;
}

void DrawLineTool::addCorner(Vec2 place, HeightRule rule) {
    const auto from = origin();
    if (from && *from == place) return;
    remember();
    const auto through = throughFor(place);
    if (state_.drawn.empty())
        state_.throughFromEnd = through;
    else
        state_.drawn.back().through = through;
    linework::LineVertex corner;
    corner.place = place;
    corner.rule = std::move(rule);
    state_.drawn.push_back(std::move(corner));
    arc_ = false;
    Q_EMIT changed();
}

void DrawLineTool::clickAt(const Snap& snap) {
    if (!state_.continues && state_.drawn.empty() && snap.kind == SnapKind::End) return continueLine(snap);
    // A click on the first corner closes the line.
    if (!state_.continues && state_.drawn.size() > 2 &&
        geometry::distance(snap.place, state_.drawn.front().place) < 1e-6) {
        remember();
        state_.closed = true;
        return complete();
    }
    addCorner(snap.place, ruleFor(snap));
}

bool DrawLineTool::enterPlace(const PlaceEntry& entry) {
    if (const auto* course = std::get_if<TypedCourse>(&entry)) {
        const auto from = origin();
        if (!from) {
            Q_EMIT failed(tr("A course needs a corner to start from"));
            return false;
        }
        Snap snap;
        snap.place = *from + geometry::directionOf(course->azimuth) * course->distance;
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
        if (plain == tr("arc") && line().vertices.size() < 2) {
            Q_EMIT failed(tr("An arc needs a side before it to be tangent to"));
            return false;
        }
        arc_ = plain == tr("arc");
        Q_EMIT changed();
        return true;
    }
    const auto place = parsePlaceEntry(text.toStdString(), session_.document().settings().display);
    if (place) return enterPlace(*place);
    return enterRule(text);
}

bool DrawLineTool::enterRule(const QString& text) {
    const auto rule = operations::typedRule(session_.document(), text.toStdString());
    const auto refuse = [this](const QString& reason) {
        Q_EMIT failed(reason);
        return false;
    };
    if (!rule) return refuse(QString::fromStdString(rule.error().text));
    if (state_.drawn.empty())
        return refuse(state_.continues ? tr("Draw the next corner before its height")
                                       : tr("Set the first corner before its height"));
    if (!state_.continues && state_.drawn.size() == 1 && isRelative(*rule))
        return refuse(tr("The first corner has no corner before it to rise from"));
    remember();
    state_.drawn.back().rule = *rule;
    Q_EMIT changed();
    return true;
}

bool DrawLineTool::stepBack() {
    if (before_.empty()) return false;
    after_.push_back(state_);
    state_ = before_.back();
    before_.pop_back();
    Q_EMIT changed();
    return true;
}

bool DrawLineTool::stepForward() {
    if (after_.empty()) return false;
    before_.push_back(state_);
    state_ = after_.back();
    after_.pop_back();
    Q_EMIT changed();
    return true;
}

bool DrawLineTool::commit() {
    if (state_.drawn.empty()) return false;
    const State done = std::exchange(state_, {});
    before_.clear();
    after_.clear();
    const document::Document was = session_.document();
    ObjectId target = done.continues;
    if (done.continues) {
        if (!session_.edit(tr("Continue a line"), operations::continueLine(done.continues, done.atStart,
                                                                           done.drawn, done.throughFromEnd)))
            return false;
    } else {
        linework::Line3D drawn{done.drawn, done.closed};
        if (validate(drawn) || !session_.edit(tr("Draw a line"), operations::drawLine(std::move(drawn))))
            return false;
        if (const auto made = session_.addedSince(was); !made.empty()) target = made.front();
    }
    session_.select({{target, std::nullopt}});
    return true;
}

void DrawLineTool::complete() {
    const auto drawn = line();
    if (!state_.continues && !drawn.vertices.empty())
        if (const auto problem = validate(drawn)) Q_EMIT failed(QString::fromStdString(*problem));
    commit();
    Q_EMIT finished();
}

void DrawLineTool::leave() {
    commit();
}

std::optional<Vec2> DrawLineTool::origin() const {
    if (!state_.drawn.empty()) return state_.drawn.back().place;
    const auto* on = session_.document().get<objects::Line>(state_.continues);
    if (on == nullptr || on->line.vertices.empty()) return std::nullopt;
    return (state_.atStart ? on->line.vertices.front() : on->line.vertices.back()).place;
}

void DrawLineTool::paintGhost(QPainter& painter, const ViewTransform& view) const {
    auto ghost = line();
    if (ghost.vertices.empty()) return;
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

namespace tools {

ToolDeclaration drawLine() {
    return {.id = QStringLiteral("draw-line"),
            .text = tr("Draw 3D line"),
            .help = tr("Draws a line corner by corner, clicked or typed, with a height rule at each"),
            .icon = {"M4 18 L10 8 L15 13", "M15 13 L20 5"},
            .key = QStringLiteral("D"),
            .whyNot = anOpenProject,
            .make = [](Session& s) { return std::make_unique<DrawLineTool>(s); }};
}

}  // namespace tools

}  // namespace erdwerk::app
