#include "app/tools/trace_crease.h"

#include "app/base/theme.h"
#include "app/kinds/current.h"
#include "app/tools/all_tools.h"
#include "app/tools/picking.h"
#include "core/base/notation.h"
#include "core/operations/dense.h"

namespace erdwerk::app {

using geometry::Vec2;
using geometry::Vec3;
using terrain::CreaseKind;

TraceCreaseTool::TraceCreaseTool(Session& session) : Tool(session, tr("Trace crease")) {
    source_ = currentDense(session);
    const double spacing = derive::spacingOf(session.derived(), source_);
    options_.minAngle = 25 * degree;
    options_.deviation = std::max(0.05, spacing / 2);
    worker_ = std::make_unique<LatestWorker<BendRequest, BendAnswer>>(
        this,
        [](const BendRequest& request, const std::atomic<bool>& cancel) -> std::optional<BendAnswer> {
            auto answer = bendOf(request, cancel);
            if (cancel) return std::nullopt;
            return answer;
        },
        [this](BendAnswer answer) {
            answer_ = std::move(answer);
            waiting_ = false;
            Q_EMIT changed();
        },
        [this](const QString& reason) {
            if (reason.isEmpty()) return;
            waiting_ = false;
            Q_EMIT failed(reason);
        });
    worker_->request({session_.snapshot(), source_, derive::boundsOf(session.derived(), source_)}, true);
}

TraceCreaseTool::~TraceCreaseTool() {
    worker_.reset();
}

std::optional<Vec2> TraceCreaseTool::end() const {
    if (stretches_.empty()) return std::nullopt;
    const Stretch& last = stretches_.back();
    return last.followed.empty() ? last.clicked.plan() : last.followed.back().plan();
}

QString TraceCreaseTool::prompt() const {
    if (!source_) return tr("There is no cloud, raster or surface to follow a crease on");
    if (!answer_.problem.empty()) return QString::fromStdString(answer_.problem);
    if (!answer_.field) return tr("Working out how the ground bends…");
    if (stretches_.empty()) return tr("Click on a crest or toe");
    if (stretches_.size() == 1) return tr("Click again along it; it is followed on from there");
    const auto& stop = stretches_.back().stop;
    if (!stop) return tr("Click on to continue, Enter ends");
    if (*stop == terrain::TraceStop::Closed) return tr("Back at the start: press Enter to keep it");
    return tr("Stopped: %1. Click on to continue, Backspace takes this stretch back, Enter ends")
        .arg(QString::fromUtf8(textOf(*stop).data()));
}

std::vector<Chip> TraceCreaseTool::chips() const {
    std::vector<Chip> out{{tr("On"), QString::fromStdString(session_.document().nameOf(source_))}};
    if (kind_) out.push_back({tr("Kind"), kindText(*kind_)});
    if (stretches_.size() > 1) {
        const auto c = crease();
        out.push_back(
            {tr("Length"), QString::fromStdString(formatLength(creaseLength(c.places, c.closed),
                                                               session_.document().settings().display))});
    }
    return out;
}

void TraceCreaseTool::hoverAt(const Snap& snap) {
    hover_ = snap;
    ahead_.reset();
    const auto from = end();
    if (stretches_.size() == 1 && from && answer_.field)
        if (auto traced = terrain::traceCrease(*answer_.field, *from, snap.place, options_))
            ahead_ = std::move(traced->crease);
    Q_EMIT changed();
}

void TraceCreaseTool::clickAt(const Snap& snap) {
    if (!answer_.field) {
        Q_EMIT failed(tr("Still working out how the ground bends"));
        return;
    }
    const auto from = end();
    Stretch next{{snap.place.x, snap.place.y, answer_.field->height(snap.place)}, {}, {}};
    if (from) {
        if (geometry::distance(*from, snap.place) < 1e-6) return;
        const auto traced = terrain::traceCrease(*answer_.field, *from, snap.place, options_);
        if (!traced) {
            Q_EMIT failed(QString::fromStdString(traced.error().text));
            if (!kind_) return;  // the first stretch must lie on a bend
        } else if (!kind_ || traced->crease.kind == *kind_) {
            kind_ = traced->crease.kind;
            next.followed = traced->crease.places;
            next.stop = traced->stop;
        } else {
            Q_EMIT failed(tr("Here the ground bends the other way; only the click is taken"));
        }
    }
    stretches_.push_back(std::move(next));
    Q_EMIT changed();
}

bool TraceCreaseTool::stepBack() {
    if (stretches_.empty()) return false;
    // What was followed goes first, the click after it.
    if (!stretches_.back().followed.empty()) {
        stretches_.back().followed.clear();
        stretches_.back().stop.reset();
    } else {
        stretches_.pop_back();
    }
    if (stretches_.size() < 2) kind_.reset();
    Q_EMIT changed();
    return true;
}

terrain::Crease TraceCreaseTool::crease() const {
    terrain::Crease out;
    out.kind = kind_.value_or(CreaseKind::Crest);
    const auto add = [&](const Vec3& p) {
        if (out.places.empty() || geometry::distance(out.places.back().plan(), p.plan()) > 1e-6)
            out.places.push_back(p);
    };
    for (std::size_t i = 0; i < stretches_.size(); ++i) {
        // The traced line starts where the first stretch was drawn: clicks beside the fold do not count.
        const bool drawn = i == 0 && stretches_.size() > 1 && !stretches_[1].followed.empty();
        if (!drawn && stretches_[i].followed.empty()) add(stretches_[i].clicked);
        for (const Vec3& p : stretches_[i].followed) add(p);
    }
    out.closed = !stretches_.empty() && stretches_.back().stop == terrain::TraceStop::Closed;
    if (out.closed && out.places.size() > 3 &&
        geometry::distance(out.places.front().plan(), out.places.back().plan()) < 1e-6)
        out.places.pop_back();
    return out;
}

void TraceCreaseTool::complete() {
    auto line = crease();
    if (line.places.size() < 2) {
        Q_EMIT failed(tr("Click twice along a crest or toe first"));
        return;
    }
    line.places = terrain::simplified(line.places, options_.deviation);
    const auto done =
        session_.edit(tr("Trace a %1").arg(kindText(line.kind)), operations::addCreases({line}));
    if (!done) return;
    if (!done.made.empty()) session_.selection().set({{done.made.front(), std::nullopt}});
    stretches_.clear();
    kind_.reset();
    Q_EMIT finished();
}

void TraceCreaseTool::leave() {
    if (stretches_.size() > 1 && crease().places.size() > 1) complete();
}

void TraceCreaseTool::paintGhost(QPainter& painter, const ViewTransform& view) const {
    if (!stretches_.empty()) {
        const auto line = crease();
        paintCrease(painter, view, line.places, line.closed, line.kind, theme::clay, 2.6);
        painter.setPen(QPen(theme::clay, 1.4));
        painter.setBrush(theme::paper);
        for (const Stretch& s : stretches_)
            painter.drawRect(QRectF(view.toPicture(s.clicked.plan()) - QPointF(3, 3), QSizeF(6, 6)));
        if (stretches_.back().stop && *stretches_.back().stop != terrain::TraceStop::Closed) {
            painter.setPen(QPen(theme::ochre, 2.4));
            painter.setBrush(Qt::NoBrush);
            painter.drawEllipse(view.toPicture(*end()), 8, 8);
        }
    }
    const auto from = end();
    if (!from || !hover_ || !answer_.field) return;
    painter.setPen(QPen(theme::clay, 1.4, Qt::DotLine));
    painter.drawLine(view.toPicture(*from), view.toPicture(hover_->place));
    if (stretches_.size() != 1 || !ahead_) return;
    QColor ghost = theme::clay;
    ghost.setAlpha(130);
    paintCrease(painter, view, ahead_->places, false, ahead_->kind, ghost, 2);
}

namespace tools {

ToolDeclaration traceCrease() {
    return {.id = QStringLiteral("trace-crease"),
            .text = tr("Trace crease"),
            .help = tr("Follows a crest or toe from a stretch that is drawn along it"),
            .icon = {"M3 17 L8 9", "M8 9 C12 6 15 10 21 5 M21 5 L17.5 5 M21 5 L20 8.5"},
            .key = QStringLiteral("C"),
            .whyNot = denseHeights,
            .suits = isOneOf<objects::Surface, objects::Cloud>,
            .make = [](Session& s) { return std::make_unique<TraceCreaseTool>(s); }};
}

}  // namespace tools

}  // namespace erdwerk::app

#include "moc_trace_crease.cpp"
