#include "core/terrain/bands.h"

#include <numbers>

#include "core/terrain/build.h"
#include "core/terrain/drop.h"
#include "support/geometry.h"

namespace erdwerk::terrain {
namespace {

using test::valueOf;

Tin tinOf(const std::string& points) {
    return valueOf(build({test::places3(points), {}, {}, {}})).tin;
}

TEST(Bands, OfHeightCutAPlaneIntoEqualStrips) {
    const Tin tin = tinOf("0 0 0, 100 0 10, 100 50 10, 0 50 0");  // z = x / 10
    const auto bands = bandsOf(tin, BandKind::Height, {0, 2.5, 5, 10});
    ASSERT_EQ(bands.size(), 3U);
    EXPECT_NEAR(bands[0].planArea, 1250, 1e-9);
    EXPECT_NEAR(bands[1].planArea, 1250, 1e-9);
    EXPECT_NEAR(bands[2].planArea, 2500, 1e-9);
    EXPECT_NEAR(bands[2].surfaceArea, 2500 * std::sqrt(1.01), 1e-9);
}

TEST(Bands, AlwaysAddUpToTheWhole) {
    for (unsigned seed = 1; seed <= 50; ++seed) {
        std::mt19937 random(seed);
        const Tin tin =
            valueOf(
                build({test::scattered(random, 200, 100, [](double x, double y) { return std::sin(x) * y; }),
                       {},
                       {},
                       {}}))
                .tin;
        const double whole = figuresOf(tin).planArea;
        for (const auto kind : {BandKind::Height, BandKind::Slope, BandKind::Direction}) {
            double sum = 0;
            for (const auto& band : bandsOf(tin, kind, bandLimits(tin, kind))) sum += band.planArea;
            EXPECT_NEAR(sum, whole, 1e-6 * whole);
        }
    }
}

TEST(Bands, OfSlopeAndDirectionGoByTriangle) {
    const Tin tin = tinOf("0 0 3, 10 0 3, 10 10 0, 0 10 0");  // falls 30 % to the north
    const auto slope = bandsOf(tin, BandKind::Slope, {0, 0.2, 0.31, 1});
    EXPECT_DOUBLE_EQ(slope[1].planArea, 100);
    const auto limits = bandLimits(tin, BandKind::Direction);
    ASSERT_EQ(limits.size(), 9U);
    EXPECT_DOUBLE_EQ(bandsOf(tin, BandKind::Direction, limits)[0].planArea, 100);
    EXPECT_EQ(bandOf(BandKind::Direction, {0.3, Angle::radians(2 * std::numbers::pi - 0.1)}, limits), 0);
    EXPECT_EQ(bandOf(BandKind::Direction, {0.0, Angle::radians(1)}, limits), -1);
}

TEST(DropPath, FallsStraightDownAPlaneAndLeavesIt) {
    const TinLocator surface(std::make_shared<const Tin>(tinOf("0 0 10, 100 0 0, 100 100 0, 0 100 10")));
    const auto path = dropPath(surface, {20, 37});
    EXPECT_EQ(path.end, DropEnd::LeavesSurface);
    EXPECT_NEAR(path.places.back().x, 100, 1e-9);
    for (const Vec3& p : path.places) {
        EXPECT_NEAR(p.y, 37, 1e-9);
        EXPECT_NEAR(p.z, 10 - p.x / 10, 1e-9);
    }
}

TEST(DropPath, RunsDownAValleyAndEndsInAHollow) {
    // A valley along y = 50 that falls to the east, to a hollow at x = 80.
    const TinLocator surface(std::make_shared<const Tin>(
        valueOf(build({test::places3("0 0 30, 100 0 30, 100 100 30, 0 100 30, 100 50 30"),
                       {{test::places3("0 50 10, 80 50 2"), false}},
                       {},
                       {}}))
            .tin));
    const auto path = dropPath(surface, {30, 80});
    EXPECT_EQ(path.end, DropEnd::Hollow);
    EXPECT_NEAR(path.places.back().x, 80, 1e-9);
    EXPECT_NEAR(path.places.back().y, 50, 1e-9);
}

TEST(DropPath, NeverRises) {
    for (unsigned seed = 1; seed <= 200; ++seed) {
        SCOPED_TRACE("seed " + std::to_string(seed));
        std::mt19937 random(seed);
        const TinLocator surface(std::make_shared<const Tin>(
            valueOf(build({test::scattered(random, 150, 100,
                                           [](double x, double y) {
                                               return 5 * std::sin(x / 9) + 5 * std::cos(y / 8) + x / 10;
                                           }),
                           {},
                           {},
                           {}}))
                .tin));
        const auto path = dropPath(surface, {50, 50});
        ASSERT_NE(path.end, DropEnd::NotOnSurface);
        for (std::size_t i = 1; i < path.places.size(); ++i) {
            ASSERT_LE(path.places[i].z, path.places[i - 1].z);
            const auto h = surface.heightAt(path.places[i].plan());
            if (h) {
                ASSERT_NEAR(*h, path.places[i].z, 1e-6);
            }
        }
        // Where it ends inside, no direction leads down: the end is the lowest vertex around.
        if (path.end == DropEnd::Hollow) {
            const Vec3 low = path.places.back();
            for (int k = 0; k < 36; ++k) {
                const Vec2 p = low.plan() + Vec2{std::cos(k * 0.1745), std::sin(k * 0.1745)} * 1e-3;
                if (const auto h = surface.heightAt(p)) {
                    ASSERT_GE(*h, low.z - 1e-9);
                }
            }
        }
    }
    const TinLocator surface(std::make_shared<const Tin>(tinOf("0 0 1, 9 0 2, 0 9 3")));
    EXPECT_EQ(dropPath(surface, {50, 50}).end, DropEnd::NotOnSurface);
}

}  // namespace
}  // namespace erdwerk::terrain
