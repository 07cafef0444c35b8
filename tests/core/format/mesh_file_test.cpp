#include "core/format/mesh_file.h"

#include <cstring>
#include <nlohmann/json.hpp>

#include "core/derive/surface_result.h"
#include "core/format/export.h"
#include "core/format/import.h"
#include "core/format/output.h"
#include "core/objects/surface.h"
#include "core/operations/points.h"
#include "core/operations/surfaces.h"
#include "support/after_edit.h"
#include "support/geometry.h"

namespace erdwerk::format {
namespace {

using test::Folder;
using test::places3;
using test::valueOf;

terrain::Tin square() {
    terrain::BuildInput input;
    input.points = places3("48000 91000 320.125, 48010 91000 321, 48010 91020 322, 48000 91020 323.0625");
    return valueOf(terrain::build(std::move(input))).tin;
}

TEST(MeshFile, ObjComesBackExactly) {
    const Folder folder;
    const auto tin = square();
    ASSERT_TRUE(writeObj(folder / "a.obj", {{"North Knoll", &tin}}));
    const auto back = valueOf(readObj(folder / "a.obj"));
    EXPECT_TRUE(std::equal(tin.vertices().begin(), tin.vertices().end(), back.vertices().begin(),
                           back.vertices().end()));
    EXPECT_EQ(back.triangleCount(), 2U);
    EXPECT_EQ(valueOf(importFile({}, folder / "a.obj", {})).document.all<objects::Surface>().size(), 1U);
}

TEST(MeshFile, ObjNamesTheLineOfWhatIsWrong) {
    const Folder folder;
    const auto error = [&](const std::string& text) {
        const auto r = readObj(folder.file("b.obj", text));
        EXPECT_FALSE(r) << text;
        return r ? Error{} : r.error();
    };
    EXPECT_EQ(error("v 0 0 0\nv 1 0\n").line, 2);
    EXPECT_EQ(error("v 0 0 x\n").line, 1);
    EXPECT_EQ(error("v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 9\n").line, 4);
    EXPECT_EQ(error("v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2\n").line, 4);
    EXPECT_THAT(error("# nothing\n").text, testing::HasSubstr("no faces"));
    EXPECT_THAT(error("v 0 0 0\nv 0 0 5\nv 0 1 0\nf 1 2 3\n").text, testing::Not(testing::IsEmpty()));
    // Polygons and negative indices are read.
    EXPECT_EQ(
        valueOf(readObj(folder.file("c.obj", "v 0 0 0\nv 1 0 0\nv 1 1 0\nv 0 1 0\nf -4/1 -3/1 -2 -1\n")))
            .triangleCount(),
        2U);
}

TEST(MeshFile, GlbHoldsChunksAccessorsAndPlacesFromItsOrigin) {
    const Folder folder;
    const auto tin = square();
    ASSERT_TRUE(writeGlb(folder / "a.glb", {{"Ground", &tin}}));
    const std::string bytes = valueOf(readFile(folder / "a.glb"));
    ASSERT_GT(bytes.size(), 28U);
    EXPECT_EQ(bytes.substr(0, 4), "glTF");
    const auto word = [&](std::size_t at) {
        std::uint32_t v = 0;
        std::memcpy(&v, bytes.data() + at, 4);
        return v;
    };
    EXPECT_EQ(word(4), 2U);
    EXPECT_EQ(word(8), bytes.size());
    const std::uint32_t head = word(12);
    EXPECT_EQ(bytes.substr(16, 4), "JSON");
    const auto json = nlohmann::json::parse(bytes.substr(20, head));
    EXPECT_EQ(bytes.substr(20 + head + 4, 4), std::string("BIN\0", 4));
    EXPECT_EQ(json["accessors"][0]["count"], 4);
    EXPECT_EQ(json["accessors"][1]["count"], 6);
    const auto origin = json["nodes"][0]["extras"]["origin"];
    // x east, y up, z south: back to the first vertex.
    float p[3];
    std::memcpy(p, bytes.data() + 20 + head + 8, sizeof p);
    EXPECT_NEAR(origin[0].get<double>() + p[0], 48000, 1e-5);
    EXPECT_NEAR(origin[2].get<double>() + p[1], 320.125, 1e-5);
    EXPECT_NEAR(origin[1].get<double>() - p[2], 91000, 1e-5);
    EXPECT_FALSE(writeGlb(folder / "none.glb", {}));
    EXPECT_FALSE(std::filesystem::exists(folder / "none.glb"));
}

TEST(MeshFile, GlbComesBackToATenthOfAMillimetre) {
    const Folder folder;
    const auto tin = square();
    ASSERT_TRUE(writeGlb(folder / "a.glb", {{"Ground", &tin}, {"Copy", &tin}}));
    const auto back = valueOf(readGlb(folder / "a.glb"));
    ASSERT_EQ(back.size(), 2U);
    EXPECT_EQ(back[0].first, "Ground");
    ASSERT_EQ(back[1].second.vertexCount(), tin.vertexCount());
    for (std::uint32_t v = 0; v < tin.vertexCount(); ++v) {
        EXPECT_NEAR(back[1].second.vertex(v).x, tin.vertex(v).x, 1e-4);
        EXPECT_NEAR(back[1].second.vertex(v).y, tin.vertex(v).y, 1e-4);
        EXPECT_NEAR(back[1].second.vertex(v).z, tin.vertex(v).z, 1e-4);
    }
    EXPECT_EQ(valueOf(importFile({}, folder / "a.glb", {})).document.all<objects::Surface>().size(), 2U);
}

TEST(MeshFile, DamagedGlbIsRefused) {
    const Folder folder;
    const auto tin = square();
    ASSERT_TRUE(writeGlb(folder / "a.glb", {{"Ground", &tin}}));
    const std::string good = valueOf(readFile(folder / "a.glb"));
    EXPECT_FALSE(readGlb(folder.file("b.glb", "glTF")));
    EXPECT_FALSE(readGlb(folder.file("b.glb", good.substr(0, good.size() / 2))));
    for (unsigned seed = 0; seed < 500; ++seed) {
        std::mt19937 random(seed);
        std::string text = good;
        for (int k = 0; k < 4; ++k) text[random() % text.size()] = static_cast<char>(random());
        const auto r = readGlb(folder.file("c.glb", text));
        if (!r) EXPECT_FALSE(r.error().text.empty()) << seed;
    }
}

TEST(MeshFile, TrianglesOfAVectorFileBecomeASurface) {
    const Folder folder;
    ObjectId points;
    auto d = test::afterEdit({},
                             operations::addPoints("s", {{"1", {0, 0}, 1.0, "", ""},
                                                         {"2", {10, 0}, 2.0, "", ""},
                                                         {"3", {10, 10}, 3.0, "", ""},
                                                         {"4", {0, 10}, 4.0, "", ""},
                                                         {"5", {4, 6}, 9.0, "", ""}}),
                             &points);
    d = test::afterEdit(d, operations::addSurface("Ground", {{points, objects::Role::Points}}));
    const auto derived = valueOf(derive::evaluate(d));
    ASSERT_TRUE(exportFile(folder / "a.gpkg", derived));
    const auto back = valueOf(importFile({}, folder / "a.gpkg", {})).document;
    ASSERT_EQ(back.all<objects::Surface>().size(), 1U);
    const auto& tin = derived.surfaces.begin()->second->locator->tin();
    const auto again = valueOf(derive::evaluate(back));
    EXPECT_EQ(again.surfaces.begin()->second->figures.triangles, tin.triangleCount());
    EXPECT_DOUBLE_EQ(*again.surfaces.begin()->second->locator->heightAt({4, 6}), 9);
}

}  // namespace
}  // namespace erdwerk::format
