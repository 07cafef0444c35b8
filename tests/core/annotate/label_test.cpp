#include "core/annotate/label.h"

#include <random>

#include "core/annotate/style_text.h"
#include "core/geometry/inside.h"
#include "support/geometry.h"

namespace erdwerk::annotate {
namespace {

using geometry::Vec2;
using test::valueOf;
using testing::HasSubstr;

const DisplaySettings display;
const std::string noWords;

/// Texts of the lines of a label, with a bar between.
std::string said(const LabelText& label) {
    std::string out;
    for (const auto& line : label.lines) out += (out.empty() ? "" : " | ") + line.text;
    return out;
}

LabelText side(const geometry::Segment& segment, const LabelStyle& style, std::optional<double> from = {},
               std::optional<double> to = {}) {
    return labelSegment(segment, {style, display, noWords}, from, to);
}

/// A style of one line, as it is typed.
LabelStyle typed(LabelKind kind, const std::string& line) {
    return {kind, {valueOf(parseStyleLine(line, kind, {}))}};
}

const geometry::Segment eastNorth{{0, 0}, {30, 40}, {}};

TEST(Label, OfASideHasBearingAboveAndDistanceBelow) {
    const auto label = side(eastNorth, defaultStyle(LabelKind::Segment));
    EXPECT_EQ(label.above(), "N 36°52'12\" E");
    EXPECT_EQ(label.below(), "50.00");
    EXPECT_THAT(label.place, test::IsNear(15, 20, 1e-12));
    EXPECT_FALSE(label.against);
    // The other way the text is read from the end.
    EXPECT_TRUE(side({{30, 40}, {0, 0}, {}}, defaultStyle(LabelKind::Segment)).against);
}

TEST(Label, OfACurveHasItsFigures) {
    // A quarter of a circle of radius 10: arc 5 pi, chord 10 sqrt 2, tangent 10.
    const geometry::Segment quarter{{0, 10}, {10, 0}, Vec2{10 * std::sqrt(0.5), 10 * std::sqrt(0.5)}};
    const auto label = side(quarter, defaultStyle(LabelKind::Curve));
    EXPECT_EQ(label.above(), "R 10.00  Δ 90°00'00\"");
    EXPECT_EQ(label.below(), "L 15.71  C 14.14");
    EXPECT_EQ(said(side(quarter, typed(LabelKind::Curve, "T {tangent:3}  {chord direction:0}"))),
              "T 10.000  S 45°00'00\" E");
}

TEST(Label, HasGradeRatioAndRiseWhereHeightsAreKnown) {
    // 2.5 up over 50.
    const auto style = typed(LabelKind::Segment, "{grade:1}  {ratio}  {rise}");
    EXPECT_EQ(said(side(eastNorth, style, 10, 12.5)), "5.0%  20:1  +2.50");
    EXPECT_EQ(said(side(eastNorth, style, 12.5, 10)), "-5.0%  -20:1  -2.50");
    EXPECT_EQ(said(side(eastNorth, style, 10, std::nullopt)), "");
}

TEST(Label, FiguresAreWrittenAsTheStyleSays) {
    // Azimuth of (1, 11): atan(1/11) = 5°11'40" (5.19443°).
    const geometry::Segment s{{0, 0}, {0.05, 0.55}, {}};
    const auto is = [&](const std::string& line) { return said(side(s, typed(LabelKind::Segment, line))); };
    EXPECT_EQ(is("{distance}"), "0.55");
    EXPECT_EQ(is("{distance:3 bare} m"), ".552 m");
    EXPECT_EQ(is("{direction:0}"), "N 05°11'40\" E");
    EXPECT_EQ(is("{direction:0 bare}"), "N 5°11'40\" E");
    EXPECT_EQ(is("{direction:0 minutes}"), "N 05°12' E");
    EXPECT_EQ(is("{direction:1 degrees}"), "N 05.2° E");
    DisplaySettings azimuths;
    azimuths.direction = DirectionStyle::Azimuth;
    const auto style = typed(LabelKind::Segment, "{direction:0}");
    EXPECT_EQ(said(labelSegment(s, {style, azimuths, noWords})), "005°11'40\"");
    // Just short of north rounds to north, never to 360.
    EXPECT_EQ(said(labelSegment({{0, 0}, {-1e-9, 1}, {}}, {style, azimuths, noWords})), "000°00'00\"");
}

TEST(Label, OfAPointFollowsTheCoordinateOrder) {
    const survey::SurveyPoint p{"17", {48000.1234, 91000.5}, 312.345, "GRND", "by the gate"};
    const auto style = defaultStyle(LabelKind::Point);
    DisplaySettings d;
    EXPECT_EQ(labelPoint(p, {style, d, noWords}).below(), "E 48000.123  N 91000.500  H 312.35");
    d.order = CoordinateOrder::NorthingEasting;
    EXPECT_EQ(labelPoint(p, {style, d, noWords}).below(), "N 91000.500  E 48000.123  H 312.35");
    EXPECT_THAT(labelPoint({"1", {0, 0}, {}, "", ""}, {style, d, noWords}).below(), HasSubstr("no height"));
    EXPECT_EQ(said(labelPoint(p, {typed(LabelKind::Point, "{code}: {note}"), d, noWords})),
              "GRND  : by the gate");
}

TEST(Label, OfAStationSaysWhereItIs) {
    const auto style = defaultStyle(LabelKind::Station);
    const auto at = [&](double offset) {
        return said(labelStation({5, 6}, {1234.5, offset, Angle::degrees(90)}, {style, display, noWords}));
    };
    EXPECT_EQ(at(0), "1+234.50");
    EXPECT_EQ(at(3.5), "1+234.50 | 3.50 right");
    EXPECT_EQ(at(-0.25), "1+234.50 | 0.25 left");
}

TEST(Label, OfTheGroundSaysHeightAndWhichWayItFalls) {
    // Rises by 0.03 to the east and 0.04 to the north: 5 per cent, falling to 216.87 degrees.
    const auto style = typed(LabelKind::Slope, "{grade:2}  {ratio}  {direction:0}");
    const auto label = labelPlace({1, 2}, 300, {0.03, 0.04}, {style, display, noWords});
    EXPECT_EQ(said(label), "5.00%  20:1  S 36°52'12\" W");
    ASSERT_TRUE(label.fall);
    EXPECT_NEAR(label.fall->degrees(), 216.8698976, 1e-6);
    EXPECT_EQ(said(labelPlace({1, 2}, 300.126, {}, {defaultStyle(LabelKind::Spot), display, noWords})),
              "300.13");
    EXPECT_EQ(said(labelPlace({1, 2}, 300, {}, {style, display, noWords})), "level  level");
}

TEST(Label, OfAParcelAndOfAControl) {
    const auto area = typed(LabelKind::Area, "{name}  {area:1}  {hectares or acres:4}");
    EXPECT_EQ(said(labelArea({0, 0}, {"Plot", 12345.67, 500}, {area, display, noWords})),
              "Plot  12345.7 m²  1.2346 ha");
    DisplaySettings feet;
    feet.unit = LengthUnit::InternationalFoot;
    // An acre is 43 560 square feet.
    EXPECT_EQ(said(labelArea({0, 0}, {"Plot", 87120, 500}, {area, feet, noWords})),
              "Plot  87120.0 sq ft  2.0000 acres");
    const auto control = typed(LabelKind::Control, "{height:3}  {grade:1}  {ratio}");
    EXPECT_EQ(
        said(labelControl({0, 0}, {"Kerb", 101.5, Grade::percent(-2), 35}, {control, display, noWords})),
        "101.500  -2.0%  -50:1");
    EXPECT_EQ(said(labelControl({0, 0}, {"Kerb", {}, {}, 35}, {control, display, noWords})), "no height");
}

TEST(Label, WordsByHandKeepTheirFieldsLive) {
    const auto style = typed(LabelKind::Segment, "{distance:1}");
    const auto with = [&](const std::string& words) {
        return said(labelSegment(eastNorth, {style, display, words}));
    };
    EXPECT_EQ(with("Wall {distance} m"), "Wall 50.0 m");  // as its style writes it
    EXPECT_EQ(with("{direction}\nalong the wall"), "N 36°52'11.63\" E | along the wall");
    EXPECT_TRUE(checkWords("plain", LabelKind::Segment));
    EXPECT_THAT(checkWords("{radius}", LabelKind::Segment).error().text, HasSubstr("there are direction"));
    EXPECT_FALSE(checkWords("{distance", LabelKind::Segment));
}

TEST(Style, TypedLinesComeBackTheSame) {
    for (const auto kind : allLabelKinds()) {
        for (const auto& line : defaultStyle(kind).lines)
            EXPECT_EQ(valueOf(parseStyleLine(styleLineText(line), kind, line)), line) << styleLineText(line);
        for (const Field f : fieldsOf(kind)) {
            const StyleLine line{{{f, "a ", " b", 4, false, Seconds::Minutes}, {f, "c", ""}}};
            EXPECT_EQ(valueOf(parseStyleLine(styleLineText(line), kind, line)), line);
        }
        EXPECT_TRUE(validate(defaultStyle(kind)));
    }
}

TEST(Style, WhatCannotBeReadIsSaid) {
    const auto why = [](const std::string& text) {
        const auto read = parseStyleLine(text, LabelKind::Segment, {});
        return read ? std::string("read") : read.error().text;
    };
    EXPECT_THAT(why("{radius}"), HasSubstr("no field 'radius' here; there are direction, distance"));
    EXPECT_THAT(why("{distance"), HasSubstr("not closed"));
    EXPECT_THAT(why("{distance:many}"), HasSubstr("'many' is not understood"));
    EXPECT_THAT(why("nothing"), HasSubstr("a line holds a field"));
    EXPECT_EQ(valueOf(parseStyleLine("", LabelKind::Segment, {})).fields.size(), 0U);
}

TEST(Style, WhatIsNotValidIsSaid) {
    const auto why = [](auto change) {
        auto style = defaultStyle(LabelKind::Segment);
        change(style);
        const auto valid = validate(style);
        return valid ? std::string() : valid.error().text;
    };
    EXPECT_THAT(why([](LabelStyle& s) { s.height = 0.4; }), HasSubstr("0.5 to 50 mm"));
    EXPECT_THAT(why([](LabelStyle& s) { s.height = NAN; }), HasSubstr("0.5 to 50 mm"));
    EXPECT_THAT(why([](LabelStyle& s) { s.lines[0].gap = -1; }), HasSubstr("0 to 100 mm"));
    EXPECT_THAT(why([](LabelStyle& s) { s.lines[0].along = 1.5; }), HasSubstr("0 to 1"));
    EXPECT_THAT(why([](LabelStyle& s) { s.lines[0].fields[0].decimals = 10; }), HasSubstr("0 to 9"));
    EXPECT_THAT(why([](LabelStyle& s) { s.lines[0].fields[0].field = Field::Radius; }),
                HasSubstr("'radius'"));
    EXPECT_THAT(why([](LabelStyle& s) { s.lines.clear(); }), HasSubstr("needs a field"));
}

TEST(Upright, TextReadsFromTheLeftOrFromBelow) {
    EXPECT_NEAR(upright(Angle::degrees(90)).degrees(), 90, 1e-9);
    EXPECT_NEAR(upright(Angle::degrees(270)).degrees(), 90, 1e-9);
    EXPECT_NEAR(upright(Angle::degrees(30)).degrees(), 30, 1e-9);
    EXPECT_NEAR(upright(Angle::degrees(200)).degrees(), 20, 1e-9);
    // Nearly upright: from below, as a plan is turned.
    EXPECT_NEAR(upright(Angle::degrees(180)).degrees(), 0, 1e-9);
    EXPECT_NEAR(upright(Angle::degrees(172.5)).degrees(), 352.5, 1e-9);
    EXPECT_NEAR(upright(Angle::degrees(352.5)).degrees(), 352.5, 1e-9);
    EXPECT_NEAR(upright(Angle::degrees(168)).degrees(), 168, 1e-9);
}

TEST(PlaceInside, LiesInsideWhateverTheShape) {
    const auto u = test::places("0 0, 100 0, 100 80, 80 80, 80 20, 20 20, 20 80, 0 80");
    EXPECT_EQ(geometry::sideOf(u, geometry::placeInside(u)), geometry::Side::Inside);
    for (unsigned seed = 0; seed < 300; ++seed) {
        SCOPED_TRACE(seed);
        std::mt19937 random(seed);
        std::uniform_real_distribution<double> far(5, 100);
        // A star about its middle: its rim is at one distance or another in each direction.
        std::vector<Vec2> star;
        for (int i = 0; i < 24; ++i) {
            const double r = far(random);
            star.push_back({r * std::cos(i * M_PI / 12), r * std::sin(i * M_PI / 12)});
        }
        EXPECT_EQ(geometry::sideOf(star, geometry::placeInside(star)), geometry::Side::Inside);
    }
}

}  // namespace
}  // namespace erdwerk::annotate
