// The commands of each set, as they are run from menu, rack, key and finder; files are named in the dialogs
// that ask for them.

#include <QFileDialog>
#include <QMessageBox>
#include <QPlainTextEdit>
#include <QProcess>
#include <QRegularExpression>
#include <QSpinBox>
#include <cmath>
#include <numbers>

#include "app/base/open_project.h"
#include "app/sheet/sheet_batch.h"
#include "app/tools/all_tools.h"
#include "app/window/import_dialog.h"
#include "app/window/station_import.h"
#include "core/check/finding.h"
#include "core/format/output.h"
#include "core/objects/alignment.h"
#include "core/objects/artwork.h"
#include "core/objects/cloud.h"
#include "core/objects/design_criteria.h"
#include "core/objects/dimension.h"
#include "core/objects/dimension_style.h"
#include "core/objects/group.h"
#include "core/objects/height_raster.h"
#include "core/objects/label.h"
#include "core/objects/label_style.h"
#include "core/objects/line.h"
#include "core/objects/parcel.h"
#include "core/objects/points.h"
#include "core/objects/reading.h"
#include "core/objects/sheet.h"
#include "core/objects/surface.h"
#include "core/objects/wording.h"
#include "window_test.h"

namespace erdwerk::app {
namespace {

class Commands : public WindowTest {
protected:
    /// Runs a command and names this file in the dialog that opens.
    void runWithFile(const char* action, const QString& path) {
        withDialog([path](QDialog* dialog) {
            auto* files = qobject_cast<QFileDialog*>(dialog);
            ASSERT_NE(files, nullptr);
            files->findChild<QLineEdit*>(QStringLiteral("fileNameEdit"))->setText(path);
            dialog->accept();
        });
        run(action);
    }
    /// The same for survey points, whose columns are accepted as they are proposed.
    void runWithSurvey(const char* action, const QString& path) {
        withDialog([this, path](QDialog* dialog) {
            withDialog([](QDialog* columns) {
                auto* import = qobject_cast<ImportDialog*>(columns);
                ASSERT_NE(import, nullptr);
                EXPECT_TRUE(QTest::qWaitFor([&] { return import->points().has_value(); }));
                import->accept();
            });
            dialog->findChild<QLineEdit*>(QStringLiteral("fileNameEdit"))->setText(path);
            dialog->accept();
        });
        run(action);
    }
    [[nodiscard]] QString inFolder(const char* name) const { return QString::fromStdString(folder / name); }
    [[nodiscard]] static QString ofDemo(const char* name) {
        return demoFolder() + QLatin1Char('/') + QString::fromUtf8(name);
    }
    [[nodiscard]] std::string written(const char* name) const {
        return format::readFile(folder / name).value_or("nothing was written");
    }
    [[nodiscard]] QString said() const { return window->prompt()->text(); }
};

TEST_F(Commands, WithoutAProjectEachIsRefusedWithItsReasonOrNeedsNone) {
    std::vector<QString> run;
    for (const Action& a : window->actions().all())
        if (!a.whyNot || a.whyNot().isEmpty()) run.push_back(a.id);
    // What begins with nothing, and what speaks of no project.
    EXPECT_THAT(run, testing::UnorderedElementsAre("new-from-survey", "new-empty", "open", "demo", "quit",
                                                   "undo", "redo", "finder", "title-block-write"));
    for (const Action& a : window->actions().all()) {
        EXPECT_FALSE(a.text.isEmpty() || a.help.isEmpty() || a.menu.isEmpty() || a.icon.isNull())
            << a.id.toStdString();
        if (!a.whyNot || a.whyNot().isEmpty()) continue;
        window->actions().run(a.id);
        EXPECT_FALSE(window->session().isOpen()) << a.id.toStdString();
    }
}

// ---- files

TEST_F(Commands, FileNewSaveAsOpenAndExport) {
    run("new-empty");
    ASSERT_TRUE(window->session().isOpen());
    runWithFile("import-lines", ofDemo("lines.gpkg"));
    ASSERT_EQ(doc().all<objects::Line>().size(), 7U);
    runWithFile("save-as", inFolder("site"));
    window->session().project().waitForSave();
    EXPECT_EQ(window->session().project().path(), inFolder("site.erdwerk"));
    EXPECT_FALSE(window->session().project().isChanged());
    runWithFile("export", inFolder("lines.geojson"));
    EXPECT_THAT(written("lines.geojson"), testing::HasSubstr("LineString"));
    run("new-empty");
    EXPECT_TRUE(doc().objects().empty());
    runWithFile("open", inFolder("site.erdwerk"));
    EXPECT_EQ(doc().all<objects::Line>().size(), 7U);
    run("save");
    window->session().project().waitForSave();
    EXPECT_TRUE(said().contains(QStringLiteral("Saved to site.erdwerk"))) << said().toStdString();
}

TEST_F(Commands, FileBeginsWithASurveyOrWithTheDemo) {
    demo();
    window->session().project().close(true);
    runWithSurvey("new-from-survey", ofDemo("survey.csv"));
    const auto points = [this] { return doc().all<objects::Points>().size(); };
    ASSERT_EQ(doc().objects().size(), 1U);
    EXPECT_EQ(doc().get<objects::Points>(named<objects::Points>("survey"))->set.size(), 591U);
    (void)folder.file("more.csv", "number,easting,northing,height\n1,0,0,1\n2,10,0,2\n");
    runWithSurvey("import-points", inFolder("more.csv"));
    EXPECT_EQ(points(), 2U);
    window->session().project().close(true);
    run("demo");
    EXPECT_TRUE(doc().byName<objects::Alignment>("Starling Lane"));
    EXPECT_EQ(window->bench()->page(), Bench::Page::Grades);
    EXPECT_TRUE(window->session().selected<objects::Line>());
}

// ---- view

TEST_F(Commands, ViewOffersWhatThePlanShows) {
    demo();
    run("plan-shows");
    auto* menu = qobject_cast<QMenu*>(QApplication::activePopupWidget());
    ASSERT_NE(menu, nullptr);
    QStringList words;
    for (const QAction* item : menu->actions()) words << item->text();
    menu->close();
    EXPECT_TRUE(words.join(QLatin1Char('|')).contains(QStringLiteral("ontours")))
        << qPrintable(words.join(u'|'));
}

// ---- field

TEST_F(Commands, FieldBringsInPointsCloudsAndPictures) {
    run("new-empty");
    runWithFile("import-cloud", ofDemo("knoll.las"));
    ASSERT_EQ(doc().all<objects::Cloud>().size(), 1U);
    (void)folder.file("heights.asc",
                      "ncols 2\nnrows 2\nxllcorner 0\nyllcorner 0\ncellsize 1\nNODATA_value -9\n1 2\n3 4\n");
    runWithFile("import-raster", inFolder("heights.asc"));
    ASSERT_EQ(doc().all<objects::HeightRaster>().size(), 1U);
    withDialog([](QDialog* dialog) {
        QTRY_VERIFY(qobject_cast<ImportDialog*>(dialog)->points().has_value());
        dialog->accept();
    });
    (void)folder.file("p.csv",
                      "number,easting,northing,height,code\n1,0,0,1,a\n2,10,0,2,a\n3,20,0,3,b\n4,30,0,4,b\n");
    window->imports().survey(inFolder("p.csv"));
    window->settle();
    const ObjectId set = named<objects::Points>("p");
    ASSERT_EQ(doc().get<objects::Points>(set)->set.size(), 4U);
    select(set);
    run("connect-code");
    EXPECT_EQ(doc().all<objects::Line>().size(), 2U);
    run("undo");
    select(set);
    run("connect-number");
    EXPECT_EQ(doc().all<objects::Line>().size(), 1U);
}

// ---- ground

TEST_F(Commands, GroundComparesAndWrites) {
    demo();
    run("volumes");
    EXPECT_EQ(window->bench()->page(), Bench::Page::Volumes);
    select(named<objects::Surface>("Ground"));
    runWithFile("export-surface", inFolder("ground.xml"));
    EXPECT_THAT(written("ground.xml"), testing::HasSubstr("<Surface name=\"Ground\""));
    runWithFile("findings-export", inFolder("findings.csv"));
    const std::string rows = written("findings.csv");
    EXPECT_EQ(static_cast<std::size_t>(std::count(rows.begin(), rows.end(), '\n')),
              window->session().snapshot()->findings.size() + 1);
}

// ---- shape

TEST_F(Commands, ShapeFreesHeightsAndRefusesAFileWithoutRows) {
    demo();
    const ObjectId ditch = named<objects::Line>("Peat ditch");
    select(ditch, 2);
    run("free-heights");
    EXPECT_TRUE(
        std::holds_alternative<linework::NoHeight>(doc().get<objects::Line>(ditch)->line.vertices[2].rule));
    run("undo");
    const auto before = doc();
    runWithFile("offset-set-read", ofDemo("wording.json"));
    EXPECT_TRUE(said().contains(QStringLiteral("wording.json"))) << said().toStdString();
    EXPECT_TRUE(document::difference(before, doc()).empty());
}

// ---- route

TEST_F(Commands, RouteOpensItsPagesAndReadsItsFiles) {
    demo();
    run("cross-sections");
    EXPECT_EQ(window->bench()->page(), Bench::Page::Section);
    EXPECT_TRUE(window->session().selected<objects::Alignment>());
    const auto criteria = doc().all<objects::DesignCriteria>().size();
    runWithFile("criteria-read", ofDemo("lane-criteria.json"));
    EXPECT_EQ(doc().all<objects::DesignCriteria>().size(), criteria + 1) << said().toStdString();
    const auto before = doc();
    runWithFile("marking-read", ofDemo("wording.json"));
    EXPECT_TRUE(said().contains(QStringLiteral("wording.json"))) << said().toStdString();
    EXPECT_TRUE(document::difference(before, doc()).empty());
    runWithFile("points-by-station", ofDemo("lane-stations.csv"));
    auto* dialog = window->findChild<StationImport*>();
    ASSERT_NE(dialog, nullptr) << said().toStdString();
    EXPECT_GT(dialog->table()->rowCount(), 0);
    dialog->reject();
}

// ---- record

TEST_F(Commands, RecordLabelsAnewAndShowsStyles) {
    demo();
    const auto labels = doc().all<objects::Label>();
    ASSERT_FALSE(labels.empty());
    const auto parcel = doc().all<objects::Parcel>().front();
    select(parcel);
    run("relabel");
    // A side that had none has one now; a second time changes nothing.
    const auto anew = doc();
    EXPECT_GE(anew.all<objects::Label>().size(), labels.size());
    run("relabel");
    EXPECT_EQ(doc().all<objects::Label>().size(), anew.all<objects::Label>().size());
    run("dimension-style");
    ASSERT_TRUE(window->session().selected<objects::DimensionStyle>());
    run("label-style");
    EXPECT_TRUE(window->session().selected<objects::LabelStyle>());
}

// ---- drawings

/// A line at 0 from end to end, and a quarter of a circle as 23 sides.
std::string drawingInPlan() {
    std::string quarter;
    for (int k = 0; k <= 23; ++k) {
        const double a = k * std::numbers::pi / 46;
        quarter += (k > 0 ? ",[" : "[") + std::to_string(48100 + 30 * std::sin(a)) + "," +
                   std::to_string(91000 + 30 * std::cos(a)) + "]";
    }
    const auto feature = [](const std::string& name, const std::string& places) {
        return R"({"type":"Feature","properties":{"name":")" + name +
               R"("},"geometry":{"type":"LineString","coordinates":[)" + places + "]}}";
    };
    return R"({"type":"FeatureCollection","features":[)" +
           feature("Flat", "[48000,91000,0],[48020,91000,0],[48020,91030,0]") + "," +
           feature("Quarter", quarter) + "]}";
}

