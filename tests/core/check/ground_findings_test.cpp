// Findings of the ground stage, and what their fixes do.

#include "core/check/finding.h"
#include "core/derive/surface_build.h"
#include "core/derive/surface_result.h"
#include "core/linework/line3d.h"
#include "core/objects/cloud.h"
#include "core/objects/line.h"
#include "core/objects/points.h"
#include "core/objects/surface.h"
#include "core/operations/mend.h"
#include "core/operations/objects.h"
#include "core/operations/points.h"
#include "core/operations/surfaces.h"
#include "core/survey/cloud.h"
#include "core/terrain/locator.h"
#include "support/after_edit.h"
#include "support/geometry.h"
#include "support/mended.h"

namespace erdwerk::check {
namespace {

using document::Document;
using objects::Line;
using objects::Role;
using test::places;
using test::valueOf;

derive::Derived deriveAll(const Document& d) {
    return valueOf(derive::evaluate(d));
}
std::vector<Finding> of(const Document& d, const std::string& kind) {
    auto all = run(deriveAll(d));
    std::erase_if(all, [&](const Finding& f) { return f.kind != kind; });
    return all;
}

/// A level field of 100 x 100 at height 10 with points every 10 (the inner ones jittered so that no side is
/// in line with another).
struct Field {
    Document document;
    ObjectId points;
    ObjectId surface;

    Field() {
        std::vector<survey::SurveyPoint> all;
        for (int y = 0; y <= 10; ++y)
            for (int x = 0; x <= 10; ++x)
                all.push_back({std::to_string(all.size() + 1), {x * 10.0, y * 10.0}, 10.0, "", ""});
        document = test::afterEdit({}, operations::addPoints("s", std::move(all)), &points);
        document = test::afterEdit(document, operations::addSurface("G", {{points, Role::Points}}), &surface);
    }

