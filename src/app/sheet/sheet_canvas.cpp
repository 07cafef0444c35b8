#include "app/sheet/sheet_canvas.h"

#include <QContextMenuEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QWheelEvent>
#include <algorithm>
#include <cmath>

#include "app/base/theme.h"
#include "core/operations/sheets.h"

namespace erdwerk::app {

namespace {

constexpr double reachPixels = 6;
constexpr double guidePixels = 7;

Qt::CursorShape cursorOf(const paper::Grip& grip) {
    if (grip.whole()) return Qt::SizeAllCursor;
    if (grip.across == 0) return Qt::SizeVerCursor;
    if (grip.down == 0) return Qt::SizeHorCursor;
    return grip.across == grip.down ? Qt::SizeFDiagCursor : Qt::SizeBDiagCursor;
}

QString millimetres(double v) {
    return QString::number(v, 'f', 1);
}

}  // namespace

SheetCanvas::SheetCanvas(Session& session, QWidget* parent) : QWidget(parent), session_(session) {
    setObjectName(QStringLiteral("sheet"));
    setAccessibleName(tr("Sheet"));
    setMouseTracking(true);
    setFocusPolicy(Qt::StrongFocus);
    setMinimumSize(200, 120);
    worker_ = std::make_unique<LatestWorker<Request, Picture>>(
        this, &SheetCanvas::paintPicture,
        [this](Picture picture) {
            picture_ = std::move(picture);
            update();
            Q_EMIT pictureChanged();
        },
        [](const QString&) {});
    connect(&session_, &Session::resultsChanged, this, &SheetCanvas::refresh);
    connect(&session_, &Session::documentChanged, this, [this] {
        // The sheet may be gone, or another frame stand in that place: it is not the one that was taken.
        if (drag_ && (of() == nullptr || drag_->frame >= of()->frames.size() ||
                      !(of()->frames[drag_->frame] == drag_->was)))
            drag_.reset();
        if (fitted_) fit();
        update();
    });
    connect(&session_.selection(), &Selection::changed, this, qOverload<>(&QWidget::update));
}

SheetCanvas::~SheetCanvas() = default;

const objects::Sheet* SheetCanvas::of() const {
    return session_.document().get<objects::Sheet>(sheet_);
}

void SheetCanvas::setSheet(ObjectId sheet) {
    if (sheet_ == sheet) return;
    sheet_ = sheet;
    drag_.reset();
    hovered_.reset();
    fit();
}

void SheetCanvas::fit() {
    fitted_ = true;
    if (const auto* sheet = of(); sheet != nullptr) {
        const double room = 18;
        scale_ = std::max(
            0.05, std::min((width() - 2 * room) / sheet->paper[0], (height() - 2 * room) / sheet->paper[1]));
        corner_ = {(width() - sheet->paper[0] * scale_) / 2, (height() - sheet->paper[1] * scale_) / 2};
    }
    refresh();
    update();
}

void SheetCanvas::zoom(double factor) {
    const QPointF middle(width() / 2.0, height() / 2.0);
    const double next = std::clamp(scale_ * factor, 0.1, 40.0);
    corner_ = middle - (middle - corner_) * (next / scale_);
    scale_ = next;
    fitted_ = false;
    refresh();
    update();
}

QPointF SheetCanvas::toScreen(double x, double y) const {
    return corner_ + QPointF(x, y) * scale_;
}
QPointF SheetCanvas::toPaper(QPointF at) const {
    return (at - corner_) / scale_;
}
QRectF SheetCanvas::onScreen(const paper::Room& room) const {
    return {toScreen(room.left, room.top), toScreen(room.right(), room.bottom())};
}

// ---- the picture

void SheetCanvas::refresh() {
    if (!isVisible()) return;
    const auto snapshot = session_.snapshot();
    if (snapshot->derived.document.get<objects::Sheet>(sheet_) == nullptr) return;
    // Zoomed in, no finer than some ten million pixels.
    const auto& paper = snapshot->derived.document.get<objects::Sheet>(sheet_)->paper;
    const double mm = std::min(scale_ * devicePixelRatioF(), std::sqrt(16e6 / (paper[0] * paper[1])));
    Request next{snapshot, sheet_, mm};
    if (asked_ && asked_->snapshot == next.snapshot && asked_->sheet == next.sheet && asked_->mm == next.mm)
        return;
    asked_ = next;
    worker_->request(std::move(next), true);
}

std::optional<SheetCanvas::Picture> SheetCanvas::paintPicture(const Request& request,
                                                              const std::atomic<bool>& cancel) {
    const auto& paper = request.snapshot->derived.document.get<objects::Sheet>(request.sheet)->paper;
    Picture out{QImage(std::max(1, static_cast<int>(std::lround(paper[0] * request.mm))),
                       std::max(1, static_cast<int>(std::lround(paper[1] * request.mm))),
                       QImage::Format_ARGB32_Premultiplied),
                request.mm,
                request.snapshot,
                request.sheet,
                {}};
    out.image.fill(Qt::white);
    QPainter painter(&out.image);
    out.shown = paintSheet(painter, *request.snapshot, request.sheet, request.mm, {}, &cancel);
    if (cancel.load()) return std::nullopt;
    return out;
}

bool SheetCanvas::settled() const {
    return worker_->idle() && picture_.snapshot == session_.snapshot() && picture_.sheet == sheet_;
}

// ---- painting

void SheetCanvas::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), QColor(0xE6, 0xE1, 0xD6));
    const auto* sheet = of();
    if (sheet == nullptr) {
        painter.setPen(theme::inkQuiet);
        painter.drawText(rect(), Qt::AlignCenter, tr("There is no sheet yet: make one with New sheet."));
        return;
    }
    const QRectF paper = onScreen(objects::paperRoom(*sheet));
    painter.fillRect(paper.translated(3, 3), QColor(0, 0, 0, 40));
    painter.fillRect(paper, Qt::white);
    if (picture_.sheet == sheet_ && !picture_.image.isNull()) {
        painter.setRenderHint(QPainter::SmoothPixmapTransform);
        const QSizeF size = QSizeF(picture_.image.size()) / picture_.mm * scale_;
        painter.drawImage(QRectF(paper.topLeft(), size), picture_.image);
    } else {
        painter.setPen(theme::inkQuiet);
        painter.drawText(paper, Qt::AlignCenter, tr("The sheet is being drawn …"));
    }
    paintFrames(painter);
    if (drag_ && drag_->moved) paintDrag(painter);
}

