#pragma once
// A cloud cut into tiles, so that a view draws what it sees, as densely as it can show.

#include <cstdint>
#include <functional>
#include <vector>

#include "core/survey/cloud.h"

namespace erdwerk::survey {

/// An index beside the cloud: 4 bytes a point. Within a tile the order is shuffled, so the first n of a tile
/// are spread evenly over it. Immutable.
class CloudTiles {
public:
    /// About 4096 points a tile. Seeded: the same cloud gives the same order.
    explicit CloudTiles(PointCloud cloud);
    [[nodiscard]] const PointCloud& cloud() const { return cloud_; }

    struct Tile {
        Box box;
        std::uint32_t first = 0;
        std::uint32_t count = 0;
    };
    [[nodiscard]] const std::vector<Tile>& tiles() const { return tiles_; }

    /// Calls visit(point) for points in the window, evenly thinned so that about `budget` of them are drawn.
    void sample(const Box& window, std::size_t budget, const std::function<void(std::uint32_t)>& visit) const;
    /// Calls visit(point) for every point whose tile meets the window.
    void near(const Box& window, const std::function<void(std::uint32_t)>& visit) const;
    /// The point nearest in plan within a distance; nothing when there is none. Withheld points are passed
    /// over.
    [[nodiscard]] std::optional<std::uint32_t> nearest(Vec2 place, double within) const;
    [[nodiscard]] std::size_t memory() const;

private:
    PointCloud cloud_;
    std::vector<std::uint32_t> order_;
    std::vector<Tile> tiles_;
};

}  // namespace erdwerk::survey
