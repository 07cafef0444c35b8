#pragma once
// From the ground to the picture and back.

#include <QPointF>
#include <QSizeF>
#include <cmath>

#include "core/base/quantity.h"
#include "core/geometry/vec.h"

namespace erdwerk::app {

/// `scale` is picture units (pixels, points) per ground unit; north is up unless it was turned.
struct ViewTransform {
    geometry::Vec2 centre;
    double scale = 1;
    QSizeF size;

    /// The azimuth that is up in the picture.
    void turnTo(Angle azimuth) {
        sine_ = std::sin(azimuth.radians());
        cosine_ = std::cos(azimuth.radians());
    }
    [[nodiscard]] Angle up() const { return Angle::radians(std::atan2(sine_, cosine_)); }
    [[nodiscard]] bool isTurned() const { return sine_ != 0 || cosine_ < 0; }

    [[nodiscard]] QPointF toPicture(geometry::Vec2 p) const {
        const QPointF way = wayOf(p - centre);
        return {way.x() * scale + size.width() / 2, size.height() / 2 + way.y() * scale};
    }
    /// A direction of the ground in the picture, as long as it was.
    [[nodiscard]] QPointF wayOf(geometry::Vec2 d) const {
        return {d.x * cosine_ - d.y * sine_, -(d.x * sine_ + d.y * cosine_)};
    }
    [[nodiscard]] geometry::Vec2 toGround(QPointF p) const {
        const double right = (p.x() - size.width() / 2) / scale;
        const double upwards = (size.height() / 2 - p.y()) / scale;
        return {right * cosine_ + upwards * sine_ + centre.x, upwards * cosine_ - right * sine_ + centre.y};
    }
    /// What the picture shows lies in it.
    [[nodiscard]] geometry::Box window() const {
        geometry::Box box;
        for (const QPointF corner : {QPointF(0, 0), QPointF(size.width(), size.height()),
                                     QPointF(size.width(), 0), QPointF(0, size.height())})
            box.add(toGround(corner));
        return box;
    }
    friend bool operator==(const ViewTransform&, const ViewTransform&) = default;

private:
    double sine_ = 0;
    double cosine_ = 1;
};

}  // namespace erdwerk::app
