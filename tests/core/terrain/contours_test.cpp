#include "core/terrain/contours.h"

#include <numbers>

#include "core/geometry/predicates.h"
#include "core/terrain/build.h"
#include "core/terrain/locator.h"
#include "support/geometry.h"

namespace erdwerk::terrain {
namespace {

using test::valueOf;

Tin surfaceOver(std::vector<Vec3> points) {
    BuildInput input;
    input.points = std::move(points);
    return valueOf(build(input)).tin;
}

double lengthOf(const Contour& c) {
    double sum = 0;
    for (std::size_t i = 1; i < c.places.size(); ++i) sum += geometry::distance(c.places[i - 1], c.places[i]);
    return sum;
}

TEST(Contours, OfAPlaneAreParallelStraights) {
    const Tin tin = surfaceOver(test::places3("0 0 0.5, 100 0 10.5, 100 50 10.5, 0 50 0.5, 40 20 4.5"));
    const auto lines = valueOf(contours(tin, {1, false}));
    ASSERT_EQ(lines.size(), 10U);
    for (std::size_t i = 0; i < 10; ++i) {
        EXPECT_DOUBLE_EQ(lines[i].height, double(i + 1));
        EXPECT_NEAR(lengthOf(lines[i]), 50, 1e-9);
        EXPECT_FALSE(lines[i].closed);
        for (const Vec2 p : lines[i].places) EXPECT_NEAR(p.x, 10.0 * double(i + 1) - 5, 1e-9);
        // Higher ground (east) is on the right when walking north.
        EXPECT_LT(lines[i].places.front().y, lines[i].places.back().y);
    }
}

TEST(Contours, OfAConeAreClosedRingsOfTheRightLength) {
    std::vector<Vec3> points{{0, 0, 50}};
    const int sides = 720;
    for (int k = 0; k < sides; ++k) {
        const double a = 2 * std::numbers::pi * k / sides;
        points.push_back({50 * std::cos(a), 50 * std::sin(a), 0});
    }
    const auto lines = valueOf(contours(surfaceOver(points), {10, false}));
    ASSERT_EQ(lines.size(), 4U);  // 10 to 40; 0 is the rim, where nothing is below, and 50 the peak
    for (const auto& line : lines) {
        EXPECT_TRUE(line.closed);
        EXPECT_EQ(line.places.front(), line.places.back());
        const double radius = 50 - line.height;
        EXPECT_NEAR(lengthOf(line), 2 * sides * radius * std::sin(std::numbers::pi / sides), 1e-6);
    }
}

TEST(Contours, RunThroughAVertexThatIsOnTheLevel) {
    const Tin tin = surfaceOver(test::places3("0 0 0, 10 0 0, 5 5 1, 0 10 2, 10 10 2"));
    const auto lines = valueOf(contours(tin, {1, false}));
    // The level 2 line touches the upper rim: vertices on it count as above.
    ASSERT_EQ(lines.size(), 2U);
    EXPECT_EQ(lines[0].height, 1);
    EXPECT_NE(std::find(lines[0].places.begin(), lines[0].places.end(), Vec2{5, 5}), lines[0].places.end());
}

TEST(Contours, DecimalLevelsAreTheNumbersPeopleWrite) {
    // 3 * 0.1 is not 0.3 in doubles; a vertex measured at 0.3 must still lie on the level.
    const Tin tin = surfaceOver(test::places3("0 0 0, 10 0 0, 5 5 0.3, 0 10 0.6, 10 10 0.6"));
    bool through = false;
    for (const auto& line : valueOf(contours(tin, {0.1, false})))
        if (line.height == 0.3)
            through = std::find(line.places.begin(), line.places.end(), Vec2{5, 5}) != line.places.end();
    EXPECT_TRUE(through);
}

TEST(Contours, FlatGroundAndPeaksGiveNoCrumbs) {
    EXPECT_TRUE(
        valueOf(contours(surfaceOver(test::places3("0 0 5, 10 0 5, 10 10 5, 0 10 5")), {1, false})).empty());
    for (const auto& line :
         valueOf(contours(surfaceOver(test::places3("0 0 0, 10 0 0, 10 10 0, 0 10 0, 5 5 3")), {1, false})))
        EXPECT_GT(lengthOf(line), 0);
}

TEST(Contours, EveryPlaceIsOnItsLevelAndLevelsAreComplete) {
    for (unsigned seed = 0; seed < 25; ++seed) {
        std::mt19937 random(seed);
        const Tin tin = surfaceOver(test::scattered(
            random, 200, 100, [](double x, double y) { return 8 * std::sin(x / 11) * std::cos(y / 17); }));
        const TinLocator surface(std::make_shared<const Tin>(tin));
        const auto lines = valueOf(contours(tin, {0.5, false}));
        double total = 0;
        for (const auto& line : lines) {
            for (const Vec2 p : line.places)
                if (const auto h = surface.heightAt(p)) EXPECT_NEAR(*h, line.height, 1e-9) << "seed " << seed;
            total += lengthOf(line);
        }
        // Second method: the cut of each triangle with each level, added up.
        double expected = 0;
        for (std::uint32_t t = 0; t < tin.triangleCount(); ++t) {
            auto v = tin.triangle(t);
            std::sort(v.begin(), v.end(), [](const Vec3& a, const Vec3& b) { return a.z < b.z; });
            for (double level = std::ceil(v[0].z / 0.5) * 0.5; level < v[2].z; level += 0.5) {
                const auto cut = [level](const Vec3& a, const Vec3& b) {
                    return geometry::lerp(a.plan(), b.plan(), (level - a.z) / (b.z - a.z));
                };
                expected +=
                    geometry::distance(cut(v[0], v[2]), level < v[1].z ? cut(v[0], v[1]) : cut(v[1], v[2]));
            }
        }
        EXPECT_NEAR(total, expected, 1e-6) << "seed " << seed;
    }
}

TEST(Contours, SmoothedNeighboursNeverMeet) {
    for (unsigned seed = 0; seed < 8; ++seed) {
        std::mt19937 random(seed);
        const Tin tin = surfaceOver(test::scattered(
            random, 60, 100, [&](double x, double y) { return 10 * std::sin(x / 15) + y / 9; }));
        const TinLocator surface(std::make_shared<const Tin>(tin));
        const auto lines = valueOf(contours(tin, {1, true}));
        for (const auto& line : lines)
            for (std::size_t i = 1; i < line.places.size(); ++i)
                for (double t = 0; t <= 1; t += 0.25)
                    if (const auto h =
                            surface.heightAt(geometry::lerp(line.places[i - 1], line.places[i], t)))
                        ASSERT_LT(std::abs(*h - line.height), 0.5) << "seed " << seed;
    }
}

TEST(Contours, RefuseAnIntervalThatMakesNoSense) {
    const Tin tin = surfaceOver(test::places3("0 0 0, 10 0 1000, 10 10 5"));
    EXPECT_FALSE(contours(tin, {0, false}));
    EXPECT_FALSE(contours(tin, {-1, false}));
    EXPECT_FALSE(contours(tin, {1e-6, false}));
    EXPECT_FALSE(contours(tin, {std::nan(""), false}));
}

TEST(IndexContours, CountFromZero) {
    EXPECT_TRUE(isIndexContour(315, 0.5, 10));
    EXPECT_FALSE(isIndexContour(315.5, 0.5, 10));
    EXPECT_TRUE(isIndexContour(-2.5, 0.5, 5));
    EXPECT_FALSE(isIndexContour(1, 1, 0));
}

}  // namespace
}  // namespace erdwerk::terrain
