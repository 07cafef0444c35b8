// Sheets and frames on a plane: what edits make of them.

#include "core/operations/sheets.h"

#include <gmock/gmock.h>
#include <gtest/gtest.h>

#include <nlohmann/json.hpp>

#include "core/check/all_checks.h"
#include "core/format/import.h"
#include "core/format/object_json.h"
#include "core/objects/artwork.h"
#include "core/objects/group.h"
#include "core/objects/line.h"
#include "core/operations/objects.h"
#include "core/operations/surfaces.h"
#include "core/operations/tables.h"
#include "support/after_edit.h"
#include "support/mended.h"
#include "support/paper_site.h"

namespace erdwerk::operations {
namespace {

using geometry::Vec2;
using paper::Room;
using test::kindsOf;
using test::PaperSite;
using testing::ElementsAre;
using testing::HasSubstr;

TEST(NewSheet, ShowsAParcelOnlyWhenItIsGivenOne) {
    PaperSite s;
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
    PaperSite s;
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
            PaperSite s;
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
    PaperSite s;
    for (const char* kind :
         {"plan", "profile", "section", "description", "legend", "key-plan", "scale", "title-block", "notes"})
        EXPECT_TRUE(s.apply(addFrame(s.sheet, {*objects::frameContent(kind), {}, {50, 50}, 90})))
            << kind << ": " << s.said;
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
    PaperSite s;
    EXPECT_FALSE(s.apply(addFrame(s.sheet, {objects::TableFrame{}, {}, {}, 0})));
    EXPECT_THAT(s.said, HasSubstr("no table yet"));
    EXPECT_FALSE(s.apply(addFrame(s.sheet, {objects::PictureFrame{}, {}, {}, 0})));
    EXPECT_FALSE(objects::frameContent("photograph"));
    EXPECT_THAT(s.said, HasSubstr("no picture yet"));
    EXPECT_FALSE(s.apply(addFrame(s.lane, {objects::PlanFrame{}, {}, {}, 0})));
    // A parcel is a table of its courses.
    EXPECT_TRUE(s.apply(addFrame(s.sheet, {objects::TableFrame{}, s.parcel, {}, 0})));
    EXPECT_EQ(s.content<TableFrame>(0).of, s.parcel);
}

TEST(Frames, AreMovedAndSizedOnThePaperOnly) {
    PaperSite s;
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
    PaperSite s;
    s.addPlan();
    ASSERT_TRUE(s.apply(addFrame(s.sheet, {objects::NotesFrame{}, {}, {}, 0})));
    ASSERT_TRUE(s.apply(addFrame(s.sheet, {objects::LegendFrame{}, {}, {}, 0})));
    ASSERT_TRUE(s.apply(setFrameOrder(s.sheet, 0, true)));
    EXPECT_THAT(kindsOf(s.now()), ElementsAre("notes", "legend", "plan"));
    ASSERT_TRUE(s.apply(setFrameOrder(s.sheet, 1, false)));
    EXPECT_THAT(kindsOf(s.now()), ElementsAre("legend", "notes", "plan"));
    ASSERT_TRUE(s.apply(removeFrame(s.sheet, 1)));
    EXPECT_THAT(kindsOf(s.now()), ElementsAre("legend", "plan"));
}

TEST(Frames, SettingsThatMakeNoSenseAreRefused) {
    PaperSite s;
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
    PaperSite s;
    s.addPlan();
    ASSERT_TRUE(s.apply(addFrame(s.sheet, {objects::ProfileFrame{}, {}, {}, 0})));
    ASSERT_TRUE(s.apply(addFrame(s.sheet, {objects::DescriptionFrame{}, {}, {}, 0})));
    ASSERT_TRUE(s.apply(layAlong(s.results(), s.sheet, 0, s.alignment)));
    s.document = s.document.without(s.profile);
    EXPECT_THAT(kindsOf(s.now()), ElementsAre("plan", "description"));
    s.document = s.document.without(s.alignment);
    EXPECT_FALSE(s.content<PlanFrame>(0).along);
}

TEST(Frames, OffThePaperAreAFindingThatBringsThemBack) {
    PaperSite s;
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
    s.document = test::mended(findings[0].fixes.at(0), s.document);
    EXPECT_EQ(s.frame(0).room, (Room{97, 60, 200, 150}));
    EXPECT_TRUE(found().empty());
}

TEST(MoveInFrame, TheGroundGoesWithTheHandAlsoInATurnedPlan) {
    PaperSite s;
    s.addPlan();
    const auto centre = [&] { return s.content<PlanFrame>(0).centre; };
    // 1:500: ten millimetres are five metres. What is shown goes right and down, the middle left and up.
    ASSERT_TRUE(s.apply(moveInFrame(s.sheet, 0, 10, 4)));
    EXPECT_THAT(centre(), test::IsNear(45, 52, 1e-9));
    ASSERT_TRUE(s.apply(moveInFrame(s.sheet, 0, -10, -4)));
    // East is up: right on paper is south.
    ASSERT_TRUE(s.apply(changeFrame<PlanFrame>(s.sheet, 0, [](PlanFrame& f) { f.up = Angle::degrees(90); })));
    ASSERT_TRUE(s.apply(moveInFrame(s.sheet, 0, 10, 4)));
    EXPECT_THAT(centre(), test::IsNear(52, 55, 1e-9));
    ASSERT_TRUE(s.apply(layAlong(s.results(), s.sheet, 0, s.alignment)));
    EXPECT_FALSE(s.apply(moveInFrame(s.sheet, 0, 10, 4)));
    EXPECT_THAT(s.said, HasSubstr("follows"));
    ASSERT_TRUE(s.apply(addFrame(s.sheet, {objects::NotesFrame{}, {}, {}, 0})));
    EXPECT_FALSE(s.apply(moveInFrame(s.sheet, 1, 10, 4)));
}

TEST(TablesOnSheets, ArePutThereOnceAndTakenAway) {
    PaperSite s;
    ASSERT_TRUE(s.apply(newTable(TableSort::Areas, {})));
    const ObjectId table = s.last<Table>();
    EXPECT_FALSE(isOnSheet(s.now(), table));
    ASSERT_TRUE(s.apply(setTableOnSheet(table, s.sheet, true)));
    EXPECT_TRUE(isOnSheet(s.now(), table));
    ASSERT_TRUE(s.apply(setTableOnSheet(table, s.sheet, false)));
    EXPECT_TRUE(s.now().frames.empty());
}

TEST(DamagedSheets, AreRefusedWithAWord) {
    PaperSite s;
    s.addPlan();
    ASSERT_TRUE(s.apply(addFrame(s.sheet, {objects::SectionsFrame{}, {}, {}, 0})));
    ASSERT_TRUE(s.apply(addFrame(s.sheet, {objects::NotesFrame{}, {}, {}, 0})));
    const auto whole = format::toJson(*s.document.find(s.sheet));
    ASSERT_TRUE(format::objectFromJson(whole));
    const auto refused = [&](const char* pointer, const nlohmann::json& value, const char* word) {
        auto bad = whole;
        bad[nlohmann::json::json_pointer(pointer)] = value;
        const auto read = format::objectFromJson(bad);
        EXPECT_FALSE(read) << pointer;
        if (!read) EXPECT_THAT(read.error().message(), HasSubstr(word)) << pointer;
    };
    refused("/frames/0/kind", "window", "window");
    refused("/frames/0/scale", 0, "scale of a plan");
    refused("/frames/0/scale", "500", "damaged");
    refused("/frames/0/room/2", 1, "no room");
    refused("/frames/0/room/0", nullptr, "damaged");
    refused("/frames/1/interval", -20, "interval");
    refused("/frames/1/reach", 0, "reach");
    refused("/frames/2/letters", 0, "letters");
    refused("/frames/2/text", 7, "damaged");
    refused("/size/0", -420, "paper");
    refused("/size/1", 9000, "5 m");
    refused("/weights/3", 0, "weight");
    refused("/fields", nlohmann::json{{"title", 7}}, "damaged");
    refused("/frames", "none", "damaged");
}

TEST(Artworks, AreSvgPngOrJpegAndReplaceTheOneOfTheirName) {
    PaperSite s;
    const auto own = artworkFrom("<svg width=\"80mm\" height=\"30mm\"><text>{client}</text></svg>");
    ASSERT_TRUE(own);
    ASSERT_TRUE(s.apply(putArtwork("Office", *own)));
    const ObjectId id = s.last<Artwork>();
    ASSERT_TRUE(s.apply(addFrame(s.sheet, {objects::TitleFrame{}, id, {}, 0})));
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
    PaperSite s;
    ASSERT_TRUE(s.apply(putArtwork("Office", *artworkFrom("<svg width=\"80mm\" height=\"30mm\"><desc>" +
                                                          std::string(5000, 'x') + "</desc></svg>"))));
    const ObjectId id = s.last<Artwork>();
    const auto before = s.document.find(id);
    s.document = test::afterEdit(s.document, rename(id, "Head office"));
    const auto& now = *s.document.find(id);
    const auto change = format::toJson(now, {}, before.get());
    EXPECT_LT(change.dump().size(), 200U);
    const auto back = format::objectFromJson(change, {}, before.get());
    ASSERT_TRUE(back) << back.error().message();
    EXPECT_EQ(*back->payload.as<Artwork>(), *now.payload.as<Artwork>());
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
    const auto& sheet = *object->payload.as<Sheet>();
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
