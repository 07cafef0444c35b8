#include "app/section/section_view.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QPainterPath>
#include <cmath>

#include "app/base/theme.h"
#include "app/plan/plan_painter.h"

namespace erdwerk::app {

SectionView::SectionView(QWidget* parent) : QWidget(parent) {
    setMouseTracking(true);
    setMinimumSize(240, 80);
    setFocusPolicy(Qt::ClickFocus);
    setAccessibleName(tr("Long-section"));
}

void SectionView::setData(SectionData next) {
    data_ = std::move(next);
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

QPointF SectionView::Frame::map(double x, double z) const {
    return {area.left() + (x - minX) / (maxX - minX) * area.width(),
            area.bottom() - (z - minZ) / (maxZ - minZ) * area.height()};
}
double SectionView::Frame::distanceAt(double px) const {
    return minX + (px - area.left()) / area.width() * (maxX - minX);
}
double SectionView::Frame::heightAt(double py) const {
    return minZ + (area.bottom() - py) / area.height() * (maxZ - minZ);
}

SectionView::Frame SectionView::frame() const {
    if (frozen_) return *frozen_;
    Frame f;
    f.area = QRectF(rect()).adjusted(54, 34, -16, -24);  // the legend stands above
    bool any = false;
    const auto add = [&](double x, std::optional<double> z) {
        if (!any) {
            f.minX = f.maxX = x;
            f.minZ = 1e300;
            f.maxZ = -1e300;
            any = true;
        }
        f.minX = std::min(f.minX, x);
        f.maxX = std::max(f.maxX, x);
        if (z) {
            f.minZ = std::min(f.minZ, *z);
            f.maxZ = std::max(f.maxZ, *z);
        }
    };
    for (const auto& s : data_.series)
        for (const auto& p : s.points) add(p.distance, p.height);
    for (const auto& h : data_.handles) add(h.distance, h.height);
    if (f.maxX <= f.minX) f.maxX = f.minX + 1;
    if (f.minZ > f.maxZ) f.minZ = f.maxZ = 0;
    const double room = std::max((f.maxZ - f.minZ) * 0.16, 0.2);
    f.minZ -= room;
    f.maxZ += room;
    if (data_.exaggeration > 0) {
        // The wanted ratio, unless the heights would not fit.
        const double perUnit = f.area.width() / (f.maxX - f.minX) * data_.exaggeration;
        const double shown = f.area.height() / perUnit;
        if (shown > f.maxZ - f.minZ) {
            const double middle = (f.minZ + f.maxZ) / 2;
            f.minZ = middle - shown / 2;
            f.maxZ = middle + shown / 2;
        }
    }
    return f;
}

double SectionView::shownExaggeration() const {
    const Frame f = frame();
    return (f.area.height() / (f.maxZ - f.minZ)) / (f.area.width() / (f.maxX - f.minX));
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
    painter.setRenderHint(QPainter::Antialiasing);
    const Frame f = frame();
    paintGrid(painter, f);
    painter.setClipRect(f.area.adjusted(-8, -12, 8, 8));
    paintSpans(painter, f);
    if (data_.shadeDifference) paintDifference(painter, f);
    paintSeries(painter, f);
    paintMarks(painter, f);
    paintHandles(painter, f);
    painter.setClipping(false);
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

void SectionView::paintGrid(QPainter& painter, const Frame& f) {
    painter.setFont(theme::font(10));
    const double dx = roundStep(80 * (f.maxX - f.minX) / f.area.width());
    const double dz = roundStep(26 * (f.maxZ - f.minZ) / f.area.height());
    for (double x = std::ceil(f.minX / dx) * dx; x <= f.maxX + 1e-9; x += dx) {
        const double px = f.map(x, 0).x();
        painter.setPen(QPen(theme::hairline, 1));
        painter.drawLine(QPointF(px, f.area.top()), QPointF(px, f.area.bottom()));
        painter.setPen(theme::inkQuiet);
        painter.drawText(QRectF(px - 44, f.area.bottom() + 5, 88, 14), Qt::AlignCenter,
                         data_.station ? data_.station(x) : QString::number(x));
    }
    const int decimals = std::max(0, static_cast<int>(-std::floor(std::log10(dz))));
    for (double z = std::ceil(f.minZ / dz) * dz; z <= f.maxZ; z += dz) {
        const double py = f.map(0, z).y();
        painter.setPen(QPen(theme::hairline, 1));
        painter.drawLine(QPointF(f.area.left(), py), QPointF(f.area.right(), py));
        painter.setPen(theme::inkQuiet);
        painter.drawText(QRectF(0, py - 7, f.area.left() - 6, 14), Qt::AlignRight | Qt::AlignVCenter,
                         QString::number(z, 'f', decimals));
    }
    // What is drawn in which way; it moves to the left where there is little room.
    painter.setFont(theme::font(11));
    const QFontMetricsF metrics(painter.font());
    double total = 0;
    for (const auto& s : data_.series)
        if (!s.name.isEmpty()) total += metrics.horizontalAdvance(s.name) + 38;
    double x = std::clamp(f.area.right() + 12 - total, 2.0, f.area.left() + 6);
    for (const auto& s : data_.series) {
        if (s.name.isEmpty()) continue;
        painter.setPen(QPen(s.colour, s.width, s.dashed ? Qt::DashLine : Qt::SolidLine));
        painter.drawLine(QPointF(x, 9), QPointF(x + 18, 9));
        painter.setPen(theme::ink);
        const double w = metrics.horizontalAdvance(s.name);
        painter.drawText(QRectF(x + 22, 1, w + 4, 16), Qt::AlignVCenter, s.name);
        x += w + 38;
    }
    painter.setPen(theme::inkQuiet);
    painter.drawText(QRectF(f.area.right() - 120, 17, 120, 14), Qt::AlignRight | Qt::AlignVCenter,
                     tr("heights × %1").arg(shownExaggeration(), 0, 'f', 1));
}

void SectionView::paintSpans(QPainter& painter, const Frame& f) {
    painter.setFont(theme::font(10));
    for (const auto& span : data_.spans) {
        const double left = f.map(span.from, 0).x();
        const double right = f.map(std::min(span.to, f.maxX), 0).x();
        const QRectF room(left, f.area.top(), right - left, f.area.height());
        QColor shade = theme::ochre;
        shade.setAlpha(36);
        painter.fillRect(room, shade);
        shade.setAlpha(110);
        painter.fillRect(room, QBrush(shade, Qt::BDiagPattern));
        painter.setPen(theme::ink);
        const double wide = QFontMetricsF(painter.font()).horizontalAdvance(span.text);
        if (wide < room.width())
            painter.drawText(room.adjusted(0, 0, 0, -3), Qt::AlignHCenter | Qt::AlignBottom, span.text);
    }
}

void SectionView::paintDifference(QPainter& painter, const Frame& f) {
    if (data_.series.size() < 2) return;
    const auto& upper = data_.series[0].points;
    const auto& lower = data_.series[1].points;
    const auto at = [](const std::vector<SectionPoint>& points, double x) -> std::optional<double> {
        for (std::size_t i = 1; i < points.size(); ++i) {
            if (points[i].distance < x) continue;
            const auto& a = points[i - 1];
            const auto& b = points[i];
            if (!a.height || !b.height || a.distance > x || b.distance <= a.distance) return std::nullopt;
            return *a.height + (*b.height - *a.height) * (x - a.distance) / (b.distance - a.distance);
        }
        return std::nullopt;
    };
    for (double px = f.area.left(); px < f.area.right(); px += 2) {
        const double x = f.distanceAt(px + 1);
        const auto a = at(upper, x);
        const auto b = at(lower, x);
        if (!a || !b) continue;
        QColor colour = *a > *b ? theme::fill : theme::cut;
        colour.setAlpha(46);
        painter.fillRect(QRectF(QPointF(px, f.map(x, std::max(*a, *b)).y()),
                                QPointF(px + 2, f.map(x, std::min(*a, *b)).y())),
                         colour);
    }
}

void SectionView::paintSeries(QPainter& painter, const Frame& f) {
    for (auto s = data_.series.rbegin(); s != data_.series.rend(); ++s) {
        painter.setPen(QPen(s->colour, s->width, s->dashed ? Qt::DashLine : Qt::SolidLine));
        painter.setBrush(Qt::NoBrush);
        if (s->dots) {
            for (const auto& p : s->points)
                if (p.height)
                    painter.fillRect(
                        QRectF(f.map(p.distance, *p.height) - QPointF(0.8, 0.8), QSizeF(1.6, 1.6)),
                        s->colour);
            continue;
        }
        QPolygonF run;
        for (const auto& p : s->points) {
            if (p.height) {
                run << f.map(p.distance, *p.height);
                continue;
            }
            painter.drawPolyline(run);
            run.clear();
        }
        painter.drawPolyline(run);
    }
}

void SectionView::paintHandles(QPainter& painter, const Frame& f) {
    painter.setFont(theme::font(10));
    double lastText = -1e9;
    for (std::size_t i = 0; i < data_.handles.size(); ++i) {
        const auto& h = data_.handles[i];
        const QPointF p = f.map(h.distance, h.height);
        const bool active = active_ == i;
        painter.setPen(QPen(theme::clay, active ? 2.2 : 1.4));
        painter.setBrush(active ? theme::clay : theme::panel);
        if (h.square)
            painter.drawRect(QRectF(p - QPointF(3.5, 3.5), QSizeF(7, 7)));
        else
            painter.drawLine(p - QPointF(0, 5), p + QPointF(0, 5));
        if (p.x() - lastText < 64 && !active) continue;
        lastText = p.x();
        painter.setPen(theme::ink);
        QRectF room(p.x() - 60, p.y() - 20, 120, 14);
        const double half = QFontMetricsF(painter.font()).horizontalAdvance(h.text) / 2;
        room.translate(std::max(0.0, f.area.left() - 4 - (p.x() - half)) -
                           std::max(0.0, p.x() + half - f.area.right() - 6),
                       0);
        painter.drawText(room, Qt::AlignCenter, h.text);
    }
}

void SectionView::paintMarks(QPainter& painter, const Frame& f) {
    painter.setFont(theme::font(10));
    for (const SectionMark& m : data_.marks) {
        const QPointF p = f.map(m.distance, m.height);
        const double up = m.high ? -1 : 1;
        painter.setPen(QPen(theme::spruce, 1.4));
        painter.setBrush(theme::panel);
        painter.drawPolygon(QPolygonF{p, p + QPointF(-4, 7 * up), p + QPointF(4, 7 * up)});
        painter.setPen(theme::spruce);
        painter.drawText(QRectF(p.x() - 60, p.y() + (m.high ? -22 : 8), 120, 14), Qt::AlignCenter, m.text);
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
    return f.heightAt(at.y()) - f.heightAt(pressedAt_.y());
}

double SectionView::pulledTo(QPointF at) const {
    return 2 * std::abs(frame().distanceAt(at.x()) - data_.handles[*dragging_].distance);
}

void SectionView::mousePressEvent(QMouseEvent* event) {
    pressedAt_ = event->position();
    pulling_ = data_.stretches && (event->modifiers() & Qt::ShiftModifier) != 0;
    dragging_ = handleAt(event->position());
    moved_ = false;
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
    if (dragging_ && *dragging_ < data_.handles.size() && (event->buttons() & Qt::LeftButton) != 0) {
        moved_ = true;
        if (pulling_) return Q_EMIT curvePulled(*dragging_, pulledTo(event->position()), false);
        const auto& h = data_.handles[*dragging_];
        Q_EMIT handleDragged(*dragging_, h.along ? distance : h.distance, f.heightAt(event->position().y()));
        return;
    }
    if (stretch_ && (event->buttons() & Qt::LeftButton) != 0) {
        moved_ = true;
        return Q_EMIT stretchDragged(*stretch_, riseTo(event->position()), false);
    }
    setCursor(handleAt(event->position()) || stretchAt(event->position()) ? Qt::SizeVerCursor
              : adding_                                                   ? Qt::CrossCursor
                                                                          : Qt::ArrowCursor);
    Q_EMIT hovered(distance);
}

void SectionView::mouseReleaseEvent(QMouseEvent* event) {
    if (stretch_ && moved_) Q_EMIT stretchDragged(*stretch_, riseTo(event->position()), true);
    if (dragging_ && moved_ && pulling_ && *dragging_ < data_.handles.size())
        Q_EMIT curvePulled(*dragging_, pulledTo(event->position()), true);
    if (dragging_ && moved_ && !pulling_ && *dragging_ < data_.handles.size()) {
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
