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

void HandlePainter::frame(const geometry::Box& box) {
    painter_.setBrush(Qt::NoBrush);
    painter_.setPen(QPen(theme::clay, 1.6, Qt::DotLine));
    painter_.drawRect(QRectF(view_.toPicture({box.minX, box.maxY}), view_.toPicture({box.maxX, box.minY})));
}

}  // namespace erdwerk::app
