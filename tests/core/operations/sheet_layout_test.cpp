// Where plans lie on sheets, what they show, and what title blocks say.

#include "core/operations/sheet_layout.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include "core/format/import.h"
#include "core/objects/group.h"
#include "core/objects/line.h"
#include "core/operations/surfaces.h"
#include "core/survey/points.h"
#include "support/paper_site.h"

namespace erdwerk::operations {
namespace {

using geometry::Vec2;
using paper::Room;
using test::kindsOf;
using test::PaperSite;
using testing::ElementsAre;
using testing::HasSubstr;

TEST(PlanOnPaper, AtATrueScaleHasItsCornersOnTheGround) {
    PaperSite s;
    const PlanFrame north{{100, 200}, 500, {}, {}, 0, 0, {}};
    // 308 by 281 mm at 1:500 are 154 by 140.5 m.
    const auto plan = planOnPaper(*s.results(), north, {8, 8, 308, 281});
    EXPECT_THAT(plan.corners[0], test::IsNear(100 - 77, 200 + 70.25, 1e-9));
    EXPECT_THAT(plan.corners[2], test::IsNear(100 + 77, 200 - 70.25, 1e-9));
    // With east up, what was right is south.
    const PlanFrame east{{100, 200}, 500, Angle::degrees(90), {}, 0, 0, {}};
    const auto turned = planOnPaper(*s.results(), east, {8, 8, 308, 281});
    EXPECT_THAT(turned.corners[0], test::IsNear(100 + 70.25, 200 + 77, 1e-9));
    EXPECT_THAT(turned.corners[1], test::IsNear(100 + 70.25, 200 - 77, 1e-9));
}

TEST(PlanOnPaper, InFeetHasTheSameMillimetres) {
    PaperSite s;
    auto settings = s.document.settings();
    settings.display.unit = LengthUnit::InternationalFoot;
    s.document = s.document.withSettings(settings);
    const auto plan = planOnPaper(*s.results(), {{100, 200}, 500, {}, {}, 0, 0, {}}, {8, 8, 308, 281});
    EXPECT_NEAR(geometry::distance(plan.corners[0], plan.corners[1]), 154 / 0.3048, 1e-9);
}

TEST(PlanOnPaper, AlongAnAlignmentFollowsItAndKeepsItsPlaceWhenItLetsGo) {
    PaperSite s;
    s.addPlan();
    ASSERT_TRUE(s.apply(layAlong(s.results(), s.sheet, 0, s.alignment)));
    EXPECT_EQ(s.content<PlanFrame>(0).to, 70);
    // The first 30 run east along northing 10.
    ASSERT_TRUE(s.apply(changeFrame<PlanFrame>(s.sheet, 0, [](PlanFrame& f) { f.to = 30; })));
    const auto lies = [&] { return planOnPaper(*s.results(), s.content<PlanFrame>(0), s.frame(0).room); };
    EXPECT_THAT(lies().centre, test::IsNear(25, 10, 1e-9));
    EXPECT_NEAR(lies().up.signedTurn().degrees(), 0, 1e-9);
    // The line is moved: the plan goes along.
    s.document = document::changed<Line>(s.document, s.lane, [](Line& l) {
        l.line.vertices[0].place.y += 30;
        l.line.vertices[1].place.y += 30;
    });
    EXPECT_THAT(lies().centre, test::IsNear(25, 40, 1e-9));
    ASSERT_TRUE(s.apply(layAlong(s.results(), s.sheet, 0, {})));
    EXPECT_THAT(lies().centre, test::IsNear(25, 40, 1e-9));
    EXPECT_TRUE(lies().matchLines.empty());
}

TEST(PlanOnPaper, AnAlignmentThatBecameShorterGoesOnNowhere) {
    PaperSite s;
    s.addPlan();
    ASSERT_TRUE(s.apply(layAlong(s.results(), s.sheet, 0, s.alignment)));
    const auto lines = [&](double from, double to) {
        EXPECT_TRUE(s.apply(changeFrame<PlanFrame>(s.sheet, 0, [&](PlanFrame& f) {
            f.from = from;
            f.to = to;
        })));
        return planOnPaper(*s.results(), s.content<PlanFrame>(0), s.frame(0).room).matchLines.size();
    };
    EXPECT_EQ(lines(0, 70), 0U);
    EXPECT_EQ(lines(20, 50), 2U);
    EXPECT_EQ(lines(20, 90), 1U);
    EXPECT_EQ(lines(80, 90), 0U);
}

TEST(PlanOnPaper, AMatchLineStandsAcrossTheAlignmentAndSaysItsStation) {
    PaperSite s;
    s.addPlan();
    ASSERT_TRUE(s.apply(layAlong(s.results(), s.sheet, 0, s.alignment)));
    ASSERT_TRUE(s.apply(changeFrame<PlanFrame>(s.sheet, 0, [](PlanFrame& f) { f.to = 20; })));
    const auto plan = planOnPaper(*s.results(), s.content<PlanFrame>(0), s.frame(0).room);
    ASSERT_EQ(plan.matchLines.size(), 1U);
    const auto& line = plan.matchLines[0];
    // 20 along the first side from 10 10 to the east.
    EXPECT_THAT(line.at, test::IsNear(30, 10, 1e-9));
    EXPECT_TRUE(line.ahead);
    EXPECT_NEAR(line.station, 20, 1e-9);
    EXPECT_NEAR(line.left.x, 30, 1e-9);
    EXPECT_GT(line.left.y, 10);
    EXPECT_LT(line.right.y, 10);
}

TEST(FrameNames, AreNumberedWhereThereAreSeveralAndSayWhatTheyShow) {
    PaperSite s;
    s.addPlan();
    ASSERT_TRUE(s.apply(addFrame(s.sheet, {objects::KeyPlanFrame{}, {}, {}, 0})));
    ASSERT_TRUE(s.apply(addFrame(s.sheet, {objects::TableFrame{}, s.parcel, {}, 0})));
    ASSERT_TRUE(s.apply(addFrame(s.sheet, {objects::ProfileFrame{}, {}, {}, 0})));
    EXPECT_EQ(frameName(s.now(), 0), "Plan");
    EXPECT_EQ(frameTitle(s.document, s.now(), 1), "Key plan");
    EXPECT_EQ(frameTitle(s.document, s.now(), 2), "Table: courses of Parcel 1");
    EXPECT_EQ(frameTitle(s.document, s.now(), 3), "Profile: " + s.document.nameOf(s.profile));
    s.addPlan();
    EXPECT_EQ(frameName(s.now(), 0), "Plan 1");
    EXPECT_EQ(frameName(s.now(), 4), "Plan 2");
}

TEST(PaperSizes, HaveTheNamesOfTheirStandardEitherWay) {
    EXPECT_EQ(paperName({420, 297}), "A3");
    EXPECT_EQ(paperName({297, 420}), "A3 upright");
    EXPECT_EQ(paperName({1189, 841}), "A0");
    EXPECT_EQ(paperName({500, 300.5}), "500 x 300.5");
}

TEST(SheetsAlong, FollowEachOtherWithMatchLinesThatNameTheNext) {
    PaperSite s;
    // 4 m of ground on each metre of paper: 70 m take several sheets of A4 at 1:50.
    ASSERT_TRUE(s.apply(sheetsAlong(s.results(), {s.alignment, s.profile, 50, {297, 210}, "2026-12-01"})))
        << s.said;
    std::vector<ObjectId> made;
    for (const ObjectId id : s.document.all<Sheet>())
        if (id != s.sheet) made.push_back(id);
    ASSERT_GE(made.size(), 5U);
    double at = 0;
    for (std::size_t i = 0; i < made.size(); ++i) {
        const auto& sheet = *s.document.get<Sheet>(made[i]);
        const auto& plan = std::get<PlanFrame>(sheet.frames[0].content);
        EXPECT_EQ(plan.from, at);
        at = plan.to;
        EXPECT_EQ(std::get<ProfileFrame>(sheet.frames[1].content).from, plan.from);
        EXPECT_EQ(std::get<ProfileFrame>(sheet.frames[1].content).to, plan.to);
        EXPECT_LT(sheet.frames[0].room.bottom(), sheet.frames[1].room.bottom());
        const auto lines = planOnPaper(*s.results(), plan, sheet.frames[0].room).matchLines;
        const bool first = i == 0;
        const bool last = i + 1 == made.size();
        ASSERT_EQ(lines.size(), first || last ? 1U : 2U) << i;
        if (!first) EXPECT_EQ(lines.front().sheet, s.document.nameOf(made[i - 1]));
        if (!last) EXPECT_EQ(lines.back().sheet, s.document.nameOf(made[i + 1]));
        if (!last) EXPECT_NEAR(lines.back().station, plan.to, 1e-9);
    }
    EXPECT_NEAR(at, 70, 1e-9);
    // A sheet that goes is named no more.
    s.document = s.document.without(made[1]);
    const auto& frame = s.document.get<Sheet>(made[0])->frames[0];
    EXPECT_EQ(
        planOnPaper(*s.results(), std::get<PlanFrame>(frame.content), frame.room).matchLines.back().sheet,
        "");
}

TEST(SheetsAlong, WhatCannotBeIsSaid) {
    PaperSite s;
    EXPECT_FALSE(s.apply(sheetsAlong(s.results(), {s.lane, {}, 500, {420, 297}, ""})));
    EXPECT_FALSE(s.apply(sheetsAlong(s.results(), {s.alignment, {}, 0, {420, 297}, ""})));
    EXPECT_FALSE(s.apply(sheetsAlong(s.results(), {s.alignment, {}, 1, {100, 100}, ""})));
    EXPECT_THAT(s.said, HasSubstr("500 sheets"));
    EXPECT_TRUE(s.apply(sheetsAlong(s.results(), {s.alignment, {}, 500, {420, 297}, ""})));
    EXPECT_THAT(kindsOf(*s.document.get<Sheet>(s.last<Sheet>())), testing::Not(testing::Contains("profile")));
}

TEST(ShownInFrame, GroupsAreTheScreensUntilTheFrameHasItsOwn) {
    PaperSite s;
    s.addPlan();
    const auto shows = [&](ObjectId id) {
        return shownInFrame(s.document, s.content<PlanFrame>(0).shown, *s.document.find(id));
    };
    EXPECT_TRUE(shows(s.lane));
    auto hidden = s.document.shown();
    hidden.hidden = {s.plot};
    s.document = s.document.withShown(hidden);
    EXPECT_FALSE(shows(s.plot));
    ASSERT_TRUE(s.apply(setFrameShows(s.sheet, 0, s.group, false)));
    EXPECT_FALSE(shows(s.lane));
    EXPECT_FALSE(shows(s.plot));
    // From now on the screen is another matter.
    s.document = s.document.withShown({});
    EXPECT_FALSE(shows(s.plot));
    ASSERT_TRUE(s.apply(setFrameShows(s.sheet, 0, s.plot, true)));
    EXPECT_TRUE(shows(s.plot));
    ASSERT_TRUE(s.apply(showAsOnScreen(s.sheet, 0)));
    EXPECT_TRUE(shows(s.lane));
    ASSERT_TRUE(s.apply(setFramePart(s.sheet, 0, PlanPart::Contours, false)));
    EXPECT_TRUE(s.content<PlanFrame>(0).shown.off.contains(PlanPart::Contours));
}

TEST(TitleValues, AreTypedAndComputed) {
    PaperSite s;
    s.addPlan();
    ASSERT_TRUE(s.apply(addFrame(s.sheet, {objects::TitleFrame{}, {}, {}, 0})));
    EXPECT_THAT(typedFields(s.document, s.now()),
                ElementsAre("project", "title", "drawnBy", "date", "status"));
    ASSERT_TRUE(s.apply(setField(s.sheet, "drawnBy", "A. N.")));
    ASSERT_TRUE(s.apply(copySheet(s.sheet)));
    auto values = titleValues(s.document, s.last<Sheet>());
    EXPECT_EQ(values["drawnBy"], "A. N.");
    EXPECT_EQ(values["number"], "2");
    EXPECT_EQ(values["of"], "2");
    EXPECT_EQ(values["scale"], "1 : 500");
    EXPECT_EQ(values["unit"], "m");
    ASSERT_TRUE(s.apply(addFrame(s.sheet, {objects::SectionsFrame{}, {}, {}, 0})));
    EXPECT_EQ(titleValues(s.document, s.sheet)["scale"], "1 : 500, 1 : 200");
}

}  // namespace
}  // namespace erdwerk::operations
