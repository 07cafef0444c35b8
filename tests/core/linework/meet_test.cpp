#include "core/linework/meet.h"

#include <cmath>
#include <random>

#include "support/geometry.h"

namespace erdwerk::linework {
namespace {

using geometry::Vec2;
using geometry::Vec3;
using test::valueOf;
using Chain = std::vector<Vec3>;

MeetOptions at(double a, double b, SlopeAlong along = SlopeAlong::Perpendicular) {
    MeetOptions out;
    out.a = Grade::riseOverRun(a);
    out.b = Grade::riseOverRun(b);
    out.along = along;
    return out;
}

TEST(Meet, BetweenParallelTopsTheDitchBottomIsWhereBothSlopesAreEqual) {
    // 10 apart, 100 and 102 high, both falling 1:2: 100 - x/2 = 102 - (10 - x)/2, so x = 3.
    const Chain a{{0, 0, 100}, {50, 0, 100}};
    const Chain b{{50, 10, 102}, {0, 10, 102}};
    const auto line = valueOf(meetingLine(a, b, at(-0.5, -0.5)));
    ASSERT_EQ(line.size(), 1U);
    ASSERT_EQ(line[0].size(), 2U);
    EXPECT_THAT(line[0][0].plan(), test::IsNear(0, 3, 1e-9));
    EXPECT_THAT(line[0][1].plan(), test::IsNear(50, 3, 1e-9));
    EXPECT_NEAR(line[0][0].z, 98.5, 1e-9);
    // A ridge between two toes: 102 + y'/2 = 100 + (10 - y')/2, measured from the other line: y' = 3.
    const auto ridge = valueOf(meetingLine(b, a, at(0.5, 0.5)));
    EXPECT_THAT(ridge[0][0].plan(), test::IsNear(50, 7, 1e-9));
    EXPECT_NEAR(ridge[0][0].z, 103.5, 1e-9);
}

TEST(Meet, OnlyWhereBothLinesHaveAPlaceOpposite) {
    const Chain a{{0, 0, 100}, {50, 0, 100}};
    const Chain b{{20, 10, 100}, {80, 10, 100}};
    const auto line = valueOf(meetingLine(a, b, at(-0.5, -0.5)));
    EXPECT_THAT(line[0].front().plan(), test::IsNear(20, 5, 1e-9));
    EXPECT_THAT(line[0].back().plan(), test::IsNear(50, 5, 1e-9));
}

TEST(Meet, SlopesThatNeverMeetAreSaid) {
    const Chain a{{0, 0, 100}, {50, 0, 100}};
    const Chain b{{0, 10, 120}, {50, 10, 120}};
    EXPECT_FALSE(meetingLine(a, b, at(-0.5, -0.5)));
    EXPECT_FALSE(meetingLine(a, Chain{{60, 10, 100}, {90, 10, 100}}, at(-0.5, -0.5)));
    EXPECT_FALSE(meetingLine(a, Chain{{0, 10, 1}}, at(-0.5, -0.5)));
}

TEST(Meet, TheFallIsSteepestAndSteeperThanTheCrossGrade) {
    // A falls 30 % along; a fall of 50 % leaves 40 % across (3-4-5).
    const Chain a{{0, 0, 100}, {50, 0, 85}};
    const Chain b{{0, 10, 100}, {50, 10, 85}};
    const auto line = valueOf(meetingLine(a, b, at(-0.5, -0.5, SlopeAlong::Fall)));
    EXPECT_THAT(line[0][0].plan(), test::IsNear(0, 5, 1e-9));
    EXPECT_NEAR(line[0][0].z, 98, 1e-9);
    EXPECT_FALSE(meetingLine(a, b, at(-0.2, -0.2, SlopeAlong::Fall)));  // it falls more than that along
}

/// The height of a face at a place: through the straight a-b with this grade at right angles.
double faceHeight(const Vec3& a, const Vec3& b, Vec2 p, double grade) {
    const double length = geometry::distance(a.plan(), b.plan());
    const Vec2 u = (b.plan() - a.plan()) * (1 / length);
    const double t = geometry::dot(p - a.plan(), u);
    const double n = std::abs(geometry::cross(u, p - a.plan()));
    return a.z + (b.z - a.z) * t / length + grade * n;
}

TEST(Meet, RandomPairsLieOnBothFaces) {
    std::size_t found = 0;
    for (unsigned seed = 1; seed <= 500; ++seed) {
        std::mt19937 random(seed);
        const auto real = [&](double a, double b) {
            return std::uniform_real_distribution<double>(a, b)(random);
        };
        const Chain a{{0, real(-2, 2), real(99, 101)}, {50, real(-2, 2), real(99, 101)}};
        const Chain b{{real(-5, 5), real(8, 14), real(99, 101)},
                      {50 + real(-5, 5), real(8, 14), real(99, 101)}};
        const double ga = real(-0.6, -0.3);
        const double gb = real(-0.6, -0.3);
        const auto line = meetingLine(a, b, at(ga, gb));
        if (!line) continue;
        ++found;
        for (const auto& chain : *line)
            for (const Vec3& p : chain) {
                EXPECT_NEAR(p.z, faceHeight(a[0], a[1], p.plan(), ga), 1e-9) << "seed " << seed;
                EXPECT_NEAR(p.z, faceHeight(b[0], b[1], p.plan(), gb), 1e-9) << "seed " << seed;
            }
    }
    EXPECT_GT(found, 400U);
}

TEST(Meet, RoundACornerItIsOneLineOnTheMitre) {
    // Two parallel bends of 90 degrees: the bottom bends with them on the bisector.
    const Chain a{{0, 0, 10}, {30, 0, 10}, {30, 30, 10}};
    const Chain b{{0, 8, 10}, {22, 8, 10}, {22, 30, 10}};
    const auto line = valueOf(meetingLine(a, b, at(-1, -1)));
    ASSERT_EQ(line.size(), 1U);
    ASSERT_EQ(line[0].size(), 3U);
    EXPECT_THAT(line[0][1].plan(), test::IsNear(26, 4, 1e-9));
    for (const Vec3& p : line[0]) EXPECT_NEAR(p.z, 6, 1e-9);
}

}  // namespace
}  // namespace erdwerk::linework
