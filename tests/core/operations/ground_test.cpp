// Points, surfaces and clouds as edits, on a plane.

#include "core/operations/ground.h"

#include "core/derive/surface_result.h"
#include "core/objects/cloud.h"
#include "core/objects/group.h"
#include "core/objects/line.h"
#include "core/objects/points.h"
#include "core/objects/surface.h"
#include "core/operations/dense.h"
#include "core/operations/objects.h"
#include "core/operations/points.h"
#include "core/operations/surfaces.h"
#include "support/after_edit.h"
#include "support/plane_site.h"

namespace erdwerk::operations {
namespace {

using geometry::Vec2;
using test::IsNear;
using test::places;
using test::PlaneSite;

/// With a cloud over a plane of its own, z = 5, every unit from 0 to 20.
struct Flight : PlaneSite {
    ObjectId cloud;
    Flight() {
        std::vector<geometry::Vec3> flown;
        for (int y = 0; y <= 20; ++y)
            for (int x = 0; x <= 20; ++x) flown.push_back({x * 1.0, y * 1.0, 5});
        objects::Cloud payload;
        payload.cloud = std::make_shared<const survey::PointCloud>(survey::cloudFrom(flown));
        document = document.added("Flight", payload, &cloud);
    }
    ObjectId square(const std::string& name, const char* corners) {
        ObjectId id;
        document = document.added(name, objects::Line{linework::lineThrough(places(corners), {}, true)}, &id);
        return id;
    }
};

TEST(ConnectPoints, ByNumberAndByCode) {
    PlaneSite s;
    s.document =
        test::afterEdit(s.document, operations::addPoints("Spots", {{"10", {1, 1}, 5.0, "DITCH", ""},
                                                                    {"9", {2, 2}, 5.0, "DITCH", ""},
                                                                    {"11", {3, 3}, 5.0, "LONE", ""}}));
    ASSERT_TRUE(s.apply(connectPoints(s.points, {5, 6}, false)));
    // 9 comes before 10.
    EXPECT_THAT(s.line(s.last<objects::Line>()).vertices.front().place, IsNear(2, 2, 0));
    ASSERT_TRUE(s.apply(connectPoints(s.points, {5, 6, 7}, true)));
    EXPECT_TRUE(s.document.byName<objects::Line>("DITCH"));
    EXPECT_FALSE(s.document.byName<objects::Line>("LONE"));
    EXPECT_FALSE(s.apply(connectPoints(s.points, {7}, false)));
    EXPECT_FALSE(s.apply(connectPoints(s.points, {0, 99}, false)));
    EXPECT_FALSE(s.apply(connectPoints(s.points, {0, 7}, true)));
}

TEST(TypedHeight, OfAPoint) {
    PlaneSite s;
    const auto height = [&] { return s.document.get<objects::Points>(s.points)->set[4].height; };
    const auto type = [&](const char* text) {
        return s.apply(setTypedHeight(s.results(), {s.points, 4}, text));
    };
    ASSERT_TRUE(type("12.5"));
    EXPECT_EQ(height(), 12.5);
    ASSERT_TRUE(type("+0.25"));
    EXPECT_EQ(height(), 12.75);
    ASSERT_TRUE(type(""));
    EXPECT_FALSE(height());
    EXPECT_FALSE(type("+0.25"));  // from what?
    ASSERT_TRUE(type("=Ground+0.10"));
    // Without the point the four others still span the plane.
    EXPECT_NEAR(*height(), PlaneSite::height(50, 50) + 0.1, 1e-9);
    EXPECT_FALSE(type("=Nowhere"));
    EXPECT_FALSE(type("2%"));
    EXPECT_FALSE(type("up"));
    EXPECT_FALSE(s.apply(setTypedHeight(s.results(), {s.points, 99}, "1")));
}

TEST(AddPoint, GoesToTheFirstSetOrMakesOne) {
    PlaneSite s;
    ASSERT_TRUE(s.apply(addPoint({"77", {1, 2}, 3.0, "", ""})));
    EXPECT_EQ(s.document.get<objects::Points>(s.points)->set.size(), 6U);
    const auto made = document::perform("p", addPoint({"1", {1, 2}, 3.0, "", ""}), {});
    ASSERT_TRUE(made);
    EXPECT_TRUE(made->document.byName<objects::Points>("Points"));
}

TEST(NewSurface, TakesWhatIsChosenOrAllPointsOrAllLines) {
    PlaneSite s;
    ASSERT_TRUE(s.apply(newSurface({})));
    const auto sources = [&] {
        return s.document.get<objects::Surface>(s.last<objects::Surface>())->definition->sources;
    };
    EXPECT_EQ(sources(), (std::vector<objects::Source>{{s.points, objects::Role::Points}}));
    ASSERT_TRUE(s.apply(newSurface({s.lane, s.points, s.lane})));
    EXPECT_EQ(sources(), (std::vector<objects::Source>{{s.lane, objects::Role::Breakline},
                                                       {s.points, objects::Role::Points}}));
    s.document = s.document.without(s.points);
    ASSERT_TRUE(s.apply(newSurface({})));
    EXPECT_EQ(sources().size(), 2U);
    EXPECT_FALSE(document::perform("n", newSurface({}), {}));
}

TEST(Roles, RingsAreClosedLines) {
    PlaneSite s;
    EXPECT_FALSE(s.apply(addRole(s.ground, s.lane, objects::Role::Edge)));
    EXPECT_FALSE(s.apply(addRole(s.ground, s.lane, objects::Role::Opening)));
    EXPECT_FALSE(s.apply(addRole(s.lane, s.plot, objects::Role::Edge)));
    EXPECT_FALSE(s.apply(addRole(s.ground, s.points, objects::Role::Breakline)));
    ASSERT_TRUE(s.apply(addRole(s.ground, s.plot, objects::Role::Edge)));
    EXPECT_NEAR(s.results()->surfaces.at(s.ground)->figures.planArea, 900, 1e-6);
    ASSERT_TRUE(s.apply(addRole(s.ground, s.plot, objects::Role::Opening)));
    EXPECT_NEAR(s.results()->surfaces.at(s.ground)->figures.planArea, 10000 - 900, 1e-6);
    ASSERT_TRUE(s.apply(removeSource(s.ground, s.plot)));
    EXPECT_FALSE(s.apply(removeSource(s.ground, s.plot)));
}

TEST(Roles, WhatCouldBeASourceMore) {
    Flight s;
    std::map<ObjectId, objects::Role> offered;
    for (const auto& source : possibleSources(s.document, s.ground)) offered[source.object] = source.role;
    EXPECT_EQ(offered, (std::map<ObjectId, objects::Role>{{s.group, objects::Role::Breakline},
                                                          {s.lane, objects::Role::Breakline},
                                                          {s.plot, objects::Role::Breakline},
                                                          {s.cloud, objects::Role::Cloud}}));
    EXPECT_EQ(denseObjects(s.document), std::vector<ObjectId>{s.cloud});
    EXPECT_FALSE(hasDenseSources(s.document, s.ground));
    // In a group that is a source it counts.
    s.document = test::afterEdit(s.document, operations::setGroup(s.cloud, s.group));
    s.document =
        test::afterEdit(s.document, operations::addSource(s.ground, {s.group, objects::Role::Breakline}));
    EXPECT_TRUE(hasDenseSources(s.document, s.ground));
}

TEST(Points, ThatTakePartAreCountedAlikeHoweverTheSurfaceIsBuilt) {
    PlaneSite s;
    EXPECT_EQ(s.results()->surfaces.at(s.ground)->points, 5U);
    // Only the point in the middle lies inside.
    ObjectId ring;
    s.document = s.document.added(
        "Ring", objects::Line{linework::lineThrough(places("40 40, 60 40, 60 60, 40 60"), {}, true)}, &ring);
    ASSERT_TRUE(s.apply(addRole(s.ground, ring, objects::Role::Edge)));
    EXPECT_EQ(s.results()->surfaces.at(s.ground)->points, 1U);
    terrain::BuildInput input;
    const auto& set = s.document.get<objects::Points>(s.points)->set;
    for (std::size_t i = 0; i < set.size(); ++i)
        input.points.push_back({set[i].plan.x, set[i].plan.y, *set[i].height});
    input.boundary = terrain::Boundary{places("40 40, 60 40, 60 60, 40 60"),
                                       std::vector<std::optional<double>>(4, std::nullopt)};
    EXPECT_EQ(test::valueOf(terrain::build(input)).points, 1U);
}

TEST(OwnEdit, IsTriedBeforeItIsKept) {
    PlaneSite s;
    ASSERT_TRUE(
        s.apply(ownEdit(s.results(), s.ground, {{terrain::EditKind::Raise, {}, {0, 0, 0.5}}, {}, true})));
    EXPECT_NEAR(*s.results()->surface(s.ground)->heightAt({20, 30}), PlaneSite::height(20, 30) + 0.5, 1e-9);
    EXPECT_FALSE(s.apply(
        ownEdit(s.results(), s.ground, {{terrain::EditKind::RemoveTriangle, {500, 500}, {}}, {}, true})));
    EXPECT_FALSE(
        s.apply(ownEdit(s.results(), s.lane, {{terrain::EditKind::Raise, {}, {0, 0, 1}}, {}, true})));
}

TEST(Runoff, GoesStraightDownThePlane) {
    PlaneSite s;
    ASSERT_TRUE(s.apply(runoffLine(s.results(), s.ground, {80, 60})));
    const auto r = s.resolved(s.last<objects::Line>());
    // Downhill is towards -x twice as fast as towards -y: from 80 60 it meets x = 0 at y = 20.
    EXPECT_THAT(r.vertices.front().place, IsNear(80, 60, 1e-9));
    EXPECT_THAT(r.vertices.back().place, IsNear(0, 20, 1e-6));
    for (const auto& v : r.vertices) EXPECT_NEAR(*v.height, PlaneSite::height(v.place.x, v.place.y), 1e-6);
    EXPECT_EQ(s.document.nameOf(s.document.find(s.last<objects::Line>())->group), "Runoff");
    EXPECT_FALSE(s.apply(runoffLine(s.results(), s.ground, {500, 500})));
    EXPECT_FALSE(s.apply(runoffLine(s.results(), s.lane, {50, 50})));
}

TEST(Extracted, ContourAndTriangleLieOnThePlane) {
    PlaneSite s;
    // Contours every unit; nearest to 50 50 (11.5 high) is 11 or 12.
    ASSERT_TRUE(s.apply(contourAt(s.results(), s.ground, {60, 30})));
    for (const auto& v : s.resolved(s.last<objects::Line>()).vertices)
        EXPECT_NEAR(PlaneSite::height(v.place.x, v.place.y), *v.height, 1e-9);
    ASSERT_TRUE(s.apply(triangleAt(s.results(), s.ground, {50, 10})));
    const auto& triangle = s.line(s.last<objects::Line>());
    EXPECT_TRUE(triangle.closed);
    EXPECT_EQ(triangle.vertices.size(), 3U);
    EXPECT_NEAR(std::abs(geometry::signedArea(planPath(triangle))), 100 * 50 / 2.0, 1e-9);
    EXPECT_FALSE(s.apply(triangleAt(s.results(), s.ground, {500, 10})));
}

TEST(Clouds, BecomeSurfacesAndAreCropped) {
    Flight s;
    ASSERT_TRUE(s.apply(surfaceFromDense(s.cloud, {})));
    const ObjectId made = s.last<objects::Surface>();
    const auto results = s.results();
    const auto& result = *results->surfaces.at(made);
    EXPECT_EQ(result.thinned->pointsIn, 441U);
    EXPECT_EQ(result.thinned->beyond, 0U);
    EXPECT_NEAR(result.figures.planArea, 400, 1e-6);
    const ObjectId ring = s.square("Ring", "4.5 4.5, 9.5 4.5, 9.5 9.5, 4.5 9.5");
    ASSERT_TRUE(s.apply(cropCloud(s.results(), s.cloud, ring)));
    // 5 to 9 both ways.
    EXPECT_EQ(s.results()->surfaces.at(made)->thinned->pointsIn, 25U);
    EXPECT_FALSE(s.apply(cropCloud(s.results(), s.cloud, s.lane)));
    EXPECT_FALSE(s.apply(surfaceFromDense(s.lane, {})));
}

TEST(Clouds, ClassesAreGivenInsideARing) {
    Flight s;
    const Document d = test::afterEdit(
        s.document, document::atOnce(classify(s.cloud, places("-1 -1, 4.5 -1, 4.5 4.5, -1 4.5"), 6)));
    const auto counts = d.get<objects::Cloud>(s.cloud)->cloud->classCounts();
    EXPECT_EQ(counts[6], 25U);
    EXPECT_TRUE(d.get<objects::Cloud>(s.cloud)->classified);
    EXPECT_EQ(s.document.get<objects::Cloud>(s.cloud)->cloud->classCounts()[6], 0U);
}

TEST(Clouds, GroundThatWasWorkedOutIsKeptWhileTheCloudIsTheSame) {
    Flight s;
    const auto seen = s.document.get<objects::Cloud>(s.cloud)->cloud;
    std::vector<std::uint8_t> classes(seen->size(), 1);
    for (std::size_t i = 0; i < 10; ++i) classes[i] = 2;
    EXPECT_FALSE(s.apply(keepGround(s.lane, seen, classes)));
    EXPECT_FALSE(s.apply(keepGround(s.cloud, nullptr, classes)));
    EXPECT_FALSE(s.apply(keepGround(s.cloud, seen, {1, 2})));
    ASSERT_TRUE(s.apply(keepGround(s.cloud, seen, classes)));
    const auto* cloud = s.document.get<objects::Cloud>(s.cloud);
    EXPECT_EQ(cloud->cloud->classCounts()[2], 10U);
    EXPECT_EQ(cloud->filter.classes, std::vector<std::uint8_t>{2});
    EXPECT_FALSE(s.apply(keepGround(s.cloud, seen, classes)));  // its classes are others now
}

TEST(Grids, StandInsideALineWithTheHeightsOfThePlane) {
    PlaneSite s;
    const auto grid = test::valueOf(gridOf(*s.results(), s.ground, s.plot, 10));
    EXPECT_GE(grid.size(), 9U);
    EXPECT_LE(grid.size(), 16U);
    for (const auto& p : grid) {
        EXPECT_NEAR(p.z, PlaneSite::height(p.x, p.y), 1e-9);
        EXPECT_TRUE(p.x >= 60 && p.x <= 90 && p.y >= 60 && p.y <= 90);
    }
    ASSERT_TRUE(s.apply(addGrid(s.ground, grid)));
    EXPECT_EQ(s.document.nameOf(s.last<objects::Points>()), "Grid of Ground 1");
    EXPECT_FALSE(gridOf(*s.results(), s.ground, s.lane, 10));
    EXPECT_FALSE(gridOf(*s.results(), s.ground, s.plot, 0.001));
    EXPECT_EQ(test::valueOf(ringOf(*s.results(), s.plot)).size(), 4U);
}

TEST(Remove, TakesWhatCannotBeWithoutItAndSaysSo) {
    PlaneSite s;
    ASSERT_TRUE(s.apply(remove({s.points}, {})));
    EXPECT_TRUE(s.document.get<objects::Surface>(s.ground)->definition->sources.empty());
    ASSERT_TRUE(s.apply(remove({s.lane, s.plot}, {})));
    EXPECT_TRUE(s.document.all<objects::Line>().empty());
    PlaneSite t;
    ASSERT_TRUE(t.apply(remove({}, {{t.points, 4}, {t.points, 0}})));
    const auto& set = t.document.get<objects::Points>(t.points)->set;
    ASSERT_EQ(set.size(), 3U);
    EXPECT_EQ(set[0].number, "2");
    EXPECT_EQ(set[2].number, "4");
}

TEST(Accepted, IsAddedOnceAndTakenBack) {
    PlaneSite s;
    const document::Accepted meant{"near-duplicates", {1, 2}, {s.lane}, "a bridge"};
    ASSERT_TRUE(s.apply(accept(meant)));
    ASSERT_EQ(s.document.settings().accepted.size(), 1U);
    EXPECT_EQ(s.document.settings().accepted.front(), meant);
    ASSERT_TRUE(s.apply(takeBackAcceptance(meant)));
    EXPECT_TRUE(s.document.settings().accepted.empty());
    ASSERT_TRUE(s.apply(changeSettings([](document::Settings& x) { x.checks.near = 0.5; })));
    EXPECT_EQ(s.document.settings().checks.near, 0.5);
}

}  // namespace
}  // namespace erdwerk::operations
