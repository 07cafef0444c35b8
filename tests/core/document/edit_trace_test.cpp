#include "core/document/edit_trace.h"

#include "core/annotate/label_style.h"
#include "core/derive/model.h"
#include "core/document/transaction.h"
#include "core/linework/line3d.h"
#include "core/objects/label.h"
#include "core/objects/label_style.h"
#include "core/objects/line.h"
#include "core/objects/parcel.h"
#include "core/objects/points.h"
#include "core/operations/objects.h"
#include "core/operations/plan_shape.h"
#include "core/operations/points.h"
#include "core/operations/records.h"
#include "support/after_edit.h"
#include "support/geometry.h"

namespace erdwerk::document {
namespace {

using namespace objects;
using namespace operations;

using geometry::Vec2;
using test::places;
using test::valueOf;

/// A five-cornered open line 'L' with a label on each side, a parcel that begins at its third corner, and an
/// accepted finding at its fourth corner and one on the middle of its second side.
class Anchors : public testing::Test {
protected:
    Anchors() { make(false); }
    void make(bool closed) {
        document = {};
        document = document.added(
            "L", Line{linework::lineThrough(corners, {1.0, 2.0, 3.0, 4.0, 5.0}, closed), {}}, &line);
        ObjectId style;
        document =
            document.added("style", LabelStyle{annotate::defaultStyle(annotate::LabelKind::Segment)}, &style);
        labels.clear();
        for (std::size_t s = 0; s < (closed ? 5U : 4U); ++s) {
            ObjectId id;
            document = document.added("label " + std::to_string(s), Label{line, s, style}, &id);
            labels.push_back(id);
        }
        document = document.added("P", Parcel{line, false, 2, "the old oak"}, &parcel);
        Settings settings = document.settings();
        settings.accepted = {
            {"spike", corners[3], {line}, "a pole stands there"},
            {"nearly-touching", geometry::lerp(corners[1], corners[2], 0.5), {line}, "a fence"}};
        document = document.withSettings(settings);
    }
    /// As the session does it.
    Performed done(const Edit& edit) { return valueOf(perform("edit", edit, document)); }
    operations::Results seen() const {
        return std::make_shared<const derive::Derived>(valueOf(derive::evaluate(document)));
    }

    /// The side that label `i` stands on, as its two ends in either order; nothing when it is gone.
    static std::optional<std::pair<Vec2, Vec2>> sideOf(const Document& d, ObjectId label) {
        const auto* l = d.get<Label>(label);
        if (l == nullptr) return std::nullopt;
        const auto path = planPath(d.get<Line>(l->target)->line);
        const auto& s = path.at(l->part);
        return s.start.x < s.end.x ? std::pair(s.start, s.end) : std::pair(s.end, s.start);
    }
    void expectOn(const Document& d, std::size_t label, std::size_t from, std::size_t to) const {
        const auto side = sideOf(d, labels[label]);
        ASSERT_TRUE(side) << "label " << label;
        EXPECT_THAT(side->first, test::IsNear(corners[from].x, corners[from].y, 1e-9)) << "label " << label;
        EXPECT_THAT(side->second, test::IsNear(corners[to].x, corners[to].y, 1e-9)) << "label " << label;
    }
    static Vec2 beginning(const Document& d, ObjectId parcel) {
        const auto* p = d.get<Parcel>(parcel);
        auto path = planPath(d.get<Line>(p->line)->line);
        if (p->reversed) path = geometry::reversed(path);
        return path.at(p->begin).start;
    }

