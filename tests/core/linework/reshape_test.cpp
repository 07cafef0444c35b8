#include "core/linework/reshape.h"

#include "core/linework/random_line.h"
#include "core/linework/smooth.h"
#include "core/linework/thin_line.h"
#include "core/linework/transform.h"
#include "support/geometry.h"

namespace erdwerk::linework {
namespace {

using test::places;
using test::valueOf;

const Surroundings ground{slopingGround};

/// Both lines have the same height wherever they have a place in common.
void expectSameHeights(const ResolvedLine& a, const ResolvedLine& b, const std::string& trace) {
    for (int k = 0; k <= 80; ++k) {
        const double d = a.length * k / 80;
        const auto on = geometry::nearestOn(b.path, geometry::positionAt(a.path, d).place);
        if (!on || std::abs(on->distance) > 1e-9) continue;
        const auto before = heightAt(a, d);
        const auto after = heightAt(b, geometry::distanceAlong(b.path, *on));
        ASSERT_EQ(before.has_value(), after.has_value()) << trace << " at " << d;
        if (before) ASSERT_NEAR(*before, *after, 1e-7) << trace << " at " << d;
    }
}

TEST(RoundCorner, ARightAngleInClosedForm) {
    // Radius 5 in a corner of 90°: the tangents are 5 long, the arc 5·π/2.
    const Line3D line = lineThrough(places("0 0, 20 0, 20 30"), {100.0, 104.0, 101.0});
    const auto before = resolve(line, ground);
    const auto round = valueOf(roundCorner(line, before, 1, 5, ground));
    const auto after = resolve(round.line, ground);
    ASSERT_EQ(after.path.size(), 3U);
    EXPECT_THAT(after.path[1].start, test::IsNear(15, 0, 1e-9));
    EXPECT_THAT(after.path[1].end, test::IsNear(20, 5, 1e-9));
    const auto arc = geometry::arcOf(after.path[1]);
    ASSERT_TRUE(arc);
    EXPECT_NEAR(arc->radius, 5, 1e-9);
    EXPECT_THAT(arc->centre, test::IsNear(15, 5, 1e-9));
    EXPECT_NEAR(after.length, 15 + 5 * M_PI / 2 + 25, 1e-9);
    EXPECT_NEAR(*after.vertices[1].height, 103, 1e-9);
    EXPECT_NEAR(*after.vertices[2].height, 103.5, 1e-9);
    EXPECT_EQ(round.left, 1U);
    expectSameHeights(before, after, "right angle");
    EXPECT_FALSE(roundCorner(line, before, 1, 20.1, ground));
    EXPECT_TRUE(roundCorner(line, before, 1, 20, ground));
    EXPECT_FALSE(roundCorner(line, before, 0, 5, ground));
    EXPECT_FALSE(roundCorner(line, before, 1, 0, ground));
    EXPECT_FALSE(roundCorner(round.line, after, 1, 1, ground));
}

TEST(RoundCorner, AnyLineKeepsItsHeightsBesideTheArc) {
    std::mt19937 random(88);
    int rounded = 0;
    for (int run = 0; run < 300; ++run) {
        const Line3D line = randomLine(random, run % 2 == 0);
        const auto before = resolve(line, ground);
        // A curve that did not fit may do so when another one goes.
        const bool fits = std::all_of(before.vertices.begin(), before.vertices.end(),
                                      [](const auto& v) { return v.curveProblem.empty(); });
        if (!before.complete() || !fits) continue;
        for (const std::size_t corner : cornersOf(line)) {
            const auto round = roundCorner(line, before, corner, 3, ground);
            if (!round) continue;
            ++rounded;
            ASSERT_FALSE(validate(round->line)) << run;
            const auto after = resolve(round->line, ground);
            // Touches both sides.
            for (std::size_t s = 0; s < after.path.size(); ++s) {
                const auto arc = geometry::arcOf(after.path[s]);
                if (!arc || std::abs(arc->radius - 3) > 1e-6) continue;
                const std::size_t n = after.path.size();
                EXPECT_NEAR(std::remainder(arc->direction(0).radians() -
                                               tangentAt(after.path[(s + n - 1) % n], 1).radians(),
                                           2 * M_PI),
                            0, 1e-7);
            }
            expectSameHeights(before, after, "run " + std::to_string(run));
        }
    }
    EXPECT_GT(rounded, 150);
}

TEST(SetRadius, KeepsTheNeighboursTangentAndTheirHeights) {
    const Line3D line = lineThrough(places("0 0, 50 0, 50 80"), {100.0, 104.0, 101.0});
    const auto first = valueOf(roundCorner(line, resolve(line, ground), 1, 10, ground)).line;
    const auto before = resolve(first, ground);
    for (const double radius : {4.0, 20.0, 45.0}) {
        const auto next = valueOf(setRadius(first, before, 1, radius, ground));
        const auto after = resolve(next.line, ground);
        const auto arc = geometry::arcOf(after.path[1]);
        ASSERT_TRUE(arc);
        EXPECT_NEAR(arc->radius, radius, 1e-8);
        EXPECT_THAT(arc->centre, test::IsNear(50 - radius, radius, 1e-8));
        expectSameHeights(before, after, "radius " + std::to_string(radius));
        // On a straight that got longer the grade goes on: 8 % up to x = 50 − radius.
        EXPECT_NEAR(*after.vertices[1].height, 100 + 0.08 * (50 - radius), 1e-8);
    }
    EXPECT_FALSE(setRadius(first, before, 1, 50.1, ground));
    EXPECT_FALSE(setRadius(first, before, 0, 10, ground));
    EXPECT_FALSE(setRadius(first, before, 1, -1, ground));
    // Without tangents the ends stay: half the chord is the least radius.
    Line3D bow = lineThrough(places("0 0, 10 0"), {1.0, 2.0});
    bow.vertices[0].through = Vec2{5, 2};
    const auto bent = resolve(bow, ground);
    EXPECT_FALSE(setRadius(bow, bent, 0, 4.9, ground));
    EXPECT_NEAR(geometry::arcOf(planPath(valueOf(setRadius(bow, bent, 0, 8, ground)).line)[0])->radius, 8,
                1e-9);
}

TEST(SetRadius, AcrossTheStartOfAClosedLine) {
    const Line3D square = lineThrough(places("0 0, 40 0, 40 40, 0 40"), {10.0, 11.0, 12.0, 11.0}, true);
    const auto round = valueOf(roundCorner(square, resolve(square, ground), 0, 6, ground)).line;
    const auto r = resolve(round, ground);
    for (std::size_t s = 0; s < r.path.size(); ++s) {
        if (!isCurved(r.path[s])) continue;
        const auto after = resolve(valueOf(setRadius(round, r, s, 9, ground)).line, ground);
        EXPECT_NEAR(after.length, 160 - 18 + 9 * M_PI / 2, 1e-8);
    }
}

TEST(FitArc, FindsTheCircleAndSaysHowFarItIsOff) {
    // On the circle of radius 50 about (0, 0); every second corner is 0.1 too far out.
    std::vector<Vec2> on;
    std::vector<std::optional<double>> heights;
    for (int k = 0; k <= 10; ++k) {
        const double a = 0.15 * k;
        const double r = 50 + (k % 2 == 1 && k != 10 ? 0.1 : 0.0);
        on.push_back({r * std::cos(a), r * std::sin(a)});
        heights.emplace_back(100 + k);
    }
    const Line3D line = lineThrough(on, heights);
    const auto r = resolve(line, ground);
    const auto fit = valueOf(fitArc(line, r, 0, 10, ground));
    // Brute force over the circles through both ends.
    const Vec2 a = on.front();
    const Vec2 b = on.back();
    const Vec2 up = geometry::leftOf(b - a) * (1 / geometry::distance(a, b));
    const auto cost = [&](double k) {
        const Vec2 c = lerp(a, b, 0.5) + up * k;
        double sum = 0;
        for (std::size_t i = 1; i < 10; ++i)
            sum += std::pow(geometry::distance(on[i], c) - geometry::distance(a, c), 2);
        return sum;
    };
    double best = -60;
    for (double k = -60; k < 60; k += 0.01)
        if (std::abs(k) > 0.005 && cost(k) < cost(best)) best = k;
    for (double k = best - 0.01; k < best + 0.01; k += 1e-6)
        if (cost(k) < cost(best)) best = k;
    EXPECT_NEAR(fit.radius, std::hypot(geometry::distance(a, b) / 2, best), 1e-4);
    EXPECT_GT(fit.deviation, 0.03);
    EXPECT_LT(fit.deviation, 0.1);
    const auto after = resolve(fit.reshaped.line, ground);
    EXPECT_EQ(after.path.size(), 1U);
    ASSERT_EQ(after.vertices.size(), 11U);
    for (std::size_t i = 0; i < 11; ++i)
        EXPECT_NEAR(*after.vertices[i].height, 100.0 + static_cast<double>(i), 1e-9);
    EXPECT_FALSE(fitArc(line, r, 3, 4, ground));
    const Line3D straight = lineThrough(places("0 0, 10 0, 20 0, 30 0"), {});
    EXPECT_FALSE(fitArc(straight, resolve(straight, ground), 0, 3, ground));
}

TEST(Smooth, GoesThroughTheCornersWithoutABend) {
    std::mt19937 random(5);
    for (int run = 0; run < 100; ++run) {
        const Line3D line = randomLine(random, run % 2 == 0);
        const auto before = resolve(line, ground);
        const auto smooth = valueOf(smoothed(line, before, ground));
        const auto after = resolve(smooth.line, ground);
        const std::size_t n = after.path.size();
        for (std::size_t s = line.closed ? 0 : 1; s < n; ++s)
            EXPECT_NEAR(std::remainder(tangentAt(after.path[s], 0).radians() -
                                           tangentAt(after.path[(s + n - 1) % n], 1).radians(),
                                       2 * M_PI),
                        0, 1e-6)
                << "run " << run << " side " << s;
        for (const std::size_t i : cornersOf(line)) {
            const auto on = geometry::nearestOn(after.path, line.vertices[i].place);
            EXPECT_NEAR(on->distance, 0, 1e-9);
            if (!before.vertices[i].height || line.vertices[i].curve) continue;
            EXPECT_NEAR(heightAt(after, geometry::distanceAlong(after.path, *on)).value_or(-1),
                        *heightAt(before, before.vertices[i].distance), 1e-9)
                << "run " << run << " corner " << i;
        }
    }
    const Line3D two = lineThrough(places("0 0, 10 0"), {});
    EXPECT_FALSE(smoothed(two, resolve(two, ground), ground));
}

TEST(Smooth, CornersOnACircleGiveTheCircle) {
    std::vector<Vec2> on;
    for (int k = 0; k < 6; ++k) on.push_back({30 * std::cos(0.3 * k), 30 * std::sin(0.3 * k)});
    const Line3D line = lineThrough(on, {});
    const auto after = planPath(valueOf(smoothed(line, resolve(line, ground), ground)).line);
    for (const auto& side : after) EXPECT_NEAR(geometry::arcOf(side)->radius, 30, 1e-6);
}

TEST(Thin, LeavesNothingFartherOffThanSaid) {
    std::mt19937 random(17);
    std::normal_distribution<double> noise(0, 0.02);
    std::vector<Vec2> places;
    std::vector<std::optional<double>> heights;
    for (int k = 0; k < 400; ++k) {
        places.push_back({k * 0.5, 20 * std::sin(k * 0.02) + noise(random)});
        heights.emplace_back(100 + std::sin(k * 0.05) + noise(random));
    }
    const Line3D line = lineThrough(places, heights);
    const auto before = resolve(line, ground);
    for (const double tolerance : {0.05, 0.2, 1.0}) {
        const auto thin = valueOf(thinnedLine(line, before, {.deviation = tolerance, .angle = {}}, ground));
        EXPECT_EQ(thin.before, 400U);
        EXPECT_EQ(thin.reshaped.line.vertices.size(), 400 - thin.gone);
        EXPECT_GT(thin.gone, 100U);
        EXPECT_LE(thin.deviation, tolerance);
        // Each point from the nearest side in space, by brute force.
        const auto after = runsWithHeights(resolve(thin.reshaped.line, ground), 0.01).at(0);
        double worst = 0;
        for (const auto& v : before.vertices) {
            double best = 1e9;
            for (std::size_t s = 0; s + 1 < after.size(); ++s)
                for (int k = 0; k <= 2000; ++k) {
                    const double t = k / 2000.0;
                    const auto& a = after[s];
                    const auto& b = after[s + 1];
                    best = std::min(
                        best, std::hypot(a.x + t * (b.x - a.x) - v.place.x, a.y + t * (b.y - a.y) - v.place.y,
                                         a.z + t * (b.z - a.z) - *v.height));
                }
            worst = std::max(worst, best);
        }
        // Sampled: the brute force is off by half a step itself.
        EXPECT_LE(worst, tolerance + 0.02);
    }
    EXPECT_FALSE(thinnedLine(line, before, {}, ground));
}

TEST(Thin, ByAngleAndBySpacing) {
    const Line3D line =
        lineThrough(places("0 0, 1 0, 2 0.01, 3 0, 10 0, 10 10"), {1.0, 1.0, 1.0, 1.0, 1.0, 1.0});
    const auto r = resolve(line, ground);
    const auto angle = valueOf(thinnedLine(line, r, {.angle = Angle::degrees(3), .spacing = 0}, ground));
    EXPECT_EQ(angle.reshaped.line.vertices.size(), 3U);  // the corner of 90° stays
    const auto spacing = valueOf(thinnedLine(line, r, {.angle = {}, .spacing = 2.5}, ground));
    std::vector<double> xs;
    for (const auto& v : spacing.reshaped.line.vertices) xs.push_back(v.place.x);
    EXPECT_THAT(xs, testing::ElementsAre(0, 3, 10, 10));
    // A height that the others do not give is a reason to stay.
    Line3D bump = line;
    bump.vertices[1].rule = FixedHeight{1.5};
    EXPECT_EQ(valueOf(thinnedLine(bump, resolve(bump, ground), {.deviation = 0.05, .angle = {}}, ground))
                  .reshaped.line.vertices.size(),
              5U);
}

TEST(Thin, GradePointsThatStayKeepTheirPlaceAndHeight) {
    // The corner at 10 goes; the grade point at 16 stays, 16 of 40 along the side that is left.
    Line3D line = lineThrough(places("0 0, 10 0, 40 0, 40 30"), {100.0, 101.0, 104.0, 104.0});
    LineVertex grade;
    grade.isCorner = false;
    grade.fraction = 0.2;
    grade.rule = FixedHeight{109};
    line.vertices.insert(line.vertices.begin() + 2, grade);
    line.vertices[1].rule = Interpolated{};
    for (const bool closed : {false, true}) {
        line.closed = closed;
        const auto thin =
            valueOf(thinnedLine(line, resolve(line, ground), {.deviation = 0.01, .angle = {}}, ground));
        ASSERT_EQ(thin.reshaped.line.vertices.size(), 4U);
        EXPECT_NEAR(thin.reshaped.line.vertices[1].fraction, 0.4, 1e-12);
        EXPECT_NEAR(*resolve(thin.reshaped.line, ground).vertices[1].height, 109, 1e-12);
    }
}

TEST(InsertEvery, PutsCornersAtEqualDistances) {
    Line3D line = lineThrough(places("0 0, 30 0, 30 40"), {100.0, {}, 107.0});
    line.vertices[1].rule = Interpolated{};
    const auto r = placed(valueOf(withCornersEvery(line, 10)));
    std::vector<double> at;
    for (const auto& v : r.vertices) at.push_back(std::round(v.distance * 1e6) / 1e6);
    EXPECT_THAT(at, testing::ElementsAre(0, 10, 20, 30, 40, 50, 60, 70));
    EXPECT_FALSE(withCornersEvery(line, 70));
    EXPECT_FALSE(withCornersEvery(line, 0.001));
    EXPECT_FALSE(withCornersEvery(line, -1));
}

TEST(PlanMove, KeepsLengthsAndTurnsClockwise) {
    const auto quarter = PlanMove::turned(Angle::degrees(90), {1, 1});
    EXPECT_THAT(quarter({1, 3}), test::IsNear(3, 1, 1e-12));  // from north to east
    EXPECT_THAT(PlanMove::by({2, -3})({1, 1}), test::IsNear(3, -2, 1e-12));
    const auto mirror = PlanMove::mirrored({0, 0}, {1, 1});
    EXPECT_THAT(mirror({3, 0}), test::IsNear(0, 3, 1e-12));
    EXPECT_THAT(mirror({5, 5}), test::IsNear(5, 5, 1e-12));
    std::mt19937 random(4);
    const Line3D line = randomLine(random, false);
    const Line3D twice = moved(moved(line, mirror), mirror);
    EXPECT_NEAR(placed(moved(line, quarter)).length, placed(line).length, 1e-9);
    for (std::size_t i = 0; i < line.vertices.size(); ++i)
        EXPECT_THAT(twice.vertices[i].place,
                    test::IsNear(line.vertices[i].place.x, line.vertices[i].place.y, 1e-9));
}

}  // namespace
}  // namespace erdwerk::linework
