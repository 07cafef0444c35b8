#pragma once
// What lies under the cursor, by name.

#include <QPointF>
#include <QString>
#include <vector>

#include "app/base/session.h"
#include "app/base/texts_shown.h"
#include "app/plan/view_transform.h"
#include "core/base/id.h"
#include "core/geometry/element.h"
#include "core/geometry/path.h"

namespace erdwerk::app {

/// What sort of place it is, whatever kind of object has it.
enum class SnapKind {
    Point,  ///< of a set
    Corner,
    GradePoint,
    End,
    Middle,
    Crossing,
    Perpendicular,
    Tangent,
    Line,    ///< somewhere on a 3D line
    Object,  ///< somewhere on an object that is taken as a whole
    Dense,   ///< one of many, when they stand apart enough to be told from each other
    Surface,
    Typed  ///< not a place: a figure (as height) or a name
};

struct Snap {
    SnapKind kind = SnapKind::Surface;
    geometry::Vec2 place;
    std::optional<double> height;
    Ref ref;                  ///< part: point, or vertex
    std::size_t segment = 0;  ///< on lines: segment and fraction of the plan path
    double fraction = 0;
    QString name = {};    ///< "corner of Peat ditch"
    double distance = 0;  ///< from the cursor, in pixels
};

/// The place under the cursor and what has been found near it. Kinds of objects add theirs.
class SnapSearch {
public:
    SnapSearch(const Snapshot& snapshot, const ViewTransform& view, QPointF cursor, double pixels,
               const std::optional<geometry::Vec2>& from, const TextsShown* texts = nullptr);

    [[nodiscard]] const derive::Derived& derived() const { return derived_; }
    [[nodiscard]] const document::Document& document() const { return derived_.document; }
    [[nodiscard]] geometry::Vec2 cursor() const { return cursor_; }
    [[nodiscard]] double reach() const { return reach_; }  ///< on the ground
    [[nodiscard]] const geometry::Box& window() const { return window_; }
    [[nodiscard]] double scale() const { return scale_; }  ///< pixels a unit
    /// Where the next stretch starts: perpendiculars and tangents are looked for from there.
    [[nodiscard]] const std::optional<geometry::Vec2>& from() const { return from_; }
    [[nodiscard]] QString nameOf(ObjectId id) const { return QString::fromStdString(document().nameOf(id)); }

    /// Taken when it is within reach.
    void add(Snap snap);
    /// The same for what is written: also taken when one of its texts lies under the cursor.
    void addText(Snap snap);
    /// The nearest place of a path that is taken as a whole.
    void addPath(ObjectId id, const geometry::Path& path, const QString& name);
    /// A segment near the cursor; where two of different objects cross is a snap too.
    void addCrossable(ObjectId id, const geometry::Segment& segment);
    /// Everything found, nearest kinds first.
    std::vector<Snap> finish();

private:
    void crossings();

    const derive::Derived& derived_;
    double scale_;
    geometry::Vec2 cursor_;
    double reach_;
    std::optional<geometry::Vec2> from_;
    geometry::Box window_;
    const TextsShown* texts_;
    std::vector<std::pair<ObjectId, geometry::Segment>> crossable_;
    std::vector<Snap> out_;
};

}  // namespace erdwerk::app