TEST_F(Commands, WhatIsDrawnInPlanComesInWithoutHeightsAndItsChordsBecomeArcs) {
    demo();
    std::ofstream(folder / "plan.geojson") << drawingInPlan();
    runWithFile("import-lines", inFolder("plan.geojson"));
    ASSERT_TRUE(QTest::qWaitFor([&] { return static_cast<bool>(doc().byName<objects::Line>("Quarter")); }));
    window->settle();
    EXPECT_TRUE(said().contains(QStringLiteral("1 arc is drawn as chords"))) << said().toStdString();
    const ObjectId flat = doc().byName<objects::Line>("Flat");
    const auto heightOf = [&] { return window->session().derived().lines.at(flat)->vertices[1].height; };
    EXPECT_FALSE(heightOf());
    auto* box = window->findChild<QMessageBox*>(QStringLiteral("flatLines"));
    ASSERT_NE(box, nullptr);
    EXPECT_TRUE(box->text().startsWith(QStringLiteral("A line "))) << box->text().toStdString();
    // Esc is no answer that changes anything.
    ASSERT_NE(box->escapeButton(), nullptr);
    EXPECT_EQ(box->buttonRole(box->escapeButton()), QMessageBox::AcceptRole);
    const auto steps = window->session().history().position();
    const auto meant = box->buttons();
    for (QAbstractButton* button : meant)
        if (box->buttonRole(button) == QMessageBox::ActionRole) button->click();
    window->settle();
    EXPECT_EQ(window->session().history().position(), steps + 1);
    EXPECT_EQ(heightOf(), 0.0);
    run("undo");
    EXPECT_FALSE(heightOf());
    // All arcs in one step, and back.
    const auto path = [&] {
        return window->session().derived().lines.at(doc().byName<objects::Line>("Quarter"))->path;
    };
    ASSERT_EQ(path().size(), 23U);
    const auto findings = window->session().snapshot()->findings;
    ASSERT_EQ(check::waysToFixAll(findings, "chords").size(), 1U);
    ASSERT_TRUE(window->session().edit(
        QStringLiteral("arcs"),
        check::fixAll(findings, "chords", check::waysToFixAll(findings, "chords")[0].first)));
    window->settle();
    ASSERT_EQ(path().size(), 1U);
    EXPECT_NEAR(arcOf(path()[0])->radius, 30, 0.001);
    run("undo");
    EXPECT_EQ(path().size(), 23U);
}

