#include "core/base/notation.h"

#include <gtest/gtest.h>

#include <random>

#include "core/base/display.h"

namespace erdwerk {
namespace {

template <class T>
T entry(const std::string& text) {
    const auto parsed = parseHeightEntry(text);
    if (!parsed) throw std::runtime_error(parsed.error().text);
    return std::get<T>(*parsed);
}

TEST(HeightEntry, ReadsEachFormOfTheTradesNotation) {
    EXPECT_DOUBLE_EQ(entry<TypedHeight>("101.25").height, 101.25);
    EXPECT_DOUBLE_EQ(entry<TypedRise>("+0.15").rise, 0.15);
    EXPECT_DOUBLE_EQ(entry<TypedRise>(" -0.15 ").rise, -0.15);
    EXPECT_DOUBLE_EQ(entry<TypedGrade>("2%").grade.riseOverRun(), 0.02);
    EXPECT_DOUBLE_EQ(entry<TypedGrade>("-1.5 %").grade.percent(), -1.5);
    EXPECT_DOUBLE_EQ(entry<TypedGrade>("3:1").grade.riseOverRun(), 1.0 / 3);
    EXPECT_DOUBLE_EQ(entry<TypedGrade>("1 in 3").grade.riseOverRun(), 1.0 / 3);
    EXPECT_DOUBLE_EQ(entry<TypedGrade>("-3:1").grade.riseOverRun(), -1.0 / 3);
}

TEST(HeightEntry, ReadsSurfacesWithAndWithoutAnAmount) {
    EXPECT_EQ(entry<TypedSurface>("=Ground").surface, "Ground");
    EXPECT_EQ(entry<TypedSurface>("=Ground+0.10").surface, "Ground");
    EXPECT_DOUBLE_EQ(entry<TypedSurface>("=Ground+0.10").amount, 0.10);
    EXPECT_DOUBLE_EQ(entry<TypedSurface>("= Old ground - 0.5").amount, -0.5);
    EXPECT_EQ(entry<TypedSurface>("= Old ground - 0.5").surface, "Old ground");
    EXPECT_EQ(entry<TypedSurface>("=Q-4 pad").surface, "Q-4 pad");
}

TEST(HeightEntry, RefusesWhatItCannotRead) {
    for (const char* bad :
         {"", "  ", "abc", "2%%", "3:0x", "3:", "0:1", "=", "1e999", "nan", "inf", "1,5", "%"})
        EXPECT_FALSE(parseHeightEntry(bad)) << bad;
}

TEST(PlaceEntry, ReadsPositionsInTheProjectsOrder) {
    DisplaySettings s;
    auto p = std::get<TypedPosition>(*parsePlaceEntry("48010.5, 91020.25", s));
    EXPECT_DOUBLE_EQ(p.easting, 48010.5);
    EXPECT_FALSE(p.height);
    s.order = CoordinateOrder::NorthingEasting;
    p = std::get<TypedPosition>(*parsePlaceEntry("91020.25, 48010.5, 320", s));
    EXPECT_DOUBLE_EQ(p.easting, 48010.5);
    EXPECT_DOUBLE_EQ(*p.height, 320);
}

TEST(PlaceEntry, ReadsBearingsAndAzimuths) {
    const DisplaySettings s;
    for (const char* text : {"N 45°30'20\" E 35.20", "n 45 30 20 e 35.20", "az 45 30 20 35.2"}) {
        const auto c = std::get<TypedCourse>(*parsePlaceEntry(text, s));
        EXPECT_NEAR(c.azimuth.degrees(), 45 + 30 / 60.0 + 20 / 3600.0, 1e-12) << text;
        EXPECT_DOUBLE_EQ(c.distance, 35.2);
    }
    EXPECT_NEAR(std::get<TypedCourse>(*parsePlaceEntry("S 10 W 5", s)).azimuth.degrees(), 190, 1e-12);
    EXPECT_NEAR(std::get<TypedCourse>(*parsePlaceEntry("az 45.5056 35.20", s)).azimuth.degrees(), 45.5056,
                1e-12);
}

TEST(PlaceEntry, RefusesWhatItCannotRead) {
    const DisplaySettings s;
    for (const char* bad : {"", "N 95 E 3", "N 45 61 0 E 3", "az 3", "1,2,3,4", "1,x", "N 4 E"})
        EXPECT_FALSE(parsePlaceEntry(bad, s)) << bad;
}

TEST(ParseStation, ReadsBothStyles) {
    DisplaySettings s;
    EXPECT_DOUBLE_EQ(*parseStation("1+234.5", s), 1234.5);
    s.station = StationStyle::Hundreds;
    EXPECT_DOUBLE_EQ(*parseStation("12+34.5", s), 1234.5);
    EXPECT_DOUBLE_EQ(*parseStation("-0+12.25", s), -12.25);
    EXPECT_FALSE(parseStation("1+x", s));
}

TEST(ParseStation, ReadsBackWhatIsShown) {
    std::mt19937 random(11);
    std::uniform_real_distribution<double> any(0, 99999);
    DisplaySettings s;
    for (int i = 0; i < 300; ++i) {
        const double station = any(random);
        EXPECT_NEAR(*parseStation(formatStation(station, s), s), station, 0.00501);
    }
}

TEST(ParseNumber, KnowsDecimalCommas) {
    EXPECT_DOUBLE_EQ(*parseNumber("1,5", true), 1.5);
    EXPECT_FALSE(parseNumber("1.5", true));
    EXPECT_FALSE(parseNumber("1,5", false));
    EXPECT_FALSE(parseNumber("0x10", false));
    EXPECT_FALSE(parseNumber("12 3", false));
}

}  // namespace
}  // namespace erdwerk
