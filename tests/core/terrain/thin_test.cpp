#include "core/terrain/thin.h"

#include "core/geometry/path.h"
#include "core/terrain/fit.h"
#include "core/terrain/locator.h"
#include "support/geometry.h"

namespace erdwerk::terrain {
namespace {

using test::valueOf;

/// Height of the surface by looking at every triangle.
std::optional<double> bruteHeight(const Tin& tin, Vec2 p) {
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t) {
        const auto [a, b, c] = tin.triangle(t);
        const double whole = geometry::cross(b.plan() - a.plan(), c.plan() - a.plan());
        const double u = geometry::cross(b.plan() - p, c.plan() - p) / whole;
        const double v = geometry::cross(c.plan() - p, a.plan() - p) / whole;
        const double w = geometry::cross(a.plan() - p, b.plan() - p) / whole;
        if (std::min({u, v, w}) >= -1e-9) return u * a.z + v * b.z + w * c.z;
    }
    return std::nullopt;
}

double hilly(double x, double y) {
    return 3 * std::sin(x / 11) * std::cos(y / 7) + (x > 60 ? (x - 60) * 0.8 : 0);
}

TEST(Thin, APlaneNeedsOnlyItsHull) {
    std::vector<Vec3> points;
    for (int x = 0; x <= 30; ++x)
        for (int y = 0; y <= 20; ++y) points.push_back(test::onPlane(x, y, 0.25, -0.5, 100));
    const auto thinned = valueOf(thin(points, {0.01, 0, {}, {}}));
    EXPECT_EQ(thinned.tin.vertexCount(), 4U);
    EXPECT_EQ(thinned.tin.triangleCount(), 2U);
    EXPECT_EQ(thinned.pointsIn, 31U * 21U);
    EXPECT_NEAR(thinned.largestDeviation, 0, 1e-12);
}

TEST(Thin, EveryPointIsWithinTheToleranceOfTheSurface) {
    for (unsigned seed = 1; seed <= 20; ++seed) {
        SCOPED_TRACE("seed " + std::to_string(seed));
        std::mt19937 random(seed);
        const double tolerance = 0.02 + 0.004 * static_cast<double>(random() % 100);
        const auto points = test::scattered(random, 1500, 100, hilly);
        const auto thinned = valueOf(thin(points, {tolerance, 0, {}, {}}));
        double largest = 0;
        for (const Vec3& p : points) {
            const auto h = bruteHeight(thinned.tin, p.plan());
            ASSERT_TRUE(h);
            largest = std::max(largest, std::abs(p.z - *h));
        }
        EXPECT_LE(largest, tolerance);
        EXPECT_NEAR(thinned.largestDeviation, largest, 1e-9);
        EXPECT_EQ(thinned.beyond, 0U);
        EXPECT_EQ(thinned.outside, 0U);
        EXPECT_LT(thinned.tin.vertexCount(), points.size());
    }
}

TEST(Thin, WithABoundaryOnlyPointsInsideTakePartAndTheSurfaceEndsOnIt) {
    std::mt19937 random(3);
    const auto points = test::scattered(random, 5000, 100, hilly);
    ThinOptions options{0.1, 0, {}, {}};
    options.boundary = Boundary{test::places("20 20, 80 25, 70 80, 45 50, 25 75"), {}};
    const auto thinned = valueOf(thin(points, options));
    std::size_t inside = 0;
    for (const Vec3& p : points) {
        if (geometry::sideOf(options.boundary->ring, p.plan()) == geometry::Side::Outside) continue;
        ++inside;
        const auto h = bruteHeight(thinned.tin, p.plan());
        ASSERT_TRUE(h);
        ASSERT_LE(std::abs(p.z - *h), 0.1);
    }
    EXPECT_EQ(thinned.pointsIn, inside);
    EXPECT_NEAR(figuresOf(thinned.tin).planArea, geometry::signedArea(options.boundary->ring), 1e-6);
}

TEST(Thin, LinesAreSidesOfTheSurfaceAndPointsBesideThemAreExcused) {
    std::mt19937 random(5);
    auto points = test::scattered(random, 3000, 100, hilly);
    ThinOptions options{0.1, 0, {}, {}};
    options.lines.push_back({test::places3("10 50 2, 50 52 2, 90 50 2"), false});  // not on the ground
    const auto thinned = valueOf(thin(points, options));
    EXPECT_EQ(thinned.beyond, 0U);
    std::size_t excused = 0;
    for (const Vec3& p : points) {
        const auto near = [&](Vec2 a, Vec2 b) {
            const Vec2 d = b - a;
            const double t = std::clamp(geometry::dot(p.plan() - a, d) / geometry::dot(d, d), 0.0, 1.0);
            return geometry::distance(p.plan(), a + d * t) <= 0.1;
        };
        if (near({10, 50}, {50, 52}) || near({50, 52}, {90, 50}))
            ++excused;
        else
            ASSERT_LE(std::abs(p.z - *bruteHeight(thinned.tin, p.plan())), 0.1);
    }
    EXPECT_EQ(thinned.excused, excused);
    EXPECT_GE(thinned.tin.constraintCount(), 2U);
    EXPECT_EQ(bruteHeight(thinned.tin, {30, 51}), 2.0);
}

TEST(Thin, ABoundaryWithHeightsIsKeptAsItIs) {
    std::mt19937 random(8);
    const auto points = test::scattered(random, 2000, 100, [](double x, double) { return x / 10; });
    ThinOptions options{0.05, 0, {}, {}};
    options.boundary = Boundary{test::places("20 20, 80 20, 80 80, 20 80"), {2.0, 8.0, 8.0, 2.0}};
    const auto thinned = valueOf(thin(points, options));
    EXPECT_EQ(thinned.tin.vertexCount(), 4U);
    EXPECT_DOUBLE_EQ(figuresOf(thinned.tin).planArea, 3600);
}

TEST(Thin, SlopeChangeAsksForAQuarterOfTheToleranceWhereTheGroundBends) {
    std::mt19937 random(9);
    const auto points =
        test::scattered(random, 4000, 100, [](double x, double) { return 0.01 * (x - 50) * (x - 50); });
    const auto plain = valueOf(thin(points, {0.4, 0, {}, {}}));
    const auto finer = valueOf(thin(points, {0.4, 0.05, {}, {}}));
    EXPECT_LE(finer.largestDeviation, 0.4);
    EXPECT_GT(finer.tin.vertexCount(), plain.tin.vertexCount());
    // z'' = 0.02: between points x apart the parabola leaves its chord by 0.0025 x^2, and the slopes of
    // neighbouring chords differ by 0.02 x. Below 0.05 rad, then, chords are shorter than about 2.5 m or the
    // deviation below 0.1.
    EXPECT_EQ(finer.beyond, 0U);
}

TEST(Thin, TwoHeightsInOnePlaceAreCountedAndMeasured) {
    std::vector<Vec3> points{{0, 0, 0}, {10, 0, 0}, {10, 10, 0}, {0, 10, 0}, {5, 4, 0}, {5, 4, 3}};
    const auto thinned = valueOf(thin(points, {0.1, 0, {}, {}}));
    EXPECT_EQ(thinned.contradicting, 1U);
    EXPECT_EQ(thinned.beyond, 1U);
    EXPECT_EQ(thinned.largestDeviation, 3.0);
}

TEST(Thin, SaysWhenThereIsNothingToThin) {
    EXPECT_EQ(thin({}, {0.1, 0, {}, {}}).error().code, ErrorCode::Degenerate);
    EXPECT_EQ(thin(test::places3("0 0 1, 1 1 1, 2 2 2"), {0.1, 0, {}, {}}).error().code,
              ErrorCode::Degenerate);
    EXPECT_EQ(thin(test::places3("0 0 1, 0 0 1, 0 0 1"), {0.1, 0, {}, {}}).error().code,
              ErrorCode::Degenerate);
    EXPECT_EQ(thin(test::places3("0 0 1, 9 0 1, 0 9 1"), {0, 0, {}, {}}).error().code, ErrorCode::BadInput);
    EXPECT_EQ(thin({{0, 0, NAN}}, {0.1, 0, {}, {}}).error().code, ErrorCode::BadInput);
    ThinOptions away{0.1, 0, {}, {}};
    away.boundary = Boundary{test::places("50 50, 60 50, 60 60"), {}};
    EXPECT_EQ(thin(test::places3("0 0 1, 9 0 1, 0 9 1"), away).error().text,
              "no point lies inside the boundary");
    const std::atomic<bool> stop{true};
    std::mt19937 random(1);
    EXPECT_EQ(thin(test::scattered(random, 100, 10, hilly), {0.1, 0, {}, {}}, {{}, &stop}).error().code,
              ErrorCode::Cancelled);
}

TEST(Fit, FiguresOfDeviationsThatAreKnown) {
    // The surface is the plane z = 0; the points stand above it by what they say.
    const auto tin = valueOf(build({test::places3("0 0 0, 100 0 0, 100 100 0, 0 100 0"), {}, {}, {}})).tin;
    const TinLocator surface(std::make_shared<const Tin>(tin));
    std::vector<Vec3> points;
    for (int i = 1; i <= 20; ++i) points.push_back({i * 4.0, 50, i == 20 ? -2.0 : i / 100.0});
    points.push_back({500, 500, 1});
    const auto deviations = valueOf(deviationsOf(surface, points));
    const auto f = figuresOf(deviations, 0.1, 4);
    EXPECT_EQ(f.points, 20U);
    EXPECT_EQ(f.outside, 1U);
    EXPECT_NEAR(f.mean, (1.9 - 2.0) / 20, 1e-12);               // 0.01 + … + 0.19 = 1.9
    EXPECT_NEAR(f.rms, std::sqrt((0.2470 + 4.0) / 20), 1e-12);  // 0.0001 · 19·20·39/6 = 0.2470
    EXPECT_NEAR(f.largestUp, 0.19, 1e-12);
    EXPECT_NEAR(f.largestDown, -2, 1e-12);
    EXPECT_NEAR(f.p95, 0.19, 1e-12);  // 19 of 20
    EXPECT_EQ(f.within, 10U);
    EXPECT_EQ(f.histogram, (std::vector<std::size_t>{1, 0, 9, 10}));  // -0.2 -0.1 0 0.1 0.2
    const auto worst = worstPlaces(points, deviations, 0.1, 10, 3);
    ASSERT_EQ(worst.size(), 3U);
    EXPECT_EQ(worst[0].point, 19U);
    // They stand 4 apart: the two next to each are too near.
    EXPECT_EQ(worst[1].point, 16U);
    EXPECT_EQ(worst[2].point, 13U);
}

}  // namespace
}  // namespace erdwerk::terrain
