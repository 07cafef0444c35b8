#pragma once
// Faces that run into other faces.

#include "core/earthwork/facet.h"

namespace erdwerk::earthwork {

/// How far each face goes before it meets its target or another face that goes the same way and stays: of two
/// that fall the higher, of two that rise the lower. `facets` have their ends by the target. Parallel; costs
/// the pairs whose boxes meet.
std::vector<Envelope> cutByEachOther(const std::vector<Facet>& facets, bool closed, const Context& context);

/// The box in plan of a face that ends on `end`.
geometry::Box boundsOf(const Facet& facet, const Envelope& end);

}  // namespace erdwerk::earthwork
