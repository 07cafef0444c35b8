#include "core/terrain/trace.h"

#include <algorithm>
#include <cmath>
#include <numbers>

#include "core/terrain/build.h"
#include "support/geometry.h"

namespace erdwerk::terrain {
namespace {

using geometry::Segment;

std::shared_ptr<const TinLocator> knolls(unsigned seed, int count = 400) {
    std::mt19937 random(seed);
    BuildInput input;
    input.points = test::scattered(random, count, 100, [](double x, double y) {
        return 300 + 4 * std::sin(x / 11) + 3 * std::cos(y / 7) + 0.2 * x;
    });
    return std::make_shared<const TinLocator>(
        std::make_shared<const Tin>(test::valueOf(build(std::move(input))).tin));
}

/// Where a circle meets the edges of a surface, by the quadratic equation along each edge: azimuths from the
/// centre, in degrees.
std::vector<double> metByCircle(const Tin& tin, Vec2 centre, double radius) {
    std::vector<double> out;
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t)
        for (int i = 0; i < 3; ++i) {
            const auto n = tin.neighbour(t, i);
            if (n != Tin::none && n < t) continue;
            const Vec2 u = tin.vertex(tin.corner(t, (i + 1) % 3)).plan() - centre;
            const Vec2 v = tin.vertex(tin.corner(t, (i + 2) % 3)).plan() - centre;
            const Vec2 d = v - u;
            const double a = dot(d, d);
            const double b = dot(u, d);
            const double root = b * b - a * (dot(u, u) - radius * radius);
            if (root < 0) continue;
            for (const double sign : {-1.0, 1.0}) {
                const double s = (-b + sign * std::sqrt(root)) / a;
                if (s < 0 || s > 1) continue;
                const Vec2 p = u + d * s;
                out.push_back(std::atan2(p.x, p.y) * 180 / std::numbers::pi);
            }
        }
    std::sort(out.begin(), out.end());
    return out;
}

TEST(TraceCurve, AnArcMeetsTheEdgesThatItsCircleMeets) {
    int met = 0;
    for (unsigned seed = 1; seed <= 40; ++seed) {
        SCOPED_TRACE(seed);
        const auto surface = knolls(seed);
        const Vec2 centre{48.3, 51.7};
        const double radius = 3 + seed;
        // Half a circle by the east, from azimuth 0 to 180.
        const auto place = [&](double azimuth) {
            const double a = azimuth * std::numbers::pi / 180;
            return centre + Vec2{std::sin(a), std::cos(a)} * radius;
        };
        std::vector<double> wanted;
        for (const double a : metByCircle(surface->tin(), centre, radius))
            if (a > 1e-9 && a < 180 - 1e-9) wanted.push_back(a);
        const auto points = trace(*surface, Segment{place(0), place(180), place(90)});
        ASSERT_EQ(points.size(), wanted.size() + 2);
        for (std::size_t k = 0; k < wanted.size(); ++k) {
            const auto& p = points[k + 1];
            EXPECT_TRUE(p.onEdge);
            EXPECT_NEAR(p.fraction * 180, wanted[k], 1e-9);
            EXPECT_THAT(p.place, test::IsNear(place(wanted[k]).x, place(wanted[k]).y, 1e-9));
            ++met;
        }
        for (const auto& p : points) {
            EXPECT_NEAR(geometry::distance(p.place, centre), radius, 1e-9);
            if (const auto h = surface->heightAt(p.place)) EXPECT_NEAR(p.height.value(), *h, 1e-8);
        }
    }
    EXPECT_GT(met, 1000);
}

TEST(TraceCurve, BetweenItsPointsAClothoidStaysInOneTriangle) {
    int places = 0;
    for (unsigned seed = 1; seed <= 20; ++seed) {
        SCOPED_TRACE(seed);
        const auto surface = knolls(seed);
        // From a curve to the left into one to the right: it has a place without curvature.
        const geometry::Spiral shape{-1.0 / (10 + seed), 1.0 / 12, 90};
        const Segment s = geometry::clothoidFrom({20, 30}, Angle::degrees(60), shape);
        const auto points = trace(*surface, s);
        ASSERT_GT(points.size(), 20U);
        for (std::size_t k = 0; k + 1 < points.size(); ++k) {
            EXPECT_LT(points[k].fraction, points[k + 1].fraction);
            EXPECT_LT(geometry::distance(points[k].place, pointAt(s, points[k].fraction)), 1e-9);
            const double gap = points[k + 1].fraction - points[k].fraction;
            if (gap * 90 < 1e-6) continue;
            for (int i = 1; i < 50; ++i) {
                const Vec2 p = pointAt(s, points[k].fraction + gap * i / 50);
                EXPECT_EQ(surface->triangleAt(p), points[k].triangleAfter);
                ++places;
            }
        }
    }
    EXPECT_GT(places, 10'000);
}

TEST(TraceCurve, AnEdgeThatIsOnlyTouchedIsMetOnce) {
    // Two triangles beside the upright at x = 10, which the circle about (5, 0) with radius 5 touches.
    const auto surface = std::make_shared<const TinLocator>(std::make_shared<const Tin>(
        test::places3("-40 -20 0, 10 -20 1, 10 20 1, 30 0 5"), std::vector<std::uint32_t>{0, 1, 2, 1, 3, 2}));
    const auto points = trace(*surface, Segment{{5, -5}, {5, 5}, Vec2{10, 0}});
    ASSERT_EQ(points.size(), 3U);
    EXPECT_THAT(points[1].place, test::IsNear(10, 0, 1e-9));
    EXPECT_NEAR(points[1].height.value(), 1, 1e-9);
    EXPECT_NEAR(points[1].fraction, 0.5, 1e-9);
}

TEST(TraceCurve, OffTheSurfaceItHasNoHeight) {
    const auto surface = std::make_shared<const TinLocator>(std::make_shared<const Tin>(
        test::places3("0 0 0, 10 0 0, 10 10 10, 0 10 10"), std::vector<std::uint32_t>{0, 1, 2, 0, 2, 3}));
    // Out by the east side and in again: x = 10 where the circle about (10, 5) of radius 3 crosses it.
    const auto points = trace(*surface, Segment{{10, 8}, {10, 2}, Vec2{13, 5}});
    ASSERT_EQ(points.size(), 2U);
    EXPECT_NEAR(points.front().height.value(), 8, 1e-12);
    EXPECT_FALSE(points.front().triangleAfter);
    const auto through = trace(*surface, Segment{{8, 3}, {8, 7}, Vec2{11, 5}});
    int rims = 0;
    for (const auto& p : through)
        if (std::abs(p.place.x - 10) < 1e-9) {
            ++rims;
            EXPECT_NEAR(p.height.value(), p.place.y, 1e-9);
        }
    EXPECT_EQ(rims, 2);
}

TEST(TraceCurve, ThroughAVertexItHasTheVertexsHeight) {
    // A fan about (3, 4), through which the circle about the origin with radius 5 goes.
    const auto surface = std::make_shared<const TinLocator>(
        std::make_shared<const Tin>(test::places3("3 4 7, -10 -10 0, 10 -10 1, 10 10 2, -10 10 3"),
                                    std::vector<std::uint32_t>{0, 1, 2, 0, 2, 3, 0, 3, 4, 0, 4, 1}));
    const auto points = trace(*surface, Segment{{0, 5}, {5, 0}, Vec2{4, 3}});
    const auto at = std::find_if(points.begin(), points.end(), [](const TracePoint& p) {
        return geometry::distance(p.place, {3, 4}) < 1e-9;
    });
    ASSERT_NE(at, points.end());
    EXPECT_NEAR(at->height.value(), 7, 1e-12);
    EXPECT_EQ(std::count_if(points.begin(), points.end(),
                            [](const TracePoint& p) {
                                return geometry::distance(p.place, {3, 4}) < 1e-3;
                            }),
              1);
}

TEST(TracePath, WithASagittaThereIsMoreToDrawOnTheCurveItself) {
    const auto surface = knolls(3, 12);
    const geometry::Path path{{{20, 20}, {60, 20}, Vec2{40, 40}}, {{60, 20}, {80, 50}, {}}};
    const auto few = tracePath(*surface, path);
    const auto many = tracePath(*surface, path, 0.01);
    EXPECT_GT(many.size(), few.size() + 20);
    for (const auto& p : many) {
        if (p.distance > 20 * std::numbers::pi) continue;
        EXPECT_NEAR(geometry::distance(p.place, {40, 20}), 20, 1e-9);
        const double a = (p.distance / 20) * 180 / std::numbers::pi - 90;
        EXPECT_NEAR(std::atan2(p.place.x - 40, p.place.y - 20) * 180 / std::numbers::pi, a, 1e-6);
    }
    for (const auto& p : few)
        EXPECT_TRUE(std::any_of(many.begin(), many.end(), [&](const SectionPoint& m) {
            return std::abs(m.distance - p.distance) < 1e-9 && m.height == p.height;
        }));
}

}  // namespace
}  // namespace erdwerk::terrain
