#include "core/geometry/path.h"

#include <numbers>

#include "support/geometry.h"

namespace erdwerk::geometry {
namespace {

using test::IsNear;
using test::places;
constexpr double pi = std::numbers::pi;

/// Quarter of a circle of radius 10 about the origin, from north to east: clockwise, a curve to the right.
Segment quarter() {
    return {{0, 10}, {10, 0}, Vec2{10 * std::sqrt(0.5), 10 * std::sqrt(0.5)}};
}

TEST(Arc, IsFoundFromThreePoints) {
    const auto arc = arcOf(quarter());
    ASSERT_TRUE(arc);
    EXPECT_THAT(arc->centre, IsNear(0, 0, 1e-12));
    EXPECT_NEAR(arc->radius, 10, 1e-12);
    EXPECT_NEAR(arc->sweep.degrees(), 90, 1e-9);
    EXPECT_TRUE(arc->right());
    EXPECT_NEAR(lengthOf(quarter()), 5 * pi, 1e-12);
}

TEST(Arc, KeepsItsPrecisionFarFromTheOrigin) {
    const Vec2 far{480000, 5100000};
    Segment s = quarter();
    s.start = s.start + far;
    s.end = s.end + far;
    s.through = *s.through + far;
    EXPECT_NEAR(arcOf(s)->radius, 10, 1e-7);
    EXPECT_NEAR(lengthOf(s), 5 * pi, 1e-7);
}

TEST(Arc, LongerThanHalfACircleGoesTheLongWay) {
    const Segment s{{0, 10}, {10, 0}, Vec2{-10 * std::sqrt(0.5), -10 * std::sqrt(0.5)}};
    EXPECT_NEAR(arcOf(s)->sweep.degrees(), -270, 1e-9);
    EXPECT_NEAR(lengthOf(s), 15 * pi, 1e-12);
}

TEST(Arc, ThreePointsOnALineAreAStraight) {
    EXPECT_FALSE(arcOf({{0, 0}, {2, 0}, Vec2{1, 0}}));
}

TEST(Arc, TangentsFollowTheDirectionOfTravel) {
    EXPECT_NEAR(tangentAt(quarter(), 0).degrees(), 90, 1e-9);
    EXPECT_NEAR(tangentAt(quarter(), 1).degrees(), 180, 1e-9);
    EXPECT_NEAR(tangentAt(reversed(quarter()), 0).degrees(), 0, 1e-9);
}

TEST(TangentArc, LeavesInTheGivenDirection) {
    std::mt19937 random(5);
    std::uniform_real_distribution<double> any(-50, 50);
    for (int i = 0; i < 300; ++i) {
        const Vec2 start{any(random), any(random)};
        const Vec2 end{any(random), any(random)};
        const Angle direction = Angle::degrees(any(random) * 3.5).normalized();
        const Segment s = tangentArc(start, direction, end);
        if (!arcOf(s)) continue;
        EXPECT_NEAR((tangentAt(s, 0) - direction).signedTurn().degrees(), 0, 1e-6) << "seed 5, case " << i;
    }
}

TEST(ArcByRadius, HasTheRadiusAndSide) {
    const Segment s = arcByRadius({0, 0}, {10, 0}, 8, true);
    EXPECT_NEAR(arcOf(s)->radius, 8, 1e-9);
    EXPECT_TRUE(arcOf(s)->right());
    EXPECT_LT(std::abs(arcOf(s)->sweep.degrees()), 180);
    EXPECT_GT(std::abs(arcOf(arcByRadius({0, 0}, {10, 0}, 8, false, true))->sweep.degrees()), 180);
}

TEST(SignedArea, CountsArcsExactly) {
    // A half disc of radius 5 on a 10 x 4 rectangle: 40 + 12.5 pi.
    const Path ring{
        {{0, 0}, {10, 0}, {}}, {{10, 0}, {10, 4}, {}}, {{10, 4}, {0, 4}, Vec2{5, 9}}, {{0, 4}, {0, 0}, {}}};
    EXPECT_NEAR(signedArea(ring), 40 + 12.5 * pi, 1e-12);
    EXPECT_NEAR(signedArea(reversed(ring)), -(40 + 12.5 * pi), 1e-12);
    const Path bitten{
        {{0, 0}, {10, 0}, {}}, {{10, 0}, {10, 9}, {}}, {{10, 9}, {0, 9}, Vec2{5, 4}}, {{0, 9}, {0, 0}, {}}};
    EXPECT_NEAR(signedArea(bitten), 90 - 12.5 * pi, 1e-12);
}

TEST(SignedArea, DoesNotCancelAtLargeCoordinates) {
    std::vector<Vec2> ring = places("0 0, 1 0, 1 1, 0 1");
    for (Vec2& p : ring) p = p + Vec2{1e7, 1e7};
    EXPECT_DOUBLE_EQ(signedArea(ring), 1);
}

TEST(NearestOn, GivesSideAndDistance) {
    const Path path{{{0, 0}, {0, 100}, {}}};  // northwards
    auto near = nearestOn(path, {3, 40});
    EXPECT_NEAR(near->distance, 3, 1e-12);  // right
    EXPECT_NEAR(near->fraction, 0.4, 1e-12);
    EXPECT_NEAR(nearestOn(path, {-2, 40})->distance, -2, 1e-12);
    near = nearestOn({quarter()}, {20 * std::sqrt(0.5), 20 * std::sqrt(0.5)});
    EXPECT_NEAR(near->fraction, 0.5, 1e-9);
    EXPECT_NEAR(near->distance, -10, 1e-9);  // outside a right-hand curve is left
}

TEST(PositionAt, WalksOverStraightsAndArcs) {
    const Path path{{{-10, 10}, {0, 10}, {}}, quarter()};
    const auto p = positionAt(path, 10 + 2.5 * pi);
    EXPECT_EQ(p.segment, 1U);
    EXPECT_THAT(p.place, IsNear(10 * std::sqrt(0.5), 10 * std::sqrt(0.5), 1e-9));
    EXPECT_NEAR(p.direction.degrees(), 135, 1e-9);
    EXPECT_THAT(positionAt(path, 1e9).place, IsNear(10, 0, 0));
}

TEST(Flattened, StaysWithinItsSagitta) {
    const auto flat = flattened({quarter()}, 0.01);
    for (std::size_t i = 0; i + 1 < flat.size(); ++i)
        EXPECT_GT(length(lerp(flat[i], flat[i + 1], 0.5)), 10 - 0.01);
    EXPECT_EQ(flat.front(), quarter().start);
    EXPECT_EQ(flat.back(), quarter().end);
}

TEST(TangentPlaces, TouchAtARightAngleToTheRadius) {
    const auto touches = tangentPlaces(quarter(), {20, 0});
    ASSERT_EQ(touches.size(), 1U);  // the other one lies off the arc
    // cos = 10 / 20: 60 degrees from the direction to the point.
    EXPECT_THAT(touches[0].place, IsNear(5, 10 * std::sqrt(0.75), 1e-9));
    EXPECT_NEAR(dot(touches[0].place, Vec2{20, 0} - touches[0].place), 0, 1e-9);
    EXPECT_TRUE(tangentPlaces(quarter(), {3, 3}).empty());
    EXPECT_TRUE(tangentPlaces({{0, 0}, {1, 0}, {}}, {3, 3}).empty());
}

TEST(Part, IsAPieceOfTheSameArc) {
    const Segment p = part(quarter(), 0.25, 0.75);
    EXPECT_NEAR(arcOf(p)->radius, 10, 1e-9);
    EXPECT_NEAR(lengthOf(p), 2.5 * pi, 1e-9);
}

TEST(SideOf, IsExactOnEdgesAndCorners) {
    const auto ring = places("0 0, 4 0, 4 4, 2 2, 0 4");
    EXPECT_EQ(sideOf(ring, {1, 1}), Side::Inside);
    EXPECT_EQ(sideOf(ring, {2, 3}), Side::Outside);
    EXPECT_EQ(sideOf(ring, {3, 3}), Side::OnEdge);
    EXPECT_EQ(sideOf(ring, {2, 2}), Side::OnEdge);
    EXPECT_EQ(sideOf(ring, {-1, 0}), Side::Outside);
    EXPECT_EQ(sideOf(ring, {0, 2}), Side::OnEdge);
}

TEST(BoundsOf, IncludesTheBulge) {
    const Box b = boundsOf({{-5, 0}, {5, 0}, Vec2{0, 5}});
    EXPECT_NEAR(b.maxY, 5, 1e-9);
    EXPECT_NEAR(b.minY, 0, 1e-9);
}

/// 10 east, then the quarter circle of radius 10 that turns right, then 5 south.
Path bend() {
    return {{{-10, 10}, {0, 10}, std::nullopt}, quarter(), {{10, 0}, {10, -5}, std::nullopt}};
}

TEST(PlacesAlong, StandAtEqualDistances) {
    const Path path = bend();
    const double length = 15 + 5 * pi;
    EXPECT_NEAR(lengthOf(path), length, 1e-12);
    const auto found = placesAlong(path, 0.5, 1000);
    ASSERT_EQ(found.size(), static_cast<std::size_t>(length / 0.5) + 1);
    EXPECT_EQ(found.front(), path.front().start);
    EXPECT_THAT(found.back(), IsNear(10, -5, 1e-9));
    for (std::size_t k = 0; k < found.size(); ++k) {
        const double along = length * static_cast<double>(k) / static_cast<double>(found.size() - 1);
        const Vec2 expected = positionAt(path, along).place;
        EXPECT_THAT(found[k], IsNear(expected.x, expected.y, 1e-9));
    }
}

TEST(PlacesAlong, AreThreeAtLeastAndNotMoreThanAskedFor) {
    EXPECT_EQ(placesAlong(bend(), 1000, 50).size(), 3U);
    EXPECT_EQ(placesAlong(bend(), 1e-6, 50).size(), 51U);
    EXPECT_TRUE(placesAlong({}, 1, 50).empty());
    // All in one place: no division by its length.
    for (const Vec2 p : placesAlong({{{3, 4}, {3, 4}, std::nullopt}}, 1, 50)) EXPECT_THAT(p, IsNear(3, 4, 0));
}

TEST(Path, BoundsAndCurvesAreThoseOfAllItsElements) {
    const Box box = boundsOf(bend());
    EXPECT_NEAR(box.minX, -10, 1e-9);
    EXPECT_NEAR(box.maxX, 10, 1e-9);
    EXPECT_NEAR(box.minY, -5, 1e-9);
    EXPECT_NEAR(box.maxY, 10, 1e-9);
    EXPECT_TRUE(boundsOf(Path{}).empty());
    EXPECT_TRUE(hasCurves(bend()));
    EXPECT_FALSE(hasCurves({bend().front(), bend().back()}));
    // Three points on one line are no curve.
    EXPECT_FALSE(hasCurves({{{0, 0}, {2, 0}, Vec2{1, 0}}}));
}

}  // namespace
}  // namespace erdwerk::geometry
