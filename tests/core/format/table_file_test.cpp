#include "core/format/table_file.h"

#include "core/format/output.h"
#include "support/geometry.h"

namespace erdwerk::format {
namespace {

using test::Folder;
using test::valueOf;

const Table table{"Section A/B", {"Station", "Ground, old"}, {{0.0, 320.125}, {12.5, std::nullopt}}, {}};

TEST(TableFile, CsvQuotesAndLeavesAbsentCellsEmpty) {
    EXPECT_EQ(toCsv(table), "Station,\"Ground, old\"\r\n0,320.125\r\n12.5,\r\n");
    EXPECT_EQ(toCsv({"t", {"Name", "Cut"}, {{1.0}}, {"a \"b\""}}, ';'), "Name;Cut\r\n\"a \"\"b\"\"\";1\r\n");
}

TEST(TableFile, XlsxIsAnArchiveWithTheNumbersInIt) {
    const Folder folder;
    ASSERT_TRUE(writeTable(folder / "t.xlsx", table));
    EXPECT_EQ(valueOf(readFile(folder / "t.xlsx")).substr(0, 2), "PK");
    const std::string command = "python3 -c \"import zipfile,sys;sys.stdout.write(zipfile.ZipFile('" +
                                (folder / "t.xlsx") + "').read('xl/worksheets/sheet1.xml').decode())\"";
    std::string xml;
    FILE* pipe = popen(command.c_str(), "r");
    ASSERT_NE(pipe, nullptr);
    char buffer[4096];
    while (std::size_t n = fread(buffer, 1, sizeof buffer, pipe)) xml.append(buffer, n);
    ASSERT_EQ(pclose(pipe), 0);
    EXPECT_THAT(xml, testing::HasSubstr("<v>320.125</v>"));
    EXPECT_THAT(xml, testing::HasSubstr("<v>12.5</v>"));
}

TEST(TableFile, OtherEndingsAndFoldersAreRefused) {
    const Folder folder;
    EXPECT_FALSE(writeTable(folder / "t.doc", table));
    EXPECT_FALSE(writeTable("/nowhere/at/all/t.xlsx", table));
    EXPECT_FALSE(writeTable("/nowhere/at/all/t.csv", table));
}

}  // namespace
}  // namespace erdwerk::format
