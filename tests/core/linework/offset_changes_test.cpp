// Rows whose run changes along the line.

#include <cmath>

#include "core/linework/height_solver.h"
#include "core/linework/offset_row.h"
#include "core/linework/row_profile.h"
#include "support/geometry.h"

namespace erdwerk::linework {
namespace {

using test::places;
using test::valueOf;

Line3D rowBeside(const Line3D& source, const std::string& row, bool right = false) {
    OffsetOptions options;
    options.right = right;
    return valueOf(offset(resolve(source, Surroundings{}), valueOf(parseOffsetRow(row)), options));
}

void expectCorner(const Line3D& line, std::size_t vertex, double x, double y, double height) {
    ASSERT_LT(vertex, line.vertices.size());
    EXPECT_THAT(line.vertices[vertex].place, test::IsNear(x, y, 1e-9)) << vertex;
    EXPECT_NEAR(std::get<FixedHeight>(line.vertices[vertex].rule).height, height, 1e-9) << vertex;
}

TEST(RowThatChanges, WidensStraightBetweenItsPlaces) {
    const Line3D source = lineThrough(places("0 0, 100 0"), {10, 20});
    const Line3D row = rowBeside(source, "2@20 4@60,-10%");
    ASSERT_EQ(row.vertices.size(), 4U);
    expectCorner(row, 0, 0, 2, 9.8);
    expectCorner(row, 1, 20, 2, 11.8);
    expectCorner(row, 2, 60, 4, 15.6);
    expectCorner(row, 3, 100, 4, 19.6);
    const Line3D other = rowBeside(source, "2@20 4@60", true);
    expectCorner(other, 2, 60, -4, 16);
}

TEST(RowThatChanges, MeetsAtOutsideCornersAsItsOwnStraightsDo) {
    // The run grows from 2 to 4 up to the corner, then stays: y = −2 − x/25 meets x = 54 at y = −4.16.
    const Line3D source = lineThrough(places("0 0, 50 0, 50 50"), {10, 10, 10});
    const Line3D row = rowBeside(source, "2@0 4@50", true);
    ASSERT_EQ(row.vertices.size(), 3U);
    expectCorner(row, 0, 0, -2, 10);
    expectCorner(row, 1, 54, -4.16, 10);
    expectCorner(row, 2, 54, 50, 10);
}

TEST(RowThatChanges, CutsInsideCornersWhereItsStraightsCross) {
    // y = 2 + x/25 and x = 46.
    const Line3D row = rowBeside(lineThrough(places("0 0, 50 0, 50 50"), {10, 10, 10}), "2@0 4@50");
    ASSERT_EQ(row.vertices.size(), 3U);
    expectCorner(row, 1, 46, 3.84, 10);
}

TEST(RowThatChanges, AlongAnArcIsAsFarAsItsRunSays) {
    Line3D source = lineThrough(places("50 0, -50 0"), {1, 1});
    source.vertices[0].through = Vec2{0, 50};
    const double length = placed(source).length;
    for (const bool right : {false, true}) {
        const auto row = valueOf(parseOffsetRow("3@30 8@120"));
        const Line3D made = rowBeside(source, "3@30 8@120", right);
        EXPECT_GT(made.vertices.size(), 10U);
        for (const auto& v : made.vertices) {
            if (!v.isCorner) continue;
            const double d = std::abs(std::atan2(v.place.y, v.place.x)) * 50;
            const double run = row.runAt(std::clamp(d, 0.0, length));
            EXPECT_NEAR(geometry::length(v.place), right ? 50 + run : 50 - run, 1e-9) << d;
        }
        // Between the cuts at most the facets' sagitta off.
        for (const auto& s : planPath(made)) {
            const Vec2 p = pointAt(s, 0.5);
            const double run = row.runAt(std::clamp(std::abs(std::atan2(p.y, p.x)) * 50, 0.0, length));
            EXPECT_NEAR(geometry::length(p), right ? 50 + run : 50 - run, 0.011);
        }
    }
}

TEST(RowThatChanges, TextGoesBothWaysAndNonsenseIsRefused) {
    const auto row = valueOf(parseOffsetRow("2.5@0  3.5@40 2.5@80,-2%"));
    EXPECT_EQ(rowText(row), "2.5@0 3.5@40 2.5@80,-2%");
    EXPECT_EQ(valueOf(parseOffsetRow(rowText(row))), row);
    EXPECT_DOUBLE_EQ(row.run, 2.5);
    EXPECT_DOUBLE_EQ(row.runAt(-5), 2.5);
    EXPECT_DOUBLE_EQ(row.runAt(20), 3);
    EXPECT_DOUBLE_EQ(row.runAt(60), 3);
    EXPECT_DOUBLE_EQ(row.runAt(1000), 2.5);
    for (const char* bad : {"2@", "@3", "2@5 3@5", "2@5 3@4", "2@0 3", "-1@0", "2@-1", "2@0;3@5", "2@x"})
        EXPECT_FALSE(parseOffsetRow(bad)) << bad;
}

TEST(RowThatChanges, DraggedInItsProfileKeepsItsChanges) {
    const std::vector<OffsetRow> rows{valueOf(parseOffsetRow("2@0 3@40,-2%"))};
    const OffsetRow moved = rowThrough(rows, false, 0, {2.5, -0.05, true});
    EXPECT_EQ(rowText(moved), "2.5@0 3.5@40,-2%");
}

}  // namespace
}  // namespace erdwerk::linework
