#pragma once
// Faces as triangles.

#include <tsl/robin_map.h>
#include <tsl/robin_set.h>

#include "core/earthwork/face_cells.h"

namespace erdwerk::earthwork {

/// Gathers vertices, of which those nearer than 1e-5 in plan (and 0.01 in height) are one (the first), and
/// triangles.
class MeshPool {
public:
    /// Room for so many vertices.
    void reserve(std::size_t vertices);
    std::uint32_t vertex(Vec3 p);
    /// Turned counter-clockwise; nothing when it has no area, or lies over one that is there.
    void triangle(std::uint32_t a, std::uint32_t b, std::uint32_t c);
    [[nodiscard]] const Vec3& at(std::uint32_t v) const { return vertices_[v]; }
    [[nodiscard]] std::uint32_t count() const { return static_cast<std::uint32_t>(vertices_.size()); }
    [[nodiscard]] terrain::Tin take();

private:
    struct Cell {
        std::int64_t x = 0;
        std::int64_t y = 0;
        friend bool operator==(const Cell&, const Cell&) = default;
    };
    struct Hash {
        std::size_t operator()(const Cell& c) const {
            return mixed(static_cast<std::size_t>(c.x) * 0x9e3779b97f4a7c15ULL ^
                         static_cast<std::size_t>(c.y));
        }
        std::size_t operator()(std::uint64_t side) const { return mixed(side); }
        /// The tables take the lowest bits.
        static std::size_t mixed(std::size_t bits) {
            bits *= 0xff51afd7ed558ccdULL;
            return bits ^ bits >> 32U;
        }
    };
    std::vector<Vec3> vertices_;
    std::vector<std::uint32_t> corners_;
    tsl::robin_set<std::uint64_t, Hash> sides_;        ///< from vertex to vertex, as triangles go round
    tsl::robin_map<Cell, std::uint32_t, Hash> cells_;  ///< the last vertex of each
    std::vector<std::uint32_t> before_;                ///< of each vertex, the one before it in its cell
};

/// A region of a face: between two chains that run with s, on one plane.
struct FaceRegion {
    std::vector<Along> inner;
    std::vector<Along> outer;  ///< begins and ends where the other does in s
    std::size_t strip = 0;
};

/// Regions of a face that no two chains bound, on one plane, by their sides in any order.
struct FaceOutline {
    std::size_t strip = 0;
    std::vector<std::pair<Along, Along>> sides;
};

struct FaceParts {
    std::vector<FaceRegion> regions;
    std::vector<FaceOutline> outlines;
};
/// What a face is made of.
FaceParts partsOf(const Facet& facet, const FaceCells& cells);

/// Its triangles. Every corner of the region becomes a vertex; none is added.
void addRegion(MeshPool& pool, const Facet& facet, const FaceRegion& region);
void addOutline(MeshPool& pool, const Facet& facet, const FaceCells& cells, const FaceOutline& outline);

}  // namespace erdwerk::earthwork
