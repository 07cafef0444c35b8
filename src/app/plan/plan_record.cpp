// Alignments, parcels, labels and survey points in plan, with their texts.

#include <cmath>
#include <numbers>

#include "app/base/theme.h"
#include "app/plan/plan_painter.h"

namespace erdwerk::app {

using geometry::Box;
using geometry::Vec2;

void PlanPainter::haloText(const QRectF& room, Qt::Alignment alignment, const QString& text,
                           const QColor& colour) {
    if (text.isEmpty()) return;
    const QFontMetricsF metrics(painter_.font());
    const QRectF box = metrics.boundingRect(room, static_cast<int>(alignment), text);
    QPainterPath outline;
    outline.addText(box.left(), box.top() + metrics.ascent(), painter_.font(), text);
    QPen rim(QColor(0xFA, 0xF7, 0xF0, 215), 3 * options_.unit);
    rim.setJoinStyle(Qt::RoundJoin);
    painter_.strokePath(outline, rim);
    painter_.setPen(colour);
    painter_.drawText(room, static_cast<int>(alignment), text);
}

void PlanPainter::textAlong(QPointF at, double degrees, const QString& above, const QString& below,
                            const QColor& colour, int pixels) {
    painter_.save();
    painter_.translate(at);
    painter_.rotate(degrees);
    painter_.setFont(font(pixels));
    const double u = options_.unit;
    haloText(QRectF(-200 * u, -(pixels + 6) * u, 400 * u, (pixels + 3) * u),
             Qt::AlignHCenter | Qt::AlignBottom, above, colour);
    haloText(QRectF(-200 * u, 3 * u, 400 * u, (pixels + 3) * u), Qt::AlignHCenter | Qt::AlignTop, below,
             colour);
    painter_.restore();
    // Point texts keep away from what is written along a line.
    const double half =
        QFontMetricsF(font(pixels)).horizontalAdvance(above.size() > below.size() ? above : below) / 2;
    const double turn = degrees * std::numbers::pi / 180;
    for (double d = -half; d <= half; d += 10 * u)
        (void)claim(
            QRectF(at.x() + d * std::cos(turn) - 6 * u, at.y() + d * std::sin(turn) - 6 * u, 12 * u, 12 * u));
}

void PlanPainter::alignments() {
    const DisplaySettings& display = document_.settings().display;
    DisplaySettings whole = display;
    whole.lengthDecimals = 0;
    for (const auto& [id, alignment] : derived_.alignments) {
        if (!visible(id) || alignment->path.empty()) continue;
        painter_.setPen(pen(theme::alignment, 1.8));
        painter_.drawPolyline(polyline(alignment->path, view_));
        const auto* payload = document_.get<objects::Alignment>(id);
        const double u = options_.unit;
        const double interval = std::max(payload->tickInterval, roundStep(14 * u / view_.scale));
        for (const auto& tick : route::ticks(*alignment, interval)) {
            const QPointF p = view_.toPicture(tick.place);
            const Vec2 left = geometry::leftOf(geometry::directionOf(tick.direction));
            const QPointF n(left.x, -left.y);
            painter_.setPen(pen(theme::alignment, 1.2));
            painter_.drawLine(p - n * (tick.major ? 6 : 3.5) * u, p + n * (tick.major ? 6 : 3.5) * u);
            if (!tick.major) continue;
            double degrees = annotate::upright(tick.direction).degrees() - 90;

            painter_.save();
            painter_.translate(p);
            painter_.rotate(degrees);
            painter_.setFont(font(11, true));
            haloText(QRectF(-50 * u, -22 * u, 100 * u, 14 * u), Qt::AlignCenter,
                     QString::fromStdString(formatStation(tick.station, whole)), theme::alignment);
            painter_.restore();
            (void)claim(QRectF(p - QPointF(26 * u, 24 * u), QSizeF(52 * u, 30 * u)));
        }
        for (const auto& key : alignment->keyPoints) {
            const QPointF p = view_.toPicture(key.place);
            const Vec2 left = geometry::leftOf(geometry::directionOf(key.direction));
            const QPointF n(left.x, -left.y);
            const QPointF end = p + n * (n.y() > 0 ? 26 : -26) * u;
            painter_.setPen(pen(theme::alignment, 0.9));
            painter_.drawLine(p, end);
            painter_.setBrush(theme::paper);
            painter_.drawEllipse(p, 3 * u, 3 * u);
            painter_.setBrush(Qt::NoBrush);
            // Points close together are told apart by zooming in.
            if (view_.scale < 1.2 * u || !claim(QRectF(end - QPointF(30 * u, 8 * u), QSizeF(60 * u, 24 * u))))
                continue;
            textAlong(end + QPointF(0, 4 * u), annotate::upright(key.direction).degrees() - 90, {},
                      QString::fromUtf8(route::shortName(key.kind).data()) + QStringLiteral(" ") +
                          QString::fromStdString(formatStation(key.station, display)),
                      theme::alignment, 10);
        }
    }
}

void PlanPainter::parcels() {
    for (const auto& [id, parcel] : derived_.parcels) {
        if (!visible(id)) continue;
        const auto* payload = document_.get<objects::Parcel>(id);
        const auto line = derived_.lines.find(payload->line);
        if (line == derived_.lines.end()) continue;
        QPen p = pen(theme::parcel, 2);
        p.setCapStyle(Qt::FlatCap);
        p.setDashPattern({11, 3, 1.5, 3, 1.5, 3});
        painter_.setPen(p);
        painter_.drawPolyline(polyline(line->second->path, view_));
        const QPointF begin = parcel->geometry.courses.empty()
                                  ? QPointF()
                                  : view_.toPicture(parcel->geometry.courses.front().start);
        painter_.setPen(pen(theme::parcel, 1.4));
        painter_.setBrush(theme::paper);
        painter_.drawEllipse(begin, 4 * options_.unit, 4 * options_.unit);
        painter_.setBrush(theme::parcel);
        painter_.drawEllipse(begin, 1.5 * options_.unit, 1.5 * options_.unit);
        painter_.setBrush(Qt::NoBrush);
        Box box;
        for (const auto& s : line->second->path) box.add(boundsOf(s));
        const double u = options_.unit;
        const QRectF name(view_.toPicture(box.centre()) - QPointF(100 * u, -18 * u), QSizeF(200 * u, 34 * u));
        painter_.setFont(font(13, true));
        haloText(name, Qt::AlignHCenter | Qt::AlignTop, QString::fromStdString(document_.nameOf(id)),
                 theme::parcel);
        painter_.setFont(font(11));
        haloText(name, Qt::AlignHCenter | Qt::AlignBottom,
                 QString::fromStdString(formatArea(parcel->geometry.area, document_.settings().display)),
                 theme::parcel);
        (void)claim(QRectF(name.center() - QPointF(50 * u, 17 * u), QSizeF(100 * u, 34 * u)));
    }
}

void PlanPainter::labels() {
    for (const auto& [id, label] : derived_.labels) {
        if (!visible(id) || !window_.contains(label->place) || view_.scale < 2 * options_.unit) continue;
        const auto* payload = document_.get<objects::Label>(id);
        const auto above = QString::fromStdString(label->above);
        const auto below = QString::fromStdString(label->below);
        const bool point = document_.get<objects::Points>(payload->target) != nullptr;
        const QPointF at = view_.toPicture(label->place);
        if (!point) {
            textAlong(at, label->direction.degrees() - 90, above, below, theme::ink, 11);
            continue;
        }
        // Beside the point, with a leader.
        const double u = options_.unit;
        const QPointF corner = at + QPointF(16 * u, -14 * u);
        painter_.setPen(pen(theme::inkQuiet, 0.8));
        painter_.drawLine(at + QPointF(3 * u, -3 * u), corner);
        painter_.setPen(theme::ink);
        painter_.setFont(font(11));
        painter_.drawText(QRectF(corner + QPointF(2 * u, -14 * u), QSizeF(400 * u, 14 * u)),
                          Qt::AlignLeft | Qt::AlignBottom, above);
        painter_.drawText(QRectF(corner + QPointF(2 * u, 0), QSizeF(400 * u, 14 * u)),
                          Qt::AlignLeft | Qt::AlignTop, below);
    }
}

void PlanPainter::points() {
    const DisplaySettings& display = document_.settings().display;
    const double u = options_.unit;
    const double arm = std::clamp(view_.scale, 1.6 * u, 3 * u);
    for (const ObjectId id : document_.all<objects::Points>()) {
        if (!visible(id)) continue;
        const auto& set = document_.get<objects::Points>(id)->set;
        // Of points that lie closer than the eye can part only one is drawn; zooming in brings them all.
        const double cell = (set.size() > 5000 ? 12 : 5) * u;
        const int columns = static_cast<int>(view_.size.width() / cell) + 2;
        std::vector<bool> taken(static_cast<std::size_t>(columns) *
                                (static_cast<std::size_t>(view_.size.height() / cell) + 2));
        const QColor ink = theme::ink;
        for (std::size_t i = 0; i < set.size(); ++i) {
            const auto& p = set[i];
            if (!window_.contains(p.plan)) continue;
            if ((i & 1023U) == 0 && stopped()) return;
            const QPointF q = view_.toPicture(p.plan);
            const std::size_t at =
                static_cast<std::size_t>(std::max(0.0, q.y() / cell)) * static_cast<std::size_t>(columns) +
                static_cast<std::size_t>(std::max(0.0, q.x() / cell));
            if (at >= taken.size() || taken[at]) continue;
            taken[at] = true;
            painter_.setPen(pen(p.height ? ink : theme::ochre, 1));
            painter_.drawLine(q - QPointF(arm, 0), q + QPointF(arm, 0));
            painter_.drawLine(q - QPointF(0, arm), q + QPointF(0, arm));
            if (!options_.pointTexts || view_.scale < 3.2 * u ||
                !claim(QRectF(q.x() - 18 * u, q.y() - 13 * u, 36 * u, 26 * u)))
                continue;
            painter_.setFont(font(10));
            painter_.setPen(theme::inkQuiet);
            painter_.drawText(QRectF(q.x() - 40 * u, q.y() - 17 * u, 80 * u, 13 * u),
                              Qt::AlignHCenter | Qt::AlignBottom, QString::fromStdString(p.number));
            painter_.setPen(p.height ? ink : theme::ochre.darker(130));
            painter_.drawText(QRectF(q.x() - 40 * u, q.y() + 4 * u, 80 * u, 13 * u),
                              Qt::AlignHCenter | Qt::AlignTop,
                              p.height ? QString::fromStdString(formatHeight(p.height, display))
                                       : QObject::tr("no height"));
        }
    }
}

}  // namespace erdwerk::app
