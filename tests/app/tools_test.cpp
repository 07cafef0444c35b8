#include "app/base/open_project.h"
#include "app/tools/draw_line.h"
#include "core/objects/line.h"
#include "core/objects/points.h"
#include "core/operations/surfaces.h"
#include "window_test.h"

namespace erdwerk::app {
namespace {

using geometry::Vec2;

class Tools : public WindowTest {
protected:
    [[nodiscard]] const linework::Line3D& line(const std::string& name) const {
        return doc().get<objects::Line>(named<objects::Line>(name))->line;
    }
};

TEST_F(Tools, ALineIsTypedWithItsHeightsAndKeepsTheGrade) {
    window->session().project().startNew({});
    window->settle();
    window->stageBar()->setStage(Stage::Shape);
    run("draw-line");
    type(QStringLiteral("100, 200"));
    type(QStringLiteral("50.00"));
    type(QStringLiteral("N 90 E 20"));
    type(QStringLiteral("2%"));
    type(QStringLiteral("az 0 10"));
    type(QStringLiteral("+0.15"));
    key(Qt::Key_Return);
    const auto& l = line("Line 1");
    ASSERT_EQ(l.vertices.size(), 3U);
    EXPECT_NEAR(l.vertices[1].place.x, 120, 1e-9);
    const auto& r = *derived().lines.at(named<objects::Line>("Line 1"));
    EXPECT_NEAR(*r.vertices[1].height, 50.4, 1e-9);
    EXPECT_NEAR(*r.vertices[2].height, 50.55, 1e-9);
    // The first height moves; two per cent stay two per cent.
    setCell(window->grades()->table(), 0, 2, QStringLiteral("60"));
    EXPECT_NEAR(*derived().lines.at(named<objects::Line>("Line 1"))->vertices[1].height, 60.4, 1e-9);
    EXPECT_EQ(window->grades()->table()->item(1, 3)->text(), QStringLiteral("2%"));
}

TEST_F(Tools, BackspaceAndUndoTakeTheLastCornerBack) {
    window->session().project().startNew({});
    window->settle();
    run("draw-line");
    for (const char* text : {"0, 0", "10, 0", "10, 10"}) type(QString::fromUtf8(text));
    auto* tool = qobject_cast<DrawLineTool*>(window->tool());
    ASSERT_NE(tool, nullptr);
    EXPECT_EQ(tool->line().vertices.size(), 3U);
    key(Qt::Key_Backspace);
    EXPECT_EQ(tool->line().vertices.size(), 2U);
    run("undo");
    EXPECT_EQ(tool->line().vertices.size(), 1U);
    run("redo");
    EXPECT_EQ(tool->line().vertices.size(), 2U);
    EXPECT_TRUE(doc().objects().empty());
    key(Qt::Key_Escape);
    EXPECT_EQ(window->tool(), nullptr);
}

TEST_F(Tools, WhatCannotBeReadIsSaidAndTheToolGoesOn) {
    window->session().project().startNew({});
    window->settle();
    run("draw-line");
    type(QStringLiteral("100, 200"));
    type(QStringLiteral("3%"));
    EXPECT_TRUE(window->prompt()->text().contains(QStringLiteral("no corner before")));
    type(QStringLiteral("rubbish"));
    EXPECT_TRUE(window->prompt()->text().contains(QStringLiteral("rubbish")));
    EXPECT_NE(window->tool(), nullptr);
    type(QStringLiteral("=Nowhere"));
    EXPECT_TRUE(window->prompt()->text().contains(QStringLiteral("no surface or 3D line named")));
}

TEST_F(Tools, ClickedCornersLieOnTheSurfaceAndAnEndIsContinued) {
    demo();
    run("fit");
    run("draw-line");
    look({48200, 91060}, 8);
    click({48195, 91052});
    click({48212, 91066});
    key(Qt::Key_Return);
    const auto& l = line("Line 1");
    ASSERT_EQ(l.vertices.size(), 2U);
    EXPECT_TRUE(std::holds_alternative<linework::OnSurface>(l.vertices[0].rule));
    const Vec2 start = l.vertices[0].place;
    run("draw-line");
    click(start);
    click({48186, 91060});
    key(Qt::Key_Return);
    ASSERT_EQ(line("Line 1").vertices.size(), 3U);
    EXPECT_NEAR(line("Line 1").vertices.front().place.x, 48186, 0.2);
    EXPECT_EQ(doc().all<objects::Line>().size(), 15U);
}

TEST_F(Tools, DrapeInsertSplitJoinReverse) {
    demo();
    run("draw-line");
    for (const char* text : {"48190, 91050", "48215, 91060", "48225, 91085"}) type(QString::fromUtf8(text));
    key(Qt::Key_Return);
    look({48205, 91066}, 9);
    window->session().selection().set({});
    run("drape");
    click(geometry::lerp(Vec2{48190, 91050}, Vec2{48215, 91060}, 0.4));
    const std::size_t draped = line("Line 1").vertices.size();
    EXPECT_GT(draped, 5U);
    const double length = derived().lines.at(named<objects::Line>("Line 1"))->length;
    run("split");
    click({48215, 91060});
    EXPECT_EQ(cornersOf(line("Line 1")).size(), 2U);
    EXPECT_EQ(cornersOf(line("Line 1 (2)")).size(), 2U);
    run("join");
    window->session().selection().set({});
    run("join");
    click({48200, 91054});
    click({48220, 91072.5});
    EXPECT_EQ(line("Line 1").vertices.size(), draped);
    EXPECT_NEAR(derived().lines.at(named<objects::Line>("Line 1"))->length, length, 1e-9);
    window->session().selection().set({});
    run("reverse");
    click({48200, 91054});
    EXPECT_NEAR(line("Line 1").vertices.front().place.y, 91085, 1e-9);
    for (int i = 0; i < 5; ++i) run("undo");
    EXPECT_EQ(doc().all<objects::Line>().size(), 14U);
}

TEST_F(Tools, AWrongPickIsMadeAgainThroughItsChip) {
    demo();
    window->session().selection().set({});
    run("join");
    look({48064, 91080}, 6);
    click({48058, 91074});
    ASSERT_TRUE(window->tool()->chips()[0].value.endsWith(QStringLiteral("Peat ditch")));
    auto* chip = window->prompt()->findChild<QPushButton*>(QStringLiteral("chip"));
    ASSERT_NE(chip, nullptr);
    QTest::mouseClick(chip, Qt::LeftButton);
    EXPECT_TRUE(window->tool()->chips()[0].value.isEmpty());
}

TEST_F(Tools, BreaklinesJoinAndLeaveTheSurface) {
    demo();
    const ObjectId ground = named<objects::Surface>("Ground");
    const ObjectId terrace = named<objects::Line>("Dome Terrace");
    select(terrace);
    run("breakline-add");
    key(Qt::Key_Return);
    EXPECT_TRUE(operations::hasSource(doc(), ground, terrace));
    EXPECT_NEAR(*derived().surface(ground)->heightAt({48106, 91082}), 321.26, 1e-6);
    select(terrace);
    run("breakline-remove");
    key(Qt::Key_Return);
    EXPECT_FALSE(operations::hasSource(doc(), ground, terrace));
}

TEST_F(Tools, GradesTableTakesRulesInTheTradesNotation) {
    demo();
    const ObjectId terrace = named<objects::Line>("Dome Terrace");
    select(terrace);
    auto* table = window->grades()->table();
    ASSERT_EQ(table->rowCount(), 4);
    setCell(table, 1, 3, QStringLiteral("1 in 20"));
    EXPECT_NEAR(*derived().lines.at(terrace)->vertices[1].height, 321.4 + 28.0 / 20, 1e-9);
    setCell(table, 1, 5, QStringLiteral("3%"));  // grade ahead belongs to the next point
    EXPECT_NEAR(*derived().lines.at(terrace)->vertices[2].height, 322.8 + 0.03 * 20, 1e-9);
    setCell(table, 2, 3, QStringLiteral("=Ground+0.10"));
    EXPECT_TRUE(std::holds_alternative<linework::OnSurface>(line("Dome Terrace").vertices[2].rule));
    const auto position = window->session().history().position();
    setCell(table, 2, 3, QStringLiteral("what"));
    EXPECT_EQ(window->session().history().position(), position);
    EXPECT_EQ(table->item(2, 3)->text(), QStringLiteral("=Ground+0.1"));
}

TEST_F(Tools, AHeightIsDraggedInTheSection) {
    demo();
    const ObjectId terrace = named<objects::Line>("Dome Terrace");
    window->stageBar()->setStage(Stage::Shape);
    select(terrace);
    auto* section = window->grades()->section();
    const QPoint from = section->handlePosition(0).toPoint();
    QTest::mousePress(section, Qt::LeftButton, {}, from);
    QMouseEvent move(QEvent::MouseMove, QPointF(from + QPoint(0, -20)),
                     section->mapToGlobal(QPointF(from + QPoint(0, -20))), Qt::NoButton, Qt::LeftButton,
                     Qt::NoModifier);
    QApplication::sendEvent(section, &move);
    QTest::mouseRelease(section, Qt::LeftButton, {}, from + QPoint(0, -20));
    window->settle();
    EXPECT_GT(*derived().lines.at(terrace)->vertices[0].height, 321.5);
    EXPECT_EQ(window->session().history().position(), 1U);
}

TEST_F(Tools, PointsAreConnectedByCodeAndByNumber) {
    demo();
    const ObjectId set = named<objects::Points>("survey");
    select(set);
    const auto lines = doc().all<objects::Line>().size();
    run("connect-code");
    EXPECT_GT(doc().all<objects::Line>().size(), lines + 5);
    EXPECT_GT(line("CREST1").vertices.size(), 30U);
    window->session().selection().set({{set, 3}, {set, 1}, {set, 2}});
    run("connect-number");
    EXPECT_EQ(line("Line 1").vertices[0].place, doc().get<objects::Points>(set)->set[1].plan);
}

TEST_F(Tools, AToolThatCannotRunSaysWhy) {
    window->session().project().startNew({});
    window->settle();
    run("drape");
    EXPECT_EQ(window->tool(), nullptr);
    EXPECT_TRUE(window->prompt()->text().contains(QStringLiteral("no surface")));
}

}  // namespace
}  // namespace erdwerk::app
