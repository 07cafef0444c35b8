#pragma once
// What lies under the cursor, by name.

#include <QString>
#include <vector>

#include "app/base/session.h"
#include "app/plan/view_transform.h"

namespace erdwerk::app {

enum class SnapKind {
    Point,
    Corner,
    GradePoint,
    End,
    Middle,
    Crossing,
    Perpendicular,
    Tangent,
    Line,
    Alignment,
    Parcel,
    Label,
    CloudPoint,  ///< when the points stand apart enough to be told from each other
    Surface,
    Typed  ///< not a place: a figure (as height) or a name
};

struct Snap {
    SnapKind kind = SnapKind::Surface;
    geometry::Vec2 place;
    std::optional<double> height;
    Ref ref;                  ///< part: point, vertex, or segment for Middle and Line
    std::size_t segment = 0;  ///< on lines: segment and fraction of the plan path
    double fraction = 0;
    QString name;         ///< "corner of Peat ditch"
    double distance = 0;  ///< from the cursor, in pixels
};

/// Everything within `pixels` of the cursor, nearest kinds first (points and corners before middles before
/// lines).
std::vector<Snap> snapsAt(const Snapshot& snapshot, const ViewTransform& view, QPointF cursor, double pixels,
                          const std::optional<geometry::Vec2>& from = std::nullopt);

}  // namespace erdwerk::app
