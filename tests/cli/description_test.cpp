#include "cli/run_cli.h"

#include <filesystem>

#include "support/geometry.h"

namespace erdwerk {
namespace {

using test::cli;
using testing::HasSubstr;

struct Describe : testing::Test {
    test::Folder folder;

    /// A square of 100 from the origin: north, east, south, west.
    void square() {
        (void)folder.file(
            "square.geojson",
            R"({"type":"FeatureCollection","features":[{"type":"Feature","properties":{"name":"Plot"},
"geometry":{"type":"Polygon","coordinates":[[[0,0],[0,100],[100,100],[100,0],[0,0]]]}}]})");
    }
};

TEST_F(Describe, TakesATemplateNamesAndTheWayToTheBeginning) {
    square();
    (void)folder.file(
        "way.geojson",
        R"({"type":"Feature","properties":{"name":"Pillar 6"},"geometry":{"type":"LineString","coordinates":[[0,0],[-30,-40]]}})");
    (void)folder.file("names.csv",
                      "course,along,to\n1,the land of Fell,a stone\n2,the land of Fell,\n4,,the pin\n");
    (void)folder.file(
        "wording.json",
        R"({"name":"Short","opening":"","commence":"From {from} {tie} to the start","beginning":"At the start",
"line":"{along}{direction:0} {distance:1}{to}","curveTangent":"{radius}","curveNonTangent":"{radius}","along":"by {along}: ",
"leaving":"leaving {leaving}: ","to":" to {to}","closing":", home","area":"Area {area}."})");
    const auto run = cli(
        folder,
        "describe --parcel square.geojson --template wording.json --commence way.geojson --names names.csv "
        "--area-unit ha --area-unit acre -o text.txt --json");
    ASSERT_EQ(run.exit, 0) << run.err;
    // The way is turned round: it ends where the parcel begins.
    const std::string expected =
        "From Pillar 6 thence N 36°52'12\" E 50.0 to the start;\n"
        "thence by the land of Fell: due North 100.0 to a stone;\n"
        "thence by the land of Fell: due East 100.0;\n"
        "thence leaving the land of Fell: due South 100.0;\n"
        "thence due West 100.0 to the pin, home.\n\n"
        "Area 1.0000 hectares (2.4711 acres).\n";
    EXPECT_EQ(run.parsed()["text"], expected);
    EXPECT_EQ(test::contentOf(folder / "text.txt"), expected);
    EXPECT_LT(run.parsed()["roundedClosure"]["distance"].get<double>(), 1e-9);
}

TEST_F(Describe, WritesRichTextAndPdf) {
    square();
    for (const char* name : {"out.odt", "out.pdf"}) {
        const auto run = cli(folder, "describe --parcel square.geojson -o " + std::string(name));
        ASSERT_EQ(run.exit, 0) << run.err;
        EXPECT_GT(std::filesystem::file_size(folder / name), 1000U);
    }
    EXPECT_THAT(test::contentOf(folder / "out.pdf").substr(0, 5), "%PDF-");
    EXPECT_THAT(test::contentOf(folder / "out.odt").substr(0, 2), "PK");
    EXPECT_EQ(cli(folder, "describe --parcel square.geojson -o out.doc").exit, 2);
}

TEST_F(Describe, BadTemplatesAndNamesExitTwoWithOneLine) {
    square();
    const auto fails = [&](const std::string& content, const std::string& option, const std::string& why) {
        (void)folder.file("bad", content);
        const auto run = cli(folder, "describe --parcel square.geojson " + option + " bad -o never.txt");
        EXPECT_EQ(run.exit, 2) << content;
        EXPECT_THAT(run.err, HasSubstr(why)) << content;
        EXPECT_EQ(std::count(run.err.begin(), run.err.end(), '\n'), 1) << run.err;
        EXPECT_FALSE(std::filesystem::exists(folder / "never.txt"));
    };
    const std::string rest =
        R"("commence":"","beginning":"","curveTangent":"c","curveNonTangent":"c","along":"","leaving":"","to":"","closing":"","area":"")";
    fails(R"({"line":"{length}",)" + rest + "}", "--template", "bad:1: \"line\" has no field {length}");
    fails(R"({"line":"l","hem":"x",)" + rest + "}", "--template", "'hem' is no sentence");
    fails(R"({"line":7,)" + rest + "}", "--template", "'line' is not a text");
    fails("{\n\"line\"", "--template", "bad:2");
    fails("[]", "--template", "object");
    fails("course,along\n9,Fell\n", "--names", "bad:2: course 9 is none of the parcel's 4");
    fails("course,along\n1,Fell\n1,Moor\n", "--names", "bad:3: course 1 comes twice");
    fails("side,along\n1,Fell\n", "--names", "missing: course");
    fails("", "--names", "the file is empty");
    (void)folder.file(
        "far.geojson",
        R"({"type":"Feature","properties":{},"geometry":{"type":"LineString","coordinates":[[5,5],[-30,-40]]}})");
    EXPECT_THAT(cli(folder, "describe --parcel square.geojson --commence far.geojson").err,
                HasSubstr("away from the point of beginning"));
}

