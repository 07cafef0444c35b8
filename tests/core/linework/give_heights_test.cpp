#include "core/linework/give_heights.h"

#include "core/linework/drape.h"
#include "core/linework/height_solver.h"
#include "support/geometry.h"

namespace erdwerk::linework {
namespace {

using test::places;
using test::valueOf;

ResolvedLine solvedLine(const Line3D& line) {
    return resolve(line, [](ObjectId, Vec2) -> Result<std::optional<double>> { return std::nullopt; });
}

FlatLine flat(const std::string& name, const std::string& corners, bool closed = false) {
    return {name, lineThrough(places(corners), {}, closed)};
}

TEST(GiveHeights, TextsAreReadWithPrefixAndDecimalComma) {
    EXPECT_EQ(heightOfText("101.25", ""), 101.25);
    EXPECT_EQ(heightOfText(" 101,25 ", ""), 101.25);
    EXPECT_EQ(heightOfText("H=101,25", "H="), 101.25);
    EXPECT_EQ(heightOfText("H = 101.25", "H ="), 101.25);
    for (const char* bad : {"", "manhole", "101.25 m", "1,2,3", "H=101.25"})
        EXPECT_FALSE(heightOfText(bad, ""));
}

TEST(GiveHeights, ALineAtZeroThroughoutIsFlat) {
    HeightGivers givers;
    givers.points.push_back({"1", {0, 0}, 50});
    givers.points.push_back({"2", {20, 0}, 52});
    const FlatLine zero{"Z", lineThrough(places("0 0, 10 0, 20 0"), {0.0, 0.0, 0.0})};
    const auto done = valueOf(giveHeights({zero}, givers, {}));
    const auto z = solvedLine(done.lines[0]);
    EXPECT_NEAR(z.vertices[0].height.value(), 50, 1e-9);
    EXPECT_NEAR(z.vertices[1].height.value(), 51, 1e-9);
    EXPECT_NEAR(z.vertices[2].height.value(), 52, 1e-9);
    EXPECT_TRUE(done.missed.empty());
    // Another figure for it, or none: then 0 is a height like any other.
    GiveOptions options;
    options.flat = 7;
    for (const auto& flatAt : {std::optional<double>(7), std::optional<double>()}) {
        options.flat = flatAt;
        const auto kept = valueOf(giveHeights({zero}, givers, options));
        EXPECT_NEAR(solvedLine(kept.lines[0]).vertices[1].height.value(), 0, 1e-12);
    }
    options.flat = 7;
    const auto seven = valueOf(
        giveHeights({{"S", lineThrough(places("0 0, 10 0, 20 0"), {7.0, 7.0, 7.0})}}, givers, options));
    EXPECT_NEAR(solvedLine(seven.lines[0]).vertices[1].height.value(), 51, 1e-9);
    // One corner that is not at 0 makes the others heights too.
    EXPECT_FALSE(isLevelAt(lineThrough(places("0 0, 10 0"), {0.0, 0.1}), 0));
    EXPECT_FALSE(isLevelAt(lineThrough(places("0 0, 10 0"), {0.0, {}}), 0));
}

TEST(GiveHeights, ALineThatCrossesGivesAGradePointAndOneThatTouchesACornerItsHeight) {
    HeightGivers givers;
    givers.lines.push_back({"Kerb", solvedLine(lineThrough(places("30 -10, 30 10"), {50.0, 60.0}))});
    givers.lines.push_back({"End", solvedLine(lineThrough(places("100 0, 100 20"), {70.0, 80.0}))});
    const auto done = valueOf(giveHeights({flat("A", "0 0, 50 0, 100 0")}, givers, {}));
    const auto a = solvedLine(done.lines[0]);
    ASSERT_EQ(a.vertices.size(), 4U);
    EXPECT_NEAR(*a.vertices[1].height, 55, 1e-9);
    EXPECT_NEAR(a.vertices[1].distance, 30, 1e-9);
    EXPECT_NEAR(*a.vertices[2].height, 55 + 15.0 * 20 / 70, 1e-9);  // between the two
    EXPECT_NEAR(*a.vertices[3].height, 70, 1e-9);
    EXPECT_FALSE(a.vertices[0].height);
    ASSERT_EQ(done.missed.size(), 1U);
    EXPECT_THAT(done.missed[0].at, test::IsNear(0, 0, 1e-12));
    EXPECT_THAT(done.missed[0].why, testing::HasSubstr("beyond the last"));
    ASSERT_EQ(done.given.size(), 2U);
    EXPECT_EQ(done.given[0].from, "line 'Kerb'");
}

TEST(GiveHeights, LineBeatsPointBeatsTextAndTheDifferenceIsSaid) {
    HeightGivers givers;
    givers.texts.push_back({"10,3", {0.03, 0.01}});
    givers.points.push_back({"7", {0.01, 0}, 10.2});
    givers.lines.push_back({"Kerb", solvedLine(lineThrough(places("0 0, 0 5"), {10.1, 11.0}))});
    const auto done = valueOf(giveHeights({flat("A", "0 0, 20 0")}, givers, {0.05, {}}));
    ASSERT_EQ(done.given.size(), 1U);
    EXPECT_NEAR(done.given[0].height, 10.1, 1e-9);
    ASSERT_EQ(done.given[0].differs.size(), 2U);
    EXPECT_EQ(done.given[0].differs[0].first, "point 7");
    EXPECT_EQ(done.given[0].differs[1].second, 10.3);
    givers.lines.clear();
    EXPECT_NEAR(valueOf(giveHeights({flat("A", "0 0, 20 0")}, givers, {0.05, {}})).given[0].height, 10.2,
                1e-9);
}

TEST(GiveHeights, ALeaderTakesItsTextToTheLineItTouches) {
    HeightGivers givers;
    givers.texts = {{"101.5", {10, 5}}, {"102.5", {40, 8}}, {"island", {70, 5}}, {"103", {90, 0.01}}};
    givers.leaders = {{{{10, 5}, {12, 0}, {}}}, {{{45, 0}, {40, 8}, {}}}, {{{70, 5}, {70, 0}, {}}}};
    const auto done = valueOf(giveHeights({flat("A", "0 0, 100 0")}, givers, {0.05, 99.0}));
    ASSERT_EQ(done.given.size(), 5U);  // three by texts, both ends otherwise
    EXPECT_NEAR(done.given[0].distance, 12, 1e-9);
    EXPECT_NEAR(done.given[1].distance, 45, 1e-9);
    EXPECT_NEAR(done.given[1].height, 102.5, 1e-9);
    EXPECT_NEAR(done.given[2].distance, 90, 1e-9);
    EXPECT_EQ(done.given[3].sort, GiverSort::Otherwise);
    EXPECT_TRUE(done.missed.empty());
    ASSERT_EQ(done.unused.size(), 1U);
    EXPECT_EQ(done.unused[0].text, "island");
    EXPECT_EQ(done.unused[0].why, "the text is no number");
}

TEST(GiveHeights, ALeaderThatTouchesTwoLinesGivesToNone) {
    HeightGivers givers;
    givers.texts = {{"101.5", {10, 5}}};
    givers.leaders = {{{{10, 5}, {10, 0}, {}}}};
    const auto done =
        valueOf(giveHeights({flat("A", "0 0, 100 0"), flat("B", "10 0.01, 50 9")}, givers, {0.05, {}}));
    EXPECT_TRUE(done.given.empty());
    ASSERT_EQ(done.unused.size(), 1U);
    EXPECT_EQ(done.unused[0].why, "the leader touches 'A' and 'B'");
    EXPECT_EQ(done.missed.size(), 2U);
    EXPECT_EQ(done.missed[0].why, "nothing gives this line a height");
}

TEST(GiveHeights, InAClosedLineAllCornersLieBetweenTwoThatWereGiven) {
    HeightGivers givers;
    givers.points = {{"1", {0, 0}, 10}, {"2", {10, 10}, 12}};
    const auto done = valueOf(giveHeights({flat("A", "0 0, 10 0, 10 10, 0 10", true)}, givers, {}));
    const auto a = solvedLine(done.lines[0]);
    ASSERT_TRUE(a.complete());
    EXPECT_NEAR(*a.vertices[1].height, 11, 1e-9);
    EXPECT_NEAR(*a.vertices[3].height, 11, 1e-9);
    EXPECT_TRUE(done.missed.empty());
}

TEST(GiveHeights, HeightsThatALineHasStay) {
    HeightGivers givers;
    givers.points = {{"1", {0, 0}, 10}};
    const auto done =
        valueOf(giveHeights({{"A", lineThrough(places("0 0, 10 0, 20 0"), {5.0, {}, 7.0})}}, givers, {}));
    const auto a = solvedLine(done.lines[0]);
    EXPECT_EQ(*a.vertices[0].height, 5);
    EXPECT_EQ(*a.vertices[1].height, 6);
    ASSERT_EQ(done.given.size(), 1U);
    EXPECT_EQ(done.given[0].differs[0].first, "point 1");
}

// ---- drape, as runs

TEST(DrapedRuns, ThinnedNoneIsFartherOffThanTheTolerance) {
    std::vector<double> distance;
    std::vector<double> height;
    for (int i = 0; i <= 200; ++i) {
        distance.push_back(i * 0.5);
        height.push_back(std::sin(i * 0.05) * 3 + (i % 7) * 0.01);
    }
    const auto kept = thinned(distance, height, std::vector<bool>(distance.size(), false), 0.1);
    EXPECT_LT(kept.size(), 40U);
    for (std::size_t k = 0; k + 1 < kept.size(); ++k)
        for (std::size_t i = kept[k]; i <= kept[k + 1]; ++i) {
            const double t = (distance[i] - distance[kept[k]]) / (distance[kept[k + 1]] - distance[kept[k]]);
            EXPECT_LE(std::abs(height[i] - (height[kept[k]] + t * (height[kept[k + 1]] - height[kept[k]]))),
                      0.1 + 1e-12);
        }
}

}  // namespace
}  // namespace erdwerk::linework
