#include "core/route/profile.h"

#include <cmath>
#include "core/route/pis.h"

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

/// A ring-road of straights, arcs and clothoids over knolls; heights at any station against those of the
/// surface at the place of that station.
TEST(GroundProfile, HasTheHeightsOfArcsAndClothoidsThemselves) {
    int stations = 0;
    for (unsigned seed = 1; seed <= 12; ++seed) {
        SCOPED_TRACE(seed);
        std::mt19937 random(seed);
        // Few points: triangles so large that an arc runs over each for many metres.
        const auto points = test::scattered(
            random, 60 + 40 * static_cast<int>(seed), 300,
            [](double x, double y) { return 300 + 12 * std::sin(x / 31) + 9 * std::cos(y / 23); });
        const terrain::TinLocator ground(
            std::make_shared<const terrain::Tin>(test::valueOf(terrain::build({points, {}, {}, {}})).tin));
        const std::vector<Pi> pis{
            {{30, 60}}, {{150, 90}, 30, 12, 20}, {{120, 220}, 25}, {{250, 240}, 40, 15, 0}, {{260, 60}}};
        const auto line = alignmentOn(test::valueOf(pathOf(pis)), 100);
        const auto profile = groundProfile(line, ground);
        for (const auto& p : profile) {
            EXPECT_LT(geometry::distance(p.place, placeAt(line, p.station)), 1e-9);
            if (const auto h = ground.heightAt(p.place)) EXPECT_NEAR(p.height.value(), *h, 1e-8);
        }
        const auto straights = straightened(profile, 0.001);
        EXPECT_GT(straights.size(), profile.size());
        for (double distance = 0.1; distance < line.length; distance += 0.37) {
            const double station = line.running(distance);
            const auto h = ground.heightAt(placeAt(line, station));
            const auto own = heightAt(profile, station);
            if (!h || !own) continue;
            EXPECT_NEAR(*own, *h, 1e-9) << "at " << station;
            EXPECT_NEAR(heightAt(straights, station).value_or(0), *h, 0.0011) << "at " << station;
            ++stations;
        }
        for (const auto& p : straights) {
            EXPECT_FALSE(p.bow);
            EXPECT_LT(geometry::distance(p.place, placeAt(line, p.station)), 1e-9);
        }
    }
    EXPECT_GT(stations, 9000);
}

/// A quarter of a circle with radius 10 about (0, 0) over z = 0.1 x: the height at an angle a from north is
/// sin a, wherever triangles end.
TEST(GroundProfile, OnAnArcOverAPlaneIsASine) {
    const terrain::TinLocator plane(
        std::make_shared<const terrain::Tin>(test::places3("-20 -20 -2, 20 -20 2, 20 20 2, -20 20 -2"),
                                             std::vector<std::uint32_t>{0, 1, 2, 0, 2, 3}));
    const double half = std::sqrt(50.0);
    const auto line = alignmentOn({{{0, 10}, {10, 0}, Vec2{half, half}}}, 0);
    const auto profile = groundProfile(line, plane);
    ASSERT_EQ(profile.size(), 3U);  // both ends and the diagonal
    EXPECT_NEAR(profile[1].station, line.length / 2, 1e-9);
    for (double a = 0.05; a < 1.5; a += 0.1) EXPECT_NEAR(*heightAt(profile, 10 * a), std::sin(a), 1e-12);
}

TEST(GroundProfile, AMovedPiChangesOnlyWhatIsBesideIt) {
    std::mt19937 random(12);
    const auto points =
        test::scattered(random, 500, 400, [](double x, double y) { return x / 9 + std::sin(y / 20); });
    const auto ground = std::make_shared<const terrain::TinLocator>(
        std::make_shared<const terrain::Tin>(test::valueOf(terrain::build({points, {}, {}, {}})).tin));
    std::vector<Pi> pis{{{20, 20}}, {{120, 60}, 30}, {{200, 300}, 25, 5, 5}, {{300, 100}, 20}, {{380, 350}}};
    GroundPieces before;
    for (int step = 0; step < 20; ++step) {
        pis[1 + static_cast<std::size_t>(step % 3)].place.x += 1.5;
        const auto line = alignmentOn(test::valueOf(pathOf(pis)), 100);
        const auto now = groundPieces(line.path, ground, &before);
        const auto whole = groundProfile(line, *ground);
        const auto parts = joined(now, line);
        ASSERT_EQ(parts.size(), whole.size());
        for (std::size_t k = 0; k < whole.size(); ++k) {
            ASSERT_EQ(parts[k].station, whole[k].station);
            ASSERT_EQ(parts[k].height, whole[k].height);
        }
        std::size_t shared = 0;
        for (const auto& piece : now.pieces)
            for (const auto& old : before.pieces) shared += piece == old ? 1 : 0;
        // The middle PI has something to do with every element.
        if (step > 0 && step % 3 != 1) {
            EXPECT_GT(shared, 0U);
        }
        before = now;
    }
}

}  // namespace
}  // namespace erdwerk::route
