#include "core/earthwork/pad.h"

#include <cmath>
#include <memory>
#include <random>

#include "core/earthwork/batter_text.h"
#include "core/earthwork/storage.h"
#include "core/terrain/clip.h"
#include "core/terrain/trace.h"
#include "support/geometry.h"

namespace erdwerk::earthwork {
namespace {

using terrain::TinLocator;
using test::places3;
using test::valueOf;

std::shared_ptr<const TinLocator> locatorOf(terrain::Tin tin) {
    return std::make_shared<const TinLocator>(std::make_shared<const terrain::Tin>(std::move(tin)));
}

template <class Height>
std::shared_ptr<const TinLocator> ground(const Height& height, int count = 600, unsigned seed = 1) {
    std::mt19937 random(seed);
    terrain::BuildInput input;
    input.points = test::scattered(random, count, 200, height);
    for (const double x : {0.0, 200.0})
        for (const double y : {0.0, 200.0}) input.points.push_back({x, y, height(x, y)});
    return locatorOf(valueOf(terrain::build(input)).tin);
}

Edge square(double height) {
    return {{{90, 90, height}, {110, 90, height}, {110, 110, height}, {90, 110, height}}, true};
}

PadShape slopes(double cut, double fill) {
    PadShape out;
    out.batter.cut = cut;
    out.batter.fill = fill;
    return out;
}

double frustum(double outer, double inner, double depth) {
    return depth / 3 * (outer * outer + inner * inner + outer * inner);
}

TEST(Pad, OnLevelGroundIsAFrustumEitherWayRound) {
    const auto level = ground([](double, double) { return 100.0; });
    const Pad up = valueOf(pad(square(105), slopes(1, 0.5), *level));
    EXPECT_NEAR(up.volumes.fill, frustum(40, 20, 5), 1e-7);
    EXPECT_NEAR(up.volumes.cut, 0, 1e-9);
    EXPECT_NEAR(up.volumes.area, 1600, 1e-8);
    Edge turned = square(96);
    std::reverse(turned.corners.begin(), turned.corners.end());
    const Pad down = valueOf(pad(turned, slopes(1, 0.5), *level));
    EXPECT_NEAR(down.volumes.cut, frustum(28, 20, 4), 1e-7);
    EXPECT_NEAR(down.height, 96, 0);
}

TEST(Pad, OnASlopeCutAndFillAreWedges) {
    // Ground rises 1 in 10 to the east: the pad at 110 is level with it along x = 100. By symmetry of the
    // figure with equal slopes cut equals fill.
    const auto slope = ground([](double x, double) { return 100 + x / 10; });
    const Pad made = valueOf(pad(square(110), slopes(0.5, 0.5), *slope));
    EXPECT_NEAR(made.volumes.cut, made.volumes.fill, 1e-7);
    EXPECT_GT(made.volumes.cut, 20 * 10 * 0.5);  // more than the wedge under the pad
    EXPECT_TRUE(made.batter.open.empty());
}

TEST(Pad, TakenOutAgainLeavesTheGroundAsItWas) {
    const auto rough = ground([](double x, double y) { return 100 + 3 * std::sin(x / 11) + y / 40; });
    const Pad made = valueOf(pad(square(102), slopes(0.7, 0.5), *rough));
    const auto after = locatorOf(finished(rough->tin(), made.surface));
    std::mt19937 random(5);
    std::uniform_real_distribution<double> at(1, 199);
    const TinLocator own(std::make_shared<const terrain::Tin>(made.surface));
    int inside = 0;
    for (int i = 0; i < 3000; ++i) {
        const Vec2 p{at(random), at(random)};
        const auto z = after->heightAt(p);
        ASSERT_TRUE(z) << p.x << ", " << p.y;
        const auto padHeight = own.heightAt(p);
        inside += padHeight ? 1 : 0;
        EXPECT_NEAR(*z, padHeight ? *padHeight : *rough->heightAt(p), 1e-7) << p.x << ", " << p.y;
    }
    EXPECT_GT(inside, 20);
    // Both meet along the rim: no step.
    for (const auto& chain : made.batter.daylight)
        for (const Vec3& p : chain) EXPECT_NEAR(*rough->heightAt(p.plan()), p.z, 1e-7);
    // Nor a seam: contours run through, and only the outer rim is one.
    EXPECT_EQ(rimRings(after->tin()).size(), 1U);
    // Volumes against the ground are those of the whole.
    const auto all = valueOf(terrain::volumeBetween(*rough, *after));
    EXPECT_NEAR(all.cut, made.volumes.cut, 1e-6);
    EXPECT_NEAR(all.fill, made.volumes.fill, 1e-6);
}

TEST(Pad, VolumesAreThoseOfFinePrisms) {
    for (unsigned seed = 1; seed <= 6; ++seed) {
        std::mt19937 random(seed);
        std::uniform_real_distribution<double> wobble(-1, 1);
        const auto rough = ground(
            [&](double x, double y) { return 100 + 2 * std::sin(x / 13 + seed) + 2 * std::cos(y / 9); }, 500,
            seed);
        Edge edge;
        edge.closed = true;
        for (int k = 0; k < 7; ++k) {
            const double a = k * 2 * M_PI / 7;
            const double r = 18 + 4 * wobble(random);
            edge.corners.push_back({100 + r * std::cos(a), 100 + r * std::sin(a), 100 + wobble(random)});
        }
        const Pad made = valueOf(pad(edge, slopes(0.8, 0.6), *rough));
        const TinLocator own(std::make_shared<const terrain::Tin>(made.surface));
        double cut = 0;
        double fill = 0;
        const double cell = 0.1;
        const auto box = made.surface.bounds();
        for (double x = box.minX + cell / 2; x < box.maxX; x += cell)
            for (double y = box.minY + cell / 2; y < box.maxY; y += cell) {
                const auto z = own.heightAt({x, y});
                if (!z) continue;
                const double d = (*z - *rough->heightAt({x, y})) * cell * cell;
                (d > 0 ? fill : cut) += std::abs(d);
            }
        const double size = made.volumes.cut + made.volumes.fill;
        EXPECT_NEAR(made.volumes.cut, cut, 0.002 * size) << "seed " << seed;
        EXPECT_NEAR(made.volumes.fill, fill, 0.002 * size) << "seed " << seed;
    }
}

TEST(Pad, BalancesAtTheHeightWhereEarthComesOut) {
    // By symmetry at 110 on the slope; with swell the pad rises.
    const auto slope = ground([](double x, double) { return 100 + x / 10; });
    const Balanced even = valueOf(balanced(square(0), slopes(0.5, 0.5), *slope, {}, 0));
    EXPECT_NEAR(even.pad.height, 110, 1e-7);
    EXPECT_NEAR(even.error, 0, 1e-6);
    const Balanced swollen = valueOf(balanced(square(0), slopes(0.5, 0.5), *slope, {1.2, 1}, 0));
    EXPECT_GT(swollen.pad.height, 110.01);
    EXPECT_NEAR(swollen.pad.volumes.cut * 1.2, swollen.pad.volumes.fill, 1e-6);
    const Balanced left = valueOf(balanced(square(0), slopes(0.5, 0.5), *slope, {1, 1}, 100));
    EXPECT_NEAR(left.pad.volumes.cut - left.pad.volumes.fill, 100, 1e-6);
    EXPECT_GT(left.curve.size(), 3U);
    // More than the ground can give: the batters run off it first.
    const auto none = balanced(square(0), slopes(0.5, 0.5), *slope, {}, 1e9);
    ASSERT_FALSE(none);
    EXPECT_EQ(none.error().code, ErrorCode::NotFound);
}

TEST(Pad, ItsOwnBreaklinesShapeItsInside) {
    const auto level = ground([](double, double) { return 100.0; });
    PadShape shape = slopes(1, 0.5);
    shape.inside = {{places3("95 100 106, 105 100 106"), false}};
    const Pad made = valueOf(pad(square(105), shape, *level));
    EXPECT_NEAR(*locatorOf(made.surface)->heightAt({100, 100}), 106, 1e-9);
    // A roof: a ridge 10 long over 20 x 20, 1 high: prism and two half pyramids.
    EXPECT_NEAR(made.volumes.fill, frustum(40, 20, 5) + 10 * 20 / 2.0 + 20 * 10 / 3.0, 1e-6);
}

TEST(Pad, WhatCannotBeIsRefused) {
    const auto level = ground([](double, double) { return 100.0; });
    Edge open = square(105);
    open.closed = false;
    EXPECT_FALSE(pad(open, slopes(1, 1), *level));
    EXPECT_FALSE(
        pad({places3("90 90 105, 110 110 105, 110 90 105, 90 110 105"), true}, slopes(1, 1), *level));
    EXPECT_FALSE(pad(square(105), slopes(0, 1), *level));
    EXPECT_FALSE(balanced(square(0), slopes(1, 1), *level, {0, 1}, 0));
    const auto off = balanced({places3("300 0 0, 310 0 0, 310 10 0"), true}, slopes(1, 1), *level, {}, 0);
    ASSERT_FALSE(off);
    EXPECT_NE(off.error().text.find("off the ground"), std::string::npos);
    // Partly off: no faces there, and said.
    const Pad partly = valueOf(
        pad({places3("190 90 105, 210 90 105, 210 110 105, 190 110 105"), true}, slopes(1, 1), *level));
    EXPECT_NEAR(partly.batter.openLength(), 40, 1e-6);
}

// ---- storage

TEST(Storage, OfABasinIsAFrustumAtEachStage) {
    // A pit with a floor of 20 x 20 at 96, sides 1:1 to level ground at 100.
    const auto level = ground([](double, double) { return 100.0; });
    const Pad pit = valueOf(pad(square(96), slopes(1, 1), *level));
    const auto table = valueOf(storage(pit.surface, 0.5));
    EXPECT_NEAR(table.lowest, 96, 1e-12);
    EXPECT_NEAR(table.spill, 100, 1e-9);
    ASSERT_EQ(table.stages.size(), 9U);
    for (const auto& s : table.stages) {
        const double depth = s.height - 96;
        const double side = 20 + 2 * depth;
        EXPECT_NEAR(s.area, depth > 0 ? side * side : 0, 1e-6) << s.height;
        EXPECT_NEAR(s.volume, frustum(side, 20, depth), 1e-6) << s.height;
    }
}

TEST(Storage, OfOneTriangleIsThatOfAPyramid) {
    // Corner heights 0, 1, 3 over a right triangle of area 6: the inverse of the surface's plane, by hand.
    const terrain::Tin one({{0, 0, 0}, {4, 0, 1}, {0, 3, 3}}, {0, 1, 2});
    EXPECT_NEAR(stageAt(one, 0.5).area, 6 * (0.5 / 1) * (0.5 / 3), 1e-12);
    EXPECT_NEAR(stageAt(one, 0.5).volume, 6 * (0.5 / 1) * (0.5 / 3) * 0.5 / 3, 1e-12);
    // At 2: all but the corner at 3, which is (1/2)(1/3) of it.
    EXPECT_NEAR(stageAt(one, 2).area, 6 - 1, 1e-12);
    EXPECT_NEAR(stageAt(one, 2).volume, 6 * (2 - 4.0 / 3) + 1 * 1.0 / 3, 1e-12);
    EXPECT_NEAR(stageAt(one, 5).volume, 6 * (5 - 4.0 / 3), 1e-12);
    EXPECT_EQ(stageAt(one, 0).area, 0);
}

TEST(Storage, VolumeIsTheIntegralOfArea) {
    const auto rough = ground([](double x, double y) {
        return 100 + std::hypot(x - 100, y - 100) / 5 + std::sin(x / 3) + std::cos(y / 4);
    });
    const auto table = valueOf(storage(rough->tin(), 0.02));
    double sum = 0;
    for (std::size_t i = 1; i < table.stages.size(); ++i) {
        const auto& a = table.stages[i - 1];
        const auto& b = table.stages[i];
        sum += (a.area + b.area) / 2 * (b.height - a.height);
        EXPECT_GE(b.area, a.area);
    }
    EXPECT_NEAR(sum, table.stages.back().volume, 1e-4 * sum);
}

TEST(Storage, WhatHoldsNothingSaysSo) {
    const auto slope = ground([](double x, double) { return x; });
    EXPECT_FALSE(storage(slope->tin(), 0.5));
    EXPECT_FALSE(storage(slope->tin(), 0));
    EXPECT_FALSE(storage({}, 1));
}

// ---- as typed

TEST(BatterText, SlopesAndBermsAreTheTradesNotation) {
    EXPECT_DOUBLE_EQ(valueOf(parseSlope("2:1")), 0.5);
    EXPECT_DOUBLE_EQ(valueOf(parseSlope("1 in 3")), 1.0 / 3);
    EXPECT_DOUBLE_EQ(valueOf(parseSlope("40%")), 0.4);
    for (const char* bad : {"", "2", "-2:1", "0%", "1 in 0", "0:1", "steep"})
        EXPECT_FALSE(parseSlope(bad)) << bad;
    EXPECT_EQ(valueOf(parseBerm("103, 2")), (Berm{103, 2, false}));
    EXPECT_EQ(valueOf(parseBerm("-3,1.5")), (Berm{-3, 1.5, true}));
    EXPECT_EQ(bermText(valueOf(parseBerm("+3,1.5"))), "+3,1.5");
    for (const char* bad : {"103", "103,0", "103,-1", ",2", "x,2"}) EXPECT_FALSE(parseBerm(bad)) << bad;
}

TEST(BatterText, ToADistanceThereIsOneSlope) {
    BatterForm form;
    setTarget(form, ToDistance{4});
    EXPECT_EQ(form.cut, "");
    EXPECT_EQ(form.fill, "2:1");
    // A cut makes it rise; the fill's slope goes.
    ASSERT_TRUE(setSlope(form, SlopeOf::Cut, "1:1"));
    EXPECT_EQ(form.cut, "1:1");
    EXPECT_EQ(form.fill, "");
    EXPECT_TRUE(shapeOf(form, false));
    // What is not there may be emptied, what alone is there may not.
    ASSERT_TRUE(setSlope(form, SlopeOf::Fill, ""));
    const auto refused = setSlope(form, SlopeOf::Cut, "  ");
    ASSERT_FALSE(refused);
    EXPECT_NE(refused.error().text.find("rises"), std::string::npos);
    EXPECT_EQ(form.cut, "1:1");
    ASSERT_TRUE(setSlope(form, SlopeOf::Both, "3:1"));
    EXPECT_EQ(form.cut, "3:1");
    EXPECT_EQ(form.fill, "");
    // To anything else both are needed again.
    setTarget(form, ToHeight{100});
    EXPECT_EQ(form.fill, "3:1");
    EXPECT_FALSE(setSlope(form, SlopeOf::Fill, ""));
    setTarget(form, ToDistance{2}, true);
    EXPECT_EQ(form.fill, "");
    EXPECT_EQ(form.cut, "3:1");
}

TEST(BatterText, StretchesOfAnEdge) {
    const Edge open{places3("0 0 10, 10 0 20, 10 10 20"), false};
    const Edge part = valueOf(stretchOf(open, 5, 12));
    ASSERT_EQ(part.corners.size(), 3U);
    EXPECT_NEAR(part.corners[0].z, 15, 1e-12);
    EXPECT_THAT(part.corners[2].plan(), test::IsNear(10, 2, 1e-12));
    EXPECT_FALSE(stretchOf(open, 12, 5));
    // Round a ring, past its first corner.
    const Edge ring{places3("0 0 1, 10 0 1, 10 10 1, 0 10 1"), true};
    const Edge round = valueOf(stretchOf(ring, 35, 15));
    ASSERT_EQ(round.corners.size(), 4U);
    EXPECT_THAT(round.corners.front().plan(), test::IsNear(0, 5, 1e-12));
    EXPECT_THAT(round.corners.back().plan(), test::IsNear(10, 5, 1e-12));
    EXPECT_FALSE(round.closed);
}

}  // namespace
}  // namespace erdwerk::earthwork
