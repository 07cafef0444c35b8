#include <nlohmann/json.hpp>

#include "core/operations/stationed_points.h"

#include "core/check/finding.h"
#include "core/format/object_json.h"
#include "core/objects/alignment.h"
#include "core/objects/group.h"
#include "core/objects/line.h"
#include "core/objects/points.h"
#include "core/objects/profile.h"
#include "core/operations/objects.h"
#include "core/operations/plan_move.h"
#include "core/operations/points.h"
#include "core/operations/records.h"
#include "core/operations/routes.h"
#include "support/after_edit.h"
#include "support/mended.h"
#include "support/plane_site.h"

namespace erdwerk::operations {
namespace {

using test::IsNear;
using test::PlaneSite;
using testing::HasSubstr;

/// Points at both sides of an alignment on the plane, which begins at station 100.
struct Stakes : PlaneSite {
    ObjectId axis;
    ObjectId set;

    explicit Stakes(StationTies ties = StationTies::Tied) {
        objects::Alignment made;
        made.startStation = 100;
        made.pis = {{{10, 50}}, {{50, 50}}, {{50, 90}}};
        EXPECT_TRUE(apply(addAlignment("Axis", made)));
        axis = last<objects::Alignment>();
        EXPECT_TRUE(apply(pointsByStation(results(), axis, "Stakes",
                                          {{"L1", 110, -3, 11.0, "kerb", 2},
                                           {"L2", 130, -3, 11.5, "kerb", 3},
                                           {"R1", 110, 4, {}, "edge", 4},
                                           {"R2", 130, 4, 12.0, "edge", 5}},
                                          ties)))
            << said;
        set = last<objects::Points>();
    }
    [[nodiscard]] const objects::Points& stakes() const { return *document.get<objects::Points>(set); }
    [[nodiscard]] geometry::Vec2 at(std::size_t i) const { return stakes().set[i].plan; }
};

TEST(StationedPoints, GoAlongWithTheirAlignment) {
    Stakes s;
    EXPECT_THAT(s.at(0), IsNear(20, 53, 1e-12));
    EXPECT_THAT(s.at(3), IsNear(40, 46, 1e-12));
    ASSERT_TRUE(s.apply(movePi(s.axis, 0, {10, 60})));
    ASSERT_TRUE(s.apply(movePi(s.axis, 1, {50, 60})));
    EXPECT_THAT(s.at(0), IsNear(20, 63, 1e-12));
    ASSERT_TRUE(s.apply(typeStart(s.axis, "90")));
    EXPECT_THAT(s.at(0), IsNear(30, 63, 1e-12));
    // Turned round, right is on the other side; the way back from the far end is 30 + 40 long.
    ASSERT_TRUE(s.apply(typeStart(s.axis, "100")));
    ASSERT_TRUE(s.apply(reverseAlignment(s.axis)));
    EXPECT_THAT(s.at(0), IsNear(53, 80, 1e-9));
    EXPECT_EQ(s.stakes().tie->points[0].station, 110);
}

TEST(StationedPoints, FollowAnAlignmentThatFollowsALine) {
    PlaneSite site;
    ASSERT_TRUE(site.apply(makeAlignment(site.lane)));
    const ObjectId axis = site.last<objects::Alignment>();
    ASSERT_TRUE(
        site.apply(pointsByStation(site.results(), axis, "P", {{"1", 10, 2, {}, "", 1}}, StationTies::Tied)));
    const ObjectId set = site.last<objects::Points>();
    EXPECT_THAT(site.document.get<objects::Points>(set)->set[0].plan, IsNear(20, 8, 1e-12));
    ASSERT_TRUE(site.apply(moveVertex(site.lane, 0, {10, 20})));
    ASSERT_TRUE(site.apply(moveVertex(site.lane, 1, {40, 20})));
    EXPECT_THAT(site.document.get<objects::Points>(set)->set[0].plan, IsNear(20, 18, 1e-12));
}

TEST(StationedPoints, OneThatIsMovedByHandStandsElsewhereAndStaysTied) {
    Stakes s;
    auto p = s.stakes().set[1];
    p.plan = {35, 57};
    ASSERT_TRUE(s.apply(setPoint({s.set, 1}, p)));
    EXPECT_EQ(s.at(1), (geometry::Vec2{35, 57}));
    EXPECT_NEAR(s.stakes().tie->points[1].station, 125, 1e-9);
    EXPECT_NEAR(s.stakes().tie->points[1].offset, -7, 1e-9);
    // A name is a name; one that is removed is tied no more.
    p.number = "new";
    ASSERT_TRUE(s.apply(setPoint({s.set, 1}, p)));
    EXPECT_EQ(s.stakes().tie->points[1].number, "new");
    ASSERT_TRUE(s.apply(remove({}, {{s.set, 0}})));
    ASSERT_EQ(s.stakes().tie->points.size(), 3U);
    ASSERT_TRUE(s.apply(movePi(s.axis, 0, {10, 55})));
    EXPECT_NE(s.at(0), (geometry::Vec2{35, 57}));
    ASSERT_TRUE(s.apply(loosenPoints(s.set)));
    const auto before = s.at(0);
    ASSERT_TRUE(s.apply(movePi(s.axis, 0, {10, 40})));
    EXPECT_EQ(s.at(0), before);
    EXPECT_FALSE(s.apply(loosenPoints(s.set)));
}

TEST(StationedPoints, StayWhereTheyAreWhenTheirStationIsGone) {
    Stakes s;
    ASSERT_TRUE(s.apply(removePi(s.axis, 2)));
    ASSERT_TRUE(s.apply(movePi(s.axis, 1, {30, 50})));  // 20 long: 130 is beyond
    EXPECT_THAT(s.at(1), IsNear(40, 53, 1e-12));
    const auto found = [&] {
        std::vector<check::Finding> out;
        for (auto& f : check::run(*s.results()))
            if (f.kind == "tied-off") out.push_back(std::move(f));
        return out;
    };
    const auto off = found();
    ASSERT_EQ(off.size(), 1U);
    EXPECT_THAT(off[0].text, HasSubstr("2 of its points, 'L2' at 0+130.00 first"));
    EXPECT_FALSE(test::mended(off[0].fixes[0], s.document).get<objects::Points>(s.set)->tie);
    ASSERT_TRUE(s.apply(movePi(s.axis, 1, {10, 90})));
    EXPECT_TRUE(found().empty());
    EXPECT_THAT(s.at(1), IsNear(7, 80, 1e-9));  // there again
    ASSERT_TRUE(s.apply(remove({s.axis}, {})));
    EXPECT_FALSE(s.stakes().tie);
    EXPECT_THAT(s.at(1), IsNear(7, 80, 1e-9));
}

TEST(StationedPoints, RefuseStationsThatAreNotThereAndNamesThatRepeat) {
    Stakes s;
    const auto read = [&](std::vector<route::StationedPoint> rows, StationTies ties) {
        return s.apply(pointsByStation(s.results(), s.axis, "x", std::move(rows), ties)) ? "done" : s.said;
    };
    EXPECT_THAT(read({{"1", 99, 0, {}, "", 2}}, StationTies::Loose),
                HasSubstr("'1': station 0+099.00 is not on"));
    EXPECT_THAT(read({{"1", 110, 0, {}, "", 2}, {"1", 120, 0, {}, "", 3}}, StationTies::Tied),
                HasSubstr("'1' is there twice"));
    EXPECT_EQ(read({{"1", 110, 0, {}, "", 2}, {"1", 120, 0, {}, "", 3}}, StationTies::Loose), "done");
    EXPECT_THAT(read({}, StationTies::Tied), HasSubstr("no rows"));
}

TEST(StationedPoints, TieWhatStandsBesideTheAlignment) {
    Stakes s(StationTies::Loose);
    EXPECT_FALSE(s.stakes().tie);
    ASSERT_TRUE(s.apply(tieToAlignment(s.results(), s.set, s.axis, {0, 2}))) << s.said;
    ASSERT_EQ(s.stakes().tie->points.size(), 2U);
    ASSERT_TRUE(s.apply(movePi(s.axis, 0, {10, 40})));
    ASSERT_TRUE(s.apply(movePi(s.axis, 1, {50, 40})));
    EXPECT_THAT(s.at(0), IsNear(20, 43, 1e-9));
    EXPECT_THAT(s.at(1), IsNear(40, 53, 1e-9));  // not tied
    EXPECT_FALSE(s.apply(tieToAlignment(s.results(), s.points, s.axis)));
    EXPECT_THAT(s.said, HasSubstr("beyond the ends"));
}

TEST(StationedPoints, AreConnectedByTheirOffsets) {
    Stakes s(StationTies::Loose);
    const auto before = s.document.all<objects::Line>().size();
    ASSERT_TRUE(s.apply(connectByOffset(s.results(), s.set, s.axis))) << s.said;
    const auto lines = s.document.all<objects::Line>();
    ASSERT_EQ(lines.size(), before + 2);
    EXPECT_EQ(s.document.nameOf(lines[before]), "Axis -3.00 1");
    const auto left = s.resolved(lines[before]);
    EXPECT_THAT(left.vertices[0].place, IsNear(20, 53, 1e-12));
    EXPECT_THAT(left.vertices[1].place, IsNear(40, 53, 1e-12));
    EXPECT_EQ(left.vertices[1].height, 11.5);
    // Only a selection; two at one offset at least.
    EXPECT_FALSE(s.apply(connectByOffset(s.results(), s.set, s.axis, {0, 2})));
    EXPECT_THAT(s.said, HasSubstr("no two"));
}

TEST(StationedPoints, AreReportedWithTheirHeightOverDesignAndGround) {
    Stakes s;
    ASSERT_TRUE(s.apply(newProfile(s.axis, s.ground)));
    ASSERT_TRUE(s.apply([&](const Document& d) -> Result<Edited> {
        return document::changed<objects::Profile>(d, s.last<objects::Profile>(), [](objects::Profile& p) {
            p.design = {{100, 10, 0}, {150, 15, 0}};
        });
    }));
    const auto rows = stationsOf(*s.results(), s.axis, {{s.set, 2}}, {s.set, s.group});
    // The point by itself, the set, the lane of the group.
    ASSERT_EQ(rows.size(), 1U + 4U + 3U);
    EXPECT_EQ(rows[0].name, "R1");
    EXPECT_FALSE(rows[0].height);
    EXPECT_FALSE(rows[0].overDesign);
    EXPECT_NEAR(rows[1].station, 110, 1e-9);
    EXPECT_NEAR(rows[1].distance, 10, 1e-9);
    EXPECT_NEAR(rows[1].offset, -3, 1e-9);
    EXPECT_NEAR(*rows[1].overDesign, 11.0 - 11.0, 1e-9);
    EXPECT_NEAR(*rows[1].overSurface, 11.0 - PlaneSite::height(20, 53), 1e-9);
    EXPECT_EQ(rows[5].name, "Lane 1");
    EXPECT_TRUE(stationsOf(*s.results(), s.ground, {}, {s.set}).empty());
}

TEST(StationedPoints, SurviveTheJournal) {
    Stakes s;
    const auto object = *s.document.find(s.set);
    const auto back =
        test::valueOf(format::objectFromJson(nlohmann::json::parse(format::toJson(object).dump())));
    EXPECT_EQ(*back.payload.as<objects::Points>()->tie, *s.stakes().tie);
}

TEST(StationedPoints, RandomAlignmentsCarryThemExactly) {
    std::mt19937 random(7);
    std::uniform_real_distribution<double> unit(0, 1);
    Stakes s;
    for (int i = 0; i < 200; ++i) {
        const auto pi = static_cast<std::size_t>(i % 3);
        (void)s.apply(movePi(s.axis, pi, {100 * unit(random), 100 * unit(random)}));
        const auto derived = s.results();
        const auto& line = *derived->alignments.at(s.axis);
        for (std::size_t k = 0; k < s.stakes().set.size(); ++k) {
            const auto& tied = s.stakes().tie->points[k];
            const auto distance = line.stationing.distanceAt(tied.station, line.length);
            if (!distance) continue;
            EXPECT_EQ(s.at(k), placeAt(line, line.running(*distance), tied.offset)) << i;
        }
    }
}

}  // namespace
}  // namespace erdwerk::operations
