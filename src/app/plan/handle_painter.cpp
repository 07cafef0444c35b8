#include "app/plan/handle_painter.h"

#include "app/base/theme.h"
#include "app/plan/plan_canvas.h"

namespace erdwerk::app {

using geometry::Vec2;

void HandlePainter::path(const geometry::Path& path) {
    const QPolygonF drawn = polyline(path, view_);
    painter_.setBrush(Qt::NoBrush);
    painter_.setPen(QPen(QColor(255, 255, 255, 190), 5.5));
    painter_.drawPolyline(drawn);
    painter_.setPen(QPen(theme::clay, 2.4));
    painter_.drawPolyline(drawn);
}

void HandlePainter::ring(Vec2 place, double pixels, Qt::PenStyle style) {
    painter_.setBrush(Qt::NoBrush);
    painter_.setPen(QPen(theme::clay, 2, style));
    painter_.drawEllipse(view_.toPicture(place), pixels, pixels);
}

bool HandlePainter::texts(ObjectId id) {
    if (texts_ == nullptr) return false;
    const auto of = texts_->shown.find(id);
    if (of == texts_->shown.end()) return false;
    painter_.setBrush(Qt::NoBrush);
    painter_.setPen(QPen(theme::clay, 1.4));
    for (const annotate::TextBox& box : of->second.boxes) {
        QPolygonF outline;
        for (const Vec2 corner : annotate::cornersOf(box)) outline << view_.toPicture(corner);
        painter_.drawPolygon(outline);
    }
    return true;
}

void HandlePainter::square(Vec2 place, bool active) {
    const QPointF p = view_.toPicture(place);
    painter_.setPen(QPen(theme::clay, active ? 2.4 : 1.4));
    painter_.setBrush(active ? theme::clay : theme::panel);
    painter_.drawRect(QRectF(p - QPointF(3.5, 3.5), QSizeF(7, 7)));
}

void HandlePainter::tick(Vec2 place, Angle direction, bool active) {
    const Vec2 left = geometry::leftOf(geometry::directionOf(direction));
    const QPointF p = view_.toPicture(place);
    painter_.setPen(QPen(theme::clay, active ? 2.4 : 1.4));
    painter_.drawLine(p - QPointF(left.x, -left.y) * 5, p + QPointF(left.x, -left.y) * 5);
}

void HandlePainter::figure(Vec2 place, QPointF beside, const QString& text, bool active) {
    painter_.setFont(theme::font(11, active));
    const QFontMetricsF metrics(painter_.font());
    const QPointF at = view_.toPicture(place) + beside;
    QRectF room(0, 0, metrics.horizontalAdvance(text) + 6, metrics.height());
    room.moveCenter(at);
    if (!active)
        for (const QRectF& other : taken_)
            if (other.intersects(room)) return;
    taken_.push_back(room);
    painter_.fillRect(room, active ? theme::clay : QColor(255, 255, 255, 225));
    painter_.setPen(active ? theme::panel : theme::ink);
    painter_.drawText(room, Qt::AlignCenter, text);
}

void HandlePainter::grade(Vec2 place, Angle downhill, const QString& text) {
    const std::size_t before = taken_.size();
    figure(place, {0, -13}, text);
    if (taken_.size() == before) return;
    const Vec2 u = geometry::directionOf(downhill);
    const QPointF along(u.x, -u.y);
    const QPointF across(along.y(), -along.x());
    const QPointF tip = view_.toPicture(place) + along * 9;
    painter_.setPen(QPen(theme::clay, 1.6));
    painter_.drawLine(tip, tip - along * 18);
    painter_.drawLine(tip, tip - along * 5 + across * 4);
    painter_.drawLine(tip, tip - along * 5 - across * 4);
}

void HandlePainter::turn(Vec2 place, bool high, const QString& text) {
    const QPointF p = view_.toPicture(place);
    const double up = high ? -1 : 1;
    painter_.setPen(QPen(theme::spruce, 1.4));
    painter_.setBrush(theme::panel);
    painter_.drawPolygon(QPolygonF{p, p + QPointF(-5, 8 * up), p + QPointF(5, 8 * up)});
    figure(place, {0, 17 * up}, text);
}

void HandlePainter::frame(const geometry::Box& box) {
    frame({Vec2{box.minX, box.maxY}, Vec2{box.maxX, box.maxY}, Vec2{box.maxX, box.minY},
           Vec2{box.minX, box.minY}});
}

void HandlePainter::frame(const std::array<Vec2, 4>& corners) {
    painter_.setBrush(Qt::NoBrush);
    painter_.setPen(QPen(theme::clay, 1.6, Qt::DotLine));
    QPolygonF outline;
    for (const Vec2 corner : corners) outline << view_.toPicture(corner);
    painter_.drawPolygon(outline);
}

}  // namespace erdwerk::app
