#include "core/route/chain.h"

#include "support/geometry.h"

namespace erdwerk::route {
namespace {

using geometry::Path;
using geometry::Segment;
using geometry::Vec2;
using test::valueOf;

TEST(Chain, TakesPiecesInAnyOrderAndDirection) {
    // East, a quarter to the north, north, west.
    const std::vector<Segment> run{{{0, 0}, {100, 0}, {}},
                                   geometry::arcByRadius({100, 0}, {140, 40}, 40, false),
                                   {{140, 40}, {140, 90}, {}},
                                   {{140, 90}, {60, 90}, {}}};
    for (unsigned seed = 1; seed <= 200; ++seed) {
        std::mt19937 random(seed);
        std::vector<ChainPiece> pieces;
        std::vector<std::size_t> order{0, 1, 2, 3};
        std::shuffle(order.begin(), order.end(), random);
        bool firstTurned = false;
        for (const std::size_t i : order) {
            const bool turned = random() % 2 == 0;
            if (pieces.empty()) firstTurned = turned;
            pieces.push_back({"piece " + std::to_string(i), {turned ? reversed(run[i]) : run[i]}});
        }
        const auto chain = valueOf(chained(pieces));
        const Path expected = firstTurned ? geometry::reversed(Path(run)) : Path(run);
        ASSERT_EQ(chain.path.size(), 4U) << "seed " << seed;
        for (std::size_t i = 0; i < 4; ++i) {
            EXPECT_EQ(chain.path[i].start, expected[i].start) << "seed " << seed;
            EXPECT_EQ(chain.path[i].end, expected[i].end);
            EXPECT_NEAR(lengthOf(chain.path[i]), lengthOf(expected[i]), 1e-9);
        }
    }
}

TEST(Chain, ClosesSmallGapsAndNamesWhatDoesNotChain) {
    const ChainPiece a{"first", {{{0, 0}, {50, 0}, {}}}};
    const ChainPiece b{"second", {{{90, 20}, {50.004, 0.003}, {}}}};
    const ChainPiece c{"far", {{{300, 0}, {400, 0}, {}}}};
    const auto chain = valueOf(chained({a, b}));
    EXPECT_NEAR(chain.largestGap, 0.005, 1e-12);
    EXPECT_EQ(chain.path[1].start, (Vec2{50, 0}));
    EXPECT_EQ(chain.path[1].end, (Vec2{90, 20}));
    EXPECT_EQ(chained({a, b, c}).error().text,
              "these do not chain with the others: 'far'; the nearest end is 210.950 away");
    EXPECT_THAT(chained({a, b, {"third", {{{50, 0}, {50, 90}, {}}}}}).error().text,
                testing::HasSubstr("'second' and 'third' both go on from 50.000, 0.000"));
    EXPECT_FALSE(chained({}));
}

TEST(Chain, ALoopIsChainedOnce) {
    const auto chain = valueOf(chained(
        {{"a", {{{0, 0}, {10, 0}, {}}}}, {"b", {{{0, 0}, {5, 9}, {}}}}, {"c", {{{10, 0}, {5, 9}, {}}}}}));
    EXPECT_EQ(chain.path.size(), 3U);
    EXPECT_EQ(chain.path.back().end, (Vec2{0, 0}));
}

TEST(Chain, KnowsTheUsualDirection) {
    EXPECT_FALSE(runsAgainstUsual({{{0, 0}, {10, -5}, {}}}));
    EXPECT_TRUE(runsAgainstUsual({{{10, 0}, {0, 5}, {}}}));
    EXPECT_TRUE(runsAgainstUsual({{{0, 10}, {5, 0}, {}}}));
}

}  // namespace
}  // namespace erdwerk::route
