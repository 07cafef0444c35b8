#include "app/plan/snap.h"

#include <QObject>
#include <algorithm>

#include "app/base/snapshot.h"

namespace erdwerk::app {

using geometry::Vec2;

namespace {

/// Points and corners before middles before lines.
int rank(SnapKind kind) {
    switch (kind) {
        case SnapKind::Point:
        case SnapKind::Corner:
        case SnapKind::End:
        case SnapKind::GradePoint:
            return 0;
        case SnapKind::Crossing:
        case SnapKind::Middle:
        case SnapKind::Tangent:
        case SnapKind::Perpendicular:
            return 1;
        case SnapKind::Dense:
            return 3;
        default:
            return 2;
    }
}

}  // namespace

SnapSearch::SnapSearch(const Snapshot& snapshot, const ViewTransform& view, QPointF cursor, double pixels,
                       const std::optional<Vec2>& from, const TextsShown* texts)
    : derived_(snapshot.derived),
      scale_(view.scale),
      cursor_(view.toGround(cursor)),
      reach_(pixels / view.scale),
      from_(from),
      texts_(texts) {
    window_.add(cursor_);
    window_ = window_.grown(reach_);
}

void SnapSearch::add(Snap snap) {
    const double d = geometry::distance(snap.place, cursor_);
    if (d > reach_) return;
    snap.distance = d * scale_;
    out_.push_back(std::move(snap));
}

void SnapSearch::addText(Snap snap) {
    if (texts_ != nullptr)
        if (const auto of = texts_->shown.find(snap.ref.object); of != texts_->shown.end())
            for (const annotate::TextBox& box : of->second.boxes)
                if (annotate::contains(box, cursor_)) {
                    snap.place = cursor_;
                    return add(std::move(snap));
                }
    add(std::move(snap));
}

void SnapSearch::addPath(ObjectId id, const geometry::Path& path, const QString& name) {
    const auto near = geometry::nearestOn(path, cursor_);
    if (!near) return;
    Snap snap{SnapKind::Object, near->place, std::nullopt, {id, std::nullopt}};
    snap.segment = near->segment;
    snap.fraction = near->fraction;
    snap.name = name;
    add(std::move(snap));
}

void SnapSearch::addCrossable(ObjectId id, const geometry::Segment& segment) {
    crossable_.emplace_back(id, segment);
}

void SnapSearch::crossings() {
    for (std::size_t i = 0; i < crossable_.size(); ++i)
        for (std::size_t j = i + 1; j < crossable_.size(); ++j) {
            const auto& [first, a] = crossable_[i];
            const auto& [second, b] = crossable_[j];
            if (first == second) continue;
            for (const auto& crossing : geometry::crossings(a, b)) {
                Snap snap{SnapKind::Crossing, crossing.place, std::nullopt, {first, std::nullopt}};
                snap.name = QObject::tr("crossing of %1 and %2").arg(nameOf(first), nameOf(second));
                add(std::move(snap));
            }
        }
}

std::vector<Snap> SnapSearch::finish() {
    crossings();
    std::stable_sort(out_.begin(), out_.end(), [](const Snap& a, const Snap& b) {
        return rank(a.kind) != rank(b.kind) ? rank(a.kind) < rank(b.kind) : a.distance < b.distance;
    });
    return std::move(out_);
}

}  // namespace erdwerk::app
