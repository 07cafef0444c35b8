#pragma once
// A triangulation that can be edited in place: local work for a local change.

#include <array>
#include <cstdint>
#include <optional>
#include <span>
#include <vector>

#include "core/terrain/tin.h"

namespace erdwerk::terrain {

/// A constrained Delaunay triangulation of a convex region in flat arrays, as in `Tin`, to which vertices and
/// constraints can be added. Every edit keeps it constrained Delaunay; where no four vertices lie on one
/// circle it is the same triangulation that a build from nothing gives. Decisions are exact. An insertion
/// costs the walk to its place and the triangles it changes.
class Mesh {
public:
    static constexpr std::uint32_t none = Tin::none;

    /// Copies the arrays. Requires that the triangles cover a convex region.
    explicit Mesh(const Tin& tin);
    [[nodiscard]] Tin tin() &&;

    [[nodiscard]] std::uint32_t triangleCount() const {
        return static_cast<std::uint32_t>(corners_.size() / 3);
    }
    [[nodiscard]] std::span<const Vec3> vertices() const { return vertices_; }
    [[nodiscard]] const Vec3& vertex(std::uint32_t v) const { return vertices_[v]; }
    [[nodiscard]] std::uint32_t corner(std::uint32_t t, int i) const {
        return corners_[3 * std::size_t{t} + unsigned(i)];
    }
    [[nodiscard]] std::uint32_t neighbour(std::uint32_t t, int i) const {
        return links_[3 * std::size_t{t} + unsigned(i)] & none;
    }
    [[nodiscard]] bool constrained(std::uint32_t t, int i) const {
        return (links_[3 * std::size_t{t} + unsigned(i)] & ~none) != 0;
    }
    [[nodiscard]] std::array<Vec3, 3> triangle(std::uint32_t t) const {
        return {vertices_[corner(t, 0)], vertices_[corner(t, 1)], vertices_[corner(t, 2)]};
    }
    void setHeight(std::uint32_t v, double z) { vertices_[v].z = z; }
    void reserve(std::size_t moreVertices);

    enum class At { Inside, Side, Corner, Outside };
    struct Where {
        At at = At::Outside;
        std::uint32_t triangle = none;
        int index = 0;  ///< of the side or corner
    };
    /// Walks from `hint` to the place. Outside names the rim triangle where the walk left the region.
    [[nodiscard]] Where locate(Vec2 place, std::uint32_t hint) const;

    /// Adds a vertex at a place that `locate` found Inside or on a Side; a constrained side stays constrained
    /// in both halves. All triangles that changed meet at the new vertex, which is their corner 0. Those that
    /// were there before are appended to `touched`.
    std::uint32_t insert(const Vec3& vertex, const Where& where,
                         std::vector<std::uint32_t>* touched = nullptr);

    /// Triangles round a vertex counter-clockwise (from the rim, when the vertex lies on it), given one of
    /// them.
    void around(std::uint32_t v, std::uint32_t t, std::vector<std::uint32_t>& out) const;
    [[nodiscard]] int cornerIndex(std::uint32_t t, std::uint32_t v) const;

    /// Makes the straight between two vertices a chain of constrained sides. `t` is a triangle at `a`.
    /// Vertices that lie on the straight become part of the chain. False, with the mesh still valid, when
    /// another constraint is crossed.
    [[nodiscard]] bool constrain(std::uint32_t a, std::uint32_t b, std::uint32_t t);
    /// Takes the constraint off the side between two neighbouring vertices and restores the Delaunay
    /// property. `t` is a triangle at `a`. False when there is no such constrained side.
    [[nodiscard]] bool release(std::uint32_t a, std::uint32_t b, std::uint32_t t);
    /// A triangle at the last place an edit worked on; a good hint for the next.
    [[nodiscard]] std::uint32_t lastTriangle() const { return last_; }

private:
    std::uint32_t& link(std::uint32_t t, int i) { return links_[3 * std::size_t{t} + unsigned(i)]; }
    void set(std::uint32_t t, std::array<std::uint32_t, 3> corners, std::array<std::uint32_t, 3> links);
    std::uint32_t addTriangle();
    /// Makes the neighbour across side i of t point back at t.
    std::vector<std::uint32_t> splitTriangle(std::uint32_t t, std::uint32_t v);
    std::vector<std::uint32_t> splitSide(std::uint32_t t, int i, std::uint32_t v,
                                         std::vector<std::uint32_t>* touched);
    std::optional<std::uint32_t> alongSide(std::uint32_t& a, std::uint32_t b, std::uint32_t& t);
    std::uint32_t cutThrough(std::uint32_t a, std::uint32_t b, std::uint32_t crossing);
    void linkBack(std::uint32_t t, int i, std::uint32_t formerly);
    void flip(std::uint32_t t, int i);
    void legalise(std::vector<std::pair<std::uint32_t, int>>& sides);
    [[nodiscard]] bool shouldFlip(std::uint32_t t, int i) const;
    void retriangulate(const std::vector<std::uint32_t>& removed, const std::vector<std::uint32_t>& left,
                       const std::vector<std::uint32_t>& right);

    std::vector<Vec3> vertices_;
    std::vector<std::uint32_t> corners_;
    std::vector<std::uint32_t> links_;
    std::uint32_t last_ = 0;
};

}  // namespace erdwerk::terrain
