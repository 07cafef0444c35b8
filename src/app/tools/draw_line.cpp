#include "app/tools/draw_line.h"

#include "app/base/theme.h"
#include "app/kinds/current.h"
#include "app/tools/all_tools.h"
#include "core/document/edit_trace.h"
#include "core/linework/edit.h"
#include "core/linework/smooth.h"
#include "core/objects/line.h"
#include "core/operations/lines.h"
#include "core/terrain/locator.h"

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
    if (isMending())
        return tr("Click where corner %1 goes, or type its place or height; Enter or Esc leaves it")
            .arg(*mending_ + 1);
    const auto count = line().vertices.size();
    if (count == 0) return tr("Click the first corner, or type its position");
    if (count < 2)
        return tr(
            "Click the next corner, or type a place; a height typed now belongs to the corner just set");
    if (next_.how == NextSide::How::Through && !next_.through)
        return tr("Click where the arc goes through, then its end");
    if (next_.how != NextSide::How::Straight)
        return tr("Click the end of the arc, or type straight; Enter ends the line");
    return tr("Next corner, or the height of the last; Enter ends the line");
}

QString DrawLineTool::entryHint() const {
    if (isMending()) return tr("E, N   101.25   2%   +0.15   3:1   =Ground");
    return tr("E, N   az 45.5 35.20   101.25   2%   3:1   len 35   dir 45   next 2%   arc 25   level 344.5");
}