    ObjectId line(const std::string& name, const std::string& at, std::vector<std::optional<double>> heights,
                  Role role = Role::Breakline, bool closed = false) {
        ObjectId id;
        document = document.added(name, Line{linework::lineThrough(places(at), heights, closed), {}}, &id);
        document = test::afterEdit(document, operations::addSource(surface, {id, role}));
        return id;
    }
};

struct Crossed : Field {
    ObjectId first = line("A", "20 51, 80 51", {11.0, 11.0});
    ObjectId second = line("B", "51 20, 51 54", {12.0, 12.0});
};

TEST(GroundFindings, ACrossingHasAFixForEachWayToMendIt) {
    const Crossed c;
    const auto found = of(c.document, "crossing-breaklines");
    ASSERT_EQ(found.size(), 1U);
    const Finding& f = found.front();
    EXPECT_EQ(f.names, (std::vector<std::string>{"A", "B"}));
    EXPECT_EQ(f.heights, (std::vector<double>{11, 12}));
    ASSERT_EQ(f.fixes.size(), 6U);
    const double expected[] = {11, 12, 11.5};
    for (std::size_t k = 0; k < f.fixes.size(); ++k) {
        const Document mended = test::mended(f.fixes[k], c.document);
        EXPECT_TRUE(of(mended, "crossing-breaklines").empty()) << f.fixes[k].label;
        if (k > 2) continue;
        // Both lines now have a corner at the crossing with the same height.
        const auto derived = deriveAll(mended);
        for (const ObjectId id : {c.first, c.second}) {
            const auto& vertices = derived.lines.at(id)->vertices;
            ASSERT_EQ(vertices.size(), 3U);
            EXPECT_THAT(vertices[1].place, test::IsNear(51, 51, 1e-9));
            EXPECT_NEAR(*vertices[1].height, expected[k], 1e-9);
        }
        EXPECT_NEAR(*derived.surface(c.surface)->heightAt({51, 51}), expected[k], 1e-9);
    }
}

TEST(GroundFindings, TheNearestCornerGoesOntoTheOtherLine) {
    const Crossed c;
    const auto derived = deriveAll(c.document);
    const auto mended = test::afterEdit(
        c.document, operations::moveNearestCorner(std::make_shared<const derive::Derived>(derived), c.first,
                                                  c.second, {51, 51}));
    const auto b = deriveAll(mended).lines.at(c.second)->vertices.back();
    EXPECT_THAT(b.place, test::IsNear(51, 51, 1e-9));
    EXPECT_NEAR(*b.height, 11, 1e-9);
}

TEST(GroundFindings, AnOvershootIsTrimmedToTheOtherLine) {
    const Crossed c;
    EXPECT_NEAR(*operations::overshoot(c.document, c.second, {51, 51}), 3, 1e-9);
    const auto mended = test::afterEdit(
        c.document, operations::trimOvershoot(std::make_shared<const derive::Derived>(deriveAll(c.document)),
                                              c.second, {51, 51}, 11));
    const auto derived = deriveAll(mended);
    const auto& line = *derived.lines.at(c.second);
    EXPECT_NEAR(line.length, 31, 1e-9);
    EXPECT_NEAR(*line.vertices.back().height, 11, 1e-9);
    EXPECT_NEAR(*line.vertices.front().height, 12, 1e-9);
}

TEST(GroundFindings, AnAcceptedFindingIsNotShownAgain) {
    const Crossed c;
    const auto found = of(c.document, "crossing-breaklines");
    const auto accepted = test::afterEdit(
        c.document, operations::accept(acceptance(found.front(), "a wall stands on the kerb")));
    EXPECT_TRUE(of(accepted, "crossing-breaklines").empty());
    EXPECT_EQ(accepted.settings().accepted.front().reason, "a wall stands on the kerb");
    // Another crossing of the same two lines is another finding.
    const auto moved = document::changed<Line>(accepted, c.second, [](Line& l) {
        for (auto& v : l.line.vertices) v.place.x += 5;
    });
    EXPECT_EQ(of(moved, "crossing-breaklines").size(), 1U);
}

TEST(GroundFindings, NearDuplicatesKeepOneOrTheOther) {
    Field g;
    g.document =
        test::afterEdit(g.document, operations::addPoints("s", {{"near", {50.015, 50}, 10.2, "", ""}}));
    const auto found = of(g.document, "near-duplicates");
    ASSERT_EQ(found.size(), 1U);
    ASSERT_EQ(found.front().fixes.size(), 2U);
    for (const auto& fix : found.front().fixes) {
        const auto mended = test::mended(fix, g.document);
        EXPECT_TRUE(of(mended, "near-duplicates").empty());
        EXPECT_EQ(mended.get<objects::Points>(g.points)->set.size(), 121U);
    }
    auto settings = g.document.settings();
    settings.checks.near = 0.01;
    EXPECT_TRUE(of(g.document.withSettings(settings), "near-duplicates").empty());
}

TEST(GroundFindings, ASpikeIsFoundAndASlopeIsNot) {
    Field g;
    g.document =
        test::afterEdit(g.document, operations::setPointHeight({g.points, 60}, 35.0));  // the one at 50, 50
    const auto found = of(g.document, "spike");
    ASSERT_EQ(found.size(), 1U);
    EXPECT_THAT(found.front().at.value(), test::IsNear(50, 50, 0));
    EXPECT_THAT(found.front().text, testing::HasSubstr("Point 61"));
    const auto mended = test::mended(found.front().fixes.front(), g.document);
    EXPECT_TRUE(of(mended, "spike").empty());
    EXPECT_NEAR(*mended.get<objects::Points>(g.points)->set[60].height, 10, 1e-9);
    // A steep plane has no spike.
    Document slope = g.document;
    for (std::size_t i = 0; i < 121; ++i)
        slope = test::afterEdit(
            slope, operations::setPointHeight({g.points, i}, 2.0 * static_cast<double>(i % 11) * 10));
    EXPECT_TRUE(of(slope, "spike").empty());
}

TEST(GroundFindings, AnEndThatMissesALineIsMovedOntoIt) {
    Field g;
    const auto wall = g.line("Wall", "21 51, 81 51", {11.0, 13.0});
    const auto path = g.line("Path", "51 21, 51 50.95", {10.0, 10.0});
    const auto found = of(g.document, "nearly-touching");
    ASSERT_EQ(found.size(), 1U);
    EXPECT_NEAR(found.front().heights.at(1), 12, 1e-9);
    const auto mended = test::mended(found.front().fixes.front(), g.document);
    EXPECT_TRUE(of(mended, "nearly-touching").empty());
    const auto derived = deriveAll(mended);
    EXPECT_THAT(derived.lines.at(path)->vertices.back().place, test::IsNear(51, 51, 1e-9));
    EXPECT_NEAR(*derived.lines.at(path)->vertices.back().height, 12, 1e-9);
    EXPECT_TRUE(derived.surfaces.at(g.surface)->crossings.empty() ||
                std::abs(derived.surfaces.at(g.surface)->crossings.front().crossing.firstHeight -
                         derived.surfaces.at(g.surface)->crossings.front().crossing.secondHeight) < 1e-9);
    (void)wall;
}

TEST(GroundFindings, BoundariesMustBeClosedAndSimple) {
    Field g;
    g.line("Open", "5 5, 95 5, 95 95", {}, Role::Edge);
    const auto open = of(g.document, "boundary-open");
    ASSERT_EQ(open.size(), 1U);
    EXPECT_TRUE(of(test::mended(open.front().fixes.front(), g.document), "boundary-open").empty());
    Field h;
    h.line("Bow", "5 5, 95 95, 95 5, 5 95", {}, Role::Opening, true);
    const auto bow = of(h.document, "boundary-crosses-itself");
    ASSERT_EQ(bow.size(), 1U);
    EXPECT_THAT(bow.front().at.value(), test::IsNear(50, 50, 1e-9));
    EXPECT_EQ(bow.front().severity, Severity::MustFix);
}

TEST(GroundFindings, PointsOutsideTheEdgeAreCounted) {
    Field g;
    g.line("Edge", "15 15, 85 15, 85 85, 15 85", {}, Role::Edge, true);
    const auto found = of(g.document, "points-outside");
    ASSERT_EQ(found.size(), 1U);
    EXPECT_THAT(found.front().text, testing::HasSubstr(std::to_string(121 - 49) + " points"));
}

TEST(GroundFindings, FlatTrianglesOnAContourAreFlipped) {
    // A contour that turns back on itself round a nose: triangles inside its bend are flat.
    Document d;
    ObjectId low;
    ObjectId high;
    ObjectId surface;
    d = d.added("100",
                Line{linework::lineThrough(places("0 0, 10 8, 20 10, 30 8, 40 0"),
                                           {100.0, 100.0, 100.0, 100.0, 100.0}),
                     {}},
                &low);
    d = d.added("101",
                Line{linework::lineThrough(places("15 -2, 18 2, 20 3, 22 2, 25 -2"),
                                           {101.0, 101.0, 101.0, 101.0, 101.0}),
                     {}},
                &high);
    d = test::afterEdit(d, operations::addSurface("N", {{low, Role::Contour}, {high, Role::Contour}}),
                        &surface);
    const auto found = of(d, "flat-triangles");
    ASSERT_FALSE(found.empty());
    std::size_t flat = 0;
    for (const auto& f : found) flat += static_cast<std::size_t>(std::stoi(f.text));
    // Counted from the triangles themselves: three equal heights.
    const auto derived = deriveAll(d);
    const auto& tin = derived.surface(surface)->tin();
    std::size_t counted = 0;
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t) {
        const auto c = tin.triangle(t);
        if (c[0].z == c[1].z && c[1].z == c[2].z) ++counted;
    }
    EXPECT_EQ(flat, counted);
    for (const auto& f : found)
        for (const auto& fix : f.fixes) {
            const auto after = test::mended(fix, d);
            EXPECT_TRUE(of(after, "own-edit").empty());
            std::size_t left = 0;
            for (const auto& g : of(after, "flat-triangles"))
                left += static_cast<std::size_t>(std::stoi(g.text));
            EXPECT_LT(left, flat);
        }
}

TEST(GroundFindings, RimNeedlesGoWithOneFix) {
    Field g;
    // A point a hair outside the southern side makes two needles at the rim.
    g.document = test::afterEdit(g.document, operations::addPoints("s", {{"out", {50, -0.3}, 10.0, "", ""}}));
    const auto found = of(g.document, "rim-needles");
    ASSERT_EQ(found.size(), 1U);
    EXPECT_EQ(found.front().severity, Severity::Note);
    EXPECT_TRUE(of(test::mended(found.front().fixes.front(), g.document), "rim-needles").empty());
}

TEST(GroundFindings, WhereTheFitIsWorstTheSourcesPointMendsIt) {
    Field g;
    std::vector<geometry::Vec3> dense;
    for (int y = 1; y < 20; ++y)
        for (int x = 1; x < 20; ++x) dense.push_back({x * 5.0, y * 5.0, x == 7 && y == 7 ? 12.0 : 10.0});
    ObjectId cloud;
    objects::Cloud payload;
    payload.cloud = std::make_shared<const survey::PointCloud>(survey::cloudFrom(dense));
    g.document = g.document.added("flight", payload, &cloud);
    g.document = document::changed<objects::Surface>(g.document, g.surface, [&](objects::Surface& s) {
        s.fit = {cloud, 0.1};
    });
    const auto found = of(g.document, "fit");
    ASSERT_EQ(found.size(), 1U);
    EXPECT_THAT(found.front().at.value(), test::IsNear(35, 35, 1e-4));
    EXPECT_NEAR(found.front().heights[0] - found.front().heights[1], 2, 1e-3);
    const auto mended = test::mended(found.front().fixes.front(), g.document);
    for (const auto& f : of(mended, "fit")) EXPECT_GT(geometry::distance(*f.at, {35, 35}), 1);
    EXPECT_NEAR(*deriveAll(mended).surface(g.surface)->heightAt({35, 35}), 12, 1e-3);
    EXPECT_TRUE(of(mended, "same-number").empty());
}

TEST(GroundFindings, AMissingFileSaysWhichAndWhy) {
    objects::Cloud cloud;
    cloud.file = "/nowhere/flight.las";
    cloud.problem = "No such file or directory";
    const auto found = of(Document().added("flight", cloud), "file-missing");
    ASSERT_EQ(found.size(), 1U);
    EXPECT_THAT(found.front().text, testing::HasSubstr("/nowhere/flight.las"));
    EXPECT_FALSE(found.front().at);  // it has no place to go to
}

TEST(GroundFindings, AnOwnEditThatDoesNotApplyIsFoundAndTakenOut) {
    Field g;
    g.document = test::afterEdit(
        g.document,
        operations::addOwnEdit(g.surface, {{terrain::EditKind::AddPoint, {}, {500, 500, 1}}, {}, true}));
    const auto found = of(g.document, "own-edit");
    ASSERT_EQ(found.size(), 1U);
    EXPECT_TRUE(of(test::mended(found.front().fixes.front(), g.document), "own-edit").empty());
}

TEST(GroundFindings, MemoryGivesTheSameFindings) {
    Field g;
    g.document = test::afterEdit(g.document, operations::setPointHeight({g.points, 60}, 35.0));
    derive::Model model;
    Memory memory;
    for (int round = 0; round < 2; ++round) {
        const auto derived = valueOf(model.evaluate(g.document));
        const auto fresh = run(derived);
        const auto kept = run(derived, &memory);
        ASSERT_EQ(fresh.size(), kept.size());
        for (std::size_t i = 0; i < fresh.size(); ++i) EXPECT_EQ(fresh[i].text, kept[i].text);
        g.document = test::afterEdit(g.document, operations::rename(g.surface, "Renamed"));
    }
    EXPECT_EQ(memory.entries.size(), 4U);  // each check of points, and the surface under its new name
}

TEST(GroundFindings, TheListAsCsvHasARowForEach) {
    const Crossed c;
    const auto all = run(deriveAll(c.document));
    const std::string csv = toCsv(all);
    EXPECT_EQ(std::count(csv.begin(), csv.end(), '\n'), static_cast<long>(all.size()) + 1);
    EXPECT_THAT(csv, testing::HasSubstr("must-fix,crossing-breaklines,51,51,11; 12,A; B,"));
    DisplaySettings display;
    display.unit = LengthUnit::InternationalFoot;
    const std::string shown = toCsv(all, &display);
    EXPECT_THAT(shown,
                testing::StartsWith("severity,kind,easting (ft),northing (ft),heights (ft),names,text"));
    EXPECT_THAT(shown, testing::HasSubstr("crossing-breaklines,51.00,51.00,11.00; 12.00,A; B,"));
}

}  // namespace
}  // namespace erdwerk::check
