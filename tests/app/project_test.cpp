#include <QDir>
#include <QPlainTextEdit>
#include <QProcess>
#include <QSignalSpy>
#include <QSpinBox>

#include "app/base/open_project.h"
#include "app/sheet/sheet_output.h"
#include "app/window/finder.h"
#include "app/window/import_dialog.h"
#include "core/annotate/label.h"
#include "core/derive/parcel_result.h"
#include "core/derive/route_result.h"
#include "core/format/keeper.h"
#include "core/format/project_file.h"
#include "core/objects/group.h"
#include "core/objects/label.h"
#include "core/objects/line.h"
#include "core/objects/points.h"
#include "core/objects/profile.h"
#include "core/operations/objects.h"
#include "core/operations/points.h"
#include "core/operations/with.h"
#include "support/after_edit.h"
#include "window_test.h"

namespace erdwerk::app {
namespace {

class Project : public WindowTest {};

TEST_F(Project, TheStartPageOpensTheDemo) {
    auto* button = window->findChild<QPushButton*>(QStringLiteral("startDemo"));
    ASSERT_TRUE(button->isVisible());
    QTest::mouseClick(button, Qt::LeftButton);
    window->settle();
    EXPECT_EQ(doc().settings().name, "Quillmoor Observatory");
    EXPECT_TRUE(window->plan()->isVisible());
}

TEST_F(Project, AnImportIsPreviewedCountedAndUndone) {
    window->session().project().startNew({});
    window->settle();
    const auto file = folder.file("new.csv",
                                  "Pkt;Rechtswert;Hochwert;H;Code\n1;48010,5;91020,25;320,1;GRND\n2;48011,5;"
                                  "91021;;GRND\n3;oops;91021;1;GRND\n");
    QString counts;
    withDialog([&](QDialog* dialog) {
        auto* preview = dialog->findChild<QTableWidget*>(QStringLiteral("preview"));
        EXPECT_EQ(preview->item(1, 1)->text(), QStringLiteral("48010.500"));
        EXPECT_EQ(dialog->findChild<QComboBox*>(QStringLiteral("column4"))->currentText(),
                  QStringLiteral("code"));
        auto* import = dialog->findChild<QPushButton*>(QStringLiteral("import"));
        EXPECT_TRUE(QTest::qWaitFor([&] { return import->isEnabled(); }));
        for (const auto* label : dialog->findChildren<QLabel*>())
            if (label->text().contains(QStringLiteral("will be"))) counts = label->text();
        import->click();
    });
    EXPECT_TRUE(window->imports().survey(QString::fromStdString(file)));
    window->settle();
    EXPECT_EQ(counts,
              QStringLiteral("2 points will be read, 1 of them without height. 1 row will be skipped."));
    const auto& set = doc().get<objects::Points>(named<objects::Points>("new"))->set;
    ASSERT_EQ(set.size(), 2U);
    EXPECT_DOUBLE_EQ(set[0].plan.x, 48010.5);
    EXPECT_FALSE(set[1].height);
    run("undo");
    EXPECT_TRUE(doc().objects().empty());
}

TEST_F(Project, AFileThatIsNoSurveyIsRefusedAndNothingChanges) {
    demo();
    const auto before = doc().objects().size();
    for (const auto& [name, text] : {std::pair{"a.csv", std::string("PK\0\3\4", 5)},
                                     {"b.csv", std::string()},
                                     {"c.csv", std::string("words\nonly\n")}}) {
        QString said;
        withDialog([&](QDialog* dialog) {
            said = qobject_cast<QMessageBox*>(dialog)->text();
            dialog->accept();
        });
        EXPECT_FALSE(window->imports().survey(QString::fromStdString(folder.file(name, text))));
        EXPECT_TRUE(said.contains(QString::fromUtf8(name))) << name;
        EXPECT_TRUE(said.contains(QStringLiteral("Nothing was changed")));
    }
    EXPECT_EQ(doc().objects().size(), before);
}

TEST_F(Project, LinesComeInFromVectorFiles) {
    window->session().project().startNew({});
    window->imports().lines(demoFolder() + QStringLiteral("/lines.gpkg"));
    window->settle();
    EXPECT_EQ(doc().all<objects::Line>().size(), 7U);
    EXPECT_TRUE(window->session().selection().empty());
    run("new-surface");
    EXPECT_TRUE(derived().surface(named<objects::Surface>("Ground")) != nullptr);
}

TEST_F(Project, SavesOpensAndTheJournalBringsBackWhatACrashTook) {
    demo();
    const QString path = QString::fromStdString(folder / "q.erdwerk");
    ASSERT_TRUE(window->session().project().saveAndWait(path));
    const ObjectId set = named<objects::Points>("survey");
    put(QStringLiteral("Raise a point"), test::afterEdit(doc(), operations::setPointHeight({set, 3}, 400.0)));
    put(QStringLiteral("Rename"), test::afterEdit(doc(), operations::rename(set, "crew 2")));
    window->settle();
    // The process dies: another one opens what lies on the disk.
    const std::string copy = folder / "copy.erdwerk";
    std::filesystem::copy_file(path.toStdString(), copy);
    std::filesystem::copy_file(path.toStdString() + "-journal.jsonl", copy + "-journal.jsonl");
    Session other;
    const auto opened = other.project().open(QString::fromStdString(copy));
    ASSERT_TRUE(opened);
    EXPECT_EQ(other.project().recovery().what, (std::vector<std::string>{"Raise a point", "Rename"}));
    EXPECT_TRUE(other.project().recovery().problem.empty());
    EXPECT_EQ(*other.document().get<objects::Points>(set)->set[3].height, 400.0);
    EXPECT_EQ(other.document().nameOf(set), "crew 2");
    other.undo();
    EXPECT_EQ(other.document().nameOf(set), "survey");
    other.project().close(true);
}

TEST_F(Project, AnUnnamedProjectSurvivesACrash) {
    demo();
    const ObjectId set = named<objects::Points>("survey");
    put(QStringLiteral("Raise"), test::afterEdit(doc(), operations::setPointHeight({set, 3}, 401.0)));
    const QString folderOf = QStandardPaths::writableLocation(QStandardPaths::AppLocalDataLocation);
    const QString mine =
        QDir(folderOf)
            .entryInfoList({QStringLiteral("unnamed-*-journal.jsonl")}, QDir::Files, QDir::Time)
            .front()
            .filePath();
    // As left by a process that is gone: a journal without anybody who holds it.
    const QString lost = folderOf + QStringLiteral("/unnamed-lost");
    QFile::remove(lost + QStringLiteral("-journal.jsonl"));
    ASSERT_TRUE(QFile::copy(mine, lost + QStringLiteral("-journal.jsonl")));
    EXPECT_TRUE(OpenProject::lostProjects().contains(lost));
    ASSERT_TRUE(window->session().project().recoverLost(lost));
    window->settle();
    EXPECT_EQ(*doc().get<objects::Points>(set)->set[3].height, 401.0);
    EXPECT_FALSE(QFile::exists(lost + QStringLiteral("-journal.jsonl")));
    EXPECT_TRUE(window->session().project().isChanged());
}

TEST_F(Project, AlignmentProfileAndDesign) {
    demo();
    window->stageBar()->setStage(Stage::Route);
    const ObjectId line = named<objects::Line>("Starling Lane centre");
    select(line);
    run("alignment");
    key(Qt::Key_Return);
    const ObjectId alignment = doc().all<objects::Alignment>().back();
    select(alignment);
    const auto start = derived().alignments.at(alignment)->path.front().start;
    run("alignment-reverse");
    EXPECT_EQ(derived().alignments.at(alignment)->path.back().end, start);
    for (auto* button : window->profile()->findChildren<QPushButton*>())
        if (button->text() == QStringLiteral("New profile")) QTest::mouseClick(button, Qt::LeftButton);
    window->settle();
    const ObjectId profile = doc().all<objects::Profile>().back();
    EXPECT_GT(derived().profiles.at(profile)->ground.size(), 40U);
    for (auto* button : window->profile()->findChildren<QPushButton*>())
        if (button->text() == QStringLiteral("Add PVI")) {
            // First the ends, on the ground; then where somebody clicks on the section.
            QTest::mouseClick(button, Qt::LeftButton);
            window->settle();
            QTest::mouseClick(button, Qt::LeftButton);
            window->settle();
        }
    auto* section = window->profile()->section();
    ASSERT_TRUE(section->isAdding());
    const auto ends = doc().get<objects::Profile>(profile)->design;
    const QPointF middle = section->positionOf((ends[0].station + ends[1].station) / 2,
                                               (ends[0].height + ends[1].height) / 2 + 0.5);
    QTest::mouseClick(section, Qt::LeftButton, {}, middle.toPoint());
    window->settle();
    QTest::keyClick(section, Qt::Key_Escape);
    EXPECT_FALSE(section->isAdding());
    auto* table = window->profile()->table();
    ASSERT_EQ(table->rowCount(), 3);
    setCell(table, 1, 4, QStringLiteral("60"));
    EXPECT_EQ(doc().get<objects::Profile>(profile)->design[1].curveLength, 60);
    EXPECT_FALSE(table->item(1, 5)->text().isEmpty());
    setCell(table, 1, 2, QStringLiteral("2%"));
    const auto& design = doc().get<objects::Profile>(profile)->design;
    EXPECT_NEAR((design[1].height - design[0].height) / (design[1].station - design[0].station), 0.02, 1e-9);
    // Delete takes the marked one away again.
    table->setCurrentCell(1, 2);
    QTest::keyClick(section, Qt::Key_Delete);
    window->settle();
    EXPECT_EQ(table->rowCount(), 2);
    window->session().undo();
    window->settle();
    const auto position = window->session().history().position();
    setCell(table, 1, 4, QStringLiteral("9000"));
    EXPECT_EQ(window->session().history().position(), position);
    EXPECT_TRUE(window->prompt()->text().contains(QStringLiteral("curve")));
}

TEST_F(Project, LabelsAndDescriptionFollowTheGeometry) {
    demo();
    const ObjectId boundary = named<objects::Line>("Plot Q-4 boundary");
    const ObjectId label = named<objects::Label>("Plot course 1");
    EXPECT_EQ(derived().labels.at(label)->below(), "60.13");
    const auto before = derived().parcels.begin()->second->description;
    auto moved = doc().get<objects::Line>(boundary)->line;
    moved.vertices[0].place.x -= 10;
    put(QStringLiteral("Move"), operations::withLine(doc(), boundary, moved));
    window->settle();
    EXPECT_EQ(derived().labels.at(label)->below(), "70.11");
    EXPECT_NE(derived().parcels.begin()->second->description, before);
    select(named<objects::Parcel>("Plot Q-4"));
    EXPECT_TRUE(window->tables()->description()->toPlainText().endsWith(
        QString::fromStdString(derived().parcels.begin()->second->description).trimmed()));
}

TEST_F(Project, AStyleIsChangedInItsFactsAndEveryLabelFollows) {
    demo();
    const ObjectId label = named<objects::Label>("Plot course 1");
    select(label);
    run("label-style");
    window->settle();
    const ObjectId style = doc().get<objects::Label>(label)->style;
    ASSERT_TRUE(window->session().selection().holds(style));
    const auto lines = window->facts()->findChildren<QLineEdit*>(QStringLiteral("fact:Text"));
    ASSERT_GE(lines.size(), 2);
    EXPECT_EQ(lines[1]->text(), QStringLiteral("{distance}"));
    lines[1]->setFocus();
    lines[1]->selectAll();
    QTest::keyClicks(lines[1], QStringLiteral("d = {distance:1} m"));
    QTest::keyClick(lines[1], Qt::Key_Return);
    window->settle();
    EXPECT_EQ(derived().labels.at(label)->below(), "d = 60.1 m");
    // What it does not have is refused with the fields there are, and nothing changes.
    const auto before = doc();
    const QSignalSpy said(&window->session(), &Session::message);
    const auto again = window->facts()->findChildren<QLineEdit*>(QStringLiteral("fact:Text"));
    again[1]->setFocus();
    again[1]->selectAll();
    QTest::keyClicks(again[1], QStringLiteral("{radius}"));
    QTest::keyClick(again[1], Qt::Key_Return);
    EXPECT_TRUE(document::difference(before, doc()).empty());
    ASSERT_EQ(said.count(), 1);
    EXPECT_TRUE(said.front().at(0).toString().contains(QStringLiteral("there is no field 'radius' here")));
}

TEST_F(Project, LabelsAreAddedWithTheTool) {
    demo();
    window->stageBar()->setStage(Stage::Record);
    window->session().selection().set({});
    run("label");
    const auto p = doc().get<objects::Points>(named<objects::Points>("survey"))->set[100];
    look(p.plan, 20);
    const auto count = doc().all<objects::Label>().size();
    click(p.plan);
    EXPECT_EQ(doc().all<objects::Label>().size(), count + 1);
    EXPECT_EQ(derived().labels.at(doc().all<objects::Label>().back())->above(), p.number);
}

TEST_F(Project, UnitsAndDisplayChangeEveryFigure) {
    demo();
    const ObjectId label = named<objects::Label>("Plot course 1");
    withDialog([&](QDialog* dialog) {
        auto* box = dialog->findChild<QComboBox*>(QStringLiteral("Directions as"));
        box->setCurrentIndex(1);
        Q_EMIT box->activated(1);
        dialog->accept();
    });
    run("settings");
    EXPECT_EQ(derived().labels.at(label)->above(), "093°48'51\"");
    run("undo");
    EXPECT_EQ(derived().labels.at(label)->above(), "S 86°11'09\" E");
}

TEST_F(Project, TheFinderRunsToolsAndSelectsThings) {
    demo();
    run("finder");
    auto* finder = window->findChild<Finder*>();
    ASSERT_NE(finder, nullptr);
    QTest::keyClicks(finder->entry(), QStringLiteral("dra 3d"));
    EXPECT_TRUE(finder->list()->currentItem()->text().startsWith(QStringLiteral("Draw 3D line")));
    QTest::keyClick(finder->entry(), Qt::Key_Return);
    window->settle();
    ASSERT_NE(window->tool(), nullptr);
    EXPECT_EQ(window->tool()->title(), QStringLiteral("Draw 3D line"));
    key(Qt::Key_Escape);
    run("finder");
    for (auto* f : window->findChildren<Finder*>())
        if (f->isVisible()) finder = f;
    QTest::keyClicks(finder->entry(), QStringLiteral("peat ditch"));
    QTest::keyClick(finder->entry(), Qt::Key_Return);
    window->settle();
    EXPECT_TRUE(window->session().selection().holds(named<objects::Line>("Peat ditch")));
}

TEST_F(Project, HistoryGoesToAnyStep) {
    demo();
    for (int i = 0; i < 4; ++i) put(QStringLiteral("Step %1").arg(i), doc().added("G", objects::Group{}));
    window->settle();
    window->session().goTo(1);
    EXPECT_EQ(doc().all<objects::Group>().size(), 4U);
    window->session().goTo(4);
    EXPECT_EQ(doc().all<objects::Group>().size(), 7U);
}

TEST_F(Project, ASheetIsVectorAndTrueToScale) {
    demo();
    const ObjectId sheet = named<objects::Sheet>("Plan of Plot Q-4");
    const QString pdf = QString::fromStdString(folder / "s.pdf");
    const QString svg = QString::fromStdString(folder / "s.svg");
    ASSERT_TRUE(writeSheets(pdf, *window->session().snapshot(), {sheet}));
    ASSERT_TRUE(writeSheets(svg, *window->session().snapshot(), {sheet}));
    EXPECT_FALSE(writeSheets(QStringLiteral("/proc/x.pdf"), *window->session().snapshot(), {sheet}));
    EXPECT_FALSE(
        writeSheets(QString::fromStdString(folder / "s.doc"), *window->session().snapshot(), {sheet}));
    QProcess text;
    text.start(QStringLiteral("pdftotext"), {QStringLiteral("-layout"), pdf, QStringLiteral("-")});
    ASSERT_TRUE(text.waitForFinished());
    const QString words = QString::fromUtf8(text.readAllStandardOutput());
    EXPECT_TRUE(words.contains(QStringLiteral("1 : 500")));
    EXPECT_TRUE(words.contains(QStringLiteral("tangent curve to the left")));
    EXPECT_TRUE(words.contains(QStringLiteral("4343.56")));
    QProcess info;
    info.start(QStringLiteral("pdfinfo"), {pdf});
    ASSERT_TRUE(info.waitForFinished());
    // A3 landscape in points: 420 mm = 1190.55, 297 mm = 841.89.
    EXPECT_TRUE(QString::fromUtf8(info.readAllStandardOutput())
                    .contains(QRegularExpression(QStringLiteral("Page size: +119[01].* x 84[12]"))));
    QProcess images;
    images.start(QStringLiteral("pdfimages"), {QStringLiteral("-list"), pdf});
    ASSERT_TRUE(images.waitForFinished());
    EXPECT_EQ(QString::fromUtf8(images.readAllStandardOutput()).count(QLatin1Char('\n')),
              2);  // the heading only: nothing is a raster
}

}  // namespace
}  // namespace erdwerk::app
