// The commands of 3D lines, on files that are not in the project.

#include <cmath>
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

// ---- drape

TEST(CliLines, DrapeLaysLinesOnASurfaceAndSaysWhatIsOutside) {
    const Folder folder;
    // A roof along x = 50: 10 at the eaves, 20 at the ridge.
    put(folder, "roof.csv",
        "number,easting,northing,height\n1,0,0,10\n2,50,0,20\n3,100,0,10\n4,0,100,10\n5,50,100,20\n6,100,100,"
        "10\n");
    ASSERT_EQ(cli(folder, "build --points roof.csv -o roof.ply").exit, 0);
    put(folder, "a.geojson", collection(feature(R"("name":"A")", "[[10,30],[120,30]]")));
    auto run = cli(folder, "drape a.geojson --surface roof.ply --amount 0.5 -o out.geojson --json");
    ASSERT_EQ(run.exit, 0) << run.err;
    EXPECT_EQ(run.parsed()["lines"], 1);
    EXPECT_NEAR(run.parsed()["outside"].get<double>(), 20, 1e-9);
    const auto out = nlohmann::json::parse(test::contentOf(folder / "out.geojson"));
    double highest = 0;
    for (const auto& p : out["features"][0]["geometry"]["coordinates"]) {
        const double x = p[0];
        EXPECT_NEAR(p[2].get<double>(), 10.5 + 10 * (1 - std::abs(x - 50) / 50), 1e-9);
        highest = std::max(highest, p[2].get<double>());
    }
    EXPECT_NEAR(highest, 20.5, 1e-9);
    // Thinned: only the ridge is left between the ends.
    run = cli(folder, "drape a.geojson --surface roof.ply --thin 0.01 -o out.geojson --json");
    EXPECT_EQ(run.parsed()["points"], 3);
    put(folder, "far.geojson", collection(feature(R"("name":"A")", "[[500,30],[520,30]]")));
    EXPECT_EQ(cli(folder, "drape far.geojson --surface roof.ply -o x.geojson").exit, 2);
    EXPECT_FALSE(std::filesystem::exists(folder / "x.geojson"));
}

// ---- offset and meet

TEST(CliLines, OffsetMakesRowsFromTheLineOrChained) {
    const Folder folder;
    put(folder, "a.geojson", collection(feature(R"("name":"A")", "[[0,0,10],[100,0,20],[100,50,20]]")));
    auto run = cli(folder, "offset a.geojson --side left --row 2,+0.15 --row 5,-10% -o rows.geojson --json");
    ASSERT_EQ(run.exit, 0) << run.err;
    auto json = run.parsed();
    ASSERT_EQ(json["lines"].size(), 2U);
    EXPECT_EQ(json["lines"][1]["row"], 2);
    EXPECT_EQ(json["lines"][1]["corners"], 3);
    EXPECT_NEAR(json["lines"][1]["length"].get<double>(), 95 + 45, 1e-9);
    auto rows = nlohmann::json::parse(test::contentOf(folder / "rows.geojson"))["features"];
    EXPECT_EQ(rows[1]["properties"]["row"], 2);
    EXPECT_NEAR(rows[1]["geometry"]["coordinates"][0][2].get<double>(), 9.5, 1e-9);
    EXPECT_NEAR(rows[1]["geometry"]["coordinates"][1][2].get<double>(), 19.5 - 0.5, 1e-9);  // at 95 of 100
    run = cli(folder,
              "offset a.geojson --side right --row 2,+0.15 --row 5,-3:1 --chained --corners round -o "
              "rows.geojson --json");
    rows = nlohmann::json::parse(test::contentOf(folder / "rows.geojson"))["features"];
    EXPECT_NEAR(rows[1]["geometry"]["coordinates"][0][1].get<double>(), -7, 1e-9);
    EXPECT_NEAR(rows[1]["geometry"]["coordinates"][0][2].get<double>(), 10.15 - 5.0 / 3, 1e-9);
    EXPECT_EQ(cli(folder, "offset a.geojson --side left --row -2 -o x.geojson").exit, 2);
    EXPECT_EQ(cli(folder, "offset a.geojson --side left --row 2,= -o x.geojson").exit, 2);
    EXPECT_EQ(cli(folder, "offset a.geojson --side left --row 2,word -o x.geojson").exit, 2);
}

