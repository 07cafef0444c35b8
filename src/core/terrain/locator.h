#pragma once
// Which triangle lies at a place: a grid over the triangles.

#include <functional>
#include <limits>
#include <memory>
#include <optional>
#include <unordered_map>
#include <vector>

#include "core/terrain/tin.h"

namespace erdwerk::terrain {

/// Works on any Tin, with holes and notches as well. Immutable; shares ownership of its Tin. Building is
/// linear in the triangles; a query touches one cell. Places are decided exactly, edges and corners belong to
/// the surface. What `Patch` makes shares the grid of the surface before and has lists of its own where
/// triangles changed.
class TinLocator {
public:
    explicit TinLocator(std::shared_ptr<const Tin> tin);
    [[nodiscard]] const Tin& tin() const { return *tin_; }
    [[nodiscard]] std::shared_ptr<const Tin> tinPointer() const { return tin_; }
    /// A triangle that contains the place: the one with the lowest number.
    [[nodiscard]] std::optional<std::uint32_t> triangleAt(Vec2 place) const;
    /// Height of the surface; nothing outside it.
    [[nodiscard]] std::optional<double> heightAt(Vec2 place) const;
    /// Triangles whose box meets the window, each once, in rising order.
    [[nodiscard]] std::vector<std::uint32_t> near(const Box& window) const;
    /// Triangles that may meet the segment, each once, in rising order.
    [[nodiscard]] std::vector<std::uint32_t> along(Vec2 a, Vec2 b) const;
    /// Triangles that may lie within a ring, each once, in rising order: those of each row of the grid
    /// between the ring's ends there.
    [[nodiscard]] std::vector<std::uint32_t> between(std::span<const Vec2> ring) const;

    /// A square of the grid, for who goes over the surface square by square.
    struct Cell {
        int row = 0;
        int column = 0;
    };
    /// The nearest to a place.
    [[nodiscard]] Cell cellAt(Vec2 place) const { return {grid_->row(place.y), grid_->column(place.x)}; }
    /// Within the grid?
    [[nodiscard]] bool has(Cell c) const {
        return c.row >= 0 && c.row < grid_->rows && c.column >= 0 && c.column < grid_->columns;
    }
    /// Side of all cells.
    [[nodiscard]] double cellSize() const { return grid_->cell; }
    [[nodiscard]] Vec2 centreOf(Cell c) const {
        return {grid_->bounds.minX + (c.column + 0.5) * grid_->cell,
                grid_->bounds.minY + (c.row + 0.5) * grid_->cell};
    }
    /// Different for each cell.
    [[nodiscard]] std::size_t numberOf(Cell c) const { return grid_->cellAt(c.row, c.column); }
    /// Triangles that meet the cell, and a few that only come near it, in rising order.
    [[nodiscard]] std::span<const std::uint32_t> trianglesIn(Cell c) const { return in(numberOf(c)); }
    /// Heights between which all triangles of a cell lie; no bounds where the surface has a rim or changed.
    struct Heights {
        float least = -std::numeric_limits<float>::infinity();
        float most = std::numeric_limits<float>::infinity();
    };
    [[nodiscard]] Heights heightsIn(Cell c) const {
        const std::size_t cell = numberOf(c);
        return !changed_.empty() && changed_.contains(cell) ? Heights{} : grid_->heights[cell];
    }

private:
    friend class Patch;
    struct Span {
        int row;
        int firstColumn;
        int lastColumn;
    };
    /// Cells of squares, row by row from the south-west.
    struct Grid {
        Box bounds;
        double cell = 1;
        int columns = 1;
        int rows = 1;
        std::vector<std::uint32_t> start;  ///< per cell, into members
        std::vector<std::uint32_t> members;
        std::vector<Heights> heights;  ///< per cell
        [[nodiscard]] int column(double x) const;
        [[nodiscard]] int row(double y) const;
        [[nodiscard]] std::size_t cellAt(int row, int column) const {
            return static_cast<std::size_t>(row) * static_cast<std::size_t>(columns) +
                   static_cast<std::size_t>(column);
        }
        template <class Visit>
        void rowsOf(std::span<const Vec2> shape, const Visit& visit) const;
    };

    /// For a Tin that is made from that of `base`, within the same bounds, by `put` and `take`.
    TinLocator(std::shared_ptr<const Tin> tin, const TinLocator& base);
    void put(std::uint32_t triangle);
    void take(std::uint32_t triangle);
    [[nodiscard]] std::span<const std::uint32_t> in(std::size_t cell) const;
    void collect(const Span& span, std::vector<std::uint32_t>& out) const;
    template <class Visit>
    void eachCell(std::uint32_t triangle, const Visit& visit) const;

    std::shared_ptr<const Tin> tin_;
    std::shared_ptr<const Grid> grid_;
    std::unordered_map<std::size_t, std::vector<std::uint32_t>> changed_;  ///< cells that are not the grid's
};

}  // namespace erdwerk::terrain
