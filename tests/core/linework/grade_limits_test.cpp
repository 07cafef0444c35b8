#include "core/linework/grade_limits.h"

#include "core/linework/height_solver.h"
#include "core/linework/offset_row.h"
#include "core/linework/row_profile.h"
#include "support/geometry.h"

namespace erdwerk::linework {
namespace {

using test::places;
using test::valueOf;

TEST(GradeLimits, AreTypedInTheNotation) {
    EXPECT_EQ(valueOf(parseGradeLimits("8%")), (GradeLimits{0.08, {}}));
    EXPECT_NEAR(*valueOf(parseGradeLimits("12:1")).steepest, 1.0 / 12, 1e-12);
    EXPECT_EQ(valueOf(parseGradeLimits("0.5% to 8%")), (GradeLimits{0.08, 0.005}));
    EXPECT_EQ(valueOf(parseGradeLimits("flattest 0.5%")), (GradeLimits{{}, 0.005}));
    EXPECT_FALSE(valueOf(parseGradeLimits(" ")).any());
    EXPECT_FALSE(parseGradeLimits("steep"));
    EXPECT_FALSE(parseGradeLimits("8"));
    EXPECT_FALSE(parseGradeLimits("8% to 0.5%"));
    for (const char* text : {"8%", "0.5% to 8%", "flattest 0.5%", ""})
        EXPECT_EQ(gradeLimitsText(valueOf(parseGradeLimits(text))), text);
}

TEST(GradeLimits, FindTheStretchesBeyondThem) {
    // 10 %, 0.2 %, −4 %, and 8 % just so.
    const Line3D line =
        lineThrough(places("0 0, 10 0, 20 0, 30 0, 40 0"), {100.0, 101.0, 101.02, 100.62, 101.42});
    const auto r =
        resolve(line, [](ObjectId, Vec2) -> Result<std::optional<double>> { return std::nullopt; });
    const auto beyond = gradesBeyond(line, r, {0.08, 0.005});
    ASSERT_EQ(beyond.size(), 2U);
    EXPECT_TRUE(beyond[0].steep);
    EXPECT_EQ(beyond[0].to, 10);
    EXPECT_FALSE(beyond[1].steep);
    EXPECT_EQ(beyond[1].from, 10);
    EXPECT_TRUE(gradesBeyond(line, r, {}).empty());
}

std::vector<OffsetRow> rows(const std::vector<std::string>& typed) {
    std::vector<OffsetRow> out;
    for (const auto& t : typed) out.push_back(valueOf(parseOffsetRow(t)));
    return out;
}

TEST(RowProfile, IsTheCrossSectionOfTheRows) {
    const auto kerb = rows({"0.3,-2%", "0,+0.12", "1.5,3:1", "2,="});
    const auto chained = rowProfile(kerb, true);
    EXPECT_NEAR(chained[1].run, 0.3, 1e-12);
    EXPECT_NEAR(chained[1].rise, 0.114, 1e-12);
    EXPECT_NEAR(chained[2].rise, 0.614, 1e-12);
    EXPECT_FALSE(chained[3].known);
    EXPECT_NEAR(chained[3].run, 3.8, 1e-12);
    EXPECT_NEAR(rowProfile(kerb, false)[2].rise, 0.5, 1e-12);
}

TEST(RowProfile, ADraggedRowIsTypedTheWayItWas) {
    const auto kerb = rows({"0.3,-2%", "0,+0.12", "1.5,3:1", "2,="});
    EXPECT_EQ(rowText(rowThrough(kerb, true, 0, {0.504, -0.02, true})), "0.5,-4%");
    EXPECT_EQ(rowText(rowThrough(kerb, true, 1, {0.3, 0.1, true})), "0,+0.11");
    EXPECT_EQ(rowText(rowThrough(kerb, true, 2, {2.3, 0.614, true})), "2,4:1");
    EXPECT_EQ(rowText(rowThrough(kerb, true, 3, {5.8, 9, true})), "4,=");
    EXPECT_EQ(rowThrough(kerb, false, 0, {-3, 0, true}).run, 0);
}

}  // namespace
}  // namespace erdwerk::linework
