#include "app/plan/plan_view.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QWheelEvent>
#include <algorithm>
#include <cmath>

#include "app/base/snapshot.h"
#include "app/base/theme.h"
#include "app/plan/plan_painter.h"

namespace erdwerk::app {

using geometry::Vec2;

PlanView::PlanView(Session& session, const PlanLayers& layers, QWidget* parent)
    : QWidget(parent), session_(session), layers_(layers) {
    setObjectName(QStringLiteral("plan"));
    setAccessibleName(tr("Plan"));
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    setMinimumSize(280, 160);
    setCursor(Qt::CrossCursor);
    painterThread_ = std::make_unique<LatestWorker<Request, Picture>>(
        this, &PlanView::paintPicture,
        [this](Picture picture) {
            session_.setTextsShown(std::move(picture.texts));
            picture_ = std::move(picture);
            update();
        },
        [this](const QString& reason) {
            if (!reason.isEmpty()) Q_EMIT session_.message(reason, true);
        });
    connect(&session_, &Session::resultsChanged, this, &PlanView::refresh);
    connect(&session_.selection(), &Selection::changed, this, qOverload<>(&QWidget::update));
    connect(&session_.selection(), &Selection::hoverChanged, this, qOverload<>(&QWidget::update));
    connect(&session_.selection(), &Selection::goToPlace, this,
            [this](Vec2 place) { setView(place, std::max(view_.scale, 12.0)); });
}

std::optional<PlanView::Picture> PlanView::paintPicture(const Request& request,
                                                        const std::atomic<bool>& cancel) {
    Picture out{{}, request.view, {}};
    const auto paint = [&](const PlanOptions& options, QImage::Format format) {
        QImage image((request.view.size * request.ratio).toSize(), format);
        image.setDevicePixelRatio(request.ratio);
        image.fill(format == QImage::Format_RGB32 ? theme::paper : QColor(Qt::transparent));
        QPainter painter(&image);
        PlanPainter plan(painter, *request.snapshot, request.view, request.layers, options);
        plan.paint();
        out.texts = plan.texts();
        return image;
    };
    PlanOptions options;
    options.cancel = &cancel;
    options.cutFill = request.cutFill;
    options.off = request.snapshot->derived.document.shown().off;
    if (!request.fade) {
        out.image = paint(options, QImage::Format_RGB32);
    } else {
        // Below the sources, over it the surfaces as far as they are faded in.
        options.ground = false;
        out.image = paint(options, QImage::Format_RGB32);
        options.ground = true;
        options.source = false;
        if (*request.fade > 0 && !cancel) {
            const QImage over = paint(options, QImage::Format_ARGB32_Premultiplied);
            QPainter painter(&out.image);
            QImage paper(out.image.size(), QImage::Format_RGB32);
            paper.setDevicePixelRatio(request.ratio);
            paper.fill(theme::paper);
            QPainter onPaper(&paper);
            onPaper.drawImage(QPointF(0, 0), over);
            onPaper.end();
            painter.setOpacity(*request.fade);
            painter.drawImage(QPointF(0, 0), paper);
        }
    }
    return cancel ? std::nullopt : std::optional(std::move(out));
}

void PlanView::setFade(std::optional<double> surfaces) {
    fade_ = surfaces;
    refresh();
}

void PlanView::setCutFill(std::shared_ptr<const CutFillLayer> layer) {
    if (cutFill_ == layer) return;
    cutFill_ = std::move(layer);
    refresh();
}

PlanView::~PlanView() {
    painterThread_.reset();
}

bool PlanView::settled() const {
    return painterThread_->idle();
}

void PlanView::refresh() {
    view_.size = size();
    if (size().isEmpty()) return;
    painterThread_->request({layers_, session_.snapshot(), view_, devicePixelRatioF(), fade_, cutFill_},
                            true);
    update();
}

void PlanView::setView(Vec2 centre, double scale) {
    view_.centre = centre;
    view_.scale = withinZoom(scale);
    refresh();
    Q_EMIT viewChanged();
}

void PlanView::fitTo(const geometry::Box& box) {
    if (box.empty()) return setView({0, 0}, 10);
    const double scale =
        std::min(width() / std::max(box.width(), 1e-3), height() / std::max(box.height(), 1e-3)) * 0.9;
    setView(box.centre(), std::min(scale, 400.0));
}

double PlanView::withinZoom(double scale) {
    // Beyond these nothing could be told apart, or found again.
    constexpr double most = 20000;
    if (extentOf_ != session_.snapshot()) {
        // Panning and zooming ask for it at each step; only other results have another extent.
        extentOf_ = session_.snapshot();
        geometry::Box box;
        for (const auto& [id, object] : session_.derived().document.objects())
            if (const PlanLayer& layer = layerOf(layers_, *object); !layer.passes().empty())
                layer.bounds(session_.derived(), id, box);
        extent_ = std::max(box.width(), box.height());
    }
    const double least = extent_ > 0 ? std::max(1e-4, 20 / std::max(extent_, 1.0)) : 1e-4;
    return std::clamp(scale, std::min(least, 1.0), most);
}

void PlanView::fit() {
    // To what is drawn; a picture below it counts when there is nothing else.
    const auto drawn = [this](bool backdrops) {
        geometry::Box box;
        for (const auto& [id, object] : session_.derived().document.objects()) {
            const PlanLayer& layer = layerOf(layers_, *object);
            const auto passes = layer.passes();
            if (!passes.empty() && (passes == std::vector{PlanPass::Backdrops}) == backdrops)
                layer.bounds(session_.derived(), id, box);
        }
        return box;
    };
    const geometry::Box box = drawn(false);
    fitTo(box.empty() ? drawn(true) : box);
}

void PlanView::setTool(Tool* tool) {
    tool_ = tool;
    pickedUp_.reset();
    if (tool_ != nullptr) connect(tool_, &Tool::changed, this, qOverload<>(&QWidget::update));
    update();
}

void PlanView::resizeEvent(QResizeEvent* event) {
    // What is seen stays where it is on the screen when the bench below gives or takes room.
    if (event->oldSize().height() > 0 && event->oldSize().width() == width())
        view_.centre.y -= (height() - event->oldSize().height()) / 2.0 / view_.scale;
    refresh();
}

// ---- painting

void PlanView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), theme::paper);
    if (!picture_.image.isNull()) {
        // The last picture, moved and scaled to where it belongs now.
        const double f = view_.scale / picture_.view.scale;
        const QPointF corner = view_.toPicture(picture_.view.toGround({0, 0}));
        painter.setRenderHint(QPainter::SmoothPixmapTransform, f != 1);
        painter.drawImage(QRectF(corner, picture_.view.size * f), picture_.image);
    }
    paintSelection(painter);
    paintFindings(painter);
    if (tool_ != nullptr) tool_->paintGhost(painter, view_);
    paintHover(painter);
    paintScaleBar(painter);
    if (fade_) paintCaption(painter);
    paintStale(painter);
    if (session_.document().objects().empty()) paintEmpty(painter);
}

