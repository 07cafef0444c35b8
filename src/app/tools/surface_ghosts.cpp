#include "app/tools/surface_ghosts.h"

#include "app/base/theme.h"
#include "app/kinds/current.h"
#include "core/terrain/drop.h"

namespace erdwerk::app::tools {

using geometry::Vec2;
using geometry::Vec3;

namespace {

void outline(QPainter& painter, const ViewTransform& view, const std::vector<Vec2>& places, bool closed,
             const QColor& fill = Qt::transparent) {
    QPolygonF shape;
    for (const Vec2 p : places) shape << view.toPicture(p);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(theme::clay, 2, Qt::DashLine));
    painter.setBrush(fill);
    if (closed)
        painter.drawPolygon(shape);
    else
        painter.drawPolyline(shape);
    painter.setBrush(Qt::NoBrush);
}

/// The side of a triangle that is nearest to a place.
int nearestSide(const terrain::Tin& tin, std::uint32_t t, Vec2 place) {
    int best = 0;
    double least = -1;
    for (int i = 0; i < 3; ++i) {
        const geometry::Path side{{tin.vertex(tin.corner(t, (i + 1) % 3)).plan(),
                                   tin.vertex(tin.corner(t, (i + 2) % 3)).plan(), std::nullopt}};
        const double d = std::abs(geometry::nearestOn(side, place)->distance);
        if (least >= 0 && d >= least) continue;
        least = d;
        best = i;
    }
    return best;
}

}  // namespace

void ghostFlip(QPainter& painter, const ViewTransform& view, const Session& s, const Picks& k) {
    const auto* surface = s.derived().surface(currentSurface(s));
    const auto t = surface == nullptr || k.empty() ? std::nullopt : surface->triangleAt(k.back().place);
    if (!t) return;
    const auto& tin = surface->tin();
    const int side = nearestSide(tin, *t, k.back().place);
    const std::uint32_t n = tin.neighbour(*t, side);
    if (n == terrain::Tin::none) return;
    Vec2 across{};
    for (int i = 0; i < 3; ++i)
        if (tin.neighbour(n, i) == *t) across = tin.vertex(tin.corner(n, i)).plan();
    const Vec2 top = tin.vertex(tin.corner(*t, side)).plan();
    outline(painter, view,
            {top, tin.vertex(tin.corner(*t, (side + 1) % 3)).plan(), across,
             tin.vertex(tin.corner(*t, (side + 2) % 3)).plan()},
            true, QColor(0xB9, 0x50, 0x2B, 30));
    outline(painter, view, {top, across}, false);
}

void ghostTriangle(QPainter& painter, const ViewTransform& view, const Session& s, const Picks& k) {
    const auto* surface = s.derived().surface(currentSurface(s));
    const auto t = surface == nullptr || k.empty() ? std::nullopt : surface->triangleAt(k.back().place);
    if (!t) return;
    const auto c = surface->tin().triangle(*t);
    outline(painter, view, {c[0].plan(), c[1].plan(), c[2].plan()}, true, QColor(0xB9, 0x50, 0x2B, 50));
}

/// The triangles round the vertex that is nearest.
void ghostVertex(QPainter& painter, const ViewTransform& view, const Session& s, const Picks& k) {
    const auto* surface = s.derived().surface(currentSurface(s));
    const auto t = surface == nullptr || k.empty() ? std::nullopt : surface->triangleAt(k.front().place);
    if (!t) return;
    const auto& tin = surface->tin();
    Vec2 vertex = tin.vertex(tin.corner(*t, 0)).plan();
    for (int i = 1; i < 3; ++i) {
        const Vec2 other = tin.vertex(tin.corner(*t, i)).plan();
        if (geometry::distance(other, k.front().place) < geometry::distance(vertex, k.front().place))
            vertex = other;
    }
    painter.setPen(QPen(theme::clay, 2));
    painter.setBrush(QColor(0xB9, 0x50, 0x2B, 60));
    painter.drawEllipse(view.toPicture(vertex), 6, 6);
    if (k.size() > 1) outline(painter, view, {vertex, k.back().place}, false);
}

void ghostRunoff(QPainter& painter, const ViewTransform& view, const Session& s, const Picks& k) {
    const auto* surface = s.derived().surface(currentSurface(s));
    if (surface == nullptr || k.empty()) return;
    const auto path = terrain::dropPath(*surface, k.back().place);
    if (path.places.size() < 2) return;
    QPolygonF shape;
    for (const Vec3& p : path.places) shape << view.toPicture(p.plan());
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(theme::spruce, 2.4));
    painter.drawPolyline(shape);
    painter.setBrush(theme::spruce);
    painter.drawEllipse(shape.back(), 4, 4);
    painter.setBrush(Qt::NoBrush);
    const auto& display = s.document().settings().display;
    const double fall = path.places.front().z - path.places.back().z;
    const QString text = (path.end == terrain::DropEnd::Hollow ? QObject::tr("ends in a hollow, %1 lower")
                                                               : QObject::tr("leaves the surface, %1 lower"))
                             .arg(QString::fromStdString(formatLength(fall, display)));
    painter.setFont(theme::font(12, true));
    painter.setPen(theme::spruce.darker(120));
    painter.drawText(shape.back() + QPointF(10, 16), text);
}

}  // namespace erdwerk::app::tools
