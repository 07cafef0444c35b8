#include "core/terrain/sampling.h"

#include "core/terrain/height_grid.h"
#include "support/geometry.h"

namespace erdwerk::terrain {
namespace {

using test::onPlane;
using test::places;
using test::valueOf;

/// A plane z = 0.1 x - 0.2 y + 50 over 40 x 30.
TinLocator plane() {
    BuildInput input;
    for (const Vec2 p : places("0 0, 40 0, 40 30, 0 30, 17 11"))
        input.points.push_back(onPlane(p.x, p.y, 0.1, -0.2, 50));
    return TinLocator(std::make_shared<const Tin>(valueOf(build(std::move(input))).tin));
}

TEST(Sampling, ARasterHoldsTheHeightsOfItsCellCentres) {
    const auto surface = plane();
    const auto raster = valueOf(rasterOf(surface, 4));
    // Cells stand on multiples of their side.
    EXPECT_DOUBLE_EQ(std::remainder(raster.transform[0], 4), 0);
    EXPECT_DOUBLE_EQ(std::remainder(raster.transform[3], 4), 0);
    std::size_t present = 0;
    for (std::size_t r = 0; r < raster.rows; ++r)
        for (std::size_t c = 0; c < raster.columns; ++c) {
            const Vec2 p = raster.centre(c, r);
            const bool inside = p.x >= 0 && p.x <= 40 && p.y >= 0 && p.y <= 30;
            EXPECT_EQ(raster.present[r * raster.columns + c], inside) << p.x << ", " << p.y;
            if (!inside) continue;
            ++present;
            EXPECT_NEAR(raster.heights[r * raster.columns + c], 0.1 * p.x - 0.2 * p.y + 50, 1e-9);
        }
    EXPECT_EQ(present, 10U * 8U);  // y centres 2, 6, …, 30: the last lies on the edge
}

TEST(Sampling, AGridOfPointsInsideARing) {
    const auto surface = plane();
    const auto all = valueOf(sampleOnGrid(surface, 5, {}));
    EXPECT_EQ(all.size(), 9U * 7U);
    const auto some = valueOf(sampleOnGrid(surface, 5, places("4 4, 21 4, 21 21, 4 21")));
    EXPECT_EQ(some.size(), 4U * 4U);
    for (const Vec3& p : some) {
        EXPECT_DOUBLE_EQ(std::remainder(p.x, 5), 0);
        EXPECT_NEAR(p.z, 0.1 * p.x - 0.2 * p.y + 50, 1e-9);
    }
    EXPECT_TRUE(valueOf(sampleOnGrid(surface, 5, places("900 900, 910 900, 910 910"))).empty());
}

TEST(Sampling, AbsurdSpacingsAreRefused) {
    const auto surface = plane();
    for (const double bad : {0.0, -1.0, std::nan(""), 1e-7}) {
        EXPECT_FALSE(rasterOf(surface, bad)) << bad;
        EXPECT_FALSE(sampleOnGrid(surface, bad, {})) << bad;
    }
    std::atomic<bool> stop{true};
    EXPECT_EQ(rasterOf(surface, 0.01, {{}, &stop}).error().code, ErrorCode::Cancelled);
}

TEST(Sampling, MeanSpacingIsTheSideOfTheSquareThatAVertexHas) {
    BuildInput input;
    for (int y = 0; y < 100; ++y)
        for (int x = 0; x < 100; ++x) input.points.push_back({x * 2.0, y * 2.0, 0});
    EXPECT_NEAR(meanSpacing(valueOf(build(std::move(input))).tin), 2, 0.03);
}

TEST(HeightGrid, NodesHaveTheSurfacesHeightsAndGapsAreFilledFromTheNearest) {
    const auto surface = plane();
    Box area;
    area.add(Vec2{-5, -5});
    area.add(Vec2{45, 35});
    auto grid = valueOf(gridOf(surface, area, 1));
    std::size_t inside = 0;
    for (int r = 0; r < grid.rows; ++r)
        for (int c = 0; c < grid.columns; ++c) {
            if (grid.present[grid.at(c, r)] == 0) continue;
            ++inside;
            const Vec2 p = grid.place(c, r);
            EXPECT_NEAR(grid.heights[grid.at(c, r)], 0.1 * p.x - 0.2 * p.y + 50, 1e-9);
        }
    EXPECT_EQ(inside, 41U * 31U);
    fillGaps(grid);
    for (std::size_t i = 0; i < grid.heights.size(); ++i) {
        EXPECT_GE(grid.heights[i], 44 - 1e-9);
        EXPECT_LE(grid.heights[i], 54 + 1e-9);
    }
    // The corner takes the height of the surface's corner, which is nearest.
    EXPECT_NEAR(grid.heights[grid.at(0, 0)], 50, 0.3);
}

}  // namespace
}  // namespace erdwerk::terrain
