#include "core/route/station_finder.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace erdwerk::route {

namespace {

double squareTo(const geometry::Box& box, Vec2 p) {
    const double dx = std::max({0.0, box.minX - p.x, p.x - box.maxX});
    const double dy = std::max({0.0, box.minY - p.y, p.y - box.maxY});
    return dx * dx + dy * dy;
}

}  // namespace

StationFinder::StationFinder(const AlignmentGeometry& alignment) {
    parts_.reserve(alignment.path.size());
    for (std::size_t i = 0; i < alignment.path.size(); ++i)
        parts_.push_back({elementOf(alignment.path[i]), boundsOf(alignment.path[i]), alignment.starts[i],
                          lengthOf(alignment.path[i])});
}

Vec2 StationFinder::directionAt(std::size_t part, double fraction) const {
    return std::visit([&](const auto& e) { return geometry::directionOf(e.direction(fraction)); },
                      parts_[part].element);
}

FoundStation StationFinder::find(Vec2 p) const {
    double least = std::numeric_limits<double>::infinity();
    std::size_t best = 0;
    double fraction = 0;
    Vec2 place;
    for (std::size_t i = 0; i < parts_.size(); ++i) {
        if (squareTo(parts_[i].box, p) >= least) continue;
        const double t = std::visit([&](const auto& e) { return e.nearest(p); }, parts_[i].element);
        const Vec2 at = std::visit(
            [&](const auto& e) { return t <= 0 ? e.start : (t >= 1 ? e.end : e.at(t)); }, parts_[i].element);
        const Vec2 off = p - at;
        const double square = dot(off, off);
        if (square >= least) continue;
        least = square;
        best = i;
        fraction = t;
        place = at;
    }
    FoundStation out;
    out.place = place;
    out.distance = parts_[best].start + fraction * parts_[best].length;
    Vec2 along = directionAt(best, fraction);
    const Vec2 off = p - place;
    const bool first = best == 0 && fraction <= 0;
    const bool last = best + 1 == parts_.size() && fraction >= 1;
    if (first || last) out.beyond = std::abs(dot(along, off)) > 1e-9 * (1 + geometry::length(off));
    if (fraction >= 1 && !last)
        along = along + directionAt(best + 1, 0);
    else if (fraction <= 0 && !first)
        along = along + directionAt(best - 1, 1);
    const double distance = geometry::length(off);
    out.offset = cross(along, off) > 0 ? -distance : distance;
    return out;
}

}  // namespace erdwerk::route
