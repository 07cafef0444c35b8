#pragma once
// Rasters of heights.

#include <array>
#include <optional>
#include <vector>

#include "core/geometry/vec.h"

namespace erdwerk::survey {

/// Rows from the top of the file, heights at the centres of cells, absent ones marked. A value: immutable in
/// use.
struct Raster {
    std::size_t columns = 0;
    std::size_t rows = 0;
    /// Affine: x = t0 + column t1 + row t2, y = t3 + column t4 + row t5, for the outer corner of a cell.
    std::array<double, 6> transform{0, 1, 0, 0, 0, -1};
    std::vector<double> heights;  ///< row by row
    std::vector<bool> present;

    [[nodiscard]] geometry::Vec2 centre(std::size_t column, std::size_t row) const;
    /// Between the four centres around a place (bilinear); nothing where one of them is absent.
    [[nodiscard]] std::optional<double> heightAt(geometry::Vec2 place) const;
    [[nodiscard]] geometry::Box bounds() const;
    /// The longer side of a cell.
    [[nodiscard]] double cell() const;
    /// Centres of the cells that have a height.
    [[nodiscard]] std::vector<geometry::Vec3> places() const;
};

}  // namespace erdwerk::survey
