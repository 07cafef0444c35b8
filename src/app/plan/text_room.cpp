#include "app/plan/text_room.h"

#include <QTransform>
#include <algorithm>
#include <cmath>

namespace erdwerk::app {

namespace {

constexpr double cell = 64;

/// Separating axes: two convex polygons lie apart when they do along a normal of one of their sides.
bool apartAlongSides(const QPolygonF& a, const QPolygonF& b) {
    for (qsizetype i = 0; i < a.size(); ++i) {
        const QPointF side = a[(i + 1) % a.size()] - a[i];
        const QPointF normal(-side.y(), side.x());
        const auto span = [&](const QPolygonF& p) {
            double low = INFINITY;
            double high = -INFINITY;
            for (const QPointF& q : p) {
                const double d = QPointF::dotProduct(normal, q);
                low = std::min(low, d);
                high = std::max(high, d);
            }
            return std::pair(low, high);
        };
        const auto [lowA, highA] = span(a);
        const auto [lowB, highB] = span(b);
        if (highA <= lowB || highB <= lowA) return true;
    }
    return false;
}

template <class Do>
void eachCell(const QPolygonF& area, const Do& act) {
    const QRectF box = area.boundingRect();
    const auto at = [](double v) { return static_cast<int>(std::floor(v / cell)); };
    for (int x = at(box.left()); x <= at(box.right()); ++x)
        for (int y = at(box.top()); y <= at(box.bottom()); ++y) act(QPair<int, int>(x, y));
}

}  // namespace

bool TextRoom::claim(const QPolygonF& area) {
    bool free = true;
    eachCell(area, [&](QPair<int, int> c) {
        const auto found = cells_.constFind(c);
        if (!free || found == cells_.constEnd()) return;
        for (const std::size_t i : *found)
            if (!apartAlongSides(area, taken_[i]) && !apartAlongSides(taken_[i], area)) free = false;
    });
    if (!free) return false;
    eachCell(area, [&](QPair<int, int> c) { cells_[c].push_back(taken_.size()); });
    taken_.push_back(area);
    return true;
}

QPolygonF turnedBox(QPointF centre, QSizeF size, double degrees) {
    QTransform turn;
    turn.translate(centre.x(), centre.y());
    turn.rotate(degrees);
    const double w = size.width() / 2;
    const double h = size.height() / 2;
    return turn.map(QPolygonF{{-w, -h}, {w, -h}, {w, h}, {-w, h}});
}

}  // namespace erdwerk::app
