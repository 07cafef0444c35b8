#pragma once
// A surface as a picture: light and height for each cell of a window, whatever the number of triangles.

#include <vector>

#include "core/base/progress.h"
#include "core/terrain/locator.h"

namespace erdwerk::terrain {

/// Normals at the vertices, averaged over the triangles round them by area, so that the light runs smoothly.
class Shading {
public:
    /// Costs about as much as looking at each triangle. Cancelled it is unfinished: throw it away.
    explicit Shading(std::shared_ptr<const TinLocator> surface, const Context& context = {});

    struct Cell {
        float height = 0;
        float light = -1;  ///< 0 dark to 1 bright, light from the north-west at 45°; below 0 off the surface
    };
    /// Cell centres of a window, rows from the north. Parallel; stops early when cancelled.
    [[nodiscard]] std::vector<Cell> render(const Box& window, int columns, int rows,
                                           const Context& context = {}) const;
    [[nodiscard]] double lowest() const { return lowest_; }
    [[nodiscard]] double highest() const { return highest_; }

private:
    std::shared_ptr<const TinLocator> surface_;
    std::vector<float> normals_;  ///< three a vertex
    double lowest_ = 0;
    double highest_ = 0;
};

}  // namespace erdwerk::terrain
