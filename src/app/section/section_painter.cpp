#include "app/section/section_painter.h"

#include <algorithm>
#include <cmath>

#include "app/base/theme.h"
#include "app/plan/plan_painter.h"

namespace erdwerk::app {

namespace {

constexpr double rowHeight = 16;

/// Height of a chain of places at a distance.
std::optional<double> heightOf(const std::vector<SectionPoint>& points, double x) {
    for (std::size_t i = 1; i < points.size(); ++i) {
        if (points[i].distance < x) continue;
        const auto& a = points[i - 1];
        const auto& b = points[i];
        if (!a.height || !b.height || a.distance > x || b.distance <= a.distance) return std::nullopt;
        return *a.height + (*b.height - *a.height) * (x - a.distance) / (b.distance - a.distance);
    }
    return std::nullopt;
}

}  // namespace

QPointF SectionFrame::map(double x, double z) const {
    return {area.left() + (x - minX) / (maxX - minX) * area.width(),
            area.bottom() - (z - minZ) / (maxZ - minZ) * area.height()};
}
double SectionFrame::distanceAt(double px) const {
    return minX + (px - area.left()) / area.width() * (maxX - minX);
}
double SectionFrame::heightAt(double py) const {
    return minZ + (area.bottom() - py) / area.height() * (maxZ - minZ);
}
double SectionFrame::exaggeration() const {
    return (area.height() / (maxZ - minZ)) / (area.width() / (maxX - minX));
}

std::pair<double, double> SectionPainter::extent(const SectionData& data) {
    double from = 1e300;
    double to = -1e300;
    const auto add = [&](double x) {
        from = std::min(from, x);
        to = std::max(to, x);
    };
    for (const auto& s : data.series)
        for (const auto& p : s.points) add(p.distance);
    for (const auto& h : data.handles) add(h.distance);
    if (from > to) return {0, 1};
    return {from, std::max(to, from + 1e-9)};
}

double SectionPainter::rowsHeight(const SectionData& data, double unit) {
    return data.rows.empty() ? 0 : (static_cast<double>(data.rows.size()) * rowHeight + 4) * unit;
}

SectionFrame SectionPainter::frameFor(const SectionData& data, const QRectF& room, const SectionLook& look) {
    const double u = look.unit;
    SectionFrame f;
    // The legend stands above.
    f.area =
        room.adjusted(54 * u, 34 * u, -16 * u, -(data.stationsInRows ? 6 : 24) * u - rowsHeight(data, u));
    f.area.setHeight(std::max(f.area.height(), 20 * u));
    std::tie(f.minX, f.maxX) = extent(data);
    if (f.maxX - f.minX < 1e-6) f.maxX = f.minX + 1;
    if (look.perUnit > 0) {
        f.minX += look.scrolled;
        f.maxX = f.minX + f.area.width() / look.perUnit;
    }
    f.minZ = 1e300;
    f.maxZ = -1e300;
    const auto add = [&](double x, const std::optional<double>& z) {
        if (!z || x < f.minX || x > f.maxX) return;
        f.minZ = std::min(f.minZ, *z);
        f.maxZ = std::max(f.maxZ, *z);
    };
    for (const auto& s : data.series)
        for (const auto& p : s.points) add(p.distance, p.height);
    for (const auto& h : data.handles) add(h.distance, h.height);
    if (f.minZ > f.maxZ) f.minZ = f.maxZ = 0;
    const double margin = std::max((f.maxZ - f.minZ) * 0.16, 0.2);
    f.minZ -= margin;
    f.maxZ += margin;
    const double perUnit = f.area.width() / (f.maxX - f.minX) * data.exaggeration;
    const double wanted = look.highPerUnit > 0 ? look.highPerUnit : perUnit;
    if (wanted > 0) {
        // The wanted ratio, unless the heights would not fit.
        const double shown = f.area.height() / wanted;
        if (shown > f.maxZ - f.minZ) {
            const double middle = (f.minZ + f.maxZ) / 2;
            f.minZ = middle - shown / 2;
            f.maxZ = middle + shown / 2;
        }
    }
    return f;
}

QFont SectionPainter::font(int pixels, bool strong) const {
    QFont out = theme::font(pixels, strong);
    out.setPixelSize(std::max(1, static_cast<int>(std::lround(pixels * u_))));
    return out;
}

QPen SectionPainter::pen(const QColor& colour, double width, Qt::PenStyle style) const {
    return QPen(colour, width * u_, style);
}

void SectionPainter::paint(const SectionFrame& f) {
    painter_.save();
    painter_.setRenderHint(QPainter::Antialiasing);
    grid(f);
    if (look_.legend) legend(f);
    rows(f);
    painter_.save();
    painter_.setClipRect(f.area.adjusted(-8 * u_, -12 * u_, 8 * u_, 8 * u_));
    spans(f);
    if (data_.shadeDifference) difference(f);
    series(f);
    marks(f);
    if (look_.handles) handles(f);
    painter_.restore();
    painter_.restore();
}

void SectionPainter::grid(const SectionFrame& f) {
    painter_.setFont(font(10));
    const double dx = roundStep(80 * u_ * (f.maxX - f.minX) / f.area.width());
    const double dz = roundStep(26 * u_ * (f.maxZ - f.minZ) / f.area.height());
    const double foot = f.area.bottom() + rowsHeight(data_, u_);
    for (double x = std::ceil(f.minX / dx) * dx; x <= f.maxX + 1e-9; x += dx) {
        const double px = f.map(x, 0).x();
        painter_.setPen(pen(theme::hairline, 1));
        painter_.drawLine(QPointF(px, f.area.top()), QPointF(px, f.area.bottom()));
        if (data_.stationsInRows) continue;
        painter_.setPen(theme::inkQuiet);
        painter_.drawText(QRectF(px - 44 * u_, foot + 5 * u_, 88 * u_, 14 * u_), Qt::AlignCenter,
                          data_.station ? data_.station(x) : QString::number(x));
    }
    const int decimals = std::max(0, static_cast<int>(-std::floor(std::log10(dz))));
    for (double z = std::ceil(f.minZ / dz) * dz; z <= f.maxZ; z += dz) {
        const double py = f.map(0, z).y();
        painter_.setPen(pen(theme::hairline, 1));
        painter_.drawLine(QPointF(f.area.left(), py), QPointF(f.area.right(), py));
        painter_.setPen(theme::inkQuiet);
        painter_.drawText(QRectF(f.area.left() - 54 * u_, py - 7 * u_, 48 * u_, 14 * u_),
                          Qt::AlignRight | Qt::AlignVCenter, QString::number(z, 'f', decimals));
    }
}

/// What is drawn in which way; it moves to the left where there is little room.
void SectionPainter::legend(const SectionFrame& f) {
    painter_.setFont(font(11));
    const QFontMetricsF metrics(painter_.font());
    const double top = f.area.top() - 34 * u_;
    double total = 0;
    for (const auto& s : data_.series)
        if (!s.name.isEmpty()) total += metrics.horizontalAdvance(s.name) + 38 * u_;
    double x = std::clamp(f.area.right() + 12 * u_ - total, f.area.left() - 52 * u_, f.area.left() + 6 * u_);
    for (const auto& s : data_.series) {
        if (s.name.isEmpty()) continue;
        painter_.setPen(pen(s.colour, s.width, s.dashed ? Qt::DashLine : Qt::SolidLine));
        painter_.drawLine(QPointF(x, top + 9 * u_), QPointF(x + 18 * u_, top + 9 * u_));
        painter_.setPen(theme::ink);
        const double w = metrics.horizontalAdvance(s.name);
        painter_.drawText(QRectF(x + 22 * u_, top + u_, w + 4 * u_, 16 * u_), Qt::AlignVCenter, s.name);
        x += w + 38 * u_;
    }
    painter_.setPen(theme::inkQuiet);
    painter_.drawText(QRectF(f.area.right() - 120 * u_, top + 17 * u_, 120 * u_, 14 * u_),
                      Qt::AlignRight | Qt::AlignVCenter,
                      QObject::tr("heights × %1").arg(f.exaggeration(), 0, 'f', 1));
}

void SectionPainter::rows(const SectionFrame& f) {
    if (data_.rows.empty()) return;
    painter_.setFont(font(10));
    const QFontMetricsF metrics(painter_.font());
    double top = f.area.bottom() + 4 * u_;
    for (const auto& row : data_.rows) {
        const QRectF band(f.area.left(), top, f.area.width(), rowHeight * u_);
        painter_.setPen(pen(theme::hairline, 1));
        painter_.drawLine(QPointF(f.area.left() - 54 * u_, band.top()), band.topRight());
        painter_.setPen(theme::inkQuiet);
        painter_.drawText(QRectF(f.area.left() - 54 * u_, top, 50 * u_, rowHeight * u_),
                          Qt::AlignLeft | Qt::AlignVCenter, row.name);
        double last = -1e300;
        for (const auto& cell : row.cells) {
            const double left = f.map(std::max(cell.from, f.minX), 0).x();
            const double right = f.map(std::min(cell.to, f.maxX), 0).x();
            if (cell.to < f.minX || cell.from > f.maxX) continue;
            if (cell.to > cell.from) {
                painter_.setPen(pen(theme::hairline, 1));
                painter_.drawLine(QPointF(right, band.top()), QPointF(right, band.bottom()));
            }
            const double wide = metrics.horizontalAdvance(cell.text);
            double middle = (left + right) / 2;
            // A figure at the very beginning stands beside the row's name.
            if (cell.to <= cell.from) middle = std::max(middle, f.area.left() + wide / 2);
            // A stretch holds its words, a place keeps its distance from the one before.
            const bool fits =
                cell.to > cell.from ? wide + 4 * u_ < right - left : middle - wide / 2 > last + 6 * u_;
            if (!fits) continue;
            last = middle + wide / 2;
            painter_.setPen(theme::ink);
            painter_.drawText(QRectF(middle - wide / 2 - 2 * u_, top, wide + 4 * u_, rowHeight * u_),
                              Qt::AlignCenter, cell.text);
        }
        top += rowHeight * u_;
    }
    painter_.setPen(pen(theme::hairline, 1));
    painter_.drawLine(QPointF(f.area.left() - 54 * u_, top), QPointF(f.area.right(), top));
}

void SectionPainter::spans(const SectionFrame& f) {
    painter_.setFont(font(10));
    for (const auto& span : data_.spans) {
        const double left = f.map(span.from, 0).x();
        const double right = std::max(left + 2 * u_, f.map(std::min(span.to, f.maxX), 0).x());
        const QRectF room(left, f.area.top(), right - left, f.area.height());
        QColor shade = theme::ochre;
        shade.setAlpha(36);
        painter_.fillRect(room, shade);
        shade.setAlpha(110);
        painter_.fillRect(room, QBrush(shade, Qt::BDiagPattern));
        painter_.setPen(theme::ink);
        const double wide = QFontMetricsF(painter_.font()).horizontalAdvance(span.text);
        if (wide < room.width())
            painter_.drawText(room.adjusted(0, 0, 0, -3 * u_), Qt::AlignHCenter | Qt::AlignBottom, span.text);
    }
}

void SectionPainter::difference(const SectionFrame& f) {
    if (data_.series.size() < 2) return;
    const auto& upper = data_.series[0].points;
    const auto& lower = data_.series[1].points;
    for (double px = f.area.left(); px < f.area.right(); px += 2 * u_) {
        const double x = f.distanceAt(px + u_);
        const auto a = heightOf(upper, x);
        const auto b = heightOf(lower, x);
        if (!a || !b) continue;
        QColor colour = *a > *b ? theme::fill : theme::cut;
        colour.setAlpha(46);
        painter_.fillRect(QRectF(QPointF(px, f.map(x, std::max(*a, *b)).y()),
                                 QPointF(px + 2 * u_, f.map(x, std::min(*a, *b)).y())),
                          colour);
    }
}

void SectionPainter::series(const SectionFrame& f) {
    for (auto s = data_.series.rbegin(); s != data_.series.rend(); ++s) {
        painter_.setPen(pen(s->colour, s->width, s->dashed ? Qt::DashLine : Qt::SolidLine));
        painter_.setBrush(Qt::NoBrush);
        if (s->dots) {
            const QPointF half(0.8 * u_, 0.8 * u_);
            for (const auto& p : s->points)
                if (p.height)
                    painter_.fillRect(QRectF(f.map(p.distance, *p.height) - half, QSizeF(1.6 * u_, 1.6 * u_)),
                                      s->colour);
            continue;
        }
        QPolygonF run;
        for (const auto& p : s->points) {
            if (p.height) {
                run << f.map(p.distance, *p.height);
                continue;
            }
            painter_.drawPolyline(run);
            run.clear();
        }
        painter_.drawPolyline(run);
    }
}

void SectionPainter::handles(const SectionFrame& f) {
    painter_.setFont(font(10));
    double lastText = -1e9;
    for (std::size_t i = 0; i < data_.handles.size(); ++i) {
        const auto& h = data_.handles[i];
        const QPointF p = f.map(h.distance, h.height);
        const bool active = look_.active == i;
        painter_.setPen(pen(theme::clay, active ? 2.2 : 1.4));
        painter_.setBrush(active ? theme::clay : theme::panel);
        if (h.square)
            painter_.drawRect(QRectF(p - QPointF(3.5, 3.5) * u_, QSizeF(7, 7) * u_));
        else
            painter_.drawLine(p - QPointF(0, 5 * u_), p + QPointF(0, 5 * u_));
        if (p.x() - lastText < 64 * u_ && !active) continue;
        lastText = p.x();
        painter_.setPen(theme::ink);
        QRectF room(p.x() - 60 * u_, p.y() - 20 * u_, 120 * u_, 14 * u_);
        const double half = QFontMetricsF(painter_.font()).horizontalAdvance(h.text) / 2;
        room.translate(std::max(0.0, f.area.left() - 4 * u_ - (p.x() - half)) -
                           std::max(0.0, p.x() + half - f.area.right() - 6 * u_),
                       0);
        painter_.drawText(room, Qt::AlignCenter, h.text);
    }
}

void SectionPainter::marks(const SectionFrame& f) {
    painter_.setFont(font(10));
    const QFontMetricsF metrics(painter_.font());
    double last = -1e300;
    for (const SectionMark& m : data_.marks) {
        const QPointF p = f.map(m.distance, m.height);
        const double up = m.high ? -1 : 1;
        painter_.setPen(pen(theme::spruce, 1.4));
        painter_.setBrush(theme::panel);
        painter_.drawPolygon(QPolygonF{p, p + QPointF(-4, 7 * up) * u_, p + QPointF(4, 7 * up) * u_});
        // Texts of marks close together would lie on each other.
        const double half = metrics.horizontalAdvance(m.text) / 2;
        if (p.x() - half < last + 4 * u_) continue;
        last = p.x() + half;
        painter_.setPen(theme::spruce);
        painter_.drawText(QRectF(p.x() - 60 * u_, p.y() + (m.high ? -22 : 8) * u_, 120 * u_, 14 * u_),
                          Qt::AlignCenter, m.text);
    }
}

}  // namespace erdwerk::app
