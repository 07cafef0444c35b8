// The frame: rack, facts and contents, the bench, the prompt line, the stage bar, what is remembered.

#include <QMenu>
#include <QMimeData>
#include <QTextBlock>

#include "app/base/open_project.h"
#include "app/base/remembered.h"
#include "app/kinds/all_kinds.h"
#include "app/plan/plan_parts.h"
#include "core/objects/line.h"
#include "core/objects/points.h"
#include "window_test.h"

namespace erdwerk::app {
namespace {

class Frame : public WindowTest {
protected:
    [[nodiscard]] QTreeWidgetItem* row(ObjectId id) { return window->contents()->rowOf(id); }
    [[nodiscard]] int rowsShown() {
        int count = 0;
        for (QTreeWidgetItemIterator it(window->contents()->tree()); *it != nullptr; ++it) {
            bool shown = true;
            for (auto* i = *it; i != nullptr; i = i->parent()) shown = shown && !i->isHidden();
            count += shown ? 1 : 0;
        }
        return count;
    }
};

TEST_F(Frame, FitsASmallScreenAndNothingIsLost) {
    demo();
    window->views()->setTwin(TwinViews::Twin::Scene);
    for (const Bench::Page page : Bench::allPages) {
        window->bench()->open(page);
        window->settle();
        EXPECT_LE(window->minimumSizeHint().width(), 1024) << qPrintable(Bench::pageName(page));
        EXPECT_LE(window->minimumSizeHint().height(), 700) << qPrintable(Bench::pageName(page));
    }
    window->resize(1024, 700);
    window->settle();
    EXPECT_EQ(window->width(), 1024);
    EXPECT_GE(window->rack()->width(), 140);
}

TEST_F(Frame, NoStageNeedsScrollingAndContentsShowFourteenRows) {
    demo();
    for (const Stage stage : {Stage::Field, Stage::Ground, Stage::Shape, Stage::Route, Stage::Record}) {
        window->stageBar()->setStage(stage);
        window->settle();
        EXPECT_LE(window->rack()->widget()->sizeHint().height(), window->rack()->viewport()->height())
            << qPrintable(stageName(stage));
    }
    auto* tree = window->contents()->tree();
    const int height = tree->visualItemRect(tree->topLevelItem(0)).height();
    EXPECT_GE(tree->viewport()->height() / height, 14);
}

TEST_F(Frame, StageButtonsStayWhereTheyAreWhenCountsChange) {
    window->session().project().startNew({});
    window->settle();
    const auto places = [&] {
        QList<int> out;
        for (int i = 0; i < 5; ++i)
            out << window->stageBar()->findChild<QPushButton*>(QStringLiteral("stage%1").arg(i))->x();
        return out;
    };
    const auto empty = places();
    demo();
    EXPECT_EQ(places(), empty);
    EXPECT_EQ(window->stageBar()->findChild<QPushButton*>(QStringLiteral("stage0"))->text(),
              QStringLiteral("Field   591 points"));
}

TEST_F(Frame, HeadingsOfTheRackFoldAndStayFolded) {
    demo();
    window->stageBar()->setStage(Stage::Ground);
    auto* rack = window->rack();
    const auto tool = [&] { return rack->findChild<QToolButton*>(QStringLiteral("edge")); };
    const QString sources = QStringLiteral("Sources");
    ASSERT_FALSE(rack->isFolded(sources));
    EXPECT_TRUE(rack->isFolded(QStringLiteral("Own edits")));
    EXPECT_TRUE(tool()->isVisible());
    rack->findChild<QToolButton*>(QStringLiteral("heading:Sources"))->click();
    EXPECT_FALSE(tool()->isVisible());
    window->stageBar()->setStage(Stage::Shape);
    window->stageBar()->setStage(Stage::Ground);
    EXPECT_FALSE(tool()->isVisible());
    // Another window, and the next run.
    MainWindow other;
    other.stageBar()->setStage(Stage::Ground);
    EXPECT_TRUE(other.rack()->isFolded(sources));
}

TEST_F(Frame, TheBenchFoldsByAKeyAndAClickAndThePromptLineStays) {
    demo();
    select(named<objects::Line>("Peat ditch"));
    window->bench()->open(Bench::Page::Grades);
    window->settle();
    const int open = window->bench()->height();
    run("fold-bench");
    EXPECT_TRUE(window->bench()->isFolded());
    EXPECT_LT(window->bench()->height(), 50);
    EXPECT_TRUE(window->prompt()->isVisible());
    // A click on the open tab unfolds, another folds; a click on another tab opens that.
    auto* tabs = window->bench()->tabBar();
    QTest::mouseClick(tabs, Qt::LeftButton, {}, tabs->tabRect(0).center());
    // Not under a button that is down.
    EXPECT_TRUE(QTest::qWaitFor([&] { return window->bench()->height() == open; }));
    QTest::mouseClick(tabs, Qt::LeftButton, {}, tabs->tabRect(0).center());
    EXPECT_TRUE(window->bench()->isFolded());
    QTest::mouseClick(tabs, Qt::LeftButton, {}, tabs->tabRect(2).center());
    EXPECT_TRUE(QTest::qWaitFor([&] { return window->bench()->height() == open; }));
    EXPECT_EQ(window->bench()->page(), Bench::Page::Findings);
}

TEST_F(Frame, APageWithNothingToShowTakesOneLine) {
    demo();
    select(named<objects::Line>("Peat ditch"));
    window->bench()->open(Bench::Page::Grades);
    window->settle();
    const int open = window->bench()->height();
    const int planOpen = window->plan()->height();
    const auto under = window->plan()->view().toGround({100, 100});
    window->session().selection().set({});
    window->settle();
    EXPECT_LT(window->bench()->height(), 80);
    EXPECT_GT(window->plan()->height(), planOpen + 100);  // which has the room now
    EXPECT_TRUE(window->grades()->nothing().contains(QStringLiteral("select a 3D line")));
    // What was seen stays where it was on the screen.
    EXPECT_THAT(window->plan()->view().toGround({100, 100}), test::IsNear(under.x, under.y, 1e-6));
    select(named<objects::Line>("Footpath"));
    EXPECT_EQ(window->bench()->height(), open);
    EXPECT_TRUE(window->grades()->nothing().isEmpty());
}

TEST_F(Frame, ThePromptSentenceIsNeverCut) {
    demo();
    window->resize(1024, 700);
    run("draw-line");
    click({48040, 91080});
    click({48060, 91080});
    type(QStringLiteral("2%"));
    auto* prompt = window->prompt()->findChild<QLabel*>(QStringLiteral("prompt"));
    const auto whole = [&] {
        return prompt->fontMetrics().horizontalAdvance(prompt->text()) <= prompt->width() ||
               (prompt->wordWrap() && prompt->heightForWidth(prompt->width()) <= prompt->height());
    };
    EXPECT_TRUE(whole());
    EXPECT_TRUE(window->prompt()->entry()->isVisible());
    EXPECT_GE(window->prompt()->entry()->width(), 100);
    // Where there is room the chips say where heights come from, and the last height with its rule.
    window->resize(1900, 900);
    window->settle();
    QStringList chips;
    for (const auto* chip : window->prompt()->findChildren<QPushButton*>(QStringLiteral("chip")))
        if (chip->isVisible()) chips << chip->text();
    EXPECT_TRUE(chips.contains(QStringLiteral("Heights from: Ground")));
    EXPECT_TRUE(chips.filter(QStringLiteral(", 2%")).size() == 1) << qPrintable(chips.join(QLatin1Char('|')));
    EXPECT_TRUE(whole());
}

TEST_F(Frame, EveryObjectHasAnEyeAlsoByTheKeyboard) {
    demo();
    const ObjectId points = doc().all<objects::Points>().front();
    const ObjectId label = named<objects::Label>("Plot course 1");
    const ObjectId cloud = doc().all<objects::Cloud>().front();
    for (const ObjectId id : {points, label, cloud}) {
        EXPECT_FALSE(row(id)->icon(1).isNull());
        window->contents()->pressEye(row(id));
        window->settle();
        EXPECT_TRUE(doc().shown().hidden.contains(id));
    }
    const auto at = window->plan()->view().toPicture(doc().get<objects::Points>(points)->set[0].plan);
    for (const Snap& s : snapsAt(*window->session().snapshot(), window->plan()->view(), planLayers(), at, 4))
        EXPECT_NE(s.ref.object, points);
    window->session().undo();
    EXPECT_FALSE(doc().shown().hidden.contains(cloud));
    // Space on what is selected; the heading's eye takes all of a kind.
    const ObjectId ditch = named<objects::Line>("Peat ditch");
    select(ditch);
    QTest::keyClick(window->contents()->tree(), Qt::Key_Space);
    EXPECT_TRUE(doc().shown().hidden.contains(ditch));
    QTreeWidgetItem* heading = row(ditch);
    while (heading->parent() != nullptr) heading = heading->parent();
    window->contents()->pressEye(heading);  // some are shown: all are hidden
    for (const ObjectId id : doc().all<objects::Line>()) EXPECT_TRUE(doc().shown().hidden.contains(id));
    window->contents()->pressEye(heading);
    for (const ObjectId id : doc().all<objects::Line>()) EXPECT_FALSE(doc().shown().hidden.contains(id));
}

TEST_F(Frame, ContentsAreFilteredByTyping) {
    demo();
    const int all = rowsShown();
    run("filter-contents");
    QTest::keyClicks(window->contents()->filter(), QStringLiteral("knoll t"));
    EXPECT_LT(rowsShown(), 5);
    EXPECT_FALSE(row(named<objects::Line>("North Knoll toe"))->isHidden());
    EXPECT_TRUE(row(named<objects::Line>("North Knoll crest"))->isHidden());
    // It holds through an edit; Esc ends it.
    put(QStringLiteral("more"), doc().added("Knoll track", objects::Line{}));
    EXPECT_FALSE(row(named<objects::Line>("Knoll track"))->isHidden());
    QTest::keyClick(window->contents()->filter(), Qt::Key_Escape);
    EXPECT_GT(rowsShown(), all);
}

TEST_F(Frame, RowsAreRenamedInPlaceAndDroppedIntoGroups) {
    demo();
    const ObjectId ditch = named<objects::Line>("Peat ditch");
    row(ditch)->setText(0, QStringLiteral("Old ditch"));
    window->settle();
    EXPECT_EQ(doc().nameOf(ditch), "Old ditch");
    row(ditch)->setText(0, QString());  // no name: the old one comes back
    window->settle();
    EXPECT_EQ(doc().nameOf(ditch), "Old ditch");
    EXPECT_EQ(row(ditch)->text(0), QStringLiteral("Old ditch"));
    const ObjectId rock = named<objects::Group>("Rock");
    const ObjectId path = named<objects::Line>("Footpath");
    window->contents()->drop({row(ditch), row(path)}, row(rock));
    window->settle();
    EXPECT_EQ(doc().find(ditch)->group, rock);
    EXPECT_EQ(doc().find(path)->group, rock);
    EXPECT_EQ(window->session().history().steps().back().what, "Put 2 things into Rock");
    window->contents()->drop({row(ditch)},
                             row(named<objects::Line>("North Knoll crest")));  // beside a member
    window->contents()->drop({row(path)}, nullptr);
    window->settle();
    EXPECT_EQ(doc().find(ditch)->group, rock);
    EXPECT_FALSE(doc().find(path)->group);
}

TEST_F(Frame, WhatThePlanShowsIsOneSmallList) {
    demo();
    look({48060, 91080}, 6);
    const QImage before = window->plan()->grab().toImage();
    auto* list = window->findChild<PartsMenu*>();
    ASSERT_NE(list, nullptr);
    ASSERT_EQ(list->actions().size(), static_cast<qsizetype>(objects::allPlanParts.size()));
    for (QAction* part : list->actions()) {
        EXPECT_TRUE(part->isChecked());
        part->trigger();
    }
    window->settle();
    EXPECT_EQ(doc().shown().off.size(), objects::allPlanParts.size());
    EXPECT_NE(window->plan()->grab().toImage(), before);
    for (QAction* part : list->actions()) part->trigger();
    window->settle();
    EXPECT_TRUE(doc().shown().off.empty());
}

TEST_F(Frame, SizesFoldersAndProjectsAreRemembered) {
    demo();
    window->resize(1150, 760);
    run("fold-bench");
    const QString path = QString::fromStdString(folder / "site.erdwerk");
    ASSERT_TRUE(window->session().project().saveAndWait(path));
    window->settle();
    ASSERT_TRUE(window->files().openProject(path));
    window->close();
    MainWindow next;
    EXPECT_EQ(next.width(), 1150);
    EXPECT_TRUE(next.bench()->isFolded());
    EXPECT_EQ(remembered::recentProjects().value(0), path);
    bool offered = false;
    for (const auto* button : next.findChildren<QPushButton*>()) offered |= button->toolTip() == path;
    EXPECT_TRUE(offered);
    std::filesystem::remove(path.toStdString());
    EXPECT_TRUE(remembered::recentProjects().isEmpty());
}

TEST_F(Frame, AFileThatIsDroppedIsRead) {
    window->session().project().startNew({});
    const std::string lines = folder.file(
        "walls.geojson",
        R"({"type":"FeatureCollection","features":[{"type":"Feature","properties":{},"geometry":{"type":"LineString","coordinates":[[0,0,1],[10,0,2]]}}]})");
    auto* mime = new QMimeData;
    mime->setUrls({QUrl::fromLocalFile(QString::fromStdString(lines))});
    QDragEnterEvent enter(QPoint(300, 300), Qt::CopyAction, mime, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(window.get(), &enter);
    EXPECT_TRUE(enter.isAccepted());
    QDropEvent drop(QPointF(300, 300), Qt::CopyAction, mime, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(window.get(), &drop);
    window->settle();
    EXPECT_EQ(doc().all<objects::Line>().size(), 1U);
    delete mime;
    // Nothing that is no file.
    QMimeData text;
    text.setText(QStringLiteral("hello"));
    QDragEnterEvent words(QPoint(300, 300), Qt::CopyAction, &text, Qt::LeftButton, Qt::NoModifier);
    QApplication::sendEvent(window.get(), &words);
    EXPECT_FALSE(words.isAccepted());
}

TEST_F(Frame, TheDemoOpensOnSomethingWorthSeeing) {
    ASSERT_TRUE(window->files().showDemo());
    window->settle();
    EXPECT_EQ(window->stageBar()->stage(), Stage::Ground);
    EXPECT_TRUE(window->scene()->isVisible());
    EXPECT_EQ(window->bench()->page(), Bench::Page::Grades);
    EXPECT_EQ(window->grades()->table()->rowCount(), 20);  // the peat ditch is in hand
    EXPECT_TRUE(window->grades()->nothing().isEmpty());
}

TEST_F(Frame, TheGuideOpensAtTheStage) {
    demo();
    window->stageBar()->setStage(Stage::Record);
    run("guide");
    EXPECT_TRUE(window->guide()->isVisible());
    EXPECT_EQ(window->guide()->text()->textCursor().block().text(), QStringLiteral("Record"));
    QTest::keyClick(window->guide(), Qt::Key_Escape);
    EXPECT_FALSE(window->guide()->isVisible());
    EXPECT_TRUE(window->contents()->isVisible());
}

}  // namespace
}  // namespace erdwerk::app
