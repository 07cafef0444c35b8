#include "core/terrain/noding.h"

#include "core/geometry/predicates.h"
#include "support/geometry.h"

namespace erdwerk::terrain {
namespace {

using test::places3;

TEST(Noding, ThreeLinesThroughOnePlaceMeetThreeTimes) {
    const auto n = nodeLines({{places3("0 0 1, 10 10 1"), false},
                              {places3("0 10 2, 10 0 2"), false},
                              {places3("5 0 3, 5 10 3"), false}});
    ASSERT_EQ(n.crossings.size(), 3U);
    for (const auto& c : n.crossings) EXPECT_THAT(c.place, test::IsNear(5, 5, 1e-12));
    EXPECT_EQ(n.corners, 6U);
}

TEST(Noding, ALineThatCrossesItselfIsCutThere) {
    const auto n = nodeLines({{places3("0 0 0, 10 0 10, 10 10 20, 5 -5 30"), false}});
    ASSERT_EQ(n.crossings.size(), 1U);
    EXPECT_EQ(n.crossings[0].first, n.crossings[0].second);
    EXPECT_EQ(n.sides.size(), 5U);
}

TEST(Noding, SharedEndsAreNoConflict) {
    const auto n = nodeLines({{places3("0 0 0, 5 5 5"), false}, {places3("5 5 5, 9 0 1"), false}});
    EXPECT_TRUE(n.crossings.empty());
    EXPECT_EQ(n.sides.size(), 2U);
}

TEST(Noding, ATouchAtTheSameHeightIsCutButNoConflict) {
    const auto n = nodeLines({{places3("0 0 0, 10 0 10"), false}, {places3("5 0 5, 5 9 9"), false}});
    EXPECT_TRUE(n.crossings.empty());
    EXPECT_EQ(n.sides.size(), 3U);
}

TEST(Noding, EveryCrossingOfRandomLinesIsFoundOnce) {
    for (unsigned seed = 0; seed < 60; ++seed) {
        std::mt19937 random(seed);
        std::uniform_real_distribution<double> any(0, 100);
        std::vector<Breakline> lines;
        for (int l = 0; l < 25; ++l)
            lines.push_back(
                {{{any(random), any(random), any(random)}, {any(random), any(random), any(random)}}, false});
        std::size_t expected = 0;
        for (std::size_t i = 0; i < lines.size(); ++i)
            for (std::size_t j = i + 1; j < lines.size(); ++j)
                expected += geometry::meeting(lines[i].corners[0].plan(), lines[i].corners[1].plan(),
                                              lines[j].corners[0].plan(),
                                              lines[j].corners[1].plan()) == geometry::Meeting::Crossing
                                ? 1
                                : 0;
        const auto n = nodeLines(lines);
        ASSERT_EQ(n.crossings.size(), expected) << "seed " << seed;
        EXPECT_EQ(n.sides.size(), lines.size() + 2 * expected);
        // Each crossing stands at the height of the line that comes first.
        for (std::size_t k = 0; k < n.crossings.size(); ++k) {
            EXPECT_LT(n.crossings[k].first, n.crossings[k].second);
            EXPECT_EQ(n.vertices[n.corners + k].z, n.crossings[k].firstHeight);
        }
    }
}

}  // namespace
}  // namespace erdwerk::terrain
