#include "core/linework/offset.h"

#include <cmath>
#include <numbers>
#include <random>

#include "core/linework/height_solver.h"
#include "core/linework/offset_row.h"
#include "support/geometry.h"

namespace erdwerk::linework {
namespace {

using test::places;
using test::valueOf;

ResolvedLine solvedLine(const Line3D& line) {
    return resolve(line, [](ObjectId, Vec2) -> Result<std::optional<double>> { return std::nullopt; });
}

ResolvedLine line(const std::string& corners, std::vector<std::optional<double>> heights,
                  bool closed = false) {
    return solvedLine(lineThrough(places(corners), heights, closed));
}

ResolvedLine beside(const ResolvedLine& source, const std::string& row, bool right = false,
                    OutsideCorner corners = OutsideCorner::Mitre) {
    OffsetOptions options;
    options.right = right;
    options.corners = corners;
    return solvedLine(valueOf(offset(source, valueOf(parseOffsetRow(row)), options)));
}

void expectVertex(const ResolvedLine& l, std::size_t i, double x, double y, double z) {
    ASSERT_LT(i, l.vertices.size());
    EXPECT_THAT(l.vertices[i].place, test::IsNear(x, y, 1e-9)) << i;
    ASSERT_TRUE(l.vertices[i].height) << i;
    EXPECT_NEAR(*l.vertices[i].height, z, 1e-9) << i;
}

TEST(Offset, AStraightLineMovesToItsSideWithEachSortOfHeight) {
    const auto source = line("0 0, 100 0", {10, 20});
    expectVertex(beside(source, "5"), 0, 0, 5, 10);
    expectVertex(beside(source, "5", true), 1, 100, -5, 20);
    expectVertex(beside(source, "5,+0.15"), 1, 100, 5, 20.15);
    expectVertex(beside(source, "5,-2%"), 0, 0, 5, 9.9);
    expectVertex(beside(source, "6,3:1"), 0, 0, 6, 12);
    expectVertex(beside(source, "6,1 in 3"), 0, 0, 6, 12);
    expectVertex(beside(source, "5,=101.25"), 1, 100, 5, 101.25);
    expectVertex(beside(source, "0,+1"), 0, 0, 0, 11);
    EXPECT_FALSE(beside(source, "5,=").vertices[0].height);
}

TEST(Offset, AnInsideCornerIsCutAtItsCrossingAndHasTheHeightOfTheFirstSide) {
    // Left turn, row to the left: 2 inside both sides; the first side is there at 8 of 10.
    const auto row = beside(line("0 0, 10 0, 10 10", {0, 10, 30}), "2");
    ASSERT_EQ(row.vertices.size(), 3U);
    expectVertex(row, 0, 0, 2, 0);
    expectVertex(row, 1, 8, 2, 8);
    expectVertex(row, 2, 8, 10, 30);
}

TEST(Offset, AnOutsideCornerIsMitredOrRound) {
    const auto source = line("0 0, 10 0, 10 10", {0, 10, 30});
    const auto mitred = beside(source, "2", true);
    ASSERT_EQ(mitred.vertices.size(), 3U);
    expectVertex(mitred, 1, 12, -2, 10);
    const auto round = beside(source, "2", true, OutsideCorner::Round);
    ASSERT_EQ(round.vertices.size(), 4U);
    expectVertex(round, 1, 10, -2, 10);
    expectVertex(round, 2, 12, 0, 10);
    EXPECT_NEAR(round.length, 20 + std::numbers::pi, 1e-9);  // a quarter of a circle of radius 2
}

TEST(Offset, ASquareShrinksAndGrows) {
    const auto square = line("0 0, 10 0, 10 10, 0 10", {1, 2, 3, 2}, true);
    const auto inside = beside(square, "3");
    EXPECT_EQ(inside.vertices.size(), 4U);
    EXPECT_NEAR(inside.length, 16, 1e-9);
    EXPECT_NEAR(beside(square, "3", true).length, 64, 1e-9);
    EXPECT_NEAR(beside(square, "3", true, OutsideCorner::Round).length, 40 + 6 * std::numbers::pi, 1e-9);
    const auto nothing = offset(square, {6, {}}, {});
    ASSERT_FALSE(nothing);
    EXPECT_THAT(nothing.error().text, testing::HasSubstr("nothing is left"));
}

TEST(Offset, ArcsStayArcs) {
    // A half circle of radius 10 to the left, straights at both ends.
    Line3D bend = lineThrough(places("0 0, 20 0, 20 20, 0 20"), {1.0, 2.0, 3.0, 4.0});
    bend.vertices[1].through = Vec2{30, 10};
    const auto source = solvedLine(bend);
    const auto inner = beside(source, "4");
    EXPECT_NEAR(inner.length, 40 + 6 * std::numbers::pi, 1e-9);
    EXPECT_TRUE(isCurved(inner.path[1]));
    const auto outer = beside(source, "4", true);
    EXPECT_NEAR(outer.length, 40 + 14 * std::numbers::pi, 1e-9);
    // Two tops 20 apart have no place for 12 from each.
    EXPECT_FALSE(offset(source, {12, {}}, {}));
}

TEST(Offset, AnArcThatTheRunSwallowsGoesAndItsSidesCross) {
    // Radius 2 between sides at right angles, tangent to both; 5 away the sides themselves cross.
    Line3D bend = lineThrough(places("0 0, 18 0, 20 2, 20 20"), {1.0, 2.0, 3.0, 4.0});
    bend.vertices[1].through = Vec2{18 + std::sqrt(2.0), 2 - std::sqrt(2.0)};
    const auto row = beside(solvedLine(bend), "5");
    ASSERT_EQ(row.vertices.size(), 3U);
    EXPECT_THAT(row.vertices[1].place, test::IsNear(15, 5, 1e-9));
}

TEST(Offset, GradePointsAndVerticalCurvesComeAlong) {
    auto bend = lineThrough(places("0 0, 100 0"), {10.0, 10.0});
    LineVertex grade;
    grade.isCorner = false;
    grade.fraction = 0.5;
    grade.rule = FixedHeight{12};
    grade.curve = VerticalCurve{VerticalCurve::By::Length, 20};
    bend.vertices.insert(bend.vertices.begin() + 1, grade);
    const auto source = solvedLine(bend);
    const auto row = beside(source, "3,+1");
    for (double d = 0; d <= 100; d += 0.5)
        EXPECT_NEAR(*heightAt(row, d), *heightAt(source, d) + 1, 0.0011) << d;
}

TEST(Offset, AShortSideBetweenTwoInsideCornersIsCutAway) {
    // A notch of width 2 that a run of 3 closes.
    const auto row = beside(line("0 0, 10 0, 10 -5, 12 -5, 12 0, 22 0", {0, 0, 0, 0, 0, 0}), "3");
    for (const auto& v : row.vertices) EXPECT_GE(v.place.y, 3 - 1e-9);
    EXPECT_NEAR(row.vertices.front().place.x, 0, 1e-9);
    EXPECT_NEAR(row.vertices.back().place.x, 22, 1e-9);
}

TEST(Offset, RandomLinesAreNeverNearerThanTheRunAndNeverTurnedInsideOut) {
    std::size_t tried = 0;
    for (unsigned seed = 1; seed <= 600; ++seed) {
        std::mt19937 random(seed);
        std::uniform_real_distribution<double> turn(-1.2, 1.2);
        std::uniform_real_distribution<double> size(2, 12);
        std::vector<Vec2> corners{{0, 0}};
        double direction = 0;
        for (int i = 0; i < 8; ++i) {
            direction += turn(random);
            const double step = size(random);
            corners.push_back({corners.back().x + step * std::cos(direction),
                               corners.back().y + step * std::sin(direction)});
        }
        std::vector<std::optional<double>> heights(corners.size(), 0.0);
        const auto source = solvedLine(lineThrough(corners, heights));
        bool crossesItself = false;
        for (std::size_t i = 0; i < source.path.size(); ++i)
            for (std::size_t k = i + 2; k < source.path.size(); ++k)
                crossesItself = crossesItself || !crossings(source.path[i], source.path[k]).empty();
        if (crossesItself) continue;  // a row has to come near the line then
        ++tried;
        const double run = 0.5 + 0.01 * (seed % 100);
        const auto made = offset(source, {run, {}}, {});
        if (!made) continue;
        const auto row = solvedLine(*made);
        // Ends may stand over what is beside them; what is between keeps its distance.
        for (double t = 0.1; t < 0.9; t += 0.01) {
            const Vec2 p = geometry::positionAt(row.path, t * row.length).place;
            const auto near = geometry::nearestOn(source.path, p);
            EXPECT_GE(geometry::distance(near->place, p), run - 1e-6) << "seed " << seed << " at " << t;
        }
    }
    EXPECT_GT(tried, 300U);
}

TEST(Offset, RowsAreReadOrRefused) {
    EXPECT_EQ(valueOf(parseOffsetRow("3.5")).run, 3.5);
    for (const char* bad : {"", "-1", "x", "1,", "1,5", "1,=x", "1,word", "1,1 in 0"})
        EXPECT_FALSE(parseOffsetRow(bad)) << bad;
}

}  // namespace
}  // namespace erdwerk::linework
