#include "core/operations/earthworks.h"
#include "core/terrain/trace.h"
#include "demo_site/project.h"
#include "demo_site/site.h"

#include <cmath>

#include "core/check/finding.h"
#include "core/derive/earthwork_result.h"
#include "core/derive/route_result.h"
#include "core/derive/surface_result.h"
#include "core/objects/alignment.h"
#include "core/objects/group.h"
#include "core/objects/line.h"
#include "core/objects/profile.h"
#include "core/objects/surface.h"
#include "core/operations/objects.h"
#include "core/operations/points.h"
#include "core/operations/show.h"
#include "core/operations/surfaces.h"
#include "core/operations/with.h"
#include "core/terrain/contours.h"
#include "support/after_edit.h"
#include "support/geometry.h"

namespace erdwerk::operations {
namespace {

using test::places;
using test::valueOf;

/// Level ground at 100 over 200 x 200, and a square edge of 20 x 20 in its middle at 105.
struct Site {
    Document document;
    ObjectId ground, edge;
    derive::Model model;

    Site() {
        std::vector<survey::SurveyPoint> points;
        for (const double x : {0.0, 70.0, 130.0, 200.0})
            for (const double y : {0.0, 70.0, 130.0, 200.0})
                points.push_back({std::to_string(points.size() + 1), {x, y}, 100.0, "", ""});
        ObjectId set;
        document = test::afterEdit(document, addPoints("Survey", points), &set);
        document = test::afterEdit(document, addSurface("Ground", {{set, Role::Points}}), &ground);
        Line line{linework::lineThrough(places("90 90, 110 90, 110 110, 90 110"), {105.0}, true)};
        line.line.vertices[1].rule = linework::RiseFromPrevious{0};
        line.line.vertices[2].rule = linework::RiseFromPrevious{0};
        line.line.vertices[3].rule = linework::RiseFromPrevious{0};
        document = document.added("Terrace", line, &edge);
    }
    Results results() { return std::make_shared<const Derived>(valueOf(model.evaluate(document))); }
    void apply(const Edit& edit) {
        auto done = document::perform("edit", edit, document);
        ASSERT_TRUE(done) << done.error().text;
        document = std::move(done->document);
    }
    Earthwork pad() const {
        Earthwork out;
        out.sort = EarthworkSort::Pad;
        out.edge = edge;
        out.ground = ground;
        return out;
    }
    ObjectId only() const { return document.all<Earthwork>().front(); }
};

double frustum(double outer, double inner, double depth) {
    return depth / 3 * (outer * outer + inner * inner + outer * inner);
}

TEST(Earthworks, APadBecomesPartOfTheFinishedSurface) {
    Site site;
    site.apply(addEarthwork(site.pad()));
    EXPECT_EQ(site.document.nameOf(site.only()), "Terrace pad");
    const ObjectId finished = finishedOf(site.document, site.ground);
    ASSERT_TRUE(finished);
    EXPECT_EQ(site.document.nameOf(finished), "Ground finished");
    EXPECT_TRUE(site.document.hidden(*site.document.find(site.ground)));
    const auto seen = site.results();
    const auto* made = Derived::in(seen->earthworks, site.only());
    ASSERT_NE(made, nullptr);
    EXPECT_EQ(made->problem, "");
    EXPECT_NEAR(made->volumes.fill, frustum(40, 20, 5), 1e-7);
    EXPECT_NEAR(made->net, frustum(40, 20, 5), 1e-7);
    EXPECT_NEAR(*seen->surface(finished)->heightAt({100, 100}), 105, 1e-9);
    EXPECT_NEAR(*seen->surface(finished)->heightAt({115, 100}), 102.5, 1e-9);
    EXPECT_NEAR(*seen->surface(finished)->heightAt({140, 100}), 100, 1e-9);
    EXPECT_NEAR(*seen->surface(site.ground)->heightAt({100, 100}), 100, 1e-9);
}

TEST(Earthworks, APadWithAStepBetweenItsFacesIsInTheFinishedSurface) {
    // At its inside corner one side lies 3 m over the ground, the other 3 m under it: fill beside cut.
    Site site;
    site.edge = {};
    site.document =
        site.document.added("Stepped",
                            objects::Line{linework::lineThrough(
                                places("90 90, 110 90, 110 100, 101 100, 100 100, 100 101, 100 110, 90 110"),
                                {103.0, 103.0, 103.0, 103.0, 100.0, 97.0, 97.0, 97.0}, true)},
                            &site.edge);
    site.apply(addEarthwork(site.pad()));
    const auto seen = site.results();
    const auto* finished = Derived::in(seen->surfaces, finishedOf(site.document, site.ground));
    ASSERT_NE(finished, nullptr);
    for (const auto& [edit, why] : finished->editProblems) ADD_FAILURE() << why;
    // On both sides of the way that is as far from both, 3 m out: 103 - 1.5 and 97 + 1.5.
    EXPECT_NEAR(*finished->locator->heightAt({103.01, 103}), 101.5, 0.01);
    EXPECT_NEAR(*finished->locator->heightAt({103, 103.01}), 98.5, 0.01);
    EXPECT_NEAR(*finished->locator->heightAt({120, 120}), 100, 1e-9);
    double area = 0;
    const auto& tin = finished->locator->tin();
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t) {
        const auto [a, b, c] = tin.triangle(t);
        area += geometry::cross(b.plan() - a.plan(), c.plan() - a.plan()) / 2;
    }
    EXPECT_NEAR(area, 200.0 * 200.0, 0.01);
}

TEST(Earthworks, ExistingAndFinishedGroundAreShownTogether) {
    Site site;
    // A slope, so that there are contours to take away.
    site.apply([&](const Document& d) -> Result<Edited> {
        Document out = d;
        ObjectId ground;
        out = test::afterEdit(out,
                              addPoints("Slope", {{"1", {0, 0}, 90.0, "", ""},
                                                  {"2", {200, 0}, 110.0, "", ""},
                                                  {"3", {200, 200}, 110.0, "", ""},
                                                  {"4", {0, 200}, 90.0, "", ""}}),
                              &ground);
        return document::changed<objects::Surface>(out, site.ground, [&](objects::Surface& s) {
            auto definition = *s.definition;
            definition.sources = {{ground, objects::Role::Points}};
            s.definition = std::make_shared<const objects::SurfaceDefinition>(definition);
        });
    });
    site.apply(addEarthwork(site.pad()));
    const ObjectId finished = finishedOf(site.document, site.ground);
    ObjectId along;
    site.apply([&](const Document& d) -> Result<Edited> {
        ObjectId line;
        ObjectId id;
        Document out =
            d.added("Axis", objects::Line{linework::lineThrough({{20, 100}, {180, 100}}, {}), {}}, &line);
        out = out.added("Axis", objects::Alignment{line, false, 0, 20}, &id);
        return out.added("Over it", objects::Profile{id, site.ground, {}, 5}, &along);
    });
    const auto seen = site.results();
    const auto& profile = *seen->profiles.at(along);
    ASSERT_EQ(profile.others.size(), 1U);
    EXPECT_EQ(profile.others[0].surface, finished);
    EXPECT_NEAR(*route::heightAt(profile.ground, 80), 100, 1e-9);
    EXPECT_NEAR(*route::heightAt(profile.others[0].points, 80), 105, 1e-9);
    EXPECT_NEAR(*route::heightAt(profile.others[0].points, 10), *route::heightAt(profile.ground, 10), 1e-9);
    // What the pad took away is what lies under it: the ground falls and rises to it at 1 : 10, the batters 2
    // : 1.
    const auto lengthOf = [](const std::vector<terrain::Contour>& lines) {
        double sum = 0;
        for (const auto& line : lines)
            for (std::size_t k = 1; k < line.places.size(); ++k)
                sum += geometry::distance(line.places[k - 1], line.places[k]);
        return sum;
    };
    EXPECT_NEAR(lengthOf(*seen->contours.at(site.ground)), 20 * 200, 1e-6);
    double under = 0;
    const auto* made = seen->earthworks.at(site.only())->surface.get();
    for (int level = 91; level <= 110; ++level)
        for (double y = 0.005; y < 200; y += 0.01)
            under += made->triangleAt({(level - 90) * 10.0, y}) ? 0.01 : 0;
    EXPECT_GT(under, 20);
    EXPECT_NEAR(lengthOf(*seen->contoursBefore.at(finished)), under, 0.2);
    site.apply([&](const Document& d) -> Result<Edited> {
        return document::changed<objects::Surface>(d, finished,
                                                   [](objects::Surface& s) { s.style.before = false; });
    });
    EXPECT_TRUE(site.results()->contoursBefore.empty());
}

TEST(Earthworks, FromOneSlopeToAnotherIsOneEdit) {
    Site site;
    site.apply(addEarthwork(site.pad()));
    site.results();
    site.apply(setTypedSlope(site.only(), SlopeOf::Both, "3:1"));
    const auto seen = site.results();
    EXPECT_NEAR(seen->earthworks.at(site.only())->volumes.fill, frustum(50, 20, 5), 1e-7);
    const ObjectId finished = finishedOf(site.document, site.ground);
    EXPECT_NEAR(*seen->surface(finished)->heightAt({122, 100}), 101, 1e-9);
    EXPECT_FALSE(setTypedSlope(site.only(), SlopeOf::Cut, "0:1")(site.document));
    EXPECT_FALSE(setTypedSlope(site.only(), SlopeOf::Cut, "steep")(site.document));
}

TEST(Earthworks, FollowsItsEdgeAndGoesWithIt) {
    Site site;
    site.apply(addEarthwork(site.pad()));
    site.results();
    site.apply(moveVertex(site.edge, 1, {120, 90}));
    site.apply(moveVertex(site.edge, 2, {120, 110}));
    auto seen = site.results();
    EXPECT_NEAR(seen->earthworks.at(site.only())->volumes.area, 50 * 40, 1e-7);
    const ObjectId finished = finishedOf(site.document, site.ground);
    site.apply([&](const Document& d) -> Result<Edited> { return document::removeAll(d, {site.edge}); });
    EXPECT_TRUE(site.document.all<Earthwork>().empty());
    seen = site.results();
    EXPECT_TRUE(seen->earthworks.empty());
    EXPECT_NEAR(*seen->surface(finished)->heightAt({100, 100}), 100, 1e-9);
}

TEST(Earthworks, WithoutItsGroundItSaysSoAndKeepsAll) {
    Site site;
    site.apply(addEarthwork(site.pad()));
    const ObjectId id = site.only();
    site.apply([&](const Document& d) -> Result<Edited> { return document::removeAll(d, {site.ground}); });
    const auto seen = site.results();
    ASSERT_NE(site.document.get<Earthwork>(id), nullptr);
    EXPECT_NE(seen->earthworks.at(id)->problem.find("no ground"), std::string::npos);
    const auto findings = check::run(*seen);
    EXPECT_TRUE(
        std::any_of(findings.begin(), findings.end(), [](const auto& f) { return f.kind == "earthwork"; }));
}

TEST(Earthworks, LaterOnesLieOverEarlierOnesAndAGroupFitsTogether) {
    for (const bool grouped : {false, true}) {
        Site site;
        if (grouped) {
            ObjectId group;
            site.document = site.document.added("Works", Group{"#123456"}, &group);
            site.document = test::afterEdit(site.document, setGroup(site.edge, group));
        }
        site.apply(addEarthwork(site.pad()));
        // A second pad whose edge stands on the first one's slope, lower.
        ObjectId second;
        site.document =
            site.document.added("Yard",
                                Line{linework::lineThrough(places("114 95, 134 95, 134 105, 114 105"),
                                                           {101.0, 101.0, 101.0, 101.0}, true)},
                                &second);
        if (grouped)
            site.document =
                test::afterEdit(site.document, setGroup(second, site.document.find(site.edge)->group));
        Earthwork yard = site.pad();
        yard.edge = second;
        site.apply(addEarthwork(yard));
        const auto seen = site.results();
        const auto* surface = seen->surface(finishedOf(site.document, site.ground));
        EXPECT_NEAR(*surface->heightAt({124, 100}), 101, 1e-9);
        const auto& made = *seen->earthworks.at(site.document.all<Earthwork>().back());
        // On the slope of the first one it cuts (the slope is at 103 where its edge begins); alone it fills.
        if (grouped)
            EXPECT_GT(made.volumes.cut, 1);
        else
            EXPECT_NEAR(made.volumes.cut, 0, 1e-9);
    }
}

TEST(Earthworks, BalancingLiftsTheEdgeWithItsRules) {
    Site site;
    Earthwork pad = site.pad();
    pad.earth.swell = 1.25;
    site.apply(addEarthwork(pad));
    const auto seen = site.results();
    // On level ground nothing is cut and nothing filled at 100 only: 50 left over needs a cut.
    site.apply(document::atOnce(balanceEarthwork(seen, site.only(), 50)));
    const auto after = site.results();
    const auto& made = *after->earthworks.at(site.only());
    EXPECT_NEAR(-made.net, 50, 1e-6);
    EXPECT_LT(*made.height, 100);
    EXPECT_TRUE(std::holds_alternative<linework::RiseFromPrevious>(
        site.document.get<Line>(site.edge)->line.vertices[1].rule));
    const auto curve = valueOf(balanceCurve(*after, site.only(), 1));
    ASSERT_GT(curve.size(), 5U);
    for (std::size_t i = 1; i < curve.size(); ++i) EXPECT_GT(curve[i].net, curve[i - 1].net);
}

TEST(Earthworks, APondHasAStageTable) {
    Site site;
    site.document =
        withLine(site.document, site.edge,
                 linework::lineThrough(places("90 90, 110 90, 110 110, 90 110"), {96, 96, 96, 96}, true));
    Earthwork pond = site.pad();
    pond.sort = EarthworkSort::Pond;
    pond.form.cut = pond.form.fill = "1:1";
    site.apply(addEarthwork(pond));
    const auto seen = site.results();
    const auto& made = *seen->earthworks.at(site.only());
    ASSERT_TRUE(made.storage);
    EXPECT_NEAR(made.storage->spill, 100, 1e-9);
    EXPECT_NEAR(made.storage->stages.back().volume, frustum(28, 20, 4), 1e-6);
}

TEST(Earthworks, ABatterTakesAStretchASideAndAKind) {
    Site site;
    Earthwork batter = site.pad();
    batter.sort = EarthworkSort::Batter;
    batter.right = true;
    batter.stretch = valueOf(parseStretch("2 to 12"));
    site.apply(addEarthwork(batter));
    auto seen = site.results();
    EXPECT_NEAR(seen->earthworks.at(site.only())->batter.planArea, 10 * 10, 1e-9);
    earthwork::BatterForm flat;
    flat.cut = "3:1";
    flat.fill = "4:1";
    site.apply(saveBatterKind("Flat", flat));
    site.apply(takeBatterKind(site.only(), site.document.byName<BatterKind>("Flat")));
    seen = site.results();
    EXPECT_NEAR(seen->earthworks.at(site.only())->batter.planArea, 10 * 20, 1e-9);
    site.apply(setTypedTarget(site.only(), "rise -2"));
    EXPECT_NEAR(site.results()->earthworks.at(site.only())->batter.planArea, 10 * 8, 1e-9);
    site.apply(setTypedChanges(site.only(), "5 to 5: 1:1, 1:1"));
    EXPECT_NEAR(site.results()->earthworks.at(site.only())->batter.planArea, 5 * 8 + 5 * 2, 1e-6);
    EXPECT_EQ(changesText(site.document.get<Earthwork>(site.only())->form.changes), "5 to 5: 1:1, 1:1");
    for (const char* bad : {"5", "5 to", "x to 5: 1:1, 1:1", "9 to 5: 1:1, 1:1"})
        EXPECT_FALSE(setTypedChanges(site.only(), bad)(site.document)) << bad;
    EXPECT_FALSE(parseStretch("2"));
    EXPECT_FALSE(parseStretch("-2 to 5"));
    EXPECT_FALSE(setTypedTarget(site.only(), "up")(site.document));
}

TEST(Earthworks, APadThatTakesTooMuchSaysSo) {
    Site site;
    site.apply(addEarthwork(site.pad()));
    const auto large = [&]() -> std::optional<check::Finding> {
        for (const auto& f : check::run(*site.results()))
            if (f.kind == "earthwork-large") return f;
        return std::nullopt;
    };
    // 5 m up from 400 m2: more than the 4 000 m3 that go with that size (4 666.7 m3 are in it), no more than
    // 40 m out and 10 m high.
    auto found = large();
    ASSERT_TRUE(found);
    EXPECT_EQ(found->text, "'Terrace pad' is large: fill 4666.7 m³ (limit 4000.0 m³)");
    const auto limits = [&](double earth, double reach, double depth) {
        site.apply(changeSettings([=](document::Settings& s) {
            s.checks.earth = earth;
            s.checks.reach = reach;
            s.checks.depth = depth;
        }));
    };
    limits(5000, 0, 0);
    EXPECT_FALSE(large());
    // On a mitre the corner of the slopes is 10 m out from both sides.
    limits(5000, 14, 4.9);
    found = large();
    ASSERT_TRUE(found);
    EXPECT_EQ(found->text,
              "'Terrace pad' is large: slopes run out 14.14 m (limit 14.00 m), slopes are as high as 5.00 m "
              "(limit 4.90 m)");
    EXPECT_NEAR(std::abs(found->at->x - 100), 20, 1e-9);
    EXPECT_NEAR(std::abs(found->at->y - 100), 20, 1e-9);
}

TEST(Earthworks, WhatCannotBeIsRefusedAndChangesNothing) {
    Site site;
    ObjectId open;
    site.document =
        site.document.added("Open", Line{linework::lineThrough(places("0 0, 10 0"), {1, 2})}, &open);
    Earthwork bad = site.pad();
    bad.edge = open;
    EXPECT_FALSE(addEarthwork(bad)(site.document));
    bad = site.pad();
    bad.edge = site.ground;
    EXPECT_FALSE(addEarthwork(bad)(site.document));
    bad = site.pad();
    bad.ground = {};
    EXPECT_FALSE(addEarthwork(bad)(site.document));
    bad = site.pad();
    bad.form.cut = "0:1";
    EXPECT_FALSE(addEarthwork(bad)(site.document));
    EXPECT_FALSE(document::atOnce(balanceEarthwork(site.results(), open, 0))(site.document));
    // An edge that takes its height from the finished surface goes in a circle; it ends, and is told.
    site.apply(addEarthwork(site.pad()));
    site.apply(setRule(site.edge, 0, linework::OnSurface{finishedOf(site.document, site.ground), 1}));
    const auto seen = site.results();
    EXPECT_FALSE(seen->earthworks.at(site.only())->problem.empty());
}

/// Sides of the rim on whose inside another vertex lies: there the triangles on both hands do not meet, and
/// the ground shows through the slit. Where the side lies on the ground itself nothing is to be seen.
std::size_t slitsIn(const terrain::Tin& tin, const terrain::TinLocator& ground) {
    std::size_t slits = 0;
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t)
        for (int i = 0; i < 3; ++i) {
            if (tin.neighbour(t, i) != terrain::Tin::none) continue;
            const auto& a = tin.vertex(tin.corner(t, (i + 1) % 3));
            const auto& b = tin.vertex(tin.corner(t, (i + 2) % 3));
            const auto under = ground.heightAt(geometry::lerp(a.plan(), b.plan(), 0.5));
            if (!under || std::abs((a.z + b.z) / 2 - *under) < 1e-3) continue;
            const geometry::Segment side{a.plan(), b.plan(), {}};
            for (const auto& v : tin.vertices()) {
                const auto p = pointAt(side, nearestFraction(side, v.plan()));
                if (geometry::distance(p, v.plan()) < 2e-6 && geometry::distance(p, a.plan()) > 2e-6 &&
                    geometry::distance(p, b.plan()) > 2e-6)
                    ++slits;
            }
        }
    return slits;
}

