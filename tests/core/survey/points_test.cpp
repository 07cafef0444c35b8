#include "core/survey/points.h"

#include "support/geometry.h"

namespace erdwerk::survey {
namespace {

PointSet numbered(int count) {
    std::vector<SurveyPoint> points;
    for (int i = 0; i < count; ++i)
        points.push_back({std::to_string(i + 1), {double(i), 0}, 1.0 * i, i % 2 == 0 ? "EDGE" : "Toe", ""});
    return PointSet(std::move(points));
}

TEST(PointSet, ChangingOnePointSharesAllOtherBlocks) {
    const PointSet before = numbered(2000);
    SurveyPoint p = before[700];
    p.height = 99.0;
    const PointSet after = before.with(700, p);
    EXPECT_EQ(*after[700].height, 99.0);
    EXPECT_EQ(*before[700].height, 700.0);
    int shared = 0;
    for (std::size_t b = 0; b < before.blocks().size(); ++b)
        shared += before.blocks()[b] == after.blocks()[b] ? 1 : 0;
    EXPECT_EQ(shared, 3);
}

TEST(PointSet, AppendsAndRemovesAcrossBlocks) {
    PointSet set = numbered(513).appended({{"A", {5, 5}, {}, "", ""}});
    ASSERT_EQ(set.size(), 514U);
    EXPECT_EQ(set[513].number, "A");
    set = set.without({0, 511, 512});
    ASSERT_EQ(set.size(), 511U);
    EXPECT_EQ(set[0].number, "2");
    EXPECT_EQ(set[510].number, "A");
    EXPECT_EQ(set.find("A"), 510U);
    EXPECT_FALSE(set.find("1"));
}

TEST(NumberBefore, ComparesFiguresAsFigures) {
    EXPECT_TRUE(numberBefore("9", "10"));
    EXPECT_TRUE(numberBefore("P9", "P10"));
    EXPECT_TRUE(numberBefore("A2b", "A10a"));
    EXPECT_FALSE(numberBefore("10", "9"));
    EXPECT_FALSE(numberBefore("7", "7"));
    EXPECT_TRUE(numberBefore("7", "7a"));
}

TEST(Chains, FollowNumberAndCode) {
    const PointSet set({{"10", {0, 0}, {}, "edge", ""},
                        {"9", {1, 0}, {}, "EDGE", ""},
                        {"11", {2, 0}, {}, "toe", ""},
                        {"8", {3, 0}, {}, "", ""}});
    EXPECT_THAT(chainByNumber(set, {0, 1, 2, 3}), testing::ElementsAre(3, 1, 0, 2));
    const auto chains = chainsByCode(set, {0, 1, 2, 3});
    ASSERT_EQ(chains.size(), 1U);
    EXPECT_EQ(chains[0].first, "EDGE");
    EXPECT_THAT(chains[0].second, testing::ElementsAre(1, 0));
    EXPECT_EQ(nextNumber(set), "12");
}

}  // namespace
}  // namespace erdwerk::survey
