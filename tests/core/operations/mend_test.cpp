#include "core/operations/mend.h"

#include "core/linework/line3d.h"
#include "core/linework/rules/grade_from_previous.h"
#include "core/objects/line.h"
#include "support/geometry.h"

namespace erdwerk::operations {
namespace {

using namespace document;
using namespace derive;

using test::places;
using test::valueOf;

struct Lines {
    Document document;
    ObjectId add(const std::string& at, std::vector<std::optional<double>> heights, bool closed = false) {
        ObjectId id;
        document =
            document.added(freshName<Line>(document, "L"),
                           Line{linework::lineThrough(places(at), heights, closed), LineStyle::Plain}, &id);
        return id;
    }
    [[nodiscard]] Derived derived() const { return valueOf(evaluate(document)); }
};

TEST(Mend, ASharedCornerUsesAVertexThatStandsThere) {
    Lines l;
    const ObjectId a = l.add("0 5, 5 5, 10 5", {1.0, 1.0, 1.0});
    const ObjectId b = l.add("5 0, 5 10", {3.0, 3.0});
    const auto next = valueOf(evaluate(shareCorner(l.document, a, b, {5, 5}, 2)));
    EXPECT_EQ(next.lines.at(a)->vertices.size(), 3U);
    EXPECT_EQ(next.lines.at(b)->vertices.size(), 3U);
    EXPECT_EQ(next.lines.at(a)->vertices[1].height, 2.0);
    EXPECT_EQ(next.lines.at(b)->vertices[1].height, 2.0);
    // Ends keep theirs.
    EXPECT_EQ(next.lines.at(a)->vertices[0].height, 1.0);
}

TEST(Mend, WhatIsGoneChangesNothing) {
    Lines l;
    const ObjectId a = l.add("0 0, 10 0", {1.0, 1.0});
    const ObjectId gone{77};
    const auto d = l.derived();
    EXPECT_EQ(moveNearestCorner(l.document, d, a, gone, {5, 0}).find(a), l.document.find(a));
    EXPECT_EQ(trimOvershoot(l.document, d, gone, {5, 0}, 1).objects(), l.document.objects());
    EXPECT_EQ(moveEnd(l.document, gone, true, {1, 2, 3}).objects(), l.document.objects());
    EXPECT_FALSE(overshoot(l.document, gone, {0, 0}));
}

TEST(Mend, AClosedLineHasNoOvershoot) {
    Lines l;
    const ObjectId ring = l.add("0 0, 10 0, 10 10", {1.0, 1.0, 1.0}, true);
    EXPECT_FALSE(overshoot(l.document, ring, {5, 0}));
    EXPECT_EQ(trimOvershoot(l.document, l.derived(), ring, {5, 0}, 1).find(ring)->name, "L 1");
}

TEST(Mend, TrimmingKeepsGradesAsHeightsAcrossTheCut) {
    Lines l;
    const ObjectId line = l.add("0 0, 10 0, 20 0, 22 0", {10.0, std::nullopt, std::nullopt, std::nullopt});
    l.document = changed<Line>(l.document, line, [](Line& x) {
        for (std::size_t i = 1; i < 4; ++i)
            x.line.vertices[i].rule = linework::GradeFromPrevious{Grade::percent(10)};
    });
    const auto next = valueOf(evaluate(trimOvershoot(l.document, l.derived(), line, {20, 0}, 12)));
    const auto& v = next.lines.at(line)->vertices;
    ASSERT_EQ(v.size(), 3U);
    EXPECT_NEAR(*v[1].height, 11, 1e-9);
    EXPECT_NEAR(*v[2].height, 12, 1e-9);
}

TEST(Mend, PointsForASurfaceHaveFreeNumbersAndJoinItsSources) {
    Lines l;
    ObjectId set;
    ObjectId surface;
    l.document = addPoints(l.document, "survey", {{"41", {0, 0}, 1.0, "", ""}}, &set);
    l.document = addSurface(l.document, "G", {{set, Role::Points}}, &surface);
    auto next = addToSurface(l.document, surface, "Extra", {{1, 2, 3}, {4, 5, 6}}, "fit");
    const ObjectId extra = next.byName<Points>("Extra");
    ASSERT_TRUE(extra);
    EXPECT_EQ(next.get<Points>(extra)->set[0].number, "42");
    EXPECT_EQ(next.get<Points>(extra)->set[1].number, "43");
    EXPECT_TRUE(hasSource(next, surface, extra));
    next = addToSurface(next, surface, "Extra", {{7, 8, 9}}, "fit");
    EXPECT_EQ(next.get<Points>(extra)->set.size(), 3U);
    EXPECT_EQ(next.get<Surface>(surface)->definition->sources.size(), 2U);
}

TEST(Mend, AnOwnEditIsTriedBeforeItIsKept) {
    Lines l;
    ObjectId set;
    ObjectId surface;
    l.document = addPoints(
        l.document, "s",
        {{"1", {0, 0}, 1.0, "", ""}, {"2", {10, 0}, 1.0, "", ""}, {"3", {0, 10}, 1.0, "", ""}}, &set);
    l.document = addSurface(l.document, "G", {{set, Role::Points}}, &surface);
    const auto d = l.derived();
    const auto flip = tryEdit(d, surface, {{terrain::EditKind::FlipSide, {5, 5}, {}}, {}, true});
    ASSERT_FALSE(flip);  // a side of the rim
    EXPECT_FALSE(flip.error().text.empty());
    EXPECT_TRUE(tryEdit(d, surface, {{terrain::EditKind::AddPoint, {}, {2, 2, 5}}, {}, true}));
    EXPECT_FALSE(tryEdit(d, surface, {{terrain::EditKind::TakeOver, {}, {}}, surface, true}));
    EXPECT_FALSE(tryEdit(d, ObjectId{99}, {{terrain::EditKind::Raise, {}, {0, 0, 1}}, {}, true}));
}

}  // namespace
}  // namespace erdwerk::operations
