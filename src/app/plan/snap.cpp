#include "app/plan/snap.h"

#include <QObject>
#include <algorithm>

#include "core/geometry/predicates.h"

namespace erdwerk::app {

using geometry::Vec2;

namespace {

class Finder {
public:
    Finder(const Snapshot& snapshot, const ViewTransform& view, QPointF cursor, double pixels,
           const std::optional<Vec2>& from)
        : derived_(snapshot.derived),
          document_(derived_.document),
          view_(view),
          cursor_(view.toGround(cursor)),
          reach_(pixels / view.scale),
          from_(from) {
        window_.add(cursor_);
        window_ = window_.grown(reach_);
    }

    std::vector<Snap> run() {
        points();
        for (const auto& [id, line] : derived_.lines)
            if (shown(id)) this->line(id, *line);
        crossings();
        paths();
        cloudPoints();
        std::stable_sort(out_.begin(), out_.end(), [](const Snap& a, const Snap& b) {
            return rank(a.kind) != rank(b.kind) ? rank(a.kind) < rank(b.kind) : a.distance < b.distance;
        });
        return std::move(out_);
    }

private:
    static int rank(SnapKind kind) {
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
            case SnapKind::CloudPoint:
                return 3;
            default:
                return 2;
        }
    }

    [[nodiscard]] bool shown(ObjectId id) const {
        const auto object = document_.find(id);
        return object && !document_.hidden(*object);
    }

    [[nodiscard]] QString nameOf(ObjectId id) const { return QString::fromStdString(document_.nameOf(id)); }

    void add(SnapKind kind, Vec2 place, std::optional<double> height, Ref ref, const QString& name,
             std::size_t segment = 0, double fraction = 0) {
        const double d = geometry::distance(place, cursor_);
        if (d <= reach_) out_.push_back({kind, place, height, ref, segment, fraction, name, d * view_.scale});
    }

    void points() {
        for (const ObjectId id : document_.all<objects::Points>()) {
            if (!shown(id)) continue;
            const auto& set = document_.get<objects::Points>(id)->set;
            for (std::size_t i = 0; i < set.size(); ++i)
                if (window_.contains(set[i].plan))
                    add(SnapKind::Point, set[i].plan, set[i].height, {id, i},
                        QObject::tr("point %1").arg(QString::fromStdString(set[i].number)));
        }
    }

    void line(ObjectId id, const linework::ResolvedLine& line) {
        geometry::Box box;
        for (const auto& s : line.path) box.add(boundsOf(s));
        if (!box.meets(window_)) return;
        const auto& vertices = document_.get<objects::Line>(id)->line.vertices;
        for (std::size_t i = 0; i < line.vertices.size() && i < vertices.size(); ++i) {
            const auto& v = line.vertices[i];
            const bool end = !line.closed && (i == 0 || i + 1 == line.vertices.size());
            const SnapKind kind =
                !vertices[i].isCorner ? SnapKind::GradePoint : (end ? SnapKind::End : SnapKind::Corner);
            const QString name = kind == SnapKind::GradePoint
                                     ? QObject::tr("grade point of %1")
                                     : (end ? QObject::tr("end of %1") : QObject::tr("corner of %1"));
            add(kind, v.place, v.height, {id, i}, name.arg(nameOf(id)));
        }
        double base = 0;
        for (std::size_t s = 0; s < line.path.size(); ++s) {
            const double size = lengthOf(line.path[s]);
            const auto height = [&](double fraction) {
                return linework::heightAt(line, base + fraction * size);
            };
            add(SnapKind::Middle, pointAt(line.path[s], 0.5), height(0.5), {id, std::nullopt},
                QObject::tr("middle of %1").arg(nameOf(id)), s, 0.5);
            if (boundsOf(line.path[s]).meets(window_)) {
                if (const auto near = geometry::nearestOn({line.path[s]}, cursor_)) {
                    add(SnapKind::Line, near->place, height(near->fraction), {id, std::nullopt}, nameOf(id),
                        s, near->fraction);
                    if (std::abs(near->distance) <= reach_) hit_.push_back({id, line.path[s]});
                }
                if (from_)
                    if (const auto near = geometry::nearestOn({line.path[s]}, *from_);
                        near && near->fraction > 0 && near->fraction < 1)
                        add(SnapKind::Perpendicular, near->place, height(near->fraction), {id, std::nullopt},
                            QObject::tr("perpendicular to %1").arg(nameOf(id)), s, near->fraction);
            }
            if (from_)
                for (const auto& touch : geometry::tangentPlaces(line.path[s], *from_))
                    add(SnapKind::Tangent, touch.place, height(touch.fraction), {id, std::nullopt},
                        QObject::tr("tangent to %1").arg(nameOf(id)), s, touch.fraction);
            base += size;
        }
    }

