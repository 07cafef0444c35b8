#pragma once
// An edge that faces can begin at.

#include "core/earthwork/batter.h"

namespace erdwerk::earthwork {

/// Sides of an edge shorter than this are none.
inline constexpr double shortestSide = 1e-6;

/// The edge without repeated corners. BadInput for one without sides, with coordinates that are no figures,
/// and one that crosses itself.
Result<Edge> cleanEdge(const Edge& edge);

}  // namespace erdwerk::earthwork
