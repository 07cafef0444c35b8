#include "core/linework/pieces.h"

#include "core/linework/random_line.h"
#include "core/linework/reach.h"
#include "support/geometry.h"

namespace erdwerk::linework {
namespace {

using test::places;
using test::valueOf;

const SurfaceHeight noSurface = [](ObjectId, Vec2) -> Result<std::optional<double>> {
    return std::optional<double>{};
};
const Surroundings nothing{noSurface};
const Surroundings ground{slopingGround};

/// The piece is the old line from `from` on: the same places and, to 1e-9, the same heights.
void expectPart(const ResolvedLine& whole, const Line3D& piece, double from, const std::string& trace) {
    SCOPED_TRACE(trace);
    ASSERT_FALSE(validate(piece)) << *validate(piece);
    const auto r = resolve(piece, ground);
    for (int k = 0; k <= 60; ++k) {
        const double d = r.length * k / 60;
        const double old = whole.closed ? std::fmod(from + d, whole.length) : from + d;
        const Vec2 was = geometry::positionAt(whole.path, old).place;
        const Vec2 now = geometry::positionAt(r.path, d).place;
        ASSERT_NEAR(was.x, now.x, 1e-7);
        ASSERT_NEAR(was.y, now.y, 1e-7);
        const auto before = heightAt(whole, old);
        const auto after = heightAt(r, d);
        ASSERT_EQ(before.has_value(), after.has_value()) << "at " << d << " of " << r.length;
        if (before) ASSERT_NEAR(*before, *after, 1e-7) << "at " << d << " of " << r.length;
    }
    for (const auto& v : r.vertices) {
        const double old = whole.closed ? std::fmod(from + v.distance, whole.length) : from + v.distance;
        const auto before = heightAt(whole, old);
        if (before) EXPECT_NEAR(*before, heightAt(r, v.distance).value_or(-1), 1e-9);
    }
}

TEST(Pieces, HaveTheHeightsOfTheWholeLine) {
    std::mt19937 random(20261126);
    int complete = 0;
    for (int run = 0; run < 400; ++run) {
        const bool closed = run % 3 == 0;
        const Line3D line = randomLine(random, closed);
        const auto whole = resolve(line, ground);
        if (!whole.complete()) continue;
        ++complete;
        std::uniform_real_distribution<double> along(0, whole.length);
        double a = along(random);
        double b = along(random);
        if (!closed && a > b) std::swap(a, b);
        const auto trace =
            "run " + std::to_string(run) + " from " + std::to_string(a) + " to " + std::to_string(b);
        const auto piece = pieceOf(line, whole, a, b, ground);
        ASSERT_TRUE(piece) << trace << piece.error().text;
        expectPart(whole, piece->line, a, trace);
        if (closed) continue;
        const auto parts = valueOf(cutAt(line, whole, {a, b}, ground));
        ASSERT_EQ(parts.size(), 3U);
        expectPart(whole, parts[0].line, 0, trace + ", first");
        expectPart(whole, parts[2].line, b, trace + ", last");
    }
    EXPECT_GT(complete, 200);
}

TEST(Pieces, KeepTheRulesThatDoNotLookAcrossTheCut) {
    Line3D line = lineThrough(places("0 0, 10 0, 20 0, 30 0"), {100.0});
    for (std::size_t i = 1; i < 4; ++i) line.vertices[i].rule = GradeFromPrevious{Grade::percent(2)};
    const auto whole = resolve(line, nothing);
    const auto parts = valueOf(cutAt(line, whole, {15}, nothing));
    ASSERT_EQ(parts.size(), 2U);
    EXPECT_TRUE(parts[0].settled.empty());
    EXPECT_EQ(parts[0].line.vertices[1].rule, line.vertices[1].rule);
    // Of the second part the first control is the cut itself, which has the height: 2 % from it still holds.
    EXPECT_TRUE(parts[1].settled.empty());
    EXPECT_NEAR(std::get<FixedHeight>(parts[1].line.vertices[0].rule).height, 100.3, 1e-9);
    EXPECT_EQ(parts[1].line.vertices[1].rule, line.vertices[2].rule);
    // A rise does not: it was measured from farther away.
    line.vertices[2].rule = RiseFromPrevious{0.2};
    const auto rise = valueOf(cutAt(line, resolve(line, nothing), {15}, nothing));
    ASSERT_EQ(rise[1].settled.size(), 1U);
    EXPECT_EQ(rise[1].settled[0].rule, line.vertices[2].rule);
    EXPECT_EQ(rise[1].line.vertices[2].rule, line.vertices[3].rule);
}

TEST(Pieces, AVerticalCurveIsCutIntoCurves) {
    // Up 4 %, down 2 %, 40 long about 100: at 90 the parabola is 100 + 0.04·90 − 0.06·10²/80 = 103.525.
    Line3D line = lineThrough(places("0 0, 100 0, 200 0"), {100.0, 104.0, 102.0});
    line.vertices[1].curve = VerticalCurve{VerticalCurve::By::Length, 40};
    const auto whole = resolve(line, nothing);
    const auto parts = valueOf(cutAt(line, whole, {90}, nothing));
    const auto first = resolve(parts[0].line, nothing);
    const auto second = resolve(parts[1].line, nothing);
    EXPECT_NEAR(*heightAt(first, 90), 103.525, 1e-9);
    ASSERT_EQ(first.curves.size(), 1U);
    ASSERT_EQ(second.curves.size(), 1U);
    EXPECT_NEAR(first.curves[0].length, 10, 1e-9);
    EXPECT_NEAR(second.curves[0].length, 30, 1e-9);
    for (double d = 0; d <= 90; d += 1) EXPECT_NEAR(*heightAt(first, d), *heightAt(whole, d), 1e-9);
    for (double d = 0; d <= 110; d += 1) EXPECT_NEAR(*heightAt(second, d), *heightAt(whole, 90 + d), 1e-9);
}

TEST(Pieces, RefuseWhatIsNotThere) {
    const Line3D line = lineThrough(places("0 0, 10 0"), {1.0, 2.0});
    const auto r = resolve(line, nothing);
    EXPECT_FALSE(pieceOf(line, r, 3, 3, nothing));
    EXPECT_FALSE(pieceOf(line, r, 8, 2, nothing));
    EXPECT_FALSE(pieceOf(line, r, -1, 5, nothing));
    EXPECT_FALSE(pieceOf(line, r, 0, std::nan(""), nothing));
    EXPECT_FALSE(cutAt(line, r, {0, 10}, nothing));
    EXPECT_FALSE(cutAt(line, r, {}, nothing));
}

TEST(Pieces, OpenAClosedLine) {
    const Line3D ring = lineThrough(places("0 0, 10 0, 10 10, 0 10"), {1.0, 2.0, 3.0, 4.0}, true);
    const auto parts = valueOf(cutAt(ring, resolve(ring, nothing), {20}, nothing));
    ASSERT_EQ(parts.size(), 1U);
    EXPECT_FALSE(parts[0].line.closed);
    EXPECT_EQ(parts[0].line.vertices.size(), 5U);
    EXPECT_EQ(parts[0].line.vertices.front().place, (Vec2{10, 10}));
    EXPECT_EQ(parts[0].line.vertices.back().place, (Vec2{10, 10}));
}

TEST(Reach, TrimsToWhatCrossesAndKeepsThePickedPart) {
    const Line3D line = lineThrough(places("0 0, 100 0"), {100.0, 102.0});
    const auto r = resolve(line, nothing);
    const Path across = planPath(lineThrough(places("30 -10, 30 10"), {}));
    const auto right = valueOf(reachTo(line, r, 80, across, nothing));
    EXPECT_NEAR(right.by, -30, 1e-9);
    EXPECT_THAT(right.reshaped.line.vertices.front().place, test::IsNear(30, 0, 1e-9));
    EXPECT_NEAR(*resolve(right.reshaped.line, nothing).vertices.front().height, 100.6, 1e-9);
    const auto left = valueOf(reachTo(line, r, 10, across, nothing));
    EXPECT_THAT(left.reshaped.line.vertices.back().place, test::IsNear(30, 0, 1e-9));
}

TEST(Reach, GoesOnWithTheLastGrade) {
    Line3D line = lineThrough(places("0 0, 50 0, 100 0"), {100.0, {}, 102.5});
    line.vertices[1].rule = GradeFromPrevious{Grade::percent(2)};
    const auto r = resolve(line, nothing);  // 100, 101, 102.5: 3 % at the end
    const Path wall = planPath(lineThrough(places("140 -50, 140 50"), {}));
    const auto on = valueOf(reachTo(line, r, 99, wall, nothing));
    EXPECT_NEAR(on.by, 40, 1e-9);
    const auto after = resolve(on.reshaped.line, nothing);
    EXPECT_THAT(after.vertices.back().place, test::IsNear(140, 0, 1e-9));
    EXPECT_NEAR(*after.vertices.back().height, 103.7, 1e-9);
    EXPECT_NEAR(*heightAt(after, 100), 102.5, 1e-9);
    EXPECT_EQ(on.reshaped.line.vertices[1].rule, line.vertices[1].rule);
    // A typed grade at the end goes on as the same rule.
    line.vertices[2].rule = GradeFromPrevious{Grade::percent(-1), "-1%"};
    const auto typed = valueOf(reachTo(line, resolve(line, nothing), 99, wall, nothing));
    ASSERT_EQ(typed.reshaped.line.vertices.size(), 3U);
    EXPECT_EQ(typed.reshaped.line.vertices[2].rule, line.vertices[2].rule);
    // The other end, and what lies nowhere ahead.
    const Path behind = planPath(lineThrough(places("-20 -50, -20 50"), {}));
    const auto back = valueOf(reachTo(line, resolve(line, nothing), 1, behind, nothing));
    EXPECT_THAT(back.reshaped.line.vertices.front().place, test::IsNear(-20, 0, 1e-9));
    EXPECT_NEAR(*resolve(back.reshaped.line, nothing).vertices.front().height, 99.6, 1e-9);
    EXPECT_FALSE(reachTo(line, r, 99, behind, nothing));
}

TEST(Reach, AnArcGoesOnAlongItsCircle) {
    // A quarter of the circle about (0, 0), from (10, 0) to (0, 10); on to x = −6, where y is 8.
    Line3D line = lineThrough(places("10 0, 0 10"), {1.0, 2.0});
    line.vertices[0].through = Vec2{10 * std::cos(M_PI / 4), 10 * std::sin(M_PI / 4)};
    const auto r = resolve(line, nothing);
    const auto on = valueOf(reachTo(line, r, 15, planPath(lineThrough(places("-6 0, -6 20"), {})), nothing));
    const auto after = resolve(on.reshaped.line, nothing);
    EXPECT_THAT(after.vertices.back().place, test::IsNear(-6, 8, 1e-9));
    for (double f = 0; f <= 1; f += 0.1)
        EXPECT_NEAR(geometry::length(geometry::positionAt(after.path, f * after.length).place), 10, 1e-9);
    EXPECT_NEAR(*heightAt(after, r.length), 2, 1e-9);
}

}  // namespace
}  // namespace erdwerk::linework
