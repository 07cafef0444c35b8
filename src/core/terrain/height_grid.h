#pragma once
// Heights at the nodes of a square grid: for filters that need a neighbourhood.

#include <cstdint>
#include <vector>

#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/terrain/locator.h"

namespace erdwerk::terrain {

/// Node (column, row) lies at origin + cell * (column, row); rows run north. `present` says where there is a
/// height.
struct HeightGrid {
    Vec2 origin;
    double cell = 1;
    int columns = 0;
    int rows = 0;
    std::vector<double> heights;
    std::vector<std::uint8_t> present;

    [[nodiscard]] std::size_t at(int column, int row) const {
        return static_cast<std::size_t>(row) * static_cast<std::size_t>(columns) +
               static_cast<std::size_t>(column);
    }
    [[nodiscard]] Vec2 place(int column, int row) const {
        return {origin.x + cell * column, origin.y + cell * row};
    }
};

/// Sized for an area, without heights. BadInput for more than 200 million nodes.
Result<HeightGrid> emptyGrid(const Box& area, double cell);
/// Heights of a surface at the nodes, in parallel.
Result<HeightGrid> gridOf(const TinLocator& surface, const Box& area, double cell,
                          const Context& context = {});
/// Nodes without a height get that of the nearest node that has one (two passes of a distance transform,
/// Borgefors 1986). Requires that there is one.
void fillGaps(HeightGrid& grid);

}  // namespace erdwerk::terrain
