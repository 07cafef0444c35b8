#include "app/base/open_project.h"
#include "core/objects/line.h"
#include "core/objects/points.h"
#include "core/operations/edit.h"
#include "window_test.h"

namespace erdwerk::app {
namespace {

using geometry::Vec2;

class Plan : public WindowTest {};

TEST_F(Plan, DraggingAPointMovesSurfaceContoursAndLinesWhileTheMouseIsDown) {
    demo();
    const ObjectId set = named<objects::Points>("survey");
    const ObjectId ground = named<objects::Surface>("Ground");
    const Vec2 from = doc().get<objects::Points>(set)->set[100].plan;
    const auto before = derived().surfaces.at(ground);
    look(from, 20);
    const Vec2 to = from + Vec2{2.5, 1.5};
    drag(from, to);
    window->settle();
    // Still held down: shown, but not yet a step in the history.
    EXPECT_NE(derived().surfaces.at(ground), before);
    EXPECT_TRUE(derived().surface(ground)->heightAt(to).has_value());
    EXPECT_EQ(window->session().history().position(), 0U);
    drop(to);
    EXPECT_EQ(window->session().history().position(), 1U);
    EXPECT_NEAR(doc().get<objects::Points>(set)->set[100].plan.x, to.x, 0.06);
    run("undo");
    EXPECT_EQ(doc().get<objects::Points>(set)->set[100].plan, from);
    run("redo");
    EXPECT_NEAR(doc().get<objects::Points>(set)->set[100].plan.x, to.x, 0.06);
}

TEST_F(Plan, ChangingAHeightInFactsChangesTheSurface) {
    demo();
    const ObjectId set = named<objects::Points>("survey");
    const ObjectId ground = named<objects::Surface>("Ground");
    const auto p = doc().get<objects::Points>(set)->set[100];
    select(set, 100);
    auto* height = window->facts()->findChild<QLineEdit*>(QStringLiteral("fact:Height"));
    ASSERT_NE(height, nullptr);
    height->setFocus();
    height->selectAll();
    QTest::keyClicks(height, QStringLiteral("+2.5"));
    QTest::keyClick(height, Qt::Key_Return);
    window->settle();
    window->settle();
    EXPECT_NEAR(*derived().surface(ground)->heightAt(p.plan), *p.height + 2.5, 1e-9);
}

TEST_F(Plan, AFactThatCannotBeReadIsRefusedAndNothingChanges) {
    demo();
    const ObjectId set = named<objects::Points>("survey");
    select(set, 100);
    auto* height = window->facts()->findChild<QLineEdit*>(QStringLiteral("fact:Height"));
    height->setFocus();
    height->selectAll();
    QTest::keyClicks(height, QStringLiteral("12,x"));
    QTest::keyClick(height, Qt::Key_Return);
    window->settle();
    EXPECT_EQ(window->session().history().position(), 0U);
    EXPECT_TRUE(window->prompt()->text().contains(QStringLiteral("12,x")));
}

TEST_F(Plan, TheCursorReadsHeightGradeAndDownhill) {
    demo();
    moveTo({48100, 91060});
    const auto labels = window->statusBar()->findChildren<QLabel*>();
    const bool shown = std::any_of(labels.begin(), labels.end(), [](const QLabel* l) {
        return l->text().contains(QStringLiteral("height 3")) &&
               l->text().contains(QStringLiteral("downhill"));
    });
    EXPECT_TRUE(shown);
}

TEST_F(Plan, ClickSelectsShiftAddsDeleteRemovesAndUndoBringsBack) {
    demo();
    const ObjectId set = named<objects::Points>("survey");
    const auto size = doc().get<objects::Points>(set)->set.size();
    const Vec2 a = doc().get<objects::Points>(set)->set[60].plan;
    const Vec2 b = doc().get<objects::Points>(set)->set[61].plan;
    look(geometry::lerp(a, b, 0.5), 20);
    click(a);
    click(b, Qt::ShiftModifier);
    EXPECT_EQ(window->session().selection().size(), 2U);
    key(Qt::Key_Delete);
    EXPECT_EQ(doc().get<objects::Points>(set)->set.size(), size - 2);
    run("undo");
    EXPECT_EQ(doc().get<objects::Points>(set)->set.size(), size);
}

TEST_F(Plan, PanningMovesTheLastPictureAtOnceWithoutNewResults) {
    demo();
    const auto snapshot = window->session().snapshot();
    const Vec2 before = window->plan()->view().centre;
    QTest::mousePress(window->plan(), Qt::RightButton, {}, QPoint(200, 200));
    QMouseEvent move(QEvent::MouseMove, QPointF(260, 230), window->plan()->mapToGlobal(QPointF(260, 230)),
                     Qt::NoButton, Qt::RightButton, Qt::NoModifier);
    QApplication::sendEvent(window->plan(), &move);
    EXPECT_LT(window->plan()->view().centre.x, before.x);
    EXPECT_EQ(window->session().snapshot(), snapshot);
    QTest::mouseRelease(window->plan(), Qt::RightButton, {}, QPoint(260, 230));
}

TEST_F(Plan, HoverIsSharedWithSectionAndTable) {
    demo();
    const ObjectId terrace = named<objects::Line>("Dome Terrace");
    select(terrace);
    const Vec2 corner = doc().get<objects::Line>(terrace)->line.vertices[1].place;
    look(corner, 20);
    moveTo(corner);
    ASSERT_TRUE(window->session().selection().hover());
    EXPECT_EQ(window->session().selection().hover()->ref->object, terrace);
    EXPECT_NEAR(*window->session().selection().hover()->height, 321.12, 1e-9);
}

TEST_F(Plan, FindingsGoToTheirPlaceAndAreFixedByKey) {
    demo();
    auto* list = window->findings()->list();
    window->bench()->open(Bench::Page::Findings);
    ASSERT_EQ(list->topLevelItemCount(), 5);
    list->setFocus();
    QTest::keyClick(list, Qt::Key_Return);
    window->settle();
    EXPECT_NEAR(window->plan()->view().centre.x, 48064.5, 0.1);
    QTest::keyClick(list, Qt::Key_1);
    window->settle();
    EXPECT_EQ(list->topLevelItemCount(), 4);
    QTest::keyClick(list, Qt::Key_1);
    window->settle();
    QTest::keyClick(list, Qt::Key_1);
    window->settle();
    EXPECT_EQ(list->topLevelItemCount(), 2);
    run("undo");
    EXPECT_EQ(list->topLevelItemCount(), 3);
}

TEST_F(Plan, TheSceneMarksTheSamePlace) {
    demo();
    window->views()->setTwin(TwinViews::Twin::Scene);
    window->settle();
    const Vec2 place{48120, 91080};
    const auto height = derived().topHeight(place);
    const auto at = window->scene()->project(place, *height);
    ASSERT_TRUE(at);
    const auto under = window->scene()->placeUnder(*at);
    ASSERT_TRUE(under);
    EXPECT_NEAR(under->x, place.x, 0.5);
    EXPECT_NEAR(under->y, place.y, 0.5);
    QTest::mouseMove(window->scene(), at->toPoint());
    QMouseEvent move(QEvent::MouseMove, *at, window->scene()->mapToGlobal(*at), Qt::NoButton, Qt::NoButton,
                     Qt::NoModifier);
    QApplication::sendEvent(window->scene(), &move);
    ASSERT_TRUE(window->session().selection().hover());
    EXPECT_NEAR(window->session().selection().hover()->place.x, place.x, 0.5);
}

}  // namespace
}  // namespace erdwerk::app
