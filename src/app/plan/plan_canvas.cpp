#include "app/plan/plan_canvas.h"

#include <cmath>

#include "app/base/snapshot.h"
#include "app/base/theme.h"
#include "core/derive/tags.h"

namespace erdwerk::app {

using geometry::Vec2;

QPolygonF polyline(const geometry::Path& path, const ViewTransform& view) {
    QPolygonF out;
    for (const Vec2 p : geometry::flattened(path, 0.2 / view.scale)) out << view.toPicture(p);
    return out;
}

namespace {

/// The window with what reaches in from around it, in steps of about half its size.
geometry::Box textWindowOf(const ViewTransform& view, double unit) {
    const geometry::Box window = view.window();
    const double margin = 160 * unit / view.scale;
    const double cell = std::exp2(std::ceil(std::log2(std::max(window.width(), window.height()) / 2)));
    const auto down = [&](double v) { return std::floor((v - margin) / cell) * cell; };
    const auto up = [&](double v) { return std::ceil((v + margin) / cell) * cell; };
    geometry::Box out;
    out.add(Vec2{down(window.minX), down(window.minY)});
    out.add(Vec2{up(window.maxX), up(window.maxY)});
    return out;
}

}  // namespace

PlanCanvas::PlanCanvas(QPainter& p, const Snapshot& shown, const ViewTransform& at, PlanOptions how)
    : painter(p),
      snapshot(shown),
      derived(shown.derived),
      document(derived.document),
      view(at),
      options(std::move(how)),
      window(at.window()),
      textWindow(options.frame ? at.window() : textWindowOf(at, options.unit)),
      unit(options.unit),
      texts(at, options.unit,
            options.frame ? std::optional(QRectF({0, 0}, at.size)) : std::optional<QRectF>{}) {}

QPen PlanCanvas::pen(const QColor& colour, double pixels, Qt::PenStyle style) const {
    const double wider = options.widths[static_cast<std::size_t>(pass)];
    QPen p(colour, pixels * unit * (wider > 0 ? wider : 1), style, Qt::RoundCap, Qt::RoundJoin);
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

const std::map<ObjectId, std::string>& PlanCanvas::tags() {
    if (!tags_) tags_ = derive::tagsOf(derived);
    return *tags_;
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