std::vector<Chip> DrawLineTool::chips() const {
    // What holds for the next corner comes first.
    std::vector<Chip> out;
    const auto& display = session_.document().settings().display;
    if (state_.level)
        out.push_back({tr("Level"), QString::fromStdString(formatHeight(state_.level, display))});
    if (state_.smooth) out.push_back({tr("Sides"), tr("smooth")});
    if (held_.length)
        out.push_back({tr("Next length"), QString::fromStdString(formatLength(*held_.length, display))});
    if (held_.direction)
        out.push_back(
            {tr("Next direction"), QString::fromStdString(formatDirection(*held_.direction, display))});
    if (held_.rule)
        out.push_back({tr("Next height"),
                       QString::fromStdString(operations::ruleText(session_.document(), *held_.rule))});
    const ObjectId ground = heightsFrom();
    out.push_back({tr("Heights from"),
                   ground ? QString::fromStdString(session_.document().nameOf(ground)) : tr("nothing")});
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
    const auto all = chips();
    if (chip >= all.size()) return;
    const QString role = all[chip].role;
    if (role == tr("Heights from")) {
        // The next surface, then none.
        auto surfaces = session_.document().all<objects::Surface>();
        surfaces.push_back({});
        const auto it = std::find(surfaces.begin(), surfaces.end(), heightsFrom());
        heightsFrom_ = it == surfaces.end() || it + 1 == surfaces.end() ? surfaces.front() : *(it + 1);
    }
    if (role == tr("Next length")) held_.length.reset();
    if (role == tr("Next direction")) held_.direction.reset();
    if (role == tr("Next height")) held_.rule.reset();
    if (role == tr("Level") || role == tr("Sides")) {
        remember();
        if (role == tr("Level")) state_.level.reset();
        if (role == tr("Sides")) state_.smooth = false;
    }
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

Result<std::optional<Vec2>> DrawLineTool::throughFor(Vec2 place) const {
    const auto from = origin();
    if (next_.how == NextSide::How::Straight || !from) return std::optional<Vec2>{};
    if (next_.how == NextSide::How::Through) {
        if (!next_.through || !geometry::isCurved({*from, place, next_.through}))
            return std::optional<Vec2>{};
        return next_.through;
    }
    if (next_.how == NextSide::How::Radius) {
        if (2 * std::abs(next_.radius) < geometry::distance(*from, place))
            return badInput("the end is farther away than twice the radius");
        return geometry::arcByRadius(*from, place, std::abs(next_.radius), next_.radius > 0).through;
    }
    const auto path = planPath(line());
    if (path.empty()) return std::optional<Vec2>{};
    return geometry::tangentArc(path.back().end, tangentAt(path.back(), 1), place).through;
}

Vec2 DrawLineTool::held(Vec2 place) const {
    const auto from = origin();
    if (!from || (!held_.length && !held_.direction)) return place;
    const Vec2 way = place - *from;
    if (held_.direction) {
        const Vec2 along = geometry::directionOf(*held_.direction);
        return *from + along * held_.length.value_or(std::max(0.0, geometry::dot(way, along)));
    }
    const double size = geometry::length(way);
    return size > 0 ? *from + way * (*held_.length / size) : place;
}

void DrawLineTool::addCorner(Vec2 place, HeightRule rule) {
    const auto from = origin();
    if (from && *from == place) return;
    const auto through = throughFor(place);
    if (!through) {
        refuse(QString::fromStdString(through.error().text));
        return;
    }
    remember();
    if (state_.drawn.empty())
        state_.throughFromEnd = *through;
    else
        state_.drawn.back().through = *through;
    linework::LineVertex corner;
    corner.place = place;
    corner.rule = held_.rule && from ? *held_.rule : std::move(rule);
    if (state_.level) corner.rule = linework::FixedHeight{*state_.level};
    state_.drawn.push_back(std::move(corner));
    next_ = {};
    held_ = {};
    Q_EMIT changed();
}

void DrawLineTool::mend(Vec2 place, std::optional<HeightRule> rule) {
    auto whole = line();
    const std::size_t at = whole.vertices.size() - state_.drawn.size() + *mending_;
    remember();
    if (auto moved = linework::moveCorner(whole, at, place)) {
        const auto drawn = moved->vertices.end() - static_cast<std::ptrdiff_t>(state_.drawn.size());
        if (drawn != moved->vertices.begin()) state_.throughFromEnd = std::prev(drawn)->through;
        state_.drawn.assign(drawn, moved->vertices.end());
    } else {
        state_.drawn[*mending_].place = place;
    }
    if (rule) state_.drawn[*mending_].rule = std::move(*rule);
    mending_.reset();
    Q_EMIT changed();
}

std::vector<Snap> DrawLineTool::ownPlaces() const {
    std::vector<Snap> out;
    // The last corner is where one draws on from: a double click there ends the line.
    for (std::size_t i = 0; i + 1 < state_.drawn.size(); ++i) {
        if (mending_ == i) continue;
        Snap snap;
        snap.kind = SnapKind::Corner;
        snap.place = state_.drawn[i].place;
        snap.ref.part = i;
        snap.name = i == 0 && state_.drawn.size() > 2 && !state_.continues
                        ? tr("first corner: a click closes, a drag moves it")
                        : tr("corner %1: put it right").arg(i + 1);
        out.push_back(std::move(snap));
    }
    return out;
}

void DrawLineTool::pickUp(const Snap& snap) {
    mending_ = snap.ref.part;
    Q_EMIT changed();
}

bool DrawLineTool::escape() {
    if (!isMending()) return false;
    mending_.reset();
    Q_EMIT changed();
    return true;
}

void DrawLineTool::clickAt(const Snap& snap) {
    const bool own = !snap.ref.object && snap.ref.part;
    if (isMending()) return mend(snap.place, std::nullopt);
    if (!state_.continues && state_.drawn.empty() && snap.kind == SnapKind::End) return continueLine(snap);
    // A click on the first corner closes the line.
    if (!state_.continues && state_.drawn.size() > 2 &&
        geometry::distance(snap.place, state_.drawn.front().place) < 1e-6) {
        remember();
        state_.closed = true;
        return complete();
    }
    if (own) return pickUp(snap);
    if (next_.how == NextSide::How::Through && !next_.through) {
        next_.through = snap.place;
        Q_EMIT changed();
        return;
    }
    const Vec2 place = held(snap.place);
    Snap there = snap;
    if (!(place == snap.place)) {  // not what lies under the cursor
        there.kind = SnapKind::Surface;
        there.place = place;
    }
    addCorner(place, ruleFor(there));
}

bool DrawLineTool::stepBack() {
    if (escape()) return true;
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

linework::Line3D DrawLineTool::finishedLine() const {
    linework::Line3D out = line();
    if (state_.level && !state_.continues && out.vertices.size() > 2) out.closed = true;
    auto smooth = state_.smooth ? linework::smoothShape(out) : out;
    return smooth ? std::move(*smooth) : out;
}

bool DrawLineTool::commit() {
    if (state_.drawn.empty()) return false;
    mending_.reset();
    linework::Line3D drawn = finishedLine();
    const State done = std::exchange(state_, {});
    before_.clear();
    after_.clear();
    ObjectId target = done.continues;
    if (done.continues) {
        if (!session_.edit(tr("Continue a line"), operations::continueLine(done.continues, done.atStart,
                                                                           done.drawn, done.throughFromEnd)))
            return false;
    } else {
        if (validate(drawn)) return false;
        const auto line = session_.edit(tr("Draw a line"), operations::drawLine(std::move(drawn)));
        if (!line) return false;
        if (!line.made.empty()) target = line.made.front();
    }
    session_.selection().set({{target, std::nullopt}});
    return true;
}

void DrawLineTool::complete() {
    if (escape()) return;
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
    const bool goesOn = hover_ && !isMending() && !(next_.how == NextSide::How::Through && !next_.through);
    if (isMending() && hover_) {
        const std::size_t at = ghost.vertices.size() - state_.drawn.size() + *mending_;
        if (auto moved = linework::moveCorner(ghost, at, hover_->place)) ghost = std::move(*moved);
    }
    if (goesOn) {
        const Vec2 place = held(hover_->place);
        ghost.vertices.back().through = throughFor(place).value_or(std::nullopt);
        linework::LineVertex v;
        v.place = place;
        ghost.vertices.push_back(v);
    }
    if (state_.level && ghost.vertices.size() > 2) ghost.closed = true;
    if (auto smooth =
            state_.smooth ? linework::smoothShape(ghost) : Result<linework::Line3D>(badInput("not smooth")))
        ghost = std::move(*smooth);
    const auto path = planPath(ghost);
    QString figure;
    if (goesOn && !path.empty()) {
        const auto& display = session_.document().settings().display;
        const auto& last = path[path.size() - (ghost.closed ? 2 : 1)];
        figure = QString::fromStdString(formatLength(lengthOf(last), display) + "  " +
                                        formatDirection(geometry::azimuth(last.start, last.end), display));
    }
    paintGhostPath(painter, view, path, figure);
    for (const Snap& own : ownPlaces()) {
        const QPointF at = view.toPicture(own.place);
        painter.setPen(QPen(theme::clay, 1.2));
        painter.setBrush(theme::paper);
        painter.drawRect(QRectF(at - QPointF(3, 3), QSizeF(6, 6)));
    }
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

#include "moc_draw_line.cpp"
