#include "core/terrain/mesh.h"

#include <set>

#include "core/geometry/predicates.h"
#include "core/terrain/noding.h"
#include "support/geometry.h"

namespace erdwerk::terrain {
namespace {

using test::valueOf;
using Place = std::pair<double, double>;
using Side = std::pair<Place, Place>;

/// Sides as pairs of places, constrained ones apart: the same for the same triangulation, however numbered.
std::pair<std::set<Side>, std::set<Side>> sidesOf(const Tin& tin) {
    std::set<Side> all;
    std::set<Side> constrained;
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t)
        for (int i = 0; i < 3; ++i) {
            const Vec3& a = tin.vertex(tin.corner(t, (i + 1) % 3));
            const Vec3& b = tin.vertex(tin.corner(t, (i + 2) % 3));
            Side side{{a.x, a.y}, {b.x, b.y}};
            if (side.second < side.first) std::swap(side.first, side.second);
            all.insert(side);
            if (tin.constrained(t, i)) constrained.insert(side);
        }
    return {all, constrained};
}

/// Neighbours point back over the same side with the same constraint, triangles turn left, area is kept.
void expectSound(const Tin& tin) {
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t) {
        const auto [a, b, c] = tin.triangle(t);
        ASSERT_GT(geometry::orientation(a.plan(), b.plan(), c.plan()), 0);
        for (int i = 0; i < 3; ++i) {
            const auto n = tin.neighbour(t, i);
            if (n == Tin::none) continue;
            int back = -1;
            for (int j = 0; j < 3; ++j)
                if (tin.neighbour(n, j) == t && tin.corner(n, (j + 1) % 3) == tin.corner(t, (i + 2) % 3))
                    back = j;
            ASSERT_GE(back, 0);
            ASSERT_EQ(tin.constrained(n, back), tin.constrained(t, i));
        }
    }
}

std::vector<Vec3> square(double size) {
    return {{0, 0, 0}, {size, 0, 0}, {size, size, 0}, {0, size, 0}};
}

TEST(Mesh, InsertingPointsGivesTheDelaunayTriangulationOfAll) {
    for (unsigned seed = 1; seed <= 100; ++seed) {
        SCOPED_TRACE("seed " + std::to_string(seed));
        std::mt19937 random(seed);
        auto points = square(100);
        Mesh mesh(valueOf(triangulate({points, {}, {}, {}})).tin);
        std::uint32_t hint = 0;
        for (const Vec3& p : test::scattered(random, 80, 100, [](double x, double) { return x; })) {
            points.push_back(p);
            const auto where = mesh.locate(p.plan(), hint);
            ASSERT_EQ(where.at, Mesh::At::Inside);
            mesh.insert(p, where);
            hint = mesh.lastTriangle();
        }
        const Tin tin = std::move(mesh).tin();
        expectSound(tin);
        ASSERT_EQ(sidesOf(tin).first, sidesOf(valueOf(triangulate({points, {}, {}, {}})).tin).first);
    }
}

TEST(Mesh, FindsCornersSidesAndTheOutside) {
    Mesh mesh(valueOf(triangulate({square(10), {}, {}, {}})).tin);
    EXPECT_EQ(mesh.locate({10, 10}, 0).at, Mesh::At::Corner);
    EXPECT_EQ(mesh.locate({5, 5}, 0).at, Mesh::At::Side);
    EXPECT_EQ(mesh.locate({5, 0}, 1).at, Mesh::At::Side);
    EXPECT_EQ(mesh.locate({5, -1}, 0).at, Mesh::At::Outside);
    EXPECT_EQ(mesh.locate({7, 2}, 0).at, Mesh::At::Inside);
}

TEST(Mesh, APointOnTheRimOrOnAConstraintSplitsIt) {
    BuildInput input{square(10), {{{{0, 0, 0}, {10, 10, 0}}, false}}, {}, {}};
    Mesh mesh(valueOf(triangulate(input)).tin);
    mesh.insert({5, 0, 1}, mesh.locate({5, 0}, 0));
    mesh.insert({4, 4, 1}, mesh.locate({4, 4}, 0));
    const Tin tin = std::move(mesh).tin();
    expectSound(tin);
    EXPECT_EQ(tin.triangleCount(), 5U);
    EXPECT_EQ(tin.constraintCount(), 2U);
    EXPECT_DOUBLE_EQ(figuresOf(tin).planArea, 100);
}

TEST(Mesh, AConstraintGivesWhatABuildWithItGives) {
    for (unsigned seed = 1; seed <= 200; ++seed) {
        SCOPED_TRACE("seed " + std::to_string(seed));
        std::mt19937 random(seed);
        auto points = square(100);
        for (const Vec3& p : test::scattered(random, 120, 100, [](double, double) { return 0.0; }))
            points.push_back(p);
        Mesh mesh(valueOf(triangulate({points, {}, {}, {}})).tin);
        const std::uint32_t a = 4 + static_cast<std::uint32_t>(random() % 120);
        const std::uint32_t b = 4 + static_cast<std::uint32_t>(random() % 120);
        if (a == b) continue;
        const auto at = mesh.locate(points[a].plan(), 0);
        ASSERT_EQ(at.at, Mesh::At::Corner);
        ASSERT_TRUE(mesh.constrain(a, b, at.triangle));
        const Tin tin = std::move(mesh).tin();
        expectSound(tin);
        const BuildInput whole{points, {{{points[a], points[b]}, false}}, {}, {}};
        ASSERT_EQ(sidesOf(tin), sidesOf(valueOf(triangulate(whole)).tin));
    }
}

TEST(Mesh, ReleasingAConstraintRestoresTheTriangulationWithoutIt) {
    for (unsigned seed = 1; seed <= 50; ++seed) {
        SCOPED_TRACE("seed " + std::to_string(seed));
        std::mt19937 random(seed);
        auto points = square(100);
        for (const Vec3& p : test::scattered(random, 60, 100, [](double, double) { return 0.0; }))
            points.push_back(p);
        const Tin before = valueOf(triangulate({points, {}, {}, {}})).tin;
        Mesh mesh(before);
        ASSERT_TRUE(mesh.constrain(4, 9, mesh.locate(points[4].plan(), 0).triangle));
        ASSERT_TRUE(mesh.release(4, 9, mesh.locate(points[4].plan(), 0).triangle));
        EXPECT_FALSE(mesh.release(4, 9, mesh.locate(points[4].plan(), 0).triangle));
        const Tin after = std::move(mesh).tin();
        expectSound(after);
        ASSERT_EQ(sidesOf(after), sidesOf(before));
    }
}

TEST(Mesh, AConstraintRunsThroughVerticesOnItsWay) {
    auto points = square(10);
    points.push_back({3, 5, 0});
    points.push_back({7, 5, 0});
    points.push_back({1, 5, 0});
    points.push_back({9, 5, 0});
    points.push_back({5, 6, 0});
    points.push_back({5, 4, 0});
    Mesh mesh(valueOf(triangulate({points, {}, {}, {}})).tin);
    ASSERT_TRUE(mesh.constrain(6, 7, mesh.locate({1, 5}, 0).triangle));
    const Tin tin = std::move(mesh).tin();
    expectSound(tin);
    EXPECT_EQ(tin.constraintCount(), 3U);  // 1-3, 3-7, 7-9
}

}  // namespace
}  // namespace erdwerk::terrain
