#include "core/operations/mend.h"

#include "core/derive/model.h"
#include "core/linework/line3d.h"
#include "core/linework/rules/grade_from_previous.h"
#include "core/objects/line.h"
#include "core/objects/points.h"
#include "core/objects/surface.h"
#include "core/operations/points.h"
#include "core/operations/surfaces.h"
#include "support/after_edit.h"
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
    [[nodiscard]] Results results() const {
        return std::make_shared<const Derived>(valueOf(derive::evaluate(document)));
    }
};

TEST(Mend, ASharedCornerUsesAVertexThatStandsThere) {
    Lines l;
    const ObjectId a = l.add("0 5, 5 5, 10 5", {1.0, 1.0, 1.0});
    const ObjectId b = l.add("5 0, 5 10", {3.0, 3.0});
    const auto next = valueOf(evaluate(test::afterEdit(l.document, shareCorner(a, b, {5, 5}, 2))));
    EXPECT_EQ(next.lines.at(a)->vertices.size(), 3U);
    EXPECT_EQ(next.lines.at(b)->vertices.size(), 3U);
    EXPECT_EQ(next.lines.at(a)->vertices[1].height, 2.0);
    EXPECT_EQ(next.lines.at(b)->vertices[1].height, 2.0);
    // Ends keep theirs.
    EXPECT_EQ(next.lines.at(a)->vertices[0].height, 1.0);
}

TEST(Mend, WhatIsGoneIsSaid) {
    Lines l;
    const ObjectId a = l.add("0 0, 10 0", {1.0, 1.0});
    const ObjectId gone{77};
    EXPECT_FALSE(moveNearestCorner(l.results(), a, gone, {5, 0})(l.document));
    EXPECT_FALSE(trimOvershoot(l.results(), gone, {5, 0}, 1)(l.document));
    EXPECT_FALSE(moveEnd(gone, true, {1, 2, 3})(l.document));
    EXPECT_FALSE(moveEndOnto(a, true, {1, 2, 3}, gone)(l.document));
    EXPECT_FALSE(shareCorner(a, gone, {5, 0}, 1)(l.document));
    EXPECT_FALSE(setHeightOnLine(gone, {5, 0}, 1)(l.document));
    EXPECT_FALSE(interpolateMissing(gone)(l.document));
    EXPECT_FALSE(overshoot(l.document, gone, {0, 0}));
}

TEST(Mend, ALineThatFollowsStaysAndTheOtherComesToIt) {
    Lines l;
    const ObjectId a = l.add("0 0, 10 0", {1.0, 1.0});
    const ObjectId b = l.add("5 -5, 5 1", {3.0, 3.0});
    l.document = changed<Line>(l.document, a, [&](Line& x) {
        x.follows = std::make_shared<const Follows>(RowOf{b, {}, {}, {}});
    });
    const auto shared = test::afterEdit(l.document, shareCorner(a, b, {5, 0}, 1));
    EXPECT_EQ(shared.find(a), l.document.find(a));
    EXPECT_EQ(shared.get<Line>(b)->line.vertices.size(), 3U);
    l.document = changed<Line>(l.document, b, [&](Line& x) {
        x.follows = std::make_shared<const Follows>(RowOf{a, {}, {}, {}});
    });
    EXPECT_FALSE(shareCorner(a, b, {5, 0}, 1)(l.document));
    EXPECT_FALSE(moveNearestCorner(l.results(), a, b, {5, 0})(l.document));
}

TEST(Mend, AClosedLineHasNoOvershoot) {
    Lines l;
    const ObjectId ring = l.add("0 0, 10 0, 10 10", {1.0, 1.0, 1.0}, true);
    EXPECT_FALSE(overshoot(l.document, ring, {5, 0}));
}

TEST(Mend, TrimmingKeepsGradesAsHeightsAcrossTheCut) {
    Lines l;
    const ObjectId line = l.add("0 0, 10 0, 20 0, 22 0", {10.0, std::nullopt, std::nullopt, std::nullopt});
    l.document = changed<Line>(l.document, line, [](Line& x) {
        for (std::size_t i = 1; i < 4; ++i)
            x.line.vertices[i].rule = linework::GradeFromPrevious{Grade::percent(10)};
    });
    const auto next =
        valueOf(evaluate(test::afterEdit(l.document, trimOvershoot(l.results(), line, {20, 0}, 12))));
    const auto& v = next.lines.at(line)->vertices;
    ASSERT_EQ(v.size(), 3U);
    EXPECT_NEAR(*v[1].height, 11, 1e-9);
    EXPECT_NEAR(*v[2].height, 12, 1e-9);
}

TEST(Mend, PointsForASurfaceHaveFreeNumbersAndJoinItsSources) {
    Lines l;
    ObjectId set;
    ObjectId surface;
    l.document = test::afterEdit(l.document, addPoints("survey", {{"41", {0, 0}, 1.0, "", ""}}), &set);
    l.document = test::afterEdit(l.document, addSurface("G", {{set, Role::Points}}), &surface);
    auto next = test::afterEdit(l.document, addToSurface(surface, "Extra", {{1, 2, 3}, {4, 5, 6}}, "fit"));
    const ObjectId extra = next.byName<Points>("Extra");
    ASSERT_TRUE(extra);
    EXPECT_EQ(next.get<Points>(extra)->set[0].number, "42");
    EXPECT_EQ(next.get<Points>(extra)->set[1].number, "43");
    EXPECT_TRUE(hasSource(next, surface, extra));
    next = test::afterEdit(next, addToSurface(surface, "Extra", {{7, 8, 9}}, "fit"));
    EXPECT_EQ(next.get<Points>(extra)->set.size(), 3U);
    EXPECT_EQ(next.get<Surface>(surface)->definition->sources.size(), 2U);
}

TEST(Mend, AnOwnEditIsTriedBeforeItIsKept) {
    Lines l;
    ObjectId set;
    ObjectId surface;
    l.document = test::afterEdit(
        l.document,
        addPoints("s",
                  {{"1", {0, 0}, 1.0, "", ""}, {"2", {10, 0}, 1.0, "", ""}, {"3", {0, 10}, 1.0, "", ""}}),
        &set);
    l.document = test::afterEdit(l.document, addSurface("G", {{set, Role::Points}}), &surface);
    const auto seen = l.results();
    const auto tried = [&](ObjectId of, const SurfaceEdit& edit) {
        return ownEdit(seen, of, edit)(l.document);
    };
    const auto flip = tried(surface, {{terrain::EditKind::FlipSide, {5, 5}, {}}, {}, true});
    ASSERT_FALSE(flip);  // a side of the rim
    EXPECT_FALSE(flip.error().text.empty());
    EXPECT_TRUE(tried(surface, {{terrain::EditKind::AddPoint, {}, {2, 2, 5}}, {}, true}));
    EXPECT_FALSE(tried(surface, {{terrain::EditKind::TakeOver, {}, {}}, surface, true}));
    EXPECT_FALSE(tried(ObjectId{99}, {{terrain::EditKind::Raise, {}, {0, 0, 1}}, {}, true}));
}

}  // namespace
}  // namespace erdwerk::operations
