// Shape in plan as edits of a project: what becomes of heights, rules, names and what stands on a line.

#include "core/operations/plan_shape.h"

#include "core/check/finding.h"
#include "core/linework/rule_list.h"
#include "core/objects/group.h"
#include "core/objects/label.h"
#include "core/objects/line.h"
#include "core/objects/points.h"
#include "core/operations/free_name.h"
#include "core/operations/labels.h"
#include "core/operations/plan_move.h"
#include "core/operations/points.h"
#include "core/operations/records.h"
#include "core/operations/shape.h"
#include "core/operations/show.h"
#include "core/operations/with.h"
#include "core/route/alignment.h"
#include "support/after_edit.h"
#include "support/mended.h"
#include "support/plane_site.h"

namespace erdwerk::operations {
namespace {

using geometry::Vec2;
using test::places;
using test::PlaneSite;
using test::valueOf;

/// The plane site and what is added to it.
struct Site : PlaneSite {
    ObjectId add(const std::string& name, const std::vector<Vec2>& corners,
                 const std::vector<std::optional<double>>& heights = {}, bool closed = false) {
        ObjectId id;
        document = document.added(name, objects::Line{linework::lineThrough(corners, heights, closed)}, &id);
        return id;
    }
    /// The same with rules: "100; 2%; ~; 3:1".
    ObjectId ruled(const std::string& name, const std::vector<Vec2>& corners, const std::string& rules,
                   bool closed = false) {
        const ObjectId id = add(name, corners, {}, closed);
        auto line = valueOf(linework::withRules(this->line(id), rules, namesIn(document)));
        document = withLine(document, id, std::move(line));
        return id;
    }
    [[nodiscard]] std::vector<std::string> rules(ObjectId id) const {
        std::vector<std::string> out;
        for (const auto& v : line(id).vertices) out.push_back(controlText(document, v));
        return out;
    }
    [[nodiscard]] std::vector<ObjectId> lines() const { return document.all<objects::Line>(); }
    [[nodiscard]] double heightOn(ObjectId id, Vec2 place) const {
        const auto r = resolved(id);
        const auto on = geometry::nearestOn(r.path, place);
        return linework::heightAt(r, geometry::distanceAlong(r.path, *on)).value_or(-999);
    }
};

// ---- cutting

TEST(CutOut, AnOpenLineLosesWhatLiesBetween) {
    Site s;
    const ObjectId line = s.ruled("Edge", places("0 0, 30 0, 60 0, 90 0"), "100; 2%; 2%; -1%");
    ASSERT_TRUE(s.apply(cutStretchOut(s.results(), {line, {}, 0, 0.5}, {line, {}, 1, 0.5})));
    EXPECT_NEAR(s.resolved(line).length, 15, 1e-9);
    const ObjectId second = s.document.byName<objects::Line>("Edge (2)");
    ASSERT_TRUE(second);
    EXPECT_NEAR(s.resolved(second).length, 45, 1e-9);
    EXPECT_NEAR(s.heightOn(second, {45, 0}), 100.9, 1e-9);
    EXPECT_NEAR(s.heightOn(second, {90, 0}), 100.9, 1e-9);
    EXPECT_EQ(s.rules(second)[1], "2%");
    // The same order of picks does not matter; nothing left is refused.
    EXPECT_FALSE(s.apply(cutStretchOut(s.results(), {line, 0, 0, 0}, {line, 1, 0, 0})));
    EXPECT_FALSE(s.apply(cutStretchOut(s.results(), {line, 0, 0, 0}, {line, 0, 0, 0})));
    EXPECT_FALSE(s.apply(cutStretchOut(s.results(), {line, 0, 0, 0}, {second, 0, 0, 0})));
    EXPECT_FALSE(s.apply(cutStretchOut(s.results(), {line, 99, 0, 0}, {line, 0, 0, 0})));
}

TEST(CutOut, OfAClosedLineTheShorterWayRoundGoes) {
    Site s;
    const ObjectId ring = s.add("Ring", places("0 0, 40 0, 40 40, 0 40"), {1.0, 2.0, 3.0, 4.0}, true);
    // Across the start: from 10 before it to 10 after it.
    ASSERT_TRUE(s.apply(cutStretchOut(s.results(), {ring, {}, 0, 0.25}, {ring, {}, 3, 0.75})));
    EXPECT_FALSE(s.line(ring).closed);
    EXPECT_NEAR(s.resolved(ring).length, 140, 1e-9);
    EXPECT_EQ(s.line(ring).vertices.front().place, (Vec2{10, 0}));
    EXPECT_NEAR(s.heightOn(ring, {40, 40}), 3, 1e-9);
    EXPECT_NEAR(s.heightOn(ring, {10, 0}), 1.25, 1e-9);
}

TEST(Split, AtAllCrossingsMakesAPartBetweenEachTwo) {
    Site s;
    const ObjectId line = s.add("Edge", places("0 97, 90 97"), {10.0, 19.0});
    for (const double x : {20.0, 50.0, 70.0}) s.add("Post", {{x, 94}, {x, 99}});
    const ObjectId hidden = s.add("Hidden", places("30 94, 30 99"));
    ASSERT_TRUE(s.apply(setShown({hidden}, false)));
    ASSERT_TRUE(s.apply(splitAtCrossings(s.results(), line)));
    std::vector<double> lengths;
    for (const char* name : {"Edge", "Edge (2)", "Edge (3)", "Edge (4)"})
        lengths.push_back(std::round(s.resolved(s.document.byName<objects::Line>(name)).length * 1e6) / 1e6);
    EXPECT_THAT(lengths, testing::ElementsAre(20, 30, 20, 20));
    EXPECT_NEAR(s.heightOn(s.document.byName<objects::Line>("Edge (3)"), {60, 97}), 16, 1e-9);
    // Of those that are named only; and a line that nothing crosses.
    EXPECT_FALSE(s.apply(splitAtCrossings(s.results(), line, {hidden})));
    EXPECT_FALSE(s.apply(splitAtCrossings(s.results(), hidden, {s.plot})));
}

TEST(Split, SaysWhichRulesBecameHeights) {
    Site s;
    const ObjectId line = s.ruled("Edge", places("0 0, 30 0, 60 0"), "100; 2%; +0.5");
    ASSERT_TRUE(s.apply(splitLine(s.results(), {line, {}, 1, 0.5})));
    EXPECT_EQ(s.said, "+0.5 became its height");
}

// ---- joining

TEST(Join, AGapIsBridgedOrClosedAndAStepSettled) {
    for (const auto step : {JoinOptions::Step::First, JoinOptions::Step::Second, JoinOptions::Step::Mean})
        for (const bool close : {false, true}) {
            Site s;
            const ObjectId a = s.ruled("A", places("0 70, 30 70"), "20; 2%");
            const ObjectId b = s.ruled("B", places("32 70, 60 70, 80 70"), "21; ~; 21.4");
            JoinOptions options;
            options.step = step;
            options.gap = close ? 5 : 0.001;
            const auto gap = gapBetween(*s.results(), a, b);
            ASSERT_TRUE(gap);
            EXPECT_NEAR(gap->gap, 2, 1e-12);
            EXPECT_NEAR(*gap->first, 20.6, 1e-12);
            EXPECT_NEAR(*gap->second, 21, 1e-12);
            ASSERT_TRUE(s.apply(joinLines(s.results(), a, b, options)));
            EXPECT_EQ(s.line(a).vertices.size(), close ? 4U : 5U);
            EXPECT_NEAR(s.heightOn(a, {0, 70}), 20, 1e-9);
            EXPECT_NEAR(s.heightOn(a, {80, 70}), 21.4, 1e-9);
            const double at = s.heightOn(a, {30, 70});
            const bool first = !close || step == JoinOptions::Step::First;
            EXPECT_NEAR(at, first ? 20.6 : (step == JoinOptions::Step::Second ? 21 : 20.8), 1e-9);
            if (!close) EXPECT_NEAR(s.heightOn(a, {32, 70}), 21, 1e-9);
            // What lies behind keeps its height although it was interpolated from the end that moved.
            EXPECT_NEAR(s.heightOn(a, {60, 70}), 21 + 0.4 * 28 / 48, 1e-9);
        }
}

TEST(Join, TwoHundredRandomCutsAreJoinedToWhatWasThere) {
    std::mt19937 random(261126);
    std::uniform_real_distribution<double> unit(0.05, 0.95);
    const std::vector<std::string> all{"2%", "-3:1", "+0.4", "~", "to 1%", "=Ground+0.2", "24"};
    for (int run = 0; run < 200; ++run) {
        Site s;
        std::string rules = "20";
        std::vector<Vec2> corners{{5, 5}};
        for (int k = 1; k < 6; ++k) {
            corners.push_back({5 + 15.0 * k, 5 + 40 * unit(random)});
            rules += "; " + (k == 5 ? "21" : all[std::uniform_int_distribution<std::size_t>(0, 6)(random)]);
        }
        const ObjectId line = s.ruled("Edge", corners, rules);
        const auto before = s.resolved(line);
        if (!before.complete()) continue;
        const auto segment = std::uniform_int_distribution<std::size_t>(0, 4)(random);
        ASSERT_TRUE(s.apply(splitLine(s.results(), {line, {}, segment, unit(random)}))) << s.said;
        ASSERT_TRUE(s.apply(joinLines(s.results(), line, s.document.byName<objects::Line>("Edge (2)"))));
        const auto after = s.resolved(line);
        ASSERT_NEAR(after.length, before.length, 1e-9);
        for (int k = 0; k <= 50; ++k)
            ASSERT_NEAR(*linework::heightAt(before, before.length * k / 50),
                        linework::heightAt(after, before.length * k / 50).value_or(-1), 1e-9)
                << "run " << run << " " << rules;
    }
}

// ---- reaching, arcs, points

TEST(Reach, AnAlignmentIsATargetToo) {
    Site s;
    ASSERT_TRUE(s.apply(makeAlignment(s.lane)));
    const ObjectId alignment = s.last<objects::Alignment>();
    const ObjectId line = s.add("Drain", places("25 60, 25 40"), {12.0, 11.0});
    ASSERT_TRUE(s.apply(reachLine(s.results(), {line, {}, 0, 0.9}, alignment)));
    EXPECT_THAT(s.line(line).vertices.back().place, test::IsNear(25, 10, 1e-9));
    EXPECT_NEAR(s.heightOn(line, {25, 10}), 9.5, 1e-9);
    EXPECT_FALSE(s.apply(reachLine(s.results(), {line, {}, 0, 0.9}, s.points)));
    EXPECT_FALSE(s.apply(reachLine(s.results(), {line, {}, 0, 0.9}, line)));
}

TEST(PlanShape, ASideIsBentAndStraightenedWithItsRules) {
    Site s;
    const ObjectId line = s.ruled("Edge", places("0 0, 40 0, 80 0"), "100; 2%; 2%");
    ASSERT_TRUE(s.apply(setSide(line, 0, Vec2{20, 20})));
    // A half circle of radius 20: two per cent of its length.
    EXPECT_NEAR(s.heightOn(line, {40, 0}), 100 + 0.02 * 20 * M_PI, 1e-9);
    EXPECT_EQ(s.rules(line)[1], "2%");
    ASSERT_TRUE(s.apply(setSide(line, 0, std::nullopt)));
    EXPECT_NEAR(s.heightOn(line, {40, 0}), 100.8, 1e-9);
    EXPECT_FALSE(s.apply(setSide(line, 0, Vec2{20, 0})));
    EXPECT_FALSE(s.apply(setSide(line, 7, Vec2{20, 5})));
}

TEST(PlanShape, ThinningIsTypedAndCounted) {
    EXPECT_EQ(valueOf(parseThin("0.02")).deviation, 0.02);
    const auto all = valueOf(parseThin(" 0.02  3deg <0.5"));
    EXPECT_NEAR(all.angle.degrees(), 3, 1e-12);
    EXPECT_EQ(all.spacing, 0.5);
    for (const char* bad : {"", "soon", "-1", "<", "0", "3deg x"}) EXPECT_FALSE(parseThin(bad)) << bad;
    Site s;
    const ObjectId line = s.add("Edge", places("0 0, 10 0, 20 0, 30 0"), {1.0, 2.0, 3.0, 9.0});
    ASSERT_TRUE(s.apply(document::atOnce(thinLines(s.results(), {line}, all))) ==
                false);  // none is nearer than 0.5 to the next
    ASSERT_TRUE(s.apply(document::atOnce(thinLines(s.results(), {line}, valueOf(parseThin("0.01"))))));
    EXPECT_EQ(s.said, "1 of 4 points went");
    EXPECT_EQ(s.line(line).vertices.size(), 3U);
}

TEST(PlanShape, PointsAreTyped) {
    Site s;
    const ObjectId line = s.add("Edge", places("0 0, 40 0"), {1.0, 2.0});
    ASSERT_TRUE(s.apply(insertTyped(line, "25")));
    EXPECT_THAT(s.line(line).vertices[1].place, test::IsNear(25, 0, 1e-9));
    ASSERT_TRUE(s.apply(insertTyped(line, "every 10")));
    EXPECT_EQ(s.line(line).vertices.size(), 6U);
    for (const char* bad : {"25", "40", "-3", "every", "every 0", "every 0.0001", "some"})
        EXPECT_FALSE(s.apply(insertTyped(line, bad))) << bad;
    ASSERT_TRUE(s.apply(setTypedPlace(line, 1, "10, 5")));
    EXPECT_EQ(s.line(line).vertices[1].place, (Vec2{10, 5}));
    EXPECT_FALSE(s.apply(setTypedPlace(line, 1, "north")));
    // A picked height is taken, unless a rule of its own says otherwise.
    ASSERT_TRUE(s.apply(moveVertexTo(line, 1, {10, 6}, 7.5)));
    EXPECT_EQ(s.rules(line)[1], "7.5");
    ASSERT_TRUE(s.apply(setTypedRule(line, 1, "2%")));
    ASSERT_TRUE(s.apply(moveVertexTo(line, 1, {10, 7}, 7.5)));
    EXPECT_EQ(s.rules(line)[1], "2%");
}

TEST(PlanShape, AnArcIsFittedAndItsDeviationSaid) {
    Site s;
    const ObjectId line =
        s.add("Edge", places("0 60, 10 68, 20 70, 30 68, 40 60"), {1.0, 1.0, 1.0, 1.0, 1.0});
    ASSERT_TRUE(s.apply(fitArc(s.results(), line, 0, 4)));
    EXPECT_THAT(s.said, testing::HasSubstr("Arc of radius"));
    EXPECT_EQ(s.resolved(line).path.size(), 1U);
    EXPECT_FALSE(s.apply(fitArc(s.results(), line, 0, 4)));
}

// ---- whole things

TEST(MovePlan, WhatStandsOnALineGoesAlong) {
    Site s;
    ASSERT_TRUE(s.apply(makeAlignment(s.lane)));
    ASSERT_TRUE(s.apply(makeLabel(s.lane, std::nullopt, 1)));
    const auto before = s.results();
    ASSERT_TRUE(
        s.apply(movePlan({{s.lane, {}}}, linework::PlanMove::turned(Angle::degrees(90), {10, 10}), false)));
    const auto after = s.results();
    const ObjectId alignment = s.last<objects::Alignment>();
    EXPECT_NEAR(after->alignments.at(alignment)->length, before->alignments.at(alignment)->length, 1e-9);
    EXPECT_THAT(after->alignments.at(alignment)->path.front().end, test::IsNear(10, -20, 1e-9));
    EXPECT_EQ(s.document.get<objects::Label>(s.last<objects::Label>())->part, 1U);
}

TEST(MovePlan, OnTheGroundItTakesNewHeights) {
    Site s;
    const ObjectId line = s.ruled("Drain", places("20 20, 40 20"), "=Ground; =Ground-0.5");
    ASSERT_TRUE(s.apply(movePlan({{line, {}}}, linework::PlanMove::by({10, 30}), false)));
    EXPECT_NEAR(s.heightOn(line, {30, 50}), PlaneSite::height(30, 50), 1e-9);
    EXPECT_NEAR(s.heightOn(line, {50, 50}), PlaneSite::height(50, 50) - 0.5, 1e-9);
}

TEST(MovePlan, CopiesHaveNamesAndNumbersOfTheirOwn) {
    Site s;
    const auto count = s.document.objects().size();
    const auto by = linework::PlanMove::by({5, 0});
    for (int i = 0; i < 2; ++i)
        ASSERT_TRUE(s.apply(movePlan({{s.lane, {}}, {s.points, 0}, {s.points, 3}}, by, true)));
    EXPECT_EQ(s.document.objects().size(), count + 2);
    EXPECT_TRUE(s.document.byName<objects::Line>("Lane (2)") && s.document.byName<objects::Line>("Lane (3)"));
    const auto& set = s.document.get<objects::Points>(s.points)->set;
    ASSERT_EQ(set.size(), 9U);
    for (std::size_t i = 5; i < 9; ++i) EXPECT_EQ(set[i].number, std::to_string(i + 1));
    EXPECT_EQ(s.document.get<objects::Line>(s.document.byName<objects::Line>("Lane (3)"))->style,
              objects::LineStyle::Crest);
    EXPECT_FALSE(s.apply(movePlan({{s.ground, {}}}, by, false)));
    EXPECT_FALSE(s.apply(movePlan({}, by, false)));
}

TEST(MovePlan, ASetWithOneOfItsPointsMovesOnce) {
    Site s;
    ASSERT_TRUE(s.apply(movePlan({{s.points, {}}, {s.points, 4}}, linework::PlanMove::by({5, 0}), false)));
    const auto& set = s.document.get<objects::Points>(s.points)->set;
    EXPECT_EQ(set[0].plan, (Vec2{5, 0}));
    EXPECT_EQ(set[4].plan, (Vec2{55, 50}));
}

// ---- stretches

TEST(Stretch, IsLevelAtTheContourOrDrapedAndTheRestStays) {
    Site s;
    const ObjectId line = s.ruled("Edge", places("0 50, 30 50, 60 50, 90 50"), "20; ~; 24; 26");
    // The ground is 10.5 + 0.02 x here: 11 at 25, and contours every 0.5 by then.
    EXPECT_NEAR(*contourHeightAt(*s.results(), s.ground, {25.5, 50}), 11, 1e-9);
    EXPECT_FALSE(contourHeightAt(*s.results(), s.ground, {500, 50}));
    ASSERT_TRUE(s.apply(levelWith(s.results(), {{line, {}, 0, 0.5}, {line, {}, 1, 0.5}}, 22)));
    for (const double x : {15.0, 30.0, 45.0}) EXPECT_NEAR(s.heightOn(line, {x, 50}), 22, 1e-9);
    EXPECT_NEAR(s.heightOn(line, {60, 50}), 24, 1e-9);
    EXPECT_NEAR(s.heightOn(line, {90, 50}), 26, 1e-9);
    ASSERT_TRUE(s.apply(drapeStretch(s.results(), s.ground, line, 50, 70, {}, false)));
    EXPECT_NEAR(s.heightOn(line, {60, 50}), PlaneSite::height(60, 50), 1e-9);
    EXPECT_NEAR(s.heightOn(line, {30, 50}), 22, 1e-9);
    EXPECT_FALSE(s.apply(drapeStretch(s.results(), s.ground, line, 70, 50, {}, false)));
    EXPECT_FALSE(s.apply(levelWith(s.results(), {{line, 0, 0, 0}, {line, 0, 0, 0}}, 22)));
}

TEST(Texts, OfADrawingAreNoPointsWithoutHeight) {
    Site s;
    s.document = test::afterEdit(
        s.document, addPoints("Texts", {{"", {20, 20}, std::nullopt, "", "k 10.60"},
                                        {"77", {30, 20}, std::nullopt, "", "height to follow"}}));
    int found = 0;
    for (const auto& f : check::run(*s.results())) found += f.kind == "without-height" ? 1 : 0;
    EXPECT_EQ(found, 1);
}

TEST(WithoutHeight, ThePointsBetweenTakeTheMeanOfTheirNeighbours) {
    Site s;
    const ObjectId line = s.add("Kerb", places("0 50, 10 50, 40 50, 60 50"), {20.0, {}, 22.0, {}});
    for (const auto& f : check::run(*s.results()))
        for (const auto& fix : f.fixes)
            if (f.kind == "without-height" && fix.label == "Take the mean of the neighbours")
                s.document = test::mended(fix, s.document);
    EXPECT_THAT(s.rules(line), testing::ElementsAre("20", "21", "22", "22"));
}

TEST(CopyName, CountsUp) {
    document::Document d;
    d = d.added("Kerb", objects::Line{});
    EXPECT_EQ(copyName(d, "Kerb"), "Kerb (2)");
    d = d.added("Kerb (2)", objects::Line{});
    EXPECT_EQ(copyName(d, "Kerb (2)"), "Kerb (3)");
    d = d.added("Kerb (3)", objects::Points{});  // a name is one name, whatever has it
    EXPECT_EQ(copyName(d, "Kerb"), "Kerb (4)");
    EXPECT_EQ(copyName(d, "Kerb (3)"), "Kerb (4)");
    // What is no number of ours is part of the name.
    EXPECT_EQ(copyName(d, "Kerb (old)"), "Kerb (old) (2)");
    EXPECT_EQ(copyName(d, "(2)"), "(2) (2)");
}

}  // namespace
}  // namespace erdwerk::operations
