#include "core/earthwork/batter.h"

#include <cmath>
#include <memory>
#include <numbers>
#include <random>
#include <set>

#include "core/terrain/volume.h"
#include "support/geometry.h"
#include "support/ground.h"

namespace erdwerk::earthwork {
namespace {

using linework::OutsideCorner;
using terrain::TinLocator;
using test::firstHit;
using test::places3;
using test::planeGround;
using test::roughGround;
using test::valueOf;

BatterShape shape(double cut, double fill, bool right = false) {
    BatterShape out;
    out.cut = cut;
    out.fill = fill;
    out.right = right;
    return out;
}

Edge square(double half, double height) {
    return {{{-half, -half, height}, {half, -half, height}, {half, half, height}, {-half, half, height}},
            true};
}

TinLocator locatorOf(const Batter& b) {
    return TinLocator(std::make_shared<const terrain::Tin>(b.faces));
}

TEST(Batter, RoundAPadOnLevelGroundIsAFrustum) {
    // 5 m down at 2:1 is 10 m out: 20 x 20 grows to 40 x 40.
    const auto ground = planeGround(100);
    const Batter b = valueOf(batter(square(10, 105), shape(1, 0.5, true), ground.get()));
    EXPECT_NEAR(b.planArea, 1200, 1e-9);
    EXPECT_NEAR(b.daylightLength, 160, 1e-9);
    ASSERT_EQ(b.daylight.size(), 1U);
    EXPECT_TRUE(b.open.empty());
    const TinLocator faces = locatorOf(b);
    EXPECT_NEAR(*faces.heightAt({15, 3}), 102.5, 1e-9);
    EXPECT_NEAR(*faces.heightAt({15, 14.9}), 102.5, 1e-9);
    // The volume of the ring: frustum of 1600 and 400, less the box under the pad.
    const auto volumes = valueOf(terrain::volumeBetween(*ground, faces));
    EXPECT_NEAR(volumes.fill, 5.0 / 3 * (1600 + 400 + 800) - 5 * 400, 1e-8);
    EXPECT_NEAR(volumes.cut, 0, 1e-9);
}

TEST(Batter, RisesWhereThePadLiesBelow) {
    const auto ground = planeGround(100);
    const Batter b = valueOf(batter(square(10, 96), shape(1, 0.5, true), ground.get()));
    EXPECT_NEAR(b.planArea, 28 * 28 - 400, 1e-9);
    EXPECT_NEAR(*locatorOf(b).heightAt({12, 0}), 98, 1e-9);
}

TEST(Batter, RoundCornersAreConesWithinAHundredth) {
    const auto ground = planeGround(100);
    BatterShape s = shape(1, 0.5, true);
    s.corners = OutsideCorner::Round;
    const Batter b = valueOf(batter(square(10, 105), s, ground.get()));
    const double exact = 4 * 20 * 10 + std::numbers::pi * 100;
    EXPECT_LT(b.planArea, exact);
    EXPECT_GT(b.planArea, exact - 2 * std::numbers::pi * 10 * 0.01);
    const TinLocator faces = locatorOf(b);
    for (const double degrees : {3.0, 20.0, 45.0, 71.0})
        for (const double r : {2.0, 6.0, 9.9}) {
            const double a = degrees * std::numbers::pi / 180;
            const auto z = faces.heightAt({10 + r * std::cos(a), 10 + r * std::sin(a)});
            ASSERT_TRUE(z) << degrees << " " << r;
            EXPECT_NEAR(*z, 105 - r / 2, 0.01);
        }
}

TEST(Batter, OnASlopingPlaneIsAWedge) {
    // 110 - d/2 = 100 + d/10 at d = 10/0.6; along y the ground rises by 2 %, the edge does not.
    const auto ground = planeGround(100, 0.1, 0.02);
    const Edge edge{{{0, 0, 110}, {0, 30, 110}}, false};
    const Batter b = valueOf(batter(edge, shape(1, 0.5, true), ground.get()));
    const double d0 = 10 / 0.6;
    const double d1 = (10 - 0.6) / 0.6;
    EXPECT_NEAR(b.planArea, 30 * (d0 + d1) / 2, 1e-9);
    ASSERT_EQ(b.daylight.size(), 1U);
    EXPECT_THAT(b.daylight[0].back().plan(), test::IsNear(d1, 30, 1e-9));
    EXPECT_THAT(b.daylight[0].front().plan(), test::IsNear(d0, 0, 1e-9));
}

TEST(Batter, CutPassesIntoFillWhereTheEdgeMeetsTheGround) {
    const auto ground = planeGround(100);
    const Edge edge{{{-10, 0.5, 90}, {10, 0.5, 110}}, false};
    const Batter b = valueOf(batter(edge, shape(1, 0.5), ground.get()));
    EXPECT_NEAR(b.planArea, 10 * 10 / 2.0 + 10 * 20 / 2.0, 1e-9);
    ASSERT_EQ(b.edge.size(), 3U);
    EXPECT_NEAR(b.edge[1].x, 0, 1e-9);
    EXPECT_NEAR(b.edge[1].z, 100, 1e-9);
    EXPECT_TRUE(b.open.empty());
}

TEST(Batter, InsideCornersAreCutWhereTheFacesMeet) {
    const auto ground = planeGround(100);
    const Edge edge{places3("20 0.5 105, 0 0.5 105, 0 20.5 105"), false};
    const Batter b = valueOf(batter(edge, shape(1, 0.5, true), ground.get()));
    EXPECT_NEAR(b.planArea, 300, 1e-8);
    EXPECT_NEAR(b.daylightLength, 20, 1e-8);
    const TinLocator faces = locatorOf(b);
    EXPECT_NEAR(*faces.heightAt({3, 8}), 103.5, 1e-9);  // the higher of two that fall
    const Batter cut = valueOf(
        batter({places3("20 0.5 95, 0 0.5 95, 0 20.5 95"), false}, shape(0.5, 0.5, true), ground.get()));
    EXPECT_NEAR(*locatorOf(cut).heightAt({3, 8}), 96.5, 1e-9);  // the lower of two that rise
}

TEST(Batter, FacesFromBothSidesMeetInTheMiddle) {
    const auto ground = planeGround(100);
    const Edge edge{places3("0 20 105, 0 0.5 105, 4 0.5 105, 4 20 105"), false};
    const Batter b = valueOf(batter(edge, shape(1, 0.5), ground.get()));
    EXPECT_NEAR(b.planArea, 4 * 19.5, 1e-7);
    const TinLocator faces = locatorOf(b);
    std::mt19937 random(3);
    std::uniform_real_distribution<double> x(0.01, 3.99);
    std::uniform_real_distribution<double> y(0.51, 19.9);
    for (int i = 0; i < 300; ++i) {
        const Vec2 p{x(random), y(random)};
        const auto z = faces.heightAt(p);
        ASSERT_TRUE(z) << p.x << " " << p.y;
        EXPECT_NEAR(*z, 105 - std::min({p.x, 4 - p.x, p.y - 0.5}) / 2, 1e-9);
    }
}

TEST(Batter, BermsAreLevelSteps) {
    const auto ground = planeGround(100);
    BatterShape s = shape(1, 0.5, true);
    s.berms = {{103, 2, false}};
    const Batter b = valueOf(batter(square(10, 105), s, ground.get()));
    EXPECT_NEAR(b.planArea, 44 * 44 - 400, 1e-9);
    const TinLocator faces = locatorOf(b);
    EXPECT_NEAR(*faces.heightAt({13, 1}), 103.5, 1e-9);
    EXPECT_NEAR(*faces.heightAt({15, 1}), 103, 1e-9);
    EXPECT_NEAR(*faces.heightAt({15, 14}), 103, 1e-9);
    EXPECT_NEAR(*faces.heightAt({18, 1}), 102, 1e-9);
    s.corners = OutsideCorner::Round;
    const Batter round = valueOf(batter(square(10, 105), s, ground.get()));
    EXPECT_NEAR(round.planArea, 4 * 20 * 12 + std::numbers::pi * 144, 2 * std::numbers::pi * 12 * 0.01);
    // Measured from a falling edge the berm falls with it.
    s = shape(1, 0.5, true);
    s.berms = {{-1, 3, true}};
    const Edge falling{{{0, 0.5, 104}, {0, 20.5, 106}}, false};
    const Batter along = valueOf(batter(falling, s, ground.get()));
    EXPECT_NEAR(*locatorOf(along).heightAt({3, 10.5}), 104, 1e-9);
    EXPECT_NEAR(along.planArea, 20 * (8 + 12) / 2.0 + 20 * 3, 1e-9);
}

TEST(Batter, GoesToAHeightARiseOrADistance) {
    BatterShape s = shape(1, 0.5, true);
    s.target = ToHeight{103};
    const Edge edge{{{0, 0, 105}, {0, 20, 101}}, false};
    const Batter height = valueOf(batter(edge, s, nullptr));
    EXPECT_NEAR(height.planArea, 4 * 10 / 2.0 + 2 * 10 / 2.0, 1e-9);
    s.target = ToRise{-3};
    EXPECT_NEAR(valueOf(batter(edge, s, nullptr)).planArea, 6 * 20, 1e-9);
    s.target = ToDistance{4};
    s.cut.reset();
    const Batter away = valueOf(batter(square(10, 50), s, nullptr));
    EXPECT_NEAR(away.planArea, 28 * 28 - 400, 1e-9);
    EXPECT_NEAR(*locatorOf(away).heightAt({13, 2}), 48.5, 1e-9);
    s.corners = OutsideCorner::Round;
    EXPECT_NEAR(valueOf(batter(square(10, 50), s, nullptr)).planArea, 320 + std::numbers::pi * 16,
                2 * std::numbers::pi * 4 * 0.01);
}

TEST(Batter, WhereTheTargetIsNotReachedThereAreNoFaces) {
    // The ground falls as steeply as the batter from x = 0 on.
    const auto ground = planeGround(100, 0, 0, 20);
    const Edge edge{{{0, 0.5, 101}, {15, 0.5, 116}}, false};
    const Batter b = valueOf(batter(edge, shape(1, 0.5), ground.get()));
    // 19.5 to the rim of the surface: reached while 2 (1 + x) <= 19.5.
    ASSERT_EQ(b.open.size(), 1U);
    EXPECT_NEAR(b.open[0].from, 8.75, 1e-9);
    EXPECT_NEAR(b.openLength(), 6.25, 1e-9);
    EXPECT_NEAR(b.planArea, 8.75 * (2 + 19.5) / 2, 1e-8);
    const Batter off = valueOf(batter({{{15, 0, 105}, {30, 0, 105}}, false}, shape(1, 0.5), ground.get()));
    EXPECT_NEAR(off.openLength(), 10, 1e-9);
}

TEST(Batter, SlopesPassIntoOthers) {
    const auto ground = planeGround(100);
    BatterShape s = shape(1, 0.5, true);
    s.changes = {{20, 40, 1, 1}};
    const Edge edge{{{0, -30.5, 105}, {0, 30.5, 105}}, false};
    const Batter b = valueOf(batter(edge, s, ground.get()));
    // 10 out before, 5 after; between them 5 / (1/2 + t/2): 20 * integral 10 / (1 + t) = 200 ln 2.
    EXPECT_NEAR(b.planArea, 200 + 200 * std::log(2.0) + 21 * 5, 0.3);
    const TinLocator faces = locatorOf(b);
    for (double y = -10; y < 9; y += 0.37) {
        const double slope = 0.5 + 0.5 * (y + 10.5) / 20;
        EXPECT_NEAR(faces.heightAt({3, y}).value_or(0), 105 - 3 * slope, 0.011) << y;
    }
}

TEST(Batter, BadShapesAndEdgesAreRefused) {
    const auto ground = planeGround(100);
    const auto refused = [&](const Edge& e, const BatterShape& s, const std::string& why) {
        const auto b = batter(e, s, ground.get());
        ASSERT_FALSE(b) << why;
        EXPECT_NE(b.error().text.find(why), std::string::npos) << b.error().text;
    };
    refused(square(10, 105), shape(0, 0.5), "above 0");
    refused(square(10, 105), shape(1, -0.5), "above 0");
    refused({{{0, 0, 1}}, false}, shape(1, 1), "no sides");
    refused({places3("0 0 105, 10 10 105, 10 0 105, 0 10 105"), true}, shape(1, 1), "crosses itself");
    BatterShape s = shape(1, 0.5);
    s.berms = {{103, 0, false}};
    refused(square(10, 105), s, "width above 0");
    s.berms = {{103, 2, false}};
    refused({places3("0 0.5 105, 10 0.5 102"), false}, s, "passes the height of a berm");
    s.berms.clear();
    s.target = ToDistance{5};
    refused(square(10, 105), s, "either a cut slope");
}

/// Two neighbouring planes stand until they meet, which may be over one's own side when an edge is steep: is
/// the place beyond that, seen from the middle of side k, with the neighbour's plane below it in fill (above
/// in cut)?
bool isBeyondNeighbour(const Edge& edge, std::size_t k, Vec2 p, double own, double grade) {
    const std::size_t n = edge.corners.size();
    const Vec3 from = edge.corners[k];
    const Vec3 to = edge.corners[(k + 1) % n];
    const Vec2 middle = geometry::lerp(from.plan(), to.plan(), 0.5);
    for (const std::size_t side : {(k + 1) % n, (k + n - 1) % n}) {
        if (!edge.closed && side + 1 == n) continue;
        const Vec3 a = edge.corners[side];
        const Vec3 b = edge.corners[(side + 1) % n];
        const double size = geometry::distance(a.plan(), b.plan());
        const Vec2 way = (b.plan() - a.plan()) * (1 / size);
        const auto above = [&](Vec2 q, double z) {
            const Vec2 v = q - a.plan();
            return (a.z + (b.z - a.z) * geometry::dot(v, way) / size +
                    grade * geometry::dot(v, geometry::leftOf(way) * -1.0) - z) *
                   (grade > 0 ? 1 : -1);
        };
        if (above(p, own) > 0 && above(middle, (from.z + to.z) / 2) < 0) return true;
    }
    return false;
}

Edge randomEdge(std::mt19937& random, unsigned seed) {
    std::uniform_real_distribution<double> wobble(-1, 1);
    Edge edge;
    edge.closed = seed % 2 == 0;
    const int count = 5 + static_cast<int>(seed % 4);
    for (int k = 0; k < count; ++k) {
        const double a = k * 2 * std::numbers::pi / count;
        const double r = 14 + 5 * wobble(random);
        edge.corners.push_back({r * std::cos(a), r * std::sin(a), 100 + 1.5 * wobble(random)});
    }
    return edge;
}

/// Each side of a triangle is gone along once in each direction at most.
void expectProper(const terrain::Tin& tin) {
    std::set<std::pair<std::uint32_t, std::uint32_t>> sides;
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t)
        for (int i = 0; i < 3; ++i)
            EXPECT_TRUE(sides.insert({tin.corner(t, i), tin.corner(t, (i + 1) % 3)}).second)
                << "triangle " << t;
}

struct Seen {
    int hits = 0;
    int cut = 0;  ///< places where another face stays
};

/// Rays from one side, against the faces that were made.
void compareSide(const Edge& edge, std::size_t k, double start, const terrain::Tin& tin,
                 const TinLocator& ground, const Batter& b, const TinLocator& faces, Seen& seen) {
    const Vec3 from = edge.corners[k];
    const Vec3 to = edge.corners[(k + 1) % edge.corners.size()];
    const double size = geometry::distance(from.plan(), to.plan());
    const Vec2 out = geometry::leftOf((to.plan() - from.plan()) * (1 / size)) * -1.0;
    for (double f = 0.04; f < 1; f += 0.09) {
        const std::string where = "side " + std::to_string(k) + " at " + std::to_string(f);
        const Vec2 at = geometry::lerp(from.plan(), to.plan(), f);
        const double z = from.z + (to.z - from.z) * f;
        const auto under = ground.heightAt(at);
        if (!under || std::abs(*under - z) < 1e-3) continue;
        const double grade = *under > z ? 0.8 : -0.6;
        const auto d = firstHit(tin, {at.x, at.y, z}, out, grade);
        const double here = start + f * size;
        const bool open = std::any_of(b.open.begin(), b.open.end(),
                                      [&](const EdgeStretch& o) { return here > o.from && here < o.to; });
        EXPECT_EQ(open, !d) << where;
        if (!d) continue;
        ++seen.hits;
        for (const double share : {0.25, 0.6, 0.999}) {
            const Vec2 p = at + out * (*d * share);
            const double own = z + grade * *d * share;
            if (isBeyondNeighbour(edge, k, p, own, grade)) continue;
            const auto there = faces.heightAt(p);
            EXPECT_TRUE(there) << where << ", " << share << " of " << *d;
            // Another face may stay instead of this one: higher in fill, lower in cut.
            if (!there || std::abs(*there - own) <= 1e-6) continue;
            ++seen.cut;
            EXPECT_GT((*there - own) * (grade > 0 ? -1 : 1), -1e-6) << where << ", " << share << " of " << *d;
        }
    }
}

TEST(Batter, RandomEdgesOnRandomGroundEndWhereRaysDo) {
    Seen seen;
    for (unsigned seed = 1; seed <= 1000; ++seed) {
        SCOPED_TRACE("seed " + std::to_string(seed));
        std::mt19937 random(seed);
        const auto tin = roughGround(random);
        const TinLocator ground(tin);
        const Edge edge = randomEdge(random, seed);
        const Batter b = valueOf(batter(edge, shape(0.8, 0.6, true), &ground));
        expectProper(b.faces);
        EXPECT_LT(b.planArea, 120 * 120);
        const TinLocator faces = locatorOf(b);
        double start = 0;
        for (std::size_t k = 0; k + (edge.closed ? 0 : 1) < edge.corners.size(); ++k) {
            compareSide(edge, k, start, *tin, ground, b, faces, seen);
            start += geometry::distance(edge.corners[k].plan(),
                                        edge.corners[(k + 1) % edge.corners.size()].plan());
        }
    }
    EXPECT_GT(seen.hits, 8000);
    EXPECT_GT(seen.cut, 50);
}

}  // namespace
}  // namespace erdwerk::earthwork
