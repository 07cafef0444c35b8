#include "core/route/design.h"

#include "core/route/criteria.h"
#include "support/geometry.h"

namespace erdwerk::route {
namespace {

using test::valueOf;

/// +3 % to -2 % over 100: falls and rises as textbooks have it. PVI at 500, height 110.
const std::vector<Pvi> crest{{300, 104, 0}, {500, 110, 100}, {800, 104, 0}};

AlignmentGeometry east(double length, double start = 0) {
    return alignmentOn({{{0, 0}, {length, 0}, {}}}, start);
}

TEST(Design, HighPointIsWhereTheGradeIsNought) {
    // x = L g1 / (g1 - g2) = 100 * 3 / 5 = 60 from the curve's start at 450; y = 108.5 + 0.03 * 60 - 0.05 *
    // 60² / 200.
    const auto high = highLowAt(crest, 1);
    ASSERT_TRUE(high);
    EXPECT_NEAR(high->station, 510, 1e-9);
    EXPECT_NEAR(high->height, 108.5 + 1.8 - 0.05 * 3600 / 200, 1e-9);
    EXPECT_NEAR(designAt(crest, 510)->grade.percent(), 0, 1e-12);
    EXPECT_FALSE(highLowAt(crest, 0));
    EXPECT_FALSE(highLowAt({{0, 0, 0}, {100, 1, 50}, {200, 4, 0}}, 1));
}

TEST(Design, CurvesByKAndThroughAPlace) {
    EXPECT_NEAR(*curveLengthByK(crest, 1, 20), 100, 1e-9);
    EXPECT_FALSE(curveLengthByK(crest, 0, 20));
    std::mt19937 random(3);
    std::uniform_real_distribution<double> unit(0, 1);
    for (int i = 0; i < 200; ++i) {
        std::vector<Pvi> pvis{
            {0, 10 * unit(random), 0}, {200, 10 * unit(random), 0}, {450, 10 * unit(random), 0}};
        auto curved = pvis;
        curved[1].curveLength = 40 + 300 * unit(random);
        const double half = curved[1].curveLength / 2;
        const double s = 200 + (1.8 * unit(random) - 0.9) * half;
        const auto length = curveLengthThrough(pvis, 1, s, designAt(curved, s)->height);
        ASSERT_TRUE(length);
        EXPECT_NEAR(*length, curved[1].curveLength, 1e-6);
    }
    EXPECT_FALSE(curveLengthThrough(crest, 1, 500, 111));  // above a crest's tangents
}

TEST(Design, OverlappingCurvesAreToldWithTheirLength) {
    const auto found = overlaps({{0, 0, 0}, {100, 5, 120}, {200, 0, 110}, {400, 9, 0}});
    ASSERT_EQ(found.size(), 1U);
    EXPECT_EQ(found[0].pvi, 2U);
    EXPECT_DOUBLE_EQ(found[0].length, 15);
    EXPECT_EQ(overlaps({{0, 0, 0}, {50, 5, 120}, {400, 9, 0}}).size(), 1U);
}

TEST(Design, IsWrittenOutAtWhatIsReadAndWhereItTurns) {
    const auto line =
        alignmentOn({{{0, 0}, {600, 0}, {}}}, valueOf(Stationing::withEquations(250, {{430, 470}})));
    const auto stations = designStations(line, crest, 100);
    // Read multiples are 300, 400 | 500 (at 460 running), 600 .. ; the curve from 450 to 550, its top at 510.
    EXPECT_EQ(stations, (std::vector<double>{300, 400, 450, 460, 500, 510, 550, 560, 660, 760, 800}));
}

TEST(Design, LooseLinesAcrossTheAxisGiveItsGround) {
    const double r = 50;
    // East 100, a quarter to the south.
    const auto axis =
        alignmentOn({{{0, 0}, {100, 0}, {}}, geometry::arcByRadius({100, 0}, {150, -50}, r, true)}, 0);
    const auto level = [](double h) { return [h](double) { return std::optional(h); }; };
    std::vector<AcrossLine> lines;
    lines.push_back({{{{40, -10}, {40, 30}, {}}}, [](double d) { return std::optional(100 + d); }});
    lines.push_back({{{{100, -50}, {200, 50}, {}}}, level(7)});  // at 45 degrees of the arc
    lines.push_back({{{{70, 20}, {70, 0}, {}}, {{70, 0}, {90, -20}, {}}}, level(5)});  // a corner on the axis
    lines.push_back({{{{10, 5}, {90, 5}, {}}}, level(1)});                             // never meets it
    lines.push_back({{{{80, -5}, {80, 5}, {}}}, [](double) { return std::optional<double>{}; }});
    const auto found = profileAcross(axis, lines);
    ASSERT_EQ(found.size(), 4U);
    EXPECT_NEAR(found[0].station, 40, 1e-12);
    EXPECT_NEAR(*found[0].height, 110, 1e-12);
    EXPECT_NEAR(found[1].station, 70, 1e-12);
    EXPECT_FALSE(found[2].height);
    EXPECT_NEAR(found[3].station, 100 + r * M_PI / 4, 1e-9);
    EXPECT_EQ(found[3].height, 7.0);
}

Criteria someCriteria() {
    Criteria c;
    c.bySpeed = {{30, 25, 10, 4, 5}, {50, 80, 30, 14, 12}};
    c.maxGrade = 8;
    c.minGrade = 0.5;
    c.minCurveLength = 20;
    c.minTangent = 15;
    c.maxDeflection = 1;
    return c;
}

std::vector<std::string> kinds(const std::vector<DesignFinding>& findings) {
    std::vector<std::string> out;
    for (const auto& f : findings) out.emplace_back(faultName(f.fault));
    return out;
}

TEST(Criteria, FindWhatAPlanBreaks) {
    // Straight 100, an arc of 60 without spirals, straight 10, an arc of 100 with 30 m spirals, a bare
    // corner.
    const Path path{{{0, 0}, {100, 0}, {}},
                    geometry::arcByRadius({100, 0}, {160, -60}, 60, true),
                    {{160, -60}, {160, -70}, {}}};
    auto all = path;
    all.push_back(geometry::clothoidFrom({160, -70}, Angle::degrees(180), {0, -0.01, 30}));
    all.push_back(
        {all.back().end, all.back().end + geometry::directionOf(tangentAt(all.back(), 1)) * 0.0, {}});
    all.pop_back();
    const Angle out = tangentAt(all.back(), 1);
    const auto arc = geometry::tangentArc(
        all.back().end, out, all.back().end + geometry::directionOf(out - Angle::degrees(10)) * 34);
    all.push_back(arc);
    const auto line = alignmentOn(all, 0);
    const double r = arcOf(arc)->radius;
    auto criteria = someCriteria();
    // Without speeds: the straight between the curves alone, and the arc that does not fit its spiral is
    // tangent.
    EXPECT_EQ(kinds(valueOf(checkDesign(line, {}, criteria, {}))),
              (std::vector<std::string>{"tangent-length"}));
    // 50: R 60 < 80; spirals of none at both ends of the first arc; 30 m is enough.
    const auto found = valueOf(checkDesign(line, {}, criteria, {{0, 50}}));
    EXPECT_EQ(kinds(found), (std::vector<std::string>{"radius", "spiral", "spiral", "tangent-length"}));
    EXPECT_NEAR(found[0].value, 60, 1e-9);
    EXPECT_EQ(found[0].limit, 80);
    EXPECT_NEAR(found[0].from, 100, 1e-9);
    EXPECT_NEAR(found[0].to, 100 + 30 * M_PI, 1e-9);
    EXPECT_EQ(found[1].value, 0);
    EXPECT_NEAR(found[2].from, 100 + 30 * M_PI, 1e-9);
    EXPECT_NEAR(found[3].value, 10, 1e-9);
    EXPECT_GT(r, 80);
    // Between two speeds the higher counts; beyond all of them is an error.
    EXPECT_EQ(kinds(valueOf(checkDesign(line, {}, criteria, {{0, 31}}))).size(), 4U);
    EXPECT_EQ(kinds(valueOf(checkDesign(line, {}, criteria, {{0, 30}}))).size(), 3U);
    EXPECT_THAT(checkDesign(line, {}, criteria, {{0, 60}}).error().text,
                testing::HasSubstr("60 is beyond them"));
    // From the middle of the arc on it is slower: only the first part is too sharp.
    const auto half = valueOf(checkDesign(line, {}, criteria, {{0, 50}, {140, 30}}));
    EXPECT_EQ(half[0].fault, DesignFault::Radius);
    EXPECT_NEAR(half[0].to, 140, 1e-9);
}

TEST(Criteria, FindJointsThatTurn) {
    const auto turn = [](double degrees) { return geometry::directionOf(Angle::degrees(90 + degrees)) * 50; };
    auto criteria = someCriteria();
    EXPECT_TRUE(
        valueOf(checkDesign(alignmentOn({{{0, 0}, {50, 0}, {}}, {{50, 0}, Vec2{50, 0} + turn(0.9), {}}}, 0),
                            {}, criteria, {}))
            .empty());
    const auto corner = valueOf(checkDesign(
        alignmentOn({{{0, 0}, {50, 0}, {}}, {{50, 0}, Vec2{50, 0} + turn(-3), {}}}, 0), {}, criteria, {}));
    ASSERT_EQ(kinds(corner), (std::vector<std::string>{"deflection"}));
    EXPECT_NEAR(corner[0].value, 3, 1e-9);
    criteria.maxDeflection.reset();
    criteria.minCurveLength.reset();
    const auto arc = geometry::tangentArc({50, 0}, Angle::degrees(90.5), {90, -20});
    EXPECT_EQ(kinds(valueOf(checkDesign(alignmentOn({{{0, 0}, {50, 0}, {}}, arc}, 0), {}, criteria, {}))),
              (std::vector<std::string>{"not-tangent"}));
}

TEST(Criteria, FindWhatAProfileBreaks) {
    // 10 %, crest of K = 60 / 9.7 %, 0.3 %, a sag without a curve to 4 %.
    const std::vector<Pvi> pvis{{1000, 0, 0}, {1100, 10, 60}, {1300, 10.6, 0}, {1400, 14.6, 0}};
    const auto line = east(400, 1000);
    const auto found = valueOf(checkDesign(line, pvis, someCriteria(), {{0, 50}}));
    EXPECT_EQ(kinds(found), (std::vector<std::string>{"grade", "crest", "grade", "sag"}));
    EXPECT_NEAR(found[0].value, 10, 1e-9);
    EXPECT_NEAR(found[0].to, 70, 1e-9);
    EXPECT_NEAR(found[1].value, 60 / 9.7, 1e-9);
    EXPECT_NEAR(found[1].from, 70, 1e-9);
    EXPECT_NEAR(found[2].value, 0.3, 1e-9);
    EXPECT_EQ(found[2].limit, 0.5);
    EXPECT_EQ(found[3].value, 0);
    EXPECT_NEAR(found[3].from, 300, 1e-9);
    // The crest holds at 30.
    EXPECT_EQ(kinds(valueOf(checkDesign(line, pvis, someCriteria(), {{0, 30}}))),
              (std::vector<std::string>{"grade", "grade", "sag"}));
}

TEST(Criteria, AreConvertedToTheAlignmentsUnit) {
    const auto feet = inUnit(someCriteria(), LengthUnit::InternationalFoot);
    EXPECT_NEAR(*feet.bySpeed[0].minRadius, 25 / 0.3048, 1e-9);
    EXPECT_NEAR(*feet.bySpeed[0].minCrestK, 4 / 0.3048, 1e-9);
    EXPECT_NEAR(*feet.minTangent, 15 / 0.3048, 1e-9);
    EXPECT_EQ(*feet.maxGrade, 8);
}

TEST(Criteria, MustBeOfOnePiece) {
    auto c = someCriteria();
    c.bySpeed[1].speed = 30;
    EXPECT_EQ(validate(c).error().text, "speeds must rise: 30 after 30");
    c = someCriteria();
    c.bySpeed[0].minRadius = 0;
    EXPECT_FALSE(validate(c));
    c = someCriteria();
    c.minGrade = 9;
    EXPECT_EQ(validate(c).error().text, "the steepest grade is less than the flattest");
}

}  // namespace
}  // namespace erdwerk::route
