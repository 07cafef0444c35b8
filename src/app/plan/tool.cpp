#include "app/plan/tool.h"

#include "app/base/theme.h"
#include "app/plan/plan_painter.h"
#include "core/base/notation.h"

namespace erdwerk::app {

void paintGhostPath(QPainter& painter, const ViewTransform& view, const geometry::Path& path,
                    const QString& figure, bool arrows) {
    if (path.empty()) return;
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(theme::clay, 2, Qt::DashLine));
    painter.setBrush(Qt::NoBrush);
    painter.drawPolyline(polyline(path, view));
    painter.setPen(QPen(theme::clay, 1.4));
    painter.setBrush(theme::paper);
    for (const auto& s : path)
        painter.drawRect(QRectF(view.toPicture(s.start) - QPointF(3, 3), QSizeF(6, 6)));
    painter.drawRect(QRectF(view.toPicture(path.back().end) - QPointF(3, 3), QSizeF(6, 6)));
    if (arrows) {
        painter.setPen(Qt::NoPen);
        painter.setBrush(theme::clay);
        const double length = geometry::lengthOf(path);
        const int count = std::clamp(static_cast<int>(length * view.scale / 90), 1, 60);
        for (int k = 0; k < count; ++k) {
            const auto at = geometry::positionAt(path, length * (k + 0.5) / count);
            painter.save();
            painter.translate(view.toPicture(at.place));
            painter.rotate(at.direction.degrees());
            painter.drawPolygon(QPolygonF{QPointF(0, -8), QPointF(5.5, 6), QPointF(0, 3), QPointF(-5.5, 6)});
            painter.restore();
        }
    }
    if (figure.isEmpty()) return;
    const QFont font = theme::font(12, true);
    painter.setFont(font);
    const QRectF box = QFontMetricsF(font).boundingRect(figure).adjusted(-6, -3, 6, 3);
    // Above: the name of the snap stands below the cursor.
    const QRectF room(view.toPicture(path.back().end) + QPointF(12, -10 - box.height()), box.size());
    painter.setPen(QPen(theme::hairline, 1));
    painter.setBrush(QColor(255, 255, 255, 235));
    painter.drawRoundedRect(room, 4, 4);
    painter.setPen(theme::clay.darker(115));
    painter.drawText(room, Qt::AlignCenter, figure);
}

std::optional<double> typedFigure(const QString& text) {
    return parseNumber(text.trimmed().replace(QLatin1Char(','), QLatin1Char('.')).toStdString());
}

}  // namespace erdwerk::app

#include "moc_tool.cpp"
