// Batters, pads and what a basin holds, through the command line.

#include <cmath>
#include <filesystem>

#include "cli/run_cli.h"

namespace erdwerk {
namespace {

using test::Folder;

std::string line(const std::string& coordinates) {
    return R"({"type":"FeatureCollection","features":[{"type":"Feature","properties":{"name":"E"},)"
           R"("geometry":{"type":"LineString","coordinates":)" +
           coordinates + "}}]}";
}

/// Level ground at 100 over 200 x 200.
class CliEarthwork : public testing::Test {
protected:
    CliEarthwork() {
        std::string csv = "number,easting,northing,height,code\n";
        int n = 0;
        for (const int x : {0, 70, 130, 200})
            for (const int y : {0, 70, 130, 200})
                csv += std::to_string(++n) + "," + std::to_string(x) + "," + std::to_string(y) + ",100,\n";
        put("ground.csv", csv);
        put("pad.geojson", line("[[90,90,105],[110,90,105],[110,110,105],[90,110,105],[90,90,105]]"));
        EXPECT_EQ(run("build --points ground.csv -o ground.ply").exit, 0);
    }
    test::Run run(const std::string& arguments) const { return test::cli(folder, arguments); }
    void put(const std::string& name, const std::string& content) const {
        static_cast<void>(folder.file(name, content));
    }
    const Folder folder;
};

double frustum(double outer, double inner, double depth) {
    return depth / 3 * (outer * outer + inner * inner + outer * inner);
}

TEST_F(CliEarthwork, BatterWritesFacesAndDaylight) {
    auto out = run(
        "batter --edge pad.geojson --side right --cut 1:1 --fill 2:1 --to-surface ground.ply -o faces.ply "
        "--daylight daylight.geojson --json");
    ASSERT_EQ(out.exit, 0) << out.err;
    auto json = out.parsed();
    EXPECT_NEAR(json["planArea"].get<double>(), 1200, 1e-8);
    EXPECT_NEAR(json["daylightLength"].get<double>(), 160, 1e-8);
    EXPECT_EQ(json["open"], 0);
    EXPECT_EQ(run("info faces.ply --json").parsed()["triangles"], json["triangles"]);
    const auto daylight = nlohmann::json::parse(test::contentOf(folder / "daylight.geojson"));
    EXPECT_NEAR(daylight["features"][0]["geometry"]["coordinates"][0][2].get<double>(), 100, 1e-9);
    // Inwards the falling faces meet before they get to the ground.
    out =
        run("batter --edge pad.geojson --side left --cut 1:1 --fill 4:1 --to-surface ground.ply -o in.ply "
            "--json");
    EXPECT_EQ(out.exit, 0) << out.err;
    EXPECT_NEAR(out.parsed()["planArea"].get<double>(), 400, 1e-7);
    out = run("batter --edge pad.geojson --side right --fill 2:1 --distance 4 --berm 104,1 -o d.ply --json");
    EXPECT_NEAR(out.parsed()["planArea"].get<double>(), 28 * 28 - 400, 1e-8) << out.err;
    out =
        run("batter --edge pad.geojson --side right --cut 1:1 --fill 2:1 --rise -3 --corners round -o r.ply "
            "--json");
    EXPECT_NEAR(out.parsed()["planArea"].get<double>(), 4 * 20 * 6 + M_PI * 36, 0.4) << out.err;
}

TEST_F(CliEarthwork, WhatIsNotReachedIsCountedAndExitsOne) {
    put("rim.geojson", line("[[150,100,120],[190,100,120]]"));
    auto out =
        run("batter --edge rim.geojson --side left --cut 1:1 --fill 10:1 --to-surface ground.ply -o x.ply "
            "--json");
    EXPECT_EQ(out.exit, 1);
    EXPECT_NEAR(out.parsed()["open"].get<double>(), 40, 1e-9);
    EXPECT_FALSE(std::filesystem::exists(folder / "x.ply"));
}

TEST_F(CliEarthwork, PadsTakeAHeightTheirRulesOrBalance) {
    auto out =
        run("pad --edge pad.geojson --rules --ground ground.ply --cut 2:1 --fill 2:1 --swell 1.2 "
            "--shrink 0.9 -o pad.ply --finished all.ply --json");
    ASSERT_EQ(out.exit, 0) << out.err;
    auto json = out.parsed();
    EXPECT_NEAR(json["height"].get<double>(), 105, 1e-12);
    EXPECT_NEAR(json["fill"].get<double>(), frustum(40, 20, 5), 1e-7);
    EXPECT_NEAR(json["net"].get<double>(), frustum(40, 20, 5) / 0.9, 1e-7);
    EXPECT_TRUE(json["balanceError"].is_null());
    // The ground against the finished ground has the same volumes.
    EXPECT_NEAR(run("volume --from ground.ply --to all.ply --json").parsed()["fill"].get<double>(),
                frustum(40, 20, 5), 1e-6);
    out =
        run("pad --edge pad.geojson --height 96 --ground ground.ply --cut 1:1 --fill 1:1 -o pit.ply --json");
    EXPECT_NEAR(out.parsed()["cut"].get<double>(), frustum(28, 20, 4), 1e-7);
    out = run(
        "pad --edge pad.geojson --balance --surplus 60 --swell 1.2 --ground ground.ply --cut 1:1 --fill 1:1 "
        "-o b.ply --json");
    ASSERT_EQ(out.exit, 0) << out.err;
    json = out.parsed();
    EXPECT_NEAR(json["cut"].get<double>() * 1.2, 60, 1e-6);
    EXPECT_LT(std::abs(json["balanceError"].get<double>()), 1e-6);
    // No height leaves that much.
    out =
        run("pad --edge pad.geojson --balance --surplus 1e9 --ground ground.ply --cut 1:1 --fill 1:1 -o "
            "c.ply --json");
    EXPECT_EQ(out.exit, 1);
    EXPECT_NE(out.err.find("no height balances"), std::string::npos) << out.err;
}

TEST_F(CliEarthwork, StorageIsAStageTableUpToTheSpill) {
    run("pad --edge pad.geojson --height 96 --ground ground.ply --cut 1:1 --fill 1:1 -o pit.ply --finished "
        "all.ply");
    put("ring.geojson", line("[[80,80],[120,80],[120,120],[80,120],[80,80]]"));
    for (const char* of : {"pit.ply", "all.ply --inside ring.geojson"}) {
        const auto out = run(std::string("storage ") + of + " --step 1 --json");
        ASSERT_EQ(out.exit, 0) << out.err;
        const auto json = out.parsed();
        EXPECT_NEAR(json["spill"].get<double>(), 100, 1e-9);
        ASSERT_EQ(json["stages"].size(), 5U);
        EXPECT_NEAR(json["stages"][2]["volume"].get<double>(), frustum(24, 20, 2), 1e-6);
        EXPECT_NEAR(json["stages"][4]["area"].get<double>(), 28 * 28, 1e-6);
    }
    EXPECT_EQ(run("storage ground.ply").exit, 2);
}

TEST_F(CliEarthwork, FiguresThatAreNoneAreRefusedByTheirOption) {
    const std::string pad = "pad --edge pad.geojson --ground ground.ply --cut 1:1 --fill 2:1 -o p.ply ";
    for (const auto& [given, said] :
         {std::pair{"--height nan", "--height: must be a figure, not 'nan'"},
          {"--height inf", "--height: must be a figure, not 'inf'"},
          {"--height 105 --swell 0", "--swell: must be above 0, not '0'"},
          {"--height 105 --shrink -1", "--shrink: must be above 0, not '-1'"},
          {"--balance --surplus -inf", "--surplus: must be a figure, not '-inf'"}}) {
        const auto out = run(pad + given);
        EXPECT_EQ(out.exit, 2) << given;
        EXPECT_EQ(out.err, std::string("erdwerk-cli: ") + said + "\n") << given;
        EXPECT_FALSE(std::filesystem::exists(folder / "p.ply")) << given;
    }
    EXPECT_EQ(run(pad + "--balance --surplus -10 --json").exit, 0);
    const auto out = run("batter --edge pad.geojson --side right --cut 1:1 --distance 4 -o b.ply --json");
    EXPECT_EQ(out.exit, 0) << out.err;
    // It rises: 28 x 28 less 20 x 20.
    EXPECT_NEAR(out.parsed()["planArea"].get<double>(), 384, 1e-8);
}

TEST_F(CliEarthwork, BadInputIsOneLineAndExitTwo) {
    put("bow.geojson", line("[[0,0,105],[10,10,105],[10,0,105],[0,10,105],[0,0,105]]"));
    put("flat.geojson", line("[[90,90],[110,90],[110,110],[90,90]]"));
    put("open.geojson", line("[[90,90,101],[110,90,101]]"));
    const std::string rest = " --ground ground.ply --cut 1:1 --fill 1:1 -o x.ply";
    for (const std::string& bad :
         {"pad --edge bow.geojson --rules" + rest, "pad --edge flat.geojson --rules" + rest,
          "pad --edge open.geojson --rules" + rest, "pad --edge pad.geojson" + rest,
          "pad --edge pad.geojson --rules --height 4" + rest, "pad --edge none.geojson --rules" + rest,
          std::string("pad --edge pad.geojson --rules --ground ground.ply --cut 0:1 --fill 1:1 -o x.ply"),
          std::string("pad --edge pad.geojson --rules --ground ground.ply --cut 2 --fill 1:1 -o x.ply"),
          "pad --edge pad.geojson --rules --berm 103" + rest,
          "pad --edge pad.geojson --balance --swell 0" + rest,
          std::string("batter --edge pad.geojson --side right --cut 1:1 --fill 1:1 -o x.ply"),
          std::string("batter --edge pad.geojson --side right --cut 1:1 --fill 1:1 --distance 3 -o x.ply"),
          std::string(
              "batter --edge pad.geojson --side right --cut 1:1 --fill 1:1 --rise 2 --to-height 3 -o x.ply"),
          std::string("storage pad.geojson")}) {
        const auto out = run(bad);
        EXPECT_EQ(out.exit, 2) << bad << "\n" << out.err;
        EXPECT_EQ(std::count(out.err.begin(), out.err.end(), '\n'), 1) << bad << "\n" << out.err;
        EXPECT_FALSE(std::filesystem::exists(folder / "x.ply")) << bad;
    }
}

}  // namespace
}  // namespace erdwerk
