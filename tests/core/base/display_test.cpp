#include "core/base/display.h"

#include <gtest/gtest.h>

namespace erdwerk {
namespace {

TEST(FormatFixed, RoundsHalvesAwayFromZeroAndHasNoNegativeZero) {
    EXPECT_EQ(formatFixed(2.675, 2), "2.68");
    EXPECT_EQ(formatFixed(-2.675, 2), "-2.68");
    EXPECT_EQ(formatFixed(0.125, 2), "0.13");
    EXPECT_EQ(formatFixed(-0.004, 2), "0.00");
    EXPECT_EQ(formatFixed(91000.1, 3), "91000.100");
}

TEST(FormatExact, ReadsBackAsTheSameDouble) {
    for (const double v : {0.1, 1.0 / 3, 48012.3456789, -1e-9, 1e300})
        EXPECT_EQ(std::stod(formatExact(v)), v);
    EXPECT_EQ(formatExact(-0.0), "0");
}

TEST(FormatBearing, NamesTheFourQuadrants) {
    EXPECT_EQ(formatBearing(Angle::degrees(45.5056)), "N 45°30'20\" E");
    EXPECT_EQ(formatBearing(Angle::degrees(134.5)), "S 45°30'00\" E");
    EXPECT_EQ(formatBearing(Angle::degrees(225)), "S 45°00'00\" W");
    EXPECT_EQ(formatBearing(Angle::degrees(359.5)), "N 0°30'00\" W");
    EXPECT_EQ(formatBearing(Angle::degrees(90)), "due East");
    EXPECT_EQ(formatBearing(Angle::degrees(359.99999)), "due North");
    EXPECT_EQ(formatBearing(Angle::degrees(180)), "due South");
    EXPECT_EQ(formatBearing(Angle::degrees(270)), "due West");
}

TEST(FormatBearing, CarriesRoundedSecondsUp) {
    EXPECT_EQ(formatBearing(Angle::degrees(10 + 59 / 60.0 + 59.7 / 3600)), "N 11°00'00\" E");
    EXPECT_EQ(formatBearing(Angle::degrees(359.99999)), "due North");
}

TEST(FormatAngle, ShowsTheSameTurnInEachUnit) {
    const Angle a = Angle::gon(100);
    EXPECT_EQ(formatAngle(a, AngleUnit::DegreesMinutesSeconds), "90°00'00\"");
    EXPECT_EQ(formatAngle(a, AngleUnit::DecimalDegrees), "90.0000°");
    EXPECT_EQ(formatAngle(a, AngleUnit::Gon), "100.0000 gon");
}

TEST(FormatStation, SplitsAtTheBlockAndCarries) {
    DisplaySettings s;
    EXPECT_EQ(formatStation(1234.5, s), "1+234.50");
    EXPECT_EQ(formatStation(999.999, s), "1+000.00");
    EXPECT_EQ(formatStation(-12.25, s), "-0+012.25");
    s.station = StationStyle::Hundreds;
    EXPECT_EQ(formatStation(1234.5, s), "12+34.50");
}

TEST(FormatDirection, FollowsTheProjectsStyle) {
    DisplaySettings s;
    s.direction = DirectionStyle::Azimuth;
    s.angleUnit = AngleUnit::Gon;
    EXPECT_EQ(formatDirection(Angle::degrees(270), s), "300.0000 gon");
    s.direction = DirectionStyle::Bearing;
    s.angleUnit = AngleUnit::DecimalDegrees;
    EXPECT_EQ(formatDirection(Angle::degrees(200), s), "S 20.0000° W");
}

TEST(FormatPosition, FollowsTheCoordinateOrder) {
    DisplaySettings s;
    EXPECT_EQ(formatPosition(1, 2, s), "E 1.00  N 2.00");
    s.order = CoordinateOrder::NorthingEasting;
    EXPECT_EQ(formatPosition(1, 2, s), "N 2.00  E 1.00");
}

TEST(LengthUnits, AreExactRatios) {
    EXPECT_DOUBLE_EQ(convertLength(1, LengthUnit::InternationalFoot, LengthUnit::Metre), 0.3048);
    // 1 000 000 survey feet are 304 800.6096… m: two feet more than international ones.
    EXPECT_NEAR(convertLength(1e6, LengthUnit::UsSurveyFoot, LengthUnit::InternationalFoot), 1000002.000004,
                1e-5);
    EXPECT_EQ(formatArea(43560, {.unit = LengthUnit::InternationalFoot}), "43560.0 sq ft (1.0000 acres)");
}

}  // namespace
}  // namespace erdwerk
