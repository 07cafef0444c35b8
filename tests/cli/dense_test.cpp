// Commands on clouds, rasters and surfaces from them.

#include <signal.h>
#include <unistd.h>

#include <cmath>
#include <fstream>
#include <string>

#include "cli/run_cli.h"
#include "core/format/las.h"
#include "core/format/ply.h"
#include "core/format/vector_file.h"
#include "demo_site/cloud.h"

namespace erdwerk {
namespace {

using test::cli;
using test::valueOf;

class DenseCli : public testing::Test {
protected:
    test::Folder folder;
    /// A square of 100 by 100 with a bump, every metre, as text.
    void bump(const std::string& name) {
        std::string text;
        for (int x = 0; x <= 100; ++x)
            for (int y = 0; y <= 100; ++y)
                text += std::to_string(x) + " " + std::to_string(y) + " " +
                        std::to_string(10 *
                                       std::exp(-((x - 50.0) * (x - 50.0) + (y - 50.0) * (y - 50.0)) / 400)) +
                        "\n";
        (void)folder.file(name, text);
    }
};

TEST_F(DenseCli, CloudInfoCountsClassesAndReturns) {
    const auto made = demo::makeCloud(demo::northKnoll());
    ASSERT_TRUE(format::writeLas(folder / "k.las", made.cloud));
    const auto run = cli(folder, "cloud-info k.las --json");
    ASSERT_EQ(run.exit, 0) << run.err;
    const auto j = run.parsed();
    EXPECT_EQ(j["points"], made.cloud.size());
    EXPECT_EQ(j["version"], "1.4");
    EXPECT_EQ(j["pointFormat"], 7);
    EXPECT_EQ(j["classes"]["1"], made.cloud.size());
    EXPECT_EQ(j["returns"]["1"], made.cloud.size());
    EXPECT_EQ(j["min"][2], made.cloud.min().z);
    EXPECT_EQ(j["max"][0], made.cloud.max().x);
}

TEST_F(DenseCli, ThinAndFitAgreeOnEveryPoint) {
    bump("b.xyz");
    auto run = cli(folder, "thin b.xyz --tolerance 0.05 -o b.ply --json");
    ASSERT_EQ(run.exit, 0) << run.err;
    const auto thinned = run.parsed();
    EXPECT_EQ(thinned["pointsIn"], 101 * 101);
    EXPECT_LE(thinned["largestDeviation"], 0.05);
    EXPECT_EQ(thinned["excused"], 0);
    run = cli(folder, "fit b.ply --source b.xyz --tolerance 0.05 --json");
    ASSERT_EQ(run.exit, 0) << run.err;
    const auto fitted = run.parsed();
    EXPECT_EQ(fitted["points"], 101 * 101);
    EXPECT_EQ(fitted["outside"], 0);
    EXPECT_EQ(fitted["within"], 1.0);
    EXPECT_DOUBLE_EQ(std::max(fitted["largestUp"].get<double>(), -fitted["largestDown"].get<double>()),
                     thinned["largestDeviation"].get<double>());
    // A tighter tolerance than it was thinned with is not kept: exit 1.
    EXPECT_EQ(cli(folder, "fit b.ply --source b.xyz --tolerance 0.01").exit, 1);
    EXPECT_TRUE(cli(folder, "fit b.ply --source b.xyz --json").parsed()["within"].is_null());
}

TEST_F(DenseCli, GroundChangesClassesOnly) {
    const auto made = demo::makeCloud(demo::northKnoll());
    ASSERT_TRUE(format::writeLas(folder / "k.las", made.cloud, true));
    const auto run = cli(folder, "ground k.las -o g.las --json");
    ASSERT_EQ(run.exit, 0) << run.err;
    const auto j = run.parsed();
    EXPECT_EQ(j["ground"].get<std::size_t>() + j["other"].get<std::size_t>(), made.cloud.size());
    const auto before = test::contentOf(folder / "k.las");
    const auto after = test::contentOf(folder / "g.las");
    ASSERT_EQ(before.size(), after.size());
    std::size_t changed = 0;
    for (std::size_t i = 0; i < before.size(); ++i) changed += before[i] != after[i] ? 1 : 0;
    EXPECT_EQ(changed, j["ground"].get<std::size_t>());
}

TEST_F(DenseCli, BuildTakesCloudsByClassRastersAndOpenings) {
    bump("b.xyz");
    ASSERT_EQ(cli(folder, "build --cloud b.xyz -o b.ply").exit, 0);
    ASSERT_EQ(cli(folder, "raster b.ply --cell 2 --double -o b.tif").exit, 0);
    auto run = cli(folder, "build --raster b.tif -o r.ply --json");
    ASSERT_EQ(run.exit, 0) << run.err;
    EXPECT_EQ(run.parsed()["points"], 50 * 50);
    (void)folder.file("o.geojson",
                      R"({"type":"Polygon","coordinates":[[[40,40],[60,40],[60,60],[40,60],[40,40]]]})");
    run = cli(folder, "build --cloud b.xyz --opening o.geojson -o o.ply --json");
    ASSERT_EQ(run.exit, 0) << run.err;
    EXPECT_NEAR(cli(folder, "info o.ply --json").parsed()["planArea"].get<double>(), 10000 - 400, 1e-6);
    (void)folder.file("x.geojson", R"({"type":"FeatureCollection","features":[
        {"type":"Feature","properties":{},"geometry":{"type":"LineString","coordinates":[[10,20.5,50],[30,20.5,50]]}},
        {"type":"Feature","properties":{},"geometry":{"type":"LineString","coordinates":[[20.5,10,54],[20.5,30,54]]}}]})");
    (void)folder.file("at.csv", "x,y\n20.5,20.5\n");
    for (const auto& [rule, height] : {std::pair{"first", 50.0}, std::pair{"higher", 54.0},
                                       std::pair{"lower", 50.0}, std::pair{"mean", 52.0}}) {
        run = cli(folder, std::string("build --cloud b.xyz --lines x.geojson --on-crossing ") + rule +
                              " -o c.ply --json");
        ASSERT_EQ(run.exit, 0) << run.err;
        EXPECT_EQ(run.parsed()["crossings"], 1);
        ASSERT_EQ(cli(folder, "sample c.ply --at at.csv -o h.csv").exit, 0);
        EXPECT_EQ(test::contentOf(folder / "h.csv"),
                  "x,y,height\n20.5,20.5," + std::to_string(static_cast<int>(height)) + "\n");
    }
    EXPECT_EQ(cli(folder, "build --cloud b.xyz --on-crossing best -o c.ply").exit, 2);
}

