#pragma once

#include "app/plan/view_transform.h"

namespace erdwerk::app {

/// A view with north up.
inline ViewTransform viewAt(geometry::Vec2 centre, double scale, QSizeF size) {
    ViewTransform view;
    view.centre = centre;
    view.scale = scale;
    view.size = size;
    return view;
}

}  // namespace erdwerk::app
