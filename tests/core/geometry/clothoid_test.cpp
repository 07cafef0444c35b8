#include "core/geometry/clothoid.h"

#include <numbers>

#include "core/geometry/element.h"
#include "support/geometry.h"

namespace erdwerk::geometry {
namespace {

using test::IsNear;

/// Fresnel's integrals by their power series: x along the tangent, y to the side, of a spiral from a straight
/// with A² = R L. With t = L² / 2 A²:  x = L (1 - t²/10 + t⁴/216 - ...),  y = L (t/3 - t³/42 + t⁵/1320 -
/// ...).
Vec2 bySeries(double radius, double length) {
    const double t = length / (2 * radius);
    double x = 0;
    double y = 0;
    double term = 1;  // t^n / n!
    for (int n = 0; n < 60; ++n) {
        const double part = term / (2 * n + 1) * ((n / 2) % 2 == 0 ? 1 : -1);
        (n % 2 == 0 ? x : y) += part;
        term *= t / (n + 1);
    }
    return {length * x, length * y};
}

TEST(Clothoid, EndsWhereFresnelsSeriesSays) {
    std::mt19937 random(41);
    std::uniform_real_distribution<double> radius(20, 800);
    std::uniform_real_distribution<double> share(0.05, 3);
    for (int i = 0; i < 200; ++i) {
        const double r = radius(random);
        const double l = r * share(random);
        const Vec2 end = bySeries(r, l);
        // Heading east; a curve to the right goes south.
        const Segment s = clothoidFrom({1000, 500}, Angle::degrees(90), {0, 1 / r, l});
        EXPECT_THAT(s.end, IsNear(1000 + end.x, 500 - end.y, 1e-9 * l)) << r << ' ' << l;
        const Segment left = clothoidFrom({1000, 500}, Angle::degrees(90), {0, -1 / r, l});
        EXPECT_THAT(left.end, IsNear(1000 + end.x, 500 + end.y, 1e-9 * l));
        EXPECT_NEAR(tangentAt(s, 1).degrees(),
                    Angle::degrees(90 + l / (2 * r) * 180 / std::numbers::pi).normalized().degrees(), 1e-9);
    }
}

TEST(Clothoid, PlacesAreThoseOfFineSteps) {
    // The middle rule on a million steps, for shapes that begin and end in curves.
    std::mt19937 random(42);
    std::uniform_real_distribution<double> curvature(-0.05, 0.05);
    for (int i = 0; i < 5; ++i) {
        const Spiral shape{curvature(random), curvature(random), 120};
        const Segment s = clothoidFrom({0, 0}, {}, shape);
        constexpr int n = 1'000'000;
        Vec2 at{0, 0};
        for (int k = 0; k < n; ++k) {
            const double f = (k + 0.5) / n;
            const double turn =
                120 * (shape.startCurvature * f + (shape.endCurvature - shape.startCurvature) * f * f / 2);
            at = at + Vec2{std::sin(turn), std::cos(turn)} * (120.0 / n);
            if (k + 1 == n / 4) {
                EXPECT_THAT(pointAt(s, 0.25), IsNear(at.x, at.y, 1e-9));
            }
        }
        EXPECT_THAT(s.end, IsNear(at.x, at.y, 1e-9));
    }
}

TEST(Clothoid, OfOneCurvatureIsAnArc) {
    const Segment s = clothoidFrom({0, 0}, {}, {0.02, 0.02, 60});
    const Segment arc = arcByRadius({0, 0}, s.end, 50, true);
    EXPECT_NEAR(lengthOf(arc), 60, 1e-9);
    EXPECT_NEAR(bulgeArea(arc), bulgeArea(s), 1e-9);
    for (const double t : {0.2, 0.7})
        EXPECT_THAT(pointAt(s, t), IsNear(pointAt(arc, t).x, pointAt(arc, t).y, 1e-9));
}

}  // namespace
}  // namespace erdwerk::geometry
