#pragma once
// Cutting lines where they cross, before they become constraints.

#include <array>
#include <cstdint>
#include <vector>

#include "core/terrain/build.h"

namespace erdwerk::terrain {

/// Sides between positions in `vertices`, none of which cross except by rounding.
struct NodedLines {
    std::vector<Vec3> vertices;  ///< line corners in order, then crossings
    std::vector<std::array<std::uint32_t, 2>> sides;
    std::vector<Crossing> crossings;
    std::size_t corners = 0;  ///< how many of the vertices are line corners
};

/// Each proper crossing becomes a shared vertex at the height that the rule gives. Where a corner lies on
/// another line's side, the corner's height becomes the one by the rule. Costs O(n log n +
/// crossings).
NodedLines nodeLines(const std::vector<Breakline>& lines, CrossingRule rule = CrossingRule::First);

/// The height by a rule.
double heightBy(CrossingRule rule, double first, double second);

}  // namespace erdwerk::terrain
