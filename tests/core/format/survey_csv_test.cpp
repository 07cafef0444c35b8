#include "core/format/survey_csv.h"

#include "support/geometry.h"

namespace erdwerk::format {
namespace {

using test::valueOf;

CsvPoints read(const std::string& text) {
    const auto layout = valueOf(proposeLayout(text, "f.csv"));
    return valueOf(readPoints(text, layout, LengthUnit::Metre, "f.csv"));
}

TEST(Csv, ReadsNamedColumnsInAnyOrder) {
    const auto r = read("code,h,n,e,id\nGRND,312.5,91000,48000,17\n,,91001,48001,18\n");
    ASSERT_EQ(r.points.size(), 2U);
    EXPECT_EQ(r.points[0], (survey::SurveyPoint{"17", {48000, 91000}, 312.5, "GRND", ""}));
    EXPECT_FALSE(r.points[1].height);
}

TEST(Csv, FindsSeparatorAndDecimalComma) {
    EXPECT_DOUBLE_EQ(
        *read("number;easting;northing;height\n1;10,5;20,25;3,125\n2;11,5;21,25;\n").points[0].height, 3.125);
    EXPECT_EQ(read("number\teasting\tnorthing\n1\t10.5\t20\n").points.size(), 1U);
    EXPECT_EQ(read("number  easting   northing\n1   10.5  20\n").points.size(), 1U);
}

TEST(Csv, AcceptsBomCrlfCrLatin1AndBlankRows) {
    EXPECT_EQ(read("\xEF\xBB\xBFnumber,easting,northing\r\n\r\n1,2,3\r\n").points.size(), 1U);
    EXPECT_EQ(read("number,easting,northing\r1,2,3\r4,5,6\r").points.size(), 2U);
    EXPECT_EQ(read("number,easting,northing,note\n1,2,3,B\xF6schung\n").points[0].note, "Böschung");
}

TEST(Csv, ReadsQuotedCellsOverLines) {
    const auto r = read("number,easting,northing,note\n1,2,3,\"a, \"\"b\"\"\nc\"\n2,3,4,\n");
    ASSERT_EQ(r.points.size(), 2U);
    EXPECT_EQ(r.points[0].note, "a, \"b\"\nc");
    EXPECT_EQ(r.lines[1], 4);
}

TEST(Csv, SkipsWhatCannotBeReadWithLineAndReason) {
    const auto r = read(
        "number,easting,northing,height\n1,2,3,4\n2,x,3,4\n3,5\n4,nan,1,1\n5,1e99,1,1\n6,1,inf,1\n7,,1,1\n8,"
        "1,1,abc\n9,1,1,\n");
    EXPECT_EQ(r.points.size(), 2U);
    ASSERT_EQ(r.skipped.size(), 7U);
    EXPECT_EQ(r.skipped[0].line, 3);
    EXPECT_EQ(r.skipped[0].reason, "easting 'x' is not a number");
    EXPECT_EQ(r.skipped[1].reason, "column 3 (northing) is missing");
    EXPECT_THAT(r.skipped[3].reason, testing::HasSubstr("out of range"));
    EXPECT_EQ(r.skipped[5].reason, "easting is empty");
}

TEST(Csv, ConvertsUnits) {
    auto layout = valueOf(proposeLayout("easting,northing,height\n1000,0,10\n", "f"));
    layout.unit = LengthUnit::InternationalFoot;
    const auto r =
        valueOf(readPoints("easting,northing,height\n1000,0,10\n", layout, LengthUnit::Metre, "f"));
    EXPECT_DOUBLE_EQ(r.points[0].plan.x, 304.8);
    EXPECT_DOUBLE_EQ(*r.points[0].height, 3.048);
}

TEST(Csv, RefusesWhatIsNotATable) {
    EXPECT_EQ(proposeLayout("", "f").error().text, "the file is empty");
    EXPECT_FALSE(proposeLayout(" \n\n", "f"));
    EXPECT_THAT(proposeLayout(std::string("PK\0\1", 4), "f").error().text,
                testing::HasSubstr("not a text file"));
    EXPECT_THAT(proposeLayout("\xFF\xFE"
                              "1,2",
                              "f")
                    .error()
                    .text,
                testing::HasSubstr("UTF-16"));
    EXPECT_FALSE(proposeLayout("hello\nworld\n", "f"));
    const std::string huge = "number,easting,northing\n" + std::string(1'500'000, '7');
    EXPECT_EQ(readTable(huge, ',', "f").error().line, 2);
    EXPECT_FALSE(readPoints("1,2,3\n", CsvLayout{',', false, false, LengthUnit::Metre, {Column::Number}},
                            LengthUnit::Metre, "f"));
}

TEST(Csv, LettersNameColumns) {
    EXPECT_THAT(valueOf(columnsByLetters("PNEZD-")),
                testing::ElementsAre(Column::Number, Column::Northing, Column::Easting, Column::Height,
                                     Column::Code, Column::Ignore));
    EXPECT_FALSE(columnsByLetters("PNQ"));
}

TEST(Csv, RoundTripIsExact) {
    std::mt19937 random(8);
    std::uniform_real_distribution<double> any(-1e6, 1e6);
    std::vector<survey::SurveyPoint> points;
    for (int i = 0; i < 300; ++i)
        points.push_back({std::to_string(i),
                          {any(random), any(random)},
                          i % 3 == 0 ? std::nullopt : std::optional(any(random)),
                          i % 2 ? "A,\"b\"" : "",
                          "n"});
    EXPECT_EQ(read(writePoints(points)).points, points);
    // For people: rounded, with the unit in the heading, and read back all the same.
    DisplaySettings shown;
    shown.heightDecimals = 1;
    const std::string text = writePoints({{"7", {1.23456, 2}, 3.14159, "A", ""}}, &shown);
    EXPECT_EQ(text, "number,easting [m],northing [m],height [m],code,note\n7,1.23,2.00,3.1,A,\n");
    EXPECT_EQ(read(text).points.front().height, 3.1);
}

}  // namespace
}  // namespace erdwerk::format
