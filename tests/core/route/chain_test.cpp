#include "core/route/chain.h"

#include <cmath>
#include <numbers>

#include "core/route/alignment.h"
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
    // The second runs from 90, 20 by 39.996 to the west and 19.997 to the south; its line meets y = 0 at:
    const double x = 90 - 39.996 * 20 / 19.997;
    EXPECT_THAT(chain.path[1].start, test::IsNear(x, 0, 1e-9));
    EXPECT_THAT(chain.path[0].end, test::IsNear(x, 0, 1e-9));
    EXPECT_EQ(chain.path[1].end, (Vec2{90, 20}));
    ASSERT_EQ(chain.closed.size(), 1U);
    EXPECT_EQ(chain.closed[0].by, ClosedJoint::By::Lengthened);
    EXPECT_EQ(chained({a, b, c}).error().text,
              "these do not chain with the others: 'far'; the nearest end is 210.950 away");
    EXPECT_THAT(chained({a, b, {"third", {{{50, 0}, {50, 90}, {}}}}}).error().text,
                testing::HasSubstr("'second' and 'third' both go on from 50.000, 0.000"));
    EXPECT_FALSE(chained({}));
}

/// East, a quarter of a circle of radius 30 to the north, north; with the arc or the straights short of each
/// other or aside.
std::vector<ChainPiece> quarter(Vec2 firstEnd, Vec2 arcShift, Vec2 lastStart) {
    Segment arc = geometry::arcByRadius({100, 0}, {130, 30}, 30, false);
    arc = {arc.start + arcShift, arc.end + arcShift, *arc.through + arcShift};
    return {{"in", {{{0, 0}, firstEnd, {}}}}, {"arc", {arc}}, {"out", {{lastStart, {130, 200}, {}}}}};
}

TEST(Chain, AGapIsClosedByLengtheningStraightsAndRadiiStay) {
    const auto chain = valueOf(chained(quarter({99.97, 0}, {0, 0}, {130, 30.02}), 0.05));
    EXPECT_NEAR(arcOf(chain.path[1])->radius, 30, 1e-9);
    EXPECT_TRUE(alignmentOn(chain.path, 0).breaks.empty());
    EXPECT_NEAR(lengthOf(chain.path), 100 + 15 * std::numbers::pi + 170, 1e-9);
    ASSERT_EQ(chain.closed.size(), 2U);
    EXPECT_EQ(chain.closed[0].by, ClosedJoint::By::Lengthened);
    EXPECT_NEAR(chain.closed[0].gap, 0.03, 1e-12);
    EXPECT_THAT(chain.closed[0].place, test::IsNear(100, 0, 1e-9));
    EXPECT_NEAR(chain.closed[1].gap, 0.02, 1e-12);
    // Also where a straight is too long.
    const auto over = valueOf(chained(quarter({100.03, 0}, {0, 0}, {130, 30}), 0.05));
    EXPECT_EQ(over.path[0].end, (Vec2{100, 0}));
    EXPECT_NEAR(arcOf(over.path[1])->radius, 30, 1e-9);
}

TEST(Chain, AStraightThatCannotBeLengthenedTurnsAndTheJointIsNotTangent) {
    // The arc stands 0.03 aside of the first straight: 0.03 in 100 turn by 0.0003.
    const auto chain = valueOf(chained(quarter({100, 0}, {0, 0.03}, {130, 30.03}), 0.05));
    EXPECT_NEAR(arcOf(chain.path[1])->radius, 30, 1e-9);
    ASSERT_EQ(chain.closed.size(), 1U);
    EXPECT_EQ(chain.closed[0].by, ClosedJoint::By::Turned);
    EXPECT_NEAR(std::abs(chain.closed[0].turn.radians()), std::atan(0.03 / 100), 1e-9);
    ASSERT_EQ(alignmentOn(chain.path, 0).breaks.size(), 1U);
}

TEST(Chain, ACurveBehindACurveIsShifted) {
    // A reverse curve of radii 30 and 20, the second 0.03 off, and a straight that goes on from it.
    const Segment first = geometry::arcByRadius({0, 0}, {30, 30}, 30, false);
    Segment second = geometry::arcByRadius({30, 30}, {50, 50}, 20, true);
    const Vec2 by{0.018, 0.024};
    second = {second.start + by, second.end + by, *second.through + by};
    const auto chain =
        valueOf(chained({{"a", {first}}, {"b", {second}}, {"c", {{second.end, {150, 50.024}, {}}}}}, 0.05));
    EXPECT_NEAR(arcOf(chain.path[0])->radius, 30, 1e-9);
    EXPECT_NEAR(arcOf(chain.path[1])->radius, 20, 1e-9);
    EXPECT_THAT(chain.path[1].end, test::IsNear(50, 50, 1e-9));
    ASSERT_EQ(chain.closed.size(), 2U);
    EXPECT_EQ(chain.closed[0].by, ClosedJoint::By::Shifted);
    EXPECT_NEAR(chain.closed[0].gap, 0.03, 1e-12);
    EXPECT_EQ(chain.path[2].start, chain.path[1].end);
    EXPECT_EQ(chain.path[2].end, (Vec2{150, 50.024}));
}

TEST(Chain, AStraightThatMeetsAnArcAtACornerIsLengthenedToItsCircle) {
    // The quarter of a circle about (0, 0) with radius 50, and a straight to the south-west through (30, 40).
    const Segment arc{{50, 0}, {30, 40}, Vec2{48, 14}};
    const auto chain =
        valueOf(chained({{"arc", {arc}}, {"straight", {{{30 - 0.012, 40 - 0.016}, {-30, -40}, {}}}}}, 0.05));
    EXPECT_NEAR(arcOf(chain.path[0])->radius, 50, 1e-9);
    EXPECT_THAT(chain.path[1].start, test::IsNear(30, 40, 1e-9));
    EXPECT_EQ(chain.closed[0].by, ClosedJoint::By::Lengthened);
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
