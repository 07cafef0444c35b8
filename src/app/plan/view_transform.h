#pragma once
// From the ground to the picture and back.

#include <QPointF>
#include <QSizeF>

#include "core/geometry/vec.h"

namespace erdwerk::app {

/// `scale` is picture units (pixels, points) per ground unit; north is up.
struct ViewTransform {
    geometry::Vec2 centre;
    double scale = 1;
    QSizeF size;

    [[nodiscard]] QPointF toPicture(geometry::Vec2 p) const {
        return {(p.x - centre.x) * scale + size.width() / 2, size.height() / 2 - (p.y - centre.y) * scale};
    }
    [[nodiscard]] geometry::Vec2 toGround(QPointF p) const {
        return {(p.x() - size.width() / 2) / scale + centre.x,
                (size.height() / 2 - p.y()) / scale + centre.y};
    }
    [[nodiscard]] geometry::Box window() const {
        geometry::Box box;
        box.add(toGround({0, 0}));
        box.add(toGround({size.width(), size.height()}));
        return box;
    }
    friend bool operator==(const ViewTransform&, const ViewTransform&) = default;
};

}  // namespace erdwerk::app
