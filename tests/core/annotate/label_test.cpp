#include "core/annotate/label.h"

#include "support/geometry.h"

namespace erdwerk::annotate {
namespace {

TEST(Label, OfASegmentHasBearingAboveAndDistanceBelow) {
    const auto label = labelSegment({{0, 0}, {30, 40}, {}}, defaultStyle(LabelKind::Segment), {});
    EXPECT_EQ(label.above, "N 36°52'12\" E");
    EXPECT_EQ(label.below, "50.00");
    EXPECT_THAT(label.place, test::IsNear(15, 20, 1e-12));
}

TEST(Label, OfACurveHasItsFigures) {
    const auto label =
        labelSegment({{0, 10}, {10, 0}, geometry::Vec2{10 * std::sqrt(0.5), 10 * std::sqrt(0.5)}},
                     defaultStyle(LabelKind::Curve), {});
    EXPECT_EQ(label.above, "R 10.00  Δ 90°00'00\"");
    EXPECT_EQ(label.below, "L 15.71  C 14.14");
}

TEST(Label, FollowsPrefixDecimalsAndSide) {
    const LabelStyle style{LabelKind::Segment,
                           {{Field::Distance, "d=", 1, true}, {Field::Direction, "", 1, false}}};
    const auto label = labelSegment({{0, 0}, {0, 2.345}, {}}, style, {});
    EXPECT_EQ(label.above, "d=2.3");
    EXPECT_EQ(label.below, "due North");
}

TEST(Label, OfAPointFollowsTheCoordinateOrder) {
    const survey::SurveyPoint p{"17", {48000.1234, 91000.5}, 312.345, "GRND", ""};
    DisplaySettings display;
    EXPECT_EQ(labelPoint(p, defaultStyle(LabelKind::Point), display).below,
              "E 48000.123  N 91000.500  H 312.35");
    display.order = CoordinateOrder::NorthingEasting;
    EXPECT_EQ(labelPoint(p, defaultStyle(LabelKind::Point), display).below,
              "N 91000.500  E 48000.123  H 312.35");
    EXPECT_THAT(labelPoint({"1", {0, 0}, {}, "", ""}, defaultStyle(LabelKind::Point), display).below,
                testing::HasSubstr("no height"));
}

TEST(Upright, TextReadsFromTheLeftOrFromBelow) {
    EXPECT_NEAR(upright(Angle::degrees(90)).degrees(), 90, 1e-9);
    EXPECT_NEAR(upright(Angle::degrees(270)).degrees(), 90, 1e-9);
    EXPECT_NEAR(upright(Angle::degrees(30)).degrees(), 30, 1e-9);
    EXPECT_NEAR(upright(Angle::degrees(200)).degrees(), 20, 1e-9);
}

}  // namespace
}  // namespace erdwerk::annotate
