#include "core/terrain/build.h"
#include "core/terrain/locator.h"
#include "core/terrain/noding.h"
#include "support/geometry.h"

namespace erdwerk::terrain {
namespace {

using test::valueOf;

BuildInput plane() {
    BuildInput input;
    std::mt19937 random(4);
    input.points = test::scattered(random, 400, 100, [](double x, double y) { return 0.1 * x - 0.2 * y; });
    for (const Vec2 p : test::places("0 0, 100 0, 100 100, 0 100"))
        input.points.push_back({p.x, p.y, 0.1 * p.x - 0.2 * p.y});
    return input;
}

TEST(Openings, WithoutHeightsTheSurfaceIsCutAndKeepsItsHeights) {
    auto input = plane();
    input.openings.push_back({{test::places("20 20, 80 20, 80 80, 20 80"), {}}, false});
    const auto built = valueOf(build(input));
    EXPECT_NEAR(figuresOf(built.tin).planArea, 10000 - 3600, 1e-6);
    const TinLocator at(std::make_shared<const Tin>(built.tin));
    EXPECT_FALSE(at.heightAt({50, 50}));
    EXPECT_NEAR(at.heightAt({20, 50}).value(), 2 - 10, 1e-9);
    EXPECT_NEAR(at.heightAt({10, 50}).value(), 1 - 10, 1e-9);
}

TEST(Openings, AnIslandIsSurfaceAgain) {
    auto input = plane();
    input.openings.push_back({{test::places("20 20, 80 20, 80 80, 20 80"), {}}, false});
    input.openings.push_back({{test::places("40 40, 60 40, 60 60, 40 60"), {}}, true});
    input.openings.push_back({{test::places("1 1, 3 1, 3 3"), {}}, true});  // in no opening: nothing to do
    const auto built = valueOf(build(input));
    EXPECT_NEAR(figuresOf(built.tin).planArea, 10000 - 3600 + 400, 1e-6);
    const TinLocator at(std::make_shared<const Tin>(built.tin));
    EXPECT_FALSE(at.heightAt({30, 30}));
    EXPECT_NEAR(at.heightAt({50, 50}).value(), 5 - 10, 1e-9);
}

TEST(Openings, WithHeightsTheLineIsABreakline) {
    auto input = plane();
    input.openings.push_back({{test::places("20 20, 80 20, 80 80, 20 80"), {50.0, 50.0, 50.0, 50.0}}, false});
    const auto built = valueOf(build(input));
    EXPECT_NEAR(figuresOf(built.tin).planArea, 10000 - 3600, 1e-6);
    const TinLocator at(std::make_shared<const Tin>(built.tin));
    EXPECT_DOUBLE_EQ(at.heightAt({20, 50}).value(), 50);
    EXPECT_FALSE(at.heightAt({21, 50}));
}

TEST(Openings, CutABoundaryAsWell) {
    auto input = plane();
    input.boundary = Boundary{test::places("10 10, 90 10, 90 90, 10 90"), {}};
    input.openings.push_back({{test::places("50 50, 150 50, 150 150, 50 150"), {}}, false});
    EXPECT_NEAR(figuresOf(valueOf(build(input)).tin).planArea, 6400 - 1600, 1e-6);
}

TEST(Openings, OneThatCrossesItselfIsRefused) {
    auto input = plane();
    input.openings.push_back({{test::places("20 20, 80 80, 80 20, 20 80"), {}}, false});
    const auto built = build(input);
    ASSERT_FALSE(built);
    EXPECT_EQ(built.error().text, "opening: the boundary crosses itself: sides 1 and 3");
}

TEST(CrossingRule, GivesTheHeightOfTheSharedCorner) {
    const std::vector<Breakline> lines{{test::places3("0 5 10, 10 5 10"), false},
                                       {test::places3("5 0 11, 5 10 13"), false}};
    for (const auto& [rule, expected] :
         {std::pair{CrossingRule::First, 10.0}, std::pair{CrossingRule::Higher, 12.0},
          std::pair{CrossingRule::Lower, 10.0}, std::pair{CrossingRule::Mean, 11.0}}) {
        const auto noded = nodeLines(lines, rule);
        ASSERT_EQ(noded.vertices.size(), 5U);
        EXPECT_DOUBLE_EQ(noded.vertices[4].z, expected);
        ASSERT_EQ(noded.crossings.size(), 1U);
        EXPECT_DOUBLE_EQ(noded.crossings[0].secondHeight, 12);
    }
}

TEST(CrossingRule, ACornerOnTheSidesOfTwoLinesTakesTheFirstOfThem) {
    const std::vector<Breakline> lines{{test::places3("0 0 1, 10 10 1"), false},
                                       {test::places3("0 10 2, 10 0 2"), false},
                                       {test::places3("5 5 7, 5 20 7"), false}};
    const auto noded = nodeLines(lines, CrossingRule::First);
    EXPECT_DOUBLE_EQ(noded.vertices[4].z, 1);
    EXPECT_DOUBLE_EQ(nodeLines(lines, CrossingRule::Higher).vertices[4].z, 7);
    EXPECT_DOUBLE_EQ(nodeLines(lines, CrossingRule::Lower).vertices[4].z, 1);
}

}  // namespace
}  // namespace erdwerk::terrain
