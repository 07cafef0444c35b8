#pragma once
// What a closed ring does to the triangles of a surface.

#include <array>
#include <utility>
#include <vector>

#include "core/terrain/locator.h"

namespace erdwerk::terrain {

using Triangle = std::array<std::uint32_t, 3>;               ///< vertices, counter-clockwise
using VertexPair = std::pair<std::uint32_t, std::uint32_t>;  ///< the lower number first

/// A ring laid over a surface. Where it crosses edges of the surface there are new vertices; each triangle
/// that it crosses is there in parts, in its own plane. Outside the surface the ring does nothing.
struct RingCut {
    std::vector<Vec3> vertices;          ///< the new ones; numbered on from those of the surface
    std::vector<std::uint32_t> crossed;  ///< triangles in parts, rising
    std::vector<Triangle> inside;        ///< their parts
    std::vector<Triangle> outside;
    std::vector<std::uint32_t> within;  ///< whole triangles inside, rising
    /// Edges of the parts and the whole triangles that must hold: the ring, and what is left of constrained
    /// sides that it divides. Sorted.
    std::vector<VertexPair> constrained;
    std::vector<VertexPair> chain;  ///< the ring as edges from vertex to vertex, in its own direction
};

/// Requires a ring that `validate` accepts. Costs what lies along the ring and inside it.
RingCut cutAlong(const TinLocator& surface, const std::vector<Vec2>& ring);

}  // namespace erdwerk::terrain
