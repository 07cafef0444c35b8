#include "app/plan/dense_layers.h"

#include <QImage>
#include <cmath>
#include <numbers>

#include "app/base/theme.h"

namespace erdwerk::app {

using geometry::Vec2;
using geometry::Vec3;

namespace {

QImage canvasImage(const LayerCanvas& canvas, double pixelsPerCell) {
    const int columns = std::max(1, static_cast<int>(canvas.view.size.width() / canvas.unit / pixelsPerCell));
    const int rows = std::max(1, static_cast<int>(canvas.view.size.height() / canvas.unit / pixelsPerCell));
    QImage image(columns, rows, QImage::Format_ARGB32);
    image.fill(Qt::transparent);
    return image;
}

QColor classColour(std::uint8_t c) {
    switch (c) {
        case 2:
            return {0x8E, 0x6E, 0x45};  // ground
        case 3:
        case 4:
        case 5:
            return {0x5E, 0x7F, 0x4C};  // vegetation
        case 6:
            return {0x9A, 0x53, 0x48};  // building
        case 7:
        case 18:
            return {0xC9, 0x8F, 0x1E};  // noise
        case 9:
            return {0x3F, 0x5C, 0x73};  // water
        default:
            return {0x7C, 0x83, 0x88};
    }
}

void legend(const LayerCanvas& canvas, const QString& title,
            const std::vector<std::pair<QColor, QString>>& rows) {
    if (canvas.legends != nullptr) canvas.legends->push_back({title, rows});
}

struct CellGrid {
    Vec2 origin;  ///< south-west corner
    double cell = 1;
    int columns = 0;
    int rows = 0;
};

/// A grid of values, rows from the south, coloured; nothing where a value is not a number.
template <class Colour>
void paintCells(const LayerCanvas& canvas, const CellGrid& grid, const std::vector<float>& values,
                const Colour& colour) {
    QImage image(grid.columns, grid.rows, QImage::Format_ARGB32);
    image.fill(Qt::transparent);
    for (int r = 0; r < grid.rows; ++r) {
        auto* row = reinterpret_cast<QRgb*>(image.scanLine(grid.rows - 1 - r));
        for (int c = 0; c < grid.columns; ++c) {
            const double v = static_cast<double>(
                values[static_cast<std::size_t>(r) * static_cast<std::size_t>(grid.columns) +
                       static_cast<std::size_t>(c)]);
            if (!std::isnan(v)) row[c] = colour(v).rgba();
        }
    }
    const QPointF low = canvas.view.toPicture(grid.origin);
    const QPointF high =
        canvas.view.toPicture(grid.origin + Vec2{grid.columns * grid.cell, grid.rows * grid.cell});
    canvas.painter.setOpacity(0.85);
    canvas.painter.drawImage(QRectF(QPointF(low.x(), high.y()), QPointF(high.x(), low.y())), image);
    canvas.painter.setOpacity(1);
}

}  // namespace

void paintLegends(const LayerCanvas& canvas, const std::vector<Legend>& legends) {
    // Room for the scale bar below.
    double bottom = canvas.view.size.height() - 54 * canvas.unit;
    for (const auto& [title, rows] : legends) {
        const double u = canvas.unit;
        const double line = 17 * u;
        QFont font = theme::font(11);
        font.setPixelSize(std::max(1, static_cast<int>(11 * u)));
        const QFontMetricsF metrics(font);
        double width = metrics.horizontalAdvance(title);
        for (const auto& [colour, text] : rows)
            width = std::max(width, metrics.horizontalAdvance(text) + 22 * u);
        const QRectF room(canvas.view.size.width() - width - 26 * u,
                          bottom - line * static_cast<double>(rows.size() + 1) - 10 * u, width + 16 * u,
                          line * static_cast<double>(rows.size() + 1) + 10 * u);
        auto& p = canvas.painter;
        p.setPen(QPen(QColor(0xD9, 0xD3, 0xC7), u));
        p.setBrush(QColor(0xFA, 0xF7, 0xF0, 235));
        p.drawRect(room);
        p.setFont(font);
        double y = room.top() + 5 * u;
        p.setPen(theme::ink);
        p.drawText(QRectF(room.left() + 8 * u, y, width, line), Qt::AlignLeft | Qt::AlignVCenter, title);
        for (const auto& [colour, text] : rows) {
            y += line;
            p.setPen(QPen(theme::inkQuiet, 0.6 * u));
            p.setBrush(colour);
            p.drawRect(QRectF(room.left() + 8 * u, y + 3 * u, 14 * u, 11 * u));
            p.setPen(theme::ink);
            p.drawText(QRectF(room.left() + 30 * u, y, width, line), Qt::AlignLeft | Qt::AlignVCenter, text);
        }
        p.setBrush(Qt::NoBrush);
        bottom = room.top() - 8 * u;
    }
}

QRgb cloudColour(const objects::Cloud& cloud, std::size_t i) {
    const survey::PointCloud& c = *cloud.cloud;
    switch (cloud.colouring) {
        case objects::CloudColouring::Class:
            return classColour(c.classOf(i)).rgb();
        case objects::CloudColouring::Intensity: {
            const int grey = 40 + c.intensity(i) * 190 / 65535;
            return qRgb(grey, grey, grey);
        }
        case objects::CloudColouring::Colour:
            if (c.coloured()) {
                const auto rgb = c.colour(i);
                return qRgb(rgb[0], rgb[1], rgb[2]);
            }
            break;
        case objects::CloudColouring::Height:
            break;
    }
    const double range = std::max(1e-9, c.max().z - c.min().z);
    return theme::heightColour((c.place(i).z - c.min().z) / range).rgb();
}

bool paintBackdrops(const LayerCanvas& canvas) {
    const auto& document = canvas.snapshot.derived.document;
    bool any = false;
    for (const ObjectId id : document.all<objects::Backdrop>()) {
        const auto* backdrop = document.get<objects::Backdrop>(id);
        if (!backdrop->picture || !backdrop->visible || document.hidden(*document.find(id)) ||
            canvas.stopped())
            continue;
        any = true;
        const objects::Picture& p = *backdrop->picture;
        const QImage image(p.rgb.data(), static_cast<int>(p.columns), static_cast<int>(p.rows),
                           static_cast<qsizetype>(3 * p.columns), QImage::Format_RGB888);
        const auto& t = p.transform;
        const QPointF origin = canvas.view.toPicture({t[0], t[3]});
        const QPointF right = canvas.view.toPicture({t[0] + t[1], t[3] + t[4]}) - origin;
        const QPointF down = canvas.view.toPicture({t[0] + t[2], t[3] + t[5]}) - origin;
        canvas.painter.save();
        canvas.painter.setTransform(
            QTransform(right.x(), right.y(), down.x(), down.y(), origin.x(), origin.y()), true);
        canvas.painter.setRenderHint(QPainter::SmoothPixmapTransform);
        canvas.painter.drawImage(QPointF(0, 0), image);
        canvas.painter.restore();
    }
    return any;
}

void paintClouds(const LayerCanvas& canvas) {
    const auto& derived = canvas.snapshot.derived;
    for (const auto& [id, tiles] : derived.clouds) {
        const auto* cloud = derived.document.get<objects::Cloud>(id);
        if (cloud == nullptr || !cloud->cloud || derived.document.hidden(*derived.document.find(id)) ||
            canvas.stopped())
            continue;
        QImage image = canvasImage(canvas, 1);
        const double ratio = 1 / canvas.unit;
        // About two points for every pixel that can show one.
        const auto budget =
            static_cast<std::size_t>(image.width()) * static_cast<std::size_t>(image.height());
        const survey::CloudPart part(*cloud->cloud, cloud->filter);
        const double pixelsApart = canvas.view.scale * ratio * tiles->cloud().spacing();
        // Two pixels wide at least, or chance would leave holes where points are plenty.
        const int size = std::clamp(static_cast<int>(std::ceil(pixelsApart * 0.6)), 2, 4);
        std::vector<std::uint8_t> taken;
        int takenColumns = 0;
        const double apart = cloud->spacing * canvas.view.scale * ratio;
        if (apart > 1) {
            takenColumns = static_cast<int>(image.width() / apart) + 2;
            taken.assign(static_cast<std::size_t>(takenColumns) *
                             (static_cast<std::size_t>(image.height() / apart) + 2),
                         0);
        }
        tiles->sample(canvas.view.window(), budget, [&](std::uint32_t i) {
            if (!part.has(i)) return;
            const QPointF q = canvas.view.toPicture(cloud->cloud->place(i).plan()) * ratio;
            const int x = static_cast<int>(q.x());
            const int y = static_cast<int>(q.y());
            if (x < 0 || y < 0 || x + size > image.width() || y + size > image.height()) return;
            if (!taken.empty()) {
                auto& cell =
                    taken[static_cast<std::size_t>(q.y() / apart) * static_cast<std::size_t>(takenColumns) +
                          static_cast<std::size_t>(q.x() / apart)];
                if (cell != 0) return;
                cell = 1;
            }
            const QRgb colour = cloudColour(*cloud, i) | 0xff000000U;
            for (int dy = 0; dy < size; ++dy) {
                auto* row = reinterpret_cast<QRgb*>(image.scanLine(y + dy));
                for (int dx = 0; dx < size; ++dx) row[x + dx] = colour;
            }
        });
        canvas.painter.drawImage(QRectF({0, 0}, canvas.view.size), image);
    }
}

QColor bandColour(terrain::BandKind kind, std::size_t band, std::size_t count) {
    const double share = count < 2 ? 0 : static_cast<double>(band) / static_cast<double>(count - 1);
    if (kind == terrain::BandKind::Direction) {
        QColor c;
        c.setHsvF(static_cast<float>(std::fmod(0.58 + share * 0.875, 1.0)), 0.38F, 0.86F);
        return c;
    }
    if (kind == terrain::BandKind::Height) return theme::heightColour(share);
    const auto mix = [&](int a, int b) { return static_cast<int>(a + (b - a) * share); };
    return {mix(0xEE, 0x8C), mix(0xE8, 0x2F), mix(0xCE, 0x3A)};
}

QString bandText(const derive::BandTable& table, std::size_t band, const DisplaySettings& display) {
    const auto& b = table.bands[band];
    if (table.kind == terrain::BandKind::Direction) {
        static const QStringList names{QObject::tr("N"),  QObject::tr("NE"), QObject::tr("E"),
                                       QObject::tr("SE"), QObject::tr("S"),  QObject::tr("SW"),
                                       QObject::tr("W"),  QObject::tr("NW")};
        return names.value(static_cast<int>(band));
    }
    if (table.kind == terrain::BandKind::Slope) {
        const auto percent = [](double v) { return QString::number(std::round(v * 100)); };
        return std::isinf(b.to) ? QObject::tr("over %1 %").arg(percent(b.from))
                                : QObject::tr("%1 to %2 %").arg(percent(b.from), percent(b.to));
    }
    return QObject::tr("%1 to %2")
        .arg(QString::fromStdString(formatHeight(b.from, display)),
             QString::fromStdString(formatHeight(b.to, display)));
}

void paintBands(const LayerCanvas& canvas, ObjectId surface) {
    const auto& derived = canvas.snapshot.derived;
    const auto* table = derive::Derived::in(derived.bands, surface);
    const auto* locator = derived.surface(surface);
    if (table == nullptr || locator == nullptr) return;
    const std::size_t count = table->bands.size();
    // By pixel: each asks its triangle.
    QImage image = canvasImage(canvas, 2);
    const geometry::Box window = canvas.view.window();
    for (int r = 0; r < image.height(); ++r) {
        if (canvas.stopped()) return;
        auto* row = reinterpret_cast<QRgb*>(image.scanLine(r));
        for (int c = 0; c < image.width(); ++c) {
            const Vec2 p{window.minX + (c + 0.5) * window.width() / image.width(),
                         window.maxY - (r + 0.5) * window.height() / image.height()};
            const auto t = locator->triangleAt(p);
            if (!t) continue;
            const auto triangle = locator->tin().triangle(*t);
            int band = -1;
            if (table->kind == terrain::BandKind::Height) {
                const double h = terrain::planeHeight(triangle, p);
                band = static_cast<int>(std::upper_bound(table->limits.begin(), table->limits.end(), h) -
                                        table->limits.begin()) -
                       1;
            } else {
                band = terrain::bandOf(table->kind, terrain::slopeOf(triangle), table->limits);
            }
            if (band >= 0 && static_cast<std::size_t>(band) < count)
                row[c] = bandColour(table->kind, static_cast<std::size_t>(band), count).rgba();
        }
    }
    canvas.painter.setOpacity(0.75);
    canvas.painter.drawImage(QRectF({0, 0}, canvas.view.size), image);
    canvas.painter.setOpacity(1);
    const auto& display = derived.document.settings().display;
    std::vector<std::pair<QColor, QString>> rows;
    for (std::size_t k = 0; k < count; ++k)
        if (table->bands[k].planArea > 0)
            rows.emplace_back(bandColour(table->kind, k, count),
                              bandText(*table, k, display) + QStringLiteral("   ") +
                                  QString::fromStdString(formatArea(table->bands[k].planArea, display)));
    const QString title = table->kind == terrain::BandKind::Height  ? QObject::tr("Height, plan area")
                          : table->kind == terrain::BandKind::Slope ? QObject::tr("Slope, plan area")
                                                                    : QObject::tr("Falls towards, plan area");
    legend(canvas, title, rows);
}

QColor deviationColour(double d, double tolerance) {
    const double size = std::abs(d) / tolerance;
    if (size <= 0.5) return {0xDA, 0xDD, 0xD6};
    if (size <= 1) return d > 0 ? QColor(0xB5, 0xCB, 0xC9) : QColor(0xE0, 0xC6, 0xB8);
    if (size <= 2) return d > 0 ? QColor(0x5B, 0x96, 0x93) : QColor(0xCB, 0x82, 0x5E);
    return d > 0 ? QColor(0x1E, 0x55, 0x61) : QColor(0xA5, 0x31, 0x3C);
}

void paintDeviation(const LayerCanvas& canvas, ObjectId surface) {
    const auto* fit = derive::Derived::in(canvas.snapshot.derived.fits, surface);
    if (fit == nullptr || fit->map.columns == 0) return;
    const auto& map = fit->map;
    paintCells(canvas, {map.origin, map.cell, map.columns, map.rows}, map.worst,
               [&](double d) { return deviationColour(d, fit->tolerance); });
    const auto& display = canvas.snapshot.derived.document.settings().display;
    const auto text = [&](double v) { return QString::fromStdString(formatLength(v, display)); };
    const double t = fit->tolerance;
    legend(canvas, QObject::tr("Source against surface"),
           {{deviationColour(3 * t, t), QObject::tr("above by more than %1").arg(text(2 * t))},
            {deviationColour(1.5 * t, t), QObject::tr("above, %1 to %2").arg(text(t), text(2 * t))},
            {deviationColour(0.7 * t, t), QObject::tr("above, within %1").arg(text(t))},
            {deviationColour(0, t), QObject::tr("within %1").arg(text(t / 2))},
            {deviationColour(-0.7 * t, t), QObject::tr("below, within %1").arg(text(t))},
            {deviationColour(-1.5 * t, t), QObject::tr("below, %1 to %2").arg(text(t), text(2 * t))},
            {deviationColour(-3 * t, t), QObject::tr("below by more than %1").arg(text(2 * t))}});
}

QColor cutFillColour(double share) {
    const double size = std::clamp(std::abs(share), 0.0, 1.0);
    const QColor full = share < 0 ? QColor(0x8C, 0x2A, 0x34) : QColor(0x1C, 0x55, 0x50);
    const auto mix = [&](int a, int b) { return static_cast<int>(a + (b - a) * std::sqrt(size)); };
    return {mix(0xF0, full.red()), mix(0xEA, full.green()), mix(0xDC, full.blue())};
}

void paintCutFill(const LayerCanvas& canvas, const CutFillLayer& layer) {
    const auto& map = layer.map;
    if (map.columns == 0) return;
    const double largest = std::max({map.largestCut, map.largestFill, 1e-6});
    paintCells(canvas, {map.origin, map.cell, map.columns, map.rows}, map.difference,
               [&](double d) { return cutFillColour(d / largest); });
    const auto& display = canvas.snapshot.derived.document.settings().display;
    const auto text = [&](double v) { return QString::fromStdString(formatLength(v, display)); };
    legend(canvas, layer.title,
           {{cutFillColour(1), QObject::tr("fill %1").arg(text(largest))},
            {cutFillColour(0.4), QObject::tr("fill %1").arg(text(0.4 * largest))},
            {cutFillColour(0), QObject::tr("level")},
            {cutFillColour(-0.4), QObject::tr("cut %1").arg(text(0.4 * largest))},
            {cutFillColour(-1), QObject::tr("cut %1").arg(text(largest))}});
}

}  // namespace erdwerk::app