// ---- mouse and keys

void PlanView::updateSnap(QPointF at) {
    const auto snapshot = session_.snapshot();
    auto found = snapsAt(*snapshot, view_, layers_, at, 9, tool_ != nullptr ? tool_->origin() : std::nullopt,
                         &session_.textsShown());
    // One entry for each thing: the best snap of an object hides its weaker ones.
    stacked_.clear();
    for (Snap& s : found) {
        const bool known = std::any_of(stacked_.begin(), stacked_.end(), [&](const Snap& t) {
            return t.ref.object == s.ref.object &&
                   (!s.ref.part || t.ref.part == s.ref.part || s.kind == SnapKind::Line);
        });
        if (!known) stacked_.push_back(std::move(s));
    }
    if (tool_ != nullptr)
        std::stable_partition(stacked_.begin(), stacked_.end(),
                              [this](const Snap& s) { return tool_->accepts(s); });
    // What is selected comes before what lies over it.
    if (tool_ != nullptr)
        std::stable_partition(stacked_.begin(), stacked_.end(), [this](const Snap& s) {
            return tool_->accepts(s) && session_.selection().holds(s.ref.object);
        });
    if (tool_ != nullptr)
        for (Snap& own : tool_->ownPlaces()) {
            own.distance = geometry::distance(own.place, view_.toGround(at)) * view_.scale;
            if (own.distance <= 9) stacked_.insert(stacked_.begin(), std::move(own));
        }
    stackedAt_ = 0;
    if (stacked_.empty()) {
        Snap surface;
        surface.place = view_.toGround(at);
        surface.height = snapshot->derived.topHeight(surface.place);
        surface.name = QString::fromStdString(
            formatPosition(surface.place.x, surface.place.y, session_.document().settings().display));
        snap_ = surface;
    } else {
        snap_ = stacked_.front();
    }
}

