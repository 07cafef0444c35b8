#include "core/earthwork/clean_edge.h"

#include <cmath>

#include "core/base/display.h"
#include "core/geometry/box_index.h"
#include "core/geometry/predicates.h"

namespace erdwerk::earthwork {

namespace {

/// Corners that are apart.
Result<Edge> apart(const Edge& edge) {
    Edge out;
    out.closed = edge.closed;
    for (const Vec3& p : edge.corners) {
        if (!std::isfinite(p.x) || !std::isfinite(p.y) || !std::isfinite(p.z))
            return badInput("the edge has coordinates that are no figures");
        if (out.corners.empty() || geometry::distance(out.corners.back().plan(), p.plan()) > shortestSide)
            out.corners.push_back(p);
    }
    while (out.closed && out.corners.size() > 1 &&
           geometry::distance(out.corners.back().plan(), out.corners.front().plan()) <= shortestSide)
        out.corners.pop_back();
    if (out.corners.size() < (out.closed ? 3U : 2U)) return badInput("the edge has no sides");
    return out;
}

Result<void> checkCrossings(const Edge& edge) {
    const std::size_t n = edge.corners.size();
    const std::size_t sides = edge.closed ? n : n - 1;
    std::vector<geometry::Box> boxes(sides);
    const auto corner = [&](std::size_t k) { return edge.corners[k % n].plan(); };
    for (std::size_t k = 0; k < sides; ++k) {
        boxes[k].add(corner(k));
        boxes[k].add(corner(k + 1));
    }
    const geometry::BoxIndex near(boxes);
    std::optional<Vec2> where;
    for (std::size_t k = 0; k < sides && !where; ++k)
        near.query(boxes[k], [&](std::uint32_t m) {
            if (m <= k) return true;
            const auto meets = geometry::meeting(corner(k), corner(k + 1), corner(m), corner(m + 1));
            const bool neighbours = m == k + 1 || (edge.closed && k == 0 && m + 1 == sides);
            const bool bad =
                neighbours ? meets == geometry::Meeting::Overlap : meets != geometry::Meeting::None;
            if (bad) where = corner(m);
            return !bad;
        });
    if (!where) return {};
    return badInput("the edge crosses itself near " + formatFixed(where->x, 2) + ", " +
                    formatFixed(where->y, 2));
}

}  // namespace

Result<Edge> cleanEdge(const Edge& edge) {
    auto clean = apart(edge);
    if (!clean) return clean;
    if (auto crossing = checkCrossings(*clean); !crossing) return tl::unexpected(crossing.error());
    return clean;
}

}  // namespace erdwerk::earthwork
