#include "core/derive/model.h"
#include "core/document/history.h"

#include "core/derive/earthwork_result.h"
#include "core/derive/parcel_result.h"
#include "core/derive/route_result.h"
#include "core/derive/surface_result.h"
#include "core/objects/group.h"
#include "core/objects/line.h"
#include "core/objects/points.h"
#include "core/objects/surface.h"
#include "core/operations/labels.h"
#include "core/operations/objects.h"
#include "core/operations/points.h"
#include "core/operations/records.h"
#include "core/operations/surfaces.h"
#include "core/terrain/contours.h"
#include "demo_site/project.h"
#include "support/after_edit.h"
#include "support/plane_site.h"

namespace erdwerk::derive {
namespace {

using namespace document;
using namespace operations;

using linework::FixedHeight;
using linework::OnSurface;
using test::places;
using test::valueOf;

struct Ground {
    Document document;
    ObjectId points;
    ObjectId surface;
    ObjectId line;

    Ground() {
        document = test::afterEdit({},
                                   addPoints("s", {{"1", {0, 0}, 0.0, "", ""},
                                                   {"2", {10, 0}, 0.0, "", ""},
                                                   {"3", {10, 10}, 0.0, "", ""},
                                                   {"4", {0, 10}, 0.0, "", ""}}),
                                   &points);
        document = test::afterEdit(document, addSurface("G", {{points, Role::Points}}), &surface);
        linework::Line3D l = linework::lineThrough(places("2 2, 8 8"), {});
        for (auto& v : l.vertices) v.rule = OnSurface{surface, 0.5};
        document = document.added("L", Line{l, {}}, &line);
    }
};

TEST(Model, ALineOnTheSurfaceFollowsAPointThatMoves) {
    Ground g;
    Model model;
    auto derived = valueOf(model.evaluate(g.document));
    EXPECT_DOUBLE_EQ(*derived.lines.at(g.line)->vertices[0].height, 0.5);
    for (std::size_t i = 0; i < 4; ++i)
        g.document = test::afterEdit(g.document, setPointHeight({g.points, i}, 10.0));
    derived = valueOf(model.evaluate(g.document));
    EXPECT_DOUBLE_EQ(*derived.lines.at(g.line)->vertices[0].height, 10.5);
}

TEST(Model, WorksOutOnlyWhatDiffers) {
    Ground g;
    Model model;
    const auto first = valueOf(model.evaluate(g.document));
    EXPECT_EQ(model.computedLast(), 3U);  // surface, line, contours
    const auto again = valueOf(model.evaluate(g.document));
    EXPECT_EQ(model.computedLast(), 0U);
    EXPECT_EQ(first.surfaces.at(g.surface), again.surfaces.at(g.surface));
    // A change of style leaves the surface as it is.
    const Document restyled =
        changed<Surface>(g.document, g.surface, [](Surface& s) { s.style.interval = 0.25; });
    const auto styled = valueOf(model.evaluate(restyled));
    EXPECT_EQ(model.computedLast(), 1U);
    EXPECT_EQ(first.surfaces.at(g.surface), styled.surfaces.at(g.surface));
}

/// Names of the sorts of results that are others after an edit, in alphabetical order.
class Dependence : public testing::Test {
protected:
    test::PlaneSite site;
    Model model;
    ObjectId alignment;