void PlanView::mouseMoveEvent(QMouseEvent* event) {
    const QPointF at = event->position();
    const QPointF moved = press_.step(at);
    if (panning_) {
        setView({view_.centre.x - moved.x() / view_.scale, view_.centre.y + moved.y() / view_.scale},
                view_.scale);
        return;
    }
    if (dragging_ && (event->buttons() & Qt::LeftButton) != 0) {
        dragTo(at);
    } else {
        updateSnap(at);
        if (tool_ != nullptr && pickedUp_ && press_.isDrag(at)) {
            tool_->pickUp(*pickedUp_);
            pickedUp_.reset();
        }
        if (tool_ != nullptr) tool_->hoverAt(*snap_);
    }
    session_.selection().setHover(Hover{view_.toGround(at),
                                        snap_ && snap_->ref.object ? std::optional(snap_->ref) : std::nullopt,
                                        snap_ ? snap_->height : std::nullopt});
    Q_EMIT cursorMoved(view_.toGround(at));
    update();
}

void PlanView::leaveEvent(QEvent*) {
    snap_.reset();
    session_.selection().setHover(std::nullopt);
    Q_EMIT cursorMoved(std::nullopt);
    update();
}

void PlanView::mousePressEvent(QMouseEvent* event) {
    setFocus();
    press_.begin(event->position());
    if (event->button() != Qt::LeftButton) {
        panning_ = true;
        return;
    }
    if (!snap_ || snap_->kind == SnapKind::Surface ||
        geometry::distance(snap_->place, view_.toGround(event->position())) * view_.scale > 12)
        updateSnap(event->position());
    if (tool_ != nullptr) {
        if (!snap_->ref.object && snap_->ref.part) pickedUp_ = snap_;
        return;
    }
    if (snap_->kind == SnapKind::Surface || snap_->kind == SnapKind::Dense) {
        panning_ = true;
        return;
    }
    pick(*snap_, event->modifiers());
    startDrag(*snap_);
}

void PlanView::startDrag(const Snap& snap) {
    if (dragged(snap.ref, snap.place)) dragging_ = snap;
}

std::optional<document::Edit> PlanView::dragged(const Ref& ref, Vec2 place) const {
    const auto object = session_.document().find(ref.object);
    return object ? layerOf(layers_, *object).dragged(ref, place) : std::nullopt;
}

void PlanView::dragTo(QPointF at) {
    if (!press_.isDrag(at)) return;
    if (const auto edit = dragged(dragging_->ref, view_.toGround(at))) session_.preview(*edit);
}

void PlanView::mouseReleaseEvent(QMouseEvent* event) {
    const bool moved = press_.isDrag(event->position());
    if (panning_) {
        panning_ = false;
        if (!moved && event->button() == Qt::RightButton) {
            updateSnap(event->position());
            Q_EMIT menuWanted(event->globalPosition().toPoint(), under());
            return;
        }
        if (!moved && event->button() == Qt::LeftButton && tool_ == nullptr &&
            (event->modifiers() & Qt::ShiftModifier) == 0)
            session_.selection().set({});
        return;
    }
    if (event->button() != Qt::LeftButton) return;
    if (tool_ != nullptr) {
        pickedUp_.reset();
        tool_->clickAt(*snap_);
        return;
    }
    if (dragging_ && moved) {
        if (const auto edit = dragged(dragging_->ref, view_.toGround(event->position())))
            session_.edit(tr("Move %1").arg(dragging_->name), *edit);
        else
            session_.endPreview();
    }
    dragging_.reset();
}

