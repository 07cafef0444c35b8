#include "core/terrain/height_grid.h"

#include <oneapi/tbb/parallel_for.h>

#include <cmath>
#include <limits>

namespace erdwerk::terrain {

Result<HeightGrid> emptyGrid(const Box& area, double cell) {
    if (!(cell > 0) || area.empty()) return badInput("the grid has no extent");
    const double columns = std::floor(area.width() / cell) + 1;
    const double rows = std::floor(area.height() / cell) + 1;
    if (columns * rows > 2e8)
        return badInput("more than 200 million grid nodes: take a smaller area or a larger cell");
    HeightGrid grid;
    grid.origin = {area.minX, area.minY};
    grid.cell = cell;
    grid.columns = static_cast<int>(columns);
    grid.rows = static_cast<int>(rows);
    grid.heights.assign(static_cast<std::size_t>(columns * rows), 0);
    grid.present.assign(grid.heights.size(), 0);
    return grid;
}

Result<HeightGrid> gridOf(const TinLocator& surface, const Box& area, double cell, const Context& context) {
    auto grid = emptyGrid(area, cell);
    if (!grid) return grid;
    tbb::parallel_for(0, grid->rows, [&](int row) {
        if (context.isCancelled()) return;
        for (int column = 0; column < grid->columns; ++column) {
            const auto h = surface.heightAt(grid->place(column, row));
            if (!h) continue;
            grid->heights[grid->at(column, row)] = *h;
            grid->present[grid->at(column, row)] = 1;
        }
    });
    if (context.isCancelled()) return cancelled();
    return grid;
}

void fillGaps(HeightGrid& grid) {
    constexpr float far = std::numeric_limits<float>::infinity();
    std::vector<float> distance(grid.heights.size());
    for (std::size_t i = 0; i < distance.size(); ++i) distance[i] = grid.present[i] != 0 ? 0 : far;
    const auto take = [&](int c, int r, int dc, int dr, float step) {
        if (c + dc < 0 || c + dc >= grid.columns || r + dr < 0 || r + dr >= grid.rows) return;
        const std::size_t here = grid.at(c, r);
        const std::size_t there = grid.at(c + dc, r + dr);
        if (distance[there] + step >= distance[here]) return;
        distance[here] = distance[there] + step;
        grid.heights[here] = grid.heights[there];
    };
    for (int r = 0; r < grid.rows; ++r)
        for (int c = 0; c < grid.columns; ++c) {
            take(c, r, -1, 0, 3);
            take(c, r, -1, -1, 4);
            take(c, r, 0, -1, 3);
            take(c, r, 1, -1, 4);
        }
    for (int r = grid.rows; r-- > 0;)
        for (int c = grid.columns; c-- > 0;) {
            take(c, r, 1, 0, 3);
            take(c, r, 1, 1, 4);
            take(c, r, 0, 1, 3);
            take(c, r, -1, 1, 4);
        }
    grid.present.assign(grid.present.size(), 1);
}

}  // namespace erdwerk::terrain
