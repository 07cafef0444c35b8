#include "core/survey/cloud_tiles.h"

#include <oneapi/tbb/parallel_for.h>

#include <algorithm>
#include <cmath>
#include <random>

namespace erdwerk::survey {

CloudTiles::CloudTiles(PointCloud cloud) : cloud_(std::move(cloud)) {
    const std::size_t n = cloud_.size();
    if (n == 0) return;
    const Box box = cloud_.bounds();
    const double want = std::max(1.0, static_cast<double>(n) / 4096);
    const double side = std::max(std::sqrt(std::max(box.width() * box.height(), 1e-12) / want),
                                 std::max(box.width(), box.height()) / 4000 + 1e-9);
    const auto columns = static_cast<std::size_t>(box.width() / side) + 1;
    const auto rows = static_cast<std::size_t>(box.height() / side) + 1;
    const auto tileOf = [&](std::size_t i) {
        const Vec3 p = cloud_.place(i);
        return std::min(rows - 1, static_cast<std::size_t>((p.y - box.minY) / side)) * columns +
               std::min(columns - 1, static_cast<std::size_t>((p.x - box.minX) / side));
    };
    std::vector<std::uint32_t> start(columns * rows + 1, 0);
    for (std::size_t i = 0; i < n; ++i) ++start[tileOf(i) + 1];
    for (std::size_t t = 1; t < start.size(); ++t) start[t] += start[t - 1];
    order_.resize(n);
    std::vector<std::uint32_t> next(start.begin(), start.end() - 1);
    for (std::size_t i = 0; i < n; ++i) order_[next[tileOf(i)]++] = static_cast<std::uint32_t>(i);
    for (std::size_t t = 0; t + 1 < start.size(); ++t)
        if (start[t + 1] > start[t]) tiles_.push_back({{}, start[t], start[t + 1] - start[t]});
    tbb::parallel_for(std::size_t{0}, tiles_.size(), [&](std::size_t t) {
        Tile& tile = tiles_[t];
        const auto first = order_.begin() + static_cast<std::ptrdiff_t>(tile.first);
        std::shuffle(first, first + static_cast<std::ptrdiff_t>(tile.count),
                     std::minstd_rand(static_cast<unsigned>(t + 1)));
        for (auto it = first; it != first + static_cast<std::ptrdiff_t>(tile.count); ++it)
            tile.box.add(cloud_.place(*it).plan());
    });
}

void CloudTiles::sample(const Box& window, std::size_t budget,
                        const std::function<void(std::uint32_t)>& visit) const {
    std::size_t seen = 0;
    for (const Tile& tile : tiles_)
        if (tile.box.meets(window)) seen += tile.count;
    if (seen == 0) return;
    const double share = std::min(1.0, static_cast<double>(budget) / static_cast<double>(seen));
    for (const Tile& tile : tiles_) {
        if (!tile.box.meets(window)) continue;
        const auto count = static_cast<std::uint32_t>(std::ceil(share * tile.count));
        for (std::uint32_t k = tile.first; k < tile.first + std::min(count, tile.count); ++k)
            visit(order_[k]);
    }
}

void CloudTiles::near(const Box& window, const std::function<void(std::uint32_t)>& visit) const {
    sample(window, SIZE_MAX, visit);
}

std::optional<std::uint32_t> CloudTiles::nearest(Vec2 place, double within) const {
    Box window;
    window.add(place);
    std::optional<std::uint32_t> best;
    double least = within;
    near(window.grown(within), [&](std::uint32_t i) {
        const double d = geometry::distance(cloud_.place(i).plan(), place);
        if (d > least || cloud_.withheld(i)) return;
        least = d;
        best = i;
    });
    return best;
}

std::size_t CloudTiles::memory() const {
    return order_.capacity() * sizeof(std::uint32_t) + tiles_.capacity() * sizeof(Tile);
}

}  // namespace erdwerk::survey