// ---- parcels

TEST_F(Commands, ParcelsAreDescribedAndReadBack) {
    demo();
    select(doc().all<objects::Parcel>().front());
    runWithFile("describe", inFolder("q4.txt"));
    EXPECT_THAT(written("q4.txt"), testing::HasSubstr("to the point of beginning"));
    runWithFile("closure", inFolder("q4-closure.txt"));
    EXPECT_THAT(written("q4-closure.txt"), testing::HasSubstr("departure"));
    runWithFile("closure", inFolder("q4-closure.pdf"));
    EXPECT_FALSE(QFileInfo::exists(inFolder("q4-closure.pdf")));
    EXPECT_TRUE(said().contains(QStringLiteral(".txt"))) << said().toStdString();
    const auto wordings = doc().all<objects::Wording>().size();
    runWithFile("wording-read", ofDemo("wording.json"));
    EXPECT_EQ(doc().all<objects::Wording>().size(), wordings + 1) << said().toStdString();
    runWithFile("read-back-file", inFolder("q4.txt"));
    EXPECT_EQ(window->bench()->page(), Bench::Page::Tables);
    EXPECT_TRUE(doc().byName<objects::Reading>("q4")) << said().toStdString();
}

/// As poppler finds its words: letters that one can read, from margin to margin.
TEST_F(Commands, ADescriptionFillsItsPage) {
    demo();
    select(doc().all<objects::Parcel>().front());
    runWithFile("describe", inFolder("q4.pdf"));
    QProcess words;
    words.start(QStringLiteral("pdftotext"),
                {QStringLiteral("-bbox"), inFolder("q4.pdf"), QStringLiteral("-")});
    ASSERT_TRUE(words.waitForFinished());
    static const QRegularExpression word(
        QStringLiteral("xMin=\"([\\d.]+)\" yMin=\"([\\d.]+)\" xMax=\"([\\d.]+)\" yMax=\"([\\d.]+)\""));
    double left = 1e9;
    double right = 0;
    int count = 0;
    auto all = word.globalMatch(QString::fromUtf8(words.readAllStandardOutput()));
    while (all.hasNext()) {
        const auto one = all.next();
        const double high = one.captured(4).toDouble() - one.captured(2).toDouble();
        EXPECT_GT(high, 9);
        EXPECT_LT(high, 20);
        left = std::min(left, one.captured(1).toDouble());
        right = std::max(right, one.captured(3).toDouble());
        ++count;
    }
    EXPECT_GT(count, 50);
    // A4 is 595 points wide; a margin of 22 mm is 62.
    EXPECT_NEAR(left, 62, 4);
    EXPECT_GT(right, 480);
    EXPECT_LT(right, 595 - 58);
}

