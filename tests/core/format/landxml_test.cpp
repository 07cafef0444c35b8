#include "core/format/landxml.h"

#include "core/derive/parcel_result.h"
#include "core/format/import.h"
#include "core/objects/points.h"
#include "demo_site/project.h"
#include "support/geometry.h"

namespace erdwerk::format {
namespace {

using test::Folder;
using test::valueOf;

TEST(LandXml, TheDemoComesBackTheSame) {
    const Folder folder;
    const auto derived = valueOf(derive::evaluate(demo::project(demo::survey(7))));
    const LandXml content = landXmlOf(derived);
    EXPECT_EQ(content.left.size(), 5U);  // lines, labels, sheets, markings, kept sections
    ASSERT_TRUE(writeLandXml(folder / "a.xml", content, "Quillmoor & <Observatory>"));
    const LandXml back = valueOf(readLandXml(folder / "a.xml"));
    ASSERT_EQ(back.points.size(), content.points.size());
    EXPECT_EQ(back.points[3].plan, content.points[3].plan);
    EXPECT_EQ(back.points[3].height, content.points[3].height);
    ASSERT_EQ(back.surfaces.size(), 2U);
    const auto& a = content.surfaces[0].tin;
    const auto& b = back.surfaces[0].tin;
    EXPECT_TRUE(
        std::equal(a.vertices().begin(), a.vertices().end(), b.vertices().begin(), b.vertices().end()));
    EXPECT_TRUE(std::equal(a.corners().begin(), a.corners().end(), b.corners().begin(), b.corners().end()));
    ASSERT_EQ(back.alignments.size(), 1U);
    EXPECT_NEAR(geometry::lengthOf(back.alignments[0].path), geometry::lengthOf(content.alignments[0].path),
                1e-6);
    EXPECT_EQ(back.alignments[0].profiles[0].design, content.alignments[0].profiles[0].design);
    ASSERT_EQ(back.parcels.size(), 1U);
    EXPECT_NEAR(std::abs(geometry::signedArea(back.parcels[0].path)),
                std::abs(geometry::signedArea(content.parcels[0].path)), 1e-6);
}

TEST(LandXml, GroundsAndCrossSectionsComeBack) {
    const Folder folder;
    const auto derived = valueOf(derive::evaluate(demo::project(demo::survey(7))));
    const auto content = landXmlOf(derived, {25, 8, 12});
    ASSERT_TRUE(writeLandXml(folder / "a.xml", content, "Q"));
    const auto back = valueOf(readLandXml(folder / "a.xml"));
    const auto& a = content.alignments[0];
    const auto& b = back.alignments[0];
    ASSERT_FALSE(a.grounds.empty());
    ASSERT_EQ(b.grounds.size(), a.grounds.size());
    for (std::size_t g = 0; g < a.grounds.size(); ++g) {
        EXPECT_EQ(b.grounds[g].name, a.grounds[g].name);
        EXPECT_EQ(b.grounds[g].places, a.grounds[g].places);
    }
    ASSERT_GT(a.sections.size(), 3U);
    ASSERT_EQ(b.sections.size(), a.sections.size());
    for (std::size_t k = 0; k < a.sections.size(); ++k) {
        EXPECT_EQ(b.sections[k].station, a.sections[k].station);
        ASSERT_EQ(b.sections[k].surfaces.size(), a.sections[k].surfaces.size());
        for (std::size_t s = 0; s < a.sections[k].surfaces.size(); ++s) {
            EXPECT_EQ(b.sections[k].surfaces[s].name, a.sections[k].surfaces[s].name);
            EXPECT_EQ(b.sections[k].surfaces[s].places, a.sections[k].surfaces[s].places);
        }
    }
    // An odd figure is said with its line.
    std::ofstream(folder / "b.xml")
        << "<LandXML><Units><Metric linearUnit='meter'/></Units><Alignments><Alignment name='x' "
           "staStart='0'>\n"
           "<CoordGeom><Line><Start>0 0</Start><End>0 9</End></Line></CoordGeom>\n"
           "<Profile><ProfSurf name='g'><PntList2D>0 1 5</PntList2D></ProfSurf></Profile>"
           "</Alignment></Alignments></LandXML>";
    const auto bad = readLandXml(folder / "b.xml");
    ASSERT_FALSE(bad);
    EXPECT_THAT(bad.error().message(), testing::HasSubstr("b.xml:3"));
}

TEST(LandXml, ImportMakesObjectsOfAll) {
    const Folder folder;
    const auto derived = valueOf(derive::evaluate(demo::project(demo::survey(7))));
    ASSERT_TRUE(writeLandXml(folder / "a.xml", landXmlOf(derived), "Q"));
    const auto imported = valueOf(importFile({}, folder / "a.xml", {}));
    // Grounds and cross-sections make no objects, and that is said.
    EXPECT_EQ(imported.left.size(), 2U);
    EXPECT_EQ(imported.document.all<objects::Surface>().size(), 2U);
    EXPECT_EQ(imported.document.all<objects::Alignment>().size(), 1U);
    EXPECT_EQ(imported.document.all<objects::Profile>().size(), 1U);
    EXPECT_EQ(imported.document.all<objects::Parcel>().size(), 1U);
    const auto again = valueOf(derive::evaluate(imported.document));
    EXPECT_NEAR(again.parcels.begin()->second->geometry.area, derived.parcels.begin()->second->geometry.area,
                1e-6);
}

TEST(LandXml, BreaklinesAndBoundariesComeBack) {
    const Folder folder;
    LandXml content;
    XmlSurface surface{
        "G",
        terrain::Tin(test::places3("0 0 1, 40 0 2, 0 40 3"), {0, 1, 2}),
        {{"Crest", test::places3("1 2 3, 4 5 6, 7 8 9"), false, objects::Role::Breakline, true},
         {"Rim", test::places3("0 0 0, 9 0 0, 9 9 0"), true, objects::Role::Edge, false},
         {"Pond", test::places3("1 1 5, 2 1 5, 2 2 5"), true, objects::Role::Opening, true}}};
    content.surfaces.push_back(surface);
    ASSERT_TRUE(writeLandXml(folder / "a.xml", content, "Q"));
    const LandXml back = valueOf(readLandXml(folder / "a.xml"));
    ASSERT_EQ(back.surfaces.size(), 1U);
    ASSERT_EQ(back.surfaces[0].lines.size(), 3U);  // boundaries first, as the schema has it
    const auto& lines = back.surfaces[0].lines;
    EXPECT_EQ(lines[0].name, "Rim");
    EXPECT_EQ(lines[0].role, objects::Role::Edge);
    EXPECT_FALSE(lines[0].withHeights);
    EXPECT_EQ(lines[1].role, objects::Role::Opening);
    EXPECT_EQ(lines[1].places, surface.lines[2].places);
    EXPECT_EQ(lines[2].places, surface.lines[0].places);
    EXPECT_FALSE(lines[2].closed);
    const auto imported = valueOf(importFile({}, folder / "a.xml", {}));
    EXPECT_EQ(imported.lines, 3U);
    EXPECT_TRUE(imported.document.byName<objects::Group>("Lines of G"));
}

TEST(LandXml, NamesFileAndLineOfWhatIsWrong) {
    const Folder folder;
    const std::string head =
        "<?xml version=\"1.0\"?>\n<LandXML xmlns=\"http://www.landxml.org/schema/LandXML-1.2\" "
        "version=\"1.2\">\n";
    const auto error = [&](const std::string& text) {
        const auto r = readLandXml(folder.file("b.xml", text));
        EXPECT_FALSE(r) << text;
        return r ? Error{} : r.error();
    };
    EXPECT_EQ(error("<a").line, 1);
    EXPECT_EQ(error("<a/>").text, "is not a LandXML file");
    EXPECT_FALSE(error("").text.empty());
    auto e = error(head + "<CgPoints>\n<CgPoint name=\"1\">1 x</CgPoint></CgPoints></LandXML>");
    EXPECT_EQ(e.line, 4);
    EXPECT_THAT(e.text, testing::HasSubstr("'x' is not a number"));
    e = error(head +
              "<Surfaces><Surface name=\"s\"><Definition><Pnts><P id=\"1\">0 0 0</P></Pnts><Faces>\n<F>1 2 "
              "3</F></Faces></Definition></Surface></Surfaces></LandXML>");
    EXPECT_EQ(e.line, 4);
    EXPECT_THAT(e.text, testing::HasSubstr("names point 2"));
    EXPECT_FALSE(
        error(head + "<CgPoints><CgPoint name=\"1\">nan 3 4</CgPoint></CgPoints></LandXML>").text.empty());
}

TEST(LandXml, ConvertsUnitsOnImport) {
    const Folder folder;
    LandXml feet;
    feet.unit = LengthUnit::InternationalFoot;
    feet.points.push_back({"1", {1000, 2000}, 10.0, "", ""});
    ASSERT_TRUE(writeLandXml(folder / "ft.xml", feet, "f"));
    const auto imported = valueOf(importFile({}, folder / "ft.xml", {}));
    const auto& p =
        imported.document.get<objects::Points>(imported.document.all<objects::Points>()[0])->set[0];
    EXPECT_NEAR(p.plan.x, 304.8, 1e-9);
    EXPECT_NEAR(*p.height, 3.048, 1e-12);
}

}  // namespace
}  // namespace erdwerk::format
