#include "core/format/import.h"

#include <algorithm>
#include <atomic>
#include <string>
#include <vector>

#include "core/derive/surface_result.h"
#include "core/document/transaction.h"
#include "core/format/export.h"
#include "core/format/ply.h"
#include "core/format/project_file.h"
#include "core/linework/line3d.h"
#include "core/objects/line.h"
#include "demo_site/project.h"
#include "support/geometry.h"

namespace erdwerk::format {
namespace {

using document::Document;
using test::Folder;
using test::valueOf;

TEST(Import, ReadsEveryFormatByItsEnding) {
    const Folder folder;
    const auto derived = valueOf(derive::evaluate(demo::project(demo::survey(7))));
    for (const char* name : {"a.erdwerk", "a.xml", "a.gpkg", "a.geojson", "a.csv"})
        ASSERT_TRUE(exportFile(folder / name, derived)) << name;
    EXPECT_EQ(valueOf(importFile({}, folder / "a.erdwerk", {})).document.objects().size(),
              derived.document.objects().size());
    EXPECT_EQ(valueOf(importFile({}, folder / "a.csv", {})).points, 591U);
    EXPECT_EQ(valueOf(importFile({}, folder / "a.geojson", {})).lines, 14U);
    EXPECT_GT(valueOf(importFile({}, folder / "a.gpkg", {})).points, 500U);
    EXPECT_EQ(valueOf(importFile({}, folder / "a.xml", {})).document.all<objects::Parcel>().size(), 1U);
}

TEST(Import, GroupsLinesOfSeveralLayers) {
    const Folder folder;
    const auto layer = [](const std::string& name) {
        return VectorLayer{name,
                           Shape::LineZ,
                           {{"name"}},
                           {{{{0, 0, 1}, {5, 5, 2}}, {}, {std::string("L " + name)}, false}}};
    };
    ASSERT_TRUE(writeVectorFile(folder / "two.gpkg", {layer("rock"), layer("water")}));
    const auto imported = valueOf(importFile({}, folder / "two.gpkg", {}));
    EXPECT_EQ(imported.document.all<objects::Group>().size(), 2U);
    const auto line = imported.document.find(imported.document.byName<objects::Line>("L water"));
    EXPECT_EQ(imported.document.nameOf(line->group), "water");
}

TEST(Import, AFailedImportLeavesTheDocumentAlone) {
    const Folder folder;
    const Document before = demo::project(demo::survey(7));
    for (const auto& [name, text] : {std::pair{"x.csv", "a,b\n1,2\n"},
                                     {"x.xml", "<LandXML"},
                                     {"x.ply", "ply"},
                                     {"x.erdwerk", "hello"},
                                     {"x.gpkg", "hello"}}) {
        const auto r = importFile(before, folder.file(name, text), {});
        ASSERT_FALSE(r) << name;
        EXPECT_FALSE(r.error().text.empty());
    }
    EXPECT_FALSE(importFile(before, folder / "none.csv", {}));
}

TEST(Import, AProjectMustComeFirst) {
    const Folder folder;
    valueOf(saveProject(folder / "p.erdwerk", valueOf(derive::evaluate(demo::project(demo::survey(7))))));
    EXPECT_EQ(importFile(demo::project(demo::survey(1)), folder / "p.erdwerk", {}).error().code,
              ErrorCode::Unsupported);
}

TEST(Layout, HeadersAndLetters) {
    EXPECT_TRUE(valueOf(layoutFor("number,easting,northing\n1,2,3\n", "", "f")).header);
    EXPECT_THAT(layoutFor("1,2,3\n", "", "f").error().text, testing::HasSubstr("--columns"));
    EXPECT_THAT(layoutFor("number,easting\n1,2\n", "", "f").error().text,
                testing::HasSubstr("no northing column"));
    EXPECT_FALSE(valueOf(layoutFor("1,2,3\n", "PEN", "f")).header);
    EXPECT_TRUE(valueOf(layoutFor("a,b,c\n1,2,3\n", "PEN", "f")).header);
    EXPECT_FALSE(layoutFor("1,2,3\n", "PE", "f"));
    EXPECT_FALSE(layoutFor("1,2,3\n", "PEX", "f"));
}

TEST(OpenSurface, TakesFilesAndNamedSurfacesOfProjects) {
    const Folder folder;
    const auto derived = valueOf(derive::evaluate(demo::project(demo::survey(7))));
    const auto path = folder / "q.erdwerk";
    valueOf(saveProject(path, derived));
    const auto& tin = derived.surfaces.begin()->second->locator->tin();
    ASSERT_TRUE(writePly(folder / "g.ply", tin));
    // Of two a name must be given, of one it may.
    EXPECT_FALSE(openSurface(path));
    const auto& whole = derived.document;
    const auto one = document::removeAll(whole, {whole.byName<objects::Surface>("Ground finished")});
    valueOf(saveProject(folder / "one.erdwerk", valueOf(derive::evaluate(one))));
    for (const auto& spec : {path + ":Ground", folder / "one.erdwerk", folder / "g.ply"})
        EXPECT_EQ(valueOf(openSurface(spec))->tin().triangleCount(), tin.triangleCount()) << spec;
    EXPECT_EQ(openSurface(path + ":Nowhere").error().code, ErrorCode::NotFound);
    EXPECT_EQ(openSurface(folder / "g.doc").error().code, ErrorCode::Unsupported);
    EXPECT_FALSE(openSurface(folder / "none.ply"));
}

TEST(Export, SaysWhatTheFormatCannotHold) {
    const Folder folder;
    const auto derived = valueOf(derive::evaluate(demo::project(demo::survey(7))));
    EXPECT_TRUE(valueOf(exportFile(folder / "a.erdwerk", derived)).empty());
    EXPECT_THAT(valueOf(exportFile(folder / "a.gpkg", derived)),
                testing::ElementsAre("1 profile", "6 labels", "3 sheets"));
    EXPECT_THAT(valueOf(exportFile(folder / "a.csv", derived)), testing::Contains("14 lines"));
    EXPECT_THAT(valueOf(exportFile(folder / "a.geojson", derived)), testing::Contains("1 points"));
    EXPECT_FALSE(exportFile(folder / "a.pdf", derived));
    EXPECT_FALSE(exportFile("/proc/a.csv", derived));
}

TEST(Export, AGeoPackageKeepsArcsAndOthersSayThatTheyBecameChords) {
    const Folder folder;
    linework::Line3D line =
        linework::lineThrough(test::places("0 0, 10 0, 10 10, 30 10"), {1.0, 2.0, 3.0, 4.0});
    line.vertices[1].through = geometry::Vec2{15, 5};
    linework::LineVertex grade;
    grade.isCorner = false;
    grade.fraction = 0.5;
    grade.rule = linework::FixedHeight{9};
    line.vertices.insert(line.vertices.begin() + 2, grade);
    Document d = Document{}.added("bend", objects::Line{line, {}});
    d = d.added("straight", objects::Line{linework::lineThrough(test::places("0 50, 9 50"), {1.0, 1.0}), {}});
    const auto derived = valueOf(derive::evaluate(d));
    ASSERT_TRUE(exportFile(folder / "a.gpkg", derived));
    const auto back = valueOf(importFile({}, folder / "a.gpkg", {})).document;
    const auto* bend = back.get<objects::Line>(back.byName<objects::Line>("bend"));
    ASSERT_NE(bend, nullptr);
    // The grade point is a corner on the arc now; the arc and all heights are as they were.
    const auto before = derived.lines.at(d.byName<objects::Line>("bend"));
    EXPECT_NEAR(geometry::lengthOf(planPath(bend->line)), before->length, 1e-9);
    ASSERT_EQ(bend->line.vertices.size(), 5U);
    EXPECT_EQ(bend->line.vertices[2].rule, linework::HeightRule(linework::FixedHeight{9}));
    EXPECT_TRUE(bend->line.vertices[1].through);
    EXPECT_THAT(valueOf(exportFile(folder / "a.geojson", derived)),
                testing::Contains("the arcs of 1 line, which became chords"));
}

/// 3000 points with heights, and the same as LandXML.
std::string manyPoints(const Folder& folder, const std::string& name) {
    if (name.ends_with(".xml")) {
        std::string text = "<LandXML><CgPoints>\n";
        for (int i = 0; i < 3000; ++i)
            text += "<CgPoint name=\"" + std::to_string(i) + "\">1 " + std::to_string(i) + " 3</CgPoint>\n";
        return folder.file(name, text + "</CgPoints></LandXML>");
    }
    VectorLayer layer{"points", Shape::PointZ, {{"name"}}, {}};
    for (int i = 0; i < 3000; ++i)
        layer.features.push_back({{{static_cast<double>(i), 1, 3}}, {}, {std::to_string(i)}, false});
    EXPECT_TRUE(writeVectorFile(folder / name, {layer}));
    return folder / name;
}

TEST(Import, SaysHowFarItIsAndStopsWhenToldTo) {
    const Folder folder;
    for (const char* name : {"a.geojson", "a.gpkg", "a.xml"}) {
        SCOPED_TRACE(name);
        const auto file = manyPoints(folder, name);
        std::vector<double> shares;
        Context context;
        context.progress = [&](double share) { shares.push_back(share); };
        EXPECT_EQ(valueOf(importFile({}, file, {}, context)).points, 3000U);
        ASSERT_GE(shares.size(), 2U);
        EXPECT_TRUE(std::is_sorted(shares.begin(), shares.end()));
        EXPECT_GT(shares.front(), 0);
        EXPECT_LT(shares.front(), 0.5);
        EXPECT_LE(shares.back(), 1);
        EXPECT_GT(shares.back(), 0.6);

        std::atomic<bool> stop{false};
        context.cancelFlag = &stop;
        context.progress = [&](double) { stop = true; };
        const auto stopped = importFile({}, file, {}, context);
        ASSERT_FALSE(stopped);
        EXPECT_EQ(stopped.error().code, ErrorCode::Cancelled);
    }
}

TEST(FileSorts, GoByTheEnding) {
    for (const auto& [path, sort] : {std::pair{"a.erdwerk", FileSort::Project},
                                     {"b.CSV", FileSort::Points},
                                     {"c.txt", FileSort::Points},
                                     {"d.las", FileSort::Cloud},
                                     {"e.xyz", FileSort::Cloud},
                                     {"f.tif", FileSort::Raster},
                                     {"g.ply", FileSort::Lines},
                                     {"h.geojson", FileSort::Lines},
                                     {"noending", FileSort::Lines}})
        EXPECT_EQ(sortOf(path), sort) << path;
}

}  // namespace
}  // namespace erdwerk::format
