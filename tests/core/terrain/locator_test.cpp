#include "core/terrain/locator.h"

#include "core/geometry/predicates.h"
#include "core/terrain/build.h"
#include "core/terrain/trace.h"
#include "support/geometry.h"

namespace erdwerk::terrain {
namespace {

using test::valueOf;

TinLocator surfaceOver(std::vector<Vec3> points) {
    BuildInput input;
    input.points = std::move(points);
    return TinLocator(std::make_shared<const Tin>(valueOf(build(input)).tin));
}

TEST(Locator, AgreesWithBruteForce) {
    for (unsigned seed = 0; seed < 20; ++seed) {
        std::mt19937 random(seed);
        const auto surface =
            surfaceOver(test::scattered(random, 150, 100, [](double x, double y) { return x * y; }));
        std::uniform_real_distribution<double> any(-10, 110);
        for (int k = 0; k < 200; ++k) {
            const Vec2 p{any(random), any(random)};
            std::optional<std::uint32_t> expected;
            for (std::uint32_t t = 0; t < surface.tin().triangleCount() && !expected; ++t) {
                const auto [a, b, c] = surface.tin().triangle(t);
                if (geometry::orientation(a.plan(), b.plan(), p) >= 0 &&
                    geometry::orientation(b.plan(), c.plan(), p) >= 0 &&
                    geometry::orientation(c.plan(), a.plan(), p) >= 0)
                    expected = t;
            }
            ASSERT_EQ(surface.triangleAt(p), expected) << "seed " << seed;
        }
    }
}

TEST(Locator, VerticesHaveExactlyTheirHeights) {
    std::mt19937 random(3);
    const auto points =
        test::scattered(random, 300, 1000, [](double x, double y) { return std::sqrt(x) + y / 7; });
    const auto surface = surfaceOver(points);
    for (const auto& p : points) EXPECT_EQ(surface.heightAt(p.plan()), p.z);
}

TEST(Locator, ReproducesAPlaneEverywhere) {
    std::mt19937 random(4);
    auto points =
        test::scattered(random, 200, 100, [](double x, double y) { return 0.03 * x - 0.05 * y + 300; });
    const auto surface = surfaceOver(points);
    std::uniform_real_distribution<double> any(20, 80);
    for (int k = 0; k < 300; ++k) {
        const Vec2 p{any(random), any(random)};
        EXPECT_NEAR(*surface.heightAt(p), 0.03 * p.x - 0.05 * p.y + 300, 1e-9);
        const auto slope = slopeOf(surface.tin().triangle(*surface.triangleAt(p)));
        EXPECT_NEAR(slope.grade, std::hypot(0.03, 0.05), 1e-9);
        // Uphill is (0.03, -0.05): south-east; so downhill is north-west.
        EXPECT_NEAR(slope.downhill.degrees(), 360 - std::atan2(0.03, 0.05) * 180 / 3.14159265358979, 1e-6);
    }
}

TEST(Trace, MeetsEachEdgeOnceInOrder) {
    for (unsigned seed = 0; seed < 30; ++seed) {
        std::mt19937 random(seed);
        const auto surface = surfaceOver(
            test::scattered(random, 120, 100, [](double x, double y) { return x + std::cos(y); }));
        std::uniform_real_distribution<double> any(-20, 120);
        const Vec2 a{any(random), any(random)};
        const Vec2 b{any(random), any(random)};
        const auto points = trace(surface, a, b);
        std::size_t crossed = 0;
        const Tin& tin = surface.tin();
        for (std::uint32_t t = 0; t < tin.triangleCount(); ++t)
            for (int i = 0; i < 3; ++i) {
                const std::uint32_t n = tin.neighbour(t, i);
                if (n != Tin::none && n < t) continue;
                if (geometry::meeting(tin.vertex(tin.corner(t, (i + 1) % 3)).plan(),
                                      tin.vertex(tin.corner(t, (i + 2) % 3)).plan(), a,
                                      b) == geometry::Meeting::Crossing)
                    ++crossed;
            }
        SCOPED_TRACE("seed " + std::to_string(seed));
        ASSERT_EQ(points.size(), crossed + 2);
        for (std::size_t k = 0; k + 1 < points.size(); ++k) {
            EXPECT_LT(points[k].fraction, points[k + 1].fraction);
            // Between two places the surface is one plane: its middle is the mean.
            const Vec2 middle = geometry::lerp(points[k].place, points[k + 1].place, 0.5);
            ASSERT_EQ(points[k].triangleAfter.has_value(), surface.heightAt(middle).has_value());
            if (points[k].triangleAfter)
                EXPECT_NEAR(*surface.heightAt(middle), (*points[k].height + *points[k + 1].height) / 2, 1e-9);
        }
    }
}

TEST(Trace, AlongAnEdgeAndThroughVertices) {
    const auto surface = surfaceOver(test::places3("0 0 0, 10 0 10, 10 10 20, 0 10 10"));
    const auto rim = trace(surface, {-5, 0}, {15, 0});
    ASSERT_EQ(rim.size(), 4U);
    EXPECT_FALSE(rim[0].height);
    EXPECT_EQ(rim[1].height, 0);
    EXPECT_EQ(rim[2].height, 10);
    EXPECT_TRUE(rim[1].triangleAfter);
    EXPECT_FALSE(rim[2].triangleAfter);
}

}  // namespace
}  // namespace erdwerk::terrain