TEST(Earthworks, PadsHaveNoSlitsWhereAFaceEndsBesideACorner) {
    // The lane's edge lies on the ground at its ends: a face ends micrometres before a corner there.
    const auto derived = test::valueOf(derive::evaluate(demo::project(demo::survey(7))));
    for (const auto& [id, work] : derived.earthworks) {
        ASSERT_TRUE(work->surface) << derived.document.nameOf(id);
        EXPECT_EQ(slitsIn(work->surface->tin(), *work->ground), 0U) << derived.document.nameOf(id);
    }
    for (const auto& [id, surface] : derived.surfaces) EXPECT_TRUE(surface->editProblems.empty());
    // Across the lane the finished surface never lies above both the ground and its own neighbours.
    const auto* finished = derived.surface(derived.document.byName<objects::Surface>("Ground finished"));
    const auto* ground = derived.surface(derived.document.byName<objects::Surface>("Ground"));
    const auto& lane = *derived.alignments.begin()->second;
    for (double station = 10; station < 225; station += 5) {
        const auto from = route::placeAt(lane, station, -8);
        const auto to = route::placeAt(lane, station, 8);
        const auto section = terrain::trace(*finished, from, to);
        for (std::size_t k = 1; k + 1 < section.size(); ++k) {
            if (!section[k].height || !section[k - 1].height || !section[k + 1].height) continue;
            const double above =
                *section[k].height - std::max(*section[k - 1].height, *section[k + 1].height);
            const bool onGround = std::abs(*section[k].height - *ground->heightAt(section[k].place)) < 1e-6;
            EXPECT_FALSE(onGround && above > 0.2) << station;
        }
    }
}

}  // namespace
}  // namespace erdwerk::operations
