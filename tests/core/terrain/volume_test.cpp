#include "core/terrain/volume.h"

#include "core/terrain/build.h"
#include "support/geometry.h"

namespace erdwerk::terrain {
namespace {

using test::places3;
using test::valueOf;

TinLocator surfaceOver(std::vector<Vec3> points) {
    BuildInput input;
    input.points = std::move(points);
    return TinLocator(std::make_shared<const Tin>(valueOf(build(input)).tin));
}

TEST(Volume, OfAPrismIsAreaTimesHeight) {
    const auto low = surfaceOver(places3("0 0 1, 10 0 1, 10 10 1, 0 10 1, 3 4 1"));
    const auto high = surfaceOver(places3("0 0 3, 10 0 3, 10 10 3, 0 10 3, 7 2 3"));
    const auto v = valueOf(volumeBetween(low, high));
    EXPECT_NEAR(v.fill, 200, 1e-9);
    EXPECT_EQ(v.cut, 0);
    EXPECT_NEAR(v.area, 100, 1e-9);
    EXPECT_NEAR(v.fillArea, 100, 1e-9);
    EXPECT_NEAR(valueOf(volumeBetween(high, low)).cut, 200, 1e-9);
}

TEST(Volume, SplitsWhereThePlanesCross) {
    // z = x - 5 against 0 over 10 x 10: two wedges of 5 * 5 / 2 * 10 = 125.
    const auto flat = surfaceOver(places3("0 0 0, 10 0 0, 10 10 0, 0 10 0, 4 6 0"));
    const auto tilted = surfaceOver(places3("0 0 -5, 10 0 5, 10 10 5, 0 10 -5"));
    const auto v = valueOf(volumeBetween(flat, tilted));
    EXPECT_NEAR(v.fill, 125, 1e-9);
    EXPECT_NEAR(v.cut, 125, 1e-9);
    EXPECT_NEAR(v.net(), 0, 1e-9);
    EXPECT_NEAR(v.cutArea, 50, 1e-9);
}

TEST(Volume, OfAPyramidIsAThirdOfItsPrism) {
    const auto flat = surfaceOver(places3("-1 -1 0, 11 -1 0, 11 11 0, -1 11 0"));
    const auto pyramid = surfaceOver(places3("0 0 0, 10 0 0, 10 10 0, 0 10 0, 5 5 6"));
    const auto v = valueOf(volumeBetween(flat, pyramid));
    EXPECT_NEAR(v.fill, 200, 1e-9);
    EXPECT_NEAR(v.area, 100, 1e-9);
}

TEST(Volume, AgreesWithAFineGridAndAddsUp) {
    for (unsigned seed = 0; seed < 6; ++seed) {
        std::mt19937 random(seed);
        const auto a = surfaceOver(
            test::scattered(random, 90, 50, [](double x, double y) { return std::sin(x / 5) + y / 20; }));
        const auto b = surfaceOver(
            test::scattered(random, 70, 50, [](double x, double y) { return std::cos(y / 6) + x / 30; }));
        const auto v = valueOf(volumeBetween(a, b));
        double cut = 0;
        double fill = 0;
        double area = 0;
        const double cell = 0.1;
        for (double x = cell / 2; x < 50; x += cell)
            for (double y = cell / 2; y < 50; y += cell) {
                const auto ha = a.heightAt({x, y});
                const auto hb = b.heightAt({x, y});
                if (!ha || !hb) continue;
                area += cell * cell;
                (*hb > *ha ? fill : cut) += std::abs(*hb - *ha) * cell * cell;
            }
        EXPECT_NEAR(v.area, area, 2.5) << "seed " << seed;
        EXPECT_NEAR(v.cut, cut, 0.01 * cut + 2) << "seed " << seed;
        EXPECT_NEAR(v.fill, fill, 0.01 * fill + 2) << "seed " << seed;
        EXPECT_NEAR(v.cutArea + v.fillArea, v.area, 1e-6);
        const auto back = valueOf(volumeBetween(b, a));
        EXPECT_NEAR(back.cut, v.fill, 1e-7);
        EXPECT_NEAR(back.fill, v.cut, 1e-7);
    }
}

TEST(Volume, StopsWhenCancelled) {
    std::atomic<bool> stop{true};
    const auto a = surfaceOver(places3("0 0 1, 10 0 1, 10 10 1"));
    EXPECT_EQ(volumeBetween(a, a, {{}, &stop}).error().code, ErrorCode::Cancelled);
}

}  // namespace
}  // namespace erdwerk::terrain
