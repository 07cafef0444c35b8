// Without the mouse: findings by key, all of a kind after a word, and the way from points to a sheet.

#include <QAbstractButton>
#include <QFile>
#include <QMenuBar>

#include "app/base/open_project.h"
#include "app/window/finder.h"
#include "core/objects/line.h"
#include "core/objects/points.h"
#include "core/objects/profile.h"
#include "core/operations/points.h"
#include "core/operations/surfaces.h"
#include "support/after_edit.h"
#include "support/sheets.h"
#include "window_test.h"

namespace erdwerk::app {
namespace {

class Keyboard : public WindowTest {
protected:
    void SetUp() override {
        WindowTest::SetUp();
        // Shortcuts go to the active window; nobody manages windows here.
        QApplication::setActiveWindow(window.get());
    }
    /// Types letters into the finder, as Ctrl+K opens it, and takes its first match.
    void press(const QString& letters) {
        key(Qt::Key_K, Qt::ControlModifier);
        Finder* finder = nullptr;
        for (auto* f : window->findChildren<Finder*>())
            if (f->isVisible()) finder = f;
        ASSERT_NE(finder, nullptr);
        QTest::keyClicks(finder->entry(), letters);
        QTest::keyClick(finder->entry(), Qt::Key_Return);
        window->settle();
    }
    /// Ctrl+1 has the table of the Grades page in hand; arrows go to the column.
    void typeInFirstRow(const QString& column, const QString& text) {
        key(Qt::Key_1, Qt::ControlModifier);
        auto* table = window->grades()->table();
        ASSERT_TRUE(table->hasFocus());
        QTest::keyClick(table, Qt::Key_Home, Qt::ControlModifier);
        while (table->horizontalHeaderItem(table->currentColumn())->text() != column) {
            const int before = table->currentColumn();
            QTest::keyClick(table, Qt::Key_Right);
            ASSERT_GT(table->currentColumn(), before);
        }
        ASSERT_EQ(table->currentRow(), 0);
        QTest::keyClicks(table, text);
        auto* editor = table->findChild<QLineEdit*>();
        ASSERT_NE(editor, nullptr);
        QTest::keyClick(editor, Qt::Key_Return);
        window->settle();
    }
};

// ---- findings

TEST_F(Keyboard, FindingsOfAKindAreFixedTogetherAfterAWord) {
    window->session().project().startNew(
        test::afterEdit({}, operations::addPoints("s", {{"7", {0, 0}, 1.0, "", ""},
                                                        {"7", {50, 0}, 1.0, "", ""},
                                                        {"7", {0, 50}, 1.0, "", ""},
                                                        {"8", {90, 90}, {}, "", ""}})));
    window->settle();
    window->bench()->open(Bench::Page::Findings);
    auto* page = window->findings();
    ASSERT_EQ(page->list()->topLevelItemCount(), 3);
    const std::string way = "keep all, the later ones with a letter";
    page->askToFixAll("same-number", way);
    auto* text = page->findChild<QLabel*>(QStringLiteral("fixAllText"));
    EXPECT_TRUE(text->text().startsWith(QStringLiteral("2 findings at once: keep all")));
    EXPECT_EQ(window->session().history().position(), 0U);  // nothing yet
    page->findChild<QPushButton*>(QStringLiteral("fixAllYes"))->click();
    window->settle();
    const auto& set = doc().get<objects::Points>(doc().all<objects::Points>().front())->set;
    EXPECT_EQ(set[1].number, "7a");
    EXPECT_EQ(set[2].number, "7b");
    EXPECT_EQ(window->session().history().position(), 1U);
    // The plan went on to what is left.
    EXPECT_THAT(window->plan()->view().centre, test::IsNear(90, 90, 1e-6));
    EXPECT_EQ(page->list()->topLevelItemCount(), 1);
}

TEST_F(Keyboard, TheFirstEnterTakesTheFirstRowAndAFindingOfManyOpens) {
    demo();
    window->bench()->open(Bench::Page::Findings);
    auto* list = window->findings()->list();
    list->setFocus();
    QTest::keyClick(list, Qt::Key_Return);
    window->settle();
    EXPECT_EQ(list->indexOfTopLevelItem(list->currentItem()), 0);
    EXPECT_THAT(window->plan()->view().centre, test::IsNear(48064.5, 91105, 1.0));
    QTest::keyClick(list, Qt::Key_Return);
    EXPECT_EQ(list->indexOfTopLevelItem(list->currentItem()), 1);
    auto* many = list->topLevelItem(list->topLevelItemCount() - 1);
    ASSERT_EQ(many->childCount(), 32);  // points outside the edge
    Q_EMIT list->itemClicked(many->child(5), 1);
    const auto& part = window->session().snapshot()->findings.back().parts[5];
    EXPECT_THAT(window->plan()->view().centre, test::IsNear(part.at.x, part.at.y, 1e-6));
}

// ---- the whole way by keyboard

TEST_F(Keyboard, FromPointsToASheetByKeyboardAlone) {
    // 1 a project with points, 2 a surface of them
    window->session().project().startNew(
        test::afterEdit({}, operations::addPoints("Spots", {{"1", {0, 0}, 10.0, "", ""},
                                                            {"2", {100, 0}, 12.0, "", ""},
                                                            {"3", {100, 100}, 13.0, "", ""},
                                                            {"4", {0, 100}, 11.0, "", ""}})));
    window->settle();
    press(QStringLiteral("new surface"));
    ASSERT_EQ(derived().surfaces.size(), 1U);
    // 3 a closed line with heights of the ground, 4 a grade at one corner
    press(QStringLiteral("draw 3d"));
    for (const char* text : {"20, 20", "80, 20", "80, 60", "20, 60"}) type(QString::fromLatin1(text));
    key(Qt::Key_Return);
    press(QStringLiteral("close a line"));
    EXPECT_EQ(window->tool()->title(), QStringLiteral("Close a line"));
    key(Qt::Key_Return);  // what is selected fills the chip
    const ObjectId plot = doc().all<objects::Line>().front();
    EXPECT_TRUE(doc().get<objects::Line>(plot)->line.closed);
    key(Qt::Key_Escape);
    const QString plotName = QString::fromStdString(doc().nameOf(plot));
    press(plotName);
    EXPECT_EQ(window->session().selected<objects::Line>(), plot);
    typeInFirstRow(QStringLiteral("Grade"), QStringLiteral("3"));
    EXPECT_EQ(window->grades()->table()->item(1, 3)->text(), QStringLiteral("3%"));
    // 5 a breakline of the ground, 6 an alignment, 7 its profile
    const auto enter = [&](const char* letters) {
        press(QString::fromLatin1(letters));
        key(Qt::Key_Return);
        key(Qt::Key_Escape);
        press(plotName);
    };
    enter("add a breakline");
    EXPECT_TRUE(operations::hasSource(doc(), doc().all<objects::Surface>().front(), plot));
    enter("alignment from a line");
    ASSERT_EQ(doc().all<objects::Alignment>().size(), 1U);
    press(QStringLiteral("new profile"));
    EXPECT_EQ(doc().get<objects::Profile>(doc().all<objects::Profile>().front())->ground,
              doc().all<objects::Surface>().front());
    // 8 a parcel, 9 a sheet of it, 10 back by undo
    press(plotName);
    enter("parcel from a line");
    ASSERT_EQ(doc().all<objects::Parcel>().size(), 1U);
    EXPECT_EQ(doc().nameOf(doc().all<objects::Parcel>().front()), "Parcel 1");
    window->plan()->fit();
    press(QStringLiteral("new sheet"));
    EXPECT_THAT(test::parcelsOn(*doc().get<objects::Sheet>(doc().all<objects::Sheet>().front())),
                testing::ElementsAre(doc().all<objects::Parcel>().front()));
    const auto steps = window->session().history().position();
    for (std::size_t i = 0; i < steps; ++i) key(Qt::Key_Z, Qt::ControlModifier);
    EXPECT_TRUE(doc().all<objects::Surface>().empty());
}

TEST_F(Keyboard, TheGuideNamesOnlyWhatIsThere) {
    demo();
    run("guide");
    QFile file(QStringLiteral(":/guide/user-guide.md"));
    ASSERT_TRUE(file.open(QIODevice::ReadOnly));
    const QString guide = QString::fromUtf8(file.readAll());
    QStringList known;
    for (const Action& a : window->actions().all()) known << a.text;
    for (const auto page : Bench::allPages) known << Bench::pageName(page);
    for (auto* widget : window->findChildren<QAbstractButton*>()) known << widget->text();
    // Chips, headings of facts and tables, and what stands in lists that are made when they are asked for.
    known << QStringLiteral("Heights from") << QStringLiteral("Thinned to") << QStringLiteral("Own edits")
          << QStringLiteral("Plan shows") << QStringLiteral("More") << QStringLiteral("Keep the height")
          << QStringLiteral("Open the demo") << QStringLiteral("Map in the plan")
          << QStringLiteral("Add PVI");
    static const QRegularExpression named(QStringLiteral("(?<!\\*)\\*([A-Z][^*\n]*)\\*(?!\\*)"));
    int names = 0;
    for (auto it = named.globalMatch(guide); it.hasNext(); ++names) {
        QString name = it.next().captured(1);
        name.remove(QChar(0x2026));
        bool found = false;
        for (QString text : known)
            found = found || text.remove(QChar(0x2026)).remove(QLatin1Char('&')) == name;
        EXPECT_TRUE(found) << qPrintable(name);
    }
    EXPECT_GT(names, 60);
}

TEST_F(Keyboard, AltAndALetterOrF10OpenTheMenus) {
    demo();
    QSet<QString> letters;
    for (const QAction* menu : window->menuBar()->actions()) {
        const auto at = menu->text().indexOf(QLatin1Char('&'));
        ASSERT_GE(at, 0) << qPrintable(menu->text());
        letters << menu->text().mid(at + 1, 1).toLower();
    }
    EXPECT_EQ(letters.size(), window->menuBar()->actions().size());  // each its own
    QTest::keyClick(window->plan(), Qt::Key_F10);
    EXPECT_EQ(window->menuBar()->activeAction(), window->menuBar()->actions().constFirst());
    while (QWidget* menu = QApplication::activePopupWidget()) menu->close();
}

TEST_F(Keyboard, ANewProjectFromASurveyFileIsOneOfItsOwn) {
    demo();
    const QString file = QString::fromStdString(folder.file(
        "spots.csv", "number,easting,northing,height,code\n1,0,0,10,A\n2,5,0,11,A\n3,5,5,12,A\n"));
    withDialog([](QDialog* dialog) { dialog->reject(); });
    EXPECT_FALSE(window->imports().survey(file, true));
    EXPECT_TRUE(doc().byName<objects::Line>("Peat ditch"));  // not agreed to: the demo is still there
    withDialog([](QDialog* dialog) { dialog->accept(); });
    ASSERT_TRUE(window->imports().survey(file, true));
    window->settle();
    EXPECT_FALSE(doc().byName<objects::Line>("Peat ditch"));
    EXPECT_EQ(doc().get<objects::Points>(doc().all<objects::Points>().front())->set.size(), 3U);
}

}  // namespace
}  // namespace erdwerk::app