TEST_F(DenseCli, ExtractGivesEachKind) {
    bump("b.xyz");
    ASSERT_EQ(cli(folder, "thin b.xyz --tolerance 0.2 -o b.ply").exit, 0);
    const auto tin = valueOf(format::readPly(folder / "b.ply"));
    const auto count = [&](const std::string& what, const std::string& more = {}) {
        const auto run = cli(folder, "extract b.ply --what " + what + more + " -o " + what + ".gpkg --json");
        EXPECT_EQ(run.exit, 0) << run.err;
        return run.parsed()["features"].get<std::size_t>();
    };
    EXPECT_EQ(count("triangles"), tin.triangleCount());
    EXPECT_EQ(count("points"), tin.vertexCount());
    EXPECT_EQ(count("edge"), 1U);
    EXPECT_EQ(count("contours", " --interval 1"), 9U);  // closed rings round the bump at 1 to 9
    const auto edge = valueOf(format::readVectorFile(folder / "edge.gpkg"));
    ASSERT_EQ(edge.lines.size(), 1U);
    EXPECT_TRUE(edge.lines[0].line.closed);
    EXPECT_EQ(cli(folder, "extract b.ply --what contours -o c.gpkg").err,
              "erdwerk-cli: contours need an --interval\n");
}

TEST_F(DenseCli, SurfacesGoOutAndInAsObjGltfLandXmlAndGeoPackage) {
    (void)folder.file("p.csv",
                      "number,easting,northing,height\n1,0,0,1\n2,10,0,2\n3,10,10,3\n4,0,10,4\n5,4,6,9\n");
    ASSERT_EQ(cli(folder, "build --points p.csv -o p.ply --json").exit, 0);
    ASSERT_EQ(cli(folder, "convert p.ply -o p.erdwerk --json").exit, 0);
    for (const char* file : {"a.obj", "a.glb", "a.xml", "a.gpkg"}) {
        const auto out = cli(folder, std::string("convert p.erdwerk -o ") + file + " --json");
        ASSERT_EQ(out.exit, 0) << file << out.err;
        const auto back = cli(folder, std::string("convert ") + file + " -o b.erdwerk --json");
        ASSERT_EQ(back.exit, 0) << file << back.err;
        EXPECT_EQ(back.parsed()["surfaces"], 1) << file;
        const auto info = cli(folder, "info b.erdwerk --json").parsed();
        EXPECT_EQ(info["triangles"], 4) << file;
        EXPECT_NEAR(info["max"][2].get<double>(), 9, 1e-4) << file;
    }
}

