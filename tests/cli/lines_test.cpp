// The commands of 3D lines, on files that are not in the project.

#include <filesystem>

#include "cli/run_cli.h"

namespace erdwerk {
namespace {

using test::cli;
using test::Folder;

std::string feature(const std::string& properties, const std::string& coordinates,
                    const std::string& type = "LineString") {
    return R"({"type":"Feature","properties":{)" + properties + R"(},"geometry":{"type":")" + type +
           R"(","coordinates":)" + coordinates + "}}";
}
std::string collection(const std::string& features) {
    return R"({"type":"FeatureCollection","features":[)" + features + "]}";
}
std::string ruled(const std::string& name, const std::string& coordinates, const std::string& rules) {
    return feature(R"("name":")" + name + R"(","rules":")" + rules + R"(")", coordinates);
}

void put(const Folder& folder, const std::string& name, const std::string& content) {
    static_cast<void>(folder.file(name, content));
}

// ---- resolve

TEST(CliLines, ResolveGivesControlsCurvesAndWhatHasNoHeight) {
    const Folder folder;
    put(folder, "plane.csv",
        "number,easting,northing,height\n1,-50,-50,10\n2,150,-50,10\n3,150,50,20\n4,-50,50,20\n");
    ASSERT_EQ(cli(folder, "build --points plane.csv -o ground.ply").exit, 0);
    put(folder, "a.geojson",
        collection(ruled("Lane", "[[0,0],[100,0],[200,0]]", "100; 104 curve 60; 102") + "," +
                   ruled("Kerb", "[[0,3],[100,3]]", "=Ground+1; =Lane-2%")));
    auto run = cli(folder, "resolve a.geojson --surface Ground=ground.ply -o out.geojson --json");
    ASSERT_EQ(run.exit, 0) << run.err;
    const auto json = run.parsed();
    const auto& lane = json["lines"][0];
    EXPECT_EQ(lane["name"], "Lane");
    EXPECT_NEAR(lane["length"], 200, 1e-9);
    EXPECT_EQ(lane["controls"].size(), 3U);
    EXPECT_EQ(lane["controls"][1]["rule"], "104 curve 60");
    EXPECT_EQ(lane["controls"][1]["kind"], "corner");
    EXPECT_NEAR(lane["controls"][1]["gradeToNext"], -2, 1e-9);
    EXPECT_TRUE(lane["controls"][2]["gradeToNext"].is_null());
    const auto& curve = lane["curves"][0];
    EXPECT_NEAR(curve["start"], 70, 1e-9);
    EXPECT_NEAR(curve["k"], 10, 1e-9);
    EXPECT_NEAR(curve["highLow"]["station"], 110, 1e-9);
    EXPECT_NEAR(curve["highLow"]["height"], 103.6, 1e-9);
    const auto& kerb = json["lines"][1]["controls"];
    EXPECT_NEAR(kerb[0]["height"], 16.3, 1e-6);           // 15 + 0.1 * 3, and 1
    EXPECT_NEAR(kerb[1]["height"], 103.55 - 0.06, 1e-9);  // on the curve
    // Written every metre of the curve.
    const auto written = nlohmann::json::parse(test::contentOf(folder / "out.geojson"));
    EXPECT_EQ(written["features"][0]["geometry"]["coordinates"].size(), 3U + 60U);
    run = cli(folder, "resolve a.geojson --surface Ground=ground.ply --interval 20 -o out.geojson");
    EXPECT_EQ(nlohmann::json::parse(
                  test::contentOf(folder / "out.geojson"))["features"][0]["geometry"]["coordinates"]
                  .size(),
              7U);  // the ends, the corner, 70 90 110 130
}

TEST(CliLines, ResolveLeavesOutWhatHasNoHeightAndSaysSo) {
    const Folder folder;
    put(folder, "a.geojson",
        collection(ruled("A", "[[0,0],[10,0],[20,0],[30,0]]", "1; =Nowhere; 3; 4") + "," +
                   ruled("B", "[[0,5],[10,5]]", "=C; 1") + "," + ruled("C", "[[0,9],[10,9]]", "=B; 1") + "," +
                   ruled("D", "[[0,9],[10,9],[20,9]]", "1; ; 2")));
    const auto run = cli(folder, "resolve a.geojson -o out.geojson --json");
    EXPECT_EQ(run.exit, 1) << run.err;
    const auto json = run.parsed();
    const auto& gone = json["lines"][0]["controls"][1];
    EXPECT_TRUE(gone["height"].is_null());
    EXPECT_THAT(std::string(gone["problem"]), testing::HasSubstr("Nowhere"));
    EXPECT_EQ(gone["rule"], "=Nowhere");
    EXPECT_THAT(std::string(json["lines"][1]["controls"][0]["problem"]), testing::HasSubstr("circle"));
    EXPECT_TRUE(json["lines"][3]["controls"][0]["problem"].is_null());
    // A runs from 20 to 30, D nowhere: its middle has none.
    const auto written = nlohmann::json::parse(test::contentOf(folder / "out.geojson"));
    ASSERT_EQ(written["features"].size(), 1U);
    EXPECT_EQ(written["features"][0]["properties"]["name"], "A");
}

TEST(CliLines, ResolveRefusesNonsenseByFileFeatureAndEntry) {
    const Folder folder;
    for (const char* rules :
         {"1; 1 in 0", "1; 2 curve K0", "1", "1; 2; 3", "1; word", "1; @5 2%; @3 2%; 2"}) {
        put(folder, "a.geojson", collection(ruled("A", "[[0,0],[10,0]]", rules)));
        const auto run = cli(folder, "resolve a.geojson -o out.geojson --json");
        EXPECT_EQ(run.exit, 2) << rules;
        EXPECT_THAT(run.err, testing::HasSubstr("a.geojson:1: ")) << rules;
        EXPECT_THAT(run.err, testing::HasSubstr("feature 0")) << rules;
        EXPECT_EQ(run.out, "") << rules;
    }
    EXPECT_FALSE(std::filesystem::exists(folder / "out.geojson"));
    EXPECT_EQ(cli(folder, "resolve a.geojson --surface ground.ply -o out.geojson").exit, 2);
    EXPECT_EQ(cli(folder, "resolve missing.geojson -o out.geojson").exit, 2);
}

}  // namespace
}  // namespace erdwerk
