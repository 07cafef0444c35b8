#pragma once
// A triangulated surface as flat arrays.

#include <array>
#include <cstdint>
#include <span>
#include <vector>

#include "core/geometry/vec.h"

namespace erdwerk::terrain {

using geometry::Box;
using geometry::Vec2;
using geometry::Vec3;

/// Triangles run counter-clockwise in plan. Corner i of triangle t is `corner(t, i)`; the side across from it
/// leads to `neighbour(t, i)` (or `none` at the rim) and may be constrained. Neighbour and constraint share
/// one word, so a triangle costs 24 bytes and a vertex 24. Plan positions are distinct. The value is
/// immutable in use and may be shared between threads.
class Tin {
public:
    static constexpr std::uint32_t none = 0x7fffffffU;

    Tin() = default;
    /// Takes over vertices and triangles; finds the neighbours. Requires counter-clockwise triangles over
    /// valid vertices in which each side is shared by at most two.
    Tin(std::vector<Vec3> vertices, std::vector<std::uint32_t> corners);
    /// Takes over arrays that are already linked (`links` as stored: neighbour, top bit set where
    /// constrained).
    static Tin fromLinked(std::vector<Vec3> vertices, std::vector<std::uint32_t> corners,
                          std::vector<std::uint32_t> links);

    [[nodiscard]] std::size_t vertexCount() const { return vertices_.size(); }
    [[nodiscard]] std::uint32_t triangleCount() const {
        return static_cast<std::uint32_t>(corners_.size() / 3);
    }
    [[nodiscard]] bool empty() const { return corners_.empty(); }
    [[nodiscard]] std::span<const Vec3> vertices() const { return vertices_; }
    [[nodiscard]] const Vec3& vertex(std::uint32_t v) const { return vertices_[v]; }
    [[nodiscard]] std::uint32_t corner(std::uint32_t t, int i) const {
        return corners_[3 * std::size_t{t} + unsigned(i)];
    }
    [[nodiscard]] std::span<const std::uint32_t> corners() const { return corners_; }
    /// As stored: neighbour, top bit set where constrained.
    [[nodiscard]] std::span<const std::uint32_t> links() const { return links_; }
    [[nodiscard]] std::uint32_t neighbour(std::uint32_t t, int i) const {
        return links_[3 * std::size_t{t} + unsigned(i)] & none;
    }
    [[nodiscard]] bool constrained(std::uint32_t t, int i) const {
        return (links_[3 * std::size_t{t} + unsigned(i)] & ~none) != 0;
    }
    [[nodiscard]] std::array<Vec3, 3> triangle(std::uint32_t t) const {
        return {vertices_[corner(t, 0)], vertices_[corner(t, 1)], vertices_[corner(t, 2)]};
    }
    /// Marks the side between two vertices as constrained, on both its triangles, if there is such a side.
    void constrain(std::uint32_t t, int i);
    [[nodiscard]] std::size_t constraintCount() const;
    [[nodiscard]] Box bounds() const;
    /// Bytes held by the arrays.
    [[nodiscard]] std::size_t memory() const;

    /// The triangles for which `keep` is true, with the vertices they use, in the same order.
    [[nodiscard]] Tin subset(const std::vector<bool>& keep) const;

private:
    friend class Patch;  // changes a copy of its own in place
    std::vector<Vec3> vertices_;
    std::vector<std::uint32_t> corners_;
    std::vector<std::uint32_t> links_;
};

/// Height of the plane through the triangle at a place; exact at its corners.
double planeHeight(const std::array<Vec3, 3>& triangle, Vec2 place);

/// Steepest slope of the plane (rise over run, >= 0) and the azimuth in which it falls.
struct Slope {
    double grade = 0;
    Angle downhill;
};
Slope slopeOf(const std::array<Vec3, 3>& triangle);

struct TinFigures {
    std::size_t points = 0;
    std::size_t triangles = 0;
    Vec3 min;
    Vec3 max;
    double planArea = 0;
    double surfaceArea = 0;
};
TinFigures figuresOf(const Tin& tin);
/// The same from the figures of `base`, of which the triangles `gone` are no more in `now` and `fresh` are
/// new.
TinFigures figuresAfter(const TinFigures& before, const Tin& base, std::span<const std::uint32_t> gone,
                        const Tin& now, std::span<const std::uint32_t> fresh);

/// Closed chains of rim vertices (first not repeated), surface on the left. No vertex is in one ring twice:
/// where the rim touches itself at a vertex, its rings do.
std::vector<std::vector<std::uint32_t>> rimRings(const Tin& tin);

}  // namespace erdwerk::terrain