void SheetCanvas::paintFrames(QPainter& painter) {
    painter.setBrush(Qt::NoBrush);
    const auto& frames = of()->frames;
    const auto selected = selectedFrame();
    for (std::size_t i = 0; i < frames.size(); ++i) {
        if (i == selected || i == hovered_) continue;
        painter.setPen(QPen(QColor(0x6B, 0x77, 0x80, 110), 1, Qt::DotLine));
        painter.drawRect(onScreen(frames[i].room));
    }
    if (hovered_ && *hovered_ < frames.size() && hovered_ != selected) {
        painter.setPen(QPen(theme::spruce, 1.4));
        painter.drawRect(onScreen(frames[*hovered_].room));
    }
    if (!selected) return;
    const QRectF at = onScreen(frames[*selected].room);
    painter.setPen(QPen(theme::clay, 1.8));
    painter.drawRect(at);
    painter.setBrush(theme::panel);
    for (const double x : {at.left(), at.center().x(), at.right()})
        for (const double y : {at.top(), at.center().y(), at.bottom()})
            if (QPointF(x, y) != at.center()) painter.drawRect(QRectF(x - 3, y - 3, 6, 6));
    painter.setBrush(Qt::NoBrush);
}

void SheetCanvas::paintDrag(QPainter& painter) {
    const auto& now = drag_->now;
    const QRectF at = onScreen(now.room);
    if (picture_.sheet == sheet_ && drag_->grip.whole()) {
        // In its frame, or with it.
        painter.save();
        painter.setClipRect(at);
        if (drag_->inside) painter.fillRect(at, Qt::white);
        const auto& r = drag_->was.room;
        const QRectF part(r.left * picture_.mm, r.top * picture_.mm, r.width * picture_.mm,
                          r.height * picture_.mm);
        painter.setOpacity(0.6);
        painter.drawImage(drag_->inside ? at.translated(drag_->by * scale_) : at, picture_.image, part);
        painter.restore();
    }
    painter.setPen(QPen(theme::clay, 1.8, Qt::DashLine));
    painter.drawRect(at);
    const QRectF paper = onScreen(objects::paperRoom(*of()));
    painter.setPen(QPen(theme::spruce, 1.2, Qt::DashLine));
    if (now.x) {
        const double x = toScreen(*now.x, 0).x();
        painter.drawLine(QPointF(x, paper.top()), QPointF(x, paper.bottom()));
    }
    if (now.y) {
        const double y = toScreen(0, *now.y).y();
        painter.drawLine(QPointF(paper.left(), y), QPointF(paper.right(), y));
    }
    if (drag_->inside) return;
    const QString words = tr("%1 from left, %2 from top, %3 x %4 mm")
                              .arg(millimetres(now.room.left), millimetres(now.room.top),
                                   millimetres(now.room.width), millimetres(now.room.height));
    painter.setFont(theme::font(12, true));
    const QFontMetricsF metrics(painter.font());
    QRectF label(at.topLeft() + QPointF(4, -22), QSizeF(metrics.horizontalAdvance(words) + 12, 19));
    label.moveLeft(std::clamp(label.left(), 2.0, std::max(2.0, width() - label.width() - 2)));
    label.moveTop(std::max(2.0, label.top()));
    painter.setPen(Qt::NoPen);
    painter.setBrush(theme::panel);
    painter.drawRoundedRect(label, 3, 3);
    painter.setBrush(Qt::NoBrush);
    painter.setPen(theme::ink);
    painter.drawText(label, Qt::AlignCenter, words);
}