    const std::vector<Vec2> corners = places("0 0, 10 1, 20 0, 30 3, 40 0");
    Document document;
    ObjectId line;
    ObjectId parcel;
    std::vector<ObjectId> labels;
};

TEST_F(Anchors, FollowAnInsertedCorner) {
    const auto d = done(operations::insertCorner({line, {}, 0, 0.5})).document;
    for (const std::size_t i : {1U, 2U, 3U}) expectOn(d, i, i, i + 1);
    EXPECT_EQ(beginning(d, parcel), corners[2]);
    EXPECT_EQ(d.settings().accepted[0].at, corners[3]);
}

TEST_F(Anchors, FollowADeletedCornerAndSayWhatIsGone) {
    const auto out = done(operations::removeVertex(line, 1));
    EXPECT_FALSE(out.document.find(labels[1]));
    expectOn(out.document, 0, 0, 2);
    expectOn(out.document, 2, 2, 3);
    EXPECT_EQ(beginning(out.document, parcel), corners[2]);
    EXPECT_EQ(out.document.settings().accepted[0].at, corners[3]);
    EXPECT_THAT(out.what + out.said, testing::HasSubstr("label"));
    // The corner itself: the beginning and what was accepted there go.
    const auto beginningGone = done(operations::removeVertex(line, 2));
    EXPECT_EQ(beginningGone.document.get<Parcel>(parcel)->begin, 0U);
    EXPECT_EQ(beginningGone.document.get<Parcel>(parcel)->beginning, "");
    EXPECT_THAT(beginningGone.said, testing::HasSubstr("point of beginning"));
    const auto acceptedGone = done(operations::removeVertex(line, 3));
    EXPECT_EQ(acceptedGone.document.settings().accepted.size(), 1U);
    EXPECT_THAT(acceptedGone.what, testing::HasSubstr("accepted finding"));
}

TEST_F(Anchors, FollowASplit) {
    const auto d = done(operations::splitLine(seen(), {line, 2, 0, 0})).document;
    const ObjectId second = d.byName<Line>("L (2)");
    for (const std::size_t i : {0U, 1U, 2U, 3U}) expectOn(d, i, i, i + 1);
    EXPECT_EQ(d.get<Label>(labels[1])->target, line);
    EXPECT_EQ(d.get<Label>(labels[2])->target, second);
    EXPECT_EQ(d.get<Label>(labels[3])->part, 1U);
    ASSERT_EQ(d.settings().accepted.size(), 2U);
    EXPECT_EQ(d.settings().accepted[0].objects, std::vector{second});
    EXPECT_EQ(d.settings().accepted[1].objects, std::vector{line});
}

TEST_F(Anchors, FollowAJoin) {
    ObjectId other;
    document = document.added("M", Line{linework::lineThrough(places("-20 5, -10 4, 0 0"), {}), {}}, &other);
    // The labelled line is taken into the other, whose corners come first.
    const auto d = done(operations::joinLines(seen(), other, line)).document;
    EXPECT_FALSE(d.find(line));
    for (const std::size_t i : {0U, 1U, 2U, 3U}) {
        expectOn(d, i, i, i + 1);
        EXPECT_EQ(d.get<Label>(labels[i])->target, other);
        EXPECT_EQ(d.get<Label>(labels[i])->part, i + 2);
    }
    EXPECT_EQ(d.settings().accepted[0].objects, std::vector{other});
    EXPECT_EQ(d.settings().accepted[0].at, corners[3]);
}

TEST_F(Anchors, FollowAReversal) {
    const auto d = done(operations::reverseLine(line)).document;
    for (const std::size_t i : {0U, 1U, 2U, 3U}) expectOn(d, i, i, i + 1);
    EXPECT_EQ(beginning(d, parcel), corners[2]);
    EXPECT_EQ(d.settings().accepted[0].at, corners[3]);
    make(true);
    const auto closed = done(operations::reverseLine(line)).document;
    for (const std::size_t i : {0U, 1U, 2U, 3U}) expectOn(closed, i, i, i + 1);
    EXPECT_EQ(beginning(closed, parcel), corners[2]);
}

TEST_F(Anchors, FollowClosing) {
    const auto d = done(operations::closeLine(line)).document;
    for (const std::size_t i : {0U, 1U, 2U, 3U}) expectOn(d, i, i, i + 1);
    EXPECT_EQ(beginning(d, parcel), corners[2]);
}

TEST_F(Anchors, FollowAMovedCorner) {
    const auto d = done(operations::moveVertex(line, 3, {31, 8})).document;
    EXPECT_EQ(d.get<Label>(labels[3])->part, 3U);
    EXPECT_EQ(d.settings().accepted[0].at, (Vec2{31, 8}));
    // What lies on a side goes with the side.
    const auto side = done(operations::moveVertex(line, 2, {20, 9})).document;
    EXPECT_THAT(side.settings().accepted[1].at, test::IsNear(15, 5, 1e-9));
    EXPECT_EQ(beginning(side, parcel), (Vec2{20, 9}));
}

TEST_F(Anchors, FollowAContinuationAtTheStart) {
    linework::LineVertex corner;
    corner.place = {-9, 2};
    const auto d = done(operations::continueLine(line, true, {corner}, {})).document;
    for (const std::size_t i : {0U, 1U, 2U, 3U}) {
        expectOn(d, i, i, i + 1);
        EXPECT_EQ(d.get<Label>(labels[i])->part, i + 1);
    }
    EXPECT_EQ(beginning(d, parcel), corners[2]);
}

TEST_F(Anchors, GradePointsKeepTheirIdentityToo) {
    document = done(operations::insertGradePoint({line, {}, 2, 0.25})).document;
    const EditTrace trace(document, done(operations::insertCorner({line, {}, 0, 0.5})).document);
    EXPECT_EQ(trace.vertex({line, 3}), (Part{line, 4}));
}

TEST_F(Anchors, OfPointsFollowTheirPoint) {
    ObjectId set;
    document = test::afterEdit(
        document,
        addPoints("s", {{"1", {0, 0}, 1.0, "", ""}, {"2", {1, 0}, 1.0, "", ""}, {"3", {2, 0}, 1.0, "", ""}}),
        &set);
    ObjectId style;
    document = document.added("ps", LabelStyle{annotate::defaultStyle(annotate::LabelKind::Point)}, &style);
    ObjectId second;
    ObjectId third;
    document = document.added("l2", Label{set, 1, style}, &second).added("l3", Label{set, 2, style}, &third);
    document = test::afterEdit(document, accept({"same-number", {2, 0}, {set}, "agreed"}));
    const auto out = done(operations::remove({}, {{set, 1}}));
    EXPECT_FALSE(out.document.find(second));
    EXPECT_EQ(out.document.get<Label>(third)->part, 1U);
    EXPECT_EQ(out.document.settings().accepted.size(), 3U);
    EXPECT_THAT(out.what, testing::HasSubstr("label"));
    const auto moved = done(movePoint({set, 2}, {7, 7}));
    EXPECT_EQ(moved.document.settings().accepted.back().at, (Vec2{7, 7}));
}

TEST_F(Anchors, DeletingAPointSaysThatWhatWasAcceptedOfItWent) {
    ObjectId set;
    document = document.added("S",
                              objects::Points{survey::PointSet({{"1", {20, 0}, 1.0, "", ""},
                                                                {"2", {21, 0}, std::nullopt, "", ""},
                                                                {"3", {22, 0}, 1.0, "", ""}})},
                              &set);
    document = test::afterEdit(document, accept({"without-height", {21, 0}, {set}, "in the water"}));
    ASSERT_EQ(document.settings().accepted.size(), 3U);
    const auto out = done(operations::remove({}, {{set, 1}}));
    EXPECT_EQ(out.document.settings().accepted.size(), 2U);
    EXPECT_EQ(out.said, "With it went an accepted finding");
    EXPECT_THAT(out.what, testing::HasSubstr("with it an accepted finding"));
    // With the whole set, or with all of its points.
    for (const auto& edit :
         {operations::remove({set}, {}), operations::remove({}, {{set, 0}, {set, 1}, {set, 2}})})
        EXPECT_THAT(done(edit).said, testing::HasSubstr("an accepted finding"));
    // Another point of the set: nothing went with it.
    EXPECT_EQ(done(operations::remove({}, {{set, 0}})).said, "");
    EXPECT_EQ(done(operations::remove({}, {{set, 0}})).document.settings().accepted.size(), 3U);
}

TEST_F(Anchors, DeletingSaysInOneLineWhatGoesWithIt) {
    const auto out = done(operations::remove({line}, {}));
    EXPECT_EQ(out.said, "With it went 4 labels and parcel 'P' and 2 accepted findings");
    EXPECT_THAT(out.what, testing::HasSubstr("with it 4 labels"));
}

TEST_F(Anchors, AnEditPreparedOnWhatChangedIsRefusedWithAReason) {
    const auto results = seen();
    document = done(operations::moveVertex(line, 0, {-1, -1})).document;
    const auto refused = perform("split", operations::splitLine(results, {line, 2, 0, 0}), document);
    ASSERT_FALSE(refused);
    EXPECT_THAT(refused.error().text, testing::HasSubstr("'L' changed meanwhile"));
}

TEST(EditTrace, AMovedPointIsItselfAndItsPlaceMoves) {
    ObjectId set;
    const Document before = test::afterEdit(
        {},
        addPoints("s", {{"1", {0, 0}, 1.0, "", ""}, {"2", {5, 5}, 1.0, "", ""}, {"3", {9, 9}, 1.0, "", ""}}),
        &set);
    const Document after = test::afterEdit(before, movePoint({set, 1}, {6, 7}));
    const EditTrace trace(before, after);
    for (std::size_t i = 0; i < 3; ++i) EXPECT_EQ(trace.vertex({set, i}), (Part{set, i}));
    EXPECT_FALSE(trace.vertex({set, 3}));
    EXPECT_EQ(trace.place(set, {5, 5}, 0.01)->second, (Vec2{6, 7}));
    EXPECT_EQ(trace.place(set, {9, 9}, 0.01)->second, (Vec2{9, 9}));
    // Where nothing stands the place stays as it is.
    EXPECT_EQ(trace.place(set, {2, 2}, 0.01)->second, (Vec2{2, 2}));
}

TEST(EditTrace, APointThatIsGoneTakesItsPlaceAlong) {
    ObjectId set;
    const Document before =
        test::afterEdit({}, addPoints("s", {{"1", {0, 0}, 1.0, "", ""}, {"2", {5, 5}, 1.0, "", ""}}), &set);
    const EditTrace trace(before, test::afterEdit(before, removePoints({{set, 0}})));
    EXPECT_FALSE(trace.vertex({set, 0}));
    EXPECT_EQ(trace.vertex({set, 1}), (Part{set, 0}));
    EXPECT_FALSE(trace.place(set, {0, 0}, 0.01));
    EXPECT_EQ(trace.place(set, {5, 5}, 0.01)->second, (Vec2{5, 5}));
    const EditTrace all(before, before.without(set));
    EXPECT_FALSE(all.place(set, {5, 5}, 0.01));
    EXPECT_FALSE(all.object(set));
}

}  // namespace
}  // namespace erdwerk::document
