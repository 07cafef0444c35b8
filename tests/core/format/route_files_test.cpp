#include "core/format/route_files.h"

#include "core/format/landxml.h"
#include "core/format/open_alignment.h"
#include "support/geometry.h"

namespace erdwerk::format {
namespace {

using test::Folder;
using test::valueOf;
using testing::HasSubstr;

TEST(RouteFiles, PisByTheirColumns) {
    const auto pis =
        valueOf(parsePis("northing,easting,radius,spiralOut\r\n0,0,,\r\n0,100,40,8\r\n100,100,,\r\n", "p"));
    ASSERT_EQ(pis.size(), 3U);
    EXPECT_EQ(pis[1], (route::Pi{{100, 0}, 40, 0, 8}));
    const auto why = [](const char* text) { return parsePis(text, "p.csv").error().message(); };
    EXPECT_THAT(why("easting,radius\n1,2\n"),
                HasSubstr("p.csv:1: the first row names the columns, and these are missing: northing"));
    EXPECT_THAT(why("easting,northing\n1,2\nx,3\n"), HasSubstr("p.csv:3: 'x' is not a figure for easting"));
    EXPECT_THAT(why("easting,northing\n1,2\n\n3\n"), HasSubstr("p.csv:4: northing is missing"));
    EXPECT_THAT(why("easting,northing,radius\n1,2,0\n3,4,-5\n"), HasSubstr("p.csv:3: radius is below 0"));
    EXPECT_THAT(why("easting,northing,radius,spiralin\n1,2,,\n3,4,,6\n"),
                HasSubstr("p.csv:3: a spiral needs a radius"));
    EXPECT_THAT(why("easting,northing\n1,2\n"), HasSubstr("at least two PIs"));
    EXPECT_THAT(why("easting,northing\n1,2\nnan,3\n"), HasSubstr("p.csv:3"));
    EXPECT_FALSE(parsePis("", "p"));
    EXPECT_FALSE(parsePis(std::string_view("\0\0\1", 3), "p"));
}

TEST(RouteFiles, PvisByLengthAndByK) {
    const auto written =
        valueOf(parsePvis("\xEF\xBB\xBFstation,height,curve\n0+300,104,\n500,110,K20\n8+00,104,0\n", "d"));
    const auto line = route::alignmentOn({{{0, 0}, {900, 0}, {}}}, 0);
    const auto pvis = valueOf(pvisOn(line, written, "d"));
    EXPECT_NEAR(pvis[1].curveLength, 100, 1e-9);
    EXPECT_EQ(pvis[2].station, 800);
    const auto why = [&](const char* text) {
        const auto rows = parsePvis(text, "d.csv");
        if (!rows) return rows.error().message();
        return pvisOn(line, *rows, "d.csv").error().message();
    };
    EXPECT_THAT(why("station,height\n0,1\n0,2\n"),
                HasSubstr("d.csv:3: station 0 does not lie beyond the one before"));
    EXPECT_THAT(why("station,height\n0,1\n901,2\n"),
                HasSubstr("d.csv:3: station 901 is not on the alignment (0 to 900)"));
    EXPECT_THAT(why("station,height,curve\n0,1,20\n900,2,\n"),
                HasSubstr("d.csv:2: the first and the last PVI have no curve"));
    EXPECT_THAT(why("station,height,curve\n0,1,\n50,2,K0\n900,2,\n"), HasSubstr("d.csv:3: 'K0' is no curve"));
    EXPECT_THAT(why("station,height,curve\n0,1,\n50,2,-5\n900,2,\n"), HasSubstr("d.csv:3: '-5' is no curve"));
    EXPECT_THAT(why("station,height\n0,1\n50,\n"), HasSubstr("d.csv:3: height is missing"));
    EXPECT_THAT(why("station,height\n0,1\nfar,2\n"), HasSubstr("d.csv:3: 'far' is not a station"));
}

TEST(RouteFiles, CriteriaKeepTheirKeys) {
    const auto c = valueOf(parseCriteria(R"({"name":"Lanes","source":"made up","unit":"ft",
        "bySpeed":[{"speed":20,"minRadius":60},{"speed":30,"minSagK":4.5}],"maxGrade":12})",
                                         "c"));
    EXPECT_EQ(c.unit, LengthUnit::InternationalFoot);
    EXPECT_EQ(c.bySpeed[1].minSagK, 4.5);
    EXPECT_EQ(valueOf(parseCriteria(criteriaText(c), "again")), c);
    const auto why = [](const char* text) { return parseCriteria(text, "c.json").error().message(); };
    EXPECT_THAT(why(R"({"maxgrade":3})"), HasSubstr("'maxgrade' is no key of criteria"));
    EXPECT_THAT(why(R"({"unit":"yd"})"), HasSubstr("'unit' is m or ft, not yd"));
    EXPECT_THAT(why(R"({"bySpeed":[{"minRadius":3}]})"), HasSubstr("has no 'speed'"));
    EXPECT_THAT(why(R"({"bySpeed":[{"speed":30,"radius":3}]})"),
                HasSubstr("'radius' is no key of 'bySpeed'"));
    EXPECT_THAT(why(R"({"bySpeed":[{"speed":"fast"}]})"), HasSubstr("'speed' is not a number"));
    EXPECT_THAT(why(R"({"bySpeed":{}})"), HasSubstr("'bySpeed' is a list"));
    EXPECT_THAT(why(R"({"maxGrade":-1})"), HasSubstr("a limit must be above 0"));
    EXPECT_THAT(why("{\n\"maxGrade\":\n}"), HasSubstr("c.json:3: is no JSON from here on"));
    EXPECT_THAT(why("[]"), HasSubstr("criteria are an object with keys"));
}

