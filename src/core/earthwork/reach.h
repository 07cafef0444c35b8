#pragma once
// How far faces reach to their target.

#include "core/earthwork/edge_facets.h"
#include "core/earthwork/face_lines.h"

namespace erdwerk::earthwork {

/// For each face where it meets its target, and where the ground ends before. On a surface as far as a face
/// may hang together with what begins at the edge, over its neighbours too: beyond that lines are missing.
/// Parallel; costs the triangles under the faces.
std::vector<std::vector<FaceLine>> linesOf(const EdgeFacets& made, const BatterTarget& target,
                                           const terrain::TinLocator* surface, const Context& context);

/// How far the target lies beyond a face (> 0: not reached yet); nothing where there is none.
std::optional<double> gapAt(const Facet& facet, Along place, const BatterTarget& target,
                            const terrain::TinLocator* surface);

/// How far a face goes at s = 0 until it first meets its target, about; nothing when it does not get there.
std::optional<double> reachAtStart(const Facet& facet, const BatterTarget& target,
                                   const terrain::TinLocator* surface);

}  // namespace erdwerk::earthwork
