// The command line as a person would use it: the real program on real files.

#include "cli/run_cli.h"
#include "core/format/output.h"
#include "core/format/project_file.h"
#include "core/format/project_lock.h"
#include "core/objects/points.h"
#include "core/operations/points.h"
#include "demo_site/site.h"
#include "support/after_edit.h"

namespace erdwerk {
namespace {

using nlohmann::json;
using test::Folder;

using test::cli;
using test::Run;

const std::string demo = test::demoFolder;

class Cli : public testing::Test {
protected:
    Folder folder;
    /// A plane z = x / 10 over 0..100, as plane.ply.
    void plane(const std::string& name, double lift = 0) {
        std::string csv = "number,easting,northing,height\n";
        int n = 0;
        for (int x = 0; x <= 100; x += 20)
            for (int y = 0; y <= 100; y += 20)
                csv += std::to_string(++n) + "," + std::to_string(x) + "," + std::to_string(y) + "," +
                       std::to_string(x / 10.0 + lift) + "\n";
        (void)folder.file(name + ".csv", csv);
        const auto run = cli(folder, "build --points " + name + ".csv -o " + name + ".ply --json");
        ASSERT_EQ(run.exit, 0) << run.err;
    }
};

TEST_F(Cli, BuildCountsWhatItMet) {
    (void)folder.file("p.csv", "name,x,y,z\n1,0,0,1\n2,10,0,1\n3,10,10,1\n4,0,10,\n5,0,0,7\n6,0,10,2\n");
    const auto run = cli(folder, "build --points p.csv -o g.xml --json");
    ASSERT_EQ(run.exit, 0) << run.err;
    const auto j = run.parsed();
    EXPECT_EQ(j["points"], 4);
    EXPECT_EQ(j["triangles"], 2);
    EXPECT_EQ(j["duplicates"], 1);
    EXPECT_EQ(j["withoutHeight"], 1);
    EXPECT_EQ(j["skippedRows"], 0);
    EXPECT_EQ(j["crossings"], 0);
    EXPECT_EQ(j["constraints"], 0);
}

TEST_F(Cli, ABadRowEndsTheCommandAndLeavesNoOutput) {
    (void)folder.file("p.csv", "number,easting,northing,height\n1,0,0,1\n2,10,oops,1\n3,10,10,1\n4,0,10,3\n");
    auto run = cli(folder, "build --points p.csv -o g.ply");
    EXPECT_EQ(run.exit, 2);
    EXPECT_EQ(run.err, "erdwerk-cli: p.csv:3: northing 'oops' is not a number\n");
    EXPECT_FALSE(std::filesystem::exists(folder / "g.ply"));
    run = cli(folder, "build --points p.csv --skip-bad-rows -o g.ply --json");
    EXPECT_EQ(run.exit, 1);
    EXPECT_EQ(run.parsed()["skippedRows"], 1);
}

TEST_F(Cli, AFigureOutOfRangeIsRefusedInWords) {
    plane("plane");
    for (const char* given : {"-3", "0", "nan", "inf", "2m"}) {
        const auto run =
            cli(folder, std::string("build --points plane.csv --max-edge ") + given + " -o out.ply");
        EXPECT_EQ(run.exit, 2) << given;
        EXPECT_THAT(run.err, testing::HasSubstr(std::string("must be above 0, not '") + given + "'"));
    }
    EXPECT_FALSE(std::filesystem::exists(folder / "out.ply"));
    EXPECT_THAT(cli(folder, "creases plane.csv --min-angle 120 -o out.gpkg").err,
                testing::HasSubstr("must be from 1 to 90, not '120'"));
}

TEST_F(Cli, ColumnsByLettersTakeANonNumberRowForAHeader) {
    (void)folder.file("a.csv", "1,0,5,1,x\n2,0,25,1,x\n3,20,5,1,x\n");
    (void)folder.file("b.csv", "Pkt;Nord;Ost;Z;C\n1;0;5;1;x\n2;0;25;1;x\n3;20;5;1;x\n");
    for (const char* name : {"a", "b"}) {
        const auto run = cli(folder, std::string("build --points ") + name + ".csv --columns PNEZD -o " +
                                         name + ".ply --json");
        ASSERT_EQ(run.exit, 0) << run.err;
        EXPECT_EQ(cli(folder, std::string("info ") + name + ".ply --json").parsed()["max"],
                  json::parse("[25.0, 20.0, 1.0]"));
    }
    EXPECT_EQ(cli(folder, "build --points a.csv -o c.ply").exit, 2);
}

TEST_F(Cli, AProjectWithUnsavedChangesIsSaidAndTheyAreTakenAlongWhenAsked) {
    plane("plane");
    ASSERT_EQ(cli(folder, "convert plane.csv -o site.erdwerk").exit, 0);
    EXPECT_EQ(cli(folder, "convert site.erdwerk -o a.csv --json").err, "");
    const std::string path = folder / "site.erdwerk";
    const auto project = test::valueOf(format::openProject(path));
    {
        auto journal = test::valueOf(
            format::Journal::start(format::journalPath(path), project.mark.stamp, project.document));
        const auto set = project.document.all<objects::Points>().front();
        ASSERT_TRUE(journal.append(
            "Raise point 1", test::afterEdit(project.document, operations::setPointHeight({set, 0}, 77.5))));
    }
    auto run = cli(folder, "convert site.erdwerk -o b.csv --json");
    EXPECT_EQ(run.exit, 0);
    EXPECT_THAT(run.err, testing::HasSubstr("1 unsaved change beside it, the last \"Raise point 1\""));
    EXPECT_THAT(test::contentOf(folder / "b.csv"), testing::Not(testing::HasSubstr("77.5")));
    run = cli(folder, "convert site.erdwerk --with-journal -o c.csv --json");
    EXPECT_THAT(run.err, testing::HasSubstr("taken along"));
    EXPECT_THAT(test::contentOf(folder / "c.csv"), testing::HasSubstr("77.5"));
    EXPECT_TRUE(std::filesystem::exists(format::journalPath(path)));
    // A project that somebody has open is not written over.
    const auto lock = test::valueOf(format::ProjectLock::take(format::canonicalPath(path)));
    run = cli(folder, "convert plane.csv -o site.erdwerk");
    EXPECT_EQ(run.exit, 2);
    EXPECT_THAT(run.err, testing::HasSubstr("is open"));
}

TEST_F(Cli, InfoGivesTheFiguresOfAPlane) {
    plane("plane");
    const auto j = cli(folder, "info plane.ply --json").parsed();
    EXPECT_EQ(j["points"], 36);
    EXPECT_EQ(j["triangles"], 50);
    EXPECT_DOUBLE_EQ(j["planArea"], 10000);
    EXPECT_NEAR(j["surfaceArea"].get<double>(), 10000 * std::sqrt(1.01), 1e-6);
    EXPECT_EQ(j["unit"], "m");
}

TEST_F(Cli, ContoursVolumeAndProfileOfPlanes) {
    plane("low");
    plane("high", 2);
    auto run = cli(folder, "contours low.ply --interval 1 --index 5 -o c.geojson --json");
    ASSERT_EQ(run.exit, 0) << run.err;
    EXPECT_EQ(run.parsed()["levels"], 10);  // 1 to 10; nothing lies below 0
    EXPECT_NEAR(run.parsed()["length"].get<double>(), 1000, 1e-6);
    const auto features = json::parse(test::contentOf(folder / "c.geojson"))["features"];
    EXPECT_EQ(features[4]["properties"]["height"], 5.0);
    EXPECT_EQ(features[4]["properties"]["index"], 1);
    EXPECT_EQ(features[3]["properties"]["index"], 0);
    EXPECT_EQ(features[3]["geometry"]["coordinates"][0].size(), 3U);

    run = cli(folder, "volume --from low.ply --to high.ply --json");
    EXPECT_NEAR(run.parsed()["fill"].get<double>(), 20000, 1e-6);
    EXPECT_EQ(run.parsed()["cut"], 0.0);
    (void)folder.file("ring.geojson",
                      R"({"type":"Polygon","coordinates":[[[10,10],[30,10],[30,50],[10,50],[10,10]]]})");
    EXPECT_NEAR(cli(folder, "volume --from low.ply --to high.ply --boundary ring.geojson --json")
                    .parsed()["net"]
                    .get<double>(),
                1600, 1e-6);

    (void)folder.file("l.geojson", R"({"type":"LineString","coordinates":[[-10,50],[110,50]]})");
    run = cli(folder, "profile low.ply --along l.geojson --interval 40 -o p.csv --json");
    ASSERT_EQ(run.exit, 0) << run.err;
    EXPECT_EQ(run.parsed()["points"], 4);
    EXPECT_EQ(test::contentOf(folder / "p.csv"),
              "station,easting,northing,height\n0,-10,50,\n40,30,50,3\n80,70,50,7\n120,110,50,\n");
    run = cli(folder, "profile low.ply --along l.geojson -o p.csv --json");
    EXPECT_GE(run.parsed()["points"], 9);
}

TEST_F(Cli, SampleKeepsTheColumnsAndAddsTheHeight) {
    plane("g");
    (void)folder.file("at.csv", "id,e,n,height\na,25,33.5,9\nb,200,5,9\n");
    const auto run = cli(folder, "sample g.ply --at at.csv -o out.csv --json");
    ASSERT_EQ(run.exit, 0) << run.err;
    EXPECT_EQ(run.parsed(), json::parse(R"({"inside":1,"outside":1})"));
    EXPECT_EQ(test::contentOf(folder / "out.csv"),
              "id,e,n,inputHeight,height\na,25,33.5,9,2.5\nb,200,5,9,\n");
}

TEST_F(Cli, DescribeGivesCoursesAndExitsOneWhenOpen) {
    auto run = cli(folder, "describe --parcel " + demo + "/plot.gpkg --json");
    ASSERT_EQ(run.exit, 0) << run.err;
    auto j = run.parsed();
    ASSERT_EQ(j["courses"].size(), 6U);
    EXPECT_EQ(j["courses"][1]["kind"], "curve");
    EXPECT_EQ(j["courses"][1]["side"], "left");
    EXPECT_EQ(j["courses"][1]["tangent"], true);
    EXPECT_EQ(j["courses"][3]["tangent"], false);
    EXPECT_EQ(j["closure"]["distance"], 0.0);
    EXPECT_TRUE(j["closure"]["ratio"].is_null());
    EXPECT_EQ(cli(folder, "describe --parcel " + demo + "/plot.gpkg --begin 2 --json")
                  .parsed()["courses"][0]["kind"],
              "curve");
    (void)folder.file("open.geojson",
                      R"({"type":"LineString","coordinates":[[0,0],[0,100],[100,100],[3,4]]})");
    run = cli(folder, "describe --parcel open.geojson --unit ftUS --json");
    EXPECT_EQ(run.exit, 1);
    EXPECT_NEAR(run.parsed()["closure"]["distance"].get<double>(), 5, 1e-12);
    EXPECT_EQ(cli(folder, "describe --parcel open.geojson --unit yard").exit, 2);
    EXPECT_EQ(cli(folder, "describe --parcel open.geojson --begin 9").exit, 2);
}

TEST_F(Cli, TableWritesWhatAProjectHolds) {
    const std::string project = demo + "/quillmoor.erdwerk";
    auto run = cli(folder, "table courses " + project + " -o c.csv --json");
    ASSERT_EQ(run.exit, 0) << run.err;
    EXPECT_EQ(json::parse(run.out)["rows"], 6);
    std::ifstream in(folder / "c.csv");
    std::string heading;
    std::string first;
    std::getline(in, heading);
    std::getline(in, first);
    EXPECT_EQ(heading, "parcel,course,kind,direction,distance,radius,delta,arc,side\r");
    EXPECT_EQ(first.substr(0, 9), "Plot Q-4,");
    run =
        cli(folder, "table points " + project + " " + project + " --columns number,height -o p.xlsx --json");
    ASSERT_EQ(run.exit, 0) << run.err;
    EXPECT_EQ(json::parse(run.out)["rows"], 2 * 591);
    EXPECT_EQ(cli(folder, "table volumes " + project + " -o v.csv").exit, 0);
    EXPECT_EQ(cli(folder, "table stations " + project + " -o s.csv").exit, 0);
    EXPECT_EQ(cli(folder, "table chairs " + project + " -o x.csv").exit, 2);
    EXPECT_EQ(cli(folder, "table points " + project + " --columns colour -o x.csv").exit, 2);
    EXPECT_EQ(cli(folder, "table points " + demo + "/survey.csv -o x.csv").exit, 2);
    EXPECT_EQ(cli(folder, "table points " + project + " -o x.txt").exit, 2);
    EXPECT_EQ(cli(folder, "table points -o x.csv").exit, 2);
    EXPECT_FALSE(std::filesystem::exists(folder / "x.csv"));
}

TEST_F(Cli, CheckFindsTheFaultsOfTheDemo) {
    const auto run = cli(folder, "check " + demo + "/survey.csv " + demo + "/lines.gpkg --json");
    EXPECT_EQ(run.exit, 1);
    std::vector<std::string> kinds;
    const auto parsed = run.parsed();
    for (const auto& f : parsed["findings"]) kinds.push_back(f["kind"]);
    EXPECT_THAT(kinds, testing::UnorderedElementsAre("crossing-breaklines", "same-place", "without-height",
                                                     "rim-needles"));
    EXPECT_EQ(run.parsed()["findings"][0]["heights"].size(), 2U);
    (void)folder.file("ok.csv", "number,easting,northing,height\n1,0,0,1\n2,9,0,1\n");
    EXPECT_EQ(cli(folder, "check ok.csv").exit, 0);
}

TEST_F(Cli, ConvertCarriesEverythingThroughAProject) {
    auto run = cli(folder, "convert " + demo + "/survey.csv " + demo + "/lines.gpkg -o a.erdwerk --json");
    ASSERT_EQ(run.exit, 0) << run.err;
    EXPECT_EQ(run.parsed()["lines"], 7);
    run = cli(folder, "convert " + demo + "/quillmoor.erdwerk -o b.xml --json");
    ASSERT_EQ(run.exit, 0) << run.err;
    EXPECT_EQ(run.parsed()["surfaces"], 2);
    EXPECT_FALSE(run.parsed()["left"].empty());
    EXPECT_EQ(cli(folder, "info b.xml --json").parsed()["triangles"],
              cli(folder, "info " + demo + "/quillmoor.erdwerk:Ground --json").parsed()["triangles"]);
    run = cli(folder, "convert b.xml -o c.csv --json");
    EXPECT_EQ(run.parsed()["points"].get<std::size_t>(), demo::survey(7).points.size());
    for (const char* name : {"d.gpkg", "e.geojson"})
        EXPECT_EQ(cli(folder, "convert " + demo + "/quillmoor.erdwerk -o " + name).exit, 0);
    EXPECT_EQ(cli(folder, "convert b.xml -o f.doc").exit, 2);
}

TEST_F(Cli, BadArgumentsAndFilesExitTwoWithOneLine) {
    (void)folder.file("x.ply", "nonsense");
    for (const char* arguments :
         {"", "nosuch", "info", "info none.ply", "info x.ply", "info a.txt", "build -o a.ply",
          "contours x.ply --interval 0 -o a.gpkg", "build --points none.csv -o a.ply",
          "volume --from x.ply --to x.ply", "help nosuch"}) {
        const auto run = cli(folder, arguments);
        EXPECT_EQ(run.exit, 2) << arguments;
        EXPECT_EQ(std::count(run.err.begin(), run.err.end(), '\n'), 1) << arguments << ": " << run.err;
    }
    EXPECT_FALSE(std::filesystem::exists(folder / "a.ply"));
}

TEST_F(Cli, HelpAndTheReferenceComeFromTheRegistry) {
    EXPECT_THAT(cli(folder, "help contours").out, testing::HasSubstr("Example: erdwerk-cli contours"));
    const auto page = cli(folder, "reference").out;
    for (const char* command : {"build", "info", "contours", "sample", "volume", "profile", "describe",
                                "check", "convert", "sheet"})
        EXPECT_THAT(page, testing::HasSubstr(std::string("## ") + command));
}

TEST_F(Cli, EveryExampleRunsOnTheDemoData) {
    std::filesystem::create_directory(folder / "data");
    std::filesystem::create_directory_symlink(demo, folder / "data/demo");
    std::istringstream page(cli(folder, "reference").out);
    std::string line;
    int examples = 0;
    while (std::getline(page, line)) {
        const std::string mark = "    erdwerk-cli ";
        if (line.rfind(mark, 0) != 0) continue;
        ++examples;
        const auto run = cli(folder, line.substr(mark.size()));
        // The demo has its deliberate faults: the checks say so.
        EXPECT_EQ(run.exit, line.find(" check") != std::string::npos ? 1 : 0) << line << "\n" << run.err;
    }
    EXPECT_EQ(examples, 31);
}

}  // namespace
}  // namespace erdwerk
