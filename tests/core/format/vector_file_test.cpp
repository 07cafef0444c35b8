#include "core/format/vector_file.h"

#include "support/geometry.h"

namespace erdwerk::format {
namespace {

using geometry::Vec2;
using test::Folder;
using test::valueOf;

std::string collection(const std::string& geometries) {
    return R"({"type":"FeatureCollection","features":[)" + geometries + "]}";
}
std::string feature(const std::string& geometry) {
    return R"({"type":"Feature","properties":{"name":"L"},"geometry":)" + geometry + "}";
}

TEST(VectorFile, ReadsLinesPolygonsAndPoints) {
    const Folder folder;
    const auto file = folder.file(
        "a.geojson",
        collection(feature(R"({"type":"LineString","coordinates":[[0,0,1],[10,0,2],[10,5,3]]})") + "," +
                   feature(R"({"type":"Polygon","coordinates":[[[0,0],[4,0],[4,4],[0,0]]]})") + "," +
                   feature(R"({"type":"Point","coordinates":[1,2,3]})")));
    const auto content = valueOf(readVectorFile(file));
    ASSERT_EQ(content.lines.size(), 2U);
    EXPECT_EQ(content.lines[0].name, "L");
    EXPECT_EQ(std::get<linework::FixedHeight>(content.lines[0].line.vertices[1].rule).height, 2);
    EXPECT_TRUE(content.lines[1].line.closed);
    EXPECT_EQ(content.lines[1].line.vertices.size(), 3U);
    EXPECT_TRUE(std::holds_alternative<linework::NoHeight>(content.lines[1].line.vertices[0].rule));
    ASSERT_EQ(content.points.size(), 1U);
    EXPECT_EQ(content.points[0].height, 3);
}

TEST(VectorFile, KeepsArcsThroughAGeoPackage) {
    const Folder folder;
    VectorLayer layer{"curves", Shape::CurveZ, {{"name"}}, {}};
    VectorFeature f;
    f.curve = linework::lineThrough(test::places("0 0, 10 0, 10 10"), {1.0, 2.0, 3.0});
    f.curve.vertices[1].through = Vec2{14, 5};
    f.places = test::places3("0 0 1, 10 0 2, 10 10 3");
    f.values = {std::string("lane")};
    layer.features.push_back(f);
    const auto path = folder / "c.gpkg";
    valueOf(writeVectorFile(path, {layer}).map([] { return 0; }));
    const auto content = valueOf(readVectorFile(path));
    ASSERT_EQ(content.lines.size(), 1U);
    EXPECT_EQ(content.lines[0].line, f.curve);
    EXPECT_EQ(content.lines[0].name, "lane");
    EXPECT_EQ(folder.entries(), 1U);
}

TEST(VectorFile, KeepsFullPrecisionInGeoJson) {
    const Folder folder;
    VectorLayer layer{"l", Shape::LineZ, {{"height", FieldKind::Real}, {"index", FieldKind::Integer}}, {}};
    layer.features.push_back({{{48000.123456789, 91000.987654321, 312.1}, {1e7 + 1.0 / 3, -0.1, 2}},
                              {},
                              {1.0 / 3, std::int64_t{1}},
                              false});
    const auto path = folder / "l.geojson";
    ASSERT_TRUE(writeVectorFile(path, {layer}));
    const auto content = valueOf(readVectorFile(path));
    EXPECT_EQ(content.lines[0].line.vertices[1].place.x, 1e7 + 1.0 / 3);
    EXPECT_EQ(content.lines[0].line.vertices[0].place, (Vec2{48000.123456789, 91000.987654321}));
}

TEST(VectorFile, AnswersBadFilesClearly) {
    const Folder folder;
    EXPECT_EQ(readVectorFile(folder / "none.gpkg").error().code, ErrorCode::Io);
    for (const auto& [name, text] : {std::pair{"empty.geojson", std::string()},
                                     {"text.gpkg", std::string("hello")},
                                     {"cut.geojson", collection("").substr(0, 20)}}) {
        const auto r = readVectorFile(folder.file(name, text));
        ASSERT_FALSE(r) << name;
        EXPECT_THAT(r.error().file, testing::HasSubstr(name));
        EXPECT_FALSE(r.error().text.empty());
    }
    const auto absurd = readVectorFile(folder.file(
        "abs.geojson", collection(feature(R"({"type":"LineString","coordinates":[[0,0],[1e300,0]]})"))));
    ASSERT_FALSE(absurd);
    EXPECT_THAT(absurd.error().text, testing::HasSubstr("feature"));
    const auto single = valueOf(readVectorFile(folder.file(
        "one.geojson", collection(feature(R"({"type":"LineString","coordinates":[[0,0],[0,0]]})")))));
    EXPECT_TRUE(single.lines.empty());
    EXPECT_EQ(single.left.size(), 1U);
}

TEST(VectorFile, WritingWhereItCannotChangesNothing) {
    VectorLayer layer{"l", Shape::LineZ, {}, {{{{0, 0, 0}, {1, 1, 1}}, {}, {}, false}}};
    EXPECT_FALSE(writeVectorFile("/proc/none/x.gpkg", {layer}));
    const Folder folder;
    EXPECT_EQ(writeVectorFile(folder / "x.abc", {layer}).error().code, ErrorCode::Unsupported);
    EXPECT_EQ(folder.entries(), 0U);
}

}  // namespace
}  // namespace erdwerk::format