// ---- sheets

TEST_F(Commands, SheetsAreCopiedWrittenAndGivenArtwork) {
    demo();
    const auto sheets = doc().all<objects::Sheet>();
    select(sheets.front());
    run("sheet-copy");
    ASSERT_EQ(doc().all<objects::Sheet>().size(), sheets.size() + 1);
    const auto pictures = doc().all<objects::Artwork>().size();
    runWithFile("artwork", ofDemo("title-block.svg"));
    EXPECT_EQ(doc().all<objects::Artwork>().size(), pictures + 1) << said().toStdString();
    runWithFile("title-block-write", inFolder("own.svg"));
    EXPECT_THAT(written("own.svg"), testing::HasSubstr("<svg"));
    select(sheets.front());
    runWithFile("sheet-export", inFolder("sheet.pdf"));
    QTRY_VERIFY(QFile::exists(inFolder("sheet.pdf")));
    EXPECT_THAT(written("sheet.pdf"), testing::StartsWith("%PDF"));
}

// ---- what is selected, views, help, tools

TEST_F(Commands, ObjectsAreGroupedHiddenAndShown) {
    demo();
    const ObjectId ditch = named<objects::Line>("Peat ditch");
    const ObjectId path = named<objects::Line>("Footpath");
    window->session().selection().set({{ditch, {}}, {path, {}}});
    const auto groups = doc().all<objects::Group>().size();
    run("new-group");
    ASSERT_EQ(doc().all<objects::Group>().size(), groups + 1);
    EXPECT_EQ(doc().find(ditch)->group, doc().find(path)->group);
    select(ditch);
    run("show-hide");
    EXPECT_TRUE(doc().hidden(*doc().find(ditch)));
    run("show-hide");
    EXPECT_FALSE(doc().hidden(*doc().find(ditch)));
}

TEST_F(Commands, HelpOpensTheGuideAndLetsItGo) {
    demo();
    run("guide");
    EXPECT_TRUE(window->guide()->isVisible());
    run("guide");
    EXPECT_FALSE(window->guide()->isVisible());
}

TEST_F(Commands, EachToolBeginsOrSaysWhyNotAndEsc) {
    demo();
    for (const auto& entry : tools::rack()) {
        const auto* tool = std::get_if<tools::ToolDeclaration>(&entry.entry);
        if (tool == nullptr) continue;
        const QString reason = tool->whyNot(window->session());
        window->actions().run(tool->id);
        ASSERT_EQ(window->tool() != nullptr, reason.isEmpty()) << tool->id.toStdString();
        if (window->tool() == nullptr) {
            EXPECT_TRUE(said().contains(reason)) << tool->id.toStdString();
            continue;
        }
        EXPECT_FALSE(window->tool()->prompt().isEmpty()) << tool->id.toStdString();
        window->inHand().end();
        EXPECT_EQ(window->tool(), nullptr) << tool->id.toStdString();
    }
}

}  // namespace
}  // namespace erdwerk::app