// ---- the mouse

std::optional<std::size_t> SheetCanvas::selectedFrame() const {
    const auto& chosen = session_.selection();
    const auto* sheet = of();
    if (sheet == nullptr || chosen.size() != 1 || chosen.front().object != sheet_ || !chosen.front().part ||
        *chosen.front().part >= sheet->frames.size())
        return std::nullopt;
    return chosen.front().part;
}

std::optional<SheetCanvas::Taken> SheetCanvas::under(QPointF at) const {
    const auto* sheet = of();
    if (sheet == nullptr) return std::nullopt;
    const QPointF p = toPaper(at);
    const double reach = reachPixels / scale_;
    if (const auto selected = selectedFrame())
        if (const auto grip = paper::gripAt(sheet->frames[*selected].room, p.x(), p.y(), reach);
            grip && !grip->whole())
            return std::pair(*selected, *grip);
    for (std::size_t i = sheet->frames.size(); i-- > 0;)
        if (paper::gripAt(sheet->frames[i].room, p.x(), p.y(), 0))
            return std::pair(
                i, selectedFrame() == i
                       ? paper::gripAt(sheet->frames[i].room, p.x(), p.y(), reach).value_or(paper::Grip{})
                       : paper::Grip{});
    return std::nullopt;
}

void SheetCanvas::mousePressEvent(QMouseEvent* event) {
    setFocus();
    press_.begin(event->position());
    if (event->button() == Qt::MiddleButton || event->button() == Qt::RightButton) {
        panning_ = true;
        return;
    }
    if (event->button() != Qt::LeftButton || of() == nullptr) return;
    const auto taken = under(event->position());
    if (!taken) {
        session_.selection().set({{sheet_, std::nullopt}});
        return;
    }
    const auto [frame, grip] = *taken;
    session_.selection().set({{sheet_, frame}});
    const auto& was = of()->frames[frame];
    // With Shift the plan is moved in its frame.
    const bool inside = event->modifiers().testFlag(Qt::ShiftModifier) &&
                        std::holds_alternative<objects::PlanFrame>(was.content);
    drag_ = Drag{frame, inside ? paper::Grip{} : grip, toPaper(event->position()), was, {was.room}, false,
                 inside};
}

void SheetCanvas::mouseMoveEvent(QMouseEvent* event) {
    if (panning_) {
        if (!press_.isDrag(event->position())) return;
        corner_ += press_.step(event->position());
        fitted_ = false;
        update();
        return;
    }
    if (drag_) return dragTo(event->position(), event->modifiers().testFlag(Qt::AltModifier));
    const auto below = under(event->position());
    const auto frame = below ? std::optional(below->first) : std::nullopt;
    setCursor(below && selectedFrame() == below->first ? cursorOf(below->second) : Qt::ArrowCursor);
    if (frame == hovered_) return;
    hovered_ = frame;
    setToolTip(frame ? QString::fromStdString(operations::frameTitle(session_.document(), *of(), *frame))
                     : QString());
    update();
}

void SheetCanvas::dragTo(QPointF at, bool free) {
    const auto* sheet = of();
    if (sheet == nullptr || drag_->frame >= sheet->frames.size()) return drag_.reset();
    const QPointF by = toPaper(at) - drag_->from;
    // A hand that shakes while clicking does not drag.
    if (!drag_->moved && std::hypot(by.x(), by.y()) * scale_ < 4) return;
    drag_->moved = true;
    drag_->by = by;
    if (drag_->inside) return update();
    const auto room = paper::dragged(drag_->was.room, drag_->grip, by.x(), by.y());
    std::vector<paper::Room> others;
    for (std::size_t i = 0; i < sheet->frames.size(); ++i)
        if (i != drag_->frame) others.push_back(sheet->frames[i].room);
    drag_->now =
        free ? paper::Guided{room}
             : paper::guided(room, drag_->grip, objects::innerRoom(*sheet), others, guidePixels / scale_);
    // Tenths of a millimetre, where no guide says otherwise; and on the paper.
    const auto tenth = [](double v) { return std::round(v * 10) / 10; };
    if (!drag_->now.x && drag_->grip.whole()) drag_->now.room.left = tenth(drag_->now.room.left);
    if (!drag_->now.y && drag_->grip.whole()) drag_->now.room.top = tenth(drag_->now.room.top);
    auto& now = drag_->now.room;
    if (const auto paperRoom = objects::paperRoom(*sheet); drag_->grip.whole()) {
        if (!paper::isWithin(now, paperRoom)) now = paper::broughtWithin(now, paperRoom);
    } else {
        // An edge stops at that of the paper.
        const double right = std::min(now.right(), paperRoom.right());
        const double bottom = std::min(now.bottom(), paperRoom.bottom());
        now.left = std::max(now.left, paperRoom.left);
        now.top = std::max(now.top, paperRoom.top);
        now.width = right - now.left;
        now.height = bottom - now.top;
    }
    update();
}

