#pragma once
// The faces beside an edge, before any is ended: one for each part of a side along which they go one way,
// facets of cones, and the flanks between them.

#include "core/earthwork/facet.h"

namespace erdwerk::earthwork {

struct EdgeFacets {
    /// Those that rise, then those that fall, each in the order of the edge; those of a cone between its
    /// sides. Each reaches over its whole side, from which it starts in part or nowhere.
    std::vector<Facet> facets;
    std::vector<std::pair<Vec3, Vec3>> sides;  ///< of the edge
    std::vector<Vec3> edge;                    ///< see Batter
    std::vector<EdgeStretch> none;             ///< stretches that have no faces: off the surface
    double length = 0;
    bool closed = false;
    std::size_t rising = 0;  ///< how many facets rise
    /// The facet that follows another, going the same way; nothing at the end of an open edge.
    [[nodiscard]] std::optional<std::size_t> nextOf(std::size_t i) const;
};

/// Cones and changing slopes are cut as finely as a reach outwards of at least `reach` asks for. BadInput for
/// an edge without sides, one that crosses itself, and one that passes the height of a berm.
Result<EdgeFacets> facetsOf(const Edge& edge, const BatterShape& shape, const terrain::TinLocator* surface,
                            double reach = 1);

}  // namespace erdwerk::earthwork
