#include "core/linework/transform.h"

#include <cmath>

namespace erdwerk::linework {

PlanMove PlanMove::by(Vec2 shift) {
    PlanMove out;
    out.to_ = shift;
    return out;
}

PlanMove PlanMove::turned(Angle angle, Vec2 about) {
    PlanMove out;
    const double c = std::cos(angle.radians());
    const double s = std::sin(angle.radians());
    out.origin_ = out.to_ = about;
    out.x_ = {c, -s};
    out.y_ = {s, c};
    return out;
}

PlanMove PlanMove::mirrored(Vec2 a, Vec2 b) {
    PlanMove out;
    const Vec2 u = (b - a) * (1 / geometry::distance(a, b));
    out.origin_ = out.to_ = a;
    out.x_ = {2 * u.x * u.x - 1, 2 * u.x * u.y};
    out.y_ = {2 * u.x * u.y, 2 * u.y * u.y - 1};
    return out;
}

Vec2 PlanMove::operator()(Vec2 place) const {
    const Vec2 r = place - origin_;
    return to_ + x_ * r.x + y_ * r.y;
}

Line3D moved(const Line3D& line, const PlanMove& move) {
    Line3D out = line;
    for (auto& v : out.vertices) {
        if (!v.isCorner) continue;
        v.place = move(v.place);
        if (v.through) v.through = move(*v.through);
    }
    return out;
}

}  // namespace erdwerk::linework