bool SheetCanvas::endDrag() {
    if (!drag_) return false;
    const bool moved = drag_->moved;
    drag_.reset();
    update();
    return moved;
}

void SheetCanvas::mouseReleaseEvent(QMouseEvent* event) {
    if (panning_ && event->button() != Qt::LeftButton) {
        panning_ = false;
        if (event->button() == Qt::RightButton && !press_.isDrag(event->position()))
            askForMenu(event->globalPosition().toPoint(), under(event->position()));
        return;
    }
    if (event->button() != Qt::LeftButton || !drag_) return;
    const Drag done = *drag_;
    drag_.reset();
    update();
    if (done.moved && done.inside) {
        session_.edit(tr("Move a plan in its frame"),
                      operations::moveInFrame(sheet_, done.frame, done.by.x(), done.by.y()));
        return;
    }
    if (!done.moved || done.now.room == done.was.room || of() == nullptr || done.frame >= of()->frames.size())
        return;
    const QString name = QString::fromStdString(operations::frameName(*of(), done.frame));
    session_.edit(done.grip.whole() ? tr("Move %1").arg(name) : tr("Size %1").arg(name),
                  operations::setRoom(sheet_, done.frame, done.now.room));
}

void SheetCanvas::mouseDoubleClickEvent(QMouseEvent* event) {
    endDrag();
    if (const auto taken = under(event->position())) Q_EMIT openFrame(taken->first);
}

void SheetCanvas::wheelEvent(QWheelEvent* event) {
    const double next = std::clamp(scale_ * std::pow(1.0015, event->angleDelta().y()), 0.1, 40.0);
    const QPointF at = event->position();
    corner_ = at - (at - corner_) * (next / scale_);
    scale_ = next;
    fitted_ = false;
    refresh();
    update();
}

void SheetCanvas::nudge(double dx, double dy) {
    const auto frame = selectedFrame();
    if (!frame) return;
    auto room = of()->frames[*frame].room;
    room.left += dx;
    room.top += dy;
    room = paper::broughtWithin(room, objects::paperRoom(*of()));
    session_.edit(tr("Move %1").arg(QString::fromStdString(operations::frameName(*of(), *frame))),
                  operations::setRoom(sheet_, *frame, room));
}

void SheetCanvas::keyPressEvent(QKeyEvent* event) {
    const double step = event->modifiers().testFlag(Qt::ShiftModifier) ? 10 : 1;
    switch (event->key()) {
        case Qt::Key_Left:
            return nudge(-step, 0);
        case Qt::Key_Right:
            return nudge(step, 0);
        case Qt::Key_Up:
            return nudge(0, -step);
        case Qt::Key_Down:
            return nudge(0, step);
        case Qt::Key_Plus:
            return zoom(1.25);
        case Qt::Key_Minus:
            return zoom(0.8);
        case Qt::Key_Home:
            return fit();
        case Qt::Key_Delete:
            Q_EMIT deletePressed();
            return;
        default:
            QWidget::keyPressEvent(event);
    }
}

void SheetCanvas::contextMenuEvent(QContextMenuEvent* event) {
    // The mouse's own comes when its button is let go and nothing was dragged.
    if (event->reason() == QContextMenuEvent::Keyboard) askForMenu(event->globalPos(), std::nullopt);
}

void SheetCanvas::askForMenu(QPoint at, const std::optional<Taken>& taken) {
    std::optional<Ref> what;
    if (taken) what = Ref{sheet_, taken->first};
    Q_EMIT menuWanted(at, what);
}

void SheetCanvas::resizeEvent(QResizeEvent*) {
    if (fitted_) fit();
}

}  // namespace erdwerk::app

#include "moc_sheet_canvas.cpp"
