// Designs as people type and drag them, and the lines that follow them.

#include "core/check/finding.h"
#include "core/derive/earthwork_result.h"
#include "core/derive/line_result.h"
#include "core/derive/route_result.h"
#include "core/objects/alignment.h"
#include "core/objects/group.h"
#include "core/objects/line.h"
#include "core/objects/marking.h"
#include "core/objects/profile.h"
#include "core/objects/section.h"
#include "core/operations/derived_lines.h"
#include "core/operations/earthworks.h"
#include "core/operations/markings.h"
#include "core/operations/objects.h"
#include "core/operations/records.h"
#include "core/operations/routes.h"
#include "core/operations/rules.h"
#include "core/operations/surfaces.h"
#include "support/plane_site.h"

namespace erdwerk::operations {
namespace {

using test::IsNear;
using test::PlaneSite;
using testing::HasSubstr;

/// A straight axis over the plane, a design of four PVIs.
struct Designed : PlaneSite {
    ObjectId axis;
    ObjectId profile;

    Designed() {
        objects::Alignment made;
        made.pis = {{{5, 50}}, {{95, 50}}};
        EXPECT_TRUE(apply(addAlignment("Axis", made)));
        axis = last<objects::Alignment>();
        EXPECT_TRUE(apply(newProfile(axis, ground)));
        profile = last<objects::Profile>();
        set({{0, 11}, {30, 12.5}, {60, 12.5}, {90, 11.9}});
    }
    void set(std::vector<route::Pvi> pvis) {
        document = document::changed<objects::Profile>(
            document, profile, [&](objects::Profile& p) { p.design = std::move(pvis); });
    }
    [[nodiscard]] const std::vector<route::Pvi>& pvis() const {
        return document.get<objects::Profile>(profile)->design;
    }
    std::string type(std::size_t pvi, PviFigure figure, const std::string& text) {
        return apply(typePvi(profile, pvi, figure, text)) ? "done" : said;
    }
};

TEST(Design, GradesAreLockedTypedAndSetFree) {
    Designed s;
    EXPECT_EQ(s.type(1, PviFigure::GradeIn, "4% locked"), "done");
    EXPECT_TRUE(s.pvis()[0].locked);
    EXPECT_NEAR(s.pvis()[1].height, 12.2, 1e-12);
    ASSERT_TRUE(s.apply(movePvi(s.profile, 1, 40, 99)));
    EXPECT_NEAR(s.pvis()[1].height, 12.6, 1e-12);
    EXPECT_EQ(s.type(1, PviFigure::GradeIn, "free"), "done");
    EXPECT_FALSE(s.pvis()[0].locked);
    EXPECT_NEAR(s.pvis()[1].height, 12.6, 1e-12);
    ASSERT_TRUE(s.apply(lockGrade(s.profile, 2, true)));
    EXPECT_TRUE(s.pvis()[2].locked);
    EXPECT_FALSE(s.apply(lockGrade(s.profile, 3, true)));
    EXPECT_EQ(s.type(0, PviFigure::GradeIn, "2%"), "the first PVI has no grade in");
    EXPECT_THAT(s.type(1, PviFigure::GradeIn, "steep"), HasSubstr("steep"));
}

TEST(Design, ATypedGradeBeforeALockedOneMovesThePviToWhereTheyMeet) {
    Designed s;
    ASSERT_TRUE(s.apply(lockGrade(s.profile, 1, true)));  // level from 30 to 60 at 12.5
    EXPECT_EQ(s.type(1, PviFigure::GradeIn, "6%"), "done");
    EXPECT_NEAR(s.pvis()[1].station, 25, 1e-9);
    EXPECT_NEAR(s.pvis()[1].height, 12.5, 1e-9);
    const auto before = s.pvis();
    EXPECT_THAT(s.type(1, PviFigure::GradeIn, "1%"), HasSubstr("between its neighbours"));
    EXPECT_EQ(s.pvis(), before);
    // A typed height takes what hangs on it along; a station slides.
    EXPECT_EQ(s.type(1, PviFigure::Height, "13"), "done");
    EXPECT_NEAR(s.pvis()[2].height, 13, 1e-12);
    EXPECT_EQ(s.type(1, PviFigure::Station, "35"), "done");
    EXPECT_NEAR(s.pvis()[1].height, 13, 1e-12);
    ASSERT_TRUE(s.apply(lockGrade(s.profile, 0, true)));
    EXPECT_THAT(s.type(1, PviFigure::Station, "36"), HasSubstr("set one of them free"));
}

TEST(Design, ACurveRunsThroughATypedPlace) {
    Designed s;
    // 5 % into level at 30: L such that 0.2 below the PVI's height at 30: A L / 8 = 0.2.
    EXPECT_EQ(s.type(1, PviFigure::CurveLength, "through 0+030 12.3"), "done");
    EXPECT_NEAR(s.pvis()[1].curveLength, 8 * 0.2 / 0.05, 1e-9);
    EXPECT_THAT(s.type(1, PviFigure::CurveLength, "through 0+030 12.9"), HasSubstr("no curve"));
    EXPECT_THAT(s.type(1, PviFigure::CurveLength, "through 30"), HasSubstr("write the place"));
    EXPECT_THAT(s.type(1, PviFigure::CurveLength, "long"), HasSubstr("is no curve"));
    EXPECT_THAT(s.type(0, PviFigure::CurveLength, "through 0+030 12.3"), HasSubstr("have no curve"));
}

TEST(Design, AStretchFollowsTheGroundAndItsChanges) {
    Designed s;
    EXPECT_EQ(s.type(2, PviFigure::GradeIn, "=+0.25"), "done");
    EXPECT_EQ(s.pvis()[1].onGround, 0.25);
    const auto laid = s.results()->profiles.at(s.profile)->laid;
    // The plane along y = 50: 10.5 + 0.02 x.
    EXPECT_NEAR(route::designAt(laid, 45)->height, PlaneSite::height(50, 50) + 0.25, 2e-3);
    ASSERT_TRUE(s.apply(setTypedHeight(s.results(), {s.points, 4}, "+1")));  // the middle of the plane
    const auto higher = s.results()->profiles.at(s.profile)->laid;
    EXPECT_NEAR(route::designAt(higher, 45)->height, PlaneSite::height(50, 50) + 1.25, 2e-3);
    EXPECT_FALSE(s.apply(lockGrade(s.profile, 1, true)));
    EXPECT_THAT(s.said, HasSubstr("follows the ground"));
    EXPECT_EQ(s.type(2, PviFigure::GradeIn, "0%"), "done");
    EXPECT_FALSE(s.pvis()[1].onGround);
    EXPECT_THAT(s.type(2, PviFigure::GradeIn, "=+up"), HasSubstr("no amount"));
}

TEST(Design, GivesLinesThatFollowItAtAnOffsetAndCrossfall) {
    Designed s;
    ASSERT_TRUE(s.apply(lineOfDesign(s.results(), s.profile, "0", true))) << s.said;
    const ObjectId middle = s.last<objects::Line>();
    EXPECT_EQ(s.document.nameOf(middle), "Profile 1 line 1");
    ASSERT_TRUE(s.apply(linesBesideDesign(s.results(), s.profile, "3,-2.5%"))) << s.said;
    const auto all = s.document.all<objects::Line>();
    const ObjectId left = all[all.size() - 2];
    const ObjectId right = all.back();
    const auto check = [&](double station) {
        const auto design = route::designAt(s.pvis(), station);
        for (const auto& [id, offset] : {std::pair{middle, 0.0}, {left, 3.0}, {right, -3.0}}) {
            const auto line = s.resolved(id);
            const auto near = *geometry::nearestOn(line.path, {5 + station, 50 + offset});
            EXPECT_NEAR(near.distance, 0, 1e-9);
            EXPECT_NEAR(*linework::heightAt(line, distanceAlong(line.path, near)),
                        design->height - 0.025 * std::abs(offset), 1e-6)
                << s.document.nameOf(id) << " at " << station;
        }
    };
    for (const double station : {0.0, 17.0, 45.0, 90.0}) check(station);
    ASSERT_EQ(s.type(1, PviFigure::CurveLength, "40"), "done");
    ASSERT_TRUE(s.apply(movePvi(s.profile, 2, 62, 14)));
    for (const double station : {5.0, 62.0, 80.0}) check(station);
    // In plan too.
    ASSERT_TRUE(s.apply(movePi(s.axis, 1, {95, 60})));
    const auto axis = *s.results()->alignments.at(s.axis);
    const auto place = placeAt(axis, 45, 3);
    EXPECT_NEAR(geometry::nearestOn(s.resolved(right).path, place)->distance, 0, 1e-9);
    // Typed anew, and changing along it.
    ASSERT_TRUE(s.apply(setTypedRow(right, "2@0 5@40,-2.5%"))) << s.said;
    EXPECT_NEAR(geometry::nearestOn(s.resolved(right).path, placeAt(axis, 20, 3.5))->distance, 0, 0.02);
    EXPECT_FALSE(s.apply(setTypedRow(right, "3,=")));
    EXPECT_THAT(s.said, HasSubstr("from the design"));
}

TEST(Design, LinesOfItCarryBreaklinesAndBatters) {
    Designed s;
    ASSERT_TRUE(s.apply(linesBesideDesign(s.results(), s.profile, "3,-2%")));
    const ObjectId right = s.last<objects::Line>();
    objects::Earthwork batter;
    batter.edge = right;
    batter.ground = s.ground;
    batter.right = true;
    ASSERT_TRUE(s.apply(addEarthwork(batter))) << s.said;
    const auto before = *s.results()->earthworks.begin()->second;
    EXPECT_TRUE(before.problem.empty()) << before.problem;
    ASSERT_TRUE(s.apply(raisePviStretch(s.profile, 1, 1.5)));
    const auto after = *s.results()->earthworks.begin()->second;
    EXPECT_GT(after.batter.planArea, before.batter.planArea);
}

TEST(Design, ALineThatItsOwnGroundIsMadeOfIsACircle) {
    Designed s;
    ASSERT_EQ(s.type(2, PviFigure::GradeIn, "="), "done");
    ASSERT_TRUE(s.apply(lineOfDesign(s.results(), s.profile, "0", true)));
    const ObjectId line = s.last<objects::Line>();
    ASSERT_TRUE(s.apply(addRole(s.ground, line, objects::Role::Breakline)));
    const auto derived = s.results();
    EXPECT_FALSE(derived->followed.at(line)->problem.empty());
    bool found = false;
    for (const auto& f : check::run(*derived))
        found = found || std::find(f.objects.begin(), f.objects.end(), line) != f.objects.end();
    EXPECT_TRUE(found);
    // Without following the ground there is none.
    ASSERT_EQ(s.type(2, PviFigure::GradeIn, "1%"), "done");
    EXPECT_TRUE(s.results()->followed.at(line)->problem.empty());
}

TEST(Design, AnAlignmentOnALineOfItsOwnDesignIsACircle) {
    PlaneSite s;
    ASSERT_TRUE(s.apply(makeAlignment(s.lane)));
    const ObjectId axis = s.last<objects::Alignment>();
    ASSERT_TRUE(s.apply(newProfile(axis, s.ground)));
    const ObjectId profile = s.last<objects::Profile>();
    ASSERT_TRUE(s.apply(addPvi(s.results(), profile)));
    ASSERT_TRUE(s.apply(lineOfDesign(s.results(), profile, "0", true)));
    const ObjectId line = s.last<objects::Line>();
    s.document = document::changed<objects::Alignment>(s.document, axis,
                                                       [&](objects::Alignment& a) { a.line = line; });
    EXPECT_FALSE(s.results()->followed.at(line)->problem.empty());
}

TEST(Design, LinesOfAProfileThatGoesAreLoosened) {
    Designed s;
    ASSERT_TRUE(s.apply(lineOfDesign(s.results(), s.profile, "0", true)));
    const ObjectId line = s.last<objects::Line>();
    const auto was = s.resolved(line);
    derive::Model model;
    (void)test::valueOf(model.evaluate(s.document));
    ASSERT_TRUE(s.apply(remove({s.profile}, {})));
    const auto derived = std::make_shared<const Derived>(test::valueOf(model.evaluate(s.document)));
    EXPECT_THAT(derived->followed.at(line)->problem, HasSubstr("no longer there"));
    ASSERT_TRUE(s.apply(loosen(derived, {line}))) << s.said;
    EXPECT_FALSE(s.document.get<objects::Line>(line)->follows);
}

TEST(Design, GroundComesFromLinesThatCrossTheAxis) {
    Designed s;
    ObjectId first;
    ObjectId second;
    s.document = s.document.added(
        "a", objects::Line{linework::lineThrough(test::places("15 0, 15 100"), {20.0, 30.0})}, &first);
    s.document = s.document.added(
        "b", objects::Line{linework::lineThrough(test::places("55 40, 65 60"), {8.0, 10.0})}, &second);
    s.document = document::changed<objects::Profile>(s.document, s.profile, [&](objects::Profile& p) {
        p.across = {first, second};
    });
    const auto profile = s.results()->profiles.at(s.profile);
    ASSERT_EQ(profile->ground.size(), 2U);
    EXPECT_NEAR(profile->ground[0].station, 10, 1e-9);
    EXPECT_NEAR(*profile->ground[0].height, 25, 1e-9);
    EXPECT_NEAR(profile->ground[1].station, 55, 1e-9);
    EXPECT_NEAR(*profile->ground[1].height, 9, 1e-9);
    s.document = s.document.without(first).without(second);
    EXPECT_TRUE(s.document.get<objects::Profile>(s.profile)->across.empty());
}

TEST(Design, ASectionThatIsKeptIsCutAnewWithItsGround) {
    PlaneSite s;
    objects::Section section;
    section.along = s.lane;
    ObjectId id;
    s.document = s.document.added("Cut", section, &id);
    const auto result = s.results()->sections.at(id);
    ASSERT_EQ(result->surfaces, std::vector{s.ground});
    EXPECT_NEAR(result->rows.back().station, 70, 1e-9);
    for (const auto& row : result->rows)
        EXPECT_NEAR(*row.heights[0], PlaneSite::height(row.place.x, row.place.y), 1e-9);
    ASSERT_TRUE(s.apply(setTypedHeight(s.results(), {s.points, 0}, "+2")));
    EXPECT_GT(*s.results()->sections.at(id)->rows.front().heights[0], *result->rows.front().heights[0]);
    section.off = {s.ground};
    s.document = s.document.withPayload(id, section);
    EXPECT_TRUE(s.results()->sections.at(id)->surfaces.empty());
    ASSERT_TRUE(s.apply(remove({s.lane}, {})));
    EXPECT_FALSE(s.document.find(id));
    objects::Section none;
    s.document = s.document.added("None", none, &id);
    EXPECT_FALSE(s.results()->sections.at(id)->problem.empty());
}

TEST(Markings, AreMadeOnTheAlignmentAndSharedByName) {
    Designed s;
    const auto& axis = *s.document.get<objects::Alignment>(s.axis);
    EXPECT_EQ(markingOf(s.document, axis).small, 20);
    EXPECT_EQ(markingOf(s.document, axis).large, 100);
    const auto small = [](double v) {
        return [v](route::MarkingSettings& m) -> Result<void> {
            m.small = v;
            return {};
        };
    };
    ASSERT_TRUE(s.apply(changeMarking(s.axis, small(10))));
    const ObjectId marking = s.document.get<objects::Alignment>(s.axis)->marking;
    EXPECT_EQ(s.document.nameOf(marking), "Marking of Axis 1");
    // Changed on either, for all that have it.
    ASSERT_TRUE(s.apply(changeMarking(s.axis, small(5))));
    EXPECT_EQ(s.document.get<objects::Marking>(marking)->marking.small, 5);
    ASSERT_TRUE(s.apply(changeOwnMarking(marking, small(25))));
    EXPECT_EQ(markingOf(s.document, *s.document.get<objects::Alignment>(s.axis)).small, 25);
    EXPECT_FALSE(s.apply(changeMarking(s.axis, small(-1))));
    EXPECT_FALSE(s.apply(saveMarking(" ", {}, s.axis)));
    ASSERT_TRUE(s.apply(saveMarking("Lane", {}, s.axis)));
    EXPECT_EQ(s.document.nameOf(s.document.get<objects::Alignment>(s.axis)->marking), "Lane");
    ASSERT_TRUE(s.apply(remove({s.document.get<objects::Alignment>(s.axis)->marking}, {})));
    EXPECT_FALSE(s.document.get<objects::Alignment>(s.axis)->marking);
}

TEST(Routes, ACurveIsPutIntoAJointAndBentByItsMiddle) {
    PlaneSite s;
    objects::Alignment made;
    made.pis = {{{0, 0}}, {{50, 0}}, {{50, 50}}};
    ASSERT_TRUE(s.apply(addAlignment("Way", made)));
    const ObjectId way = s.last<objects::Alignment>();
    ASSERT_TRUE(s.apply(typeCurveAt(way, 0, "20"))) << s.said;
    EXPECT_NEAR((*pisOf(s.document, way))[1].radius, 20, 1e-9);
    // E = R (sqrt 2 - 1) from the PI towards the inside.
    const double half = std::sqrt(0.5);
    const double e = 30 * (std::sqrt(2.0) - 1);
    ASSERT_TRUE(s.apply(bendCurve(way, 1, {50 - e * half, e * half})));
    EXPECT_NEAR((*pisOf(s.document, way))[1].radius, 30, 1e-9);
    EXPECT_FALSE(s.apply(bendCurve(way, 1, {60, -10})));
    EXPECT_FALSE(s.apply(typeCurveAt(way, 0, "wide")));
    EXPECT_FALSE(s.apply(typeCurveAt(way, 0, "20")));  // tangent already
    EXPECT_THAT(s.said, HasSubstr("tangent already"));
    // Turned round, joints are counted from the other end.
    made.pis = {{{0, 0}}, {{50, 0}}, {{50, 50}}, {{100, 50}}};
    made.reversed = true;
    ASSERT_TRUE(s.apply(addAlignment("Back", made)));
    const ObjectId back = s.last<objects::Alignment>();
    ASSERT_TRUE(s.apply(insertCurve(back, 0, 15)));
    EXPECT_NEAR((*pisOf(s.document, back))[2].radius, 15, 1e-9);
    EXPECT_EQ((*pisOf(s.document, back))[1].radius, 0);
}

TEST(Routes, SourceLinesArePutAwayIntoAGroupThatIsOff) {
    PlaneSite s;
    FromLines options;
    options.sources = SourceLines::PutAway;
    ASSERT_TRUE(s.apply(alignmentFromLines(s.results(), {s.lane}, options))) << s.said;
    const auto group = s.document.byName<objects::Group>("Sources");
    ASSERT_TRUE(group);
    EXPECT_EQ(s.document.find(s.lane)->group, group);
    EXPECT_TRUE(s.document.hidden(*s.document.find(s.lane)));
    EXPECT_FALSE(s.document.hidden(*s.document.find(s.last<objects::Alignment>())));
}

TEST(Routes, AProfileThroughPointsHasAnAxisOfItsOwn) {
    PlaneSite s;
    objects::Alignment axis;
    axis.serves = "baseline";
    axis.pis = {{{10, 10}}, {{90, 20}}, {{80, 90}}};
    ASSERT_TRUE(s.apply(profileThrough(s.results(), axis))) << s.said;
    const auto& profile = *s.document.get<objects::Profile>(s.last<objects::Profile>());
    EXPECT_EQ(profile.ground, s.ground);
    const auto result = s.results()->profiles.at(s.last<objects::Profile>());
    EXPECT_NEAR(*result->ground.front().height, PlaneSite::height(10, 10), 1e-9);
    EXPECT_NEAR(*result->ground.back().height, PlaneSite::height(80, 90), 1e-9);
}

}  // namespace
}  // namespace erdwerk::operations
