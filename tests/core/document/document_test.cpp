#include "core/document/document.h"

#include "core/annotate/label_style.h"
#include "core/document/history.h"
#include "core/document/transaction.h"
#include "core/linework/line3d.h"
#include "core/linework/rules/fixed_height.h"
#include "core/linework/rules/no_height.h"
#include "core/objects/alignment.h"
#include "core/objects/group.h"
#include "core/objects/label.h"
#include "core/objects/label_style.h"
#include "core/objects/line.h"
#include "core/objects/points.h"
#include "core/objects/profile.h"
#include "core/objects/surface.h"
#include "core/operations/lines.h"
#include "core/operations/mend.h"
#include "core/operations/objects.h"
#include "core/operations/points.h"
#include "core/operations/surfaces.h"
#include "support/after_edit.h"
#include "support/geometry.h"

namespace erdwerk::document {
namespace {

using namespace objects;
using namespace operations;

using test::places;

TEST(Document, EditsShareWhatDidNotChange) {
    ObjectId a;
    ObjectId b;
    Document d = Document().added("A", Line{linework::lineThrough(places("0 0, 1 1"), {}), {}}, &a);
    d = d.added("B", Line{linework::lineThrough(places("0 0, 1 1"), {}), {}}, &b);
    const Document e = test::afterEdit(d, rename(b, "C"));
    EXPECT_EQ(d.find(a), e.find(a));
    EXPECT_NE(d.find(b), e.find(b));
    EXPECT_EQ(d.nameOf(b), "B");
    const Change change = difference(d, e);
    EXPECT_THAT(change.changed, testing::ElementsAre(b));
    EXPECT_TRUE(change.removed.empty());
    EXPECT_FALSE(change.settings);
}

TEST(Document, IdsAreNotReused) {
    ObjectId a;
    ObjectId b;
    Document d = Document().added("A", Group{}, &a).without(a).added("B", Group{}, &b);
    EXPECT_NE(a, b);
    EXPECT_EQ(freshName<Group>(d, "B"), "B 1");
}

TEST(Document, RemovingTakesWhatCannotBeWithoutIt) {
    ObjectId line;
    ObjectId surface;
    ObjectId alignment;
    ObjectId profile;
    ObjectId label;
    ObjectId style;
    Document d = Document().added("L", Line{linework::lineThrough(places("0 0, 1 1"), {}), {}}, &line);
    d = test::afterEdit(d, addSurface("S", {{line, Role::Breakline}}), &surface);
    d = d.added("A", Alignment{line, false, 0, 20}, &alignment);
    d = d.added("P", Profile{alignment, surface, {}, 5}, &profile);
    d = d.added("st", LabelStyle{annotate::defaultStyle(annotate::LabelKind::Segment)}, &style);
    d = d.added("lab", Label{line, 0, style}, &label);
    const Document e = d.without(line);
    EXPECT_FALSE(e.find(line));
    EXPECT_FALSE(e.find(alignment));
    EXPECT_FALSE(e.find(profile));
    EXPECT_FALSE(e.find(label));
    EXPECT_TRUE(e.find(style));
    EXPECT_TRUE(e.get<Surface>(surface)->definition->sources.empty());
    EXPECT_EQ(d.without(surface).get<Profile>(profile)->ground, ObjectId{});
}

TEST(RemovePoints, LabelsFollowTheirPoints) {
    ObjectId set;
    ObjectId style;
    ObjectId first;
    ObjectId last;
    Document d = test::afterEdit(
        {}, addPoints("s", {{"1", {0, 0}, {}, "", ""}, {"2", {1, 0}, {}, "", ""}, {"3", {2, 0}, {}, "", ""}}),
        &set);
    d = d.added("st", LabelStyle{annotate::defaultStyle(annotate::LabelKind::Point)}, &style);
    d = d.added("a", Label{set, 0, style}, &first).added("b", Label{set, 2, style}, &last);
    d = test::valueOf(perform("delete", operations::remove({}, {{set, 0}, {set, 0}}), d)).document;
    EXPECT_FALSE(d.find(first));
    EXPECT_EQ(d.get<Label>(last)->part, 1U);
    EXPECT_EQ(d.get<Points>(set)->set.size(), 2U);
}

TEST(ConnectPoints, ClosesWhenTheFirstComesAgain) {
    ObjectId set;
    ObjectId line;
    Document d = test::afterEdit({},
                                 addPoints("s", {{"1", {0, 0}, 1.0, "", ""},
                                                 {"2", {9, 0}, {}, "", ""},
                                                 {"3", {9, 9}, 2.0, "", ""},
                                                 {"4", {0, 0}, 1.0, "", ""}}),
                                 &set);
    d = test::afterEdit(d, operations::connectPoints(set, {0, 1, 2, 3}, false), &line);
    const auto* l = d.get<Line>(line);
    ASSERT_NE(l, nullptr);
    EXPECT_TRUE(l->line.closed);
    EXPECT_EQ(l->line.vertices.size(), 3U);
    EXPECT_TRUE(std::holds_alternative<linework::NoHeight>(l->line.vertices[1].rule));
}

TEST(SetHeightOnLine, PutsAGradePointOrSetsTheVertex) {
    ObjectId id;
    Document d = Document().added("L", Line{linework::lineThrough(places("0 0, 10 0"), {1.0, 2.0}), {}}, &id);
    d = test::afterEdit(d, setHeightOnLine(id, {4, 0.1}, 7));
    ASSERT_EQ(d.get<Line>(id)->line.vertices.size(), 3U);
    EXPECT_DOUBLE_EQ(d.get<Line>(id)->line.vertices[1].fraction, 0.4);
    d = test::afterEdit(d, setHeightOnLine(id, {10, 0}, 9));
    EXPECT_EQ(d.get<Line>(id)->line.vertices.size(), 3U);
    EXPECT_EQ(std::get<linework::FixedHeight>(d.get<Line>(id)->line.vertices[2].rule).height, 9);
}

TEST(Edits, OfWhatIsGoneSaySo) {
    const Document d;
    EXPECT_EQ(setPointHeight({{5}, 0}, 1.0)(d).error().text, "the point is gone");
    EXPECT_FALSE(closeLine({5})(d));
    EXPECT_EQ(removeSource({5}, {6})(d).error().text, "the surface is gone");
}

TEST(History, UndoAndRedoReturnTheVeryDocuments) {
    History h;
    std::vector<Document> seen{h.current()};
    for (int i = 0; i < 5; ++i) {
        h.apply("step", h.current().added("G", Group{}));
        seen.push_back(h.current());
    }
    for (std::size_t i = 6; i-- > 0;) {
        h.goTo(i);
        EXPECT_TRUE(difference(h.current(), seen[i]).empty());
    }
    h.goTo(3);
    h.apply("other", h.current());
    EXPECT_FALSE(h.canRedo());
    EXPECT_EQ(h.steps().size(), 5U);
}

}  // namespace
}  // namespace erdwerk::document
