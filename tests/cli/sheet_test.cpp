// The sheets of the demo without a window, opened by poppler.

#include <filesystem>

#include "cli/run_cli.h"
#include "support/geometry.h"

namespace erdwerk {
namespace {

using test::cli;
using testing::ElementsAre;
using testing::HasSubstr;

const std::string project = std::string(test::demoFolder) + "/quillmoor.erdwerk";

/// What a program prints.
std::string printed(const std::string& command) {
    std::string out;
    FILE* pipe = popen((command + " 2>&1").c_str(), "r");
    char buffer[4096];
    while (const std::size_t n = fread(buffer, 1, sizeof buffer, pipe)) out.append(buffer, n);
    pclose(pipe);
    return out;
}

TEST(SheetCommand, WritesTheSetAsPagesWithNothingOnAnother) {
    test::Folder folder;
    const auto run = cli(folder, "sheet " + project + " -o set.pdf --json");
    ASSERT_EQ(run.exit, 0) << run.err;
    std::vector<std::string> names;
    std::vector<std::string> kinds;
    const auto json = run.parsed();
    for (const auto& sheet : json["sheets"]) {
        names.push_back(sheet["name"]);
        EXPECT_EQ(sheet["file"], "set.pdf");
        EXPECT_EQ(sheet["overlaps"], 0) << names.back();
        for (const auto& frame : sheet["frames"])
            kinds.push_back(frame["kind"].get<std::string>() + " " +
                            std::to_string(static_cast<int>(frame["scale"].get<double>())));
    }
    EXPECT_THAT(names, ElementsAre("Plan of Plot Q-4", "Starling Lane", "Earthworks"));
    EXPECT_THAT(kinds, ElementsAre("plan 500", "plan 750", "profile 750", "plan 750", "section 250"));
    const std::string pdf = (folder / "set.pdf");
    const std::string info = printed("pdfinfo -f 1 -l 3 " + pdf);
    // A3 to the hundredth of a point: 420 by 297 mm.
    for (const char* page : {"Page    1 size:  1190.55 x 841.89", "Page    2 size:  1190.55 x 841.89",
                             "Page    3 size:  1190.55 x 841.89"})
        EXPECT_THAT(info, HasSubstr(page));
    const std::string words = printed("pdftotext -layout " + pdf + " -");
    for (const char* word : {"Containing 4343.56 square metres", "0+100.00", "Lane formation pad", "2/3"})
        EXPECT_THAT(words, HasSubstr(word));
}

TEST(SheetCommand, TakesTheSheetsThatAreNamedAndNumbersDrawings) {
    test::Folder folder;
    const auto one = cli(folder, "sheet " + project + " --sheet Earthworks -o one.svg --json");
    ASSERT_EQ(one.exit, 0) << one.err;
    EXPECT_EQ(one.parsed()["sheets"].size(), 1U);
    EXPECT_TRUE(std::filesystem::exists(folder / "one.svg"));
    const auto all = cli(folder, "sheet " + project + " -o all.svg --json");
    ASSERT_EQ(all.exit, 0) << all.err;
    EXPECT_EQ(all.parsed()["sheets"][2]["file"], "all-3.svg");
    EXPECT_GT(std::filesystem::file_size(folder / "all-3.svg"), 10000U);
    EXPECT_FALSE(std::filesystem::exists(folder / "all.svg"));
}

TEST(SheetCommand, WhatCannotBeIsSaidAndLeavesNoFile) {
    test::Folder folder;
    const auto none = cli(folder, "sheet " + project + " --sheet Nowhere -o x.pdf");
    EXPECT_EQ(none.exit, 2);
    EXPECT_THAT(none.err, HasSubstr("Nowhere"));
    const auto ending = cli(folder, "sheet " + project + " -o x.doc");
    EXPECT_EQ(ending.exit, 2);
    EXPECT_THAT(ending.err, HasSubstr(".pdf or .svg"));
    (void)folder.file("damaged.erdwerk", "no project");
    EXPECT_EQ(cli(folder, "sheet damaged.erdwerk -o x.pdf").exit, 2);
    EXPECT_EQ(cli(folder, "sheet " + project + " -o /nowhere/at/all.pdf").exit, 2);
    for (const char* name : {"x.pdf", "x.doc"}) EXPECT_FALSE(std::filesystem::exists(folder / name));
}

}  // namespace
}  // namespace erdwerk
