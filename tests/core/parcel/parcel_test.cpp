#include "core/parcel/description.h"

#include <numbers>

#include "core/parcel/description_corpus.h"
#include "support/geometry.h"

namespace erdwerk::parcel {
namespace {

using testing::HasSubstr;

TEST(Survey, GivesCoursesAreaAndClosure) {
    const auto p = survey(racetrack());
    ASSERT_EQ(p.courses.size(), 4U);
    EXPECT_NEAR(p.area, 4800 + 450 * std::numbers::pi, 1e-9);
    EXPECT_NEAR(p.perimeter, 220 + 30 * std::numbers::pi, 1e-9);
    EXPECT_EQ(p.closure.distance, 0);
    EXPECT_FALSE(p.closure.ratio);
    EXPECT_NEAR(p.courses[1].azimuth.degrees(), 90, 1e-12);
    const Course& c = p.courses[2];
    EXPECT_TRUE(c.isCurve && c.right && c.tangent);
    EXPECT_NEAR(c.radius, 30, 1e-9);
    EXPECT_NEAR(c.delta.degrees(), 180, 1e-9);
    EXPECT_NEAR(c.arcLength, 30 * std::numbers::pi, 1e-9);
    EXPECT_NEAR(c.distance, 60, 1e-12);
    EXPECT_NEAR(c.azimuth.degrees(), 180, 1e-12);
}

TEST(Survey, CallsTheCurveOnTheOtherSideWhenReversed) {
    const auto p = survey(geometry::reversed(racetrack()));
    EXPECT_NEAR(p.area, 4800 + 450 * std::numbers::pi, 1e-9);
    EXPECT_FALSE(p.courses[1].right);
    EXPECT_TRUE(p.courses[1].tangent);
}

TEST(Survey, ANonTangentCurveIsCalledSo) {
    Path path = racetrack();
    path[2].through = Vec2{100, 30};
    EXPECT_FALSE(survey(path).courses[2].tangent);
}

TEST(Survey, BeginsWhereItIsTold) {
    const auto p = survey(racetrack(), 2);
    EXPECT_TRUE(p.courses[0].isCurve);
    EXPECT_TRUE(p.courses[0].tangent);
    EXPECT_NEAR(p.area, 4800 + 450 * std::numbers::pi, 1e-9);
}

/// Worked closure: last corner 3 east and 4 north of the first: 5 away, back along azimuth 180 + atan(3 / 4).
TEST(Survey, MeasuresTheMisclosure) {
    const Path open{{{0, 0}, {0, 100}, {}}, {{0, 100}, {100, 100}, {}}, {{100, 100}, {3, 4}, {}}};
    const auto p = survey(open);
    EXPECT_NEAR(p.closure.distance, 5, 1e-12);
    EXPECT_NEAR(p.closure.azimuth->degrees(), 180 + std::atan2(3, 4) * 180 / std::numbers::pi, 1e-9);
    EXPECT_NEAR(*p.closure.ratio, p.perimeter / 5, 1e-9);
    EXPECT_FALSE(p.closure.closes(LengthUnit::Metre));
    EXPECT_THAT(written(p, plainTemplate(LengthUnit::Metre), {})->text, HasSubstr("do not close"));
}

TEST(Survey, CoursesOfRandomFiguresSumToZero) {
    for (unsigned seed = 0; seed < 200; ++seed) {
        std::mt19937 random(seed);
        std::uniform_real_distribution<double> wobble(20, 60);
        Path path;
        std::vector<Vec2> corners;
        for (int k = 0; k < 7; ++k) {
            const double a = 2 * std::numbers::pi * k / 7;
            const double r = wobble(random);
            corners.push_back({48000 + r * std::cos(a), 91000 + r * std::sin(a)});
        }
        for (std::size_t k = 0; k < 7; ++k) path.push_back({corners[k], corners[(k + 1) % 7], std::nullopt});
        const auto p = survey(path);
        Vec2 sum{};
        for (const auto& c : p.courses) sum = sum + geometry::directionOf(c.azimuth) * c.distance;
        EXPECT_NEAR(geometry::length(sum), 0, 1e-9) << "seed " << seed;
    }
}

TEST(CourseTable, NumbersLinesAndCurvesApart) {
    const auto rows = courseTable(survey(racetrack()), {});
    EXPECT_EQ(rows[0].name, "L1");
    EXPECT_EQ(rows[2].name, "C1");
    EXPECT_EQ(rows[3].name, "L3");
    EXPECT_EQ(rows[2].radius, "30.00");
    EXPECT_EQ(rows[0].radius, "");
}

}  // namespace
}  // namespace erdwerk::parcel
