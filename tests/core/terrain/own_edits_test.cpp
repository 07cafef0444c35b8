#include "core/terrain/own_edits.h"

#include "core/geometry/predicates.h"
#include "core/terrain/build.h"
#include "core/terrain/locator.h"
#include "support/geometry.h"
#include "support/mesh.h"

namespace erdwerk::terrain {
namespace {

using test::expectLinked;
using test::valueOf;

Tin squareOf(const std::string& points) {
    return valueOf(build({test::places3(points), {}, {}, {}})).tin;
}

std::optional<double> heightAt(const Tin& tin, Vec2 p) {
    return TinLocator(std::make_shared<const Tin>(tin)).heightAt(p);
}

TEST(OwnEdits, FlippingASideChangesTheHeightOverIt) {
    // Two corners at 10, two at 0: the middle is 10 or 0, by the diagonal.
    const Tin tin = squareOf("0 0 10, 10 0 0, 10.5 10 10, 0 10 0");
    const double before = heightAt(tin, {5, 5}).value();
    const Tin flipped = valueOf(edited(tin, {EditKind::FlipSide, {5.1, 5}, {}}));
    expectLinked(flipped);
    EXPECT_GT(std::abs(heightAt(flipped, {5, 5}).value() - before), 8);
    const Tin back = valueOf(edited(flipped, {EditKind::FlipSide, {5.1, 5}, {}}));
    EXPECT_DOUBLE_EQ(heightAt(back, {5, 5}).value(), before);
}

TEST(OwnEdits, SidesOfRimAndLinesAreNotFlipped) {
    const Tin tin = squareOf("0 0 0, 10 0 0, 10 10 0, 0 10 0");
    EXPECT_EQ(edited(tin, {EditKind::FlipSide, {5, 0.1}, {}}).error().text,
              "a side of the rim cannot be flipped");
    const Tin lined = valueOf(build({test::places3("0 0 0, 10 0 0, 10 10 0, 0 10 0"),
                                     {{test::places3("0 0 0, 10 10 0"), false}},
                                     {},
                                     {}}))
                          .tin;
    EXPECT_EQ(edited(lined, {EditKind::FlipSide, {5, 5}, {}}).error().text,
              "a side on a line cannot be flipped");
    EXPECT_FALSE(edited(tin, {EditKind::FlipSide, {50, 5}, {}}));
}

TEST(OwnEdits, PointsAreAddedMovedAndRemovedInPlace) {
    for (unsigned seed = 1; seed <= 100; ++seed) {
        SCOPED_TRACE("seed " + std::to_string(seed));
        std::mt19937 random(seed);
        auto points = test::scattered(random, 40, 100, [](double x, double y) { return x - y; });
        for (const Vec2 p : test::places("0 0, 100 0, 100 100, 0 100"))
            points.push_back({p.x, p.y, p.x - p.y});
        const Tin tin = valueOf(build({points, {}, {}, {}})).tin;
        const Tin more = valueOf(edited(tin, {EditKind::AddPoint, {}, {50.3, 49.7, 99}}));
        expectLinked(more);
        EXPECT_EQ(more.vertexCount(), tin.vertexCount() + 1);
        EXPECT_EQ(heightAt(more, {50.3, 49.7}), 99.0);
        const Tin moved = valueOf(edited(more, {EditKind::MovePoint, {50.3, 49.7}, {52.1, 47.2, 88}}));
        expectLinked(moved);
        EXPECT_EQ(heightAt(moved, {52.1, 47.2}), 88.0);
        const Tin less = valueOf(edited(moved, {EditKind::RemovePoint, {52.1, 47.2}, {}}));
        expectLinked(less);
        EXPECT_EQ(less.vertexCount(), tin.vertexCount());
        EXPECT_NEAR(heightAt(less, {52.1, 47.2}).value(), 52.1 - 47.2, 1e-9);
        EXPECT_NEAR(figuresOf(less).planArea, 10000, 1e-6);
    }
}

TEST(OwnEdits, ARimPointTakesItsTrianglesAlong) {
    const Tin tin = squareOf("0 0 0, 10 0 0, 10 10 0, 0 10 0, 5 5 1");
    const Tin less = valueOf(edited(tin, {EditKind::RemovePoint, {10, 10}, {}}));
    expectLinked(less);
    EXPECT_DOUBLE_EQ(figuresOf(less).planArea, 50);
    const Tin hole = valueOf(edited(tin, {EditKind::RemoveTriangle, {5, 1}, {}}));
    expectLinked(hole);
    EXPECT_DOUBLE_EQ(figuresOf(hole).planArea, 75);
}

TEST(OwnEdits, Raise) {
    const Tin tin = squareOf("0 0 0, 100 0 0, 100 100 0, 0 100 0");
    const Tin raised = valueOf(edited(tin, {EditKind::Raise, {}, {0, 0, 2.5}}));
    EXPECT_EQ(heightAt(raised, {30, 60}), 2.5);
}

TEST(OwnEdits, SayWhyTheyDoNotApply) {
    const Tin tin = squareOf("0 0 0, 10 0 0, 10 10 0, 0 10 0");
    EXPECT_EQ(edited(tin, {EditKind::AddPoint, {}, {20, 5, 0}}).error().text,
              "the point lies outside the surface");
    EXPECT_EQ(edited(tin, {EditKind::AddPoint, {}, {10, 10, 3}}).error().text,
              "there is a point of the surface already");
    EXPECT_EQ(edited(tin, {EditKind::RemoveTriangle, {20, 5}, {}}).error().text, "there is no triangle here");
}

}  // namespace
}  // namespace erdwerk::terrain
