// Surfaces in the model: roles, groups, thinning, local work, own edits, fit; and terrain that is none.

#include "core/derive/model.h"
#include "core/derive/surface_result.h"
#include "core/linework/line3d.h"
#include "core/objects/cloud.h"
#include "core/objects/group.h"
#include "core/objects/line.h"
#include "core/objects/surface.h"
#include "core/operations/points.h"
#include "core/operations/surfaces.h"
#include "core/survey/cloud.h"
#include "core/terrain/locator.h"
#include "support/after_edit.h"
#include "support/geometry.h"

namespace erdwerk::derive {
namespace {

using namespace document;
using namespace operations;

using geometry::Vec2;
using geometry::Vec3;
using test::places;
using test::valueOf;

struct Field {
    Document document;
    ObjectId points;
    ObjectId surface;

    /// Points every unit from 0 to `side`, heights from a function, jittered in plan so that nothing is in
    /// line.
    template <class Height>
    Field(int side, const Height& height) {
        std::mt19937 random(11);
        std::uniform_real_distribution<double> jitter(-0.2, 0.2);
        std::vector<survey::SurveyPoint> all;
        for (int y = 0; y <= side; ++y)
            for (int x = 0; x <= side; ++x) {
                const bool rim = x == 0 || y == 0 || x == side || y == side;
                const Vec2 p{x + (rim ? 0 : jitter(random)), y + (rim ? 0 : jitter(random))};
                all.push_back({std::to_string(all.size() + 1), p, height(p.x, p.y), "", ""});
            }
        document = test::afterEdit({}, addPoints("s", std::move(all)), &points);
        document = test::afterEdit(document, addSurface("G", {{points, Role::Points}}), &surface);
    }
    ObjectId line(const std::string& at, std::vector<std::optional<double>> heights, bool closed = false,
                  ObjectId group = {}) {
        ObjectId id;
        document = document.added(freshName<Line>(document, "L"),
                                  Line{linework::lineThrough(places(at), heights, closed), LineStyle::Plain},
                                  &id, group);
        return id;
    }
};

double level(double, double) {
    return 10;
}

std::string problemOf(const Document& d) {
    const auto derived = valueOf(evaluate(d));
    const auto& result = *derived.surfaces.begin()->second;
    return result.locator ? std::string() : result.problem;
}

TEST(GroundModel, WhatJoinsAGroupJoinsTheSurface) {
    Field f(10, level);
    ObjectId group;
    f.document = f.document.added("Crests", Group{}, &group);
    f.document = test::afterEdit(f.document, addSource(f.surface, {group, Role::Breakline}));
    Model model;
    EXPECT_NEAR(*valueOf(model.evaluate(f.document)).surface(f.surface)->heightAt({5, 5}), 10, 1e-9);
    f.line("2 5, 8 5", {12.0, 12.0}, false, group);
    EXPECT_NEAR(*valueOf(model.evaluate(f.document)).surface(f.surface)->heightAt({5, 5}), 12, 1e-9);
    // Switched off, the group does nothing; the surface follows.
    f.document = test::afterEdit(f.document, setSource(f.surface, {group, Role::Breakline, false}));
    EXPECT_NEAR(*valueOf(model.evaluate(f.document)).surface(f.surface)->heightAt({5, 5}), 10, 1e-9);
}

TEST(GroundModel, ALineMoreIsLocalWorkAndGivesTheSameTriangles) {
    Field f(40, [](double x, double y) { return std::sin(x / 5) + std::cos(y / 7); });
    Model model;
    (void)valueOf(model.evaluate(f.document));
    const ObjectId line = f.line("3.3 4.1, 20.7 22.3, 36.2 30.9", {2.0, 2.5, 3.0});
    f.document = test::afterEdit(f.document, addSource(f.surface, {line, Role::Breakline}));
    const auto local = valueOf(model.evaluate(f.document));
    EXPECT_TRUE(local.surfaces.at(f.surface)->locally);
    const auto fresh = valueOf(evaluate(f.document));
    EXPECT_FALSE(fresh.surfaces.at(f.surface)->locally);
    const auto& a = local.surface(f.surface)->tin();
    const auto& b = fresh.surface(f.surface)->tin();
    EXPECT_EQ(a.triangleCount(), b.triangleCount());
    EXPECT_EQ(a.vertexCount(), b.vertexCount());
    std::mt19937 random(2);
    std::uniform_real_distribution<double> unit(0, 40);
    for (int k = 0; k < 500; ++k) {
        const Vec2 p{unit(random), unit(random)};
        EXPECT_NEAR(*local.surface(f.surface)->heightAt(p), *fresh.surface(f.surface)->heightAt(p), 1e-9);
    }
}

TEST(GroundModel, OpeningsAndIslands) {
    Field f(20, level);
    const ObjectId pond = f.line("4 4, 16 4, 16 16, 4 16", {}, true);
    const ObjectId isle = f.line("8 8, 12 8, 12 12, 8 12", {11.0, 11.0, 11.0, 11.0}, true);
    f.document = test::afterEdit(f.document, addSource(f.surface, {pond, Role::Opening}));
    f.document = test::afterEdit(f.document, addSource(f.surface, {isle, Role::Island}));
    auto derived = valueOf(evaluate(f.document));
    EXPECT_NEAR(derived.surfaces.at(f.surface)->figures.planArea, 400 - 144 + 16, 1e-6);
    EXPECT_FALSE(derived.surface(f.surface)->heightAt({6, 6}));
    EXPECT_NEAR(*derived.surface(f.surface)->heightAt({8, 10}), 11, 1e-9);
    // Without its own heights the island lies on the ground.
    f.document = test::afterEdit(f.document, setSource(f.surface, {isle, Role::Island, true, false}));
    derived = valueOf(evaluate(f.document));
    EXPECT_NEAR(*derived.surface(f.surface)->heightAt({8, 10}), 10, 1e-9);
}

TEST(GroundModel, TheRuleForCrossingsDecidesTheHeight) {
    Field f(20, level);
    for (const auto& [at, h] : {std::pair{"2 10.3, 18 10.3", 11.0}, std::pair{"10.3 2, 10.3 18", 13.0}})
        f.document = test::afterEdit(f.document, addSource(f.surface, {f.line(at, {h, h}), Role::Breakline}));
    for (const auto& [rule, expected] :
         {std::pair{terrain::CrossingRule::First, 11.0}, std::pair{terrain::CrossingRule::Higher, 13.0},
          std::pair{terrain::CrossingRule::Lower, 11.0}, std::pair{terrain::CrossingRule::Mean, 12.0}}) {
        const auto d = test::afterEdit(
            f.document, changeDefinition(f.surface, [rule = rule](auto& def) { def.onCrossing = rule; }));
        const auto derived = valueOf(evaluate(d));
        EXPECT_NEAR(*derived.surface(f.surface)->heightAt({10.3, 10.3}), expected, 1e-9);
        EXPECT_EQ(derived.surfaces.at(f.surface)->crossings.size(), 1U);
    }
}

TEST(GroundModel, OwnEditsAreDoneInOrderAndCanBeSwitched) {
    Field f(10, level);
    f.document = test::afterEdit(
        f.document, addOwnEdit(f.surface, {{terrain::EditKind::Raise, {}, {0, 0, 2}}, {}, true}));
    f.document = test::afterEdit(
        f.document, addOwnEdit(f.surface, {{terrain::EditKind::AddPoint, {}, {5.43, 5.51, 20}}, {}, true}));
    EXPECT_NEAR(*valueOf(evaluate(f.document)).surface(f.surface)->heightAt({5.43, 5.51}), 20, 1e-9);
    f.document =
        test::afterEdit(f.document, changeDefinition(f.surface, [](auto& d) { d.edits[1].on = false; }));
    EXPECT_NEAR(*valueOf(evaluate(f.document)).surface(f.surface)->heightAt({5.43, 5.51}), 12, 1e-9);
}

TEST(GroundModel, ThinningFollowsItsToleranceAndTheFitIsChecked) {
    std::vector<Vec3> dense;
    for (int y = 0; y <= 60; ++y)
        for (int x = 0; x <= 60; ++x)
            dense.push_back({x * 1.0, y * 1.0, 5 * std::sin(x / 9.0) * std::cos(y / 8.0)});
    Cloud payload;
    payload.cloud = std::make_shared<const survey::PointCloud>(survey::cloudFrom(dense));
    ObjectId cloud;
    ObjectId surface;
    Document d = Document().added("flight", payload, &cloud);
    d = test::afterEdit(d, addSurface("T", {{cloud, Role::Cloud}}), &surface);
    Model model;
    std::size_t before = dense.size() + 1;
    for (const double tolerance : {0.02, 0.1, 0.5}) {
        d = test::afterEdit(d, changeDefinition(surface, [&](auto& def) { def.tolerance = tolerance; }));
        d = changed<Surface>(d, surface, [&](Surface& s) { s.fit.tolerance = tolerance; });
        const auto derived = valueOf(model.evaluate(d));
        const auto& thinned = *derived.surfaces.at(surface)->thinned;
        EXPECT_EQ(thinned.pointsIn, dense.size());
        EXPECT_LT(thinned.kept, before);
        EXPECT_LE(thinned.largestDeviation, tolerance + 1e-12);
        before = thinned.kept;
        // Measured here, one by one.
        double largest = 0;
        for (const Vec3& p : dense)
            largest = std::max(largest, std::abs(p.z - *derived.surface(surface)->heightAt(p.plan())));
        EXPECT_NEAR(largest, thinned.largestDeviation, 2e-4);  // the cloud keeps a tenth of a millimetre
        const auto& fit = *derived.fits.at(surface);
        EXPECT_EQ(fit.figures.points, dense.size());
        EXPECT_DOUBLE_EQ(fit.figures.withinShare(), 1);
        EXPECT_TRUE(fit.worst.empty());
    }
}

TEST(GroundModel, TerrainThatIsNoneGetsAClearAnswer) {
    const auto of = [](std::vector<survey::SurveyPoint> points, const std::string& ring = {}) {
        ObjectId set;
        Document d = test::afterEdit({}, addPoints("s", std::move(points)), &set);
        ObjectId surface;
        d = test::afterEdit(d, addSurface("G", {{set, Role::Points}}), &surface);
        if (!ring.empty()) {
            ObjectId line;
            d = d.added("B", Line{linework::lineThrough(places(ring), {}, true), LineStyle::Plain}, &line);
            d = test::afterEdit(d, addSource(surface, {line, Role::Edge}));
        }
        return problemOf(d);
    };
    const auto p = [](double x, double y, double z) { return survey::SurveyPoint{"", {x, y}, z, "", ""}; };
    EXPECT_THAT(of({p(0, 0, 1), p(1, 1, 2)}), testing::HasSubstr("three points"));
    EXPECT_FALSE(of({p(0, 0, 1), p(1, 1, 2), p(2, 2, 3), p(3, 3, 4)}).empty());  // on one line
    EXPECT_FALSE(of({p(5, 5, 1), p(5, 5, 1), p(5, 5, 1)}).empty());              // all equal
    EXPECT_FALSE(of({}, "0 0, 10 0, 10 10").empty());                            // a boundary without points
    // Ten million with millimetre differences is a surface.
    EXPECT_EQ(
        of({p(1e7, 1e7, 1), p(1e7 + 0.001, 1e7, 2), p(1e7, 1e7 + 0.001, 3), p(1e7 + 0.001, 1e7 + 0.001, 4)}),
        "");
}

TEST(GroundModel, AVerticalFaceGivenTwiceKeepsTheFirstOfEachPlace) {
    // The upper and the lower edge of a wall stand over each other, and the wall is there twice.
    Field f(10, level);
    std::vector<ObjectId> lines;
    for (int twice = 0; twice < 2; ++twice) {
        lines.push_back(f.line("2.5 5.5, 7.5 5.5", {14.0, 14.0}));
        lines.push_back(f.line("2.5 5.5, 7.5 5.5", {10.0, 10.0}));
    }
    for (const ObjectId id : lines)
        f.document = test::afterEdit(f.document, addSource(f.surface, {id, Role::Breakline}));
    const auto derived = valueOf(evaluate(f.document));
    ASSERT_TRUE(derived.surface(f.surface)) << derived.surfaces.at(f.surface)->problem;
    EXPECT_NEAR(*derived.surface(f.surface)->heightAt({5, 5.5}), 14, 1e-9);
    EXPECT_NEAR(derived.surfaces.at(f.surface)->figures.planArea, 100, 1e-9);
}

TEST(GroundModel, ABoundaryThatLeavesAsManyTrianglesStillCuts) {
    // Four corner points make two triangles; so does the square inside them that the surface ends on.
    Document d = test::afterEdit({}, addPoints("p", {{"1", {0, 0}, 1.0, "", ""},
                                                     {"2", {40, 0}, 2.0, "", ""},
                                                     {"3", {40, 40}, 3.0, "", ""},
                                                     {"4", {0, 40}, 2.0, "", ""}}));
    ObjectId edge;
    ObjectId ground;
    d = d.added("edge", Line{linework::lineThrough(test::places("10 10, 30 10, 30 30, 10 30"), {}, true), {}},
                &edge);
    d = test::afterEdit(d, addSurface("Ground", {{d.byName<Points>("p"), Role::Points}, {edge, Role::Edge}}),
                        &ground);
    const auto derived = test::valueOf(evaluate(d));
    ASSERT_NE(derived.surface(ground), nullptr);
    EXPECT_NEAR(derived.surfaces.at(ground)->figures.planArea, 400, 1e-9);
    EXPECT_FALSE(derived.surface(ground)->triangleAt({5, 5}));
    EXPECT_TRUE(derived.surface(ground)->triangleAt({20, 20}));
}

}  // namespace
}  // namespace erdwerk::derive