TEST(CliLines, MeetFindsTheDitchBottomOrSaysThatThereIsNone) {
    const Folder folder;
    put(folder, "a.geojson", collection(feature(R"("name":"A")", "[[0,0,100],[50,0,100]]")));
    put(folder, "b.geojson", collection(feature(R"("name":"B")", "[[0,10,102],[50,10,102]]")));
    auto run = cli(folder, "meet a.geojson b.geojson --grade-a -2:1 --grade-b -50% -o ditch.geojson --json");
    ASSERT_EQ(run.exit, 0) << run.err;
    EXPECT_NEAR(run.parsed()["length"].get<double>(), 50, 1e-9);
    EXPECT_NEAR(run.parsed()["min"].get<double>(), 98.5, 1e-9);
    run = cli(folder, "meet a.geojson b.geojson --grade-a 2:1 --grade-b 50% -o none.geojson --json");
    EXPECT_EQ(run.exit, 0);  // a ridge
    run = cli(folder, "meet a.geojson b.geojson --grade-a 1% --grade-b 1% -o none2.geojson --json");
    EXPECT_EQ(run.exit, 1);
    EXPECT_FALSE(std::filesystem::exists(folder / "none2.geojson"));
    EXPECT_EQ(cli(folder, "meet a.geojson b.geojson --grade-a steep --grade-b 1% -o x.geojson").exit, 2);
}

// ---- give-heights

TEST(CliLines, GiveHeightsSaysWhatGotWhatFromWhere) {
    const Folder folder;
    put(folder, "flat.geojson", collection(feature(R"("name":"Kerb")", "[[0,0],[50,0],[100,0]]")));
    put(folder, "cross.geojson", collection(feature(R"("name":"Lane")", "[[20,-5,10],[20,5,12]]")));
    put(folder, "points.csv", "number,easting,northing,height\n7,100,0.01,15\n8,20.01,0,11.3\n");
    put(folder, "texts.geojson",
        collection(feature(R"("t":"H=13,5")", "[52,4]", "Point") + "," +
                   feature(R"("t":"H=island")", "[80,3]", "Point") + "," +
                   feature(R"("t":"other")", "[90,0]", "Point")));
    put(folder, "leaders.geojson", collection(feature(R"("name":"l")", "[[52,4],[50,0]]")));
    const std::string all =
        "give-heights flat.geojson --crossing cross.geojson --points points.csv --texts texts.geojson "
        "--field t --leaders leaders.geojson --prefix H= -o out.gpkg --json";
    auto run = cli(folder, all);
    EXPECT_EQ(run.exit, 1) << run.err;  // the first corner lies beyond
    const auto json = run.parsed();
    ASSERT_EQ(json["given"].size(), 3U);
    EXPECT_NEAR(json["given"][0]["height"].get<double>(), 11, 1e-9);
    EXPECT_EQ(json["given"][0]["from"], "line 'Lane'");
    EXPECT_EQ(json["given"][0]["differs"][0]["from"], "point 8");
    EXPECT_NEAR(json["given"][1]["height"].get<double>(), 13.5, 1e-9);
    EXPECT_NEAR(json["given"][2]["height"].get<double>(), 15, 1e-9);
    ASSERT_EQ(json["missed"].size(), 1U);
    EXPECT_EQ(json["missed"][0]["at"], nlohmann::json::array({0.0, 0.0}));
    ASSERT_EQ(json["unused"].size(), 1U);
    EXPECT_EQ(json["unused"][0]["text"], "H=island");
    run = cli(folder, all + " --otherwise 9");
    EXPECT_EQ(run.exit, 0) << run.err;
    EXPECT_EQ(cli(folder, "give-heights flat.geojson --texts texts.geojson -o x.gpkg").exit, 2);
    EXPECT_EQ(cli(folder, "give-heights flat.geojson --texts texts.geojson --field q -o x.gpkg").exit, 2);
    EXPECT_EQ(cli(folder, "give-heights flat.geojson --otherwise high -o x.gpkg").exit, 2);
    EXPECT_EQ(cli(folder, "give-heights flat.geojson --points points.csv --flat x -o x.gpkg").exit, 2);
    // Drawn at 0 from end to end, as most are.
    put(folder, "zero.geojson", collection(feature(R"("name":"Z")", "[[20,0,0],[100,0,0]]")));
    const std::string zero = "give-heights zero.geojson --points points.csv -o z.gpkg --json";
    EXPECT_EQ(cli(folder, zero).parsed()["given"].size(), 2U);
    for (const auto& g : cli(folder, zero + " --flat none").parsed()["given"]) EXPECT_EQ(g["height"], 0.0);
    run = cli(folder, "convert zero.geojson -o zero.erdwerk --json");
    EXPECT_THAT(run.parsed()["left"][0].get<std::string>(), testing::HasSubstr("height 0 of 1 line"));
    run = cli(folder, "convert zero.geojson --keep-zero -o zero.erdwerk --json");
    EXPECT_TRUE(run.parsed()["left"].empty());
}

}  // namespace
}  // namespace erdwerk
