#include "core/terrain/section.h"

#include "support/geometry.h"

namespace erdwerk::terrain {
namespace {

using test::places;
using test::places3;
using test::valueOf;

std::shared_ptr<const TinLocator> surfaceOf(const std::string& points) {
    BuildInput input;
    input.points = places3(points);
    return std::make_shared<const TinLocator>(
        std::make_shared<const Tin>(valueOf(build(std::move(input))).tin));
}

struct Two {
    std::shared_ptr<const TinLocator> low = surfaceOf("0 0 0, 100 0 0, 100 100 0, 0 100 0");
    /// Rises 1 in 10 to the east, over the eastern half only.
    std::shared_ptr<const TinLocator> high = surfaceOf("50 0 5, 100 0 10, 100 100 10, 50 100 5");
    std::vector<const TinLocator*> both{low.get(), high.get()};
};

TEST(Section, AtAnIntervalWithStartCornersAndEnd) {
    const Two t;
    const auto rows = sectionThrough(t.both, pathThrough(places("10 20, 85 20, 85 35")), {20});
    std::vector<double> stations;
    for (const auto& r : rows) stations.push_back(r.station);
    EXPECT_EQ(stations, (std::vector<double>{0, 20, 40, 60, 75, 80, 90}));
    EXPECT_FALSE(rows[0].heights[1]);
    EXPECT_NEAR(*rows[3].heights[1], 7, 1e-9);
    EXPECT_NEAR(*rows[4].heights[1], 8.5, 1e-9);
    EXPECT_THAT(rows.back().place, test::IsNear(85, 35, 1e-9));
}

TEST(Section, WithoutAnIntervalAtEveryTriangleEdgeOfEachSurface) {
    const Two t;
    const auto rows = sectionThrough(t.both, pathThrough(places("0 20, 100 20")), {});
    // Ends, the rim of the upper surface at 50 and one diagonal of each.
    ASSERT_EQ(rows.size(), 5U);
    EXPECT_TRUE(
        std::any_of(rows.begin(), rows.end(), [](const auto& r) { return std::abs(r.station - 50) < 1e-9; }));
    for (std::size_t i = 1; i < rows.size(); ++i) EXPECT_GT(rows[i].station, rows[i - 1].station);
}

TEST(Section, TheTableHasTheChosenFields) {
    const Two t;
    const auto rows = sectionThrough(t.both, pathThrough(places("60 20, 80 20")), {10});
    const auto table =
        tableOf(rows, {"Low", "High"},
                {SectionField::Station, SectionField::Height, SectionField::Grade, SectionField::Difference});
    EXPECT_EQ(table.header.size(), 6U);
    ASSERT_EQ(table.rows.size(), 3U);
    EXPECT_NEAR(*table.rows[1][2], 7, 1e-9);
    EXPECT_NEAR(*table.rows[0][4], 10, 1e-9);  // per cent
    EXPECT_FALSE(table.rows[2][4]);            // nothing comes after the last
    EXPECT_NEAR(*table.rows[2][5], 8, 1e-9);
}

}  // namespace
}  // namespace erdwerk::terrain
