#include "app/plan/plan_canvas.h"

#include <QPainterPath>
#include <cmath>

#include "app/base/theme.h"

namespace erdwerk::app {

using geometry::Vec2;

QPolygonF polyline(const geometry::Path& path, const ViewTransform& view) {
    QPolygonF out;
    for (const Vec2 p : geometry::flattened(path, 0.2 / view.scale)) out << view.toPicture(p);
    return out;
}

PlanCanvas::PlanCanvas(QPainter& p, const Snapshot& shown, const ViewTransform& at, PlanOptions how)
    : painter(p),
      snapshot(shown),
      derived(shown.derived),
      document(derived.document),
      view(at),
      options(std::move(how)),
      window(at.window()),
      unit(options.unit) {}

QPen PlanCanvas::pen(const QColor& colour, double pixels, Qt::PenStyle style) const {
    QPen p(colour, pixels * unit, style, Qt::RoundCap, Qt::RoundJoin);
    if (style == Qt::SolidLine) p.setCapStyle(Qt::FlatCap);
    return p;
}

QFont PlanCanvas::font(int pixels, bool strong) const {
    QFont f = theme::font(pixels, strong);
    f.setPixelSize(std::max(1, static_cast<int>(std::lround(pixels * unit))));
    return f;
}

QImage PlanCanvas::image(double pixelsPerCell) const {
    const int columns = std::max(1, static_cast<int>(view.size.width() / unit / pixelsPerCell));
    const int rows = std::max(1, static_cast<int>(view.size.height() / unit / pixelsPerCell));
    QImage out(columns, rows, QImage::Format_ARGB32);
    out.fill(Qt::transparent);
    return out;
}

void PlanCanvas::haloText(const QRectF& room, Qt::Alignment alignment, const QString& text,
                          const QColor& colour) {
    if (text.isEmpty()) return;
    const QFontMetricsF metrics(painter.font());
    const QRectF box = metrics.boundingRect(room, static_cast<int>(alignment), text);
    QPainterPath outline;
    outline.addText(box.left(), box.top() + metrics.ascent(), painter.font(), text);
    QPen rim(QColor(0xFA, 0xF7, 0xF0, 215), 3 * unit);
    rim.setJoinStyle(Qt::RoundJoin);
    painter.strokePath(outline, rim);
    painter.setPen(colour);
    painter.drawText(room, static_cast<int>(alignment), text);
}

void PlanCanvas::textAlong(QPointF at, double degrees, const QString& above, const QString& below,
                           const QColor& colour, int pixels, double stretch) {
    const QFont written = font(pixels);
    const QFontMetricsF metrics(written);
    const double u = unit;
    const double width = std::max(metrics.horizontalAdvance(above), metrics.horizontalAdvance(below));
    if (width > stretch) return;
    const double line = (pixels + 6) * u;
    const double top = above.isEmpty() ? 0 : -line;
    const double bottom = below.isEmpty() ? 0 : line;
    QTransform turn;
    turn.rotate(degrees);
    if (!claim(turnedBox(at + turn.map(QPointF(0, (top + bottom) / 2)), {width, bottom - top}, degrees)))
        return;
    painter.save();
    painter.translate(at);
    painter.rotate(degrees);
    painter.setFont(written);
    haloText(QRectF(-200 * u, -(pixels + 6) * u, 400 * u, (pixels + 3) * u),
             Qt::AlignHCenter | Qt::AlignBottom, above, colour);
    haloText(QRectF(-200 * u, 3 * u, 400 * u, (pixels + 3) * u), Qt::AlignHCenter | Qt::AlignTop, below,
             colour);
    painter.restore();
}

void PlanCanvas::cells(const CellMap& map, const std::function<QColor(double)>& colour) {
    QImage picture(map.columns, map.rows, QImage::Format_ARGB32);
    picture.fill(Qt::transparent);
    for (int r = 0; r < map.rows; ++r) {
        auto* row = reinterpret_cast<QRgb*>(picture.scanLine(map.rows - 1 - r));
        for (int c = 0; c < map.columns; ++c) {
            const double v = static_cast<double>(
                map.values[static_cast<std::size_t>(r) * static_cast<std::size_t>(map.columns) +
                           static_cast<std::size_t>(c)]);
            if (!std::isnan(v)) row[c] = colour(v).rgba();
        }
    }
    const QPointF low = view.toPicture(map.origin);
    const QPointF high = view.toPicture(map.origin + Vec2{map.columns * map.cell, map.rows * map.cell});
    painter.setOpacity(0.85);
    painter.drawImage(QRectF(QPointF(low.x(), high.y()), QPointF(high.x(), low.y())), picture);
    painter.setOpacity(1);
}

}  // namespace erdwerk::app
