#include "core/terrain/build.h"

#include <set>

#include "core/geometry/predicates.h"
#include "core/terrain/clip.h"
#include "core/terrain/locator.h"
#include "demo_site/site.h"
#include "support/geometry.h"

namespace erdwerk::terrain {
namespace {

using test::places;
using test::places3;
using test::valueOf;

TinLocator locate(const Tin& tin) {
    return TinLocator(std::make_shared<const Tin>(tin));
}

/// Structure: counter-clockwise, neighbours mutual, and no vertex of a neighbour inside a circumcircle unless
/// the side between is constrained.
void expectConstrainedDelaunay(const Tin& tin) {
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t) {
        const auto [a, b, c] = tin.triangle(t);
        ASSERT_EQ(geometry::orientation(a.plan(), b.plan(), c.plan()), 1) << "triangle " << t;
        for (int i = 0; i < 3; ++i) {
            const std::uint32_t n = tin.neighbour(t, i);
            if (n == Tin::none) continue;
            int back = -1;
            for (int j = 0; j < 3; ++j)
                if (tin.neighbour(n, j) == t) back = j;
            ASSERT_GE(back, 0);
            ASSERT_EQ(tin.constrained(t, i), tin.constrained(n, back));
            if (!tin.constrained(t, i))
                ASSERT_LE(
                    geometry::inCircle(a.plan(), b.plan(), c.plan(), tin.vertex(tin.corner(n, back)).plan()),
                    0)
                    << "triangle " << t;
        }
    }
}

double areaOf(const Tin& tin) {
    return figuresOf(tin).planArea;
}

TEST(Build, RandomPointsGiveADelaunayTriangulationOfTheirHull) {
    for (unsigned seed = 0; seed < 40; ++seed) {
        std::mt19937 random(seed);
        BuildInput input;
        input.points = test::scattered(random, 60, 100, [](double x, double y) { return x + y; });
        input.points.insert(input.points.end(), {{0, 0, 0}, {100, 0, 100}, {100, 100, 200}, {0, 100, 100}});
        const auto built = valueOf(build(input));
        SCOPED_TRACE("seed " + std::to_string(seed));
        expectConstrainedDelaunay(built.tin);
        EXPECT_NEAR(areaOf(built.tin), 10000, 1e-6);
        // Euler: 2n - h - 2 triangles with h hull points.
        EXPECT_EQ(built.tin.triangleCount(), 2 * 64 - 4 - 2);
        EXPECT_EQ(built.points, 64U);
    }
}

TEST(Build, VerticesKeepTheOrderOfThePoints) {
    BuildInput input;
    input.points = places3("0 0 1, 10 0 2, 0 10 3, 10 10 4, 5 4 5");
    input.lines.push_back({places3("1 1 7, 9 8 7"), false});
    const auto tin = valueOf(build(input)).tin;
    ASSERT_EQ(tin.vertexCount(), 7U);
    for (std::uint32_t v = 0; v < 5; ++v) EXPECT_EQ(tin.vertex(v), input.points[v]);
    EXPECT_EQ(tin.vertex(5), (Vec3{1, 1, 7}));
    EXPECT_EQ(tin.vertex(6), (Vec3{9, 8, 7}));
}

TEST(Build, BreaklinesBecomeEdges) {
    for (unsigned seed = 100; seed < 130; ++seed) {
        std::mt19937 random(seed);
        BuildInput input;
        input.points = test::scattered(random, 80, 100, [](double, double) { return 0; });
        input.lines.push_back({test::places3("5 50 1, 50 52 2, 95 47 3"), false});
        const auto built = valueOf(build(input));
        SCOPED_TRACE("seed " + std::to_string(seed));
        expectConstrainedDelaunay(built.tin);
        const auto surface = locate(built.tin);
        // On the line the surface has the line's heights, whatever lies around it.
        for (double t = 0.05; t < 1; t += 0.1)
            EXPECT_NEAR(*surface.heightAt(geometry::lerp(Vec2{5, 50}, Vec2{50, 52}, t)), 1 + t, 1e-9);
    }
}

TEST(Build, FirstOfTwoPointsInOnePlaceWins) {
    BuildInput input;
    input.points = places3("0 0 1, 10 0 1, 0 10 1, 0 0 5, 3 3 2, 0 0 9");
    const auto built = valueOf(build(input));
    EXPECT_EQ(built.points, 4U);
    ASSERT_EQ(built.duplicates.size(), 2U);
    EXPECT_EQ(built.duplicates[0].kept, 0U);
    EXPECT_EQ(built.duplicates[0].dropped, 3U);
    EXPECT_EQ(built.duplicates[1].dropped, 5U);
    EXPECT_EQ(*locate(built.tin).heightAt({0, 0}), 1);
}

TEST(Build, CrossingLinesShareACornerAtTheFirstsHeight) {
    BuildInput input;
    input.points = places3("0 0 0, 10 0 0, 10 10 0, 0 10 0");
    input.lines.push_back({places3("1 5 10, 9 5 20"), false});
    input.lines.push_back({places3("5 1 30, 5 9 40"), false});
    const auto built = valueOf(build(input));
    ASSERT_EQ(built.crossings.size(), 1U);
    const Crossing& c = built.crossings[0];
    EXPECT_THAT(c.place, test::IsNear(5, 5, 1e-12));
    EXPECT_NEAR(c.firstHeight, 15, 1e-12);
    EXPECT_NEAR(c.secondHeight, 35, 1e-12);
    EXPECT_EQ(c.first, 0U);
    EXPECT_EQ(c.second, 1U);
    EXPECT_NEAR(*locate(built.tin).heightAt({5, 5}), 15, 1e-12);
    EXPECT_EQ(built.tin.constraintCount(), 4U);
    expectConstrainedDelaunay(built.tin);
}

TEST(Build, ACornerOnAnotherLineTakesTheFirstsHeight) {
    BuildInput input;
    input.points = places3("0 0 0, 10 0 0, 10 10 0, 0 10 0");
    input.lines.push_back({places3("1 5 10, 9 5 10"), false});
    input.lines.push_back({places3("5 5 12, 5 9 12"), false});
    const auto built = valueOf(build(input));
    ASSERT_EQ(built.crossings.size(), 1U);
    EXPECT_EQ(built.crossings[0].secondHeight, 12);
    EXPECT_EQ(*locate(built.tin).heightAt({5, 5}), 10);
}

TEST(Build, ManyCrossingLinesAreHandledWithoutACrash) {
    for (unsigned seed = 0; seed < 60; ++seed) {
        std::mt19937 random(seed);
        BuildInput input;
        std::uniform_int_distribution<int> grid(
            0, 12);  // a coarse grid, so that ends, overlaps and triple crossings occur
        for (int l = 0; l < 14; ++l) {
            Breakline line;
            for (int k = 0; k < 3; ++k)
                line.corners.push_back({double(grid(random)), double(grid(random)), double(l)});
            if (line.corners[0].plan() == line.corners[1].plan() ||
                line.corners[1].plan() == line.corners[2].plan())
                continue;
            input.lines.push_back(line);
        }
        const auto built = build(input);
        SCOPED_TRACE("seed " + std::to_string(seed));
        ASSERT_TRUE(built);
        expectConstrainedDelaunay(built->tin);
    }
}

TEST(Build, DegenerateInputGetsAClearAnswer) {
    EXPECT_EQ(build({}).error().code, ErrorCode::Degenerate);
    BuildInput line;
    line.points = places3("0 0 0, 1 1 1, 2 2 2, 3 3 3");
    EXPECT_EQ(build(line).error().code, ErrorCode::Degenerate);
    BuildInput equal;
    equal.points = places3("4 4 0, 4 4 1, 4 4 2");
    EXPECT_EQ(build(equal).error().code, ErrorCode::Degenerate);
    BuildInput bad;
    bad.points = {{0, 0, 0}, {1, 0, std::nan("")}, {0, 1, 0}};
    EXPECT_EQ(build(bad).error().code, ErrorCode::BadInput);
    std::atomic<bool> stop{true};
    BuildInput many;
    std::mt19937 random(1);
    many.points = test::scattered(random, 40000, 100, [](double, double) { return 0; });
    EXPECT_EQ(build(many, {{}, &stop}).error().code, ErrorCode::Cancelled);
}

TEST(Build, MillimetresAtTenMillionStayDistinct) {
    BuildInput input;
    for (int i = 0; i < 5; ++i)
        for (int j = 0; j < 5; ++j) input.points.push_back({1e7 + i * 0.001, 1e7 + j * 0.001, double(i)});
    const auto built = valueOf(build(input));
    EXPECT_EQ(built.points, 25U);
    EXPECT_EQ(built.tin.triangleCount(), 32U);
}

TEST(Build, ABoundaryWithHeightsIsABreaklineAndTheEnd) {
    BuildInput input;
    for (int i = 0; i <= 10; ++i)
        for (int j = 0; j <= 10; ++j) input.points.push_back({i * 10.0, j * 10.0, 0});
    input.boundary = Boundary{places("15 15, 85 15, 85 85, 15 85"), {1.0, 1.0, 1.0, 1.0}};
    const auto built = valueOf(build(input));
    expectConstrainedDelaunay(built.tin);
    EXPECT_NEAR(areaOf(built.tin), 4900, 1e-9);
    EXPECT_EQ(built.points, 49U);
    EXPECT_NEAR(*locate(built.tin).heightAt({50, 15}), 1, 1e-12);
    EXPECT_FALSE(locate(built.tin).heightAt({10, 50}));
}

TEST(Build, ABoundaryWithoutHeightsKeepsExactlyTheGround) {
    for (unsigned seed = 0; seed < 30; ++seed) {
        std::mt19937 random(seed);
        BuildInput input;
        input.points = test::scattered(random, 200, 100,
                                       [](double x, double y) { return std::sin(x / 9) * 5 + y * y / 300; });
        const auto whole = locate(valueOf(build(input)).tin);
        std::uniform_real_distribution<double> wobble(0.6, 1.0);
        Boundary rim;
        for (int k = 0; k < 9; ++k) {
            const double angle = 2 * 3.14159265358979 * k / 9;
            const double r = 36 * wobble(random);
            rim.ring.push_back({50 + r * std::cos(angle), 50 + r * std::sin(angle)});
        }
        input.boundary = rim;
        const auto built = valueOf(build(input));
        const auto cut = locate(built.tin);
        SCOPED_TRACE("seed " + std::to_string(seed));
        EXPECT_NEAR(areaOf(built.tin), std::abs(geometry::signedArea(rim.ring)), 1e-6);
        std::uniform_real_distribution<double> any(0, 100);
        for (int k = 0; k < 300; ++k) {
            const Vec2 p{any(random), any(random)};
            const bool inside = geometry::sideOf(rim.ring, p) != geometry::Side::Outside;
            ASSERT_EQ(cut.heightAt(p).has_value(), inside);
            if (inside) ASSERT_NEAR(*cut.heightAt(p), *whole.heightAt(p), 1e-6);
        }
        // Its sides are constrained rim edges.
        for (std::uint32_t t = 0; t < built.tin.triangleCount(); ++t)
            for (int i = 0; i < 3; ++i)
                if (built.tin.neighbour(t, i) == Tin::none) EXPECT_TRUE(built.tin.constrained(t, i));
    }
}

TEST(Build, WhereABoundaryLeavesThePointsTheSurfaceEnds) {
    BuildInput input;
    input.points = places3("0 0 0, 10 0 10, 10 10 10, 0 10 0");
    input.boundary = Boundary{places("5 -5, 20 -5, 20 5, 5 5"), {{}, {}, {}, {}}};
    const auto built = valueOf(build(input));
    EXPECT_NEAR(areaOf(built.tin), 25, 1e-9);
    EXPECT_NEAR(*locate(built.tin).heightAt({7, 3}), 7, 1e-9);
}

TEST(Build, ABadBoundaryIsNamed) {
    BuildInput input;
    input.points = places3("0 0 0, 10 0 0, 10 10 0, 0 10 0");
    input.boundary = Boundary{places("0 0, 10 10, 10 0, 0 10"), {}};
    const auto built = build(input);
    ASSERT_FALSE(built);
    EXPECT_THAT(built.error().text, testing::HasSubstr("crosses itself: sides 1 and 3"));
    input.boundary = Boundary{places("100 100, 110 100, 105 110"), {}};
    EXPECT_EQ(build(input).error().code, ErrorCode::Degenerate);
}

TEST(Build, LongRimTrianglesArePeeled) {
    BuildInput input;
    for (int i = 0; i <= 10; ++i)
        for (int j = 0; j <= 10; ++j) input.points.push_back({double(i), double(j), 0});
    input.points.push_back({40, 5, 0});
    EXPECT_GT(areaOf(valueOf(build(input)).tin), 200);
    input.maxEdge = 5;
    const auto built = valueOf(build(input));
    EXPECT_NEAR(areaOf(built.tin), 100, 1e-9);
    EXPECT_EQ(built.points, 121U);
}

TEST(Build, ANarrowRimNeedleIsLeftOut) {
    BuildInput input;
    input.points = places3("0 0 0, 20 0 0, 10 8 0, 10 0.000001 0");
    EXPECT_EQ(valueOf(build(input)).tin.triangleCount(), 2U);
}

TEST(Build, TheDemoSiteIsAProperSurface) {
    const auto site = demo::survey(7);
    BuildInput input;
    for (const auto& p : site.points)
        if (p.height) input.points.push_back({p.plan.x, p.plan.y, *p.height});
    for (const auto& line : site.breaklines) {
        Breakline b{{}, line.line.closed};
        for (const auto& v : line.line.vertices)
            b.corners.push_back({v.place.x, v.place.y, std::get<linework::FixedHeight>(v.rule).height});
        input.lines.push_back(b);
    }
    const auto built = valueOf(build(input));
    expectConstrainedDelaunay(built.tin);
    EXPECT_EQ(built.crossings.size(), 1U);
    EXPECT_EQ(built.duplicates.size(), std::size_t{1});
}

}  // namespace
}  // namespace erdwerk::terrain
