#pragma once
// Where texts of a picture stand already, so that none is written over another.

#include <QHash>
#include <QPolygonF>
#include <vector>

namespace erdwerk::app {

class TextRoom {
public:
    /// Takes a place for a text, turned as it may be; false, and nothing taken, when it meets one that is
    /// taken. Requires a convex polygon. Costs what lies in the same cells of a grid.
    bool claim(const QPolygonF& area);

private:
    std::vector<QPolygonF> taken_;
    QHash<QPair<int, int>, std::vector<std::size_t>> cells_;
};

/// A rectangle of this size round its centre, turned clockwise by degrees.
QPolygonF turnedBox(QPointF centre, QSizeF size, double degrees);

}  // namespace erdwerk::app
