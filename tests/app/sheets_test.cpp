// Sheets as a person works on them: frames dragged, sized, typed, along an alignment.

#include <QMenu>

#include "app/base/open_project.h"
#include "app/sheet/text_recorder.h"
#include "core/objects/line.h"
#include "sheets_site.h"

namespace erdwerk::app {
namespace {

using objects::PlanFrame;
using test::frameOf;

class Sheets : public SheetsSite {};

TEST_F(Sheets, AFrameIsTakenDraggedSizedAndBroughtBackByUndo) {
    const std::size_t frame = frameOf<objects::DescriptionFrame>(now());
    const auto room = now().frames[frame].room;
    const QPoint middle = at(room.left + room.width / 2, room.top + room.height / 2);
    QTest::mouseClick(canvas(), Qt::LeftButton, {}, middle);
    ASSERT_EQ(canvas()->selectedFrame(), frame);
    drag(middle, at(room.left + room.width / 2 - 60, room.top + room.height / 2 - 21.5));
    auto moved = now().frames[frame].room;
    EXPECT_NEAR(moved.left, room.left - 60, 4);
    EXPECT_NEAR(moved.top, room.top - 21.5, 4);
    EXPECT_DOUBLE_EQ(moved.width, room.width);
    // By its lower right corner.
    drag(at(moved.right(), moved.bottom()), at(moved.right() - 15, moved.bottom() - 12));
    EXPECT_DOUBLE_EQ(now().frames[frame].room.left, moved.left);
    EXPECT_NEAR(now().frames[frame].room.width, moved.width - 15, 4);
    window->session().undo();
    window->session().undo();
    EXPECT_EQ(now().frames[frame].room, room);
    EXPECT_EQ(canvas()->selectedFrame(), frame);
}

TEST_F(Sheets, GuidesAreCaughtAndEscLeavesTheFrameWhereItWas) {
    const std::size_t frame = frameOf<objects::ScaleFrame>(now());
    const auto room = now().frames[frame].room;
    const QPoint grip = at(room.left + 10, room.top + 10);
    QTest::mouseClick(canvas(), Qt::LeftButton, {}, grip);
    // Its left edge comes within a millimetre of the plan's right edge.
    const double edge = now().frames[frameOf<PlanFrame>(now())].room.right();
    drag(grip, at(room.left + 10 + (edge - room.left) + 0.6, room.top + 60));
    EXPECT_DOUBLE_EQ(now().frames[frame].room.left, edge);
    const auto caught = now().frames[frame].room;
    const QPoint again = at(caught.left + 10, caught.top + 10);
    drag(again, at(caught.left - 90, caught.top + 50), false);
    key(Qt::Key_Escape);
    QTest::mouseRelease(canvas(), Qt::LeftButton, {}, at(caught.left - 90, caught.top + 50));
    EXPECT_EQ(now().frames[frame].room, caught);
}

TEST_F(Sheets, ArrowsNudgeDeleteRemovesAndEscLeadsBack) {
    const std::size_t frame = frameOf<objects::ScaleFrame>(now());
    window->session().selection().set({{sheet, frame}});
    canvas()->setFocus();
    const auto room = now().frames[frame].room;
    QTest::keyClick(canvas(), Qt::Key_Left);
    QTest::keyClick(canvas(), Qt::Key_Down, Qt::ShiftModifier);
    EXPECT_NEAR(now().frames[frame].room.left, room.left - 1, 1e-9);
    EXPECT_NEAR(now().frames[frame].room.top, room.top + 10, 1e-9);
    const std::size_t count = now().frames.size();
    QTest::keyClick(canvas(), Qt::Key_Delete);
    EXPECT_EQ(now().frames.size(), count - 1);
    EXPECT_TRUE(doc().find(sheet));
    EXPECT_FALSE(canvas()->selectedFrame());
    key(Qt::Key_Escape);
    EXPECT_FALSE(window->sheetPage()->isVisible());
    EXPECT_TRUE(window->plan()->isVisible());
}

TEST_F(Sheets, AFrameThatIsTakenBackIsNeitherDeletedNorItsSheet) {
    run("frame-notes");
    ASSERT_TRUE(canvas()->selectedFrame());
    const std::size_t frames = now().frames.size();
    window->session().undo();
    ASSERT_EQ(now().frames.size(), frames - 1);
    run("delete");
    EXPECT_TRUE(doc().find(sheet));
    EXPECT_EQ(now().frames.size(), frames - 1);
    EXPECT_FALSE(canvas()->selectedFrame());
}

TEST_F(Sheets, UndoWhileAFrameIsDraggedLetsItGo) {
    run("frame-notes");
    run("frame-legend");
    const std::size_t frame = now().frames.size() - 1;
    const auto room = now().frames[frame].room;
    const QPoint middle = at(room.left + room.width / 2, room.top + room.height / 2);
    drag(middle, middle + QPoint(40, 30), false);
    window->session().undo();
    const auto before = now();
    QTest::mouseRelease(canvas(), Qt::LeftButton, {}, middle + QPoint(40, 30));
    EXPECT_EQ(now(), before);
}

TEST_F(Sheets, AnEdgeStopsAtThatOfThePaperAndTheFrameStaysWhereItIs) {
    const std::size_t frame = frameOf<objects::TitleFrame>(now());
    window->session().selection().set({{sheet, frame}});
    const auto room = now().frames[frame].room;
    drag(at(room.right(), room.top + room.height / 2), at(room.right() + 60, room.top + room.height / 2));
    EXPECT_DOUBLE_EQ(now().frames[frame].room.left, room.left);
    EXPECT_NEAR(now().frames[frame].room.right(), 420, 1e-9);
}

TEST_F(Sheets, WhateverLeadsToAPlaceLeadsToThePlan) {
    run("draw-line");
    EXPECT_TRUE(window->plan()->isVisible());
    key(Qt::Key_Escape);
    select(sheet);
    run("sheet-open");
    EXPECT_FALSE(window->plan()->isVisible());
    Q_EMIT window->session().selection().goToPlace({48100, 91080});
    EXPECT_TRUE(window->plan()->isVisible());
}

TEST_F(Sheets, WithShiftThePlanIsMovedInItsFrame) {
    const std::size_t frame = frameOf<PlanFrame>(now());
    const auto room = now().frames[frame].room;
    const auto before = std::get<PlanFrame>(now().frames[frame].content).centre;
    const QPoint from = at(room.left + 100, room.top + 100);
    const QPoint to = at(room.left + 120, room.top + 100);
    QTest::mousePress(canvas(), Qt::LeftButton, Qt::ShiftModifier, from);
    for (const QPoint p : {(from + to) / 2, to}) {
        QMouseEvent move(QEvent::MouseMove, QPointF(p), canvas()->mapToGlobal(QPointF(p)), Qt::NoButton,
                         Qt::LeftButton, Qt::ShiftModifier);
        QApplication::sendEvent(canvas(), &move);
    }
    EXPECT_FALSE(canvas()->grab().isNull());
    QTest::mouseRelease(canvas(), Qt::LeftButton, Qt::ShiftModifier, to);
    // 20 mm at 1:500 are 10 m, to a pixel of the screen.
    const auto after = std::get<PlanFrame>(now().frames[frame].content).centre;
    EXPECT_NEAR(after.x, before.x - 10, 0.6);
    EXPECT_NEAR(after.y, before.y, 0.6);
    EXPECT_EQ(now().frames[frame].room, room);
    window->session().undo();
    EXPECT_EQ(std::get<PlanFrame>(now().frames[frame].content).centre, before);
}

TEST_F(Sheets, ADoubleClickOnAPlanLeadsToItsPlaceAndOnANoteToNothing) {
    run("frame-notes");
    const auto notes = now().frames.back().room;
    QTest::mouseDClick(canvas(), Qt::LeftButton, {}, at(notes.left + 4, notes.top + 4));
    EXPECT_TRUE(window->sheetPage()->isVisible());
    window->session().undo();
    const std::size_t frame = frameOf<PlanFrame>(now());
    const auto room = now().frames[frame].room;
    window->plan()->setView({0, 0}, 1);
    QTest::mouseDClick(canvas(), Qt::LeftButton, {}, at(room.left + 100, room.top + 100));
    EXPECT_FALSE(window->sheetPage()->isVisible());
    const auto centre = std::get<PlanFrame>(now().frames[frame].content).centre;
    EXPECT_NEAR(window->plan()->view().centre.x, centre.x, 0.5);
    EXPECT_NEAR(window->plan()->view().centre.y, centre.y, 0.5);
}

TEST_F(Sheets, TheWheelZoomsAtTheCursorAndHomeShowsAllOfIt) {
    const QPointF corner = canvas()->toScreen(420, 297);
    const QPointF there = canvas()->toScreen(100, 80);
    QWheelEvent wheel(there, canvas()->mapToGlobal(there), {}, {0, 240}, Qt::NoButton, Qt::NoModifier,
                      Qt::NoScrollPhase, false);
    QApplication::sendEvent(canvas(), &wheel);
    EXPECT_NEAR(canvas()->toScreen(100, 80).x(), there.x(), 1e-6);
    EXPECT_GT(canvas()->toScreen(420, 297).x(), corner.x() + 20);
    canvas()->setFocus();
    QTest::keyClick(canvas(), Qt::Key_Home);
    EXPECT_NEAR(canvas()->toScreen(420, 297).x(), corner.x(), 1e-6);
    window->settle();
    EXPECT_TRUE(canvas()->settled());
}

TEST_F(Sheets, ARightClickOffersWhatCanBeDoneWithASheet) {
    const auto room = now().frames[frameOf<objects::ScaleFrame>(now())].room;
    QTest::mouseClick(canvas(), Qt::RightButton, {}, at(room.left + 4, room.top + 4));
    auto* menu = window->findChild<QMenu*>(QStringLiteral("objectMenu"));
    ASSERT_NE(menu, nullptr);
    QStringList words;
    for (const QAction* item : menu->actions()) words << item->text();
    menu->close();
    EXPECT_TRUE(words.join(QLatin1Char('|')).contains(QStringLiteral("Copy the sheet")))
        << words.join(QLatin1Char('|')).toStdString();
    EXPECT_EQ(canvas()->selectedFrame(), frameOf<objects::ScaleFrame>(now()));
}

TEST_F(Sheets, ADragWithTheRightButtonMovesThePaperAndOffersNothing) {
    const QPoint from = at(100, 100);
    const QPointF corner = canvas()->toScreen(0, 0);
    QTest::mousePress(canvas(), Qt::RightButton, {}, from);
    for (const QPoint by : {QPoint(20, 10), QPoint(40, 20)}) {
        QMouseEvent move(QEvent::MouseMove, QPointF(from + by), canvas()->mapToGlobal(QPointF(from + by)),
                         Qt::NoButton, Qt::RightButton, Qt::NoModifier);
        QApplication::sendEvent(canvas(), &move);
    }
    QTest::mouseRelease(canvas(), Qt::RightButton, {}, from + QPoint(40, 20));
    EXPECT_EQ(canvas()->toScreen(0, 0), corner + QPointF(40, 20));
    EXPECT_EQ(window->findChild<QMenu*>(QStringLiteral("objectMenu")), nullptr);
}

TEST_F(Sheets, AFrameKnowsWhichGroupsItShows) {
    const std::size_t frame = frameOf<PlanFrame>(now());
    window->session().selection().set({{sheet, frame}});
    QCoreApplication::processEvents();
    const auto ink = [&] {
        window->settle();
        TextRecorder recorder(QSizeF(420, 297) * 10);
        QPainter painter(&recorder);
        paintSheet(painter, *window->session().snapshot(), sheet, 10);
        painter.end();
        return recorder.written().size();
    };
    const auto before = ink();
    run("sheet-open");
    const ObjectId style = named<objects::LabelStyle>("Plain segment");
    ASSERT_TRUE(window->session().edit(QStringLiteral("hide"),
                                       operations::setFrameShows(sheet, frame, style, false)));
    EXPECT_LT(ink(), before);
    // The screen still shows them.
    EXPECT_FALSE(doc().shown().hidden.contains(style));
}

TEST_F(Sheets, AlongTheLaneTheyAreMadeInOneGoAndTakenBackInOne) {
    key(Qt::Key_Escape);
    select(named<objects::Alignment>("Starling Lane"));
    const std::size_t before = doc().all<objects::Sheet>().size();
    run("sheets-along");
    auto* dialog = window->findChild<QDialog*>(QStringLiteral("sheetsAlong"));
    ASSERT_NE(dialog, nullptr);
    EXPECT_FALSE(dialog->isModal());
    auto* scale = dialog->findChild<QLineEdit*>();
    auto* result = dialog->findChild<QLabel*>(QStringLiteral("sheetsAlongResult"));
    EXPECT_TRUE(result->text().contains(QStringLiteral("sheets"))) << result->text().toStdString();
    auto* make = dialog->findChild<QPushButton*>(QStringLiteral("makeSheets"));
    scale->setText(QStringLiteral("none"));
    EXPECT_FALSE(make->isEnabled());
    EXPECT_TRUE(result->text().contains(QStringLiteral("scale")));
    scale->setText(QStringLiteral("200"));
    EXPECT_TRUE(make->isEnabled()) << result->text().toStdString();
    make->click();
    window->settle();
    const std::size_t made = doc().all<objects::Sheet>().size() - before;
    EXPECT_GE(made, 3U);
    EXPECT_TRUE(window->sheetPage()->isVisible());
    window->session().undo();
    EXPECT_EQ(doc().all<objects::Sheet>().size(), before);
    window->settle();
}

TEST_F(Sheets, AnotherProjectAnotherSheetAndADeletedOneLeaveNothingBehind) {
    auto* which = window->sheetPage()->findChild<QComboBox*>(QStringLiteral("whichSheet"));
    ASSERT_EQ(which->count(), 3);
    which->setCurrentIndex(1);
    Q_EMIT which->activated(1);
    EXPECT_NE(canvas()->sheet(), sheet);
    const ObjectId second = canvas()->sheet();
    put(QStringLiteral("gone"), doc().without(second));
    window->settle();
    EXPECT_EQ(canvas()->sheet(), sheet);
    put(QStringLiteral("all gone"), document::removeAll(doc(), doc().all<objects::Sheet>()));
    window->settle();
    EXPECT_FALSE(window->sheetPage()->isVisible());
    window->session().undo();
    window->settle();
    run("sheet-open");
    EXPECT_TRUE(window->sheetPage()->isVisible());
    demo();
    EXPECT_FALSE(window->sheetPage()->isVisible());
}

TEST_F(Sheets, APlanOnASheetFollowsADragOnTheGround) {
    key(Qt::Key_Escape);
    run("sheet-open");
    const ObjectId terrace = named<objects::Line>("Dome Terrace");
    const QImage was = canvas()->grab().toImage();
    put(QStringLiteral("move"), document::changed<objects::Line>(doc(), terrace, [](objects::Line& l) {
            for (auto& v : l.line.vertices) v.place.x += 12;
        }));
    window->settle();
    EXPECT_NE(canvas()->grab().toImage(), was);
}

}  // namespace
}  // namespace erdwerk::app
