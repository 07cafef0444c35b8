#include "core/format/record_tables.h"

#include <cmath>
#include <numbers>

#include "core/objects/alignment.h"
#include "core/objects/group.h"
#include "core/objects/line.h"
#include "core/operations/labels.h"
#include "core/operations/points.h"
#include "core/operations/records.h"
#include "core/operations/routes.h"
#include "core/operations/sheets.h"
#include "core/operations/tables.h"
#include "support/after_edit.h"
#include "support/plane_site.h"

namespace erdwerk::format {
namespace {

using objects::TableSort;
using operations::RecordRows;
using test::Folder;
using test::PlaneSite;
using test::valueOf;
using testing::ElementsAre;
using testing::HasSubstr;

std::vector<std::string> textsOf(const operations::RecordRow& row) {
    std::vector<std::string> out;
    for (const auto& cell : row.cells) out.push_back(cell.text);
    return out;
}

/// The plot as a parcel of 30 by 30, with a quarter circle of radius 30 in place of its third corner.
struct Records : PlaneSite {
    ObjectId parcel;
    Records() {
        EXPECT_TRUE(apply(operations::makeParcel(plot)));
        parcel = last<objects::Parcel>();
    }
    RecordRows table(const objects::Table& of) { return valueOf(operations::recordRows(*results(), of)); }
    RecordRows table(TableSort sort) {
        objects::Table all;
        all.sort = sort;
        return table(all);
    }
};

TEST(RecordTables, CoursesHoldLinesAndCurvesInTheDisplaysStyle) {
    Records s;
    const auto straight = s.table(TableSort::Courses);
    ASSERT_EQ(straight.rows.size(), 4U);
    EXPECT_THAT(textsOf(straight.rows[0]),
                ElementsAre("Parcel 1", "L1", "line", "due East", "30.00", "", "", "", ""));
    EXPECT_THAT(textsOf(straight.rows[1]),
                ElementsAre("Parcel 1", "L2", "line", "due North", "30.00", "", "", "", ""));
    // A half circle over the first side: radius 15, arc 15 pi.
    s.document = document::changed<objects::Line>(s.document, s.plot, [](objects::Line& l) {
        l.line.vertices[0].through = geometry::Vec2{75, 45};
    });
    const auto bent = s.table(TableSort::Courses);
    EXPECT_THAT(textsOf(bent.rows[0]), ElementsAre("Parcel 1", "C1", "curve", "due East", "30.00", "15.00",
                                                   "180°00'00\"", "47.12", "left"));
    const auto curves = s.table(TableSort::Curves);
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
    const auto curves = s.table(TableSort::Curves);
    ASSERT_EQ(curves.rows.size(), 1U);
    EXPECT_THAT(textsOf(curves.rows[0]), ElementsAre("Way", "C1", "40.00", "90°00'00\"", "62.83",
                                                     "N 45°00'00\" E", "56.57", "40.00", "left"));
    const auto stations = s.table(TableSort::Stations);
    ASSERT_EQ(stations.rows.size(), 4U);
    EXPECT_THAT(textsOf(stations.rows[1]), ElementsAre("Way", "PC", "1+060.00", "60.00", "0.00", "due East"));
}

TEST(RecordTables, PointsAndAreas) {
    Records s;
    const auto points = s.table(TableSort::Points);
    ASSERT_EQ(points.rows.size(), 5U);
    EXPECT_THAT(textsOf(points.rows[2]), ElementsAre("Spots", "3", "100.00", "100.00", "13.00", "G", ""));
    const auto areas = s.table(TableSort::Areas);
    ASSERT_EQ(areas.rows.size(), 1U);
    EXPECT_THAT(areas.header, ElementsAre("parcel", "area", "hectares", "perimeter", "misclosure"));
    EXPECT_THAT(textsOf(areas.rows[0]), ElementsAre("Parcel 1", "900.00", "0.0900", "120.00", "0.0000"));
    auto settings = s.document.settings();
    settings.display.unit = LengthUnit::InternationalFoot;
    s.document = s.document.withSettings(settings);
    const auto feet = s.table(TableSort::Areas);
    EXPECT_EQ(feet.header[2], "acres");
    EXPECT_EQ(feet.rows[0].cells[2].text, "0.0207");  // 900 / 43 560
    EXPECT_TRUE(s.table(TableSort::Volumes).rows.empty());
}

/// 4.003 north and 3.004 east.
TEST(RecordTables, LatitudesAndDeparturesFromExactAndFromRoundedCourses) {
    Records s;
    s.document = document::changed<objects::Line>(s.document, s.plot, [](objects::Line& l) {
        l.line.vertices[1].place = l.line.vertices[0].place + geometry::Vec2{3.004, 4.003};
    });
    objects::Table table;
    table.sort = TableSort::Courses;
    table.columns = {"latitude", "departure", "rounded latitude", "rounded departure"};
    const auto rows = s.table(table);
    // 5.0048 is called 5.00 and atan(3.004 / 4.003) is called 36°53'09".
    const double azimuth = (36 + 53 / 60.0 + 9 / 3600.0) * std::numbers::pi / 180;
    EXPECT_THAT(textsOf(rows.rows[0]), ElementsAre("4.0030", "3.0040", formatFixed(5 * std::cos(azimuth), 4),
                                                   formatFixed(5 * std::sin(azimuth), 4)));
    table.sort = TableSort::Areas;
    table.columns = {"misclosure", "rounded misclosure", "rounded ratio"};
    const auto areas = s.table(table);
    EXPECT_EQ(areas.rows[0].cells[0].text, "0.0000");
    EXPECT_NE(areas.rows[0].cells[1].text, "0.0000");
}

TEST(RecordTables, ColumnsAreChosenAndOrdered) {
    Records s;
    objects::Table table;
    table.sort = TableSort::Points;
    table.columns = {"height", "number"};
    const auto chosen = s.table(table);
    EXPECT_THAT(chosen.header, ElementsAre("height", "number"));
    EXPECT_THAT(textsOf(chosen.rows[0]), ElementsAre("10.00", "1"));
    for (auto* column : {&table.by, &table.columns[0]}) {
        auto wrong = table;
        *(column == &table.by ? &wrong.by : wrong.columns.data()) = "colour";
        const auto rows = operations::recordRows(*s.results(), wrong);
        ASSERT_FALSE(rows);
        EXPECT_THAT(rows.error().text, HasSubstr("no column 'colour' in points; there are set, number"));
    }
}

TEST(RecordTables, RowsAreSortedAsFiguresAndNamesAre) {
    Records s;
    std::vector<survey::SurveyPoint> more;
    for (const auto* number : {"P10", "P9", "P09a", "10", "9"}) more.push_back({number, {1, 2}, {}, "", ""});
    more[1].height = 3.5;
    more[2].height = -4;
    s.document = test::afterEdit(s.document, operations::addPoints("More", more));
    objects::Table table{TableSort::Points, {s.last<objects::Points>()}, {"number"}, "number", false, {}};
    const auto column = [&] {
        std::vector<std::string> out;
        for (const auto& row : s.table(table).rows) out.push_back(row.cells[0].text);
        return out;
    };
    EXPECT_THAT(column(), ElementsAre("9", "10", "P9", "P09a", "P10"));
    table.by = "height";
    EXPECT_THAT(column(), ElementsAre("P09a", "P9", "P10", "10", "9"));  // without height last, as they came
    table.by = "number";
    table.falling = true;
    EXPECT_EQ(column().front(), "P10");
    // Only what is named is listed, and a row knows what it is of.
    EXPECT_EQ(s.table(table).rows.front().of, s.last<objects::Points>());
    EXPECT_EQ(s.table(table).rows.front().part, 0U);
}

TEST(RecordTables, FiguresAreInTheUnitThatIsAskedFor) {
    Records s;
    objects::Table table;
    table.sort = TableSort::Areas;
    table.unit = LengthUnit::InternationalFoot;
    const auto rows = s.table(table);
    // 900 m² are 9687.52 square feet (0.09290304 m² each) and 0.2224 acres; 120 m are 393.70 ft.
    EXPECT_THAT(textsOf(rows.rows[0]), ElementsAre("Parcel 1", "9687.52", "0.2224", "393.70", "0.0000"));
    EXPECT_EQ(rows.header[2], "acres");
}

TEST(RecordTables, ControlsAndStagesAndTags) {
    Records s;
    objects::Table table;
    table.sort = TableSort::Controls;
    table.of = {s.lane};
    const auto controls = s.table(table);
    ASSERT_EQ(controls.rows.size(), 2U);  // the middle is interpolated
    // 1.70 up over 70: 2.43 per cent.
    EXPECT_THAT(textsOf(controls.rows[0]),
                ElementsAre("Lane", "1", "0.00", "10.00", "10.00", "10.30", "10.3", "2.43%"));
    EXPECT_THAT(textsOf(controls.rows[1]),
                ElementsAre("Lane", "2", "70.00", "40.00", "50.00", "12.00", "12", ""));
    ASSERT_TRUE(s.apply(operations::labelMany({s.lane}, {})));
    const auto tags = s.table(TableSort::Tags);
    ASSERT_EQ(tags.rows.size(), 2U);
    // The parcel's four courses have the first names.
    EXPECT_THAT(textsOf(tags.rows[0]), ElementsAre("Lane", "L5", "due East", "30.00", "", "", ""));
    EXPECT_TRUE(s.table(TableSort::Stages).rows.empty());
}

TEST(RecordTables, AreKeptAsObjectsAndLoseWhatGoes) {
    Records s;
    ASSERT_TRUE(s.apply(operations::newTable(TableSort::Courses, {s.parcel})));
    const ObjectId table = s.last<objects::Table>();
    EXPECT_EQ(s.document.nameOf(table), "Courses 1");
    ASSERT_TRUE(s.apply(operations::setTableColumns(table, "course, distance")));
    EXPECT_FALSE(s.apply(operations::setTableColumns(table, "course, colour")));
    EXPECT_THAT(s.said, HasSubstr("no column 'colour'; there are parcel, course"));
    EXPECT_EQ(s.document.get<objects::Table>(table)->columns.size(), 2U);
    ASSERT_TRUE(s.apply(operations::newSheet({{420, 297}, {50, 50}, 100, {}, "2026-11-27"})));
    const ObjectId sheet = s.last<objects::Sheet>();
    const std::size_t frames = s.document.get<objects::Sheet>(sheet)->frames.size();
    ASSERT_TRUE(s.apply(operations::addFrame(sheet, {objects::TableFrame{}, table, {}, 0})));
    EXPECT_EQ(s.document.get<objects::Sheet>(sheet)->frames.back().content,
              objects::FrameContent(objects::TableFrame{table}));
    // The parcel goes, the table of nothing else with it, and its frame.
    s.document = s.document.without(s.parcel);
    EXPECT_EQ(s.document.find(table), nullptr);
    EXPECT_EQ(s.document.get<objects::Sheet>(sheet)->frames.size(), frames);
}

TEST(RecordTables, AreWrittenAlikeAsCsvAndXlsx) {
    Records s;
    const Folder folder;
    const auto rows = s.table(TableSort::Points);
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
    for (const auto sort : objects::allTableSorts())
        EXPECT_EQ(objects::tableFromName(objects::tableName(sort)), sort);
    EXPECT_FALSE(objects::tableFromName("chairs"));
}

}  // namespace
}  // namespace erdwerk::format
