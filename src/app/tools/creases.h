#pragma once
// What finding and following creases share: how the ground bends, worked out in the background, and how it is
// drawn.

#include <memory>
#include <numbers>

#include "app/base/latest_worker.h"
#include "app/plan/tool.h"
#include "core/derive/dense_source.h"
#include "core/document/transaction.h"

namespace erdwerk::app {

inline constexpr double degree = std::numbers::pi / 180;

/// How the ground bends in an area of a source, worked out in the background.
struct BendRequest {
    SnapshotPointer snapshot;
    ObjectId source;
    geometry::Box area;
};
struct BendAnswer {
    std::shared_ptr<const terrain::CreaseField> field;  ///< null: `problem` says why
    std::vector<terrain::Crease> found;                 ///< when they were asked for
    std::string problem;
};

BendAnswer bendOf(const BendRequest& request, const std::atomic<bool>& cancel);
double creaseLength(const std::vector<geometry::Vec3>& places, bool closed);
/// A crest is drawn through, a toe dashed, as the lines will be.
void paintCrease(QPainter& painter, const ViewTransform& view, const std::vector<geometry::Vec3>& places,
                 bool closed, terrain::CreaseKind kind, const QColor& colour, double width);
QString kindText(terrain::CreaseKind kind);

}  // namespace erdwerk::app
