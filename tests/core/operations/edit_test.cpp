
#include "core/linework/line3d.h"
#include "core/linework/rules/fixed_height.h"
#include "core/linework/rules/interpolated.h"
#include "core/linework/rules/on_surface.h"
#include "core/objects/group.h"
#include "core/objects/line.h"
#include "core/objects/points.h"
#include "core/objects/surface.h"
#include "core/operations/lines.h"
#include "core/operations/mend.h"
#include "core/operations/objects.h"
#include "core/operations/points.h"
#include "core/operations/surfaces.h"
#include "core/operations/with.h"
#include "support/after_edit.h"
#include "support/geometry.h"

namespace erdwerk::operations {
namespace {

using namespace document;
using namespace derive;

using test::places;

struct Site {
    Document document;
    ObjectId points;
    ObjectId line;
    ObjectId ring;
    ObjectId surface;

    Site() {
        document = test::afterEdit({},
                                   addPoints("s", {{"1", {0, 0}, 1.0, "A", ""},
                                                   {"7", {10, 0}, 2.0, "A", ""},
                                                   {"x", {10, 10}, {}, "B", ""}}),
                                   &points);
        document = document.added(
            "L", Line{linework::lineThrough(places("0 0, 10 0, 20 5"), {1.0, {}, 3.0}), {}}, &line);
        document =
            document.added("R", Line{linework::lineThrough(places("0 0, 10 0, 10 10"), {}, true), {}}, &ring);
        document = test::afterEdit(
            document, addSurface("G", {{points, Role::Points}, {line, Role::Breakline}}), &surface);
    }
};

TEST(AddPoints, AppendsToASetThatHasTheName) {
    Site s;
    ObjectId set;
    const Document d = test::afterEdit(s.document, addPoints("s", {{"9", {5, 5}, {}, "", ""}}), &set);
    EXPECT_EQ(set, s.points);
    EXPECT_EQ(d.get<Points>(set)->set.size(), 4U);
    EXPECT_EQ(s.document.get<Points>(set)->set.size(), 3U);
}

TEST(SetPoint, SameValueIsNoChange) {
    const Site s;
    EXPECT_TRUE(
        difference(s.document, test::afterEdit(s.document, setPointHeight({s.points, 0}, 1.0))).empty());
    EXPECT_TRUE(
        difference(s.document, test::afterEdit(s.document, movePoint({s.points, 0}, {0, 0}))).empty());
    EXPECT_FALSE(
        difference(s.document, test::afterEdit(s.document, setPointHeight({s.points, 0}, std::nullopt)))
            .empty());
    EXPECT_FALSE(setPointHeight({s.points, 99}, 1.0)(s.document));
}

TEST(RenumberPoint, TakesTheNextFreeFigureOfTheProject) {
    const Site s;
    EXPECT_EQ(test::afterEdit(s.document, renumberPoint({s.points, 0})).get<Points>(s.points)->set[0].number,
              "8");
}

TEST(Sources, AnObjectHasOneRoleAndASurfaceOneEdge) {
    Site s;
    Document d = test::afterEdit(s.document, addSource(s.surface, {s.ring, Role::Edge}));
    EXPECT_EQ(d.get<Surface>(s.surface)->definition->sources.size(), 3U);
    d = test::afterEdit(d, addSource(s.surface, {s.line, Role::Edge}));
    const auto& sources = d.get<Surface>(s.surface)->definition->sources;
    ASSERT_EQ(sources.size(), 2U);
    EXPECT_EQ(sources[1], (Source{s.line, Role::Edge}));
    EXPECT_FALSE(hasSource(d, s.surface, s.ring));
    EXPECT_TRUE(hasSource(d, s.surface, s.points));
    EXPECT_EQ(test::afterEdit(d, setMaxEdge(s.surface, 25)).get<Surface>(s.surface)->definition->maxEdge, 25);
}

TEST(Sources, AStyleChangeKeepsTheVeryDefinition) {
    const Site s;
    const Document d = changed<Surface>(s.document, s.surface, [](Surface& x) { x.style.interval = 2; });
    EXPECT_EQ(d.get<Surface>(s.surface)->definition, s.document.get<Surface>(s.surface)->definition);
}

TEST(ConnectPoints, PassesOverRepeatedPlacesAndNeedsTwo) {
    Site s;
    EXPECT_TRUE(difference(s.document, withLineThrough(s.document, s.points, {1}, "x")).empty());
    EXPECT_TRUE(difference(s.document, withLineThrough(s.document, s.points, {1, 1}, "x")).empty());
    const Document d = withLineThrough(s.document, s.points, {0, 1, 1, 2}, "x");
    const ObjectId line = d.byName<Line>("x");
    EXPECT_EQ(d.get<Line>(line)->line.vertices.size(), 3U);
    EXPECT_FALSE(d.get<Line>(line)->line.closed);
}

TEST(InterpolateMissing, FillsInsideAndCarriesTheNearestToTheEnds) {
    Site s;
    Document d = test::afterEdit(s.document, interpolateMissing(s.line));
    EXPECT_TRUE(std::holds_alternative<linework::Interpolated>(d.get<Line>(s.line)->line.vertices[1].rule));
    ObjectId open;
    d = d.added("O", Line{linework::lineThrough(places("0 0, 1 0, 2 0"), {{}, 5.0, {}}), {}}, &open);
    d = test::afterEdit(d, interpolateMissing(open));
    for (const std::size_t i : {0U, 2U})
        EXPECT_EQ(std::get<linework::FixedHeight>(d.get<Line>(open)->line.vertices[i].rule).height, 5);
}

TEST(CloseLine, NeedsThreeCorners) {
    Site s;
    EXPECT_TRUE(test::afterEdit(s.document, closeLine(s.line)).get<Line>(s.line)->line.closed);
    ObjectId two;
    const Document d = s.document.added("T", Line{linework::lineThrough(places("0 0, 1 0"), {}), {}}, &two);
    EXPECT_FALSE(closeLine(two)(d));
}

TEST(Groups, AHiddenGroupHidesItsObjectsAndGoesWithoutThem) {
    Site s;
    ObjectId group;
    Document d = s.document.added("Rock", Group{"#112233"}, &group);
    d = test::afterEdit(d, setGroup(s.line, group)).withShown({{group}, {}});
    EXPECT_TRUE(d.hidden(*d.find(s.line)));
    EXPECT_FALSE(d.hidden(*d.find(s.ring)));
    EXPECT_THAT(dependents(d, group), testing::ElementsAre(s.line));
    d = d.without(group);
    ASSERT_TRUE(d.find(s.line));
    EXPECT_FALSE(d.find(s.line)->group);
}

TEST(Rename, EmptyNamesAreNotTaken) {
    const Site s;
    EXPECT_FALSE(rename(s.line, "")(s.document));
    EXPECT_EQ(test::afterEdit(s.document, rename(s.line, "Ditch")).nameOf(s.line), "Ditch");
}

TEST(Dependents, NameEverythingThatUsesAnObject) {
    Site s;
    auto on = s.document.get<Line>(s.ring)->line;
    on.vertices[0].rule = linework::OnSurface{s.surface, 0.1};
    const Document d = withLine(s.document, s.ring, on);
    EXPECT_THAT(dependents(d, s.surface), testing::ElementsAre(s.ring));
    EXPECT_THAT(dependents(d, s.line), testing::ElementsAre(s.surface));
}

}  // namespace
}  // namespace erdwerk::operations
