#include "core/geometry/predicates.h"

#include <CGAL/Exact_predicates_inexact_constructions_kernel.h>

#include <algorithm>

namespace erdwerk::geometry {

namespace {
using Kernel = CGAL::Exact_predicates_inexact_constructions_kernel;
Kernel::Point_2 cgal(Vec2 p) {
    return {p.x, p.y};
}
}  // namespace

int detail::orientationExact(Vec2 a, Vec2 b, Vec2 c) {
    return static_cast<int>(CGAL::orientation(cgal(a), cgal(b), cgal(c)));
}

int inCircle(Vec2 a, Vec2 b, Vec2 c, Vec2 d) {
    return static_cast<int>(CGAL::side_of_oriented_circle(cgal(a), cgal(b), cgal(c), cgal(d)));
}

namespace {

/// c is known to be on the line a-b: is it within the segment, ends included?
bool within(Vec2 a, Vec2 b, Vec2 c) {
    return std::min(a.x, b.x) <= c.x && c.x <= std::max(a.x, b.x) && std::min(a.y, b.y) <= c.y &&
           c.y <= std::max(a.y, b.y);
}

bool before(Vec2 a, Vec2 b) {
    return a.x < b.x || (a.x == b.x && a.y < b.y);
}

}  // namespace

Meeting meeting(Vec2 a, Vec2 b, Vec2 c, Vec2 d) {
    const int abc = orientation(a, b, c);
    const int abd = orientation(a, b, d);
    if (abc * abd > 0) return Meeting::None;
    const int cda = orientation(c, d, a);
    const int cdb = orientation(c, d, b);
    if (cda * cdb > 0) return Meeting::None;
    if (abc == 0 && abd == 0) {
        const Vec2 low = std::max(std::min(a, b, before), std::min(c, d, before), before);
        const Vec2 high = std::min(std::max(a, b, before), std::max(c, d, before), before);
        if (before(high, low)) return Meeting::None;
        return low == high ? Meeting::Touching : Meeting::Overlap;
    }
    if (abc * abd < 0 && cda * cdb < 0) return Meeting::Crossing;
    const bool touches = (abc == 0 && within(a, b, c)) || (abd == 0 && within(a, b, d)) ||
                         (cda == 0 && within(c, d, a)) || (cdb == 0 && within(c, d, b));
    return touches ? Meeting::Touching : Meeting::None;
}

double crossingFraction(Vec2 a, Vec2 b, Vec2 c, Vec2 d) {
    const double t = cross(c - a, d - c) / cross(b - a, d - c);
    return std::clamp(t, 0.0, 1.0);
}

}  // namespace erdwerk::geometry