TEST(RouteFiles, AlignmentsComeBackFromLandXmlToTheLastDigit) {
    LandXml out;
    const std::vector<route::Pi> pis{{{48000, 91000}},
                                     {{48200.5, 91050}, 80, 20, 30},
                                     {{48300, 90900}, 60},
                                     {{48500, 90950}, 70, 0, 25},
                                     {{48600, 91200}}};
    out.alignments.push_back({"Lane",
                              valueOf(route::Stationing::withEquations(2750, {{2800, 2850}})),
                              valueOf(route::pathOf(pis)),
                              {}});
    const Folder folder;
    ASSERT_TRUE(writeLandXml(folder / "a.xml", out, "test"));
    const auto back = valueOf(readLandXml(folder / "a.xml"));
    ASSERT_EQ(back.alignments.size(), 1U);
    const auto& a = back.alignments[0];
    EXPECT_EQ(a.stationing.start(), 2750);
    EXPECT_EQ(a.stationing.equations(), out.alignments[0].stationing.equations());
    ASSERT_EQ(a.path.size(), out.alignments[0].path.size());
    for (std::size_t i = 0; i < a.path.size(); ++i)
        for (const double t : {0.0, 0.3, 0.6, 1.0}) {
            const auto p = pointAt(out.alignments[0].path[i], t);
            EXPECT_THAT(pointAt(a.path[i], t), test::IsNear(p.x, p.y, 1e-9));
        }
    // The same through the file that is opened by name, turned round and started elsewhere.
    AlignmentOptions options;
    options.reverse = true;
    options.start = 100;
    const auto opened = valueOf(openAlignment({folder / "a.xml:Lane"}, options));
    EXPECT_EQ(opened.geometry.startStation, 100);
    EXPECT_THAT(opened.geometry.path.front().start, test::IsNear(48600, 91200, 1e-9));
    EXPECT_THAT(openAlignment({folder / "a.xml:Road"}).error().text,
                HasSubstr("no alignment named 'Road', but 'Lane'"));
    options.equations = {"9000=1"};
    EXPECT_THAT(openAlignment({folder / "a.xml"}, options).error().text, HasSubstr("does not reach 9000"));
}

}  // namespace
}  // namespace erdwerk::format
