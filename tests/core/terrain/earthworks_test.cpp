#include "core/terrain/earthworks.h"

#include "support/geometry.h"

namespace erdwerk::terrain {
namespace {

using test::places;
using test::places3;
using test::valueOf;

TinLocator surfaceOf(const std::string& points) {
    BuildInput input;
    input.points = places3(points);
    return TinLocator(std::make_shared<const Tin>(valueOf(build(std::move(input))).tin));
}

struct Wedge {
    TinLocator level = surfaceOf("0 0 10, 100 0 10, 100 50 10, 0 50 10");
    /// From 5 in the west to 15 in the east: cut in the western half, fill in the eastern.
    TinLocator tilted = surfaceOf("0 0 5, 100 0 15, 100 50 15, 0 50 5");
};

TEST(Earthworks, TheMapShowsTheDifferenceAtCellCentres) {
    const Wedge w;
    const auto map = valueOf(cutFillMap(w.level, w.tilted, 5000));
    EXPECT_DOUBLE_EQ(map.cell, 1);
    ASSERT_EQ(map.columns, 100);
    ASSERT_EQ(map.rows, 50);
    for (int c = 0; c < 100; ++c)
        EXPECT_NEAR(map.difference[static_cast<std::size_t>(20 * 100 + c)], (c + 0.5) / 10 - 5, 1e-5);
    EXPECT_NEAR(map.largestFill, 4.95, 1e-5);
    EXPECT_NEAR(map.largestCut, 4.95, 1e-5);
}

TEST(Earthworks, RegionsAddUpToTheWhole) {
    const Wedge w;
    const auto rows = valueOf(volumesByRegion(w.level, w.tilted,
                                              {{"west", places("0 0, 50 0, 50 50, 0 50")},
                                               {"east", places("50 0, 100 0, 100 50, 50 50")},
                                               {"away", places("500 0, 600 0, 600 50")}}));
    ASSERT_EQ(rows.size(), 3U);
    // A wedge of 50 x 50 from 0 to 5: 6250.
    EXPECT_NEAR(rows[0].volumes.cut, 6250, 1e-6);
    EXPECT_NEAR(rows[0].volumes.fill, 0, 1e-6);
    EXPECT_NEAR(rows[1].volumes.fill, 6250, 1e-6);
    EXPECT_EQ(rows[2].volumes.area, 0);
    const auto all = valueOf(volumeBetween(w.level, w.tilted));
    EXPECT_NEAR(all.cut, rows[0].volumes.cut + rows[1].volumes.cut, 1e-6);
}

TEST(Earthworks, SurfacesThatDoNotMeetGiveAnEmptyMap) {
    const Wedge w;
    EXPECT_TRUE(valueOf(cutFillMap(w.level, surfaceOf("1000 0 1, 1100 0 1, 1100 50 1"))).difference.empty());
}

}  // namespace
}  // namespace erdwerk::terrain
