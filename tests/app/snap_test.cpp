#include "app/kinds/all_kinds.h"

#include "core/linework/line3d.h"
#include "core/objects/group.h"
#include "core/objects/line.h"
#include "core/operations/objects.h"
#include "core/operations/points.h"
#include "support/after_edit.h"
#include "support/geometry.h"
#include "view_at.h"

namespace erdwerk::app {
namespace {

using geometry::Vec2;
using test::places;

class Snaps : public testing::Test {
protected:
    Snapshot snapshot;
    ViewTransform view = viewAt({50, 50}, 10, {1000, 1000});
    ObjectId road;

    void SetUp() override {
        document::Document d;
        d = test::afterEdit(d, operations::addPoints("s", {{"17", {20, 20}, 5.0, "", ""}}));
        d = d.added("Road", objects::Line{linework::lineThrough(places("10 50, 90 50"), {1.0, 9.0}), {}},
                    &road);
        d = d.added("Wall", objects::Line{linework::lineThrough(places("50 10, 50 90"), {}), {}});
        linework::Line3D bend = linework::lineThrough(places("60 60, 80 60"), {});
        bend.vertices[0].through = Vec2{70, 70};
        d = d.added("Bend", objects::Line{bend, {}});
        snapshot.derived = test::valueOf(derive::evaluate(d));
    }
    [[nodiscard]] std::vector<Snap> at(Vec2 place, std::optional<Vec2> from = {}) const {
        return snapsAt(snapshot, view, planLayers(), view.toPicture(place), 9, from);
    }
};

TEST_F(Snaps, NameWhatLiesThere) {
    EXPECT_EQ(at({20.3, 20}).front().kind, SnapKind::Point);
    EXPECT_EQ(at({20.3, 20}).front().name.toStdString(), "point 17");
    EXPECT_EQ(*at({20.3, 20}).front().height, 5);
    EXPECT_EQ(at({10.2, 50.1}).front().kind, SnapKind::End);
    EXPECT_EQ(at({10.2, 50.1}).front().name.toStdString(), "end of Road");
    EXPECT_TRUE(at({33, 90}).empty());
}

TEST_F(Snaps, HeightsRunAlongTheLine) {
    const auto snaps = at({30, 50.2});
    ASSERT_FALSE(snaps.empty());
    EXPECT_EQ(snaps.front().kind, SnapKind::Line);
    EXPECT_THAT(snaps.front().place, test::IsNear(30, 50, 1e-9));
    EXPECT_NEAR(*snaps.front().height, 3, 1e-9);
    EXPECT_NEAR(snaps.front().fraction, 0.25, 1e-9);
}

TEST_F(Snaps, CrossingAndMiddleComeBeforeTheLineItself) {
    const auto snaps = at({50.2, 50.2});
    ASSERT_GE(snaps.size(), 3U);
    EXPECT_TRUE(snaps.front().kind == SnapKind::Crossing || snaps.front().kind == SnapKind::Middle);
    EXPECT_TRUE(std::any_of(snaps.begin(), snaps.end(), [](const Snap& s) {
        return s.kind == SnapKind::Crossing && s.name == QStringLiteral("crossing of Road and Wall");
    }));
}

TEST_F(Snaps, PerpendicularAndTangentNeedAnOrigin) {
    const auto has = [](const std::vector<Snap>& snaps, SnapKind kind) {
        return std::any_of(snaps.begin(), snaps.end(), [kind](const Snap& s) { return s.kind == kind; });
    };
    EXPECT_FALSE(has(at({30, 50}), SnapKind::Perpendicular));
    EXPECT_TRUE(has(at({30, 50}, Vec2{30, 80}), SnapKind::Perpendicular));
    // From straight above its end, the half circle about (70, 60) is touched at (80, 60)'s side: 10 / 20 is
    // 60 degrees.
    const Vec2 touch{70 + 10 * std::sin(3.14159265358979 / 3), 60 + 10 * 0.5};
    EXPECT_TRUE(has(at(touch, Vec2{70, 80}), SnapKind::Tangent));
}

TEST_F(Snaps, HiddenGroupsAreNotSnappedTo) {
    ObjectId group;
    auto d = snapshot.derived.document.added("Hidden", objects::Group{"#112233"}, &group);
    d = test::afterEdit(d, operations::setGroup(road, group)).withShown({{group}, {}});
    snapshot.derived = test::valueOf(derive::evaluate(d));
    EXPECT_TRUE(at({30, 50.2}).empty());
}

TEST(ViewTransform, GoesThereAndBack) {
    const ViewTransform v = viewAt({48000, 91000}, 3.7, {640, 480});
    const Vec2 p{48012.5, 90991.25};
    EXPECT_THAT(v.toGround(v.toPicture(p)), test::IsNear(p.x, p.y, 1e-9));
    EXPECT_LT(v.toPicture({48000, 91010}).y(), v.toPicture({48000, 91000}).y());
    EXPECT_NEAR(v.window().width(), 640 / 3.7, 1e-9);
}

TEST(ViewTransform, TurnedWhatLiesThatWayIsUp) {
    ViewTransform v = viewAt({48000, 91000}, 2, {640, 480});
    v.turnTo(Angle::degrees(90));
    EXPECT_TRUE(v.isTurned());
    // East is up, so north is left.
    EXPECT_NEAR(v.toPicture({48010, 91000}).y(), 240 - 20, 1e-9);
    EXPECT_NEAR(v.toPicture({48000, 91010}).x(), 320 - 20, 1e-9);
    EXPECT_NEAR(v.window().width(), 240, 1e-9);
    EXPECT_NEAR(v.window().height(), 320, 1e-9);
    for (const double degrees : {0.0, 33.0, 180.0, -77.0}) {
        v.turnTo(Angle::degrees(degrees));
        EXPECT_THAT(v.toGround(v.toPicture({48012.5, 90991.25})), test::IsNear(48012.5, 90991.25, 1e-9));
        EXPECT_NEAR((v.up() - Angle::degrees(degrees)).signedTurn().degrees(), 0, 1e-9);
    }
}

}  // namespace
}  // namespace erdwerk::app
