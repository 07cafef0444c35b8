#include "core/route/profile.h"

#include "core/terrain/build.h"
#include "support/geometry.h"

namespace erdwerk::route {
namespace {

using test::valueOf;

TEST(Profile, GroundOfAPlaneIsStraight) {
    terrain::BuildInput input;
    std::mt19937 random(1);
    input.points = test::scattered(random, 100, 100, [](double x, double y) { return 0.1 * x + 0.02 * y; });
    const terrain::TinLocator surface(
        std::make_shared<const terrain::Tin>(valueOf(terrain::build(input)).tin));
    const auto a = alignmentOn({{{-50, 50}, {150, 50}, {}}}, 1000);
    const auto ground = groundProfile(a, surface);
    EXPECT_DOUBLE_EQ(ground.front().station, 1000);
    EXPECT_DOUBLE_EQ(ground.back().station, 1200);
    EXPECT_FALSE(ground.front().height);
    for (const auto& p : ground)
        if (p.height) EXPECT_NEAR(*p.height, 0.1 * (p.station - 1050) + 1, 1e-9);
    EXPECT_NEAR(*heightAt(ground, 1100), 6, 1e-9);
    EXPECT_FALSE(heightAt(ground, 1010));
    EXPECT_FALSE(heightAt(ground, 999));
}

/// Worked example: a crest of g1 = +3 %, g2 = -2 % with PVI at 1+000, height 50, L = 200. The curve begins at
/// 900 with height 47; high point at x = 3 / 5 * 200 = 120: 47 + 0.03 * 120 - 0.05 / 400 * 120² = 48.8.
std::vector<Pvi> crest() {
    return {{500, 35, 0}, {1000, 50, 200}, {1500, 40, 0}};
}

TEST(Design, FollowsTheParabola) {
    EXPECT_NEAR(designAt(crest(), 900)->height, 47, 1e-12);
    EXPECT_NEAR(designAt(crest(), 1020)->height, 48.8, 1e-12);
    EXPECT_NEAR(designAt(crest(), 1020)->grade.percent(), 0, 1e-12);
    EXPECT_NEAR(designAt(crest(), 1000)->height, 50 - 0.05 * 200 / 8, 1e-12);  // external distance A L / 800
    EXPECT_NEAR(designAt(crest(), 1100)->height, 48, 1e-12);
    EXPECT_NEAR(designAt(crest(), 700)->height, 41, 1e-12);
    EXPECT_FALSE(designAt(crest(), 499));
}

TEST(Design, HasKValuesAndGrades) {
    const auto f = figures(crest());
    EXPECT_NEAR(*f[1].k, 40, 1e-12);
    EXPECT_TRUE(f[1].crest);
    EXPECT_NEAR(f[0].gradeOut->percent(), 3, 1e-12);
    EXPECT_FALSE(f[0].gradeIn);
    EXPECT_FALSE(f[0].k);
}

TEST(Design, RefusesWhatCannotBe) {
    EXPECT_TRUE(validate(crest()));
    EXPECT_FALSE(validate({{0, 1, 0}}));
    EXPECT_FALSE(validate({{0, 1, 0}, {0, 2, 0}}));
    EXPECT_FALSE(validate({{0, 1, 10}, {50, 2, 0}}));
    EXPECT_THAT(validate({{0, 1, 0}, {50, 2, 110}, {100, 1, 0}}).error().text,
                testing::HasSubstr("overlaps"));
    EXPECT_FALSE(validate({{0, 1, 0}, {std::nan(""), 2, 0}}));
}

TEST(FillDepth, IsDesignMinusGround) {
    const std::vector<ProfilePoint> ground{{500, {}, 30.0}, {1500, {}, 50.0}};
    EXPECT_NEAR(*fillDepth(crest(), ground, 700), 41 - 34, 1e-12);
    EXPECT_NEAR(*fillDepth(crest(), ground, 1500), -10, 1e-12);
    EXPECT_FALSE(fillDepth(crest(), ground, 1501));
}

}  // namespace
}  // namespace erdwerk::route