void PlanView::mouseDoubleClickEvent(QMouseEvent* event) {
    if (tool_ != nullptr && event->button() == Qt::LeftButton) tool_->complete();
}

void PlanView::pick(const Snap& snap, Qt::KeyboardModifiers modifiers) {
    const Ref ref = snap.ref;
    if ((modifiers & Qt::ShiftModifier) == 0) return session_.selection().set({ref});
    auto refs = session_.selection().refs();
    const auto it = std::find(refs.begin(), refs.end(), ref);
    if (it == refs.end())
        refs.push_back(ref);
    else
        refs.erase(it);
    session_.selection().set(std::move(refs));
}

std::optional<Ref> PlanView::under() const {
    return snap_ && snap_->ref.object ? std::optional(snap_->ref) : std::nullopt;
}

void PlanView::contextMenuEvent(QContextMenuEvent* event) {
    // The mouse's own comes when its button is let go and nothing was dragged.
    if (event->reason() != QContextMenuEvent::Keyboard) return;
    // The key means what is selected; the mouse may lie anywhere.
    if (!session_.selection().empty())
        return Q_EMIT menuWanted(mapToGlobal(rect().center()), session_.selection().front());
    Q_EMIT menuWanted(mapToGlobal(underMouse() ? press_.last().toPoint() : rect().center()),
                      underMouse() ? under() : std::nullopt);
}

void PlanView::wheelEvent(QWheelEvent* event) {
    const double f = std::pow(1.0015, event->angleDelta().y());
    const Vec2 fixed = view_.toGround(event->position());
    const double scale = withinZoom(view_.scale * f);
    const double g = view_.scale / scale;
    setView({fixed.x + (view_.centre.x - fixed.x) * g, fixed.y + (view_.centre.y - fixed.y) * g}, scale);
}

bool PlanView::focusNextPrevChild(bool next) {
    // Tab steps through what lies on top of each other; without anything there it goes on to the next
    // control.
    if (stacked_.size() < 2 || !underMouse()) return QWidget::focusNextPrevChild(next);
    stackedAt_ = (stackedAt_ + (next ? 1 : stacked_.size() - 1)) % stacked_.size();
    snap_ = stacked_[stackedAt_];
    if (tool_ != nullptr) tool_->hoverAt(*snap_);
    update();
    return true;
}

void PlanView::keyPressEvent(QKeyEvent* event) {
    const double step = 60 / view_.scale;
    switch (event->key()) {
        case Qt::Key_Left:
            return setView({view_.centre.x - step, view_.centre.y}, view_.scale);
        case Qt::Key_Right:
            return setView({view_.centre.x + step, view_.centre.y}, view_.scale);
        case Qt::Key_Up:
            return setView({view_.centre.x, view_.centre.y + step}, view_.scale);
        case Qt::Key_Down:
            return setView({view_.centre.x, view_.centre.y - step}, view_.scale);
        case Qt::Key_PageUp:
            return setView(view_.centre, view_.scale * 1.25);
        case Qt::Key_PageDown:
            return setView(view_.centre, view_.scale / 1.25);
        case Qt::Key_Delete:
            Q_EMIT deletePressed();
            return;
        default:
            break;
    }
    const QString text = event->text();
    if (tool_ != nullptr && !text.isEmpty() && text.front().isPrint() &&
        (event->modifiers() & ~(Qt::ShiftModifier | Qt::KeypadModifier)) == 0) {
        Q_EMIT typed(text);
        return;
    }
    QWidget::keyPressEvent(event);
}

}  // namespace erdwerk::app

#include "moc_plan_view.cpp"
