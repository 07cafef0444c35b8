// Handling things: menus under the cursor, keys, copying and pasting, several things at once, measuring,
// printing, and the demo's way from the ground to a parcel without the mouse.

#include <QClipboard>
#include <QContextMenuEvent>
#include <QMenu>
#include <QPrinter>

#include "app/base/open_project.h"
#include "app/bench/table_clipboard.h"
#include "app/tools/find_ground.h"
#include "app/window/finder.h"
#include "core/linework/line3d.h"
#include "core/linework/rules/fixed_height.h"
#include "core/linework/rules/grade_from_previous.h"
#include "core/objects/line.h"
#include "core/objects/points.h"
#include "core/objects/surface.h"
#include "window_test.h"

namespace erdwerk::app {
namespace {

class Handling : public WindowTest {
protected:
    [[nodiscard]] static QMenu* openMenu() { return qobject_cast<QMenu*>(QApplication::activePopupWidget()); }
    [[nodiscard]] static QStringList textsOf(const QMenu* menu) {
        QStringList out;
        for (const QAction* item : menu->actions()) out << item->text().section(QLatin1Char('\t'), 0, 0);
        return out;
    }
    void rightClick(geometry::Vec2 place) {
        moveTo(place);
        QTest::mouseClick(window->plan(), Qt::RightButton, {}, pixel(place));
    }
    /// Presses an item of the open menu and closes it.
    void choose(const QString& text) {
        QMenu* menu = openMenu();
        ASSERT_NE(menu, nullptr);
        QAction* found = nullptr;
        for (QAction* item : menu->actions())
            if (item->text().startsWith(text)) found = item;
        ASSERT_NE(found, nullptr) << qPrintable(text);
        found->trigger();
        menu->close();
        window->settle();
    }
    [[nodiscard]] std::string lastStep() const { return window->session().history().steps().back().what; }
};

// ---- menus and keys

TEST_F(Handling, ARightClickWithoutDraggingOffersWhatSuitsTheThing) {
    demo();
    const ObjectId ditch = named<objects::Line>("Dome Terrace");
    const auto corner = derived().lines.at(ditch)->vertices[3].place;
    look(corner, 20);
    window->stageBar()->setStage(Stage::Shape);
    rightClick(corner);
    ASSERT_NE(openMenu(), nullptr);
    ASSERT_EQ(window->session().selection().size(), 1U);
    EXPECT_EQ(window->session().selection().front(), (Ref{ditch, 3}));
    const QStringList texts = textsOf(openMenu());
    for (const char* text :
         {"Split a line", "Delete a corner", "Ground", "Record", "Show or hide", "Rename…", "Delete"})
        EXPECT_TRUE(texts.contains(QString::fromUtf8(text))) << text;
    EXPECT_FALSE(texts.contains(QStringLiteral("Find the ground")));
    choose(QStringLiteral("Show or hide"));
    EXPECT_TRUE(doc().shown().hidden.contains(ditch));
    // Dragging with the right button moves the plan and opens nothing.
    const auto before = window->plan()->view().centre;
    QTest::mousePress(window->plan(), Qt::RightButton, {}, QPoint(200, 200));
    QMouseEvent move(QEvent::MouseMove, QPointF(260, 200), window->plan()->mapToGlobal(QPointF(260, 200)),
                     Qt::NoButton, Qt::RightButton, Qt::NoModifier);
    QApplication::sendEvent(window->plan(), &move);
    QTest::mouseRelease(window->plan(), Qt::RightButton, {}, QPoint(260, 200));
    EXPECT_EQ(openMenu(), nullptr);
    EXPECT_FALSE(window->plan()->view().centre == before);
}

TEST_F(Handling, TheThreeDimensionalViewOffersTheSameMenu) {
    demo();
    window->stageBar()->setStage(Stage::Shape);
    auto* scene = window->scene();
    if (!scene->isVisible()) run("twin");
    ASSERT_TRUE(scene->isVisible());
    select(named<objects::Line>("Dome Terrace"));
    QContextMenuEvent asked(QContextMenuEvent::Keyboard, QPoint(10, 10), scene->mapToGlobal(QPoint(10, 10)));
    QApplication::sendEvent(scene, &asked);
    ASSERT_NE(openMenu(), nullptr);
    EXPECT_TRUE(textsOf(openMenu()).contains(QStringLiteral("Split a line")));
    choose(QStringLiteral("Show or hide"));
    EXPECT_TRUE(doc().shown().hidden.contains(named<objects::Line>("Dome Terrace")));
    // Dragging with the right button moves the view and opens nothing.
    QTest::mousePress(scene, Qt::RightButton, {}, QPoint(60, 60));
    QMouseEvent move(QEvent::MouseMove, QPointF(120, 60), scene->mapToGlobal(QPointF(120, 60)), Qt::NoButton,
                     Qt::RightButton, Qt::NoModifier);
    QApplication::sendEvent(scene, &move);
    QTest::mouseRelease(scene, Qt::RightButton, {}, QPoint(120, 60));
    EXPECT_EQ(openMenu(), nullptr);
}

TEST_F(Handling, WhatNoViewShowsIsNotHidden) {
    demo();
    const auto before = doc().shown().hidden;
    select(doc().all<objects::Sheet>().front());
    run("show-hide");
    EXPECT_EQ(doc().shown().hidden, before);
    EXPECT_TRUE(window->prompt()->text().startsWith(QStringLiteral("⚠")));
    const ObjectId ditch = named<objects::Line>("Peat ditch");
    window->session().selection().set({{doc().all<objects::Sheet>().front(), {}}, {ditch, {}}});
    run("show-hide");
    auto now = before;
    now.insert(ditch);
    EXPECT_EQ(doc().shown().hidden, now);
}

TEST_F(Handling, TheMenuKeyIsTheSameForWhatIsSelected) {
    demo();
    select(doc().all<objects::Cloud>().front());
    QContextMenuEvent key(QContextMenuEvent::Keyboard, QPoint(10, 10),
                          window->plan()->mapToGlobal(QPoint(10, 10)));
    QApplication::sendEvent(window->plan(), &key);
    ASSERT_NE(openMenu(), nullptr);
    EXPECT_TRUE(textsOf(openMenu())
                    .contains(QStringLiteral("Find the ground")));  // Find the ground and others stand there
    openMenu()->close();
    // While a tool runs it is the tool's.
    run("draw-line");
    QApplication::sendEvent(window->plan(), &key);
    ASSERT_NE(openMenu(), nullptr);
    EXPECT_TRUE(textsOf(openMenu()).contains(QStringLiteral("End Draw 3D line")));
    choose(QStringLiteral("End"));
    EXPECT_EQ(window->tool(), nullptr);
}

TEST_F(Handling, LetterKeysWorkAlsoAfterAClickOnTheStageBarAndOnAFocusedTool) {
    demo();
    auto* shape = window->stageBar()->findChild<QPushButton*>(QStringLiteral("stage2"));
    QTest::mouseClick(shape, Qt::LeftButton);
    window->activateWindow();
    shape->setFocus();
    QTest::keyClick(shape, Qt::Key_D);
    ASSERT_NE(window->tool(), nullptr);
    EXPECT_EQ(window->tool()->title(), QStringLiteral("Draw 3D line"));
    key(Qt::Key_Escape);
    EXPECT_EQ(window->tool(), nullptr);
    // Enter on a tool of the rack.
    auto* split = window->rack()->findChild<QToolButton*>(QStringLiteral("split"));
    split->setFocus();
    QTest::keyClick(split, Qt::Key_Return);
    ASSERT_NE(window->tool(), nullptr);
    EXPECT_EQ(window->tool()->title(), QStringLiteral("Split a line"));
    window->inHand().take(nullptr);
    // In an entry letters are text.
    window->contents()->filter()->setFocus();
    QTest::keyClick(window->contents()->filter(), Qt::Key_D);
    EXPECT_EQ(window->tool(), nullptr);
    EXPECT_EQ(window->contents()->filter()->text(), QStringLiteral("d"));
}

TEST_F(Handling, PagesOpenByNumberAndEverythingIsSelectedByAKey) {
    demo();
    for (const Bench::Page page : Bench::allPages) {
        const QString id = QStringLiteral("page-%1").arg(static_cast<int>(page) + 1);
        EXPECT_EQ(window->actions().find(id)->key,
                  QKeySequence(QStringLiteral("Ctrl+%1").arg(static_cast<int>(page) + 1)));
        run(qPrintable(id));
        EXPECT_EQ(window->bench()->page(), page);
    }
    window->plan()->setFocus();
    run("select-all");
    EXPECT_EQ(window->session().selection().size(),
              doc().objects().size() - doc().all<objects::Group>().size() -
                  doc().all<objects::Sheet>().size() - doc().all<objects::LabelStyle>().size() -
                  doc().all<objects::Profile>().size() - doc().all<objects::OffsetSet>().size() -
                  doc().all<objects::BatterKind>().size() - doc().all<objects::DesignCriteria>().size() -
                  doc().all<objects::Marking>().size() - doc().all<objects::Table>().size() -
                  doc().all<objects::DimensionStyle>().size() - doc().all<objects::Wording>().size() -
                  doc().shown().hidden.size());
}

TEST_F(Handling, TheFinderKnowsPagesSettingsFindingsAndWhatWasUsedLast) {
    demo();
    run("measure");
    run("fit");
    Finder finder(window->actions(), window->session(), nullptr);
    const auto first = [&](const QString& letters) {
        finder.entry()->setText(letters);
        return finder.list()->count() > 0 ? finder.list()->item(0)->text() : QString();
    };
    EXPECT_TRUE(first({}).startsWith(QStringLiteral("Fit all")));
    EXPECT_TRUE(finder.list()->item(1)->text().startsWith(QStringLiteral("Measure")));
    EXPECT_TRUE(first(QStringLiteral("page vol")).startsWith(QStringLiteral("Page Volumes")));
    EXPECT_TRUE(first(QStringLiteral("bearing azimuth")).startsWith(QStringLiteral("Units and display")));
    bool finding = false;
    first(QStringLiteral("no height"));
    for (int i = 0; i < finder.list()->count(); ++i) {
        if (!finder.list()->item(i)->text().contains(QStringLiteral("1590 has no height"))) continue;
        finding = true;
        finder.list()->setCurrentRow(i);
    }
    ASSERT_TRUE(finding);
    QTest::keyClick(finder.entry(), Qt::Key_Return);
    const auto& points = doc().get<objects::Points>(doc().all<objects::Points>().front())->set;
    geometry::Vec2 place;
    for (std::size_t i = 0; i < points.size(); ++i)
        if (points[i].number == "1590") place = points[i].plan;
    EXPECT_THAT(window->plan()->view().centre, test::IsNear(place.x, place.y, 1e-6));
}

// ---- tables

TEST_F(Handling, CellsAreCopiedWithHeadingsAndPastedAsOneStep) {
    const survey::PointSet three(
        {{"1", {0, 0}, 1.0, "A", ""}, {"2", {5, 0}, 2.0, "B", ""}, {"3", {9, 9}, {}, "C", ""}});
    window->session().project().startNew(document::Document().added("P", objects::Points{three}));
    window->settle();
    window->bench()->open(Bench::Page::Tables);
    auto* table = window->tables()->findChild<QTableView*>(QStringLiteral("pointTable"));
    auto* clipboard = table->findChild<TableClipboard*>();
    ASSERT_NE(clipboard, nullptr);
    auto* model = table->model();
    table->selectionModel()->select(QItemSelection(model->index(0, 3), model->index(1, 4)),
                                    QItemSelectionModel::ClearAndSelect);
    QTest::keyClick(table, Qt::Key_C, Qt::ControlModifier);
    EXPECT_EQ(QApplication::clipboard()->text(), QStringLiteral("1.00\tA\n2.00\tB"));
    QTest::keyClick(table, Qt::Key_C, Qt::ControlModifier | Qt::ShiftModifier);
    EXPECT_EQ(QApplication::clipboard()->text(), QStringLiteral("Height\tCode\n1.00\tA\n2.00\tB"));
    // From a spreadsheet: two rows, the second without a height.
    const auto steps = window->session().history().position();
    table->setCurrentIndex(model->index(1, 3));
    table->selectionModel()->select(model->index(1, 3), QItemSelectionModel::ClearAndSelect);
    QApplication::clipboard()->setText(QStringLiteral("7.25\tW\r\n\tV\r\n"));
    QTest::keyClick(table, Qt::Key_V, Qt::ControlModifier);
    window->settle();
    const auto set = doc().get<objects::Points>(doc().all<objects::Points>().front())->set;
    EXPECT_EQ(set[1].height, 7.25);
    EXPECT_EQ(set[1].code, "W");
    EXPECT_FALSE(set[2].height);
    EXPECT_EQ(set[2].code, "V");
    EXPECT_EQ(window->session().history().position(), steps + 1);
    // What does not fit, or cannot be read, changes nothing and says so.
    for (const char* bad : {"8\tX\n9\tY\n10\tZ", "eight"}) {
        table->selectionModel()->select(model->index(1, 3), QItemSelectionModel::ClearAndSelect);
        QApplication::clipboard()->setText(QString::fromLatin1(bad));
        clipboard->paste();
        window->settle();
        EXPECT_EQ(window->session().history().position(), steps + 1) << bad;
        EXPECT_TRUE(window->prompt()->text().startsWith(QStringLiteral("⚠"))) << bad;
    }
}

TEST_F(Handling, GradesArePastedAndSayWhatTheyDid) {
    demo();
    select(named<objects::Line>("Peat ditch"));
    window->bench()->open(Bench::Page::Grades);
    auto* table = window->grades()->table();
    setCell(table, 0, 6, QStringLiteral("-2"));
    EXPECT_EQ(lastStep(), "Peat ditch, point 1: grade -2");
    EXPECT_EQ(table->item(1, 3)->text(), QStringLiteral("-2%"));
    EXPECT_EQ(table->item(0, 7)->text(), QStringLiteral("-50:1"));
    table->setCurrentCell(2, 3);
    QApplication::clipboard()->setText(QStringLiteral("-1%\n=Ground+0.20"));
    QTest::keyClick(table, Qt::Key_V, Qt::ControlModifier);
    window->settle();
    EXPECT_EQ(table->item(2, 3)->text(), QStringLiteral("-1%"));
    EXPECT_EQ(table->item(3, 3)->text(), QStringLiteral("=Ground+0.2"));
    // The run cannot be typed in.
    const auto steps = window->session().history().position();
    table->clearSelection();  // the modifier of the key before may still be held
    table->setCurrentCell(2, 4);
    QApplication::clipboard()->setText(QStringLiteral("5"));
    QTest::keyClick(table, Qt::Key_V, Qt::ControlModifier);
    EXPECT_EQ(window->session().history().position(), steps) << lastStep();
}

// ---- several at once

TEST_F(Handling, SeveralObjectsAreEditedAtOnceAndDifferingValuesShown) {
    demo();
    const ObjectId ditch = named<objects::Line>("Peat ditch");
    const ObjectId crest = named<objects::Line>("North Knoll crest");
    window->session().selection().set({{ditch, {}}, {crest, {}}});
    window->settle();
    const auto combo = [&](const char* name) {
        return window->facts()->findChild<QComboBox*>(QStringLiteral("fact:") + QString::fromLatin1(name));
    };
    EXPECT_EQ(combo("Group")->currentIndex(), -1);
    EXPECT_EQ(combo("Group")->placeholderText(), QStringLiteral("differs"));
    EXPECT_EQ(combo("Drawn as")->currentIndex(), -1);
    const auto choose = [&](const char* name, int i) {
        combo(name)->setCurrentIndex(i);
        Q_EMIT combo(name)->activated(i);
        window->settle();
    };
    choose("Drawn as", 2);
    EXPECT_EQ(doc().get<objects::Line>(ditch)->style, objects::LineStyle::Toe);
    EXPECT_EQ(doc().get<objects::Line>(crest)->style, objects::LineStyle::Toe);
    EXPECT_EQ(combo("Drawn as")->currentIndex(), 2);
    choose("Group", 0);
    EXPECT_FALSE(doc().find(ditch)->group);
    EXPECT_FALSE(doc().find(crest)->group);
    choose("Role in Ground", 1);
    for (const auto& s : doc().get<objects::Surface>(named<objects::Surface>("Ground"))->definition->sources)
        if (s.object == ditch || s.object == crest) {
            EXPECT_EQ(s.role, objects::lineRoles[1]);
        }
    window->facts()->findChild<QCheckBox*>(QStringLiteral("fact:Shown"))->click();
    window->settle();
    EXPECT_TRUE(doc().shown().hidden.contains(ditch));
    EXPECT_TRUE(doc().shown().hidden.contains(crest));
    // A rule for two corners, by typing.
    window->session().selection().set({{ditch, 2}, {ditch, 4}});
    window->settle();
    auto* rules = window->facts()->findChild<QLineEdit*>(QStringLiteral("fact:Rules"));
    ASSERT_NE(rules, nullptr);
    EXPECT_EQ(rules->placeholderText(), QStringLiteral("differs"));
    rules->setFocus();
    QTest::keyClicks(rules, QStringLiteral("-1%"));
    Q_EMIT rules->editingFinished();
    window->settle();
    const auto& vertices = doc().get<objects::Line>(ditch)->line.vertices;
    for (const std::size_t i : {2U, 4U})
        EXPECT_TRUE(std::holds_alternative<linework::GradeFromPrevious>(vertices[i].rule));
    EXPECT_TRUE(std::holds_alternative<linework::FixedHeight>(vertices[3].rule));
}

TEST_F(Handling, LinesWithoutPointsAndThingsThatAreGoneHarmNothing) {
    demo();
    ObjectId empty;
    put(QStringLiteral("empty"), doc().added("Empty", objects::Line{}, &empty));
    window->session().selection().set({{empty, {}}, {named<objects::Line>("Footpath"), {}}});
    window->settle();
    EXPECT_EQ(window->facts()->findChild<QLineEdit*>(QStringLiteral("fact:Rules"))->placeholderText(),
              QStringLiteral("differs"));
    window->session().selection().set({{empty, {}}, {named<objects::Group>("Rock"), {}}});
    window->settle();
    EXPECT_EQ(window->facts()->findChild<QLineEdit*>(QStringLiteral("fact:Rules")), nullptr);
    // The menu outlives what it is about.
    select(empty);
    QMenu* menu = window->menu().ofSelection();
    run("delete");
    for (QAction* item : menu->actions())
        if (item->objectName() == QStringLiteral("zoom-to") || item->objectName() == QStringLiteral("rename"))
            item->trigger();
    window->settle();
    delete menu;
    EXPECT_FALSE(doc().byName<objects::Line>("Empty"));
    // A preview whose cloud goes keeps nothing, and says so.
    const ObjectId knoll = named<objects::Cloud>("knoll");
    select(knoll);
    run("find-ground");
    auto* ground = qobject_cast<FindGroundTool*>(window->tool());
    ASSERT_TRUE(QTest::qWaitFor([&] { return !ground->working(); }, 60'000));
    put(QStringLiteral("gone"), doc().without(knoll));
    key(Qt::Key_Return);
    EXPECT_TRUE(window->prompt()->text().contains(QStringLiteral("changed meanwhile")));
    key(Qt::Key_Escape);
}

// ---- measuring, printing, what is made

TEST_F(Handling, MeasuringSaysLengthBearingAndAreaAndCanBeKept) {
    window->session().project().startNew({});
    window->settle();
    look({15, 20}, 10);
    const auto chips = [&] {
        QStringList out;
        for (const Chip& c : window->tool()->chips()) out << c.role + QStringLiteral(": ") + c.value;
        return out;
    };
    run("measure");
    type(QStringLiteral("0, 0, 10"));
    type(QStringLiteral("30, 0, 16"));
    EXPECT_TRUE(chips().contains(QStringLiteral("Length: 30.00 m")));
    EXPECT_TRUE(chips().contains(QStringLiteral("Towards: due East")));
    EXPECT_TRUE(chips().contains(QStringLiteral("Grade: 20.00%, 5:1")));
    type(QStringLiteral("due North 40"));
    EXPECT_TRUE(chips().contains(QStringLiteral("Area: 600.00 m²")));
    key(Qt::Key_Backspace);
    EXPECT_TRUE(chips().contains(QStringLiteral("Length: 30.00 m")));
    window->actions().run(QStringLiteral("redo"));
    type(QStringLiteral("steep"));
    EXPECT_TRUE(window->prompt()->text().startsWith(QStringLiteral("⚠")));
    type(QStringLiteral("keep"));
    ASSERT_EQ(doc().all<objects::Line>().size(), 1U);
    const ObjectId kept = doc().all<objects::Line>().front();
    EXPECT_EQ(doc().get<objects::Line>(kept)->line.vertices.size(), 3U);
    EXPECT_TRUE(window->session().selection().holds(kept));
    type(QStringLiteral("keep"));  // nothing measured yet
    EXPECT_EQ(doc().all<objects::Line>().size(), 1U);
}

TEST_F(Handling, ASheetIsPrintedOnItsPaperAndAPlanOnAPage) {
    demo();
    select(doc().all<objects::Sheet>().front());
    const QString path = QString::fromStdString(folder / "sheet.pdf");
    QPrinter printer(QPrinter::HighResolution);
    printer.setOutputFormat(QPrinter::PdfFormat);
    printer.setOutputFileName(path);
    ASSERT_TRUE(window->commands<FileCommands>().printTo(printer));
    EXPECT_NEAR(printer.pageLayout().fullRect(QPageLayout::Millimeter).width(), 420, 1);
    EXPECT_GT(QFileInfo(path).size(), 20000);
    put(QStringLiteral("no sheet"), document::removeAll(doc(), doc().all<objects::Sheet>()));
    QPrinter page(QPrinter::HighResolution);
    page.setOutputFormat(QPrinter::PdfFormat);
    page.setOutputFileName(QString::fromStdString(folder / "plan.pdf"));
    ASSERT_TRUE(window->commands<FileCommands>().printTo(page));
    EXPECT_GT(QFileInfo(page.outputFileName()).size(), 20000);
    QPrinter nowhere(QPrinter::HighResolution);
    nowhere.setOutputFormat(QPrinter::PdfFormat);
    nowhere.setOutputFileName(QStringLiteral("/nowhere/at/all/plan.pdf"));
    EXPECT_FALSE(window->commands<FileCommands>().printTo(nowhere));
}

TEST_F(Handling, OnlyACornerOfTheLineInHandIsDeleted) {
    demo();
    const ObjectId ditch = named<objects::Line>("Peat ditch");
    const ObjectId path = named<objects::Line>("Footpath");
    const auto other = derived().lines.at(path)->vertices[2].place;
    const auto own = derived().lines.at(ditch)->vertices[3].place;
    select(ditch);
    run("vertex-remove");
    look(other, 20);
    click(other);
    EXPECT_EQ(doc().get<objects::Line>(path)->line.vertices.size(), 13U);
    look(own, 20);
    click(own);
    EXPECT_EQ(doc().get<objects::Line>(ditch)->line.vertices.size(), 19U);
}

}  // namespace
}  // namespace erdwerk::app