    void SetUp() override {
        EXPECT_TRUE(site.apply(drapeLine(site.results(), site.ground, site.lane)));
        EXPECT_TRUE(site.apply(makeAlignment(site.lane)));
        alignment = site.last<Alignment>();
        EXPECT_TRUE(site.apply(newProfile(alignment, site.ground)));
        EXPECT_TRUE(site.apply(makeParcel(site.plot)));
        EXPECT_TRUE(site.apply(makeLabel(site.lane, std::nullopt, 0)));
        before = valueOf(model.evaluate(site.document));
    }
    std::set<std::string> othersAfter(const Edit& edit) {
        EXPECT_TRUE(site.apply(edit)) << site.said;
        const auto now = valueOf(model.evaluate(site.document));
        std::set<std::string> out;
        const auto compare = [&](const char* name, const auto& a, const auto& b) {
            if (a != b) out.insert(name);
        };
        compare("surface", before.surfaces, now.surfaces);
        compare("contours", before.contours, now.contours);
        compare("line", before.lines, now.lines);
        compare("alignment", before.alignments, now.alignments);
        compare("profile", before.profiles, now.profiles);
        compare("parcel", before.parcels, now.parcels);
        compare("label", before.labels, now.labels);
        before = now;
        return out;
    }
    Derived before;
};

using Sorts = std::set<std::string>;

TEST_F(Dependence, APointMovesWhatLiesOnItsSurface) {
    EXPECT_EQ(othersAfter(setPointHeight({site.points, 4}, 20.0)),
              (Sorts{"surface", "contours", "line", "alignment", "profile", "label"}));
}

TEST_F(Dependence, ANoteANumberOrACodeAloneMovesNothing) {
    const auto was = site.document.get<Points>(site.points)->set[2];
    auto p = was;
    p.note = "seen";
    EXPECT_EQ(othersAfter(setPoint({site.points, 2}, p)), Sorts{});
    p.number = "3a";
    p.code = "CORNER";
    EXPECT_EQ(othersAfter(setPoint({site.points, 2}, p)), Sorts{});
    EXPECT_EQ(othersAfter(rename(site.points, "Crew 1")), Sorts{});
    // What is under it does, afterwards as before.
    p.height = *p.height + 1;
    EXPECT_EQ(othersAfter(setPoint({site.points, 2}, p)).count("surface"), 1U);
    EXPECT_EQ(othersAfter(removePoints({{site.points, 2}})).count("surface"), 1U);
}

TEST_F(Dependence, ANameOrALookMovesNothing) {
    site.document = test::afterEdit(site.document, addSource(site.ground, {site.plot, Role::Breakline}));
    before = valueOf(model.evaluate(site.document));
    EXPECT_EQ(othersAfter(rename(site.plot, "Lot")), Sorts{});
    EXPECT_EQ(othersAfter([&](const Document& d) -> Result<Edited> {
                  return changed<Line>(d, site.plot, [](Line& l) { l.style = LineStyle::Toe; });
              }),
              Sorts{});
    EXPECT_EQ(othersAfter([&](const Document& d) -> Result<Edited> {
                  return changed<Surface>(d, site.ground, [](Surface& s) { s.style.triangles = true; });
              }),
              Sorts{});
}

TEST_F(Dependence, EachSettingTouchesItsOwn) {
    EXPECT_EQ(othersAfter([&](const Document& d) -> Result<Edited> {
                  return changed<Surface>(d, site.ground, [](Surface& s) { s.style.interval = 0.3; });
              }),
              Sorts{"contours"});
    EXPECT_EQ(othersAfter(reverseAlignment(alignment)), (Sorts{"alignment", "profile"}));
    EXPECT_EQ(othersAfter(moveVertex(site.plot, 2, {95, 95})), (Sorts{"line", "parcel"}));
    // Texts are written in the project's units.
    EXPECT_EQ(othersAfter(changeSettings([](Settings& s) { s.display.lengthDecimals = 1; })),
              (Sorts{"parcel", "label"}));
}

TEST(Model, ASurfaceMadeFromALineOnItselfIsACircleNotAHang) {
    Ground g;
    g.document = test::afterEdit(g.document, addSource(g.surface, {g.line, Role::Breakline}));
    const auto derived = valueOf(evaluate(g.document));
    EXPECT_TRUE(derived.lines.at(g.line)->vertices[0].circular);
    ASSERT_TRUE(derived.surfaces.at(g.surface)->locator);
    // Taking the line out mends it, with the same memory.
    Model model;
    (void)model.evaluate(g.document);
    const auto mended = valueOf(model.evaluate(test::afterEdit(g.document, removeSource(g.surface, g.line))));
    EXPECT_FALSE(mended.lines.at(g.line)->vertices[0].circular);
}

TEST(Model, CancelledLeavesTheMemoryUsable) {
    Ground g;
    Model model;
    std::atomic<bool> stop{true};
    EXPECT_EQ(model.evaluate(g.document, {{}, &stop}).error().code, ErrorCode::Cancelled);
    EXPECT_TRUE(valueOf(model.evaluate(g.document)).surfaces.at(g.surface)->locator);
}

TEST(Model, TheDemoProjectIsWholeInEveryPart) {
    const auto derived = valueOf(evaluate(demo::project(demo::survey(7))));
    ASSERT_EQ(derived.surfaces.size(), 2U);
    for (const auto& [id, made] : derived.earthworks) EXPECT_EQ(made->problem, "");
    EXPECT_GT(derived.surfaces.begin()->second->locator->tin().triangleCount(), 1000U);
    EXPECT_GT(derived.contours.begin()->second->size(), 20U);
    EXPECT_EQ(derived.alignments.size(), 1U);
    EXPECT_GT(derived.profiles.begin()->second->ground.size(), 50U);
    EXPECT_THAT(derived.parcels.begin()->second->description,
                testing::HasSubstr("tangent curve to the left"));
    EXPECT_EQ(derived.labels.size(), 6U);
}

TEST(Model, RandomEditsAndUndoGiveTheResultsOfAFreshStart) {
    std::mt19937 random(77);
    document::History history(demo::project(demo::survey(3)));
    const ObjectId set = history.current().all<Points>().front();
    Model model;
    int undone = 0;
    for (int step = 0; step < 30; ++step) {
        if (history.canUndo() && random() % 3 == 0) {
            history.goTo(random() % history.position());
            ++undone;
        } else {
            const Document& d = history.current();
            const std::size_t i = random() % d.get<Points>(set)->set.size();
            const auto to = d.get<Points>(set)->set[i].plan +
                            geometry::Vec2{double(random() % 5) - 2, double(random() % 5) - 2};
            history.apply("move", test::afterEdit(d, movePoint({set, i}, to)));
        }
        const auto live = valueOf(model.evaluate(history.current()));
        const auto fresh = valueOf(evaluate(history.current()));
        const auto& a = live.surfaces.begin()->second->locator->tin();
        const auto& b = fresh.surfaces.begin()->second->locator->tin();
        ASSERT_TRUE(
            std::equal(a.corners().begin(), a.corners().end(), b.corners().begin(), b.corners().end()))
            << "step " << step;
    }
    EXPECT_GT(undone, 4);
}

}  // namespace
}  // namespace erdwerk::derive
