#pragma once
// Which parts of faces stay: those that hang together with the edge, each place given to one face.

#include "core/earthwork/edge_facets.h"
#include "core/earthwork/face_cells.h"

namespace erdwerk::earthwork {

struct FaceAreas {
    std::vector<FaceCells> whole;  ///< of each face what hangs together with the edge
    std::vector<FaceCells> own;    ///< what of it no other face takes
};

/// A part stays that hangs together with a part that begins at the edge, over all
/// faces that go the same way; of two such that cover a place the higher one when both fall, the lower one
/// when both rise; of a face that falls and one that rises the one that is nearer to its edge. No face goes
/// on over another part of the edge. Parallel; costs the ground under the faces, and the pairs of faces whose
/// boxes meet.
FaceAreas areasOf(const EdgeFacets& made, const BatterTarget& target, const terrain::TinLocator* surface,
                  const Context& context);

}  // namespace erdwerk::earthwork
