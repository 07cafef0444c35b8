#include "core/linework/measure.h"

#include "core/base/display.h"
#include "support/geometry.h"

namespace erdwerk::linework {
namespace {

TEST(Measure, LegsRisesAndAreaOfARectangle) {
    // 30 by 40 at large coordinates; the third place has no height.
    const auto m = measure(
        {{{48000, 91000}, 10.0}, {{48030, 91000}, 16.0}, {{48030, 91040}, {}}, {{48000, 91040}, 7.0}});
    ASSERT_EQ(m.legs.size(), 3U);
    EXPECT_NEAR(m.legs[0].run, 30, 1e-9);
    EXPECT_NEAR(m.legs[0].azimuth.degrees(), 90, 1e-9);
    EXPECT_NEAR(*m.legs[0].rise, 6, 1e-12);
    EXPECT_NEAR(*m.legs[0].slope, std::sqrt(936.0), 1e-9);
    EXPECT_NEAR(m.legs[0].grade()->percent(), 20, 1e-9);
    EXPECT_FALSE(m.legs[1].rise);
    EXPECT_FALSE(m.legs[1].grade());
    EXPECT_NEAR(m.legs[2].azimuth.degrees(), 270, 1e-9);
    EXPECT_NEAR(m.run, 100, 1e-9);
    EXPECT_NEAR(*m.rise, -3, 1e-12);
    EXPECT_NEAR(m.area, 1200, 1e-6);
}

TEST(Measure, OnePlaceOrNoneHasNoFigures) {
    EXPECT_TRUE(measure({}).legs.empty());
    const auto m = measure({{{1, 2}, 3.0}});
    EXPECT_TRUE(m.legs.empty());
    EXPECT_EQ(m.area, 0);
    EXPECT_FALSE(m.rise);
    // The same place twice has no grade.
    EXPECT_FALSE(measure({{{1, 2}, 3.0}, {{1, 2}, 4.0}}).legs.front().grade());
}

TEST(FormatRatio, RunToRise) {
    EXPECT_EQ(formatRatio(Grade::riseOverRun(1.0 / 3)), "3:1");
    EXPECT_EQ(formatRatio(Grade::riseOverRun(-0.08)), "-12.5:1");
    EXPECT_EQ(formatRatio(Grade::riseOverRun(0.4)), "2.5:1");
    EXPECT_EQ(formatRatio(Grade::riseOverRun(1.0 / 312.6)), "313:1");
    EXPECT_EQ(formatRatio(Grade::riseOverRun(0)), "level");
    EXPECT_EQ(formatRatio(Grade::riseOverRun(1e-6)), "level");
}

}  // namespace
}  // namespace erdwerk::linework
