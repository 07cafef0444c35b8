#include "app/kinds/dimension_drawing.h"

#include <algorithm>

#include "app/base/theme.h"

namespace erdwerk::app {

using annotate::Vec2;

namespace {

void paintEnd(QPainter& p, QPointF tip, QPointF way, double size, const annotate::DimensionStyle& style,
              const QColor& colour) {
    const QPointF aside(-way.y(), way.x());
    const QPointF left = tip - way * size + aside * (size * 0.2);
    const QPointF right = tip - way * size - aside * (size * 0.2);
    switch (style.arrows) {
        case annotate::ArrowKind::Filled:
            p.setBrush(colour);
            p.drawPolygon(QPolygonF{tip, left, right});
            p.setBrush(Qt::NoBrush);
            break;
        case annotate::ArrowKind::Open:
            p.drawPolyline(QPolygonF{left, tip, right});
            break;
        case annotate::ArrowKind::Stroke: {
            const QPointF across = (way + aside) * (size * 0.45);
            p.drawLine(tip - across, tip + across);
            break;
        }
        case annotate::ArrowKind::Dot:
            p.setBrush(colour);
            p.drawEllipse(tip, size * 0.22, size * 0.22);
            p.setBrush(Qt::NoBrush);
            break;
        case annotate::ArrowKind::None:
            break;
    }
}

/// Beyond the ends of a line, in its direction there.
void addOutside(annotate::PlacedText& places, const std::vector<Vec2>& line, const annotate::TextLine& text) {
    const auto beyond = [&](Vec2 end, Vec2 before) {
        const Vec2 way = (end - before) * (1 / std::max(geometry::distance(end, before), 1e-9));
        double turn = std::atan2(way.y, way.x);
        if (std::abs(turn) > M_PI / 2) turn += turn > 0 ? -M_PI : M_PI;
        annotate::Candidate c;
        c.way = static_cast<std::uint8_t>(annotate::Way::Moved);
        c.boxes = {{end + way * (text.width / 2 + text.height), text.width, text.height, turn, true}};
        places.candidates.push_back(std::move(c));
    };
    beyond(line.back(), line[line.size() - 2]);
    beyond(line.front(), line[1]);
}

}  // namespace

void paintDimensionLines(QPainter& p, const ViewTransform& view, double unit,
                         const annotate::DimensionDrawing& drawing, const annotate::DimensionStyle& style,
                         const QColor& colour) {
    p.setBrush(Qt::NoBrush);
    p.setPen(QPen(colour, 0.9 * unit));
    for (const auto& line : drawing.lines) {
        QPolygonF drawn;
        for (const Vec2 at : line) drawn << view.toPicture(at);
        p.drawPolyline(drawn);
    }
    const double size = style.arrowSize / millimetresPerPixel * unit;
    for (const auto& arrow : drawing.arrows)
        paintEnd(p, view.toPicture(arrow.tip), view.wayOf(arrow.direction), size, style, colour);
}

void paintSpan(PlanCanvas& canvas, ObjectId id, std::size_t number, const annotate::DimensionSpan& span,
               const annotate::DimensionStyle& style) {
    const TextLook look{QString::fromStdString(span.text), pixelsOfCapitals(style.height), theme::ink};
    const double pixelsPerMillimetre = canvas.unit / millimetresPerPixel;
    const auto text =
        canvas.texts.line(look, annotate::Stand::Above, 0.5, style.textGap / millimetresPerPixel);
    const auto drawing = annotate::drawn(span, style, text.width / pixelsPerMillimetre,
                                         pixelsPerMillimetre / canvas.view.scale);
    if (!geometry::boundsOf(drawing.line).meets(canvas.textWindow)) return;
    paintDimensionLines(canvas.painter, canvas.view, canvas.unit, drawing, style, theme::ink);
    std::vector<Vec2> line;
    for (const Vec2 p : geometry::flattened(drawing.line, 0.2 / canvas.view.scale)) {
        const QPointF q = canvas.view.toPicture(p);
        line.push_back({q.x(), q.y()});
    }
    if (line.back().x < line.front().x - 1e-6) std::reverse(line.begin(), line.end());
    for (const auto& arrow : drawing.arrows)
        canvas.texts.keepOff(canvas.view.toPicture(arrow.tip), QSizeF(3, 3) * canvas.unit);
    annotate::PlacedText places;
    const bool inside = style.text == annotate::DimensionText::Inside ||
                        (style.text == annotate::DimensionText::Automatic && drawing.fits);
    if (!inside) addOutside(places, line, text);
    auto along = annotate::placesAlong(line, {text}, std::nullopt);
    places.own = along.own;
    for (auto& candidate : along.candidates) places.candidates.push_back(std::move(candidate));
    if (inside && style.text != annotate::DimensionText::Inside) addOutside(places, line, text);
    canvas.texts.ask(std::move(places), {TextRank::Dimension, number, id, {look}, {}, theme::inkQuiet, true});
}

}  // namespace erdwerk::app
