#include "core/linework/edit.h"

#include "core/linework/drape.h"
#include "core/linework/height_solver.h"
#include "core/linework/pieces.h"
#include "support/geometry.h"

namespace erdwerk::linework {
namespace {

using test::places;
using test::valueOf;

const SurfaceHeight noSurface = [](ObjectId, Vec2) -> Result<std::optional<double>> {
    return std::optional<double>{};
};

LineVertex gradePoint(double fraction, HeightRule rule) {
    LineVertex v;
    v.isCorner = false;
    v.fraction = fraction;
    v.rule = rule;
    return v;
}

/// A line with an arc, grade points and every kind of rule.
Line3D rich() {
    Line3D line = lineThrough(places("0 0, 20 0, 40 20, 40 60"), {10.0, {}, {}, 14.0});
    line.vertices[1].rule = GradeFromPrevious{Grade::percent(2)};
    line.vertices[1].through = Vec2{20 + 20 * std::sin(0.785398163397), 20 - 20 * std::cos(0.785398163397)};
    line.vertices[2].rule = RiseFromPrevious{0.3};
    line.vertices.insert(line.vertices.begin() + 3, gradePoint(0.25, Interpolated{}));
    line.vertices.insert(line.vertices.begin() + 1, gradePoint(0.5, GradeFromPrevious{Grade::percent(-1)}));
    return line;
}

/// Height along the line at even distances: two lines that agree look the same in profile.
std::vector<double> heights(const Line3D& line, bool backwards = false) {
    const auto r = resolve(line, noSurface);
    std::vector<double> out;
    for (int k = 0; k <= 40; ++k) {
        const double t = (backwards ? 40 - k : k) / 40.0;
        out.push_back(heightAt(r, t * r.length).value_or(-999));
    }
    return out;
}

void expectSameHeights(const std::vector<double>& a, const std::vector<double>& b) {
    ASSERT_EQ(a.size(), b.size());
    for (std::size_t i = 0; i < a.size(); ++i) EXPECT_NEAR(a[i], b[i], 1e-9) << "place " << i;
}

TEST(InsertCorner, ChangesNeitherPlanNorHeights) {
    const Line3D line = rich();
    for (std::size_t segment = 0; segment < 3; ++segment) {
        const Line3D with = valueOf(insertCorner(line, segment, 0.4));
        EXPECT_EQ(with.vertices.size(), line.vertices.size() + 1);
        EXPECT_NEAR(geometry::lengthOf(planPath(with)), geometry::lengthOf(planPath(line)), 1e-9);
        // A corner that is interpolated stands in front of a relative rule: only stretches without one keep
        // their shape.
        if (segment == 2) expectSameHeights(heights(with), heights(line));
    }
    EXPECT_FALSE(insertCorner(line, 9, 0.5));
    EXPECT_FALSE(insertCorner(line, 0, 0));
}

TEST(InsertCorner, OnAGradePointTurnsItIntoACorner) {
    const Line3D with = valueOf(insertCorner(rich(), 0, 0.5));
    EXPECT_EQ(with.vertices.size(), rich().vertices.size());
    EXPECT_TRUE(with.vertices[1].isCorner);
    EXPECT_TRUE(std::holds_alternative<GradeFromPrevious>(with.vertices[1].rule));
}

TEST(InsertGradePoint, StandsInOrderAndOnlyOnce) {
    const Line3D with = valueOf(insertGradePoint(rich(), 0, 0.8, FixedHeight{3}));
    EXPECT_DOUBLE_EQ(with.vertices[2].fraction, 0.8);
    EXPECT_FALSE(insertGradePoint(with, 0, 0.8));
    EXPECT_FALSE(insertGradePoint(with, 0, 1));
}

TEST(MoveCorner, KeepsTheShareOfTheArcsBulge) {
    Line3D line = lineThrough(places("0 0, 10 0"), {1.0, 2.0});
    line.vertices[0].through = Vec2{5, 2};
    const Line3D moved = valueOf(moveCorner(line, 1, {20, 0}));
    EXPECT_THAT(*moved.vertices[0].through, test::IsNear(10, 4, 1e-9));
    EXPECT_FALSE(moveCorner(line, 5, {0, 0}));
    EXPECT_FALSE(moveGradePoint(line, 0, 0.5));
}

TEST(RemoveVertex, CarriesGradePointsOver) {
    Line3D line = lineThrough(places("0 0, 10 0, 40 0"), {1.0, {}, 5.0});
    line.vertices[1].rule = Interpolated{};
    line.vertices.insert(line.vertices.begin() + 2, gradePoint(0.5, FixedHeight{9}));
    const Line3D without = valueOf(removeVertex(line, 1));
    ASSERT_EQ(without.vertices.size(), 3U);
    EXPECT_NEAR(without.vertices[1].fraction, 25.0 / 40, 1e-12);
    EXPECT_FALSE(removeVertex(lineThrough(places("0 0, 1 1"), {}), 0));
    const Line3D ring = lineThrough(places("0 0, 10 0, 10 10, 0 10"), {}, true);
    EXPECT_EQ(valueOf(removeVertex(ring, 0)).vertices.front().place, (Vec2{10, 0}));
}

TEST(Join, PutsBackWhatWasSplit) {
    const Line3D line = rich();
    const auto r = resolve(line, noSurface);
    const auto parts = valueOf(cutAt(line, r, {r.vertices[2].distance}, {noSurface}));
    const Line3D joined = valueOf(join(parts[0].line, parts[1].line));
    EXPECT_EQ(joined.vertices.size(), line.vertices.size());
    expectSameHeights(heights(joined), heights(line));
    EXPECT_FALSE(join(lineThrough(places("0 0, 1 0, 1 1"), {}, true), line));
}

TEST(Reverse, KeepsTheHeightsAndIsItsOwnOpposite) {
    const Line3D line = rich();
    const Line3D back = reversed(line);
    expectSameHeights(heights(back, true), heights(line));
    EXPECT_NEAR(geometry::lengthOf(planPath(back)), geometry::lengthOf(planPath(line)), 1e-9);
    const Line3D again = reversed(back);
    expectSameHeights(heights(again), heights(line));
}

TEST(Reverse, ATypedGradeStaysAGradeWithTheOtherSign) {
    Line3D line = lineThrough(places("0 0, 10 0, 20 0"), {100.0});
    line.vertices[1].rule = GradeFromPrevious{Grade::percent(2)};
    line.vertices[2].rule = GradeFromPrevious{Grade::percent(-3)};
    const Line3D back = reversed(line);
    // Seen the other way the first point is measured to the next: no height has to be written down.
    EXPECT_EQ(back.vertices[2].rule, HeightRule(FixedHeight{100}));
    EXPECT_NEAR(std::get<GradeToNext>(back.vertices[1].rule).grade.percent(), -2, 1e-12);
    EXPECT_NEAR(std::get<GradeToNext>(back.vertices[0].rule).grade.percent(), 3, 1e-12);
    EXPECT_NEAR(*resolve(back, noSurface).vertices[0].height, 99.9, 1e-12);
    EXPECT_EQ(reversed(back), line);
}

TEST(Reverse, ARatioStaysARatioAndNoFigureAppears) {
    const RuleNames names{[](ObjectId) { return std::string("Ground"); },
                          [](const std::string&) { return ObjectId{1}; }};
    Line3D line = lineThrough(places("0 0, 7.3 1.1, 20 4, 33 2"), {322.17});
    const std::vector<std::string> typed{"322.17", "3:1", "2%", "-0.15"};
    for (std::size_t i = 0; i < 4; ++i) line.vertices[i].rule = valueOf(parseRule(typed[i], names));
    const Line3D back = reversed(line);
    std::vector<std::string> texts;
    for (const auto& v : back.vertices) texts.push_back(ruleText(v.rule, names));
    EXPECT_THAT(texts, testing::ElementsAre("to +0.15", "to -2%", "to -3:1", "322.17"));
    expectSameHeights(heights(back, true), heights(line));
    EXPECT_EQ(reversed(back), line);
}

TEST(Drape, PutsAGradePointOnEachEdgeCrossed) {
    terrain::BuildInput input;
    std::mt19937 random(9);
    input.points =
        test::scattered(random, 150, 100, [](double x, double y) { return std::sin(x / 8) * 3 + y / 20; });
    const terrain::TinLocator surface(
        std::make_shared<const terrain::Tin>(valueOf(terrain::build(input)).tin));
    const Line3D draped = valueOf(drape(lineThrough(places("20 20, 80 40, 60 85"), {}), surface, {3}));
    const auto r = resolve(
        draped, [&](ObjectId, Vec2 p) -> Result<std::optional<double>> { return surface.heightAt(p); });
    ASSERT_TRUE(r.complete());
    EXPECT_GT(r.vertices.size(), 15U);
    // Between its points the line lies on the surface.
    for (int k = 1; k < 200; ++k) {
        const double d = r.length * k / 200;
        const auto at = geometry::positionAt(r.path, d);
        EXPECT_NEAR(*heightAt(r, d), *surface.heightAt(at.place), 1e-4);
    }
    EXPECT_FALSE(drape(lineThrough(places("500 500, 600 600"), {}), surface, {3}));
}

}  // namespace
}  // namespace erdwerk::linework
