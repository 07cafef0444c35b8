#include "core/route/design_edit.h"

#include "core/route/criteria.h"
#include "support/geometry.h"

namespace erdwerk::route {
namespace {

using testing::HasSubstr;

/// 3 % up to 106 at 200, level to 400, 2 % down to 102 at 600.
std::vector<Pvi> design() {
    return {{0, 100}, {200, 106}, {400, 106}, {600, 102}};
}
double grade(const std::vector<Pvi>& pvis, std::size_t after) {
    return figures(pvis)[after].gradeOut->percent();
}

TEST(DesignEdit, APviSlidesAlongTheOneGradeThatIsLocked) {
    auto in = design();
    in[0].locked = true;
    movePvi(in, 1, 250, 120);
    EXPECT_DOUBLE_EQ(in[1].station, 250);
    EXPECT_NEAR(in[1].height, 107.5, 1e-12);  // 3 % from 100
    auto out = design();
    out[2].locked = true;
    movePvi(out, 2, 350, 0);
    EXPECT_NEAR(out[2].height, 107, 1e-12);  // 2 % above 102 at 600
    EXPECT_NEAR(grade(out, 2), -2, 1e-9);
    EXPECT_DOUBLE_EQ(out[3].height, 102);
}

TEST(DesignEdit, WhatHangsByLockedGradesGoesUpTogether) {
    auto pvis = design();
    pvis[0].locked = pvis[1].locked = true;
    movePvi(pvis, 1, 260, 107);
    EXPECT_DOUBLE_EQ(pvis[1].station, 200);
    EXPECT_DOUBLE_EQ(pvis[0].height, 101);
    EXPECT_DOUBLE_EQ(pvis[2].height, 107);
    EXPECT_DOUBLE_EQ(pvis[3].height, 102);
    EXPECT_NEAR(grade(pvis, 0), 3, 1e-12);
    EXPECT_NEAR(grade(pvis, 1), 0, 1e-12);
    auto free = design();
    raiseStretch(free, 1, 0.5);
    EXPECT_DOUBLE_EQ(free[0].height, 100);
    EXPECT_DOUBLE_EQ(free[1].height, 106.5);
    EXPECT_DOUBLE_EQ(free[2].height, 106.5);
    EXPECT_DOUBLE_EQ(free[3].height, 102);
}

TEST(DesignEdit, TangentsOfTwoGradesMeetBetweenTheNeighbours) {
    // From 100 at 0 with 4 %, into 106 at 400 with -1 %: 100 + 0.04 x = 106 + 0.01 (400 - x), x = 200.
    auto pvis = design();
    ASSERT_TRUE(tangentsMeet(pvis, 1, Grade::percent(4), Grade::percent(-1)));
    EXPECT_NEAR(pvis[1].station, 200, 1e-9);
    EXPECT_NEAR(pvis[1].height, 108, 1e-9);
    const auto before = pvis;
    for (const auto& [in, out] : {std::pair{2.0, 2.0}, {1.0, 1.0}, {-5.0, -6.0}}) {
        const auto done = tangentsMeet(pvis, 1, Grade::percent(in), Grade::percent(out));
        ASSERT_FALSE(done);
        EXPECT_THAT(done.error().text, HasSubstr("not lie between its neighbours"));
        EXPECT_EQ(pvis, before);
    }
    EXPECT_FALSE(tangentsMeet(pvis, 0, Grade::percent(1), Grade::percent(2)));
    EXPECT_FALSE(tangentsMeet(pvis, 3, Grade::percent(1), Grade::percent(2)));
}

TEST(DesignEdit, RandomTangentsMeetOnBothGrades) {
    std::mt19937 random(11);
    std::uniform_real_distribution<double> unit(0, 1);
    for (int i = 0; i < 300; ++i) {
        std::vector<Pvi> pvis{{1000 * unit(random), 300 + 10 * unit(random)}, {0, 0}, {0, 0}};
        pvis[1].station = pvis[0].station + 10 + 200 * unit(random);
        pvis[2].station = pvis[1].station + 10 + 200 * unit(random);
        pvis[1].height = 300 + 10 * unit(random);
        pvis[2].height = 300 + 10 * unit(random);
        const auto figs = figures(pvis);
        auto other = pvis;
        other[1].station = (pvis[0].station + pvis[2].station) / 2;
        other[1].height = 0;
        if (std::abs(figs[1].gradeIn->percent() - figs[1].gradeOut->percent()) < 1e-3) continue;
        ASSERT_TRUE(tangentsMeet(other, 1, *figs[1].gradeIn, *figs[1].gradeOut));
        EXPECT_NEAR(other[1].station, pvis[1].station, 1e-6);
        EXPECT_NEAR(other[1].height, pvis[1].height, 1e-6);
    }
}

TEST(DesignEdit, AGradeIsCarriedOn) {
    auto pvis = design();
    ASSERT_TRUE(carryGradeOn(pvis, 1));
    EXPECT_NEAR(pvis[2].height, 112, 1e-12);
    EXPECT_FALSE(carryGradeOn(pvis, 0));
    EXPECT_FALSE(carryGradeOn(pvis, 3));
}

/// Up to 110 at 250 and down again, with a place on the straight that says nothing.
const std::vector<ProfilePoint> hill{{0, {}, 100.0},   {125, {}, 105.0}, {250, {}, 110.0},
                                     {300, {}, 104.0}, {500, {}, 100.0}, {600, {}, 99.0}};

TEST(DesignEdit, AStretchLiesOnTheGroundWithItsAmount) {
    auto pvis = design();
    pvis[1].onGround = 0.5;
    pvis[1].curveLength = 40;
    const auto laid = laidOnGround(pvis, hill);
    ASSERT_EQ(laid.size(), 6U);
    EXPECT_NEAR(laid[1].height, heightAt(hill, 200).value() + 0.5, 1e-12);
    EXPECT_EQ(laid[1].curveLength, 0);
    EXPECT_EQ(laid[2].station, 250);
    EXPECT_NEAR(laid[2].height, 110.5, 1e-12);
    EXPECT_EQ(laid[3].station, 300);
    EXPECT_NEAR(laid[4].height, heightAt(hill, 400).value() + 0.5, 1e-12);
    // In between it is the ground plus the amount, everywhere.
    for (double s = 200; s <= 400; s += 3.7)
        EXPECT_NEAR(designAt(laid, s)->height, heightAt(hill, s).value() + 0.5, 1.1e-3) << s;
    EXPECT_TRUE(followsGround(pvis));
    EXPECT_FALSE(followsGround(design()));
}

TEST(DesignEdit, WhereTheGroundIsNotKnownTheStretchStaysStraight) {
    auto pvis = design();
    pvis[1].onGround = 0.0;
    std::vector<ProfilePoint> broken = hill;
    broken[2].height.reset();
    EXPECT_EQ(laidOnGround(pvis, broken).size(), 4U);
    EXPECT_EQ(laidOnGround(pvis, {}).size(), 4U);
}

TEST(DesignEdit, ThinningKeepsTheGroundWithinAMillimetre) {
    std::mt19937 random(3);
    std::normal_distribution<double> rough(0, 0.002);
    std::vector<ProfilePoint> ground;
    for (int i = 0; i <= 4000; ++i) ground.push_back({i * 0.25, {}, 50 + i * 0.01 + rough(random)});
    std::vector<Pvi> pvis{{0, 0}, {1000, 0}};
    pvis[0].onGround = 1.0;
    const auto laid = laidOnGround(pvis, ground);
    EXPECT_LT(laid.size(), ground.size());
    for (const auto& p : ground) EXPECT_NEAR(designAt(laid, p.station)->height, *p.height + 1, 0.001 + 1e-9);
}

TEST(DesignEdit, StretchesOnTheGroundAreNotCheckedForGrades) {
    const auto line = alignmentOn({{{0, 0}, {600, 0}, {}}}, 0);
    Criteria limits;
    limits.maxGrade = 2.5;
    limits.bySpeed = {{30, {}, {}, 50.0, 50.0}};
    auto pvis = design();
    EXPECT_EQ(checkDesign(line, pvis, limits, {{0, 30}})->size(), 3U);  // 3 %, two breaks without a curve
    pvis[0].onGround = 0.0;
    EXPECT_EQ(checkDesign(line, pvis, limits, {{0, 30}})->size(), 1U);
}

}  // namespace
}  // namespace erdwerk::route
