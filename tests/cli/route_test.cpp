// Alignments, stations, designs and their checks, through the command line.

#include <cmath>

#include "cli/run_cli.h"

namespace erdwerk {
namespace {

using test::Folder;
using testing::HasSubstr;

class CliRoute : public testing::Test {
protected:
    CliRoute() {
        // East 100, a quarter of radius 50 to the south, south 40: in pieces, out of order, one turned.
        put("pieces.geojson",
            R"({"type":"FeatureCollection","features":[)"
            R"({"type":"Feature","properties":{"name":"first"},"geometry":{"type":"LineString","coordinates":[[0,0],[100,0]]}},)"
            R"({"type":"Feature","properties":{"name":"last"},"geometry":{"type":"LineString","coordinates":[[150,-90],[150,-50]]}},)"
            R"({"type":"Feature","properties":{"name":"bend"},"geometry":{"type":"LineString","coordinates":[[150,-50],[100,0]]}}]})");
        put("pis.csv", "easting,northing,radius,spiralIn,spiralOut\n0,0,,,\n150,0,50,,\n150,-90,,,\n");
    }
    test::Run run(const std::string& arguments) const { return test::cli(folder, arguments); }
    void put(const std::string& name, const std::string& content) const {
        static_cast<void>(folder.file(name, content));
    }
    const Folder folder;
};

const double quarter = 25 * M_PI;

TEST_F(CliRoute, AlignmentFromPis) {
    const auto out = run("alignment pis.csv --start 2+750 --equation 2+800=2+900 -o a.xml --json");
    ASSERT_EQ(out.exit, 0) << out.err;
    const auto json = out.parsed();
    EXPECT_NEAR(json["length"].get<double>(), 140 + quarter, 1e-9);
    EXPECT_EQ(json["startStation"], 2750);
    EXPECT_NEAR(json["endStation"].get<double>(), 2750 + 100 + 140 + quarter, 1e-9);
    ASSERT_EQ(json["elements"].size(), 3U);
    const auto& curve = json["elements"][1];
    EXPECT_EQ(curve["kind"], "curve");
    EXPECT_NEAR(curve["startStation"].get<double>(), 2950, 1e-9);
    EXPECT_NEAR(curve["distance"].get<double>(), 100, 1e-9);
    EXPECT_NEAR(curve["radius"].get<double>(), 50, 1e-9);
    EXPECT_NEAR(curve["delta"].get<double>(), 90, 1e-9);
    EXPECT_EQ(curve["side"], "right");
    EXPECT_NEAR(curve["azimuthIn"].get<double>(), 90, 1e-9);
    EXPECT_NEAR(curve["azimuthOut"].get<double>(), 180, 1e-9);
    std::vector<std::string> kinds;
    for (const auto& p : json["points"]) kinds.push_back(p["kind"]);
    EXPECT_EQ(kinds, (std::vector<std::string>{"BP", "PC", "PI", "PT", "EP"}));
    EXPECT_NEAR(json["points"][2]["distance"].get<double>(), 150, 1e-9);
    EXPECT_NEAR(json["points"][2]["at"][0].get<double>(), 150, 1e-9);
    EXPECT_TRUE(json["notTangent"].empty());
    // What was written is the same alignment.
    const auto again = run("alignment a.xml --json");
    ASSERT_EQ(again.exit, 0) << again.err;
    EXPECT_EQ(again.parsed()["points"].size(), 5U);
    EXPECT_EQ(again.parsed()["endStation"], json["endStation"]);
}

TEST_F(CliRoute, AlignmentFromPiecesInAnyOrder) {
    const auto out = run("alignment pieces.geojson --json");
    ASSERT_EQ(out.exit, 0) << out.err;
    const auto json = out.parsed();
    ASSERT_EQ(json["elements"].size(), 3U);
    EXPECT_EQ(json["elements"][0]["start"][0], 0);
    EXPECT_EQ(json["elements"][2]["end"][1], -90);
    ASSERT_EQ(json["notTangent"].size(), 2U);
    EXPECT_NEAR(json["notTangent"][0]["angle"].get<double>(), 45, 1e-9);
    const auto round = run("alignment pieces.geojson --radius 20 --json").parsed();
    EXPECT_EQ(round["elements"].size(), 5U);
    EXPECT_TRUE(round["notTangent"].empty());
    const auto back = run("alignment pieces.geojson --reverse --json").parsed();
    EXPECT_EQ(back["elements"][0]["start"][1], -90);
    put("far.geojson",
        R"({"type":"FeatureCollection","features":[{"type":"Feature","properties":{"name":"far"},"geometry":{"type":"LineString","coordinates":[[500,0],[600,0]]}}]})");
    const auto bad = run("alignment pieces.geojson far.geojson --json");
    EXPECT_EQ(bad.exit, 2);
    EXPECT_THAT(bad.err, HasSubstr("'far'"));
}

TEST_F(CliRoute, StationsThereAndBack) {
    put("points.csv",
        "number,easting,northing,height,code\n1,40,-3,7,A\n2,150,-70,8,\n3,-5,1,,\n\"4\",103.5,3.5,1,\"a, "
        "b\"\n");
    auto out = run("station --alignment pis.csv --points points.csv -o s.csv --json");
    ASSERT_EQ(out.exit, 0) << out.err;
    EXPECT_EQ(out.parsed()["points"], 4);
    EXPECT_EQ(out.parsed()["beyond"], 1);
    const std::string text = test::contentOf(folder / "s.csv");
    EXPECT_THAT(
        text,
        HasSubstr("number,station,offset,distance,easting,northing,height,code\n1,40,3,40,40,-3,7,A\n"));
    EXPECT_THAT(text, HasSubstr("\n3,,,,-5,1,,\n"));
    EXPECT_THAT(text, HasSubstr("\"a, b\""));
    put("offsets.csv", "name,station,offset,height,code\nP1,40,3,7,A\nP2,0+400,1,,\nP3,0,-2.5,,\n");
    out = run("station --alignment pis.csv --offsets offsets.csv -o p.csv --json");
    ASSERT_EQ(out.exit, 0) << out.err;
    EXPECT_EQ(out.parsed()["beyond"], 1);
    EXPECT_EQ(test::contentOf(folder / "p.csv"),
              "number,easting,northing,height,code\nP1,40,-3,7,A\nP2,,,,\nP3,0,2.5,,\n");
    EXPECT_EQ(run("station --alignment pis.csv -o p.csv").exit, 2);
    EXPECT_EQ(run("station --alignment none.csv --points points.csv -o p.csv").exit, 2);
}

TEST_F(CliRoute, DesignAgainstTheGround) {
    put("ground.csv",
        "number,easting,northing,height\n1,-50,-200,10\n2,300,-200,10\n3,300,50,10\n4,-50,50,10\n");
    ASSERT_EQ(run("build --points ground.csv -o g.ply").exit, 0);
    put("d.csv", "station,height,curve\n0,9,\n100,12,K10\n200,10,\n");
    auto out = run("design --alignment pis.csv --pvis d.csv --ground g.ply --interval 50 -o o.csv --json");
    ASSERT_EQ(out.exit, 0) << out.err;
    auto pvi = out.parsed()["pvis"][1];
    EXPECT_NEAR(pvi["gradeIn"].get<double>(), 3, 1e-9);
    EXPECT_NEAR(pvi["gradeOut"].get<double>(), -2, 1e-9);
    EXPECT_NEAR(pvi["curve"].get<double>(), 50, 1e-9);
    EXPECT_NEAR(pvi["k"].get<double>(), 10, 1e-9);
    EXPECT_EQ(pvi["kind"], "crest");
    EXPECT_NEAR(pvi["highLow"]["station"].get<double>(), 75 + 30, 1e-9);
    const std::string text = test::contentOf(folder / "o.csv");
    EXPECT_THAT(text, HasSubstr("station,distance,easting,northing,ground,design,cut,fill,grade\n0,0,0,0,10,"
                                "9,1,0,3\n50,50,50,0,10,10.5,0,0.5,3\n"));
    EXPECT_EQ(std::count(text.begin(), text.end(), '\n'), 9);  // 0 50 75 100 105 125 150 200
    put("over.csv", "station,height,curve\n0,9,\n60,12,100\n120,10,90\n200,11,\n");
    EXPECT_EQ(run("design --alignment pis.csv --pvis over.csv -o o.csv --json").exit, 1);
    put("back.csv", "station,height\n50,9\n20,12\n");
    const auto bad = run("design --alignment pis.csv --pvis back.csv -o no.csv");
    EXPECT_EQ(bad.exit, 2);
    EXPECT_THAT(bad.err, HasSubstr("back.csv:3: station 20 does not lie beyond the one before"));
    EXPECT_FALSE(std::filesystem::exists(folder / "no.csv"));
}

TEST_F(CliRoute, ChecksADesign) {
    put("c.json", R"({"unit":"m","bySpeed":[{"speed":30,"minRadius":60}],"maxGrade":2})");
    put("d.csv", "station,height\n0,9\n100,12\n200,13\n");
    auto out = run("check-design --alignment pis.csv --pvis d.csv --criteria c.json --speed 30@0 --json");
    EXPECT_EQ(out.exit, 1) << out.err;
    auto findings = out.parsed()["findings"];
    ASSERT_EQ(findings.size(), 2U);
    EXPECT_EQ(findings[0]["kind"], "grade");
    EXPECT_EQ(findings[1]["kind"], "radius");
    EXPECT_NEAR(findings[1]["from"].get<double>(), 100, 1e-9);
    EXPECT_EQ(findings[1]["limit"], 60);
    // Feet of an alignment in feet: 50 ft is less still, 200 ft would hold.
    out = run("check-design --alignment pis.csv --criteria c.json --speed 30@0 --unit ft --json");
    EXPECT_NEAR(out.parsed()["findings"][0]["limit"].get<double>(), 60 / 0.3048, 1e-9);
    EXPECT_EQ(run("check-design --alignment pis.csv --criteria c.json --json").exit, 0);
    EXPECT_EQ(run("check-design --alignment pis.csv --criteria c.json --speed 99@0").exit, 2);
    EXPECT_EQ(run("check-design --alignment pis.csv --criteria c.json --speed 30").exit, 2);
    EXPECT_EQ(run("check-design --alignment pis.csv --criteria c.json --speed 30@9+000").exit, 2);
    put("bad.json", R"({"radius":60})");
    const auto bad = run("check-design --alignment pis.csv --criteria bad.json");
    EXPECT_EQ(bad.exit, 2);
    EXPECT_THAT(bad.err, HasSubstr("bad.json:1: 'radius' is no key of criteria"));
}

TEST_F(CliRoute, ProfileAlongAnAlignmentAndAcrossLines) {
    put("across.geojson",
        R"({"type":"FeatureCollection","features":[)"
        R"({"type":"Feature","properties":{"name":"a"},"geometry":{"type":"LineString","coordinates":[[40,-10,5],[40,10,7]]}},)"
        R"({"type":"Feature","properties":{"name":"b"},"geometry":{"type":"LineString","coordinates":[[120,-60,1],[180,-60,2]]}}]})");
    const auto out = run("profile --across across.geojson --along pis.csv -o p.csv --json");
    ASSERT_EQ(out.exit, 0) << out.err;
    EXPECT_EQ(out.parsed()["points"], 2);
    const std::string text = test::contentOf(folder / "p.csv");
    EXPECT_THAT(text, HasSubstr("station,easting,northing,height"));
    EXPECT_THAT(text, HasSubstr("\n40,40,0,6"));
    EXPECT_THAT(text, HasSubstr(",150,-60,1.5"));
    EXPECT_EQ(run("profile --along pis.csv -o q.csv").exit, 2);
}

}  // namespace
}  // namespace erdwerk
