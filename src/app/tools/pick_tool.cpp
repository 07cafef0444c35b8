#include "app/tools/pick_tool.h"

#include <algorithm>

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
        if (const auto ref = carried(pick->ref, trace, session_.document()))
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
    return i < spec_.steps.size() ? spec_.steps[i].prompt : tr("Press Enter to apply");
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
    if (current() == picks_.size()) applyPicks();
}

bool PickTool::enter(const QString& text) {
    if (!spec_.typed || current() >= picks_.size()) return false;
    const auto snap = spec_.typed(session_, text);
    if (!snap) {
        Q_EMIT failed(QString::fromStdString(snap.error().text));
        return false;
    }
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
    if (current() == picks_.size()) applyPicks();
}

void PickTool::applyPicks() {
    const auto picks = picksWith(std::nullopt);
    if (!picks) return;
    // What the edit changes would be carried along in the picks; they have done their work.
    const auto kept = picks_;
    const document::Document before = session_.document();
    std::fill(picks_.begin(), picks_.end(), std::nullopt);
    if (!session_.edit(spec_.title, spec_.apply(session_, *picks))) {
        // The last pick is asked for again; nothing else has to be redone.
        picks_ = kept;
        picks_.back().reset();
        Q_EMIT changed();
        return;
    }
    hover_.reset();
    if (auto objects = session_.addedSince(before); !objects.empty()) Q_EMIT made(std::move(objects));
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
