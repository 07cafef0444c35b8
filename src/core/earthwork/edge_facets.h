#pragma once
// The faces beside an edge, before any is ended: one for each part of a side along which they go one way,
// facets of cones, and the flanks between them.

#include "core/earthwork/facet.h"

namespace erdwerk::earthwork {

struct EdgeFacets {
    std::vector<Facet> facets;      ///< in the order of the edge; those of a cone between its sides
    std::vector<Vec3> edge;         ///< see Batter
    std::vector<EdgeStretch> none;  ///< stretches that have no faces: off the surface
    double length = 0;
    bool closed = false;
};

/// BadInput for an edge without sides, one that crosses itself, and one that passes the height of a berm.
Result<EdgeFacets> facetsOf(const Edge& edge, const BatterShape& shape, const terrain::TinLocator* surface);

}  // namespace erdwerk::earthwork
