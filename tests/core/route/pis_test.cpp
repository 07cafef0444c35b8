#include "core/route/pis.h"

#include <numbers>

#include "core/route/alignment.h"
#include "support/geometry.h"

namespace erdwerk::route {
namespace {

using test::IsNear;
using test::valueOf;

constexpr double pi = std::numbers::pi;

TEST(Pis, ACircularCurveHasTheTextbookTangents) {
    // T = R tan(D/2), L = R D: 40 degrees at 300 m.
    const double turn = 40 * pi / 180;
    const Path path =
        valueOf(pathOf({{{0, 0}}, {{500, 0}, 300}, {{500 + 400 * std::cos(turn), -400 * std::sin(turn)}}}));
    ASSERT_EQ(path.size(), 3U);
    const double t = 300 * std::tan(turn / 2);
    EXPECT_THAT(path[1].start, IsNear(500 - t, 0, 1e-9));
    EXPECT_NEAR(lengthOf(path[1]), 300 * turn, 1e-9);
    EXPECT_NEAR(lengthOf(path[2]), 400 - t, 1e-9);
    const auto a = alignmentOn(path, 0);
    EXPECT_TRUE(a.breaks.empty());
    const auto meet = intersections(a);
    ASSERT_EQ(meet.size(), 1U);
    EXPECT_THAT(meet[0].place, IsNear(500, 0, 1e-9));
    EXPECT_NEAR(meet[0].distance, 500, 1e-9);
    EXPECT_NEAR(meet[0].turn.degrees(), 40, 1e-9);
}

TEST(Pis, SpiralledCurveBySettingOutFormulas) {
    // R 400, spirals 80, deflection 30 degrees: s = L/2R = 0.1; x = L (1 - s²/10 + s⁴/216), y = L (s/3 -
    // s³/42).
    const double s = 0.1;
    const double x = 80 * (1 - s * s / 10 + s * s * s * s / 216);
    const double y = 80 * (s / 3 - s * s * s / 42 + s * s * s * s * s / 1320);
    const double p = y - 400 * (1 - std::cos(s));
    const double k = x - 400 * std::sin(s);
    const double turn = 30 * pi / 180;
    const double tangent = k + (400 + p) * std::tan(turn / 2);
    const auto t = curveTangents(400, 80, 80, Angle::radians(turn));
    EXPECT_NEAR(t.in, tangent, 1e-7);
    EXPECT_NEAR(t.out, tangent, 1e-7);
    const Path path = valueOf(pathOf(
        {{{0, 0}}, {{0, 1000}, 400, 80, 80}, {{1000 * std::sin(turn), 1000 + 1000 * std::cos(turn)}}}));
    ASSERT_EQ(path.size(), 5U);
    const auto a = alignmentOn(path, 0);
    EXPECT_TRUE(a.breaks.empty());
    EXPECT_EQ(a.keyPoints[1].kind, PointKind::Ts);
    EXPECT_EQ(a.keyPoints[2].kind, PointKind::Sc);
    EXPECT_EQ(a.keyPoints[3].kind, PointKind::Cs);
    EXPECT_EQ(a.keyPoints[4].kind, PointKind::St);
    EXPECT_NEAR(a.keyPoints[1].station, 1000 - tangent, 1e-7);
    EXPECT_NEAR(lengthOf(path[2]), 400 * (turn - 2 * s), 1e-7);
    ASSERT_EQ(intersections(a).size(), 1U);
    EXPECT_NEAR(intersections(a)[0].distance, 1000, 1e-7);
}

TEST(Pis, AnyOfThemAreTangentAndComeBack) {
    for (unsigned seed = 1; seed <= 300; ++seed) {
        SCOPED_TRACE("seed " + std::to_string(seed));
        std::mt19937 random(seed);
        std::uniform_real_distribution<double> step(150, 400);
        std::uniform_real_distribution<double> unit(0, 1);
        std::vector<Pi> pis;
        Vec2 at{48000, 91000};
        double heading = 1;
        for (int k = 0; k < 6; ++k) {
            Pi p{at};
            if (k > 0 && k < 5 && unit(random) < 0.85) p.radius = 20 + 40 * unit(random);
            if (p.radius > 0 && unit(random) < 0.5) p.spiralIn = 2 + 10 * unit(random);
            if (p.radius > 0 && unit(random) < 0.5) p.spiralOut = 2 + 10 * unit(random);
            pis.push_back(p);
            heading += (unit(random) < 0.5 ? -1 : 1) * (0.75 + 0.4 * unit(random));
            at = at + Vec2{std::sin(heading), std::cos(heading)} * step(random);
        }
        const Path path = valueOf(pathOf(pis));
        for (std::size_t i = 1; i < path.size(); ++i) {
            EXPECT_EQ(path[i].start, path[i - 1].end);
            const bool corner = !isCurved(path[i]) && !isCurved(path[i - 1]);
            const double turn = (tangentAt(path[i], 0) - tangentAt(path[i - 1], 1)).signedTurn().radians();
            if (!corner) {
                EXPECT_NEAR(turn, 0, 1e-9) << i;
            }
            const auto curvature = [&](std::size_t e, double f) {
                return std::visit([f](const auto& x) { return x.curvature(f); }, elementOf(path[e]));
            };
            // A spiral has at its ends the curvature of what lies there.
            if (clothoidOf(path[i]) || clothoidOf(path[i - 1])) {
                EXPECT_NEAR(curvature(i, 0), curvature(i - 1, 1), 1e-9);
            }
        }
        const auto back = pisOf(path);
        ASSERT_TRUE(back);
        ASSERT_EQ(back->size(), pis.size());
        for (std::size_t k = 0; k < pis.size(); ++k) {
            EXPECT_THAT((*back)[k].place, IsNear(pis[k].place.x, pis[k].place.y, 1e-6));
            EXPECT_NEAR((*back)[k].radius, pis[k].radius, 1e-6);
            EXPECT_NEAR((*back)[k].spiralIn, pis[k].spiralIn, 1e-6);
        }
    }
}

TEST(Pis, SayWhyTheyGiveNoPath) {
    const auto why = [](std::vector<Pi> pis) { return pathOf(pis).error().text; };
    EXPECT_EQ(why({{{0, 0}}}), "an alignment has at least two PIs, its beginning and its end");
    EXPECT_EQ(why({{{0, 0}}, {{0, 0}}}), "PI 2 lies where the one before it does");
    EXPECT_EQ(why({{{0, 0}}, {{9, 0}, -5}, {{9, 9}}}), "PI 2: a radius is above 0, or 0 for a bare corner");
    EXPECT_EQ(why({{{0, 0}}, {{9, 0}, 0, 2}, {{9, 9}}}), "PI 2 has a spiral but no radius");
    EXPECT_EQ(why({{{0, 0}}, {{9, 0}, 50}, {{9, 9}}}),
              "the curve at PI 2 is longer than its tangent by 41.000: take smaller radii or spirals");
    EXPECT_EQ(why({{{0, 0}}, {{100, 0}, 60}, {{100, 100}, 60}, {{0, 100}}}),
              "the curves at PI 2 and PI 3 overlap by 20.000: take smaller radii or spirals");
    EXPECT_THAT(
        why({{{0, 0}}, {{100, 0}, 10, 40}, {{100, 100}}}),
        testing::HasSubstr("PI 2: its spirals turn by 114.5916 degrees, its tangents only by 90.0000"));
    EXPECT_THAT(why({{{0, 0}}, {{100, 0}, 10}, {{1, 0}}}), testing::HasSubstr("turn right back"));
    EXPECT_FALSE(pathOf({{{0, 0}}, {{NAN, 0}}}));
}

TEST(Pis, OfAJointThatIsNotTangentThereAreNone) {
    Path path = valueOf(pathOf({{{0, 0}}, {{100, 0}, 40}, {{100, 100}}}));
    path[2].end = path[2].end + Vec2{1, 0};
    EXPECT_FALSE(pisOf(path));
}

TEST(Pis, OneRadiusForAllBareCorners) {
    const auto pis = withRadius({{{0, 0}}, {{100, 0}, 20}, {{100, 100}}, {{0, 100}}}, 7);
    EXPECT_EQ(pis[0].radius, 0);
    EXPECT_EQ(pis[1].radius, 20);
    EXPECT_EQ(pis[2].radius, 7);
    EXPECT_EQ(pis[3].radius, 0);
}

}  // namespace
}  // namespace erdwerk::route