TEST_F(DenseCli, RasterSamplesCellCentres) {
    (void)folder.file("p.csv", "x,y,z\n0,0,0\n10,0,10\n10,10,10\n0,10,0\n");
    ASSERT_EQ(cli(folder, "build --points p.csv -o p.ply").exit, 0);
    const auto run = cli(folder, "raster p.ply --cell 2.5 --double -o p.asc.tif --json");
    ASSERT_EQ(run.exit, 0) << run.err;
    EXPECT_EQ(run.parsed(), (nlohmann::json{{"columns", 4}, {"rows", 4}, {"inside", 16}}));
    ASSERT_EQ(cli(folder, "build --raster p.asc.tif -o q.ply").exit, 0);
    const auto tin = valueOf(format::readPly(folder / "q.ply"));
    for (const auto& v : tin.vertices()) EXPECT_DOUBLE_EQ(v.z, v.x);  // the plane z = x
}

TEST_F(DenseCli, CreasesHaveTheirKind) {
    std::string text;
    for (int x = 0; x <= 100; ++x)
        for (int y = 0; y <= 100; ++y)  // a bank 10 high, 1 : 1, from y = 40 to 50
            text += std::to_string(x * 0.5) + " " + std::to_string(y) + " " +
                    std::to_string(std::clamp(y - 40, 0, 10)) + "\n";
    (void)folder.file("bank.xyz", text);
    const auto run = cli(folder, "creases bank.xyz --min-length 20 -o c.geojson --json");
    ASSERT_EQ(run.exit, 0) << run.err;
    EXPECT_EQ(run.parsed()["lines"], 2);
    const auto lines = valueOf(format::readVectorFile(folder / "c.geojson"));
    const std::string json = test::contentOf(folder / "c.geojson");
    EXPECT_NE(json.find("\"crest\""), std::string::npos);
    EXPECT_NE(json.find("\"toe\""), std::string::npos);
    for (const auto& line : lines.lines)
        for (const auto& v : line.line.vertices)
            EXPECT_LT(std::min(std::abs(v.place.y - 40), std::abs(v.place.y - 50)), 1);
}

TEST_F(DenseCli, BadFilesAreOneLineAndExitTwo) {
    (void)folder.file("bad.las", "LASF");
    (void)folder.file("bad.xyz", "1 2 3\n4 five 6\n");
    (void)folder.file("bad.tif", "II");
    for (const std::string command :
         {"cloud-info bad.las", "thin bad.xyz --tolerance 1 -o o.ply", "build --raster bad.tif -o o.ply",
          "build --cloud missing.las -o o.ply", "ground bad.las -o o.las", "creases bad.xyz -o o.gpkg",
          "thin bad.xyz --tolerance 0 -o o.ply", "fit missing.ply --source bad.xyz",
          "raster missing.ply --cell 1 -o o.tif"}) {
        const auto run = cli(folder, command);
        EXPECT_EQ(run.exit, 2) << command;
        EXPECT_EQ(std::count(run.err.begin(), run.err.end(), '\n'), 1) << command << ": " << run.err;
        EXPECT_EQ(run.err.rfind("erdwerk-cli: ", 0), 0U);
    }
    EXPECT_EQ(cli(folder, "thin bad.xyz --tolerance 1 -o o.ply").err,
              "erdwerk-cli: bad.xyz:2: expected x y z, found '4 five 6'\n");
    EXPECT_FALSE(std::filesystem::exists(folder / "o.ply"));
}

/// As the kernel says it (proc(5), SigCgt).
bool catchesInterrupt(pid_t process) {
    std::ifstream status("/proc/" + std::to_string(process) + "/status");
    for (std::string line; std::getline(status, line);)
        if (line.rfind("SigCgt:", 0) == 0)
            return (std::stoull(line.substr(7), nullptr, 16) >> (SIGINT - 1) & 1U) != 0;
    return false;
}

TEST_F(DenseCli, CtrlCEndsCleanlyWithoutOutput) {
    auto plan = demo::northKnoll();
    plan.spacing = 0.06;
    plan.shrubs = false;
    ASSERT_TRUE(format::writeLas(folder / "big.las", demo::makeCloud(plan).cloud));
    const std::string output = folder / "o.ply";
    const std::string input = folder / "big.las";
    const pid_t child = ::fork();
    if (child == 0) {
        (void)std::freopen("/dev/null", "w", stderr);
        ::execl(test::cliBinary, test::cliBinary, "thin", input.c_str(), "--tolerance", "0.011", "-o",
                output.c_str(), nullptr);
        ::_exit(99);
    }
    // On a busy machine it may not be there yet.
    for (int i = 0; i < 1000 && !catchesInterrupt(child); ++i) ::usleep(10000);
    ASSERT_TRUE(catchesInterrupt(child));
    ::usleep(200000);
    ::kill(child, SIGINT);
    int status = 0;
    ::waitpid(child, &status, 0);
    ASSERT_TRUE(WIFEXITED(status));
    EXPECT_EQ(WEXITSTATUS(status), 130);
    EXPECT_EQ(folder.entries(), 1U);
}

}  // namespace
}  // namespace erdwerk
