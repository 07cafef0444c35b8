#pragma once
// Signs that several kinds draw in a legend.

#include "app/base/snapshot.h"
#include "app/kinds/object_kind.h"

namespace erdwerk::app {

/// A line through the middle of the room.
inline PlanSign lineSign(const QString& text, const QColor& colour, double pixels,
                         Qt::PenStyle style = Qt::SolidLine, const QList<qreal>& dashes = {}) {
    return {text, [=](QPainter& p, const QRectF& room, double unit) {
                QPen pen(colour, pixels * unit, style, Qt::FlatCap);
                if (!dashes.isEmpty()) pen.setDashPattern(dashes);
                p.setPen(pen);
                p.drawLine(QPointF(room.left(), room.center().y()), QPointF(room.right(), room.center().y()));
            }};
}

}  // namespace erdwerk::app
