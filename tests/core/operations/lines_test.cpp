// What a person does to 3D lines, on a plane: heights are known everywhere.

#include "core/linework/to_next.h"
#include "core/operations/plan_shape.h"

#include "core/annotate/label.h"
#include "core/objects/group.h"
#include "core/objects/label.h"
#include "core/objects/line.h"
#include "core/objects/surface.h"
#include "core/operations/labels.h"
#include "core/operations/records.h"
#include "core/operations/surfaces.h"
#include "support/after_edit.h"
#include "support/plane_site.h"

namespace erdwerk::operations {
namespace {

using geometry::Vec2;
using test::IsNear;
using test::places;
using test::PlaneSite;

std::vector<std::optional<double>> heightsOf(const linework::ResolvedLine& line) {
    std::vector<std::optional<double>> out;
    for (const auto& v : line.vertices) out.push_back(v.height);
    return out;
}

TEST(SplitLine, AtACornerKeepsHeightsStyleAndGroup) {
    PlaneSite s;
    const double length = s.resolved(s.lane).length;
    ASSERT_TRUE(s.apply(splitLine(s.results(), {s.lane, 1, 0, 0})));
    const ObjectId second = s.document.byName<objects::Line>("Lane (2)");
    ASSERT_TRUE(second);
    EXPECT_EQ(s.document.find(second)->group, s.group);
    EXPECT_EQ(s.document.get<objects::Line>(second)->style, objects::LineStyle::Crest);
    EXPECT_NEAR(s.resolved(s.lane).length + s.resolved(second).length, length, 1e-12);
    // The height at the corner ran straight from 10.3 to 12 over 30 of 70.
    const double corner = 10.3 + 1.7 * 30 / 70;
    EXPECT_NEAR(*s.resolved(s.lane).vertices.back().height, corner, 1e-9);
    EXPECT_NEAR(*s.resolved(second).vertices.front().height, corner, 1e-9);
    EXPECT_NEAR(*s.resolved(second).vertices.back().height, 12, 1e-9);
}

TEST(SplitLine, BetweenCornersPutsOneThere) {
    PlaneSite s;
    ASSERT_TRUE(s.apply(splitLine(s.results(), {s.lane, std::nullopt, 1, 0.25})));
    EXPECT_THAT(s.resolved(s.lane).vertices.back().place, IsNear(40, 20, 1e-9));
    EXPECT_NEAR(*s.resolved(s.lane).vertices.back().height, 10.3 + 1.7 * 40 / 70, 1e-9);
}

TEST(SplitLine, OpensAClosedLine) {
    PlaneSite s;
    ASSERT_TRUE(s.apply(splitLine(s.results(), {s.plot, 2, 0, 0})));
    EXPECT_FALSE(s.line(s.plot).closed);
    EXPECT_EQ(s.document.all<objects::Line>().size(), 2U);
    EXPECT_THAT(s.line(s.plot).vertices.front().place, IsNear(90, 90, 0));
    EXPECT_THAT(s.line(s.plot).vertices.back().place, IsNear(90, 90, 0));
    EXPECT_NEAR(s.resolved(s.plot).length, 120, 1e-9);
}

TEST(SplitLine, IsRefusedAtAnEndAndAfterTheLineChanged) {
    PlaneSite s;
    EXPECT_FALSE(s.apply(splitLine(s.results(), {s.lane, 0, 0, 0})));
    EXPECT_FALSE(s.apply(splitLine(s.results(), {ObjectId{999}, 1, 0, 0})));
    const auto edit = splitLine(s.results(), {s.lane, 1, 0, 0});
    ASSERT_TRUE(s.apply(moveVertex(s.lane, 2, {40, 55})));
    EXPECT_FALSE(s.apply(edit));
    EXPECT_NE(s.said.find("changed meanwhile"), std::string::npos) << s.said;
}

TEST(JoinLines, MeetsWhicheverEndsAreNearest) {
    // A line from 41 51 onwards, drawn towards the lane or away from it, joined from either side.
    for (const bool towards : {false, true})
        for (const bool laneFirst : {false, true}) {
            PlaneSite s;
            ObjectId other;
            s.document = s.document.added(
                "Other",
                objects::Line{linework::lineThrough(towards ? places("80 51, 41 51") : places("41 51, 80 51"),
                                                    {11.0, 11.0})},
                &other);
            ASSERT_TRUE(s.apply(laneFirst ? joinLines(s.results(), s.lane, other)
                                          : joinLines(s.results(), other, s.lane)));
            const ObjectId kept = laneFirst ? s.lane : other;
            EXPECT_EQ(s.document.find(laneFirst ? other : s.lane), nullptr);
            const auto joined = s.resolved(kept);
            EXPECT_NEAR(joined.length, 70 + std::sqrt(2.0) + 39, 1e-9);
            for (const auto& v : joined.vertices)
                if (v.place == Vec2{40, 50}) EXPECT_NEAR(*v.height, 12, 1e-9);
        }
}

TEST(JoinLines, WhatStoodOnTheSecondStandsOnTheFirst) {
    PlaneSite s;
    ObjectId other;
    s.document =
        s.document.added("Other", objects::Line{linework::lineThrough(places("40 50, 80 50"), {})}, &other);
    ASSERT_TRUE(s.apply(makeLabel(other, std::nullopt, 0)));
    const ObjectId label = s.last<objects::Label>();
    const auto before = s.results()->labels.at(label)->above();
    ASSERT_TRUE(s.apply(joinLines(s.results(), s.lane, other)));
    EXPECT_EQ(s.document.get<objects::Label>(label)->target, s.lane);
    EXPECT_EQ(s.results()->labels.at(label)->above(), before);
}

TEST(JoinLines, IsRefusedForOneLineAClosedOneAndOneThatIsGone) {
    PlaneSite s;
    EXPECT_FALSE(s.apply(joinLines(s.results(), s.lane, s.lane)));
    EXPECT_FALSE(s.apply(joinLines(s.results(), s.lane, s.plot)));
    EXPECT_FALSE(s.apply(joinLines(s.results(), s.lane, ObjectId{999})));
}

TEST(DrapeLine, TakesTheHeightsOfThePlane) {
    PlaneSite s;
    ASSERT_TRUE(s.apply(drapeLine(s.results(), s.ground, s.lane)));
    for (const auto& v : s.resolved(s.lane).vertices)
        EXPECT_NEAR(*v.height, PlaneSite::height(v.place.x, v.place.y), 1e-9);
    // Between the vertices too: the plane has no edges a straight would miss.
    EXPECT_NEAR(*linework::heightAt(s.resolved(s.lane), 45), PlaneSite::height(40, 25), 1e-9);
}

TEST(DrapeLine, IsRefusedForASourceOfTheSurface) {
    PlaneSite s;
    s.document = test::afterEdit(s.document, addSource(s.ground, {s.lane, objects::Role::Breakline}));
    EXPECT_FALSE(s.apply(drapeLine(s.results(), s.ground, s.lane)));
    EXPECT_NE(s.said.find("circle"), std::string::npos);
    EXPECT_FALSE(s.apply(drapeLine(s.results(), s.lane, s.plot)));
}

TEST(ReverseLine, KeepsHeightsAndTheMeaningOfRules) {
    PlaneSite s;
    ASSERT_TRUE(s.apply(setTypedRule(s.lane, 1, "-3:1")));
    const auto before = heightsOf(s.resolved(s.lane));
    ASSERT_TRUE(s.apply(reverseLine(s.lane)));
    auto after = heightsOf(s.resolved(s.lane));
    std::reverse(after.begin(), after.end());
    for (std::size_t i = 0; i < before.size(); ++i) EXPECT_NEAR(*before[i], *after[i], 1e-9);
    EXPECT_EQ(ruleText(s.document, s.line(s.lane).vertices[1].rule), "to 3:1");
    ASSERT_TRUE(s.apply(reverseLine(s.lane)));
    EXPECT_EQ(ruleText(s.document, s.line(s.lane).vertices[1].rule), "-3:1");
}

TEST(CloseLine, NeedsThreeCornersAndAnOpenLine) {
    PlaneSite s;
    ASSERT_TRUE(s.apply(closeLine(s.lane)));
    EXPECT_NEAR(geometry::signedArea(s.resolved(s.lane).path), 30 * 40 / 2.0, 1e-9);
    EXPECT_FALSE(s.apply(closeLine(s.lane)));
    ASSERT_TRUE(s.apply(drawLine(linework::lineThrough(places("0 0, 1 1"), {}))));
    EXPECT_FALSE(s.apply(closeLine(s.last<objects::Line>())));
}

TEST(Vertices, AreInsertedOnceInAPlace) {
    PlaneSite s;
    ASSERT_TRUE(s.apply(insertCorner({s.lane, std::nullopt, 0, 0.5})));
    EXPECT_THAT(s.line(s.lane).vertices[1].place, IsNear(25, 10, 1e-12));
    EXPECT_FALSE(s.apply(insertCorner({s.lane, std::nullopt, 0, 0})));
    EXPECT_FALSE(s.apply(insertCorner({s.lane, std::nullopt, 9, 0.5})));
    ASSERT_TRUE(s.apply(insertGradePoint({s.lane, std::nullopt, 0, 0.5})));
    EXPECT_FALSE(s.apply(insertGradePoint({s.lane, std::nullopt, 0, 0.5})));
    EXPECT_EQ(s.line(s.lane).vertices.size(), 5U);
    EXPECT_EQ(s.resolved(s.lane).path.size(), 3U);
}

TEST(Vertices, AreRemovedDownToTwoCorners) {
    PlaneSite s;
    ASSERT_TRUE(s.apply(removeVertex(s.lane, 1)));
    EXPECT_NEAR(s.resolved(s.lane).length, 50, 1e-9);
    EXPECT_FALSE(s.apply(removeVertex(s.lane, 0)));
    EXPECT_FALSE(s.apply(removeVertex(s.lane, 7)));
}

TEST(Vertices, AGradePointMovesAlongItsSideOnly) {
    PlaneSite s;
    ASSERT_TRUE(s.apply(insertGradePoint({s.lane, std::nullopt, 1, 0.5})));
    ASSERT_TRUE(s.apply(moveVertex(s.lane, 2, {47, 20})));
    EXPECT_THAT(s.resolved(s.lane).vertices[2].place, IsNear(40, 20, 1e-9));
    ASSERT_TRUE(s.apply(moveGradePointTo(s.lane, 2, 60)));
    EXPECT_THAT(s.resolved(s.lane).vertices[2].place, IsNear(40, 40, 1e-9));
    EXPECT_NEAR(s.resolved(s.lane).length, 70, 1e-9);
    EXPECT_FALSE(s.apply(moveVertex(s.lane, 9, {0, 0})));
}

TEST(DrawLine, NamesCountOnAndBadLinesAreRefused) {
    PlaneSite s;
    ASSERT_TRUE(s.apply(drawLine(linework::lineThrough(places("0 0, 1 1"), {}))));
    ASSERT_TRUE(s.apply(drawLine(linework::lineThrough(places("2 0, 1 1"), {}))));
    EXPECT_TRUE(s.document.byName<objects::Line>("Line 1"));
    EXPECT_TRUE(s.document.byName<objects::Line>("Line 2"));
    EXPECT_FALSE(s.apply(drawLine(linework::lineThrough(places("0 0"), {}))));
}

TEST(ContinueLine, GoesOnFromEitherEndInTheDrawnDirection) {
    PlaneSite s;
    // From the end: 2 % over 10 gives 12.2.
    linework::LineVertex on;
    on.place = {40, 60};
    on.rule = test::valueOf(typedRule(s.document, "2%"));
    ASSERT_TRUE(s.apply(continueLine(s.lane, false, {on}, std::nullopt)));
    EXPECT_NEAR(*s.resolved(s.lane).vertices.back().height, 12.2, 1e-9);
    // From the start, outwards to 0 10: 2 % up from 10.3 over 10 gives 10.5.
    on.place = {0, 10};
    ASSERT_TRUE(s.apply(continueLine(s.lane, true, {on}, std::nullopt)));
    const auto r = s.resolved(s.lane);
    EXPECT_THAT(r.vertices.front().place, IsNear(0, 10, 0));
    EXPECT_NEAR(*r.vertices.front().height, 10.5, 1e-9);
    EXPECT_NEAR(r.length, 90, 1e-9);
    EXPECT_EQ(continued(s.line(s.lane), false, {}, std::nullopt), s.line(s.lane));
}

TEST(ContinueLine, IsRefusedWhenTheLineIsGoneOrClosed) {
    PlaneSite s;
    linework::LineVertex on;
    on.place = {0, 0};
    const auto edit = continueLine(s.plot, false, {on}, std::nullopt);
    EXPECT_FALSE(s.apply(edit));
    s.document = s.document.without(s.plot);
    EXPECT_FALSE(s.apply(edit));
}

TEST(TypedRule, KeepsWhatWasTyped) {
    PlaneSite s;
    for (const char* typed :
         {"2%", "3:1", "-3:1", "+0.15", "-0.15", "12.5", "=Ground", "=Ground+0.1", "to 2%", "to +0.15"}) {
        PlaneSite fresh;
        ASSERT_TRUE(fresh.apply(setTypedRule(fresh.lane, 1, typed))) << typed << ": " << fresh.said;
        EXPECT_EQ(ruleText(fresh.document, fresh.line(fresh.lane).vertices[1].rule), typed);
    }
    for (const char* typed : {"abc", "=Nowhere", "2%%", "0:1", "+", "to"})
        EXPECT_FALSE(s.apply(setTypedRule(s.lane, 1, typed))) << typed;
}

TEST(TypedRule, HasHeightsByItsMeaning) {
    struct Case {
        const char* typed;
        double height;
    };
    // The corner stands 30 after 10.3 and 40 before 12.
    for (const auto& [typed, height] :
         {Case{"2%", 10.9}, Case{"3:1", 20.3}, Case{"+0.15", 10.45}, Case{"=Ground+0.1", 11.0},
          Case{"to 2%", 11.2}, Case{"to +0.15", 11.85}, Case{"12.5", 12.5}}) {
        PlaneSite s;
        ASSERT_TRUE(s.apply(setTypedRule(s.lane, 1, typed)));
        EXPECT_NEAR(*s.resolved(s.lane).vertices[1].height, height, 1e-9) << typed;
    }
}

TEST(TypedRule, NothingStandsBeforeTheFirstOrAfterTheLast) {
    PlaneSite s;
    EXPECT_FALSE(s.apply(setTypedRule(s.lane, 0, "2%")));
    EXPECT_FALSE(s.apply(setTypedRule(s.lane, 2, "to 2%")));
    EXPECT_TRUE(s.apply(setTypedRule(s.lane, 0, "to 2%")));
    EXPECT_FALSE(s.apply(setTypedRule(s.lane, 9, "2%")));
}

TEST(ToNext, IsWhatLiesBetweenTwoControls) {
    // The lane: 30 east to an interpolated corner, 40 north; 10.3 to 12 are 1.7 over 70.
    PlaneSite s;
    const auto way = linework::toNext(s.line(s.lane), s.resolved(s.lane), 0);
    ASSERT_TRUE(way);
    EXPECT_EQ(way->next, 2U);
    EXPECT_NEAR(way->run, 70, 1e-9);
    EXPECT_NEAR(way->rise, 1.7, 1e-9);
    EXPECT_NEAR(way->grade().percent(), 170.0 / 70, 1e-9);
    EXPECT_FALSE(linework::toNext(s.line(s.lane), s.resolved(s.lane), 1));  // no control
    EXPECT_FALSE(linework::toNext(s.line(s.lane), s.resolved(s.lane), 2));  // the last
    EXPECT_FALSE(linework::toNext(s.line(s.plot), s.resolved(s.plot), 0));  // no heights
}

TEST(ToNext, GoesRoundAClosedLine) {
    PlaneSite s;
    ASSERT_TRUE(s.apply(setTypedRule(s.plot, 1, "100")));
    ASSERT_TRUE(s.apply(setTypedRule(s.plot, 3, "103")));
    const auto way = linework::toNext(s.line(s.plot), s.resolved(s.plot), 3);
    ASSERT_TRUE(way);
    EXPECT_EQ(way->next, 1U);
    EXPECT_NEAR(way->run, 60, 1e-9);
    EXPECT_NEAR(way->rise, -3, 1e-9);
}

TEST(TypedToNext, BecomesTheRuleOfTheNextControl) {
    PlaneSite s;
    ASSERT_TRUE(s.apply(setTypedToNext(s.lane, 0, ToNextFigure::Grade, "4")));
    // 70 at 4 % are 2.8; the corner between stays straight between the two: 30 of 70 of the way.
    EXPECT_NEAR(*s.resolved(s.lane).vertices[2].height, 10.3 + 2.8, 1e-9);
    EXPECT_NEAR(*s.resolved(s.lane).vertices[1].height, 10.3 + 1.2, 1e-9);
    ASSERT_TRUE(s.apply(setTypedToNext(s.lane, 0, ToNextFigure::Rise, "0.7")));
    EXPECT_NEAR(*s.resolved(s.lane).vertices[2].height, 11, 1e-9);
    ASSERT_TRUE(s.apply(setTypedToNext(s.lane, 0, ToNextFigure::Ratio, "-35")));
    EXPECT_NEAR(*s.resolved(s.lane).vertices[2].height, 8.3, 1e-9);
    EXPECT_EQ(ruleText(s.document, s.line(s.lane).vertices[2].rule), "-35:1");
    ASSERT_TRUE(s.apply(setTypedToNext(s.lane, 0, ToNextFigure::Rise, "1 in 7")));
    EXPECT_NEAR(*s.resolved(s.lane).vertices[2].height, 20.3, 1e-9);
    EXPECT_FALSE(s.apply(setTypedToNext(s.lane, 0, ToNextFigure::Grade, "steep")));
    EXPECT_FALSE(s.apply(setTypedToNext(s.lane, 0, ToNextFigure::Grade, "=Ground")));
    EXPECT_FALSE(s.apply(setTypedToNext(s.lane, 2, ToNextFigure::Grade, "4")));  // nothing after it
    EXPECT_FALSE(s.apply(setTypedToNext(ObjectId{999}, 0, ToNextFigure::Grade, "4")));
}

TEST(TypedToNext, ChangesTheOwnRuleOfAPointThatIsMeasuredFromTheNext) {
    PlaneSite s;
    ASSERT_TRUE(s.apply(setTypedRule(s.lane, 0, "to 1%")));
    ASSERT_TRUE(s.apply(setTypedToNext(s.lane, 0, ToNextFigure::Grade, "2")));
    EXPECT_EQ(ruleText(s.document, s.line(s.lane).vertices[0].rule), "to 2%");
    EXPECT_NEAR(*s.resolved(s.lane).vertices[0].height, 12 - 1.4, 1e-9);
    EXPECT_NEAR(*s.resolved(s.lane).vertices[2].height, 12, 1e-9);
}

}  // namespace
}  // namespace erdwerk::operations
