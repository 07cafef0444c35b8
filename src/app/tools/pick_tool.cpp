#include "app/tools/pick_tool.h"

#include <QPointer>

#include <algorithm>

#include "app/tools/picking.h"
#include "core/base/notation.h"
#include "core/linework/line3d.h"
#include "core/objects/alignment.h"
#include "core/objects/line.h"

namespace erdwerk::app {

PickTool::PickTool(Session& session, PickSpec spec)
    : Tool(session, spec.title), spec_(std::move(spec)), picks_(spec_.steps.size()) {
    // What is selected already fills the first pick it fits.
    if (const auto line = session_.selected<objects::Line>();
        line && !picks_.empty() && spec_.steps.front().accept == Accept::Line) {
        Snap snap;
        snap.kind = SnapKind::Line;
        snap.ref = {*line, std::nullopt};
        snap.name = QString::fromStdString(session_.document().nameOf(*line));
        picks_.front() = snap;
    }
    connect(&session_, &Session::edited, this, &PickTool::carry);
}

void PickTool::carry(const document::EditTrace& trace) {
    QStringList gone;
    for (auto& pick : picks_) {
        if (!pick || !pick->ref.object) continue;
        if (const auto ref = refAfter(pick->ref, trace, session_.document()))
            pick->ref = *ref;
        else {
            gone << pick->name;
            pick.reset();
        }
    }
    hover_.reset();
    Q_EMIT changed();
    if (!gone.isEmpty()) Q_EMIT failed(tr("%1 is gone; pick again").arg(gone.join(QStringLiteral(", "))));
}

std::size_t PickTool::current() const {
    return static_cast<std::size_t>(std::find(picks_.begin(), picks_.end(), std::nullopt) - picks_.begin());
}

QString PickTool::prompt() const {
    const std::size_t i = current();
    if (i < spec_.steps.size()) return spec_.steps[i].prompt;
    const QString asked = question();
    return asked.isEmpty() ? tr("Press Enter to apply") : asked;
}

QString PickTool::question() const {
    const auto picks = picksWith(std::nullopt);
    return picks && spec_.asks ? spec_.asks(session_, *picks) : QString();
}

std::vector<Chip> PickTool::chips() const {
    std::vector<Chip> out;
    for (std::size_t i = 0; i < picks_.size(); ++i)
        out.push_back({spec_.steps[i].role, picks_[i] ? picks_[i]->name : QString()});
    return out;
}

void PickTool::repick(std::size_t chip) {
    picks_[chip].reset();
    Q_EMIT changed();
}

bool PickTool::fits(const Snap& snap, Accept accept) const {
    const bool onLine = session_.document().get<objects::Line>(snap.ref.object) != nullptr;
    switch (accept) {
        case Accept::Line:
            return onLine;
        case Accept::LineOrAlignment:
            return onLine || session_.document().get<objects::Alignment>(snap.ref.object) != nullptr;
        case Accept::LinePlace:
            return onLine;
        case Accept::Vertex:
            return onLine && snap.ref.part.has_value();
        case Accept::VertexInHand: {
            const auto inHand = session_.selected<objects::Line>();
            return onLine && snap.ref.part.has_value() && (!inHand || *inHand == snap.ref.object);
        }
        case Accept::Point:
            return snap.kind == SnapKind::Point;
        case Accept::Typed:
            return snap.kind == SnapKind::Typed;
        case Accept::Place:
            break;
    }
    return true;
}

std::optional<std::vector<Snap>> PickTool::picksWith(const std::optional<Snap>& last) const {
    std::vector<Snap> out;
    bool used = false;
    for (const auto& pick : picks_) {
        if (pick) {
            out.push_back(*pick);
        } else if (last && !used) {
            out.push_back(*last);
            used = true;
        } else {
            return std::nullopt;
        }
    }
    return out;
}

bool PickTool::accepts(const Snap& snap) const {
    const std::size_t i = current();
    return i >= spec_.steps.size() || fits(snap, spec_.steps[i].accept);
}

void PickTool::hoverAt(const Snap& snap) {
    hover_ = snap;
    Q_EMIT changed();
}

void PickTool::clickAt(const Snap& snap) {
    const std::size_t i = current();
    if (i >= spec_.steps.size()) return applyPicks();
    if (!fits(snap, spec_.steps[i].accept)) {
        Q_EMIT failed(tr("There is nothing here that fits. %1.").arg(spec_.steps[i].prompt));
        return;
    }
    take(snap);
}

void PickTool::take(const Snap& snap) {
    picks_[current()] = snap;
    Q_EMIT changed();
    if (current() == picks_.size() && question().isEmpty()) applyPicks();
}

QString PickTool::entryHint() const {
    if (!spec_.entryHint.isEmpty() || current() >= spec_.steps.size()) return spec_.entryHint;
    switch (spec_.steps[current()].accept) {
        case Accept::Line:
        case Accept::LineOrAlignment:
            return tr("a name");
        case Accept::LinePlace:
            return tr("E, N, or a distance along the line");
        case Accept::Vertex:
        case Accept::VertexInHand:
            return tr("the number of the point, or E, N");
        default:
            return {};
    }
}

QStringList PickTool::completions() const {
    QStringList out;
    if (current() >= spec_.steps.size()) return out;
    const Accept accept = spec_.steps[current()].accept;
    const auto& document = session_.document();
    if (accept == Accept::Line || accept == Accept::LineOrAlignment)
        for (const ObjectId id : document.all<objects::Line>())
            out << QString::fromStdString(document.nameOf(id));
    if (accept == Accept::LineOrAlignment)
        for (const ObjectId id : document.all<objects::Alignment>())
            out << QString::fromStdString(document.nameOf(id));
    // A whole name comes before those that begin with it.
    std::stable_sort(out.begin(), out.end(),
                     [](const QString& a, const QString& b) { return a.size() < b.size(); });
    return out;
}

ObjectId PickTool::lineInHand() const {
    for (auto pick = picks_.rbegin(); pick != picks_.rend(); ++pick)
        if (*pick && session_.document().get<objects::Line>((*pick)->ref.object) != nullptr)
            return (*pick)->ref.object;
    return session_.selected<objects::Line>().value_or(ObjectId{});
}

Result<Snap> PickTool::typedOnLine(const QString& text, bool vertex) const {
    const ObjectId id = lineInHand();
    const auto* line = derive::Derived::in(session_.derived().lines, id);
    if (line == nullptr) return badInput("select the line first, then type where on it");
    Snap out;
    out.kind = vertex ? SnapKind::Corner : SnapKind::Line;
    out.ref.object = id;
    const auto figure = typedFigure(text);
    if (vertex && figure) {
        if (!(*figure >= 1) || *figure > static_cast<double>(line->vertices.size()))
            return badInput("the line has the points 1 to " + std::to_string(line->vertices.size()));
        out.ref.part = static_cast<std::size_t>(*figure) - 1;
        out.place = line->vertices[*out.ref.part].place;
    } else if (figure) {
        if (!(*figure >= 0) || *figure > line->length) return badInput("that is not on the line");
        const auto at = geometry::positionAt(line->path, *figure);
        out.segment = at.segment;
        out.fraction = at.fraction;
        out.place = at.place;
    } else {
        const auto& display = session_.document().settings().display;
        const auto place = parsePlaceEntry(text.toStdString(), display);
        const auto* typed = place ? std::get_if<TypedPosition>(&*place) : nullptr;
        if (typed == nullptr)
            return badInput(vertex ? "type the number of the point, or E, N"
                                   : "type E, N, or a distance along the line");
        const geometry::Vec2 at{typed->easting, typed->northing};
        const auto near = geometry::nearestOn(line->path, at);
        out.segment = near->segment;
        out.fraction = near->fraction;
        out.place = near->place;
        if (vertex) {
            std::size_t best = 0;
            for (std::size_t i = 1; i < line->vertices.size(); ++i)
                if (geometry::distance(line->vertices[i].place, at) <
                    geometry::distance(line->vertices[best].place, at))
                    best = i;
            out.ref.part = best;
            out.place = line->vertices[best].place;
        }
    }
    const QString name = QString::fromStdString(session_.document().nameOf(id));
    out.name = vertex ? tr("%1, point %2").arg(name).arg(*out.ref.part + 1) : name;
    return out;
}

Result<Snap> PickTool::typedPick(const QString& text) const {
    const Accept accept = spec_.steps[current()].accept;
    if (accept == Accept::Typed) return spec_.typed(session_, text);
    if (spec_.typed && accept != Accept::Line && accept != Accept::LineOrAlignment) {
        // What the tool reads itself comes first: a word, a figure of its own.
        auto own = spec_.typed(session_, text);
        const bool fitsHere = accept == Accept::Place || accept == Accept::Point;
        if (fitsHere || (own && own->ref.object)) return own;
    }
    if (accept == Accept::Place) return tools::typedPlace(session_, text);
    if (accept == Accept::Point) return badInput("click the point");
    if (accept == Accept::LinePlace) return typedOnLine(text, false);
    if (accept == Accept::Vertex || accept == Accept::VertexInHand) return typedOnLine(text, true);
    const std::string name = text.trimmed().toStdString();
    const auto& document = session_.document();
    ObjectId id = document.byName<objects::Line>(name);
    if (!id && accept == Accept::LineOrAlignment) id = document.byName<objects::Alignment>(name);
    if (!id) return badInput("there is no line named '" + name + "'");
    Snap out;
    out.kind = SnapKind::Object;
    out.ref = {id, std::nullopt};
    out.name = QString::fromStdString(name);
    return out;
}

bool PickTool::enter(const QString& text) {
    const bool answers = current() >= picks_.size();
    const auto& answer = spec_.answered ? spec_.answered : spec_.typed;
    if (answers && !answer) return false;
    const auto snap = answers ? answer(session_, text) : typedPick(text);
    if (!snap) {
        Q_EMIT failed(QString::fromStdString(snap.error().text));
        return false;
    }
    if (answers)
        applyPicks(*snap);
    else
        take(*snap);
    return true;
}

bool PickTool::stepBack() {
    for (std::size_t i = picks_.size(); i-- > 0;) {
        if (!picks_[i]) continue;
        picks_[i].reset();
        Q_EMIT changed();
        return true;
    }
    return false;
}

void PickTool::complete() {
    if (current() == picks_.size()) return applyPicks();
    if (!spec_.next || !picks_.front()) return;
    picks_.front() = spec_.next(session_, {*picks_.front()});
    Q_EMIT changed();
}

void PickTool::applyPicks(const std::optional<Snap>& answer) {
    auto picks = picksWith(std::nullopt);
    if (!picks) return;
    if (answer) picks->push_back(*answer);
    // What the edit changes would be carried along in the picks; they have done their work.
    const auto kept = picks_;
    std::fill(picks_.begin(), picks_.end(), std::nullopt);
    const auto settle = [tool = QPointer(this), kept, picks = *picks](const Outcome& done) {
        if (!tool) return;
        if (done) return tool->settle(done, picks);
        // The last pick is asked for again, unless others were made meanwhile; nothing else has to be redone.
        auto& now = tool->picks_;
        if (std::any_of(now.begin(), now.end(), [](const auto& pick) { return pick.has_value(); })) return;
        tool->picks_ = kept;
        tool->picks_.back().reset();
        Q_EMIT tool->changed();
    };
    if (!spec_.applyLong) return settle(session_.edit(spec_.title, spec_.apply(session_, *picks)));
    session_.longEdit(spec_.title, spec_.applyLong(session_, *picks), settle);
    Q_EMIT changed();
}

void PickTool::settle(const Outcome& done, const Picks& picks) {
    hover_.reset();
    if (!done.made.empty()) Q_EMIT made(done.made);
    if (spec_.next) picks_.front() = spec_.next(session_, picks);
    if (spec_.repeats)
        Q_EMIT changed();
    else
        Q_EMIT finished();
}

void PickTool::paintGhost(QPainter& painter, const ViewTransform& view) const {
    const std::size_t i = current();
    if (!spec_.ghost &&
        (i >= spec_.steps.size() ? false : (!hover_ || !fits(*hover_, spec_.steps[i].accept))))
        return;
    const auto picks = picksWith(i < spec_.steps.size() ? hover_ : std::nullopt);
    if (spec_.ghost) {
        std::vector<Snap> soFar;
        for (const auto& pick : picks_)
            if (pick) soFar.push_back(*pick);
        if (hover_ && i < spec_.steps.size() && fits(*hover_, spec_.steps[i].accept))
            soFar.push_back(*hover_);
        return spec_.ghost(painter, view, session_, soFar);
    }
    if (!picks) {
        if (!picks_.empty() && picks_.front()) {
            const auto it = session_.derived().lines.find(picks_.front()->ref.object);
            if (it != session_.derived().lines.end()) paintGhostPath(painter, view, it->second->path, {});
        }
        return;
    }
    paintChange(painter, view, *picks);
}

void PickTool::paintChange(QPainter& painter, const ViewTransform& view, const Picks& picks) const {
    if (!spec_.apply) return;
    const auto edited = spec_.apply(session_, picks)(session_.history().fresh());
    if (!edited) return;
    const auto& next = edited->document;
    const auto figure = [&](const geometry::Path& path) {
        return QString::fromStdString(formatLength(geometry::lengthOf(path), next.settings().display));
    };
    const auto asItIs = [&](ObjectId id) {
        if (const auto* line = derive::Derived::in(session_.derived().lines, id))
            paintGhostPath(painter, view, line->path, figure(line->path));
    };
    // Whatever lines and alignments would change are shown as they would be, other things by what was picked.
    bool shown = false;
    for (const ObjectId id : difference(session_.history().current(), next).changed) {
        if (const auto* line = next.get<objects::Line>(id)) {
            const auto path = planPath(line->line);
            const auto* before = session_.document().get<objects::Line>(id);
            const auto was =
                before == nullptr ? geometry::Path{} : geometry::reversed(planPath(before->line));
            const bool turned = was.size() == path.size() && !path.empty() &&
                                was.front().start == path.front().start &&
                                was.front().end == path.front().end;
            paintGhostPath(painter, view, path, figure(path), turned);
            shown = true;
        } else if (const auto* alignment = next.get<objects::Alignment>(id)) {
            if (const auto* of = next.get<objects::Line>(alignment->line)) {
                auto path = planPath(of->line);
                if (alignment->reversed) path = geometry::reversed(path);
                paintGhostPath(painter, view, path, figure(path), true);
                shown = true;
            }
        }
    }
    if (!shown) asItIs(picks.front().ref.object);
}

}  // namespace erdwerk::app

#include "moc_pick_tool.cpp"
