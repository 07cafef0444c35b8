#include "core/operations/labels.h"

#include <random>
#include <set>

#include "core/annotate/label.h"
#include "core/derive/parcel_result.h"
#include "core/derive/tags.h"
#include "core/objects/group.h"
#include "core/objects/label.h"
#include "core/objects/label_style.h"
#include "core/objects/line.h"
#include "core/objects/parcel.h"
#include "core/operations/plan_shape.h"
#include "core/operations/records.h"
#include "core/operations/routes.h"
#include "support/plane_site.h"

namespace erdwerk::operations {
namespace {

using annotate::LabelKind;
using geometry::Vec2;
using test::places;
using test::PlaneSite;
using testing::HasSubstr;

struct Labelled : PlaneSite {
    const objects::Label& label(ObjectId id) const { return *document.get<objects::Label>(id); }
    annotate::LabelText text(ObjectId id) const { return *results()->labels.at(id); }
    /// What it says, its lines with a bar between.
    std::string says(ObjectId id) const {
        std::string out;
        for (const auto& line : text(id).lines) out += (out.empty() ? "" : " | ") + line.text;
        return out;
    }
    ObjectId made(const Edit& edit) {
        EXPECT_TRUE(apply(edit)) << said;
        return last<objects::Label>();
    }
};

TEST(Labels, TakeTheStyleOfTheirKind) {
    Labelled s;
    linework::Line3D bend = linework::lineThrough(places("0 0, 20 0"), {});
    bend.vertices[0].through = Vec2{10, 10};
    ObjectId curve;
    s.document = s.document.added("Bend", objects::Line{bend}, &curve);
    ASSERT_TRUE(s.apply(makeLabel(s.lane, std::nullopt, 0)));
    ASSERT_TRUE(s.apply(makeLabel(curve, std::nullopt, 0)));
    ASSERT_TRUE(s.apply(makeLabel(s.points, 4, 0)));
    std::set<LabelKind> kinds;
    for (const ObjectId id : s.document.all<objects::Label>())
        kinds.insert(s.document.get<objects::LabelStyle>(s.label(id).style)->style.kind);
    EXPECT_EQ(kinds.size(), 3U);
    // Another label of a kind uses the style that is there.
    ASSERT_TRUE(s.apply(makeLabel(s.lane, std::nullopt, 1)));
    EXPECT_EQ(s.document.all<objects::LabelStyle>().size(), 3U);
    EXPECT_FALSE(s.apply(makeLabel(s.lane, std::nullopt, 9)));
    EXPECT_FALSE(s.apply(makeLabel(s.points, 99, 0)));
    EXPECT_FALSE(s.apply(makeLabel(s.ground, std::nullopt, 0)));
}

TEST(Labels, OfAlignmentsAndParcelsFollowTheirOwnPath) {
    Labelled s;
    ASSERT_TRUE(s.apply(makeAlignment(s.lane)));
    ASSERT_TRUE(s.apply(reverseAlignment(s.last<objects::Alignment>())));
    // Its first side is the line's second.
    const auto& label = s.label(s.made(makeLabel(s.last<objects::Alignment>(), std::nullopt, 0)));
    EXPECT_EQ(label.target, s.lane);
    EXPECT_EQ(label.part, 1U);
}

TEST(Labels, OfTheGroundSayWhatThePlaneIs) {
    // z = 10 + 0.02 x + 0.01 y: at (30, 40) 11; steepest 2.24 per cent, falling to 180 + atan(2) = 243.4
    // degrees.
    Labelled s;
    EXPECT_EQ(s.says(s.made(labelPlace(s.ground, LabelKind::Spot, {30, 40}))), "11.00");
    const ObjectId slope = s.made(labelPlace(s.ground, LabelKind::Slope, {30, 40}));
    EXPECT_EQ(s.says(slope), "2.2%");
    EXPECT_NEAR(s.text(slope).fall->degrees(), 243.4349488, 1e-6);
    // The contour of 11 runs through (0, 100), (50, 0); near (31, 39) it is the nearest of those every metre.
    const ObjectId contour = s.made(labelPlace(s.ground, LabelKind::Contour, {31, 39}));
    EXPECT_EQ(s.says(contour), "11.0");
    EXPECT_NEAR(PlaneSite::height(s.text(contour).place.x, s.text(contour).place.y), 11, 1e-9);
    // Moved away from the ground it says so, and comes back with it.
    s.document = document::changed<objects::Label>(s.document, slope, [](objects::Label& l) {
        l.at = {300, 0};
    });
    EXPECT_THAT(s.text(slope).problem, HasSubstr("off the surface"));
    EXPECT_FALSE(s.apply(labelPlace(s.lane, LabelKind::Spot, {0, 0})));
}

TEST(Labels, OfStationsStandOnTheirAlignment) {
    Labelled s;
    ASSERT_TRUE(s.apply(makeAlignment(s.lane)));  // 30 east, then 40 north
    const ObjectId lane = s.last<objects::Alignment>();
    const auto at = stationUnder(*s.results(), {}, {45, 25}, 0.01);
    ASSERT_TRUE(at);
    EXPECT_EQ(at->alignment, lane);
    EXPECT_NEAR(at->distance, 45, 1e-9);
    EXPECT_NEAR(at->offset, 5, 1e-9);
    const ObjectId label = s.made(labelStation(lane, at->distance, at->offset));
    EXPECT_EQ(s.says(label), "0+045.00 | 5.00 right");
    EXPECT_THAT(s.text(label).place, test::IsNear(45, 25, 1e-9));
    // It keeps its station when the line moves, and says so when the line no longer reaches it.
    s.document = document::changed<objects::Line>(s.document, s.lane, [](objects::Line& l) {
        for (auto& v : l.line.vertices) v.place = v.place + Vec2{100, 0};
    });
    EXPECT_THAT(s.text(label).place, test::IsNear(145, 25, 1e-9));
    s.document = document::changed<objects::Line>(s.document, s.lane, [](objects::Line& l) {
        l.line.vertices[2].place = {140, 12};
    });
    EXPECT_THAT(s.text(label).problem, HasSubstr("does not reach"));
}

TEST(Labels, OfControlsAndAreas) {
    Labelled s;
    const ObjectId control = s.made(labelControl(s.lane, 0));
    EXPECT_EQ(s.says(control), "10.30");
    EXPECT_FALSE(s.apply(labelControl(s.lane, 7)));
    ASSERT_TRUE(s.apply(makeParcel(s.plot)));
    const ObjectId area = s.made(labelArea(s.last<objects::Parcel>()));
    EXPECT_EQ(s.says(area), "Parcel 1 | 900.00 m²");
    EXPECT_THAT(s.text(area).place, test::IsNear(75, 75, 1));
    EXPECT_FALSE(s.apply(labelArea(s.lane)));
    // The parcel goes, and its label with it.
    s.document = s.document.without(s.last<objects::Parcel>());
    EXPECT_EQ(s.document.find(area), nullptr);
}

TEST(Labels, ManyAtOnceAndNoneTwice) {
    Labelled s;
    ASSERT_TRUE(s.apply(makeParcel(s.plot)));
    const ObjectId parcel = s.last<objects::Parcel>();
    ASSERT_TRUE(s.apply(makeLabel(s.plot, std::nullopt, 2)));
    EXPECT_EQ(countToLabel(s.document, {parcel}, {}), 4U);  // three sides and the area
    ASSERT_TRUE(s.apply(labelMany({parcel}, {})));
    EXPECT_EQ(s.document.all<objects::Label>().size(), 5U);
    EXPECT_FALSE(s.apply(labelMany({parcel}, {})));
    EXPECT_THAT(s.said, HasSubstr("nothing here that has no label"));
    // A group stands for its members; controls only where they are asked for.
    LabelMany controls;
    controls.controls = true;
    ASSERT_TRUE(s.apply(labelMany({s.group}, controls)));
    EXPECT_EQ(labelsOf(s.document, s.lane).size(),
              4U);  // two sides, two controls: the middle is interpolated
    // A window takes what has its middle in there: of 5 points one, of the plot nothing.
    LabelMany window;
    window.within = geometry::Box{40, 40, 60, 60};
    EXPECT_EQ(countToLabel(s.document, {s.points, s.plot}, window), 1U);
}

TEST(Labels, AnewTheyFitWhatTheirSidesBecame) {
    Labelled s;
    ASSERT_TRUE(s.apply(labelMany({s.lane}, {})));
    const auto before = labelsOf(s.document, s.lane);
    EXPECT_FALSE(s.apply(relabel({s.lane})));
    ASSERT_TRUE(s.apply(changeLabelByHand(before[1], [](annotate::LabelStyle& st) { st.height = 4; })));
    s.document = document::changed<objects::Line>(s.document, s.lane, [](objects::Line& l) {
        l.line.vertices[0].through = Vec2{25, 5};
    });
    EXPECT_EQ(s.text(before[0]).kind, LabelKind::Segment);
    ASSERT_TRUE(s.apply(relabel({s.lane})));
    EXPECT_EQ(s.text(before[0]).kind, LabelKind::Curve);
    EXPECT_THAT(s.says(before[0]), HasSubstr("R "));
    EXPECT_EQ(s.text(before[1]).height, 4);
    EXPECT_THAT(s.said, HasSubstr("1 label that was changed by hand stayed"));
}

TEST(Labels, ChangedByHandTheyKeepThatAndTheOthersFollowTheStyle) {
    Labelled s;
    ASSERT_TRUE(s.apply(labelMany({s.lane}, {})));
    const auto labels = labelsOf(s.document, s.lane);
    const ObjectId style = s.label(labels[0]).style;
    ASSERT_TRUE(s.apply(changeLabelByHand(
        labels[0], [](annotate::LabelStyle& st) { st.lines[1].fields[0].prefix = "L = "; })));
    ASSERT_TRUE(s.apply(typeLabelWords(labels[1], "by {distance}")));
    ASSERT_TRUE(s.apply(
        changeLabelStyle(style, [](annotate::LabelStyle& st) { st.lines[1].fields[0].decimals = 1; })));
    EXPECT_EQ(s.says(labels[0]), "due East | L = 30.00");
    EXPECT_EQ(s.says(labels[1]), "by 40.0");
    EXPECT_TRUE(s.label(labels[0]).byHand());
    ASSERT_TRUE(s.apply(labelAsStyled(labels[0])));
    EXPECT_EQ(s.says(labels[0]), "due East | 30.0");
    EXPECT_FALSE(s.label(labels[0]).byHand());
    // Nothing that cannot be is kept.
    const auto before = s.document;
    EXPECT_FALSE(s.apply(changeLabelStyle(style, [](annotate::LabelStyle& st) { st.height = -1; })));
    EXPECT_FALSE(s.apply(typeLabelWords(labels[1], "{radius}")));
    EXPECT_FALSE(s.apply(changeLabelStyle(s.lane, [](annotate::LabelStyle&) {})));
    EXPECT_TRUE(document::difference(before, s.document).empty());
}

TEST(Labels, MovedByHandTheyGoAlongWithWhatTheyAreAbout) {
    Labelled s;
    const ObjectId label = s.made(makeLabel(s.lane, std::nullopt, 0));  // its middle is (25, 10)
    ASSERT_TRUE(s.apply(dragLabel(label, {35, 0})));
    EXPECT_THAT(*s.text(label).byHand, test::IsNear(35, 0, 1e-9));
    s.document = document::changed<objects::Line>(s.document, s.lane, [](objects::Line& l) {
        for (auto& v : l.line.vertices) v.place = v.place + Vec2{7, 3};
    });
    EXPECT_THAT(*s.text(label).byHand, test::IsNear(42, 3, 1e-9));
    // A contour's goes to the contour that is nearest there.
    const ObjectId contour = s.made(labelPlace(s.ground, LabelKind::Contour, {31, 39}));
    ASSERT_TRUE(s.apply(dragLabel(contour, {80, 81})));
    EXPECT_FALSE(s.text(contour).byHand);
    EXPECT_EQ(s.says(contour), "12.0");
}

TEST(Labels, AStyleIsOnlyForItsKind) {
    Labelled s;
    const ObjectId side = s.made(makeLabel(s.lane, std::nullopt, 0));
    const ObjectId point = s.made(makeLabel(s.points, 0, 0));
    ASSERT_TRUE(s.apply(newLabelStyle(LabelKind::Segment)));
    const ObjectId style = s.last<objects::LabelStyle>();
    ASSERT_TRUE(s.apply(setLabelStyle({side, point}, style)));
    EXPECT_EQ(s.label(side).style, style);
    EXPECT_NE(s.label(point).style, style);
    EXPECT_FALSE(s.apply(setLabelStyle({point}, style)));
    EXPECT_THAT(s.said, HasSubstr("a style for a segment"));
    ASSERT_TRUE(s.apply(addLabelStyles()));
    const auto count = s.document.all<objects::LabelStyle>().size();
    ASSERT_TRUE(s.apply(addLabelStyles()));
    EXPECT_EQ(s.document.all<objects::LabelStyle>().size(), count);
}

TEST(Tags, AreThoseOfTheCoursesAndCountOn) {
    Labelled s;
    ASSERT_TRUE(s.apply(labelMany({s.lane}, {})));
    ASSERT_TRUE(s.apply(makeParcel(s.plot)));
    const ObjectId parcel = s.last<objects::Parcel>();
    s.document = document::changed<objects::Parcel>(s.document, parcel, [](objects::Parcel& p) {
        p.begin = 1;
        p.reversed = true;
    });
    LabelMany sides;
    sides.areas = false;
    ASSERT_TRUE(s.apply(labelMany({parcel}, sides)));
    const auto results = s.results();
    const auto tags = derive::tagsOf(*results);
    ASSERT_EQ(tags.size(), 6U);
    std::set<std::string> names;
    for (const auto& [label, tag] : tags) {
        names.insert(tag);
        if (s.label(label).target != s.plot) continue;
        // The course of that name has the ends of the side.
        const auto& result = *results->parcels.at(parcel);
        const auto& side = results->lines.at(s.plot)->path[s.label(label).part];
        bool found = false;
        for (std::size_t i = 0; i < result.table.size(); ++i)
            if (result.table[i].name == tag) {
                const auto& course = result.geometry.courses[i];
                found = geometry::distance(course.start, side.end) < 1e-9 &&
                        geometry::distance(course.end, side.start) < 1e-9;
            }
        EXPECT_TRUE(found) << tag;
    }
    EXPECT_EQ(names, (std::set<std::string>{"L1", "L2", "L3", "L4", "L5", "L6"}));
}

}  // namespace
}  // namespace erdwerk::operations
