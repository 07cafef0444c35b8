#include "core/format/record_tables.h"

#include "core/operations/records.h"
#include "core/operations/routes.h"
#include "support/plane_site.h"

namespace erdwerk::format {
namespace {

using test::Folder;
using test::PlaneSite;
using test::valueOf;
using testing::ElementsAre;
using testing::HasSubstr;

std::vector<std::string> textsOf(const std::vector<RecordCell>& row) {
    std::vector<std::string> out;
    for (const auto& cell : row) out.push_back(cell.text);
    return out;
}

/// The plot as a parcel of 30 by 30, with a quarter circle of radius 30 in place of its third corner.
struct Records : PlaneSite {
    ObjectId parcel;
    Records() {
        EXPECT_TRUE(apply(operations::makeParcel(plot)));
        parcel = last<objects::Parcel>();
    }
    RecordRows table(RecordTable which) { return recordRows(*results(), which); }
};

TEST(RecordTables, CoursesHoldLinesAndCurvesInTheDisplaysStyle) {
    Records s;
    const auto straight = s.table(RecordTable::Courses);
    ASSERT_EQ(straight.rows.size(), 4U);
    EXPECT_THAT(textsOf(straight.rows[0]),
                ElementsAre("Parcel 1", "L1", "line", "due East", "30.00", "", "", "", ""));
    EXPECT_THAT(textsOf(straight.rows[1]),
                ElementsAre("Parcel 1", "L2", "line", "due North", "30.00", "", "", "", ""));
    // A half circle over the first side: radius 15, arc 15 pi.
    s.document = document::changed<objects::Line>(s.document, s.plot, [](objects::Line& l) {
        l.line.vertices[0].through = geometry::Vec2{75, 45};
    });
    const auto bent = s.table(RecordTable::Courses);
    EXPECT_THAT(textsOf(bent.rows[0]), ElementsAre("Parcel 1", "C1", "curve", "due East", "30.00", "15.00",
                                                   "180°00'00\"", "47.12", "left"));
    const auto curves = s.table(RecordTable::Curves);
    ASSERT_EQ(curves.rows.size(), 1U);
    // Tangents of half a circle never meet.
    EXPECT_THAT(textsOf(curves.rows[0]), ElementsAre("Parcel 1", "C1", "15.00", "180°00'00\"", "47.12",
                                                     "due East", "30.00", "", "left"));
}

TEST(RecordTables, CurvesAndStationsOfAlignments) {
    Records s;
    objects::Alignment made;
    made.startStation = 1000;
    made.pis = {{{0, 0}}, {{100, 0}, 40}, {{100, 100}}};
    ASSERT_TRUE(s.apply(operations::addAlignment("Way", made)));
    const auto curves = s.table(RecordTable::Curves);
    ASSERT_EQ(curves.rows.size(), 1U);
    EXPECT_THAT(textsOf(curves.rows[0]), ElementsAre("Way", "C1", "40.00", "90°00'00\"", "62.83",
                                                     "N 45°00'00\" E", "56.57", "40.00", "left"));
    const auto stations = s.table(RecordTable::Stations);
    ASSERT_EQ(stations.rows.size(), 4U);
    EXPECT_THAT(textsOf(stations.rows[1]), ElementsAre("Way", "PC", "1+060.00", "60.00", "0.00", "due East"));
}

TEST(RecordTables, PointsAndAreas) {
    Records s;
    const auto points = s.table(RecordTable::Points);
    ASSERT_EQ(points.rows.size(), 5U);
    EXPECT_THAT(textsOf(points.rows[2]), ElementsAre("Spots", "3", "100.00", "100.00", "13.00", "G", ""));
    const auto areas = s.table(RecordTable::Areas);
    ASSERT_EQ(areas.rows.size(), 1U);
    EXPECT_THAT(areas.header, ElementsAre("parcel", "area", "hectares", "perimeter", "misclosure"));
    EXPECT_THAT(textsOf(areas.rows[0]), ElementsAre("Parcel 1", "900.00", "0.0900", "120.00", "0.0000"));
    auto settings = s.document.settings();
    settings.display.unit = LengthUnit::InternationalFoot;
    s.document = s.document.withSettings(settings);
    const auto feet = s.table(RecordTable::Areas);
    EXPECT_EQ(feet.header[2], "acres");
    EXPECT_EQ(feet.rows[0][2].text, "0.0207");  // 900 / 43 560
    EXPECT_TRUE(s.table(RecordTable::Volumes).rows.empty());
}

TEST(RecordTables, ColumnsAreChosenAndOrdered) {
    Records s;
    const auto chosen = valueOf(withColumns(s.table(RecordTable::Points), {"height", "number"}));
    EXPECT_THAT(chosen.header, ElementsAre("height", "number"));
    EXPECT_THAT(textsOf(chosen.rows[0]), ElementsAre("10.00", "1"));
    const auto wrong = withColumns(s.table(RecordTable::Points), {"colour"});
    ASSERT_FALSE(wrong);
    EXPECT_THAT(wrong.error().text, HasSubstr("no column 'colour' in points; there are set, number"));
}

TEST(RecordTables, AreWrittenAlikeAsCsvAndXlsx) {
    Records s;
    const Folder folder;
    const auto rows = s.table(RecordTable::Points);
    ASSERT_TRUE(writeRecord(folder / "a.csv", rows));
    std::ifstream in(folder / "a.csv", std::ios::binary);
    std::string heading;
    std::string first;
    std::getline(in, heading);
    std::getline(in, first);
    EXPECT_EQ(heading, "set,number,easting,northing,height,code,note\r");
    EXPECT_EQ(first, "Spots,1,0.00,0.00,10.00,G,\r");
    ASSERT_TRUE(writeRecord(folder / "a.xlsx", rows));
    EXPECT_GT(std::filesystem::file_size(folder / "a.xlsx"), 3000U);
    EXPECT_FALSE(writeRecord(folder / "a.txt", rows));
    EXPECT_FALSE(writeRecord("/nowhere/a.csv", rows));
    for (const auto* name : {"courses", "curves", "points", "stations", "areas", "volumes"})
        EXPECT_EQ(tableName(*tableFromName(name)), name);
    EXPECT_FALSE(tableFromName("chairs"));
}

}  // namespace
}  // namespace erdwerk::format
