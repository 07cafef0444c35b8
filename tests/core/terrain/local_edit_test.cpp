#include "core/terrain/local_edit.h"

#include <set>

#include "support/geometry.h"

namespace erdwerk::terrain {
namespace {

using test::valueOf;
using Corner = std::tuple<double, double, double>;

/// Triangles by their corners' places and heights, with which sides are constrained.
std::set<std::pair<std::array<Corner, 3>, std::array<bool, 3>>> trianglesOf(const Tin& tin) {
    std::set<std::pair<std::array<Corner, 3>, std::array<bool, 3>>> out;
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t) {
        std::array<Corner, 3> corners;
        std::array<bool, 3> flags{};
        int first = 0;
        for (int i = 0; i < 3; ++i) {
            const Vec3& v = tin.vertex(tin.corner(t, i));
            corners[static_cast<std::size_t>(i)] = {v.x, v.y, v.z};
            if (corners[static_cast<std::size_t>(i)] < corners[static_cast<std::size_t>(first)]) first = i;
        }
        std::rotate(corners.begin(), corners.begin() + first, corners.end());
        for (int i = 0; i < 3; ++i) flags[static_cast<std::size_t>(i)] = tin.constrained(t, (i + first) % 3);
        out.emplace(corners, flags);
    }
    return out;
}

Breakline wander(std::mt19937& random, int corners) {
    std::uniform_real_distribution<double> unit(0, 1);
    Breakline line;
    Vec2 at{10 + 80 * unit(random), 10 + 80 * unit(random)};
    double heading = 6.28 * unit(random);
    for (int i = 0; i < corners; ++i) {
        line.corners.push_back({at.x, at.y, 50 + unit(random)});
        heading += unit(random) - 0.5;
        const Vec2 step = Vec2{std::cos(heading), std::sin(heading)} * (2 + 3 * unit(random));
        at = {std::clamp(at.x + step.x, 2.0, 98.0), std::clamp(at.y + step.y, 2.0, 98.0)};
    }
    return line;
}

TEST(LocalEdit, AddingALineGivesTheTriangulationOfAFullBuild) {
    int edited = 0;
    for (unsigned seed = 1; seed <= 300; ++seed) {
        SCOPED_TRACE("seed " + std::to_string(seed));
        std::mt19937 random(seed);
        BuildInput input;
        input.points = test::scattered(random, 400, 100, [](double x, double y) { return x + y; });
        for (const Vec2 p : test::places("0 0, 100 0, 100 100, 0 100")) input.points.push_back({p.x, p.y, 0});
        for (unsigned l = 0; l < seed % 4; ++l) input.lines.push_back(wander(random, 8));
        const auto before = valueOf(triangulate(input));
        const TinLocator locator(std::make_shared<const Tin>(before.tin));
        const Breakline added = wander(random, 12);
        const auto local = withLine(before, locator, input, added);
        if (!local) continue;  // a line that touches itself by rounding
        ++edited;
        input.lines.push_back(added);
        const auto full = valueOf(triangulate(input));
        ASSERT_EQ(trianglesOf(local->tin), trianglesOf(full.tin));
        ASSERT_EQ(local->crossings.size(), full.crossings.size());
        ASSERT_EQ(local->tin.vertexCount(), full.tin.vertexCount());
    }
    EXPECT_GE(edited, 290);
}

TEST(LocalEdit, SaysNothingForALineThatLeavesTheHull) {
    BuildInput input;
    input.points = test::places3("0 0 0, 10 0 0, 10 10 0, 0 10 0, 4 6 1");
    const auto before = valueOf(triangulate(input));
    const TinLocator locator(std::make_shared<const Tin>(before.tin));
    EXPECT_FALSE(withLine(before, locator, input, {test::places3("5 5 0, 15 5 0"), false}));
    EXPECT_TRUE(withLine(before, locator, input, {test::places3("5 5 0, 9 5 0"), false}));
}

}  // namespace
}  // namespace erdwerk::terrain
