// Alignments with elements of their own, as edits of a project.

#include "core/operations/routes.h"

#include "core/annotate/label.h"
#include "core/check/finding.h"
#include "core/derive/route_result.h"
#include "core/format/route_files.h"
#include "core/objects/alignment.h"
#include "core/objects/label.h"
#include "core/objects/line.h"
#include "core/objects/points.h"
#include "core/objects/profile.h"
#include "core/operations/labels.h"
#include "core/operations/records.h"
#include "core/operations/stationed_points.h"
#include "core/route/criteria.h"
#include "core/route/pi_figures.h"
#include "support/geometry.h"
#include "support/mended.h"

namespace erdwerk::operations {
namespace {

using test::IsNear;
using test::valueOf;
using testing::HasSubstr;

struct Road {
    Document document;
    ObjectId id;

    Road() {
        Alignment made;
        made.serves = "road";
        made.pis = {{{0, 0}}, {{100, 0}, 30}, {{200, 100}}, {{300, 100}}};
        apply(addAlignment({}, made));
        id = document.all<Alignment>().front();
    }
    void apply(const Edit& edit) { document = valueOf(edit(document)).document; }
    [[nodiscard]] std::string why(const Edit& edit) const {
        const auto done = edit(document);
        return done ? "done" : done.error().text;
    }
    [[nodiscard]] Results results() const {
        return std::make_shared<const Derived>(valueOf(derive::evaluate(document)));
    }
    [[nodiscard]] const std::vector<route::Pi>& pis() const { return *pisOf(document, id); }
    void type(std::size_t pi, PiFigure figure, const std::string& text) {
        apply(typePi(id, pi, figure, text));
    }
};

TEST(Routes, AreNamedAfterWhatTheyServe) {
    const Road road;
    EXPECT_EQ(road.document.nameOf(road.id), "Road 1");
    EXPECT_EQ(road.why(addAlignment({}, Alignment{})), "done");  // elements may come later
    Alignment bad;
    bad.pis = {{{0, 0}}, {{10, 0}, 500}, {{10, 10}}};
    EXPECT_THAT(road.why(addAlignment("x", bad)), HasSubstr("longer than its tangent"));
}

TEST(Routes, PisAreTypedInTheProjectsNotation) {
    Road road;
    road.type(1, PiFigure::Radius, "40");
    EXPECT_EQ(road.pis()[1].radius, 40);
    road.type(1, PiFigure::SpiralIn, "A 20");
    EXPECT_NEAR(road.pis()[1].spiralIn, 10, 1e-12);
    road.type(1, PiFigure::SpiralOut, "8");
    // A distance moves what comes after along.
    road.type(2, PiFigure::Distance, "100");
    const double h = 100 * std::sqrt(0.5);
    EXPECT_THAT(road.pis()[2].place, IsNear(100 + h, h, 1e-9));
    EXPECT_THAT(road.pis()[3].place, IsNear(200 + h, h, 1e-9));
    road.type(1, PiFigure::Bearing, "N 80 E");
    EXPECT_NEAR(geometry::azimuth({0, 0}, road.pis()[1].place).degrees(), 80, 1e-9);
    EXPECT_NEAR(geometry::distance({0, 0}, road.pis()[1].place), 100, 1e-9);
    road.type(1, PiFigure::Bearing, "90");
    EXPECT_THAT(road.pis()[1].place, IsNear(100, 0, 1e-9));
    road.type(3, PiFigure::Northing, "55.5");
    EXPECT_EQ(road.pis()[3].place.y, 55.5);
    road.type(1, PiFigure::Radius, "");
    EXPECT_EQ(road.pis()[1], (route::Pi{road.pis()[1].place}));
    const auto before = road.pis();
    EXPECT_THAT(road.why(typePi(road.id, 1, PiFigure::Radius, "wide")), HasSubstr("'wide' is no radius"));
    EXPECT_THAT(road.why(typePi(road.id, 1, PiFigure::SpiralIn, "9")), HasSubstr("needs a radius"));
    EXPECT_THAT(road.why(typePi(road.id, 1, PiFigure::SpiralIn, "A 9")), HasSubstr("needs a radius"));
    EXPECT_THAT(road.why(typePi(road.id, 0, PiFigure::Radius, "9")), HasSubstr("the ends of an alignment"));
    EXPECT_THAT(road.why(typePi(road.id, 0, PiFigure::Distance, "9")), HasSubstr("has none before it"));
    EXPECT_THAT(road.why(typePi(road.id, 2, PiFigure::Distance, "-4")), HasSubstr("'-4' is no distance"));
    EXPECT_THAT(road.why(typePi(road.id, 2, PiFigure::Bearing, "up")), HasSubstr("'up' is no direction"));
    EXPECT_THAT(road.why(typePi(road.id, 9, PiFigure::Radius, "9")), HasSubstr("that PI is gone"));
    EXPECT_EQ(road.pis(), before);
}

TEST(Routes, PisComeAndGo) {
    Road road;
    road.apply(insertPi(road.id, 2, {250, 140}));
    EXPECT_EQ(road.pis().size(), 5U);
    EXPECT_EQ(road.pis()[3].place, (geometry::Vec2{250, 140}));
    road.apply(removePi(road.id, 0));
    EXPECT_EQ(road.pis().front(), (route::Pi{{100, 0}}));  // an end has no curve
    road.apply(removePi(road.id, 3));
    road.apply(removePi(road.id, 2));
    EXPECT_THAT(road.why(removePi(road.id, 0)), HasSubstr("keeps its two ends"));
    EXPECT_THAT(road.why(insertPi(road.id, 7, {0, 0})), HasSubstr("gone"));
    EXPECT_THAT(road.why(insertPi(road.id, 1)), HasSubstr("no PI follows"));
    const auto ends = road.pis();
    road.apply(insertPi(road.id, 0));
    EXPECT_EQ(road.pis()[1].place, geometry::lerp(ends[0].place, ends[1].place, 0.5));
    road.apply(movePi(road.id, 1, road.pis()[1].place + geometry::Vec2{0, 40}));
    road.apply(typeBareRadius(road.id, "20"));
    EXPECT_EQ(road.pis()[1].radius, 20);
    EXPECT_THAT(road.why(typeBareRadius(road.id, "wide")), HasSubstr("'wide' is no radius"));
    EXPECT_THAT(road.why(typeBareRadius(road.id, "0")), HasSubstr("above 0"));
}

TEST(Routes, ALineIsLeftAndMadeAgain) {
    Road road;
    ObjectId line;
    road.document = road.document.added(
        "Edge", objects::Line{linework::lineThrough(test::places("0 0, 50 0, 80 40"), {}), {}}, &line);
    ObjectId follower;
    road.document = road.document.added("Follower", Alignment{line, true, 0, 20}, &follower);
    EXPECT_THAT(road.why(movePi(follower, 1, {1, 1})), HasSubstr("it follows the line 'Edge'"));
    road.apply(ownElements(road.results(), follower));
    // It ran against its line and still does.
    EXPECT_EQ(pisOf(road.document, follower)->front().place, (geometry::Vec2{80, 40}));
    EXPECT_THAT(road.why(ownElements(road.results(), follower)), HasSubstr("its own already"));
    road.type(1, PiFigure::SpiralIn, "6");
    const auto seen = road.results();
    road.apply(lineOfAlignment(seen, road.id));
    const ObjectId made = road.document.byName<objects::Line>("Road 1 1");
    ASSERT_TRUE(made);
    const auto now = road.results();
    const auto* resolved = Derived::in(now->lines, made);
    ASSERT_NE(resolved, nullptr);
    EXPECT_NEAR(geometry::lengthOf(resolved->path), seen->alignments.at(road.id)->length, 1e-3);
    EXPECT_TRUE(hasCurves(resolved->path));
}

TEST(Routes, LinesAreChainedAndTurned) {
    Road road;
    ObjectId a;
    ObjectId b;
    road.document =
        road.document.added("a", objects::Line{linework::lineThrough(test::places("0 0, 50 0"), {}), {}}, &a);
    road.document = road.document.added(
        "b", objects::Line{linework::lineThrough(test::places("90 30, 50.03 0"), {}), {}}, &b);
    EXPECT_THAT(road.why(alignmentFromLines(road.results(), {a, b})), HasSubstr("do not chain"));
    road.apply(alignmentFromLines(road.results(), {a, b}, {0.05, true, SourceLines::Hide}));
    const ObjectId id = road.document.all<Alignment>().back();
    EXPECT_EQ(road.document.nameOf(id), "a 1");
    EXPECT_EQ(pisOf(road.document, id)->front().place, (geometry::Vec2{90, 30}));
    EXPECT_TRUE(road.document.hidden(*road.document.find(a)));
}

TEST(Routes, AJointOutByALittleHasAFix) {
    Road road;
    auto path = valueOf(route::pathOf({{{0, 0}}, {{200, 0}, 80}, {{300, 150}}}));
    path[2].end = path[2].start +
                  geometry::directionOf(tangentAt(path[2], 0) + Angle::degrees(0.5)) * lengthOf(path[2]);
    Alignment drawn;
    drawn.elements = path;
    ObjectId id;
    road.document = road.document.added("Drawn", drawn, &id);
    const auto findings = check::run(*road.results());
    const auto found = std::find_if(findings.begin(), findings.end(), [](const auto& f) {
        return f.kind == "non-tangent" && f.text.find("'Drawn'") != std::string::npos;
    });
    ASSERT_NE(found, findings.end());
    ASSERT_EQ(found->fixes.size(), 2U);
    EXPECT_THAT(found->fixes[0].label, HasSubstr("by 0.7"));  // 80 times half a degree
    EXPECT_THAT(found->fixes[1].label, HasSubstr("curve of radius"));
    const Document curved = test::mended(found->fixes[1], road.document);
    EXPECT_TRUE(valueOf(derive::evaluate(curved)).alignments.at(id)->breaks.empty());
    road.document = test::mended(found->fixes[0], road.document);
    EXPECT_TRUE(road.results()->alignments.at(id)->breaks.empty());
    EXPECT_NE(pisOf(road.document, id), nullptr);  // now it can be changed by its PIs
}

TEST(Routes, CriteriaAndSpeedsByName) {
    Road road;
    road.apply(saveCriteria("Lanes", route::laneCriteria(), road.id));
    EXPECT_THAT(road.why(typeSpeeds(road.id, "quick")), HasSubstr("write speeds as"));
    road.apply(typeSpeeds(road.id, "50@0+000 30@0+200"));
    const DisplaySettings display;
    EXPECT_EQ(speedsText(*road.document.get<Alignment>(road.id), display), "50@0+000.00 30@0+200.00");
    auto seen = road.results();
    ASSERT_EQ(seen->designs.count(road.id), 1U);
    // R 30 is far below what 50 asks for, no spirals, a corner of 45 degrees.
    std::vector<std::string> kinds;
    for (const auto& f : seen->designs.at(road.id)->findings) kinds.emplace_back(faultName(f.fault));
    EXPECT_EQ(kinds, (std::vector<std::string>{"radius", "spiral", "spiral", "deflection"}));
    road.apply(typeSpeeds(road.id, "50@9+000"));
    EXPECT_THAT(road.results()->designs.at(road.id)->problem, HasSubstr("is not on it"));
    road.apply(typeSpeeds(road.id, "200@0+000"));
    EXPECT_THAT(road.results()->designs.at(road.id)->problem, HasSubstr("200 is beyond them"));
    // When the criteria go the alignment stays.
    const ObjectId criteria = road.document.all<objects::DesignCriteria>().front();
    road.apply([&](const Document& d) -> Result<Edited> { return document::removeAll(d, {criteria}); });
    EXPECT_FALSE(road.document.get<Alignment>(road.id)->criteria);
    EXPECT_TRUE(road.results()->designs.empty());
}

TEST(Routes, CriteriaForLanesAreTheirFormulas) {
    const auto c = route::laneCriteria();
    EXPECT_TRUE(route::validate(c));
    const auto& at50 = *valueOf(route::limitsAt(c, 50));
    // v = 13.889: v² = 192.9. R = 192.9 / (9.81 (0.03 + 0.16)) = 103.5; S = 27.78 + 28.37 = 56.14, K = 3152 /
    // (200 x 2.549) = 6.18; 192.9 / 30 = 6.43; 2679 / (0.6 x 104) = 42.9.
    EXPECT_EQ(at50.minRadius, 104);
    EXPECT_NEAR(*at50.minCrestK, 6.2, 1e-9);
    EXPECT_NEAR(*at50.minSagK, 6.5, 1e-9);
    EXPECT_NEAR(*at50.minSpiral, 43, 1e-9);
    for (std::size_t k = 1; k < c.bySpeed.size(); ++k)
        EXPECT_GT(*c.bySpeed[k].minRadius, *c.bySpeed[k - 1].minRadius);
    const auto limits = valueOf(route::parseLimits(30, route::limitsText(at50)));
    EXPECT_EQ(limits.minRadius, 104);
    EXPECT_EQ(limits.speed, 30);
    EXPECT_FALSE(route::parseLimits(30, "radius"));
    EXPECT_FALSE(route::parseLimits(30, "width 5"));
    EXPECT_FALSE(route::parseLimits(30, "radius -5"));
}

TEST(Routes, PviStationsAreTypedAsTheyAreRead) {
    Road road;
    road.apply(typeEquations(road.id, "0+050=0+100"));
    ObjectId profile;
    road.document = road.document.added(
        "Design", Profile{road.id, {}, {{0, 1, 0}, {30, 2, 0}, {200, 3, 0}}, 5}, &profile);
    road.apply(typePvi(profile, 1, PviFigure::Station, "0+120"));
    EXPECT_NEAR(road.document.get<Profile>(profile)->design[1].station, 70, 1e-9);
    EXPECT_THAT(road.why(typePvi(profile, 1, PviFigure::Station, "0+070")),
                HasSubstr("leaves that station out"));
}

TEST(Routes, AStartThatItsEquationsDoNotFitIsRefused) {
    Road road;
    road.apply(typeStart(road.id, "0+010"));
    road.apply(typeEquations(road.id, "0+050=0+100"));
    EXPECT_THAT(road.why(typeStart(road.id, "0+060")), HasSubstr("never reaches 50"));
    EXPECT_THAT(road.why(typeStart(road.id, "here")), HasSubstr("'here' is not a station"));
    EXPECT_EQ(road.document.get<Alignment>(road.id)->startStation, 10);
}

TEST(Routes, PisAreReadWhereTheirTangentsMeet) {
    Road road;
    for (const bool reversed : {false, true}) {
        if (reversed)
            road.apply([&](const Document& d) -> Result<Edited> {
                return document::changed<Alignment>(d, road.id, [](Alignment& a) { a.reversed = true; });
            });
        const auto seen = road.results();
        const auto& line = *seen->alignments.at(road.id);
        const auto figures = route::piFigures(road.pis(), line);
        ASSERT_EQ(figures.size(), 4U);
        // T = 30 tan 22.5°; the curve is shorter than its tangents by 2 T - 30 pi / 4.
        const double less = 2 * 30 * std::tan(M_PI / 8) - 30 * M_PI / 4;
        const double diagonal = 100 * std::sqrt(2.0);
        EXPECT_NEAR(*figures[0].distance, reversed ? line.length : 0, 1e-9);
        EXPECT_NEAR(*figures[1].distance, reversed ? 100 + diagonal : 100, 1e-9);
        EXPECT_NEAR(*figures[2].distance, reversed ? 100 : 100 + diagonal - less, 1e-9);
        EXPECT_NEAR(figures[2].distanceIn, diagonal, 1e-9);
        EXPECT_NEAR(figures[1].turn->degrees(), -45, 1e-9);
        EXPECT_FALSE(figures[0].azimuthIn);
        EXPECT_FALSE(figures[3].turn);
    }
}

TEST(Routes, PointsComeByStationAndOffset) {
    Road road;
    road.apply(typeEquations(road.id, "0+050=0+100"));
    const auto rows = valueOf(
        format::parseStationRows("name,station,offset,height,code\nA,0+020,3,5,X\nB,110,-2,,\n", "f"));
    road.apply(pointsByStation(road.results(), road.id, "Stakes", rows));
    const auto& set = road.document.get<objects::Points>(road.document.all<objects::Points>().front())->set;
    ASSERT_EQ(set.size(), 2U);
    EXPECT_THAT(set[0].plan, IsNear(20, -3, 1e-9));
    EXPECT_EQ(set[0].height, 5.0);
    EXPECT_THAT(set[1].plan, IsNear(60, 2, 1e-9));
    const auto gap = valueOf(format::parseStationRows("name,station,offset\nC,0+070,0\n", "f"));
    EXPECT_THAT(road.why(pointsByStation(road.results(), road.id, "x", gap)),
                HasSubstr("'C': station 0+070.00 is not on 'Road 1'"));
    EXPECT_THAT(road.why(pointsByStation(road.results(), road.id, "x", {})), HasSubstr("no rows"));
}

TEST(Routes, LabelsOfElementsGoAlongWithThem) {
    Road road;
    const auto change = [&](const Edit& edit) {
        road.document = valueOf(document::perform("x", edit, road.document)).document;
    };
    change(makeLabel(road.id, {}, 1));  // the arc
    change(makeLabel(road.id, {}, 2));  // the straight behind it
    const auto labels = road.document.all<objects::Label>();
    const auto said = [&](std::size_t k) {
        const auto derived = road.results();
        const auto* text = Derived::in(derived->labels, labels[k]);
        return text == nullptr ? std::string() : text->above() + " " + text->below();
    };
    EXPECT_THAT(said(0), HasSubstr("30.00"));
    const std::string straight = said(1);
    // A PI moves, the arc is another one; a PI more in front of it; the other way round.
    change(movePi(road.id, 1, {100, 10}));
    EXPECT_THAT(said(0), HasSubstr("30.00"));
    EXPECT_NE(said(1), straight);
    change(insertPi(road.id, 0, {40, -10}));
    EXPECT_THAT(said(0), HasSubstr("30.00"));
    EXPECT_EQ(road.document.get<objects::Label>(labels[0])->part, 2U);
    change(reverseAlignment(road.id));
    EXPECT_THAT(said(0), HasSubstr("30.00"));
    change(typePi(road.id, 2, PiFigure::Radius, "25"));
    EXPECT_THAT(said(0), HasSubstr("25.00"));
    // The arc goes, and its label with it; the straight's stays.
    change(typePi(road.id, 2, PiFigure::Radius, "0"));
    EXPECT_FALSE(road.document.find(labels[0]));
    EXPECT_TRUE(road.document.find(labels[1]));
    EXPECT_THAT(road.why(makeLabel(road.id, {}, 99)), HasSubstr("pick an element"));
}

}  // namespace
}  // namespace erdwerk::operations
