#include "app/tools/crease_tools.h"

#include <numbers>

#include "app/shell/theme.h"
#include "core/base/notation.h"
#include "core/document/edit.h"

namespace erdwerk::app {

using geometry::Vec2;
using geometry::Vec3;
using terrain::CreaseKind;

namespace {

constexpr double degree = std::numbers::pi / 180;

BendAnswer bendOf(const BendRequest& request, const std::atomic<bool>& cancel) {
    Context context;
    context.cancelFlag = &cancel;
    BendAnswer answer;
    auto field = document::creaseField(request.snapshot->derived, request.source, request.area, context);
    if (field)
        answer.field = std::make_shared<const terrain::CreaseField>(std::move(*field));
    else
        answer.problem = field.error().text;
    return answer;
}

double lengthOf(const std::vector<Vec3>& places, bool closed) {
    double sum = 0;
    for (std::size_t i = 1; i < places.size(); ++i)
        sum += geometry::distance(places[i - 1].plan(), places[i].plan());
    if (closed && places.size() > 1) sum += geometry::distance(places.back().plan(), places.front().plan());
    return sum;
}

/// A crest is drawn through, a toe dashed, as the lines will be.
void paintCrease(QPainter& painter, const ViewTransform& view, const std::vector<Vec3>& places, bool closed,
                 CreaseKind kind, const QColor& colour, double width) {
    QPolygonF shape;
    for (const Vec3& p : places) shape << view.toPicture(p.plan());
    if (closed && !shape.isEmpty()) shape << shape.front();
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setBrush(Qt::NoBrush);
    painter.setPen(QPen(colour, width, kind == CreaseKind::Crest ? Qt::SolidLine : Qt::DashLine));
    painter.drawPolyline(shape);
    if (kind != CreaseKind::Crest) return;
    // Short strokes say crest even where colour does not.
    for (int i = 2; i + 1 < shape.size(); i += 4) {
        const QPointF along = shape[i + 1] - shape[i - 1];
        const double size = std::hypot(along.x(), along.y());
        if (size < 1) continue;
        painter.drawLine(shape[i], shape[i] + QPointF(-along.y(), along.x()) * (5 / size));
    }
}

QString kindText(CreaseKind kind) {
    return kind == CreaseKind::Crest ? QObject::tr("crest") : QObject::tr("toe");
}

}  // namespace

// ---- find

FindCreasesTool::FindCreasesTool(Session& session) : Tool(session, tr("Find creases")) {
    source_ = currentDense(session);
    area_ = document::boundsOf(session.derived(), source_);
    if (const auto line = session.selected<document::Line>()) {
        const auto* resolved = document::Derived::in(session.derived().lines, *line);
        if (resolved != nullptr && resolved->closed) {
            areaLine_ = *line;
            area_ = {};
            for (const auto& s : resolved->path) area_.add(boundsOf(s));
        }
    }
    const double spacing = document::spacingOf(session.derived(), source_);
    options_.minAngle = 25 * degree;
    options_.minLength = std::max(8.0, 10 * spacing);
    options_.deviation = std::max(0.05, spacing / 2);
    worker_ = std::make_unique<LatestWorker<Request, BendAnswer>>(
        this,
        [](const Request& request, const std::atomic<bool>& cancel) -> std::optional<BendAnswer> {
            BendAnswer answer;
            answer.field = request.field;
            if (!answer.field) answer = bendOf(request.bend, cancel);
            if (answer.field) {
                Context context;
                context.cancelFlag = &cancel;
                answer.found = terrain::findCreases(*answer.field, request.options, context);
            }
            if (cancel) return std::nullopt;
            return answer;
        },
        [this](BendAnswer answer) {
            answer_ = std::move(answer);
            waiting_ = false;
            off_.assign(answer_.found.size(), false);
            Q_EMIT changed();
        });
    ask();
}

FindCreasesTool::~FindCreasesTool() {
    worker_.reset();
}

void FindCreasesTool::ask() {
    waiting_ = true;
    worker_->request({{session_.snapshot(), source_, area_}, answer_.field, options_}, true);
    Q_EMIT changed();
}

QString FindCreasesTool::prompt() const {
    if (!source_) return tr("There is no cloud, raster or surface to look at");
    if (working()) return tr("Working out where the ground bends…");
    if (!answer_.problem.empty()) return QString::fromStdString(answer_.problem);
    if (answer_.found.empty()) return tr("No crest or toe is that sharp and long; type other figures");
    return tr("Click lines out or in; Enter keeps them");
}

QString FindCreasesTool::entryHint() const {
    return tr("angle 30   ·   length 8   ·   deviation 0.1");
}

std::vector<Chip> FindCreasesTool::chips() const {
    const auto number = [](double v) {
        return QString::fromStdString(formatExact(std::round(v * 1e3) / 1e3));
    };
    std::size_t crests = 0;
    std::size_t toes = 0;
    for (std::size_t i = 0; i < answer_.found.size(); ++i)
        if (!off_[i]) ++(answer_.found[i].kind == CreaseKind::Crest ? crests : toes);
    return {{tr("In"), QString::fromStdString(session_.document().nameOf(areaLine_ ? areaLine_ : source_))},
            {tr("Bend from"), number(options_.minAngle / degree) + QStringLiteral("°")},
            {tr("Length from"), number(options_.minLength)},
            {tr("Simplified to"), number(options_.deviation)},
            {tr("Kept"), working() ? QString() : tr("%1 crests, %2 toes").arg(crests).arg(toes)}};
}

std::size_t FindCreasesTool::creaseAt(Vec2 place) const {
    std::size_t best = answer_.found.size();
    double least = 12 * pixel_;
    for (std::size_t i = 0; i < answer_.found.size(); ++i) {
        const auto& places = answer_.found[i].places;
        for (std::size_t k = 1; k < places.size(); ++k) {
            const auto near =
                geometry::nearestOn({{places[k - 1].plan(), places[k].plan(), std::nullopt}}, place);
            if (std::abs(near->distance) < least) {
                least = std::abs(near->distance);
                best = i;
            }
        }
    }
    return best;
}

void FindCreasesTool::hoverAt(const Snap& snap) {
    hover_ = snap;
    Q_EMIT changed();
}

void FindCreasesTool::clickAt(const Snap& snap) {
    const std::size_t at = creaseAt(snap.place);
    if (at == answer_.found.size()) {
        Q_EMIT failed(tr("There is no found line here"));
        return;
    }
    off_[at] = !off_[at];
    Q_EMIT changed();
}

bool FindCreasesTool::enter(const QString& text) {
    const QStringList words = text.toLower().split(QLatin1Char(' '), Qt::SkipEmptyParts);
    const double value = typedFigure(words.value(1)).value_or(-1);
    const bool angle = words.value(0) == tr("angle");
    const bool length = words.value(0) == tr("length");
    const bool deviation = words.value(0) == tr("deviation");
    if (words.size() != 2 || !(angle || length || deviation)) {
        Q_EMIT failed(tr("Type angle, length or deviation and a figure"));
        return false;
    }
    if (angle ? value < 1 || value > 90 : !(value > 0)) {
        Q_EMIT failed(angle ? tr("The angle is from 1 to 90 degrees") : tr("The figure must be above 0"));
        return false;
    }
    if (angle) options_.minAngle = value * degree;
    if (length) options_.minLength = value;
    if (deviation) options_.deviation = value;
    ask();
    return true;
}

void FindCreasesTool::complete() {
    if (working()) return;
    std::vector<terrain::Crease> kept;
    for (std::size_t i = 0; i < answer_.found.size(); ++i)
        if (!off_[i]) kept.push_back(answer_.found[i]);
    if (kept.empty()) {
        Q_EMIT failed(tr("There is nothing to keep"));
        return;
    }
    std::vector<ObjectId> made;
    const auto next = document::addCreases(session_.document(), kept, "Crests", "Toes", &made);
    session_.apply(tr("Find %1 creases").arg(kept.size()), next);
    std::vector<Ref> refs;
    for (const ObjectId id : made) refs.push_back({id, std::nullopt});
    session_.select(std::move(refs));
    Q_EMIT finished();
}

void FindCreasesTool::paintGhost(QPainter& painter, const ViewTransform& view) const {
    pixel_ = 1 / view.scale;
    const std::size_t none = answer_.found.size();
    const std::size_t under = hover_ ? creaseAt(hover_->place) : none;
    for (std::size_t i = 0; i < answer_.found.size(); ++i) {
        const auto& crease = answer_.found[i];
        QColor colour = off_[i] ? theme::inkQuiet : theme::clay;
        if (off_[i]) colour.setAlpha(110);
        paintCrease(painter, view, crease.places, crease.closed, crease.kind, colour, under == i ? 4 : 2.4);
    }
    if (under == none) return;
    const auto& crease = answer_.found[under];
    painter.setFont(theme::font(12, true));
    painter.setPen(theme::clay.darker(115));
    painter.drawText(view.toPicture(hover_->place) + QPointF(14, -10),
                     tr("%1, %2, bends %3°")
                         .arg(kindText(crease.kind),
                              QString::fromStdString(formatLength(lengthOf(crease.places, crease.closed),
                                                                  session_.document().settings().display)))
                         .arg(crease.bend / degree, 0, 'f', 0));
}

// ---- trace

TraceCreaseTool::TraceCreaseTool(Session& session) : Tool(session, tr("Trace crease")) {
    source_ = currentDense(session);
    const double spacing = document::spacingOf(session.derived(), source_);
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
        });
    worker_->request({session_.snapshot(), source_, document::boundsOf(session.derived(), source_)}, true);
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
            {tr("Length"), QString::fromStdString(formatLength(lengthOf(c.places, c.closed),
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
    std::vector<ObjectId> made;
    const auto next = document::addCreases(session_.document(), {line}, "Crests", "Toes", &made);
    session_.apply(tr("Trace a %1").arg(kindText(line.kind)), next);
    if (!made.empty()) session_.select({{made.front(), std::nullopt}});
    stretches_.clear();
    kind_.reset();
    Q_EMIT finished();
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

}  // namespace erdwerk::app
