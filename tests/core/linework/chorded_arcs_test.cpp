#include "core/linework/chorded_arcs.h"

#include <cmath>
#include <numbers>

#include "support/geometry.h"

namespace erdwerk::linework {
namespace {

constexpr double degree = std::numbers::pi / 180;

/// Corners on a circle about (1000, 2000), clockwise from azimuth `from`, rounded to `unit`.
std::vector<Vec2> onCircle(double radius, double from, double to, int sides, double unit = 0) {
    std::vector<Vec2> out;
    for (int k = 0; k <= sides; ++k) {
        const double a = (from + (to - from) * k / sides) * degree;
        Vec2 p{1000 + radius * std::sin(a), 2000 + radius * std::cos(a)};
        if (unit > 0) p = {std::round(p.x / unit) * unit, std::round(p.y / unit) * unit};
        out.push_back(p);
    }
    return out;
}

Line3D lineOf(const std::vector<Vec2>& corners, bool closed = false) {
    return lineThrough(corners, std::vector<std::optional<double>>(corners.size()), closed);
}

TEST(ChordedArcs, AQuarterOf23SidesBetweenStraights) {
    for (const double unit : {0.0, 0.001}) {
        auto corners = onCircle(30, 270, 360, 23, unit);
        corners.insert(corners.begin(), Vec2{970, 1950});
        corners.push_back({1080, 2030});
        const auto arcs = chordedArcs(lineOf(corners), 0.001);
        ASSERT_EQ(arcs.size(), 1U) << unit;
        EXPECT_EQ(arcs[0].first, 1U);
        EXPECT_EQ(arcs[0].last, 24U);
        EXPECT_EQ(arcs[0].sides, 23U);
        EXPECT_NEAR(arcs[0].radius, 30, unit == 0 ? 1e-6 : 0.01);
        // The sagitta of a chord that turns by 90/23 degrees.
        EXPECT_NEAR(arcs[0].off, 30 * (1 - std::cos(45.0 / 23 * degree)), unit == 0 ? 1e-6 : 0.002);
    }
}

TEST(ChordedArcs, ARingIsTwoHalvesAndAReverseCurveIsTwo) {
    auto ring = onCircle(8, 0, 360, 48);
    ring.pop_back();
    const auto halves = chordedArcs(lineOf(ring, true), 0.001);
    ASSERT_EQ(halves.size(), 2U);
    EXPECT_EQ(halves[0].last, halves[1].first);
    EXPECT_EQ(halves[1].last, ring.size());
    // To the right about (1000, 2000), then to the left about the mirrored centre.
    auto reverse = onCircle(20, 270, 360, 18);
    const auto back = onCircle(20, 180, 90, 18);
    for (std::size_t k = 1; k < back.size(); ++k) reverse.push_back(back[k] + Vec2{0, 40});
    const auto two = chordedArcs(lineOf(reverse), 0.001);
    ASSERT_EQ(two.size(), 2U);
    EXPECT_EQ(two[0].last, 18U);
    EXPECT_EQ(two[1].first, 18U);
}

TEST(ChordedArcs, InTheirPlaceHeightsStay) {
    auto corners = onCircle(30, 270, 360, 18);
    corners.insert(corners.begin(), Vec2{970, 1950});
    corners.push_back({1080, 2030});
    std::vector<std::optional<double>> heights;
    for (std::size_t k = 0; k < corners.size(); ++k) heights.emplace_back(100 + 0.3 * static_cast<double>(k));
    Line3D line = lineThrough(corners, heights);
    line.vertices[5].rule = Interpolated{};
    const Line3D made = withArcs(line, chordedArcs(line, 0.001));
    EXPECT_FALSE(validate(made));
    const Path path = planPath(made);
    ASSERT_EQ(path.size(), 3U);
    EXPECT_NEAR(arcOf(path[1])->radius, 30, 1e-6);
    EXPECT_NEAR(arcOf(path[1])->sweep.degrees(), 90, 1e-6);
    EXPECT_EQ(made.vertices.size(), line.vertices.size() - 1);
    // The fourth corner of the arc, three eighteenths along it.
    EXPECT_FALSE(made.vertices[4].isCorner);
    EXPECT_NEAR(made.vertices[4].fraction, 3.0 / 18, 1e-12);
    EXPECT_EQ(std::get<FixedHeight>(made.vertices[4].rule).height, 100 + 0.3 * 4);
    const auto flat = lineOf(corners);
    EXPECT_EQ(withArcs(flat, chordedArcs(flat, 0.001)).vertices.size(), 4U);
    auto ring = onCircle(8, 0, 360, 48);
    ring.pop_back();
    const Line3D round = withArcs(lineOf(ring, true), chordedArcs(lineOf(ring, true), 0.001));
    EXPECT_FALSE(validate(round));
    EXPECT_NEAR(lengthOf(planPath(round)), 16 * std::numbers::pi, 1e-6);
}

TEST(ChordedArcs, NothingElseIsOne) {
    // An octagon and a dodecagon are drawn so.
    auto octagon = onCircle(10, 0, 360, 8);
    octagon.pop_back();
    EXPECT_TRUE(chordedArcs(lineOf(octagon, true), 0.001).empty());
    auto dodecagon = onCircle(10, 0, 360, 12);
    dodecagon.pop_back();
    EXPECT_TRUE(chordedArcs(lineOf(dodecagon, true), 0.001).empty());
    // A straight with points every metre, a zigzag, a spiral of 20 sides.
    std::vector<Vec2> straight;
    std::vector<Vec2> zigzag;
    std::vector<Vec2> spiral{{0, 0}};
    for (int k = 0; k < 30; ++k) {
        straight.push_back({1.0 * k, 0.5 * k});
        zigzag.push_back({1.0 * k, k % 2 == 0 ? 0.1 : 0.0});
        const double azimuth = 0.004 * k * k;
        spiral.push_back(spiral.back() + Vec2{std::sin(azimuth), std::cos(azimuth)});
    }
    EXPECT_TRUE(chordedArcs(lineOf(straight), 0.001).empty());
    EXPECT_TRUE(chordedArcs(lineOf(zigzag), 0.001).empty());
    EXPECT_TRUE(chordedArcs(lineOf(spiral), 0.001).empty());
    // Seven sides are too few, and what was surveyed by hand is of no one length.
    EXPECT_TRUE(chordedArcs(lineOf(onCircle(30, 0, 35, 7)), 0.001).empty());
    std::mt19937 random(4);
    std::uniform_real_distribution<double> by(-1, 1);
    std::vector<Vec2> surveyed;
    for (int k = 0; k <= 20; ++k) surveyed.push_back(onCircle(30, 4.0 * k + by(random), 90, 1).front());
    EXPECT_TRUE(chordedArcs(lineOf(surveyed), 0.001).empty());
}

}  // namespace
}  // namespace erdwerk::linework
