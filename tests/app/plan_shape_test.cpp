// Drawing and the shape of lines in plan, through the real window.

#include "core/operations/plan_shape.h"

#include <cmath>
#include <numbers>

#include "app/base/open_project.h"
#include "core/objects/group.h"
#include "core/objects/points.h"
#include "core/operations/surfaces.h"
#include "plan_shape_site.h"

namespace erdwerk::app {
namespace {

using geometry::Vec2;
using test::places;
using test::valueOf;

TEST_F(PlanShape, AWrongCornerIsMendedWhileDrawing) {
    run("draw-line");
    click({20, 60});
    click({30, 70});
    click({47, 62});
    click({55, 70});
    // Its place: pick it up, click where it belongs, and draw on at the end.
    click({47, 62});
    EXPECT_TRUE(said().contains(QStringLiteral("corner 3"))) << qPrintable(said());
    click({40, 60});
    click({60, 60});
    // Another one is dragged, a third gets a height by typing, one by typing its place.
    drag({30, 70}, {30, 75});
    drop({30, 75});
    click({40, 60});
    type(QStringLiteral("2%"));
    click({55, 70});
    type(QStringLiteral("50.5, 70.25, 99"));
    // Picked up and left as it is.
    click({30, 75});
    key(Qt::Key_Escape);
    key(Qt::Key_Return);
    const auto& drawn = line(last());
    ASSERT_EQ(drawn.vertices.size(), 5U);
    EXPECT_THAT(drawn.vertices[1].place, test::IsNear(30, 75, 0.2));
    EXPECT_THAT(drawn.vertices[2].place, test::IsNear(40, 60, 0.2));
    EXPECT_EQ(rule(last(), 2), "2%");
    EXPECT_THAT(drawn.vertices[3].place, test::IsNear(50.5, 70.25, 1e-9));
    EXPECT_EQ(rule(last(), 3), "99");
    EXPECT_THAT(drawn.vertices[4].place, test::IsNear(60, 60, 0.2));
}

TEST_F(PlanShape, MendingIsTakenBackStepByStep) {
    run("draw-line");
    click({20, 60});
    click({30, 70});
    click({40, 60});
    click({30, 70});
    click({30, 80});
    key(Qt::Key_Backspace);  // the mending
    click({50, 70});
    key(Qt::Key_Backspace);  // the corner
    click({30, 70});
    key(Qt::Key_Backspace);  // only lets go of the corner
    key(Qt::Key_Return);
    ASSERT_EQ(line(last()).vertices.size(), 3U);
    EXPECT_THAT(line(last()).vertices[1].place, test::IsNear(30, 70, 0.2));
}

TEST_F(PlanShape, ACornerIsMendedByACourseFromTheOneBeforeIt) {
    run("draw-line");
    for (const char* place : {"20, 60", "30, 70", "40, 60"}) type(QString::fromUtf8(place));
    click({30, 70});
    type(QStringLiteral("az 90 10"));
    click({20, 60});  // closes with three corners: with the last two it is put right by a drag
    ASSERT_EQ(line(last()).vertices.size(), 3U);
    EXPECT_THAT(line(last()).vertices[1].place, test::IsNear(30, 60, 1e-9));
    EXPECT_TRUE(line(last()).closed);
}

TEST_F(PlanShape, LengthDirectionAndGradeAreTypedAndTheMouseGivesTheRest) {
    run("draw-line");
    type(QStringLiteral("20, 60, 100"));
    type(QStringLiteral("len 10"));
    type(QStringLiteral("next -2%"));
    click({50, 60});
    type(QStringLiteral("dir N 0 E"));
    click({55, 72});
    type(QStringLiteral("len 5"));
    type(QStringLiteral("dir az 90"));
    type(QStringLiteral("dir nowhere"));
    EXPECT_TRUE(said().contains(QStringLiteral("bearing"))) << qPrintable(said());
    click({0, 0});
    key(Qt::Key_Return);
    const auto& drawn = line(last());
    ASSERT_EQ(drawn.vertices.size(), 4U);
    EXPECT_NEAR(geometry::distance(drawn.vertices[0].place, drawn.vertices[1].place), 10, 1e-9);
    EXPECT_THAT(drawn.vertices[1].place, test::IsNear(30, 60, 0.2));
    EXPECT_EQ(rule(last(), 1), "-2%");
    EXPECT_THAT(drawn.vertices[2].place, test::IsNear(drawn.vertices[1].place.x, 72, 0.2));
    EXPECT_THAT(drawn.vertices[3].place,
                test::IsNear(drawn.vertices[1].place.x + 5, drawn.vertices[2].place.y, 1e-9));
}

TEST_F(PlanShape, ALevelEdgeIsOneGesture) {
    run("draw-line");
    type(QStringLiteral("level 12.5"));
    for (const auto& p : places("65 40, 80 40, 80 55")) click(p);
    key(Qt::Key_Return);
    EXPECT_TRUE(line(last()).closed);
    for (const auto& v : resolved(last()).vertices) EXPECT_EQ(v.height, 12.5);
}

TEST_F(PlanShape, ArcsByRadiusAndThroughAPlaceAndASmoothLine) {
    run("draw-line");
    type(QStringLiteral("20, 60"));
    type(QStringLiteral("arc 4"));
    type(QStringLiteral("30, 60"));  // farther than twice the radius
    EXPECT_TRUE(said().contains(QStringLiteral("radius"))) << qPrintable(said());
    type(QStringLiteral("arc 10"));
    type(QStringLiteral("30, 60"));
    type(QStringLiteral("arc through"));
    click({35, 65});
    click({40, 60});
    key(Qt::Key_Return);
    const auto path = planPath(line(last()));
    ASSERT_EQ(path.size(), 2U);
    EXPECT_NEAR(geometry::arcOf(path[0])->radius, 10, 1e-9);
    EXPECT_TRUE(geometry::arcOf(path[0])->right());
    EXPECT_NEAR(geometry::arcOf(path[1])->radius, 5, 0.2);
    run("draw-line");
    for (const auto& p : places("20 70, 30 78, 40 70")) click(p);
    type(QStringLiteral("smooth"));
    key(Qt::Key_Return);
    EXPECT_TRUE(hasCurves(planPath(line(last()))));
    EXPECT_EQ(cornersOf(line(last())).size(), 5U);
}

TEST_F(PlanShape, AStretchIsCutOutWithTwoClicks) {
    select(edge);
    run("cut-out");
    click({20, 5});
    click({40, 5});
    EXPECT_NEAR(resolved(edge).length, 20, 0.3);
    ASSERT_TRUE(doc().byName<objects::Line>("Edge (2)"));
    EXPECT_NEAR(*resolved(last()).vertices.front().height, 22, 0.02);
    run("undo");
    EXPECT_NEAR(resolved(edge).length, 60, 1e-9);
    EXPECT_FALSE(doc().byName<objects::Line>("Edge (2)"));
    // The same from the keyboard alone, by distances along the selected line.
    select(edge);
    run("cut-out");
    type(QStringLiteral("20"));
    type(QStringLiteral("70"));
    EXPECT_TRUE(said().contains(QStringLiteral("not on the line"))) << qPrintable(said());
    type(QStringLiteral("40"));
    EXPECT_NEAR(resolved(edge).length, 20, 1e-9);
}

TEST_F(PlanShape, LinesAreTrimmedExtendedAndSplitAtCrossings) {
    ObjectId post;
    put(QStringLiteral("post"),
        doc().added("Post", objects::Line{linework::lineThrough(places("25 0, 25 30"), {}), {}}, &post));
    run("reach");
    click({55, 5});
    click({25, 25});
    EXPECT_NEAR(resolved(edge).length, 35, 1e-6);
    EXPECT_NEAR(*resolved(edge).vertices.front().height, 21.25, 1e-9);
    run("undo");
    // On to the post from where it stops: the lane's first side runs towards it.
    ObjectId stub;
    put(QStringLiteral("stub"),
        doc().added("Stub", objects::Line{linework::lineThrough(places("5 25, 15 25"), {10.0, 10.5}), {}},
                    &stub));
    select(stub);
    run("reach");
    type(QStringLiteral("9"));
    type(QStringLiteral("Post"));
    EXPECT_THAT(line(stub).vertices.back().place, test::IsNear(25, 25, 1e-9));
    EXPECT_NEAR(*resolved(stub).vertices.back().height, 11, 1e-9);
    key(Qt::Key_Escape);
    select(post);
    run("split");
    type(QStringLiteral("crossings"));
    EXPECT_TRUE(doc().byName<objects::Line>("Post (3)"));
}

TEST_F(PlanShape, AJoinAsksAboutAGapAndAStep) {
    ObjectId on;
    ObjectId off;
    put(QStringLiteral("on"),
        doc().added("On", objects::Line{linework::lineThrough(places("60 5, 80 5"), {24.0, 25.0}), {}}, &on));
    put(QStringLiteral("off"),
        doc().added("Off", objects::Line{linework::lineThrough(places("80.5 5, 95 5"), {25.0, 25.0}), {}},
                    &off));
    select(edge);
    run("join");
    type(QStringLiteral("On"));
    EXPECT_TRUE(said().contains(QStringLiteral("1.00"))) << qPrintable(said());
    type(QStringLiteral("both"));
    EXPECT_TRUE(said().contains(QStringLiteral("no way to join"))) << qPrintable(said());
    type(QStringLiteral("mean"));
    EXPECT_FALSE(doc().find(on));
    EXPECT_NEAR(*resolved(edge).vertices[1].height, 23.5, 1e-9);
    key(Qt::Key_Escape);
    select(edge);
    run("join");
    type(QStringLiteral("Off"));
    EXPECT_TRUE(said().contains(QStringLiteral("apart"))) << qPrintable(said());
    type(QStringLiteral("close"));
    EXPECT_EQ(line(edge).vertices.size(), 4U);
    EXPECT_NEAR(resolved(edge).length, 95, 1e-9);
}

TEST_F(PlanShape, CornersBecomeArcsAndSidesBend) {
    select(site.lane);
    run("round");
    click({40, 10});
    type(QStringLiteral("500"));
    EXPECT_TRUE(said().contains(QStringLiteral("does not fit"))) << qPrintable(said());
    type(QStringLiteral("5"));
    EXPECT_NEAR(resolved(site.lane).length, 60 + 5 * M_PI / 2, 1e-6);
    key(Qt::Key_Escape);
    run("round");
    click({38.535, 11.465});
    type(QStringLiteral("8"));
    EXPECT_NEAR(resolved(site.lane).length, 54 + 8 * M_PI / 2, 1e-6);
    // All arcs of a line one after the other; Enter alone passes one.
    put(QStringLiteral("more"),
        valueOf(operations::roundCorner(window->session().results(), site.plot, 1, 3)(doc())).document);
    window->settle();
    put(QStringLiteral("more"),
        valueOf(operations::roundCorner(window->session().results(), site.plot, 3, 4)(doc())).document);
    window->settle();
    const auto radii = [&] {
        std::vector<double> out;
        for (const auto& side : resolved(site.plot).path)
            if (const auto arc = geometry::arcOf(side)) out.push_back(std::round(arc->radius * 1000) / 1000);
        return out;
    };
    const auto first = radii();
    ASSERT_EQ(first.size(), 2U);
    const auto arc = [&](std::size_t n) {
        for (const auto& side : resolved(site.plot).path)
            if (isCurved(side) && n-- == 0) return pointAt(side, 0.5);
        return Vec2{};
    };
    click(arc(0));
    key(Qt::Key_Return);
    type(QStringLiteral("6"));
    EXPECT_EQ(radii()[0], first[0]);
    EXPECT_EQ(radii()[1], 6);
    key(Qt::Key_Escape);
    select(edge);
    run("bend");
    type(QStringLiteral("30"));
    type(QStringLiteral("30, 10"));
    EXPECT_NEAR(geometry::arcOf(resolved(edge).path[0])->radius, (30.0 * 30 + 25) / 10, 1e-6);
    type(QStringLiteral("30"));
    type(QStringLiteral("straight"));
    EXPECT_NEAR(resolved(edge).length, 60, 1e-9);
}

TEST_F(PlanShape, ThinningSaysHowManyGoBeforeTheyDo) {
    select(edge);
    run("corner-insert");
    type(QStringLiteral("every 5"));
    EXPECT_EQ(line(edge).vertices.size(), 13U);
    key(Qt::Key_Escape);
    select(edge);
    run("thin-line");
    type(QStringLiteral("soon"));
    EXPECT_TRUE(said().contains(QStringLiteral("deviation"))) << qPrintable(said());
    type(QStringLiteral("0.01"));
    EXPECT_TRUE(QTest::qWaitFor([&] { return said().contains(QStringLiteral("11 of 13")); }))
        << qPrintable(said());
    EXPECT_EQ(line(edge).vertices.size(), 13U);
    key(Qt::Key_Return);
    EXPECT_EQ(line(edge).vertices.size(), 2U);
}

TEST_F(PlanShape, WholeThingsAreMovedCopiedTurnedAndMirrored) {
    select(edge);
    run("plan-move");
    type(QStringLiteral("0, 0"));
    type(QStringLiteral("by 5, 10"));
    EXPECT_THAT(line(edge).vertices[0].place, test::IsNear(5, 15, 1e-9));
    run("plan-turn");
    type(QStringLiteral("5, 15"));
    type(QStringLiteral("90 copy"));
    EXPECT_THAT(line(last()).vertices[1].place, test::IsNear(5, -45, 1e-9));
    EXPECT_THAT(line(edge).vertices[1].place, test::IsNear(65, 15, 1e-9));
    // By hand the other way, in the notation of the hint.
    const auto before = line(edge).vertices[1].place;
    for (const auto& [typed, degrees] : {std::pair("-12", -12.0), std::pair("-12°30'", -12.5)}) {
        select(edge);
        run("plan-turn");
        type(QStringLiteral("5, 15"));
        type(QString::fromUtf8(typed));
        const double a = degrees * std::numbers::pi / 180;
        EXPECT_THAT(line(edge).vertices[1].place,
                    test::IsNear(5 + 60 * std::cos(a), 15 - 60 * std::sin(a), 1e-9))
            << typed;
        run("undo");
    }
    EXPECT_EQ(line(edge).vertices[1].place, before);
    select(edge);  // the copy is what is selected
    run("plan-mirror");
    type(QStringLiteral("0, 20"));
    type(QStringLiteral("10, 20"));
    key(Qt::Key_Return);
    EXPECT_THAT(line(edge).vertices[0].place, test::IsNear(5, 25, 1e-9));
    window->session().selection().set({{site.points, std::size_t{4}}});
    run("plan-copy");
    type(QStringLiteral("50, 50"));
    type(QStringLiteral("52, 50"));
    const auto& set = doc().get<objects::Points>(site.points)->set;
    ASSERT_EQ(set.size(), 6U);
    EXPECT_THAT(set[5].plan, test::IsNear(52, 50, 1e-9));
    EXPECT_EQ(set[5].number, "6");
}

}  // namespace
}  // namespace erdwerk::app
