// Lines that take their heights from each other.

#include "core/linework/height_solver.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <cmath>

#include "core/base/display.h"
#include "named_lines.h"

namespace erdwerk::linework {
namespace {

double heightOf(const ResolvedLine& line, std::size_t vertex) {
    EXPECT_TRUE(line.vertices[vertex].height) << line.vertices[vertex].problem;
    return line.vertices[vertex].height.value_or(-1);
}

// ---- one rule each, by hand

TEST(HeightSolver, AnotherLineAtItsNearestPlaceWithAmountAndCrossfall) {
    Lines w;
    w.name({"Pad edge", "Kerb"});
    w.add({{0, 0}, {100, 0}}, "100; 110");
    w.add({{20, 5}, {50, -10}, {120, 0}}, "=Pad edge+0.10; =Pad edge-2%; =Pad edge-4:1");
    const auto kerb = w.solve()[1];
    EXPECT_NEAR(heightOf(kerb, 0), 102.1, 1e-9);
    EXPECT_NEAR(heightOf(kerb, 1), 105 - 0.2, 1e-9);  // 10 away, falling 2 %
    EXPECT_NEAR(heightOf(kerb, 2), 110 - 5, 1e-9);    // nearest to the end, 20 away
}

TEST(HeightSolver, AGradePointStandsWhereALineIsCrossed) {
    Lines w;
    w.name({"Ditch 3", "Lane", "Twice"});
    w.add({{30, -10}, {30, 10}}, "50; 60");
    w.add({{0, 0}, {100, 0}}, "70; @ x Ditch 3+0.10; ~");
    w.add({{0, 5}, {60, 5}, {60, 8}, {0, 8}}, "1; @ x Ditch 3; 2; 2; @75 x Ditch 3-1; 3");
    const auto all = w.solve();
    const auto& lane = all[1];
    EXPECT_NEAR(lane.vertices[1].distance, 30, 1e-12);
    EXPECT_NEAR(heightOf(lane, 1), 55.1, 1e-9);
    EXPECT_FALSE(lane.vertices[2].height);  // nothing after it to be between
    const auto& twice = all[2];
    EXPECT_NEAR(twice.vertices[1].distance, 30, 1e-12);
    EXPECT_NEAR(heightOf(twice, 1), 57.5, 1e-9);
    EXPECT_NEAR(twice.vertices[4].distance, 93, 1e-12);  // the crossing nearest to 75
    EXPECT_NEAR(heightOf(twice, 4), 58, 1e-9);
}

TEST(HeightSolver, ALineThatEndsOnAnotherIsCrossedToo) {
    Lines w;
    w.name({"Side", "Lane"});
    w.add({{40, 20}, {40, 0}}, "9; 5");
    w.add({{0, 0}, {100, 0}}, "1; @ x Side; 1");
    EXPECT_NEAR(heightOf(w.solve()[1], 1), 5, 1e-9);
}

TEST(HeightSolver, TwoGradesMeetWhereTheySayAndMayPassACorner) {
    Lines w;
    w.name({"Kerb"});
    // 100 + 0.02 x = 101 + 0.03 (100 - x): x = 80, behind the corner at 60 that is between.
    w.add({{0, 0}, {60, 0}, {100, 0}}, "100; @ meet 2% -3%; ~; 101");
    const auto kerb = w.solve()[0];
    EXPECT_NEAR(kerb.vertices[1].distance, 80, 1e-9);
    EXPECT_THAT(kerb.vertices[1].place, test::IsNear(80, 0, 1e-9));
    EXPECT_NEAR(heightOf(kerb, 1), 101.6, 1e-9);
    EXPECT_NEAR(heightOf(kerb, 2), 101.2, 1e-9);  // on the way up
    EXPECT_EQ(kerb.order, (std::vector<std::size_t>{0, 2, 1, 3}));
    EXPECT_NEAR(*heightAt(kerb, 90), 101.3, 1e-9);
    const auto runs = runsWithHeights(kerb, 0.01);
    ASSERT_EQ(runs.size(), 1U);
    EXPECT_EQ(runs[0].size(), 4U);
    EXPECT_NEAR(runs[0][2].z, 101.6, 1e-9);
}

TEST(HeightSolver, GradesThatDoNotMeetBetweenTheirNeighboursGiveNoHeight) {
    Lines w;
    w.name({"a", "b", "c"});
    w.add({{0, 0}, {100, 0}}, "100; @ meet 2% 2%; 102");
    w.add({{0, 0}, {100, 0}}, "100; @ meet 2% -3%; 200");
    w.add({{0, 0}, {100, 0}}, "100; @ meet 2% -3%; 2%");  // and a circle
    for (const auto& line : w.solve()) {
        EXPECT_FALSE(line.vertices[1].height);
        EXPECT_FALSE(line.vertices[1].problem.empty());
    }
    EXPECT_TRUE(w.solve()[2].vertices[1].circular);
}

TEST(HeightSolver, LinesUseEachOtherAsLongAsNoHeightDependsOnItself) {
    Lines w;
    w.name({"a", "b"});
    w.add({{0, 0}, {50, 0}, {100, 0}}, "10; 2%; =b+1");
    w.add({{0, 5}, {50, 5}, {100, 5}}, "=a; =a; -1:1");
    const auto all = w.solve();
    EXPECT_NEAR(heightOf(all[1], 1), 11, 1e-9);
    EXPECT_NEAR(heightOf(all[1], 2), -39, 1e-9);
    EXPECT_NEAR(heightOf(all[0], 2), -38, 1e-9);
}

TEST(HeightSolver, ACircleNamesAllThatIsInItAndNothingElse) {
    Lines w;
    w.name({"a", "b", "c", "d"});
    w.add({{0, 0}, {100, 0}}, "=b; 5");
    w.add({{0, 5}, {100, 5}}, "=c; 6");
    w.add({{0, 10}, {100, 10}}, "=a; 7");
    w.add({{0, 15}, {50, 15}}, "=a; +0.5");  // hangs on the circle, is not in it
    const auto all = w.solve();
    for (int i = 0; i < 3; ++i) {
        const auto& v = all[static_cast<std::size_t>(i)].vertices[0];
        EXPECT_TRUE(v.circular);
        EXPECT_EQ(v.circle.size(), 3U);
        EXPECT_TRUE(all[static_cast<std::size_t>(i)].vertices[1].height);
    }
    EXPECT_FALSE(all[3].vertices[0].circular);
    EXPECT_FALSE(all[3].vertices[0].height);
    EXPECT_THAT(all[3].vertices[0].problem, testing::HasSubstr("depends on itself"));
}

TEST(HeightSolver, WhatIsGoneIsSaidAndNeverZero) {
    Lines w;
    w.name({"a", "gone"});
    w.add({{0, 0}, {50, 0}, {100, 0}}, "=gone+1; @25 x gone; ~; 5");
    const auto line = w.solve()[0];
    for (const std::size_t i : {0U, 1U}) {
        EXPECT_FALSE(line.vertices[i].height);
        EXPECT_THAT(line.vertices[i].problem, testing::HasSubstr("there is no 3D line 'gone'"));
    }
}

TEST(HeightSolver, AChainOfManyThousandHeightsIsFollowed) {
    Lines w;
    std::vector<Vec2> corners;
    std::string forth = "100";
    std::string back;
    for (int i = 0; i <= 30000; ++i) {
        corners.push_back({static_cast<double>(i), 0});
        if (i > 0) forth += "; +0.001";
        back += i < 30000 ? "to +0.001; " : "100";
    }
    w.name({"forth", "back", "one"});
    w.add(corners, forth);
    w.add(corners, back);
    // Asked for at the far end first, so that nothing is done yet.
    w.add({{30000, 1}, {30001, 1}}, "=forth; =back");
    std::swap(w.lines[0], w.lines[2]);
    std::swap(w.names[0], w.names[2]);
    w.lines[0].vertices[0].rule = OnLine{{3}, 0, {}, {}};
    const auto all = w.solve();
    EXPECT_NEAR(heightOf(all[0], 0), 130, 1e-6);
    EXPECT_NEAR(heightOf(all[0], 1), 100, 1e-6);
    EXPECT_NEAR(heightOf(all[1], 0), 70, 1e-6);
}

// ---- vertical curves

TEST(HeightSolver, AVerticalCurveIsTheParabolaOfTheTextbook) {
    Lines w;
    w.name({"Lane", "Kerb"});
    // g1 = +4 %, g2 = -2 %, L = 60 about 100: starts at 70, h = 104 - 1.2; y = h + 0.04 x - 0.06 x^2 / 120.
    w.add({{0, 0}, {100, 0}, {200, 0}}, "100; 104 curve 60; 102");
    w.add({{100, 3}, {140, 3}}, "=Lane; =Lane");
    const auto all = w.solve();
    const auto& lane = all[0];
    ASSERT_EQ(lane.curves.size(), 1U);
    const auto& c = lane.curves[0];
    EXPECT_NEAR(c.start, 70, 1e-9);
    EXPECT_NEAR(c.end(), 130, 1e-9);
    EXPECT_NEAR(c.k(), 10, 1e-9);
    ASSERT_TRUE(c.turn());
    EXPECT_NEAR(c.start + *c.turn(), 110, 1e-9);      // 70 + 60 * 4 / 6
    EXPECT_NEAR(c.height(*c.turn()), 103.6, 1e-9);    // 102.8 + 0.04 * 40 - 0.8
    EXPECT_NEAR(heightOf(lane, 1), 104, 1e-9);        // of the tangents
    EXPECT_NEAR(*heightAt(lane, 100), 103.55, 1e-9);  // lower by A L / 8 = 0.45
    EXPECT_NEAR(*heightAt(lane, 70), 102.8, 1e-9);
    EXPECT_NEAR(*heightAt(lane, 150), 103, 1e-9);
    EXPECT_NEAR(heightOf(all[1], 0), 103.55, 1e-9);  // others take the finished line
    EXPECT_NEAR(heightOf(all[1], 1), 103.2, 1e-9);   // behind its end
}

TEST(HeightSolver, AVerticalCurveByKHasItsLengthFromTheChangeOfGrade) {
    Lines w;
    w.name({"Lane"});
    w.add({{0, 0}, {100, 0}, {200, 0}}, "100; 104 curve K5; 102");
    const auto lane = w.solve()[0];
    ASSERT_EQ(lane.curves.size(), 1U);
    EXPECT_NEAR(lane.curves[0].length, 30, 1e-9);  // 5 times 6
}

TEST(HeightSolver, CurvesThatDoNotFitAreLeftOutWithAReason) {
    Lines w;
    w.name({"past", "both", "end", "straight"});
    w.add({{0, 0}, {10, 0}, {200, 0}}, "100; 101 curve 30; 102");
    w.add({{0, 0}, {50, 0}, {100, 0}, {150, 0}}, "0; 1 curve 60; 0 curve 60; 1");
    w.add({{0, 0}, {50, 0}}, "0 curve 10; 1");
    w.add({{0, 0}, {50, 0}, {100, 0}}, "0; 1 curve 10; 2");
    const auto all = w.solve();
    EXPECT_THAT(all[0].vertices[1].curveProblem, testing::HasSubstr("past the control"));
    EXPECT_THAT(all[1].vertices[1].curveProblem, testing::HasSubstr("overlaps"));
    EXPECT_THAT(all[1].vertices[2].curveProblem, testing::HasSubstr("overlaps"));
    EXPECT_THAT(all[2].vertices[0].curveProblem, testing::HasSubstr("both sides"));
    EXPECT_EQ(all[3].vertices[1].curveProblem, "");
    for (const auto& line : all) {
        EXPECT_TRUE(line.curves.empty());
        EXPECT_TRUE(line.complete());
    }
}

TEST(HeightSolver, AVerticalCurveGoesOverTheBeginningOfAClosedLine) {
    Lines w;
    w.name({"Pad"});
    // A square of 40: at the first corner from -5 % to +5 %, curve 20.
    w.add({{0, 0}, {10, 0}, {10, 10}, {0, 10}}, "10 curve 10; 10.5; 11; 10.5", true);
    const auto pad = w.solve()[0];
    ASSERT_EQ(pad.curves.size(), 1U);
    EXPECT_NEAR(*heightAt(pad, 0), 10.125, 1e-9);  // A L / 8 = 0.1 * 10 / 8
    EXPECT_NEAR(*heightAt(pad, 40), 10.125, 1e-9);
    EXPECT_NEAR(*heightAt(pad, 2), *heightAt(pad, 38), 1e-9);
    const auto run = runsWithHeights(pad, 0.001).front();
    EXPECT_NEAR(run.front().z, 10.125, 1e-9);
    EXPECT_NEAR(run.back().z, 10.125, 1e-9);
    EXPECT_GT(run.size(), 8U);
}

TEST(HeightSolver, VerticalCurvesAreCutEverySoFarOrToASagitta) {
    Lines w;
    w.name({"Lane"});
    w.add({{0, 0}, {100, 0}, {200, 0}}, "100; 104 curve 60; 102");
    const auto lane = w.solve()[0];
    const auto stepped = runsWithHeights(lane, 0.01, 25).front();  // 0, 70, 95, 100, 120, 130, 200
    ASSERT_EQ(stepped.size(), 7U);
    EXPECT_NEAR(stepped[2].x, 95, 1e-9);
    const auto fine = runsWithHeights(lane, 0.001).front();
    for (std::size_t i = 0; i + 1 < fine.size(); ++i) {
        const double middle = (fine[i].x + fine[i + 1].x) / 2;
        EXPECT_NEAR((fine[i].z + fine[i + 1].z) / 2, *heightAt(lane, middle), 0.001 + 1e-9);
    }
}

// ---- text of whole lines

TEST(RuleList, AWholeLineReadsBackAsItIsWritten) {
    Lines w;
    w.name({"Ditch 3", "Kerb-2", "a;b"});
    for (const std::string rules :
         {"101.25; @2.5 2%; ; +0.15 curve 40; h -3", "~; =Ground+0.1; @12 x Ditch 3; 3:1; to 2%; 5",
          "1; @ meet 2% -1 in 4; 2; @ x \"Kerb-2\"+0.1; 3 curve K12; =\"a;b\"-2%"}) {
        const std::size_t corners = 4;
        std::vector<Vec2> places;
        for (std::size_t i = 0; i < corners; ++i) places.push_back({10.0 * static_cast<double>(i), 0});
        if (rules.find("to 2%") != std::string::npos) places.push_back({40, 0});
        const auto line = valueOf(withRules(lineThrough(places, {}), rules, w.ruleNames()));
        const auto text = rulesText(line, w.ruleNames());
        EXPECT_EQ(valueOf(withRules(lineThrough(places, {}), text, w.ruleNames())), line) << text;
        EXPECT_EQ(text, rules);
    }
}

TEST(RuleList, WhatCannotBeReadNamesItsEntry) {
    Lines w;
    w.name({"Ditch 3"});
    const auto why = [&](const std::string& rules) {
        const auto line = withRules(lineThrough({{0, 0}, {10, 0}, {20, 0}}, {}), rules, w.ruleNames());
        return line ? std::string("read") : line.error().text;
    };
    EXPECT_THAT(why("1; 2"), testing::HasSubstr("2 entries for corners, but the line has 3"));
    EXPECT_THAT(why("1; 2; 3; 4"), testing::HasSubstr("4 entries"));
    EXPECT_THAT(why("1; 1 in 0; 3"), testing::HasSubstr("entry 2"));
    EXPECT_THAT(why("1; 2% curve K0; 3"), testing::HasSubstr("entry 2"));
    EXPECT_THAT(why("1; 2 curve -5; 3"), testing::HasSubstr("entry 2"));
    EXPECT_THAT(why("1; curve 5; 3"), testing::HasSubstr("entry 2"));
    EXPECT_THAT(why("1; nonsense; 3"), testing::HasSubstr("entry 2"));
    EXPECT_THAT(why("1; meet 2% 3%; 3"), testing::HasSubstr("begins with @"));
    EXPECT_THAT(why("1; @ 2%; 2; 3"), testing::HasSubstr("needs its distance"));
    EXPECT_THAT(why("1; @12 2%; 2; 3"), testing::HasSubstr("between its neighbours"));
    EXPECT_THAT(why("1; @5 2%; @4 3%; 2; 3"), testing::HasSubstr("entry 3"));
    EXPECT_THAT(why("@5 2%; 1; 2; 3"), testing::HasSubstr("between two corners"));
    EXPECT_THAT(why("1; 2; 3; @25 2%"), testing::HasSubstr("between two corners"));
    EXPECT_THAT(why("1; @q 2%; 2; 3"), testing::HasSubstr("no distance"));
    EXPECT_THAT(why("1; @ meet 2%; 2; 3"), testing::HasSubstr("two grades"));
    EXPECT_THAT(why("1; =Nowhere; 3"), testing::HasSubstr("named 'Nowhere'"));
    EXPECT_THAT(why("1; =\"Ditch 3; 3"), testing::HasSubstr("quote"));
    EXPECT_EQ(why("1;;3"), "read");
}

TEST(RuleList, ANameThatEndsLikeANotationStandsInQuotes) {
    EXPECT_EQ(nameText("Ditch 3"), "Ditch 3");
    EXPECT_EQ(nameText("Kerb-2"), "\"Kerb-2\"");
    EXPECT_EQ(nameText("Kerb-2%"), "\"Kerb-2%\"");
    EXPECT_EQ(nameText("A+B"), "A+B");
    EXPECT_EQ(nameText("the \"old\" one"), "\"the \"\"old\"\" one\"");
    EXPECT_EQ(nameText("S curve 5"), "\"S curve 5\"");
    for (const std::string name : {"Ditch 3", "Kerb-2", "the \"old\" one", "x;y", " spaced "}) {
        const auto back = valueOf(parseNamed(nameText(name) + "-3:1"));
        EXPECT_EQ(back.name, name);
        EXPECT_EQ(back.amount, "-3:1");
    }
}

}  // namespace
}  // namespace erdwerk::linework
