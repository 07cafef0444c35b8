#include "core/annotate/dimension.h"

#include "support/geometry.h"

namespace erdwerk::annotate {
namespace {

using geometry::Vec2;
using testing::HasSubstr;

const DisplaySettings display;
const DimensionStyle plain;

Dimensioned of(DimensionKind kind, const std::vector<MeasuredPlace>& at, const DimensionLine& line) {
    return measure(kind, at, line, plain, display);
}

TEST(Dimension, OfADistanceLiesBesideIt) {
    // 3-4-5; to the right of the way from the first to the last.
    const auto made = of(DimensionKind::Aligned, {{{0, 0}, {}, {}}, {{30, 40}, {}, {}}}, {5, {}});
    ASSERT_EQ(made.spans.size(), 1U);
    EXPECT_NEAR(made.spans[0].value, 50, 1e-12);
    EXPECT_EQ(made.spans[0].text, "50.00");
    EXPECT_THAT(made.spans[0].from, test::IsNear(4, -3, 1e-12));
    EXPECT_THAT(made.spans[0].to, test::IsNear(34, 37, 1e-12));
}

TEST(Dimension, AlongAnAzimuthMeasuresThatPart) {
    const std::vector<MeasuredPlace> at{{{0, 0}, {}, {}}, {{30, 40}, {}, {}}};
    EXPECT_NEAR(of(DimensionKind::Linear, at, {-10, Angle::degrees(90)}).spans[0].value, 30, 1e-9);
    EXPECT_NEAR(of(DimensionKind::Linear, at, {10, Angle::degrees(0)}).spans[0].value, 40, 1e-9);
    // (30, 40) on the direction of 45 degrees: 70 / sqrt 2.
    EXPECT_NEAR(of(DimensionKind::Linear, at, {0, Angle::degrees(45)}).spans[0].value, 70 / std::sqrt(2),
                1e-9);
}

TEST(Dimension, AChainIsTheSumOfItsParts) {
    const std::vector<MeasuredPlace> at{
        {{0, 0}, {}, {}}, {{10, 3}, {}, {}}, {{25, -2}, {}, {}}, {{40, 0}, {}, {}}};
    const auto made = of(DimensionKind::Chain, at, {4, {}});
    ASSERT_EQ(made.spans.size(), 3U);
    double all = 0;
    for (std::size_t i = 0; i < 3; ++i) {
        all += made.spans[i].value;
        if (i > 0)
            EXPECT_THAT(made.spans[i].from,
                        test::IsNear(made.spans[i - 1].to.x, made.spans[i - 1].to.y, 1e-9));
    }
    EXPECT_NEAR(all, 40, 1e-9);
}

TEST(Dimension, AnAngleIsMeasuredTowardsWhatWasPicked) {
    const geometry::Segment east{{0, 0}, {100, 0}, {}};
    const geometry::Segment steep{{0, 0}, {50, 50 * std::sqrt(3)}, {}};
    const auto at = [&](Vec2 a, Vec2 b) {
        return of(DimensionKind::Angle, {{a, {}, east}, {b, {}, steep}}, {20, {}});
    };
    EXPECT_NEAR(at({50, 0}, {25, 25 * std::sqrt(3)}).spans[0].value, M_PI / 3, 1e-9);
    EXPECT_EQ(at({50, 0}, {25, 25 * std::sqrt(3)}).spans[0].text, "60°00'00\"");
    const geometry::Segment along{{0, 10}, {100, 10}, {}};
    EXPECT_THAT(of(DimensionKind::Angle, {{{50, 0}, {}, east}, {{50, 10}, {}, along}}, {20, {}}).problem,
                HasSubstr("parallel"));
}

TEST(Dimension, OfAnArcIsItsRadiusOrItsTurn) {
    const geometry::Segment quarter{{0, 10}, {10, 0}, Vec2{10 * std::sqrt(0.5), 10 * std::sqrt(0.5)}};
    const Vec2 middle{10 * std::sqrt(0.5), 10 * std::sqrt(0.5)};
    const auto radius = of(DimensionKind::Radius, {{middle, {}, quarter}}, {4, {}});
    EXPECT_EQ(radius.spans.at(0).text, "R 10.00");
    EXPECT_FALSE(radius.spans[0].arrowAtFrom);
    EXPECT_NEAR(geometry::distance(radius.spans[0].from, radius.spans[0].to), 4, 1e-9);
    const auto turn = of(DimensionKind::Delta, {{middle, {}, quarter}}, {14, {}});
    EXPECT_EQ(turn.spans.at(0).text, "Δ 90°00'00\"");
    EXPECT_THAT(turn.spans[0].from, test::IsNear(0, 14, 1e-9));
    EXPECT_THAT(turn.spans[0].to, test::IsNear(14, 0, 1e-9));
    // Straightened, there is nothing to measure any more.
    const geometry::Segment straight{{0, 10}, {10, 0}, {}};
    EXPECT_THAT(of(DimensionKind::Radius, {{{5, 5}, {}, straight}}, {4, {}}).problem, HasSubstr("no arc"));
}

TEST(Dimension, GradesAndRisesAreThoseOfTheHeights) {
    const std::vector<MeasuredPlace> up{{{0, 0}, 10.0, {}}, {{30, 40}, 12.5, {}}};
    const auto grade = of(DimensionKind::Slope, up, {3, {}});
    EXPECT_EQ(grade.spans.at(0).text, "5.00%");
    EXPECT_TRUE(grade.spans[0].arrowAtFrom);  // downhill
    EXPECT_FALSE(grade.spans[0].arrowAtTo);
    EXPECT_EQ(of(DimensionKind::Height, up, {3, {}}).spans.at(0).text, "+2.50");
    EXPECT_THAT(of(DimensionKind::Height, {{{0, 0}, 10.0, {}}, {{1, 0}, {}, {}}}, {}).problem,
                HasSubstr("height is missing"));
}

TEST(Dimension, WhatCannotBeMeasuredIsSaid) {
    EXPECT_THAT(of(DimensionKind::Aligned, {{{0, 0}, {}, {}}, {{0, 0}, {}, {}}}, {1, {}}).problem,
                HasSubstr("same place"));
    EXPECT_THAT(of(DimensionKind::Aligned, {{{0, 0}, {}, {}}}, {1, {}}).problem, HasSubstr("too few"));
    EXPECT_THAT(of(DimensionKind::Angle, {{{0, 0}, {}, {}}, {{1, 0}, {}, {}}}, {1, {}}).problem,
                HasSubstr("two sides"));
    DimensionStyle bad;
    bad.arrowSize = -1;
    EXPECT_FALSE(validate(bad));
    bad = {};
    bad.height = 0;
    EXPECT_FALSE(validate(bad));
    bad = {};
    bad.decimals = 12;
    EXPECT_FALSE(validate(bad));
    EXPECT_TRUE(validate({}));
}

TEST(DimensionDrawing, ExtensionLinesLeaveAGapAndGoBeyond) {
    const auto span =
        of(DimensionKind::Aligned, {{{0, 0}, {}, {}}, {{100, 0}, {}, {}}}, {-20, {}}).spans.front();
    // 0.5 units a millimetre: gap 0.5, overshoot 0.75.
    const auto made = drawn(span, plain, 20, 0.5);
    ASSERT_EQ(made.lines.size(), 3U);
    EXPECT_THAT(made.lines[1].front(), test::IsNear(0, 0.5, 1e-9));
    EXPECT_THAT(made.lines[1].back(), test::IsNear(0, 20.75, 1e-9));
    ASSERT_EQ(made.arrows.size(), 2U);
    EXPECT_THAT(made.arrows[0].direction, test::IsNear(-1, 0, 1e-9));
    EXPECT_THAT(made.arrows[1].direction, test::IsNear(1, 0, 1e-9));
    EXPECT_TRUE(made.fits);
    // A text as wide as the line leaves no room for the arrows.
    EXPECT_FALSE(drawn(span, plain, 200, 0.5).fits);
    // Where they have none either they stand outside and point inwards.
    const auto small = drawn(span, plain, 20, 50);
    EXPECT_THAT(small.arrows[0].direction, test::IsNear(1, 0, 1e-9));
}

}  // namespace
}  // namespace erdwerk::annotate
