#include "core/route/cross_section.h"

#include "support/geometry.h"

namespace erdwerk::route {
namespace {

using test::places3;
using test::valueOf;
using testing::HasSubstr;

terrain::TinLocator ground(const std::string& text) {
    terrain::BuildInput input;
    input.points = places3(text);
    return terrain::TinLocator(std::make_shared<const terrain::Tin>(valueOf(terrain::build(input)).tin));
}

TEST(CrossSection, AreasOfTwoPlanesAreThoseOfTrianglesAndTrapezoids) {
    // A trench 2 deep with level bottom from -3 to 3 and walls 1:1, against level ground.
    const std::vector<OffsetHeight> level{{-10, 5.0}, {10, 5.0}};
    const std::vector<OffsetHeight> trench{{-10, 5.0}, {-5, 5.0}, {-3, 3.0}, {3, 3.0}, {5, 5.0}, {10, 5.0}};
    const auto dug = areasBetween(level, trench);
    EXPECT_NEAR(dug.cut, 6 * 2 + 2 * 2, 1e-12);
    EXPECT_NEAR(dug.fill, 0, 1e-12);
    // Planes that cross in the middle: a triangle on each side.
    const auto crossed = areasBetween({{-10, 4.0}, {10, 6.0}}, {{-10, 5.0}, {10, 5.0}});
    EXPECT_NEAR(crossed.cut, 5, 1e-12);
    EXPECT_NEAR(crossed.fill, 5, 1e-12);
    // Only where both are known; a step counts with its own height on each side.
    const auto part = areasBetween({{-10, std::nullopt}, {0, 6.0}, {10, 6.0}}, {{-10, 5.0}, {10, 5.0}});
    EXPECT_NEAR(part.cut, 10, 1e-12);
    const auto step = areasBetween({{0, 6.0}, {5, 6.0}, {5, 7.0}, {10, 7.0}}, {{0, 5.0}, {10, 5.0}});
    EXPECT_NEAR(step.cut, 5 + 10, 1e-12);
}

TEST(CrossSection, LiesAtRightAnglesWithRightPositive) {
    // z = 10 + 0.1 y; the alignment runs north along x = 50, so left is west.
    const auto plane = ground("0 0 10, 100 0 10, 100 100 20, 0 100 20");
    const auto tilted = ground("0 0 10, 100 0 20, 100 100 20, 0 100 10");  // z = 10 + 0.1 x
    const auto line = alignmentOn({{{50, 10}, {50, 90}, {}}}, 0);
    const std::array surfaces{&plane, &tilted};
    AcrossLine rail{{{{0, 30}, {100, 30}, {}}}, [](double d) { return std::optional(d / 10); }};
    AcrossLine fence{{{{57, 0}, {57, 100}, {}}}, [](double d) { return std::optional(d); }};
    const auto section = crossSectionAt(line, 20, surfaces, {rail, fence}, {4, 6});
    EXPECT_THAT(section.place, test::IsNear(50, 30, 1e-12));
    EXPECT_NEAR(section.surfaces[0].front().offset, -4, 1e-12);
    EXPECT_NEAR(section.surfaces[0].back().offset, 6, 1e-12);
    for (const auto& p : section.surfaces[0]) EXPECT_NEAR(*p.height, 13, 1e-9);
    for (const auto& p : section.surfaces[1]) EXPECT_NEAR(*p.height, 15 + 0.1 * p.offset, 1e-9);
    // From 13 to 15 + 0.1 o over -4 to 6: fill 2 * 10 + 0.1 (36 - 16) / 2.
    EXPECT_NEAR(section.fill, 21, 1e-9);
    EXPECT_NEAR(section.cut, 0, 1e-9);
    // The fence stands 7 to the right: beyond. The rail lies along the section and crosses nothing.
    for (const auto& crossed : section.lines) EXPECT_EQ(crossed.line, 0U);
    const auto wide = crossSectionAt(line, 20, surfaces, {fence}, {4, 10});
    ASSERT_EQ(wide.lines.size(), 1U);
    EXPECT_NEAR(wide.lines[0].offset, 7, 1e-9);
    EXPECT_NEAR(*wide.lines[0].height, 30, 1e-9);
}

TEST(CrossSection, StandsAtReadMultiplesAndSumsByEndAreas) {
    const auto low = ground("-20 -20 0, 120 -20 0, 120 20 0, -20 20 0");
    const auto high = ground("-20 -20 0, 120 -20 2.8, 120 20 2.8, -20 20 0");  // z = 0.02 (x + 20)
    const auto line = alignmentOn({{{0, 0}, {100, 0}, {}}}, 1010);
    const std::array surfaces{&low, &high};
    const auto all = valueOf(crossSections(line, 20, surfaces, {}, {5, 5}));
    std::vector<double> distances;
    for (const auto& s : all) distances.push_back(s.distance);
    EXPECT_THAT(distances, testing::ElementsAre(0, 10, 30, 50, 70, 90, 100));
    const auto sums = endAreaSums(all);
    // Areas grow in a straight line, so the rule is exact: the integral of 10 * 0.02 (x + 20).
    EXPECT_NEAR(sums.back().fill, 10 * 0.02 * (100 * 100 / 2.0 + 20 * 100), 1e-9);
    EXPECT_EQ(sums.front().fill, 0);
    EXPECT_EQ(sums.back().cut, 0);
}

TEST(CrossSection, MatchesHeightsAskedOneByOneOnRandomGround) {
    std::mt19937 random(5);
    std::uniform_real_distribution<double> unit(0, 1);
    terrain::BuildInput input;
    for (int i = 0; i < 800; ++i)
        input.points.push_back({100 * unit(random), 100 * unit(random), 5 * unit(random)});
    const terrain::TinLocator rough(std::make_shared<const terrain::Tin>(valueOf(terrain::build(input)).tin));
    const auto line = alignmentOn({{{30, 30}, {70, 60}, {}}}, 0);
    const std::array surfaces{&rough};
    const auto section = crossSectionAt(line, 25, surfaces, {}, {20, 20});
    const geometry::Vec2 right{0.6, -0.8};  // of a line that runs 4 to the east for 3 to the north
    for (double o = -19.5; o < 20; o += 0.37) {
        const auto& chain = section.surfaces[0];
        std::size_t k = 1;
        while (chain[k].offset < o) ++k;
        const auto& a = chain[k - 1];
        const auto& b = chain[k];
        const double h = *a.height + (o - a.offset) / (b.offset - a.offset) * (*b.height - *a.height);
        EXPECT_NEAR(h, *rough.heightAt(section.place + right * o), 1e-9);
    }
}

TEST(CrossSection, RefusesWhatMakesNoSections) {
    const auto line = alignmentOn({{{0, 0}, {100, 0}, {}}}, 0);
    EXPECT_THAT(crossSections(line, 0, {}, {}, {}).error().text, HasSubstr("above 0"));
    EXPECT_THAT(crossSections(line, 20, {}, {}, {0, 5}).error().text, HasSubstr("width"));
    EXPECT_THAT(crossSections(line, 1e-4, {}, {}, {}).error().text, HasSubstr("20 000"));
    EXPECT_FALSE(crossSections({}, 20, {}, {}, {}));
}

}  // namespace
}  // namespace erdwerk::route
