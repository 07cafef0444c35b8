#include "app/kinds/surface_paint.h"

#include <cmath>

#include "app/base/snapshot.h"
#include "app/base/theme.h"
#include "core/base/progress.h"
#include "core/derive/surface_result.h"
#include "core/objects/surface.h"
#include "core/terrain/contours.h"
#include "core/terrain/locator.h"
#include "core/terrain/shade.h"

namespace erdwerk::app {

using geometry::Box;
using geometry::Vec2;

void paintShading(PlanCanvas& canvas, ObjectId id) {
    const auto& style = canvas.document.get<objects::Surface>(id)->style;
    const auto it = canvas.snapshot.shadings.find(id);
    if (it == canvas.snapshot.shadings.end()) return;
    const int columns = std::max(1, static_cast<int>(canvas.view.size.width() / canvas.unit / 2));
    const int rows = std::max(1, static_cast<int>(canvas.view.size.height() / canvas.unit / 2));
    Context context;
    context.cancelFlag = canvas.options.cancel;
    const auto cells = it->second->render(canvas.window, columns, rows, context);
    const double range = std::max(1e-9, it->second->highest() - it->second->lowest());
    QImage image(columns, rows, QImage::Format_ARGB32);
    for (int r = 0; r < rows; ++r) {
        auto* row = reinterpret_cast<QRgb*>(image.scanLine(r));
        for (int c = 0; c < columns; ++c) {
            const auto& cell = cells[static_cast<std::size_t>(r) * static_cast<std::size_t>(columns) +
                                     static_cast<std::size_t>(c)];
            if (cell.light < 0) {
                row[c] = 0;
                continue;
            }
            QColor colour = theme::paper;
            if (style.heightColours)
                colour =
                    theme::heightColour((static_cast<double>(cell.height) - it->second->lowest()) / range);
            // Flat ground has light 0.71 and keeps its colour.
            const double shade =
                style.hillshade ? std::clamp(0.62 + 0.54 * static_cast<double>(cell.light), 0.0, 1.12) : 1;
            const auto lit = [shade](int v) { return std::min(255, static_cast<int>(v * shade)); };
            row[c] = qRgba(lit(colour.red()), lit(colour.green()), lit(colour.blue()), 255);
        }
    }
    // Over a backdrop the ground only hints at itself.
    canvas.painter.setOpacity(canvas.overBackdrop ? 0.3 : 0.72);
    canvas.painter.setRenderHint(QPainter::SmoothPixmapTransform);
    canvas.painter.drawImage(QRectF({0, 0}, canvas.view.size), image);
    canvas.painter.setOpacity(1);
}

void paintTriangles(PlanCanvas& canvas, const terrain::TinLocator& surface) {
    const auto near = surface.near(canvas.window);
    canvas.painter.setPen(canvas.pen(QColor(0x6B, 0x77, 0x80, 150), 0.6));
    const auto& tin = surface.tin();
    // More edges than pixels say nothing; zooming in brings them back.
    if (static_cast<double>(near.size()) >
        canvas.view.size.width() * canvas.view.size.height() / (60 * canvas.unit * canvas.unit))
        return;
    for (const std::uint32_t t : near) {
        if (canvas.stopped()) return;
        for (int i = 0; i < 3; ++i) {
            const std::uint32_t n = tin.neighbour(t, i);
            if (n != terrain::Tin::none && n < t) continue;
            canvas.painter.drawLine(canvas.view.toPicture(tin.vertex(tin.corner(t, (i + 1) % 3)).plan()),
                                    canvas.view.toPicture(tin.vertex(tin.corner(t, (i + 2) % 3)).plan()));
        }
    }
}

namespace {

/// Heights in line: one in every stretch of about 420 pixels, wherever in its middle there is room.
void askContourHeights(PlanCanvas& canvas, ObjectId id, const terrain::Contour& line, std::uint64_t number) {
    const double every = 420 * canvas.unit;
    const TextLook look{
        QString::fromStdString(formatFixed(line.height, line.height == std::round(line.height) ? 0 : 2)), 10,
        theme::contourIndex.darker(125), true, TextBacking::Plate};
    const auto size = canvas.texts.line(look);
    const double margin = every / canvas.view.scale;
    double along = 0;
    std::uint64_t stretch = 0;
    std::vector<annotate::Vec2> piece;
    const auto finish = [&] {
        if (piece.size() > 1) {
            const Vec2 middle = canvas.view.toGround({piece.front().x, piece.front().y});
            geometry::Box near = canvas.textWindow;
            near.add(Vec2{near.minX - margin, near.minY - margin});
            near.add(Vec2{near.maxX + margin, near.maxY + margin});
            if (near.contains(middle))
                canvas.texts.ask(annotate::placesOn(piece, size.width, size.height),
                                 {TextRank::ContourHeight, number * 1000 + stretch, id, {look}, {}, {}});
        }
        piece.clear();
        ++stretch;
    };
    for (std::size_t i = 0; i < line.places.size(); ++i) {
        const QPointF at = canvas.view.toPicture(line.places[i]);
        if (i > 0) {
            const QPointF before = canvas.view.toPicture(line.places[i - 1]);
            along += std::hypot(at.x() - before.x(), at.y() - before.y());
        }
        piece.push_back({at.x(), at.y()});
        if (along < every * (static_cast<double>(stretch) + 1)) continue;
        finish();
        piece.push_back({at.x(), at.y()});
        // A side longer than a stretch has one height.
        stretch = std::max(stretch, static_cast<std::uint64_t>(along / every));
    }
    finish();
}

}  // namespace

namespace {

/// A line as it is seen in the window, with no more corners than pixels; empty where it is not.
QPolygonF seen(const PlanCanvas& canvas, const terrain::Contour& line) {
    Box box;
    for (const Vec2 p : line.places) box.add(p);
    // Lines too small to be seen are left to the zoom.
    if (!box.meets(canvas.window) ||
        std::max(box.width(), box.height()) * canvas.view.scale < 2 * canvas.unit)
        return {};
    QPolygonF drawn;
    QPointF last(-1e9, -1e9);
    for (const Vec2 p : line.places) {
        const QPointF q = canvas.view.toPicture(p);
        if (std::abs(q.x() - last.x()) + std::abs(q.y() - last.y()) < 0.7 * canvas.unit) continue;
        drawn << q;
        last = q;
    }
    if (line.closed && !drawn.isEmpty()) drawn << drawn.front();
    return drawn;
}

}  // namespace

void paintContours(PlanCanvas& canvas, ObjectId id) {
    const auto& style = canvas.document.get<objects::Surface>(id)->style;
    const auto paint = [&](const derive::Results<std::vector<terrain::Contour>>& all, Qt::PenStyle pen,
                           double width) {
        const auto it = all.find(id);
        if (it == all.end()) return;
        for (const auto& line : *it->second) {
            if (canvas.stopped()) return;
            const bool index = terrain::isIndexContour(line.height, style.interval, style.indexEvery);
            canvas.painter.setPen(
                canvas.pen(index ? theme::contourIndex : theme::contour, width * (index ? 1.3 : 0.8), pen));
            canvas.painter.drawPolyline(seen(canvas, line));
        }
    };
    paint(canvas.derived.contoursBefore, Qt::DashLine, 0.8);
    paint(canvas.derived.contours, Qt::SolidLine, 1);
}

void paintContourHeights(PlanCanvas& canvas, ObjectId id) {
    const auto& style = canvas.document.get<objects::Surface>(id)->style;
    const auto* contours = derive::Derived::in(canvas.derived.contours, id);
    if (contours == nullptr) return;
    std::uint64_t number = 0;
    for (const auto& line : *contours) {
        if (canvas.stopped()) return;
        ++number;
        if (!terrain::isIndexContour(line.height, style.interval, style.indexEvery)) continue;
        Box box;
        for (const Vec2 p : line.places) box.add(p);
        if (box.meets(canvas.textWindow)) askContourHeights(canvas, id, line, number);
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

void paintBands(PlanCanvas& canvas, ObjectId surface) {
    const auto& derived = canvas.derived;
    const auto* table = derive::Derived::in(derived.bands, surface);
    const auto* locator = derived.surface(surface);
    if (table == nullptr || locator == nullptr) return;
    const std::size_t count = table->bands.size();
    // By pixel: each asks its triangle.
    QImage image = canvas.image(2);
    const geometry::Box window = canvas.window;
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
    canvas.legends.push_back({title, rows});
}

QColor deviationColour(double d, double tolerance) {
    const double size = std::abs(d) / tolerance;
    if (size <= 0.5) return {0xDA, 0xDD, 0xD6};
    if (size <= 1) return d > 0 ? QColor(0xB5, 0xCB, 0xC9) : QColor(0xE0, 0xC6, 0xB8);
    if (size <= 2) return d > 0 ? QColor(0x5B, 0x96, 0x93) : QColor(0xCB, 0x82, 0x5E);
    return d > 0 ? QColor(0x1E, 0x55, 0x61) : QColor(0xA5, 0x31, 0x3C);
}

void paintDeviation(PlanCanvas& canvas, ObjectId surface) {
    const auto* fit = derive::Derived::in(canvas.derived.fits, surface);
    if (fit == nullptr || fit->map.columns == 0) return;
    const auto& map = fit->map;
    canvas.cells({map.origin, map.cell, map.columns, map.rows, map.worst},
                 [&](double d) { return deviationColour(d, fit->tolerance); });
    const auto& display = canvas.document.settings().display;
    const auto text = [&](double v) { return QString::fromStdString(formatLength(v, display)); };
    const double t = fit->tolerance;
    canvas.legends.push_back(
        {QObject::tr("Source against surface"),
         {{deviationColour(3 * t, t), QObject::tr("above by more than %1").arg(text(2 * t))},
          {deviationColour(1.5 * t, t), QObject::tr("above, %1 to %2").arg(text(t), text(2 * t))},
          {deviationColour(0.7 * t, t), QObject::tr("above, within %1").arg(text(t))},
          {deviationColour(0, t), QObject::tr("within %1").arg(text(t / 2))},
          {deviationColour(-0.7 * t, t), QObject::tr("below, within %1").arg(text(t))},
          {deviationColour(-1.5 * t, t), QObject::tr("below, %1 to %2").arg(text(t), text(2 * t))},
          {deviationColour(-3 * t, t), QObject::tr("below by more than %1").arg(text(2 * t))}}});
}

}  // namespace erdwerk::app