TEST_F(Describe, ADescriptionIsReadBackAndCompared) {
    square();
    const std::string good =
        "Beginning at A; thence North 100.00 feet; thence East 100.00 feet; thence South 100.00 feet; thence "
        "West 100.00 "
        "feet to the point of beginning. Containing 10,000 square feet.";
    (void)folder.file("good.txt", good);
    auto run = cli(
        folder, "read-description good.txt --unit ft --compare square.geojson --at 10,20 -o out.gpkg --json");
    ASSERT_EQ(run.exit, 0) << run.err << run.out;
    auto j = run.parsed();
    EXPECT_EQ(j["unit"], "ft");
    ASSERT_EQ(j["courses"].size(), 4U);
    EXPECT_EQ(j["courses"][1]["azimuth"], 90.0);
    EXPECT_EQ(j["areaCalled"], 10000.0);
    EXPECT_NEAR(j["area"].get<double>(), 10000, 1e-6);
    EXPECT_EQ(cli(folder, "convert out.gpkg -o out.geojson --json").parsed()["lines"], 1);
    // South is not called: missing after the second; East is 10 short.
    std::string bad = good;
    bad.replace(bad.find("East 100.00"), 11, "East 90.00 ");
    bad.erase(bad.find("thence South"), std::string("thence South 100.00 feet; ").size());
    (void)folder.file("bad.txt", bad);
    run = cli(folder, "read-description bad.txt --unit ft --compare square.geojson -o out.gpkg --json");
    EXPECT_EQ(run.exit, 1);
    j = run.parsed();
    ASSERT_EQ(j["differences"].size(), 2U) << run.out;
    EXPECT_EQ(j["differences"][0]["what"], "distance");
    EXPECT_EQ(j["differences"][0]["course"], 2);
    EXPECT_EQ(j["differences"][0]["called"], 90.0);
    EXPECT_EQ(bad.substr(j["differences"][0]["from"].get<std::size_t>(), 10), "90.00  fee");
    EXPECT_EQ(j["differences"][1]["what"], "missing");
    EXPECT_EQ(j["differences"][1]["course"], 3);
    // Alone it leaves a gap.
    run = cli(folder, "read-description bad.txt -o out.gpkg --json");
    EXPECT_EQ(run.exit, 1);
    EXPECT_GT(run.parsed()["closure"]["distance"].get<double>(), 90);
    // North as called points to azimuth 90: the square lies turned, and so does the figure.
    run = cli(folder,
              "read-description good.txt --azimuth-of-north 90 --unit ft --compare square.geojson -o "
              "out.gpkg --json");
    EXPECT_EQ(run.exit, 0) << run.out;
}

TEST_F(Describe, NothingToReadExitsTwo) {
    (void)folder.file("empty.txt", "");
    (void)folder.file("words.txt", "All that land.\n");
    // As an older program saved it: Latin-1, CRLF.
    (void)folder.file("old.txt", "thence N 45\xB0 30' E 35.20 m;\r\nthence S 10\xB0 E 20.00 m\r\n");
    EXPECT_EQ(cli(folder, "read-description old.txt -o old.gpkg --json").parsed()["courses"][0]["azimuth"],
              45.5);
    for (const char* name : {"empty.txt", "words.txt", "gone.txt"}) {
        const auto run = cli(folder, "read-description " + std::string(name) + " -o never.gpkg");
        EXPECT_EQ(run.exit, 2) << name;
        EXPECT_THAT(run.err, HasSubstr(name));
        EXPECT_FALSE(std::filesystem::exists(folder / "never.gpkg"));
    }
    (void)folder.file("half.txt", "thence N 45°30'20\", 35.20 m; thence S 10° E 20.00 m");
    const auto run = cli(folder, "read-description half.txt -o half.gpkg --json");
    EXPECT_EQ(run.exit, 1);
    ASSERT_EQ(run.parsed()["unread"].size(), 1U);
    EXPECT_EQ(run.parsed()["unread"][0]["from"], 7);
    EXPECT_TRUE(run.parsed()["courses"][0]["azimuth"].is_null());
}

TEST_F(Describe, ClosedLinesBecomeParcels) {
    square();
    const auto run = cli(folder, "convert square.geojson --parcels -o plots.erdwerk --json");
    ASSERT_EQ(run.exit, 0) << run.err;
    EXPECT_EQ(run.parsed()["parcels"], 1);
    EXPECT_EQ(cli(folder, "table areas plots.erdwerk -o areas.csv --json").parsed()["rows"], 1);
    EXPECT_THAT(test::contentOf(folder / "areas.csv"), HasSubstr("Plot,10000.00"));
    // What is a parcel already stays the only one.
    EXPECT_EQ(cli(folder, "convert plots.erdwerk --parcels -o again.erdwerk --json").parsed()["parcels"], 1);
}

}  // namespace
}  // namespace erdwerk
