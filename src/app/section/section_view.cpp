#include "app/section/section_view.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <cmath>

#include "app/base/theme.h"

namespace erdwerk::app {

SectionView::SectionView(QWidget* parent) : QWidget(parent), scroll_(new QScrollBar(Qt::Horizontal, this)) {
    setMouseTracking(true);
    setMinimumSize(240, 80);
    setFocusPolicy(Qt::ClickFocus);
    setAccessibleName(tr("Long-section"));
    scroll_->hide();
    scroll_->setAccessibleName(tr("Along the section"));
    connect(scroll_, &QScrollBar::valueChanged, this, qOverload<>(&QWidget::update));
}

void SectionView::setData(SectionData next) {
    data_ = std::move(next);
    fitScroll();
    update();
}

void SectionView::setMarked(std::optional<double> distance) {
    marked_ = distance;
    update();
}

void SectionView::setActive(std::optional<std::size_t> handle) {
    active_ = handle;
    update();
}

SectionLook SectionView::look() const {
    SectionLook out;
    out.active = active_;
    if (perUnit_ > 0) {
        out.perUnit = perUnit_;
        out.scrolled = scroll_->value() / perUnit_;
    }
    return out;
}

SectionView::Frame SectionView::frame() const {
    if (frozen_) return *frozen_;
    const int bar = scroll_->isVisibleTo(this) ? scroll_->height() : 0;
    return SectionPainter::frameFor(data_, QRectF(rect()).adjusted(0, 0, 0, -bar), look());
}

void SectionView::setScale(double perUnit) {
    if (perUnit_ == perUnit) return;
    perUnit_ = perUnit;
    fitScroll();
    update();
}

void SectionView::fitScroll() {
    const auto [from, to] = SectionPainter::extent(data_);
    const double room = width() - 70;
    const double whole = perUnit_ > 0 ? std::min((to - from) * perUnit_, 1e8) : 0;
    const bool needed = whole > room;
    scroll_->setVisible(needed);
    const int high = scroll_->sizeHint().height();
    scroll_->setGeometry(54, height() - high, std::max(10, width() - 70), high);
    scroll_->setRange(0, needed ? static_cast<int>(whole - room) : 0);
    scroll_->setPageStep(static_cast<int>(std::max(10.0, room)));
    scroll_->setSingleStep(40);
}

void SectionView::wheelEvent(QWheelEvent* event) {
    if (!scroll_->isVisibleTo(this)) return QWidget::wheelEvent(event);
    scroll_->setValue(scroll_->value() - event->angleDelta().y() - event->angleDelta().x());
    event->accept();
}

double SectionView::shownExaggeration() const {
    return frame().exaggeration();
}

QPointF SectionView::handlePosition(std::size_t i) const {
    return frame().map(data_.handles[i].distance, data_.handles[i].height);
}

void SectionView::paintEvent(QPaintEvent*) {
    QPainter painter(this);
    painter.fillRect(rect(), theme::paper);
    if (data_.series.empty() && data_.handles.empty()) {
        painter.setPen(theme::inkQuiet);
        painter.drawText(rect().adjusted(12, 0, -12, 0), Qt::AlignCenter | Qt::TextWordWrap, data_.empty);
        return;
    }
    const Frame f = frame();
    const SectionLook shown = look();
    SectionPainter(painter, data_, shown).paint(f);
    if (marked_ && *marked_ >= f.minX && *marked_ <= f.maxX) {
        painter.setPen(QPen(theme::clay, 1.2));
        const double x = f.map(*marked_, 0).x();
        painter.drawLine(QPointF(x, f.area.top()), QPointF(x, f.area.bottom()));
        painter.setFont(theme::font(11, true));
        // Below the legend, over whatever stands there.
        const QString text = data_.station ? data_.station(*marked_) : QString();
        const double wide = QFontMetricsF(painter.font()).horizontalAdvance(text) + 8;
        const QRectF room(std::clamp(x - wide / 2, 0.0, std::max(0.0, width() - wide)), 17, wide, 15);
        painter.fillRect(room, theme::panel);
        painter.drawText(room, Qt::AlignCenter, text);
    }
}

std::optional<std::size_t> SectionView::handleAt(QPointF at) const {
    std::optional<std::size_t> best;
    double nearest = 9;
    for (std::size_t i = 0; i < data_.handles.size(); ++i) {
        const QPointF d = handlePosition(i) - at;
        const double size = std::hypot(d.x(), d.y());
        if (size < nearest) {
            nearest = size;
            best = i;
        }
    }
    return best;
}

std::optional<std::size_t> SectionView::stretchAt(QPointF at) const {
    if (!data_.stretches) return std::nullopt;
    for (std::size_t i = 0; i + 1 < data_.handles.size(); ++i) {
        const QPointF a = handlePosition(i);
        const QPointF b = handlePosition(i + 1);
        if (at.x() < a.x() + 10 || at.x() > b.x() - 10) continue;
        const double y = a.y() + (b.y() - a.y()) * (at.x() - a.x()) / (b.x() - a.x());
        if (std::abs(y - at.y()) < 6) return i;
    }
    return std::nullopt;
}

double SectionView::riseTo(QPointF at) const {
    const Frame f = frame();
    return f.heightAt(at.y()) - f.heightAt(press_.from().y());
}

double SectionView::pulledTo(QPointF at) const {
    return 2 * std::abs(frame().distanceAt(at.x()) - data_.handles[*dragging_].distance);
}

void SectionView::mousePressEvent(QMouseEvent* event) {
    press_.begin(event->position());
    pulling_ = data_.stretches && (event->modifiers() & Qt::ShiftModifier) != 0;
    dragging_ = handleAt(event->position());
    if (adding_ && !dragging_ && event->button() == Qt::LeftButton) {
        const Frame f = frame();
        Q_EMIT placeClicked(f.distanceAt(event->position().x()), f.heightAt(event->position().y()));
        return;
    }
    if (!dragging_) stretch_ = stretchAt(event->position());
    if (stretch_) frozen_ = frame();
    if (!dragging_) return;
    frozen_ = frame();
    Q_EMIT handleClicked(*dragging_);
}

void SectionView::mouseMoveEvent(QMouseEvent* event) {
    const Frame f = frame();
    const double distance = std::clamp(f.distanceAt(event->position().x()), f.minX, f.maxX);
    press_.step(event->position());
    // A hand that is not quite still moves nothing.
    if ((dragging_ || stretch_) && !press_.isDrag(event->position())) return;
    if (dragging_ && *dragging_ < data_.handles.size() && (event->buttons() & Qt::LeftButton) != 0) {
        if (pulling_) return Q_EMIT curvePulled(*dragging_, pulledTo(event->position()), false);
        const auto& h = data_.handles[*dragging_];
        Q_EMIT handleDragged(*dragging_, h.along ? distance : h.distance, f.heightAt(event->position().y()));
        return;
    }
    if (stretch_ && (event->buttons() & Qt::LeftButton) != 0) {
        return Q_EMIT stretchDragged(*stretch_, riseTo(event->position()), false);
    }
    setCursor(handleAt(event->position()) || stretchAt(event->position()) ? Qt::SizeVerCursor
              : adding_                                                   ? Qt::CrossCursor
                                                                          : Qt::ArrowCursor);
    Q_EMIT hovered(distance);
}

void SectionView::mouseReleaseEvent(QMouseEvent* event) {
    const bool moved = press_.isDrag(event->position());
    if (stretch_ && moved) Q_EMIT stretchDragged(*stretch_, riseTo(event->position()), true);
    if (dragging_ && moved && pulling_ && *dragging_ < data_.handles.size())
        Q_EMIT curvePulled(*dragging_, pulledTo(event->position()), true);
    if (dragging_ && moved && !pulling_ && *dragging_ < data_.handles.size()) {
        const Frame f = frame();
        const auto& h = data_.handles[*dragging_];
        const double distance = std::clamp(f.distanceAt(event->position().x()), f.minX, f.maxX);
        Q_EMIT handleReleased(*dragging_, h.along ? distance : h.distance, f.heightAt(event->position().y()));
    }
    dragging_.reset();
    stretch_.reset();
    frozen_.reset();
    update();
}

void SectionView::keyPressEvent(QKeyEvent* event) {
    if (event->key() == Qt::Key_Escape && adding_) return setAdding(false);
    if (event->key() == Qt::Key_Delete && active_) return Q_EMIT handleDeleted(*active_);
    QWidget::keyPressEvent(event);
}

void SectionView::resizeEvent(QResizeEvent* event) {
    QWidget::resizeEvent(event);
    fitScroll();
    Q_EMIT resized();
}

void SectionView::setAdding(bool adding) {
    if (adding_ == adding) return;
    adding_ = adding;
    setCursor(adding ? Qt::CrossCursor : Qt::ArrowCursor);
    Q_EMIT addingChanged(adding);
}

QPointF SectionView::positionOf(double distance, double height) const {
    return frame().map(distance, height);
}

void SectionView::leaveEvent(QEvent*) {
    Q_EMIT hovered(std::nullopt);
}

}  // namespace erdwerk::app

#include "moc_section_view.cpp"
