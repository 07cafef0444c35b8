// What a person sees of journal, lock and saving: nothing is lost without a word.

#include "app/base/open_project.h"
#include "app/window/finder.h"
#include "app/window/recovery_dialog.h"
#include "core/format/project_file.h"
#include "core/objects/group.h"
#include "core/objects/points.h"
#include "core/operations/objects.h"
#include "core/operations/points.h"
#include "support/after_edit.h"
#include "support/file_limit.h"
#include "window_test.h"

namespace erdwerk::app {
namespace {

class Keeping : public WindowTest {
protected:
    void saved() {
        demo();
        path = QString::fromStdString(folder / "site.erdwerk");
        ASSERT_TRUE(window->session().project().saveAndWait(path));
        window->settle();
    }
    void rename(const std::string& name) {
        put(QStringLiteral("Rename to %1").arg(QString::fromStdString(name)),
            test::afterEdit(doc(), operations::rename(named<objects::Points>(setName), name)));
        setName = name;
    }
    [[nodiscard]] std::string journal() const { return format::journalPath(path.toStdString()); }
    [[nodiscard]] QPushButton* button(const char* name) const {
        return window->findChild<QPushButton*>(QString::fromLatin1(name));
    }

    QString path;
    std::string setName = "survey";
};

TEST_F(Keeping, TheFinderRunsEveryActionAfterItsWindowIsGone) {
    saved();
    // Dialogs that actions open are closed again; what is left open is not the finder's.
    QTimer closer;
    QObject::connect(&closer, &QTimer::timeout, [] {
        if (auto* dialog = qobject_cast<QDialog*>(QApplication::activeModalWidget())) dialog->reject();
    });
    closer.start(15);
    std::vector<QString> ids;
    for (const Action& a : window->actions().all())
        if (a.id != QStringLiteral("quit")) ids.push_back(a.id);
    ASSERT_GT(ids.size(), 60U);
    QApplication::setAttribute(Qt::AA_DontUseNativeDialogs);
    for (const QString& id : ids) {
        // Delete, undo and the like changed the project; each action finds the same one.
        if (!doc().byName<objects::Alignment>("Starling Lane")) saved();
        window->session().selection().set({{named<objects::Alignment>("Starling Lane"), std::nullopt}});
        run("finder");
        Finder* finder = nullptr;
        for (auto* f : window->findChildren<Finder*>())
            if (f->isVisible()) finder = f;
        ASSERT_NE(finder, nullptr) << qPrintable(id);
        finder->entry()->setText(window->actions().find(id)->text);
        int row = -1;
        for (int i = 0; i < finder->list()->count(); ++i)
            if (finder->list()->item(i)->data(Qt::UserRole).toString() == id) row = i;
        ASSERT_GE(row, 0) << qPrintable(id);
        finder->list()->setCurrentRow(row);
        QTest::keyClick(finder->entry(), Qt::Key_Return);
        window->settle();
        EXPECT_TRUE(window->session().isOpen()) << qPrintable(id);
        for (auto* dialog : window->findChildren<QDialog*>())
            if (dialog->isVisible()) dialog->close();
        while (QWidget* menu = QApplication::activePopupWidget()) menu->close();
    }
}

TEST_F(Keeping, ADamagedJournalOpensSaysWhatIsMissingAndKeepsTheRest) {
    saved();
    for (const char* name : {"one", "two", "three", "four"}) rename(name);
    // The process dies here; a bit flips in the third change.
    std::string text = test::contentOf(journal());
    const auto third = text.find("three");
    text[third] = 'T';
    const std::string other = folder / "other.erdwerk";
    std::filesystem::copy_file(path.toStdString(), other);
    std::ofstream(format::journalPath(other), std::ios::binary) << text;
    ASSERT_TRUE(window->files().openProject(QString::fromStdString(other)));
    window->settle();
    EXPECT_TRUE(doc().byName<objects::Points>("two"));
    EXPECT_TRUE(
        window->prompt()->text().contains(QStringLiteral("2 of 4 unsaved changes were brought back")));
    auto* dialog = window->findChild<RecoveryDialog*>();
    ASSERT_NE(dialog, nullptr);
    const QString told = dialog->findChild<QLabel*>()->text();
    EXPECT_TRUE(told.contains(QStringLiteral("2 unsaved changes were brought back")));
    EXPECT_TRUE(told.contains(QStringLiteral("journal-kept-1")));
    ASSERT_EQ(dialog->list()->topLevelItemCount(), 4);
    EXPECT_TRUE(dialog->list()->topLevelItem(2)->text(2).contains(QStringLiteral("damaged")));
    EXPECT_EQ(dialog->list()->topLevelItem(3)->text(1), QStringLiteral("Rename to four"));
    EXPECT_EQ(test::contentOf(window->session().project().recovery().keptAs), text);
    // Each of the changes that came back is a step of its own.
    run("undo");
    EXPECT_TRUE(doc().byName<objects::Points>("one"));
    dialog->close();
    // It can be looked at again.
    run("recovered");
    auto* again = window->findChild<RecoveryDialog*>();
    ASSERT_NE(again, nullptr);
    EXPECT_EQ(again->list()->topLevelItemCount(), 4);
    again->close();
}

TEST_F(Keeping, TwoWindowsOnOneProject) {
    saved();
    rename("mine");
    MainWindow second;
    second.show();
    ASSERT_TRUE(second.files().openProject(path));
    second.settle();
    EXPECT_TRUE(second.session().project().isReadOnly());
    EXPECT_TRUE(second.keeping()->isVisible());
    EXPECT_TRUE(second.keeping()->text().contains(QStringLiteral("to look at only")));
    EXPECT_TRUE(second.session().document().byName<objects::Points>("mine"));
    // It cannot be edited, and nothing of it reaches the file or the journal.
    const std::string before = test::contentOf(journal());
    EXPECT_FALSE(second.session().edit(QStringLiteral("x"),
                                       [](const document::Document& d) -> Result<document::Edited> {
                                           return d.added("G", objects::Group{});
                                       }));
    EXPECT_TRUE(second.prompt()->text().contains(QStringLiteral("another name")));
    EXPECT_FALSE(second.session().project().saveAndWait(path));
    EXPECT_EQ(test::contentOf(journal()), before);
    // When the first is gone the second takes over, with what the first had not saved.
    window->session().project().close(false);
    second.session().project().beat();
    auto* take = second.findChild<QPushButton*>(QStringLiteral("takeOver"));
    ASSERT_TRUE(take->isVisible());
    QTest::mouseClick(take, Qt::LeftButton);
    second.settle();
    EXPECT_FALSE(second.session().project().isReadOnly());
    EXPECT_FALSE(second.keeping()->isVisible());
    EXPECT_TRUE(second.session().document().byName<objects::Points>("mine"));
    second.session().project().close(true);
}

TEST_F(Keeping, ACopyOfWhatSomebodyElseHasOpen) {
    saved();
    MainWindow second;
    second.show();
    ASSERT_TRUE(second.files().openProject(path));
    QTest::mouseClick(second.findChild<QPushButton*>(QStringLiteral("workOnCopy")), Qt::LeftButton);
    second.settle();
    EXPECT_FALSE(second.session().project().isReadOnly());
    EXPECT_TRUE(second.session().project().path().isEmpty());
    EXPECT_TRUE(second.session().project().isChanged());
    EXPECT_TRUE(second.session().document().byName<objects::Points>("survey"));
    second.session().project().close(true);
}

TEST_F(Keeping, DiscardingAndOpeningAgainShowsTheSavedState) {
    saved();
    rename("discarded");
    ASSERT_TRUE(window->files().openProject(path));
    window->settle();
    EXPECT_TRUE(doc().byName<objects::Points>("survey"));
    EXPECT_EQ(window->session().history().steps().size(), 1U);
    setName = "survey";
    rename("kept");
    const auto project = test::valueOf(format::openProjectWithJournal(path.toStdString(), true));
    EXPECT_EQ(project.unsaved, 1U);
    EXPECT_TRUE(project.document.byName<objects::Points>("kept"));
}

TEST_F(Keeping, AFullDiskIsSaidUntilThereIsSpaceAgainAndNothingIsLost) {
    saved();
    rename("one");
    auto limit = std::make_unique<test::FileLimit>(test::contentOf(journal()).size() + 10);
    rename("two");
    EXPECT_TRUE(window->keeping()->isVisible());
    EXPECT_TRUE(window->keeping()->text().contains(QStringLiteral("not being kept")));
    const auto refused = window->session().project().saveAndWait(path);
    limit.reset();
    ASSERT_FALSE(refused);
    EXPECT_EQ(refused.error().text.find("INSERT"), std::string::npos) << refused.error().text;
    EXPECT_TRUE(doc().byName<objects::Points>("two"));
    // The file is the one before, with all that was kept beside it.
    const auto during = test::valueOf(format::openProjectWithJournal(path.toStdString(), true));
    EXPECT_TRUE(during.document.byName<objects::Points>("one"));
    window->session().project().beat();
    EXPECT_FALSE(window->keeping()->isVisible());
    const auto after = test::valueOf(format::openProjectWithJournal(path.toStdString(), true));
    EXPECT_TRUE(after.document.byName<objects::Points>("two"));
    EXPECT_TRUE(after.journalProblem.empty());
}

TEST_F(Keeping, ASaveKeepsNobodyWaitingAndWhatIsEditedMeanwhileIsNotTakenForSaved) {
    saved();
    rename("one");
    window->session().project().save(path);
    EXPECT_TRUE(window->session().project().isSaving());
    rename("two");
    window->session().project().waitForSave();
    EXPECT_TRUE(window->session().project().isChanged());
    EXPECT_TRUE(
        test::valueOf(format::openProject(path.toStdString())).document.byName<objects::Points>("one"));
    EXPECT_TRUE(test::valueOf(format::openProjectWithJournal(path.toStdString(), true))
                    .document.byName<objects::Points>("two"));
    // Undone to what was saved, nothing has changed.
    run("undo");
    EXPECT_FALSE(window->session().project().isChanged());
}

TEST_F(Keeping, ClosingWaitsForTheSave) {
    saved();
    rename("one");
    window->session().project().save(path);
    window->close();
    EXPECT_FALSE(window->isVisible());
    EXPECT_TRUE(
        test::valueOf(format::openProject(path.toStdString())).document.byName<objects::Points>("one"));
    EXPECT_FALSE(std::filesystem::exists(journal()));
    EXPECT_FALSE(format::lockHolder(path.toStdString()));
}

TEST_F(Keeping, ASaveIsNotHeldUpByResults) {
    saved();
    const ObjectId set = named<objects::Points>("survey");
    put(QStringLiteral("Move"), test::afterEdit(doc(), operations::movePoint({set, 3}, {48010, 91010})));
    window->session().cancelWork();
    ASSERT_TRUE(window->session().project().saveAndWait(path));
    // The definitions are there; the lines that depend on nothing are layers all the same.
    const auto project = test::valueOf(format::openProject(path.toStdString()));
    EXPECT_EQ(project.document.get<objects::Points>(set)->set[3].plan.x, 48010);
}

TEST_F(Keeping, StoppedResultsSayFromWhenTheyAre) {
    demo();
    const ObjectId set = named<objects::Points>("survey");
    window->session().cancelWork();
    bool stale = false;
    for (int i = 0; i < 40 && !stale; ++i) {
        put(QStringLiteral("Move"),
            test::afterEdit(doc(), operations::movePoint({set, 3}, {48010.0 + i, 91010})));
        window->session().cancelWork();
        while (window->session().isWorking()) QTest::qWait(1);
        QApplication::processEvents();
        stale = window->session().isStale();
    }
    ASSERT_TRUE(stale);
    EXPECT_TRUE(window->session().staleText().contains(QStringLiteral("before the last edit")));
    run("work-out");
    EXPECT_FALSE(window->session().isStale());
    EXPECT_TRUE(window->session().staleText().isEmpty());
}

}  // namespace
}  // namespace erdwerk::app
