// Height rules in vector files, both ways.

#include "core/format/line_rules.h"

#include "core/format/export.h"
#include "core/format/import.h"
#include "core/objects/line.h"
#include "core/operations/lines.h"
#include "support/geometry.h"

namespace erdwerk::format {
namespace {

using test::places;
using test::valueOf;

std::string feature(const std::string& name, const std::string& coordinates, const std::string& rules) {
    return R"({"type":"Feature","properties":{"name":")" + name + R"(","rules":")" + rules +
           R"("},"geometry":{"type":"LineString","coordinates":)" + coordinates + "}}";
}
std::string collection(const std::string& features) {
    return R"({"type":"FeatureCollection","features":[)" + features + "]}";
}

const std::string web =
    collection(feature("Ditch", "[[30,-10,1],[30,10,2]]", "50; 60") + "," +
               feature("Lane", "[[0,0],[100,0]]", "70; @20 2%; @ x Ditch+0.10; 5 ") + "," +
               feature("Kerb", "[[0,5],[50,5],[100,5]]", "=Lane; 3:1 curve 10; =Lane-2%") + "," +
               feature("Plain", "[[0,9,1],[50,9,2]]", ""));

TEST(LineRules, AFileOfLinesThatSpeakOfEachOtherIsWorkedOut) {
    const test::Folder folder;
    auto content = valueOf(readVectorFile(folder.file("web.geojson", web)));
    const auto lines = valueOf(linkedLines(std::move(content.lines)));
    const auto heights = solved(lines);
    ASSERT_EQ(heights.size(), 4U);
    EXPECT_NEAR(*heights[1].vertices[1].height, 70.4, 1e-9);
    EXPECT_NEAR(*heights[1].vertices[2].height, 55.1, 1e-9);
    EXPECT_NEAR(*heights[2].vertices[0].height, 70, 1e-9);
    EXPECT_NEAR(*heights[2].vertices[1].height, 70 + 50.0 / 3, 1e-9);
    EXPECT_NEAR(*heights[2].vertices[2].height, 5 - 0.1, 1e-9);
    EXPECT_NEAR(*heights[3].vertices[1].height, 2, 1e-9);
}

TEST(LineRules, AProjectKeepsThemAndWritesThemBack) {
    const test::Folder folder;
    const auto in = valueOf(importFile({}, folder.file("web.geojson", web), {}));
    EXPECT_TRUE(in.left.empty());
    const auto first = valueOf(derive::evaluate(in.document));
    for (const char* name : {"again.gpkg", "again.geojson"}) {
        const std::string path = folder / name;
        valueOf(exportFile(path, first));
        const auto back = valueOf(importFile({}, path, {}));
        EXPECT_TRUE(back.left.empty());
        const auto second = valueOf(derive::evaluate(back.document));
        for (const char* line : {"Ditch", "Lane", "Kerb", "Plain"}) {
            const auto& a = *first.lines.at(in.document.byName<objects::Line>(line));
            const auto& b = *second.lines.at(back.document.byName<objects::Line>(line));
            ASSERT_NEAR(a.length, b.length, 1e-9);
            for (double d = 0; d <= a.length; d += 0.5)
                EXPECT_NEAR(*heightAt(a, d), *heightAt(b, d), 1e-9) << name << ", " << line << " at " << d;
        }
        // The rules are still rules.
        const auto* kerb = back.document.get<objects::Line>(back.document.byName<objects::Line>("Kerb"));
        EXPECT_EQ(operations::controlText(back.document, kerb->line.vertices.back()), "=Lane-2%");
        const auto& lane =
            back.document.get<objects::Line>(back.document.byName<objects::Line>("Lane"))->line;
        EXPECT_TRUE(std::any_of(lane.vertices.begin(), lane.vertices.end(), [](const auto& v) {
            return std::holds_alternative<linework::CrossingLine>(v.rule);
        }));
    }
}

TEST(LineRules, ALineWithArcsComesBackFromAGeoPackageAsItWas) {
    const test::Folder folder;
    document::Document d;
    ObjectId id;
    linework::Line3D line;
    for (const auto& [place, rule] : {std::pair{geometry::Vec2{0, 0}, "10"},
                                      {geometry::Vec2{20, 0}, "2%"},
                                      {geometry::Vec2{40, 0}, "12"}}) {
        linework::LineVertex v;
        v.place = place;
        v.rule = valueOf(operations::typedRule(d, rule));
        line.vertices.push_back(v);
    }
    line.vertices[0].through = geometry::Vec2{10, 10};
    linework::LineVertex grade;
    grade.isCorner = false;
    grade.fraction = 0.25;
    grade.rule = linework::FixedHeight{11};
    line.vertices.insert(line.vertices.begin() + 1, grade);
    d = d.added("Bend", objects::Line{line, {}}, &id);
    const auto first = valueOf(derive::evaluate(d));
    for (const auto& [name, near] : {std::pair{"bend.gpkg", 1e-9}, {"bend.geojson", 0.01}}) {
        valueOf(exportFile(folder / name, first));
        const auto back = valueOf(importFile({}, folder / name, {}));
        const auto second = valueOf(derive::evaluate(back.document));
        const auto& a = *first.lines.at(id);
        const auto& b = *second.lines.begin()->second;
        EXPECT_NEAR(a.length, b.length, near * 10);
        for (double t = 0; t <= 1; t += 0.05)
            EXPECT_NEAR(*heightAt(a, t * a.length), *heightAt(b, t * b.length), near) << name << " at " << t;
    }
}

TEST(LineRules, ANameThatIsNotThereIsSaidAndItsHeightLeftOut) {
    const test::Folder folder;
    const auto in = valueOf(importFile(
        {}, folder.file("a.geojson", collection(feature("A", "[[0,0],[9,0]]", "=Nowhere+1; 2"))), {}));
    ASSERT_EQ(in.left.size(), 1U);
    EXPECT_THAT(in.left[0], testing::HasSubstr("'Nowhere'"));
    EXPECT_THAT(in.left[0], testing::HasSubstr("feature 0"));
    const auto& line = in.document.get<objects::Line>(in.document.byName<objects::Line>("A"))->line;
    EXPECT_TRUE(std::holds_alternative<linework::NoHeight>(line.vertices[0].rule));
}

TEST(LineRules, NonsenseNamesFileFeatureAndEntryAndBringsNothingIn) {
    const test::Folder folder;
    const auto path = folder.file("bad.geojson", collection(feature("A", "[[0,0],[9,0]]", "1; 2") + "," +
                                                            feature("B", "[[0,0],[9,0]]", "1; 1 in 0")));
    const auto in = importFile({}, path, {});
    ASSERT_FALSE(in);
    EXPECT_THAT(in.error().message(), testing::HasSubstr("bad.geojson:1: "));
    EXPECT_THAT(in.error().message(), testing::HasSubstr("feature 1: entry 2"));
}

}  // namespace
}  // namespace erdwerk::format
