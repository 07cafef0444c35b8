// Sheets and frames on a plane: what edits make of them, and where plans lie.

#include "core/operations/sheets.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <nlohmann/json.hpp>

#include "core/check/finding.h"
#include "core/format/object_json.h"
#include "core/operations/groups.h"
#include "core/operations/records.h"
#include "core/operations/tables.h"
#include "core/paper/title_block.h"
#include "support/plane_site.h"

namespace erdwerk::operations {
namespace {

using geometry::Vec2;
using paper::Room;
using test::PlaneSite;
using testing::ElementsAre;
using testing::HasSubstr;

/// With a parcel, an alignment (70 long, a right angle at 30), a profile and an empty A3 sheet.
struct Sheets : PlaneSite {
    ObjectId parcel;
    ObjectId alignment;
    ObjectId profile;
    ObjectId sheet;
    Sheets() {
        EXPECT_TRUE(apply(makeParcel(plot)));
        parcel = last<Parcel>();
        EXPECT_TRUE(apply(makeAlignment(lane)));
        alignment = last<Alignment>();
        EXPECT_TRUE(apply(newProfile(alignment, ground)));
        profile = last<Profile>();
        document = document.added("S", Sheet{}, &sheet);
    }
    [[nodiscard]] const Sheet& now() const { return *document.get<Sheet>(sheet); }
    [[nodiscard]] const Frame& frame(std::size_t i) const { return now().frames.at(i); }
    template <class F>
    [[nodiscard]] const F& content(std::size_t i) const {
        return std::get<F>(frame(i).content);
    }
    void addPlan() { EXPECT_TRUE(apply(addFrame(sheet, {"plan", {}, {50, 50}, 90}))); }
};

std::vector<std::string> kindsOf(const Sheet& sheet) {
    std::vector<std::string> out;
    for (const Frame& frame : sheet.frames) out.emplace_back(frameKind(frame.content));
    return out;
}

TEST(NewSheet, ShowsAParcelOnlyWhenItIsGivenOne) {
    Sheets s;
    ASSERT_TRUE(s.apply(newSheet({{420, 297}, {50, 50}, 150, {}, "2026-12-01"})));
    EXPECT_THAT(kindsOf(*s.document.get<Sheet>(s.last<Sheet>())),
                ElementsAre("plan", "scale", "table", "title-block"));
    ASSERT_TRUE(s.apply(newSheet({{420, 297}, {50, 50}, 150, s.parcel, "2026-12-01"})));
    const auto& with = *s.document.get<Sheet>(s.last<Sheet>());
    EXPECT_THAT(kindsOf(with), ElementsAre("plan", "scale", "table", "table", "description", "title-block"));
    EXPECT_EQ(with.fields.at("title"), "Plan of Parcel 1");
    EXPECT_EQ(with.fields.at("date"), "2026-12-01");
}

TEST(NewSheet, TakesTheNextRoundScaleThatFits) {
    Sheets s;
    const auto scaleFor = [&](double width) {
        EXPECT_TRUE(s.apply(newSheet({{420, 297}, {50, 50}, width, {}, ""})));
        return std::get<PlanFrame>(s.document.get<Sheet>(s.last<Sheet>())->frames[0].content).scale;
    };
    // The plan of A3 is 308 mm wide: 150 m need 1:487, so 1:500; 155 m need 1:503, so 1:1000.
    EXPECT_EQ(scaleFor(150), 500);
    EXPECT_EQ(scaleFor(155), 1000);
}

TEST(NewSheet, ItsFramesLieOnThePaperAndOffEachOther) {
    for (const auto& size : paperSizes())
        for (const bool upright : {false, true}) {
            Sheets s;
            const std::array paper =
                upright ? std::array{size.height, size.width} : std::array{size.width, size.height};
            ASSERT_TRUE(s.apply(newSheet({paper, {50, 50}, 150, s.parcel, ""}))) << size.name;
            const auto& sheet = *s.document.get<Sheet>(s.last<Sheet>());
            for (std::size_t i = 0; i < sheet.frames.size(); ++i) {
                EXPECT_TRUE(paper::isWithin(sheet.frames[i].room, innerRoom(sheet))) << size.name << " " << i;
                for (std::size_t k = 0; k < i; ++k)
                    EXPECT_FALSE(paper::overlap(sheet.frames[i].room, sheet.frames[k].room))
                        << size.name << " " << i << " " << k;
            }
        }
}

TEST(Frames, AreAddedWhereThereIsRoomAndOfWhatThereIs) {
    Sheets s;
    for (const char* kind :
         {"plan", "profile", "section", "description", "legend", "key-plan", "scale", "title-block", "notes"})
        EXPECT_TRUE(s.apply(addFrame(s.sheet, {kind, {}, {50, 50}, 90}))) << kind << ": " << s.said;
    EXPECT_EQ(s.content<PlanFrame>(0).centre, (Vec2{50, 50}));
    // 90 m on 200 mm: 1:450, so 1:500.
    EXPECT_EQ(s.content<PlanFrame>(0).scale, 500);
    EXPECT_EQ(s.content<ProfileFrame>(1).profile, s.profile);
    EXPECT_EQ(s.content<SectionsFrame>(2).alignment, s.alignment);
    EXPECT_EQ(s.content<DescriptionFrame>(3).parcel, s.parcel);
    for (const Frame& frame : s.now().frames) EXPECT_TRUE(paper::isWithin(frame.room, paperRoom(s.now())));
    EXPECT_FALSE(paper::overlap(s.frame(0).room, s.frame(1).room));
}

TEST(Frames, OfWhatIsNotThereAreRefusedWithWhy) {
    Sheets s;
    EXPECT_FALSE(s.apply(addFrame(s.sheet, {"table", {}, {}, 0})));
    EXPECT_THAT(s.said, HasSubstr("no table yet"));
    EXPECT_FALSE(s.apply(addFrame(s.sheet, {"picture", {}, {}, 0})));
    EXPECT_FALSE(s.apply(addFrame(s.sheet, {"photograph", {}, {}, 0})));
    EXPECT_THAT(s.said, HasSubstr("photograph"));
    EXPECT_FALSE(s.apply(addFrame(s.lane, {"plan", {}, {}, 0})));
    // A parcel is a table of its courses.
    EXPECT_TRUE(s.apply(addFrame(s.sheet, {"table", s.parcel, {}, 0})));
    EXPECT_EQ(s.content<TableFrame>(0).of, s.parcel);
}

TEST(Frames, AreMovedAndSizedOnThePaperOnly) {
    Sheets s;
    s.addPlan();
    ASSERT_TRUE(s.apply(setRoom(s.sheet, 0, {10.5, 20, 200, 150})));
    EXPECT_EQ(s.frame(0).room, (Room{10.5, 20, 200, 150}));
    for (const Room bad : {Room{-1, 20, 200, 150}, Room{300, 20, 200, 150}, Room{10, 20, 4, 150},
                           Room{10, 20, 200, std::nan("")}, Room{10, std::nan(""), 20, 20}})
        EXPECT_FALSE(s.apply(setRoom(s.sheet, 0, bad)));
    EXPECT_EQ(s.frame(0).room, (Room{10.5, 20, 200, 150}));
    EXPECT_FALSE(s.apply(setRoom(s.sheet, 7, {10, 20, 200, 150})));
    EXPECT_THAT(s.said, HasSubstr("gone"));
}

TEST(Frames, LieOverEachOtherInTheirOrder) {
    Sheets s;
    s.addPlan();
    ASSERT_TRUE(s.apply(addFrame(s.sheet, {"notes", {}, {}, 0})));
    ASSERT_TRUE(s.apply(addFrame(s.sheet, {"legend", {}, {}, 0})));
    ASSERT_TRUE(s.apply(setFrameOrder(s.sheet, 0, true)));
    EXPECT_THAT(kindsOf(s.now()), ElementsAre("notes", "legend", "plan"));
    ASSERT_TRUE(s.apply(setFrameOrder(s.sheet, 1, false)));
    EXPECT_THAT(kindsOf(s.now()), ElementsAre("legend", "notes", "plan"));
    ASSERT_TRUE(s.apply(removeFrame(s.sheet, 1)));
    EXPECT_THAT(kindsOf(s.now()), ElementsAre("legend", "plan"));
}

TEST(Frames, SettingsThatMakeNoSenseAreRefused) {
    Sheets s;
    s.addPlan();
    const auto scale = [](double v) { return [v](PlanFrame& f) { f.scale = v; }; };
    EXPECT_TRUE(s.apply(changeFrame<PlanFrame>(s.sheet, 0, scale(250))));
    for (const double bad : {0.0, -5.0, std::nan(""), 1e9})
        EXPECT_FALSE(s.apply(changeFrame<PlanFrame>(s.sheet, 0, scale(bad)))) << bad;
    EXPECT_EQ(s.content<PlanFrame>(0).scale, 250);
    EXPECT_FALSE(s.apply(changeFrame<NotesFrame>(s.sheet, 0, [](NotesFrame& f) { f.text = "x"; })));
    EXPECT_THAT(s.said, HasSubstr("another one"));
    EXPECT_FALSE(s.apply(setPaper(s.sheet, {20, 297})));
    EXPECT_FALSE(s.apply(setPaper(s.sheet, {420, 9000})));
    EXPECT_FALSE(s.apply(setWeight(s.sheet, &LineWeights::ground, 0)));
    EXPECT_TRUE(s.apply(setWeight(s.sheet, &LineWeights::ground, 0.13)));
    EXPECT_EQ(s.now().weights.ground, 0.13);
}

TEST(Frames, OfWhatIsDeletedGoWithIt) {
    Sheets s;
    s.addPlan();
    ASSERT_TRUE(s.apply(addFrame(s.sheet, {"profile", {}, {}, 0})));
    ASSERT_TRUE(s.apply(addFrame(s.sheet, {"description", {}, {}, 0})));
    ASSERT_TRUE(s.apply(layAlong(s.results(), s.sheet, 0, s.alignment)));
    s.document = s.document.without(s.profile);
    EXPECT_THAT(kindsOf(s.now()), ElementsAre("plan", "description"));
    s.document = s.document.without(s.alignment);
    EXPECT_FALSE(s.content<PlanFrame>(0).along);
}

TEST(Frames, OffThePaperAreAFindingThatBringsThemBack) {
    Sheets s;
    s.addPlan();
    ASSERT_TRUE(s.apply(setRoom(s.sheet, 0, {200, 100, 200, 150})));
    const auto found = [&] {
        std::vector<check::Finding> out;
        check::sheets(*s.results(), out);
        return out;
    };
    EXPECT_TRUE(found().empty());
    ASSERT_TRUE(s.apply(setPaper(s.sheet, {297, 210})));
    auto findings = found();
    ASSERT_EQ(findings.size(), 1U);
    EXPECT_EQ(findings[0].kind, "frame-off-paper");
    EXPECT_THAT(findings[0].text, HasSubstr("297 x 210 mm"));
    s.document = findings[0].fixes.at(0).apply(s.document);
    EXPECT_EQ(s.frame(0).room, (Room{97, 60, 200, 150}));
    EXPECT_TRUE(found().empty());
}

TEST(PlanOnPaper, AtATrueScaleHasItsCornersOnTheGround) {
    Sheets s;
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
    Sheets s;
    auto settings = s.document.settings();
    settings.display.unit = LengthUnit::InternationalFoot;
    s.document = s.document.withSettings(settings);
    const auto plan = planOnPaper(*s.results(), {{100, 200}, 500, {}, {}, 0, 0, {}}, {8, 8, 308, 281});
    EXPECT_NEAR(geometry::distance(plan.corners[0], plan.corners[1]), 154 / 0.3048, 1e-9);
}

TEST(PlanOnPaper, AlongAnAlignmentFollowsItAndKeepsItsPlaceWhenItLetsGo) {
    Sheets s;
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

TEST(SheetsAlong, FollowEachOtherWithMatchLinesThatNameTheNext) {
    Sheets s;
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
    Sheets s;
    EXPECT_FALSE(s.apply(sheetsAlong(s.results(), {s.lane, {}, 500, {420, 297}, ""})));
    EXPECT_FALSE(s.apply(sheetsAlong(s.results(), {s.alignment, {}, 0, {420, 297}, ""})));
    EXPECT_FALSE(s.apply(sheetsAlong(s.results(), {s.alignment, {}, 1, {100, 100}, ""})));
    EXPECT_THAT(s.said, HasSubstr("500 sheets"));
    EXPECT_TRUE(s.apply(sheetsAlong(s.results(), {s.alignment, {}, 500, {420, 297}, ""})));
    EXPECT_THAT(kindsOf(*s.document.get<Sheet>(s.last<Sheet>())), testing::Not(testing::Contains("profile")));
}

TEST(ShownInFrame, GroupsAreTheScreensUntilTheFrameHasItsOwn) {
    Sheets s;
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
    Sheets s;
    s.addPlan();
    ASSERT_TRUE(s.apply(addFrame(s.sheet, {"title-block", {}, {}, 0})));
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
    ASSERT_TRUE(s.apply(addFrame(s.sheet, {"section", {}, {}, 0})));
    EXPECT_EQ(titleValues(s.document, s.sheet)["scale"], "1 : 500, 1 : 200");
}

TEST(Artworks, AreSvgPngOrJpegAndReplaceTheOneOfTheirName) {
    Sheets s;
    const auto own = artworkFrom("<svg width=\"80mm\" height=\"30mm\"><text>{client}</text></svg>");
    ASSERT_TRUE(own);
    ASSERT_TRUE(s.apply(putArtwork("Office", *own)));
    const ObjectId id = s.last<Artwork>();
    ASSERT_TRUE(s.apply(addFrame(s.sheet, {"title-block", id, {}, 0})));
    EXPECT_THAT(typedFields(s.document, s.now()), ElementsAre("client"));
    ASSERT_TRUE(s.apply(
        putArtwork("Office", *artworkFrom("<svg width=\"80mm\" height=\"30mm\"><text>{job}</text></svg>"))));
    EXPECT_EQ(s.document.all<Artwork>().size(), 1U);
    EXPECT_THAT(typedFields(s.document, s.now()), ElementsAre("job"));
    EXPECT_EQ(artworkFrom("\x89PNG\r\n\x1a\n rest")->format, ArtworkFormat::Png);
    EXPECT_EQ(artworkFrom("\xFF\xD8\xFF\xE0 rest")->format, ArtworkFormat::Jpeg);
    EXPECT_FALSE(artworkFrom("number,easting\n"));
    EXPECT_FALSE(artworkFrom(std::string(largestArtwork + 1, ' ')));
    // The frame goes with its picture; of the sheet nothing else.
    s.document = s.document.without(id);
    EXPECT_TRUE(s.now().frames.empty());
}

TEST(Artworks, AreNotWrittenAgainWhenOnlyTheirNameChanges) {
    Sheets s;
    ASSERT_TRUE(s.apply(putArtwork("Office", *artworkFrom("<svg width=\"80mm\" height=\"30mm\"><desc>" +
                                                          std::string(5000, 'x') + "</desc></svg>"))));
    const ObjectId id = s.last<Artwork>();
    const auto before = s.document.find(id);
    s.document = rename(s.document, id, "Head office");
    const auto& now = *s.document.find(id);
    const auto change = format::toJson(now, {}, before.get());
    EXPECT_LT(change.dump().size(), 200U);
    const auto back = format::objectFromJson(change, {}, before.get());
    ASSERT_TRUE(back) << back.error().message();
    EXPECT_EQ(std::get<Artwork>(back->payload), std::get<Artwork>(now.payload));
    // Without what it shares it is refused, not made up.
    EXPECT_FALSE(format::objectFromJson(change));
}

TEST(FirstSheets, OfOlderProjectsBecomeFrames) {
    const auto object =
        format::objectFromJson(nlohmann::json::parse(R"({"id": 7, "name": "Old", "kind": "sheet", "group": 0,
        "paper": "A3", "scale": 250, "centre": [48100, 91080], "parcel": 3, "project": "Quillmoor Observatory",
        "title": "Plan", "drawnBy": "A. N.", "date": "2026-11-25", "off": ["contours"], "tables": [5], "profile": 9,
        "sections": [0, 20, 10]})"));
    ASSERT_TRUE(object) << object.error().message();
    const auto& sheet = std::get<Sheet>(object->payload);
    EXPECT_THAT(kindsOf(sheet), ElementsAre("plan", "profile", "scale", "table", "table", "table",
                                            "description", "title-block"));
    const auto& plan = std::get<PlanFrame>(sheet.frames[0].content);
    EXPECT_EQ(plan.scale, 250);
    EXPECT_EQ(plan.centre, (Vec2{48100, 91080}));
    EXPECT_EQ(plan.shown.off, PlanPartsOff{PlanPart::Contours});
    EXPECT_EQ(sheet.fields.at("drawnBy"), "A. N.");
}

}  // namespace
}  // namespace erdwerk::operations