    void crossings() {
        for (std::size_t i = 0; i < hit_.size(); ++i)
            for (std::size_t j = i + 1; j < hit_.size(); ++j) {
                const auto& a = hit_[i].second;
                const auto& b = hit_[j].second;
                if (hit_[i].first == hit_[j].first || arcOf(a) || arcOf(b)) continue;
                if (geometry::meeting(a.start, a.end, b.start, b.end) != geometry::Meeting::Crossing)
                    continue;
                add(SnapKind::Crossing,
                    geometry::lerp(a.start, a.end,
                                   geometry::crossingFraction(a.start, a.end, b.start, b.end)),
                    std::nullopt, {hit_[i].first, std::nullopt},
                    QObject::tr("crossing of %1 and %2").arg(nameOf(hit_[i].first), nameOf(hit_[j].first)));
            }
    }

    void paths() {
        for (const auto& [id, alignment] : derived_.alignments) {
            const auto near = shown(id) ? geometry::nearestOn(alignment->path, cursor_) : std::nullopt;
            if (near)
                add(SnapKind::Alignment, near->place, std::nullopt, {id, std::nullopt},
                    QObject::tr("alignment %1").arg(nameOf(id)), near->segment, near->fraction);
        }
        for (const auto& [id, parcel] : derived_.parcels) {
            const auto line = derived_.lines.find(document_.get<objects::Parcel>(id)->line);
            const auto near = line != derived_.lines.end() && shown(id)
                                  ? geometry::nearestOn(line->second->path, cursor_)
                                  : std::nullopt;
            if (near)
                add(SnapKind::Parcel, near->place, std::nullopt, {id, std::nullopt},
                    QObject::tr("parcel %1").arg(nameOf(id)), near->segment, near->fraction);
        }
        for (const auto& [id, label] : derived_.labels)
            if (shown(id))
                add(SnapKind::Label, label->place, std::nullopt, {id, std::nullopt},
                    QObject::tr("label %1").arg(nameOf(id)));
    }

    void cloudPoints() {
        for (const auto& [id, tiles] : derived_.clouds) {
            const auto* cloud = document_.get<objects::Cloud>(id);
            if (cloud == nullptr || !shown(id) || tiles->cloud().spacing() * view_.scale < 6) continue;
            const auto nearest = tiles->nearest(cursor_, reach_);
            if (!nearest || !survey::CloudPart(*cloud->cloud, cloud->filter).has(*nearest)) continue;
            const auto p = cloud->cloud->place(*nearest);
            add(SnapKind::CloudPoint, p.plan(), p.z, {id, std::nullopt},
                QObject::tr("cloud point of %1").arg(nameOf(id)));
        }
    }

    const derive::Derived& derived_;
    const document::Document& document_;
    const ViewTransform& view_;
    Vec2 cursor_;
    double reach_;
    std::optional<Vec2> from_;
    geometry::Box window_;
    std::vector<std::pair<ObjectId, geometry::Segment>> hit_;
    std::vector<Snap> out_;
};

}  // namespace

std::vector<Snap> snapsAt(const Snapshot& snapshot, const ViewTransform& view, QPointF cursor, double pixels,
                          const std::optional<Vec2>& from) {
    return Finder(snapshot, view, cursor, pixels, from).run();
}

}  // namespace erdwerk::app
