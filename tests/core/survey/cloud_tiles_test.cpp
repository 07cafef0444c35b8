#include "core/survey/cloud_tiles.h"

#include <set>

#include "support/geometry.h"

namespace erdwerk::survey {
namespace {

PointCloud field(int count) {
    std::mt19937 random(5);
    return cloudFrom(test::scattered(random, count, 1000, [](double x, double y) { return x + y; }));
}

Box window(double x0, double y0, double x1, double y1) {
    Box b;
    b.add(Vec2{x0, y0});
    b.add(Vec2{x1, y1});
    return b;
}

TEST(CloudTiles, EveryPointIsInExactlyOneTile) {
    const CloudTiles tiles(field(50'000));
    std::multiset<std::uint32_t> seen;
    tiles.near(window(-1, -1, 1001, 1001), [&](std::uint32_t i) { seen.insert(i); });
    EXPECT_EQ(seen.size(), 50'000U);
    EXPECT_EQ(std::set<std::uint32_t>(seen.begin(), seen.end()).size(), 50'000U);
    EXPECT_LE(tiles.memory(), 50'000U * 5);
}

TEST(CloudTiles, ASampleKeepsToItsBudgetAndIsSpreadEvenly) {
    const CloudTiles tiles(field(200'000));
    std::array<int, 16> quarter{};
    std::size_t drawn = 0;
    tiles.sample(window(0, 0, 1000, 1000), 16'000, [&](std::uint32_t i) {
        ++drawn;
        const Vec3 p = tiles.cloud().place(i);
        ++quarter[static_cast<std::size_t>(std::min(3.0, p.x / 250)) * 4 +
                  static_cast<std::size_t>(std::min(3.0, p.y / 250))];
    });
    EXPECT_GT(drawn, 12'000U);
    EXPECT_LT(drawn, 20'000U);
    for (const int n : quarter) EXPECT_NEAR(n, 1000, 250);
}

TEST(CloudTiles, ASmallWindowIsShownWhole) {
    const CloudTiles tiles(field(50'000));
    const Box small = window(100, 100, 110, 110);
    std::set<std::uint32_t> drawn;
    tiles.sample(small, 100'000, [&](std::uint32_t i) { drawn.insert(i); });
    for (std::uint32_t i = 0; i < tiles.cloud().size(); ++i)
        if (small.contains(tiles.cloud().place(i).plan())) EXPECT_EQ(drawn.count(i), 1U);
}

TEST(CloudTiles, TheNearestIsThatOfAFullSearch) {
    const CloudTiles tiles(field(20'000));
    std::mt19937 random(9);
    std::uniform_real_distribution<double> unit(0, 1000);
    for (int k = 0; k < 50; ++k) {
        const Vec2 at{unit(random), unit(random)};
        std::uint32_t best = 0;
        for (std::uint32_t i = 1; i < tiles.cloud().size(); ++i)
            if (geometry::distance(tiles.cloud().place(i).plan(), at) <
                geometry::distance(tiles.cloud().place(best).plan(), at))
                best = i;
        ASSERT_TRUE(tiles.nearest(at, 50));
        EXPECT_EQ(*tiles.nearest(at, 50), best);
    }
    EXPECT_FALSE(tiles.nearest({5000, 5000}, 10));
}

}  // namespace
}  // namespace erdwerk::survey
