#include "app/plan/plan_painter.h"

#include <QImage>
#include <QPainterPath>
#include <cmath>
#include <numbers>

#include "app/base/theme.h"
#include "app/plan/dense_layers.h"

namespace erdwerk::app {

using geometry::Box;
using geometry::Vec2;

QPolygonF polyline(const geometry::Path& path, const ViewTransform& view) {
    QPolygonF out;
    for (const Vec2 p : geometry::flattened(path, 0.2 / view.scale)) out << view.toPicture(p);
    return out;
}

PlanPainter::PlanPainter(QPainter& painter, const Snapshot& snapshot, const ViewTransform& view,
                         PlanOptions options)
    : painter_(painter),
      snapshot_(snapshot),
      derived_(snapshot.derived),
      document_(derived_.document),
      view_(view),
      options_(options),
      window_(view.window()) {}

PlanPainter::~PlanPainter() = default;

QPen PlanPainter::pen(const QColor& colour, double pixels, Qt::PenStyle style) const {
    QPen p(colour, pixels * options_.unit, style, Qt::RoundCap, Qt::RoundJoin);
    if (style == Qt::SolidLine) p.setCapStyle(Qt::FlatCap);
    return p;
}

QFont PlanPainter::font(int pixels, bool strong) const {
    QFont f = theme::font(pixels, strong);
    f.setPixelSize(std::max(1, static_cast<int>(std::lround(pixels * options_.unit))));
    return f;
}

bool PlanPainter::visible(ObjectId id) const {
    const auto object = document_.find(id);
    return object && !document_.hidden(*object);
}

bool PlanPainter::claim(const QRectF& area) {
    const double cell = 22 * options_.unit;
    QSet<QPair<int, int>> wanted;
    for (int x = static_cast<int>(std::floor(area.left() / cell));
         x <= static_cast<int>(std::floor(area.right() / cell)); ++x)
        for (int y = static_cast<int>(std::floor(area.top() / cell));
             y <= static_cast<int>(std::floor(area.bottom() / cell)); ++y)
            wanted.insert({x, y});
    if (claimed_.intersects(wanted)) return false;
    claimed_.unite(wanted);
    return true;
}

void PlanPainter::paint() {
    painter_.setRenderHint(QPainter::Antialiasing);
    surfaces();
    if (options_.gridCrosses && !stopped()) grid();
    if (!stopped()) lines();
    if (!stopped()) alignments();
    if (!stopped()) parcels();
    if (!stopped()) labels();
    if (!stopped()) points();
    if (options_.gridCrosses && !stopped()) rimTexts();
    if (!legends_.empty() && !stopped())
        paintLegends({painter_, snapshot_, view_, options_.unit, options_.cancel, nullptr}, legends_);
}

void PlanPainter::surfaces() {
    const LayerCanvas canvas{painter_, snapshot_, view_, options_.unit, options_.cancel, &legends_};
    overBackdrop_ = options_.shading && options_.source && paintBackdrops(canvas);
    for (const auto& [id, result] : derived_.surfaces) {
        const auto* surface = document_.get<objects::Surface>(id);
        if (surface == nullptr || !result->locator || !visible(id) || stopped() || !options_.shading ||
            !options_.ground)
            continue;
        if (surface->style.bands != objects::Bands::None)
            paintBands(canvas, id);
        else if (surface->style.hillshade || surface->style.heightColours)
            shading(id, surface->style);
    }
    // Clouds lie over the colours of the ground and under its lines.
    if (options_.shading && options_.source && !stopped()) paintClouds(canvas);
    if (!options_.ground) return;
    if (options_.cutFill && !stopped()) paintCutFill(canvas, *options_.cutFill);
    for (const auto& [id, result] : derived_.surfaces) {
        const auto* surface = document_.get<objects::Surface>(id);
        if (surface == nullptr || !result->locator || !visible(id) || stopped()) continue;
        if (options_.shading && surface->style.deviation) paintDeviation(canvas, id);
        if (surface->style.triangles) triangles(*result->locator);
        if (surface->style.contours) contours(id, surface->style);
    }
}

void PlanPainter::shading(ObjectId id, const objects::SurfaceStyle& style) {
    const auto it = snapshot_.shadings.find(id);
    if (it == snapshot_.shadings.end()) return;
    const int columns = std::max(1, static_cast<int>(view_.size.width() / options_.unit / 2));
    const int rows = std::max(1, static_cast<int>(view_.size.height() / options_.unit / 2));
    Context context;
    context.cancelFlag = options_.cancel;
    const auto cells = it->second->render(window_, columns, rows, context);
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
    painter_.setOpacity(overBackdrop_ ? 0.3 : 0.72);
    painter_.setRenderHint(QPainter::SmoothPixmapTransform);
    painter_.drawImage(QRectF({0, 0}, view_.size), image);
    painter_.setOpacity(1);
}

void PlanPainter::triangles(const terrain::TinLocator& surface) {
    const auto near = surface.near(window_);
    painter_.setPen(pen(QColor(0x6B, 0x77, 0x80, 150), 0.6));
    const auto& tin = surface.tin();
    // More edges than pixels say nothing; zooming in brings them back.
    if (static_cast<double>(near.size()) >
        view_.size.width() * view_.size.height() / (60 * options_.unit * options_.unit))
        return;
    for (const std::uint32_t t : near) {
        if (stopped()) return;
        for (int i = 0; i < 3; ++i) {
            const std::uint32_t n = tin.neighbour(t, i);
            if (n != terrain::Tin::none && n < t) continue;
            painter_.drawLine(view_.toPicture(tin.vertex(tin.corner(t, (i + 1) % 3)).plan()),
                              view_.toPicture(tin.vertex(tin.corner(t, (i + 2) % 3)).plan()));
        }
    }
}

void PlanPainter::contours(ObjectId id, const objects::SurfaceStyle& style) {
    const auto it = derived_.contours.find(id);
    if (it == derived_.contours.end()) return;
    std::vector<const terrain::Contour*> labelled;
    for (const auto& line : *it->second) {
        if (stopped()) return;
        const bool index = terrain::isIndexContour(line.height, style.interval, style.indexEvery);
        Box box;
        for (const Vec2 p : line.places) box.add(p);
        if (!box.meets(window_)) continue;
        // Lines too small to be seen are left to the zoom.
        if (std::max(box.width(), box.height()) * view_.scale < 2 * options_.unit) continue;
        QPolygonF drawn;
        QPointF last(-1e9, -1e9);
        for (const Vec2 p : line.places) {
            const QPointF q = view_.toPicture(p);
            if (std::abs(q.x() - last.x()) + std::abs(q.y() - last.y()) < 0.7 * options_.unit) continue;
            drawn << q;
            last = q;
        }
        if (line.closed && !drawn.isEmpty()) drawn << drawn.front();
        painter_.setPen(pen(index ? theme::contourIndex : theme::contour, index ? 1.3 : 0.8));
        painter_.drawPolyline(drawn);
        if (index) labelled.push_back(&line);
    }
    for (const auto* line : labelled) contourHeight(*line);
}

/// Heights in line: one in the middle of every stretch of about 420 pixels.
void PlanPainter::contourHeight(const terrain::Contour& line) {
    const double every = 420 * options_.unit;
    double along = 0;
    double next = every * 0.4;
    const QString text =
        QString::fromStdString(formatFixed(line.height, line.height == std::round(line.height) ? 0 : 2));
    for (std::size_t i = 1; i < line.places.size(); ++i) {
        const QPointF a = view_.toPicture(line.places[i - 1]);
        const QPointF b = view_.toPicture(line.places[i]);
        const double size = std::hypot(b.x() - a.x(), b.y() - a.y());
        along += size;
        if (along < next || size < 1) continue;
        const QPointF at = (a + b) / 2;
        if (!QRectF({0, 0}, view_.size).contains(at)) continue;
        next = along + every;
        double degrees = std::atan2(b.y() - a.y(), b.x() - a.x()) * 180 / 3.14159265358979;
        if (degrees > 90 || degrees <= -90) degrees += 180;
        const QFont f = font(10, true);
        const QRectF box = QFontMetricsF(f).boundingRect(text);
        if (!claim(QRectF(at.x() - box.width() / 2, at.y() - 7 * options_.unit, box.width(),
                          14 * options_.unit)))
            continue;
        painter_.save();
        painter_.translate(at);
        painter_.rotate(degrees);
        const QRectF room(-box.width() / 2 - 2 * options_.unit, -6 * options_.unit,
                          box.width() + 4 * options_.unit, 12 * options_.unit);
        painter_.setPen(Qt::NoPen);
        painter_.setBrush(QColor(0xF6, 0xF1, 0xE6, 225));
        painter_.drawRect(room);
        painter_.setBrush(Qt::NoBrush);
        painter_.setPen(theme::contourIndex.darker(125));
        painter_.setFont(f);
        painter_.drawText(room, Qt::AlignCenter, text);
        painter_.restore();
    }
}

void PlanPainter::grid() {
    const double step = roundStep(110 * options_.unit / view_.scale);
    painter_.setPen(pen(QColor(0x6B, 0x77, 0x80, 150), 0.8));
    const double arm = 4 * options_.unit;
    for (double x = std::ceil(window_.minX / step) * step; x <= window_.maxX; x += step)
        for (double y = std::ceil(window_.minY / step) * step; y <= window_.maxY; y += step) {
            const QPointF p = view_.toPicture({x, y});
            painter_.drawLine(p - QPointF(arm, 0), p + QPointF(arm, 0));
            painter_.drawLine(p - QPointF(0, arm), p + QPointF(0, arm));
        }
}

/// Coordinates at the rim, over everything else.
void PlanPainter::rimTexts() {
    const double step = roundStep(110 * options_.unit / view_.scale);
    const double u = options_.unit;
    const int decimals = step < 1 ? 2 : 0;
    painter_.setFont(font(10));
    for (double x = std::ceil(window_.minX / step) * step; x <= window_.maxX; x += step) {
        const double px = view_.toPicture({x, 0}).x();
        if (px < 60 * u || px > view_.size.width() - 30 * u) continue;
        haloText(QRectF(px - 40 * u, view_.size.height() - 16 * u, 80 * u, 14 * u), Qt::AlignCenter,
                 QString::fromStdString(formatFixed(x, decimals)), theme::inkQuiet);
    }
    for (double y = std::ceil(window_.minY / step) * step; y <= window_.maxY; y += step) {
        const double py = view_.toPicture({0, y}).y();
        if (py < 20 * u || py > view_.size.height() - 24 * u) continue;
        haloText(QRectF(4 * u, py - 7 * u, 60 * u, 14 * u), Qt::AlignLeft | Qt::AlignVCenter,
                 QString::fromStdString(formatFixed(y, decimals)), theme::inkQuiet);
    }
}

void PlanPainter::lines() {
    for (const auto& [id, resolved] : derived_.lines) {
        const auto object = document_.find(id);
        if (!object || document_.hidden(*object) || stopped()) continue;
        Box box;
        for (const auto& s : resolved->path) box.add(boundsOf(s));
        if (!box.meets(window_)) continue;
        line(id, *object, *resolved);
    }
}

void PlanPainter::line(ObjectId, const objects::Object& object, const linework::ResolvedLine& resolved) {
    const auto style = std::get<objects::Line>(object.payload).style;
    const auto* group = document_.get<objects::Group>(object.group);
    const QColor colour = group != nullptr ? QColor(QString::fromStdString(group->colour)) : theme::breakline;
    painter_.setBrush(Qt::NoBrush);
    painter_.setPen(pen(colour, style == objects::LineStyle::Crest ? 1.7 : 1.4,
                        style == objects::LineStyle::Toe ? Qt::DashLine : Qt::SolidLine));
    painter_.drawPolyline(polyline(resolved.path, view_));
    if (style == objects::LineStyle::Crest) hachures(resolved);
}

/// Short strokes on the downhill side of a crest, long and short in turn.
void PlanPainter::hachures(const linework::ResolvedLine& resolved) {
    const double spacing = 7 * options_.unit / view_.scale;
    const double reach = 3.0;  // ground units to either side where the fall is looked up
    if (resolved.length / spacing > 20000) return;
    const auto* surface =
        resolved.vertices.empty() ? nullptr : derived_.topSurface(resolved.vertices.front().place);
    if (surface == nullptr) return;
    int n = 0;
    for (double d = spacing / 2; d < resolved.length; d += spacing, ++n) {
        const auto at = geometry::positionAt(resolved.path, d);
        if (!window_.contains(at.place)) continue;
        const Vec2 left = geometry::leftOf(geometry::directionOf(at.direction));
        const auto hl = surface->heightAt(at.place + left * reach);
        const auto hr = surface->heightAt(at.place - left * reach);
        if (!hl || !hr) continue;
        const Vec2 down = *hl < *hr ? left : left * -1.0;
        const double size = (n % 2 == 0 ? 8 : 4.5) * options_.unit / view_.scale;
        painter_.drawLine(view_.toPicture(at.place), view_.toPicture(at.place + down * size));
    }
}

/// Text with a rim of paper round it, so that it is read over lines and contours.
}  // namespace erdwerk::app
