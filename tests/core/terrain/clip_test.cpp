#include "core/terrain/clip.h"

#include "core/terrain/locator.h"
#include "core/terrain/rim.h"
#include "support/geometry.h"
#include "support/mesh.h"

namespace erdwerk::terrain {
namespace {

using test::expectLinked;
using test::places;
using test::valueOf;

/// A 10 x 10 grid of squares over 0..100, z = x / 10.
Tin grid() {
    BuildInput input;
    for (int i = 0; i <= 10; ++i)
        for (int j = 0; j <= 10; ++j) input.points.push_back({i * 10.0, j * 10.0, double(i)});
    return valueOf(build(input)).tin;
}

double areaOf(const Tin& tin) {
    return figuresOf(tin).planArea;
}

TEST(Clip, AlongTheGridsOwnLinesChangesNoTriangle) {
    const Tin tin = clip(grid(), places("20 20, 60 20, 60 70, 20 70"));
    EXPECT_EQ(tin.triangleCount(), 40U);
    EXPECT_NEAR(areaOf(tin), 2000, 1e-9);
    expectLinked(tin);
}

TEST(Clip, ThroughVerticesAndAcrossEdges) {
    const Tin tin = clip(grid(), places("10 10, 90 10, 50 90"));
    EXPECT_NEAR(areaOf(tin), 3200, 1e-9);
    expectLinked(tin);
    for (const Vec3& v : tin.vertices()) EXPECT_NEAR(v.z, v.x / 10, 1e-9);
}

TEST(Clip, InsideOneTriangleLeavesJustThat) {
    const Tin tin = clip(grid(), places("41 41.5, 44 41.5, 42 42.5"));
    EXPECT_NEAR(areaOf(tin), 1.5, 1e-9);
    expectLinked(tin);
}

TEST(Clip, AroundEverythingKeepsEverything) {
    const Tin whole = grid();
    EXPECT_EQ(clip(whole, places("-5 -5, 105 -5, 105 105, -5 105")).triangleCount(), whole.triangleCount());
}

TEST(Clip, ClockwiseRingsAndNotchesWork) {
    const auto notched = places("10 10, 10 90, 50 40, 90 90, 90 10");
    const Tin tin = clip(grid(), notched);
    EXPECT_NEAR(areaOf(tin), std::abs(geometry::signedArea(notched)), 1e-6);
    EXPECT_FALSE(TinLocator(std::make_shared<const Tin>(tin)).heightAt({50, 80}));
}

TEST(Clip, RandomStarsHaveTheAreaOfTheirRing) {
    for (unsigned seed = 0; seed < 150; ++seed) {
        std::mt19937 random(seed);
        std::uniform_real_distribution<double> reach(3, 45);
        std::vector<Vec2> ring;
        const int corners = 5 + int(random() % 12);
        for (int k = 0; k < corners; ++k) {
            const double a = 2 * 3.14159265358979 * k / corners;
            const double r = reach(random);
            ring.push_back({50 + r * std::cos(a), 50 + r * std::sin(a)});
        }
        const Tin tin = clip(grid(), ring);
        ASSERT_NEAR(areaOf(tin), geometry::signedArea(ring), 1e-6) << "seed " << seed;
        // One closed rim, as long as the ring.
        const auto rims = rimRings(tin);
        ASSERT_EQ(rims.size(), 1U) << "seed " << seed;
    }
}

TEST(Validate, NamesWhatIsWrongWithABoundary) {
    EXPECT_FALSE(validate({places("0 0, 1 0"), {}}));
    EXPECT_THAT(validate({places("0 0, 1 0, 1 0, 0 1"), {}}).error().text,
                testing::HasSubstr("repeats corner 2"));
    EXPECT_FALSE(validate({places("0 0, 4 0, 4 4, 2 0, 0 4"), {}}));
    EXPECT_TRUE(validate({places("0 0, 4 0, 4 4, 2 1, 0 4"), {}}));
    EXPECT_FALSE(validate({{{0, 0}, {1, 0}, {std::nan(""), 1}}, {}}));
}

TEST(PeelRim, TakesLayersUntilNoneIsTooLong) {
    BuildInput input;
    for (int i = 0; i <= 5; ++i)
        for (int j = 0; j <= 5; ++j) input.points.push_back({double(i), double(j), 0});
    for (int k = 0; k < 6; ++k) input.points.push_back({20.0 + 4 * k, double(k % 2) * 3, 0});
    const Tin peeled = peelRim(valueOf(build(input)).tin, {2, 1e-6, false});
    EXPECT_NEAR(areaOf(peeled), 25, 1e-9);
    for (std::uint32_t t = 0; t < peeled.triangleCount(); ++t)
        for (int i = 0; i < 3; ++i)
            if (peeled.neighbour(t, i) == Tin::none) {
                const auto [a, b, c] = peeled.triangle(t);
                EXPECT_LE(
                    std::max({geometry::distance(a.plan(), b.plan()), geometry::distance(b.plan(), c.plan()),
                              geometry::distance(c.plan(), a.plan())}),
                    2);
            }
}

TEST(PeelRim, StopsAtABoundaryWhenTold) {
    BuildInput input;
    input.points = test::places3("0 0 0, 100 0 0, 100 100 0, 0 100 0, 50 50 0");
    input.boundary = Boundary{places("0 0, 100 0, 100 100, 0 100"), {0.0, 0.0, 0.0, 0.0}};
    input.maxEdge = 10;
    EXPECT_NEAR(areaOf(valueOf(build(input)).tin), 10000, 1e-9);
}

TEST(RimRings, OfASurfaceWithAHoleAreTwo) {
    const Tin whole = grid();
    std::vector<bool> keep(whole.triangleCount(), true);
    for (std::uint32_t t = 0; t < whole.triangleCount(); ++t) {
        const auto [a, b, c] = whole.triangle(t);
        const Vec2 centre = (a.plan() + b.plan() + c.plan()) * (1.0 / 3);
        if (centre.x > 40 && centre.x < 60 && centre.y > 40 && centre.y < 60) keep[t] = false;
    }
    EXPECT_EQ(rimRings(whole.subset(keep)).size(), 2U);
}

TEST(Tin, FiguresOfATiltedSquare) {
    const auto f = figuresOf(grid());
    EXPECT_NEAR(f.planArea, 10000, 1e-9);
    EXPECT_NEAR(f.surfaceArea, 10000 * std::sqrt(1.01), 1e-6);
    EXPECT_EQ(f.min, (Vec3{0, 0, 0}));
    EXPECT_EQ(f.max, (Vec3{100, 100, 10}));
}

}  // namespace
}  // namespace erdwerk::terrain
