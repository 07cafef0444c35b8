#include "core/route/alignment.h"

#include <numbers>

#include "support/geometry.h"

namespace erdwerk::route {
namespace {

/// East 100, a right-hand quarter of radius 50 to the south, south 40.
Path route() {
    const double h = 50 * std::sqrt(0.5);
    return {
        {{0, 0}, {100, 0}, {}}, {{100, 0}, {150, -50}, Vec2{100 + h, -50 + h}}, {{150, -50}, {150, -90}, {}}};
}

TEST(Alignment, NamesItsPointsAndStations) {
    const auto a = alignmentOn(route(), 1000);
    ASSERT_EQ(a.keyPoints.size(), 4U);
    EXPECT_EQ(a.keyPoints[0].kind, PointKind::Begin);
    EXPECT_EQ(a.keyPoints[1].kind, PointKind::Pc);
    EXPECT_EQ(a.keyPoints[2].kind, PointKind::Pt);
    EXPECT_EQ(a.keyPoints[3].kind, PointKind::End);
    EXPECT_NEAR(a.keyPoints[2].station, 1100 + 25 * std::numbers::pi, 1e-9);
    EXPECT_NEAR(a.endStation(), 1140 + 25 * std::numbers::pi, 1e-9);
    EXPECT_TRUE(a.breaks.empty());
}

TEST(Alignment, FindsAJointThatIsNotTangentWithItsAngle) {
    Path path = route();
    const double turn = 1.5 * std::numbers::pi / 180;
    path[2].end = path[2].start + Vec2{std::sin(turn), -std::cos(turn)} * 40;
    const auto a = alignmentOn(path, 0);
    ASSERT_EQ(a.breaks.size(), 1U);
    EXPECT_NEAR(a.breaks[0].turn.degrees(), -1.5, 1e-9);
    EXPECT_EQ(a.breaks[0].segment, 1U);
}

TEST(Ticks, StandAtMultiplesOfTheInterval) {
    const auto t = ticks(alignmentOn(route(), 5), 10);
    EXPECT_DOUBLE_EQ(t.front().station, 10);
    EXPECT_THAT(t.front().place, test::IsNear(5, 0, 1e-12));
    EXPECT_TRUE(t[4].major);
    EXPECT_FALSE(t[3].major);
}

TEST(StationOffset, IsTheInverseOfPlaceAt) {
    const auto a = alignmentOn(route(), 250);
    std::mt19937 random(2);
    std::uniform_real_distribution<double> along(a.startStation + 1, a.endStation() - 1);
    std::uniform_real_distribution<double> off(-20, 20);
    for (int i = 0; i < 300; ++i) {
        const double station = along(random);
        const double offset = off(random);
        const auto back = stationOffset(a, placeAt(a, station, offset));
        EXPECT_NEAR(back.station, station, 1e-9) << "seed 2, case " << i;
        EXPECT_NEAR(back.offset, offset, 1e-9);
    }
    EXPECT_GT(stationOffset(a, {50, -3}).offset, 0);  // south of a line going east is right
}

}  // namespace
}  // namespace erdwerk::route
