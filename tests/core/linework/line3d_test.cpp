#include "core/linework/line3d.h"

#include "core/linework/height_solver.h"
#include "support/geometry.h"

namespace erdwerk::linework {
namespace {

using test::places;

const SurfaceHeight noSurface = [](ObjectId, Vec2) -> Result<std::optional<double>> {
    return std::optional<double>{};
};

/// Corners 10 apart on a straight, with these rules.
Line3D straight(std::vector<HeightRule> rules, bool closed = false) {
    Line3D line;
    line.closed = closed;
    for (std::size_t i = 0; i < rules.size(); ++i) {
        LineVertex v;
        v.place = {10.0 * double(i), 0};
        v.rule = rules[i];
        line.vertices.push_back(v);
    }
    return line;
}

TEST(Resolve, FollowsGradesAndRises) {
    const auto r =
        resolve(straight({FixedHeight{100}, GradeFromPrevious{Grade::percent(2)}, RiseFromPrevious{-0.5}}),
                noSurface);
    EXPECT_DOUBLE_EQ(*r.vertices[1].height, 100.2);
    EXPECT_DOUBLE_EQ(*r.vertices[2].height, 99.7);
    EXPECT_NEAR(r.gradeAhead(1)->percent(), -5, 1e-9);
    EXPECT_FALSE(r.gradeAhead(2));
}

TEST(Resolve, KeepsTheTypedGradeWhenTheFirstHeightMoves) {
    auto line = straight({FixedHeight{100}, GradeFromPrevious{Grade::percent(2)}});
    line.vertices[0].rule = FixedHeight{50};
    line.vertices[1].place = {30, 0};
    EXPECT_DOUBLE_EQ(*resolve(line, noSurface).vertices[1].height, 50.6);
}

TEST(Resolve, InterpolatesByDistanceAlongTheLine) {
    Line3D line = straight({FixedHeight{0}, Interpolated{}, FixedHeight{8}});
    line.vertices[1].place = {10, 30};  // sides of 31.6 each
    LineVertex g;
    g.isCorner = false;
    g.fraction = 0.5;
    g.rule = Interpolated{};
    line.vertices.insert(line.vertices.begin() + 1, g);
    const auto r = resolve(line, noSurface);
    EXPECT_NEAR(*r.vertices[1].height, 2, 1e-12);
    EXPECT_NEAR(*r.vertices[2].height, 4, 1e-12);
}

TEST(Resolve, InterpolatesAcrossTheJointOfAClosedLine) {
    Line3D line = lineThrough(places("0 0, 10 0, 10 10, 0 10"), {{}, 10.0, {}, 20.0}, true);
    line.vertices[0].rule = Interpolated{};
    line.vertices[2].rule = Interpolated{};
    const auto r = resolve(line, noSurface);
    EXPECT_NEAR(*r.vertices[0].height, 15, 1e-12);
    EXPECT_NEAR(*r.vertices[2].height, 15, 1e-12);
}

TEST(Resolve, TakesHeightsFromASurface) {
    const auto surface = [](ObjectId id, Vec2 p) -> Result<std::optional<double>> {
        if (id.value != 7) return fail(ErrorCode::NotFound, "gone");
        if (p.x > 15) return std::optional<double>{};
        return std::optional<double>{p.x / 10};
    };
    const auto r = resolve(
        straight({OnSurface{{7}, 0}, OnSurface{{7}, 0.25}, OnSurface{{7}, 0}, OnSurface{{8}, 0}}), surface);
    EXPECT_DOUBLE_EQ(*r.vertices[1].height, 1.25);
    EXPECT_FALSE(r.vertices[2].height);
    EXPECT_THAT(r.vertices[2].problem, testing::HasSubstr("does not reach"));
    EXPECT_EQ(r.vertices[3].problem, "gone");
}

TEST(Resolve, ACircleIsFoundAndLeavesTheRestAlone) {
    const auto ring = straight(
        {GradeFromPrevious{Grade::percent(1)}, GradeFromPrevious{Grade::percent(1)}, RiseFromPrevious{1}},
        true);
    for (const auto& v : resolve(ring, noSurface).vertices) {
        EXPECT_FALSE(v.height);
        EXPECT_TRUE(v.circular);
    }
    // A grade is measured from the control before it, so a point between them is no circle.
    const auto r =
        resolve(straight({FixedHeight{1}, Interpolated{}, GradeFromPrevious{Grade::percent(1)}}), noSurface);
    EXPECT_EQ(r.vertices[0].height, 1);
    EXPECT_NEAR(*r.vertices[1].height, 1.1, 1e-12);
    EXPECT_NEAR(*r.vertices[2].height, 1.2, 1e-12);
}

TEST(Resolve, SaysWhyAHeightIsMissing) {
    const auto r = resolve(straight({GradeFromPrevious{}, Interpolated{}, NoHeight{}}), noSurface);
    EXPECT_THAT(r.vertices[0].problem, testing::HasSubstr("no previous"));
    EXPECT_FALSE(r.vertices[1].problem.empty());
    EXPECT_FALSE(r.complete());
}

TEST(Runs, BreakWhereAHeightIsMissing) {
    const auto r = resolve(
        straight({FixedHeight{1}, FixedHeight{2}, NoHeight{}, FixedHeight{4}, FixedHeight{5}}), noSurface);
    const auto runs = runsWithHeights(r, 0.01);
    ASSERT_EQ(runs.size(), 2U);
    EXPECT_EQ(runs[0].size(), 2U);
    EXPECT_EQ(runs[1].front(), (Vec3{30, 0, 4}));
}

TEST(Runs, FollowArcsWithHeightsInBetween) {
    Line3D line = lineThrough(places("0 10, 10 0"), {1.0, 3.0});
    line.vertices[0].through = Vec2{10 * std::sqrt(0.5), 10 * std::sqrt(0.5)};
    const auto runs = runsWithHeights(resolve(line, noSurface), 0.01);
    ASSERT_EQ(runs.size(), 1U);
    EXPECT_GT(runs[0].size(), 8U);
    for (const auto& p : runs[0]) {
        EXPECT_NEAR(geometry::length(p.plan()), 10, 1e-9);
        EXPECT_NEAR(p.z, 1 + 2 * std::atan2(p.x, p.y) / (3.14159265358979 / 2), 1e-6);
    }
}

TEST(HeightAt, RunsStraightBetweenVertices) {
    const auto r = resolve(straight({FixedHeight{1}, FixedHeight{3}}), noSurface);
    EXPECT_DOUBLE_EQ(*heightAt(r, 2.5), 1.5);
    EXPECT_FALSE(heightAt(r, 11));
}

TEST(Validate, NamesWhatIsWrong) {
    EXPECT_TRUE(validate(straight({FixedHeight{1}})));
    auto line = straight({FixedHeight{1}, FixedHeight{1}});
    EXPECT_FALSE(validate(line));
    line.vertices[0].isCorner = false;
    EXPECT_TRUE(validate(line));
    line = straight({FixedHeight{1}, FixedHeight{1}});
    line.vertices[1].place.x = std::nan("");
    EXPECT_TRUE(validate(line));
}

}  // namespace
}  // namespace erdwerk::linework
