// Profiles, cross-sections, kept sections, points by station and markings, through the real window.

#include <QCheckBox>
#include <QInputDialog>
#include <QMenu>
#include <QTableWidget>

#include "app/base/open_project.h"
#include "app/bench/slice_page.h"
#include "app/bench/station_table.h"
#include "app/kinds/all_kinds.h"
#include "app/kinds/profile_section.h"
#include "app/sheet/section_frames.h"
#include "app/sheet/sheet_painter.h"
#include "app/window/station_import.h"
#include "core/derive/route_result.h"
#include "core/objects/alignment.h"
#include "core/objects/points.h"
#include "core/objects/profile.h"
#include "core/objects/section.h"
#include "core/objects/surface.h"
#include "core/operations/points.h"
#include "core/operations/records.h"
#include "core/operations/routes.h"
#include "core/operations/sheets.h"
#include "core/operations/stationed_points.h"
#include "core/operations/surfaces.h"
#include "support/after_edit.h"
#include "window_test.h"

namespace erdwerk::app {
namespace {

using objects::Alignment;
using objects::Profile;

class RouteDesign : public WindowTest {
protected:
    void SetUp() override {
        WindowTest::SetUp();
        document::Document d;
        std::vector<survey::SurveyPoint> points;
        for (int x = 0; x <= 200; x += 50)
            for (int y = 0; y <= 200; y += 50)
                points.push_back(
                    {std::to_string(points.size() + 1), {double(x), double(y)}, 100 + x / 20.0, "", ""});
        d = test::afterEdit(d, operations::addPoints("Survey", points), &survey);
        d = test::afterEdit(d, operations::addSurface("Ground", {{survey, objects::Role::Points}}), &ground);
        Alignment made;
        made.pis = {{{20, 90}}, {{100, 90}, 30}, {{160, 150}}};
        d = d.added("Axis", made, &axis);
        Profile p{axis, ground, {{0, 101, 0}, {60, 104, 20}, {150, 106, 0}}, 5};
        d = d.added("Grade", p, &profile);
        window->session().project().startNew(d);
        window->settle();
        window->stageBar()->setStage(Stage::Route);
        look({100, 100}, 4);
    }
    ProfilePage* open() {
        select(profile);
        window->bench()->open(Bench::Page::Profile);
        window->settle();
        return window->profile();
    }
    void choose(QToolButton* button, const QString& words) {
        Q_EMIT button->menu()->aboutToShow();
        for (QAction* item : button->menu()->actions())
            if (item->text().startsWith(words)) {
                item->trigger();
                window->settle();
                return;
            }
        FAIL() << "nothing says " << qPrintable(words);
    }
    [[nodiscard]] const Profile& design() const { return *doc().get<Profile>(profile); }
    [[nodiscard]] QString said() const { return window->prompt()->text(); }
    SlicePage* sectionPage() {
        window->bench()->open(Bench::Page::Section);
        window->settle();
        auto* page = window->slice();
        waitFor(page);
        return page;
    }
    void waitFor(SlicePage* page) {
        EXPECT_TRUE(QTest::qWaitFor([&] { return !page->isWorking(); }));
        window->settle();
    }

    ObjectId survey;
    ObjectId ground;
    ObjectId axis;
    ObjectId profile;
};

TEST_F(RouteDesign, RowsStandUnderTheProfileAndAreChosen) {
    auto* page = open();
    const auto& data = page->section()->data();
    ASSERT_EQ(data.rows.size(), 3U);
    EXPECT_EQ(data.rows[0].name, QStringLiteral("Station"));
    EXPECT_FALSE(data.rows[1].cells.empty());
    choose(page->rowsMenu(), QStringLiteral("Grade"));
    choose(page->rowsMenu(), QStringLiteral("Fill"));
    choose(page->rowsMenu(), QStringLiteral("Station"));
    std::vector<QString> names;
    for (const auto& row : page->section()->data().rows) names.push_back(row.name);
    EXPECT_EQ(names, (std::vector<QString>{QStringLiteral("Ground"), QStringLiteral("Design"),
                                           QStringLiteral("Fill"), QStringLiteral("Grade")}));
    // Two straights beside one curve.
    EXPECT_EQ(page->section()->data().rows[3].cells.size(), 2U);
    run("undo");
    EXPECT_EQ(page->section()->data().rows.size(), 5U);
}

TEST_F(RouteDesign, AProfileAtAScaleIsScrolled) {
    auto* page = open();
    EXPECT_FALSE(page->section()->scroll().isVisible());
    ASSERT_TRUE(window->session().edit(
        QStringLiteral("s"), [&](const document::Document& d) -> Result<document::Edited> {
            return document::changed<Profile>(d, profile, [](Profile& p) { p.scale = 200; });
        }));
    window->settle();
    ASSERT_TRUE(page->section()->scroll().isVisible());
    // 96 dots an inch: a unit is 1000 / 200 mm.
    const double unit = page->section()->positionOf(51, 100).x() - page->section()->positionOf(50, 100).x();
    EXPECT_NEAR(unit, 5 * 96 / 25.4, 1e-6);
    const double before = page->section()->positionOf(0, 100).x();
    page->section()->scroll().setValue(100);
    EXPECT_NEAR(page->section()->positionOf(0, 100).x(), before - 100, 1e-6);
}

TEST_F(RouteDesign, GradesAreLockedInTheTableAndDraggedInTheSection) {
    auto* page = open();
    setCell(page->table(), 1, 3, QStringLiteral("4% locked"));
    EXPECT_TRUE(design().design[0].locked);
    EXPECT_TRUE(page->table()->item(1, 3)->text().contains(QStringLiteral("locked")));
    page->table()->setCurrentCell(1, 0);
    choose(page->moreMenu(), QStringLiteral("Free the grade"));
    EXPECT_FALSE(design().design[0].locked);
    setCell(page->table(), 2, 3, QStringLiteral("=+0.50"));
    ASSERT_TRUE(design().design[1].onGround);
    const auto& result = *derived().profiles.at(profile);
    EXPECT_NEAR(route::designAt(result.laid, 100)->height, route::heightAt(result.ground, 100).value() + 0.5,
                2e-3);
    EXPECT_TRUE(page->table()->item(2, 3)->text().startsWith(QStringLiteral("=")));
    setCell(page->table(), 2, 3, QStringLiteral("up"));
    EXPECT_TRUE(said().contains(QStringLiteral("up"))) << qPrintable(said());
    run("undo");
    // The straight behind the first PVI is dragged up.
    auto* section = page->section();
    const QPoint from = ((section->handlePosition(0) + section->handlePosition(1)) / 2).toPoint();
    const double before = design().design[0].height;
    QTest::mousePress(section, Qt::LeftButton, {}, from);
    QMouseEvent move(QEvent::MouseMove, QPointF(from - QPoint(0, 15)),
                     section->mapToGlobal(QPointF(from - QPoint(0, 15))), Qt::NoButton, Qt::LeftButton,
                     Qt::NoModifier);
    QApplication::sendEvent(section, &move);
    QTest::mouseRelease(section, Qt::LeftButton, {}, from - QPoint(0, 15));
    window->settle();
    EXPECT_GT(design().design[0].height, before);
    EXPECT_NEAR(design().design[1].height - design().design[0].height, 2.4, 1e-9);
}

TEST_F(RouteDesign, TheDesignBecomesLinesThatFollowIt) {
    auto* page = open();
    choose(page->moreMenu(), QStringLiteral("3D line of the design"));
    ASSERT_EQ(doc().all<objects::Line>().size(), 1U);
    choose(page->moreMenu(), QStringLiteral("3D lines beside"));
    auto* dialog = window->findChild<QInputDialog*>();
    ASSERT_NE(dialog, nullptr);
    dialog->setTextValue(QStringLiteral("3,-2%"));
    dialog->accept();
    window->settle();
    const auto lines = doc().all<objects::Line>();
    ASSERT_EQ(lines.size(), 3U);
    const auto first = [&](ObjectId id) { return *derived().lines.at(id)->vertices.front().height; };
    EXPECT_NEAR(first(lines[0]), 101, 1e-9);
    EXPECT_NEAR(first(lines[1]), 101 - 0.06, 1e-9);
    // A PVI that is dragged takes them along.
    setCell(page->table(), 0, 2, QStringLiteral("102"));
    EXPECT_NEAR(first(lines[0]), 102, 1e-9);
    EXPECT_NEAR(first(lines[2]), 102 - 0.06, 1e-9);
    // Lines as its ground, and the surface again.
    window->session().selection().set({{lines[0], std::nullopt}});
    window->settle();
    choose(page->moreMenu(), QStringLiteral("Ground from"));
    EXPECT_EQ(design().across, std::vector{lines[0]});
    window->session().selection().set({});
    window->settle();
    choose(page->moreMenu(), QStringLiteral("Ground from"));
    EXPECT_TRUE(design().across.empty());
}

TEST_F(RouteDesign, ProfilesAreDrawnToScaleAsPdfAndSvg) {
    const QString pdf = QString::fromStdString(folder / "a.pdf");
    const QString svg = QString::fromStdString(folder / "a.svg");
    ASSERT_TRUE(writeProfile(pdf, *window->session().snapshot(), profile));
    ASSERT_TRUE(writeProfile(svg, *window->session().snapshot(), profile));
    EXPECT_GT(std::filesystem::file_size(pdf.toStdString()), 5000U);
    std::ifstream in(svg.toStdString());
    std::ostringstream all;
    all << in.rdbuf();
    EXPECT_NE(all.str().find("Design"), std::string::npos);
    EXPECT_NE(all.str().find("Ground"), std::string::npos);
    EXPECT_FALSE(
        writeProfile(QString::fromStdString(folder / "a.png"), *window->session().snapshot(), profile));
    EXPECT_FALSE(writeProfile(pdf, *window->session().snapshot(), ground));
    EXPECT_FALSE(writeProfile(QStringLiteral("/nowhere/a.pdf"), *window->session().snapshot(), profile));
}

/// How many pixels of a picture are not white.
int inked(const QImage& image, const QRect& room) {
    int count = 0;
    for (int y = room.top(); y <= room.bottom(); ++y)
        for (int x = room.left(); x <= room.right(); ++x) count += image.pixel(x, y) != qRgb(255, 255, 255);
    return count;
}

TEST_F(RouteDesign, ASheetHasProfilesAndCrossSections) {
    objects::Sheet sheet;
    sheet.frames = {{{8, 8, 308, 160}, objects::PlanFrame{{90, 110}, 1000, {}, {}, 0, 0, {}}},
                    {{8, 170, 308, 119}, objects::ProfileFrame{profile, 1000, 0, 0}}};
    ObjectId id;
    document::Document d = doc().added("S", sheet, &id);
    put(QStringLiteral("sheet"), d);
    window->settle();
    const auto paint = [&] {
        QImage image(840, 594, QImage::Format_RGB32);
        QPainter painter(&image);
        paintSheet(painter, *window->session().snapshot(), id, 2);
        painter.end();
        return image;
    };
    EXPECT_GT(inked(paint(), {40, 360, 300, 150}), 200);
    // From 60 on the profile is another one.
    const QImage whole = paint();
    window->session().edit(QStringLiteral("from"), operations::changeFrame<objects::ProfileFrame>(
                                                       id, 1, [](auto& f) { f.from = 60; }));
    window->settle();
    EXPECT_NE(paint(), whole);
    put(QStringLiteral("sections"), document::changed<objects::Sheet>(doc(), id, [&](objects::Sheet& s) {
            s.frames = {{{8, 8, 308, 280}, objects::SectionsFrame{axis, 20, 10, 500}}};
        }));
    window->settle();
    EXPECT_GT(inked(paint(), {20, 20, 560, 540}), 500);
    // At a scale at which nothing fits it says so.
    QImage image(840, 594, QImage::Format_RGB32);
    QPainter painter(&image);
    const auto placed =
        paintCrossSections(painter, *window->session().snapshot(), {axis, 20, 10, 20}, {0, 0, 600, 560}, 2);
    EXPECT_EQ(placed.drawn, 0U);
    EXPECT_GT(placed.all, 5U);
}

TEST_F(RouteDesign, CrossSectionsAreSteppedThroughByKey) {
    select(axis);
    auto* page = sectionPage();
    page->acrossButton()->click();
    waitFor(page);
    auto* across = page->across();
    // At 0, every 20 and the end.
    ASSERT_EQ(across->table()->rowCount(), int(derived().alignments.at(axis)->length / 20) + 2);
    EXPECT_EQ(across->table()->currentRow(), 0);
    QTest::keyClick(across, Qt::Key_PageDown);
    QTest::keyClick(across, Qt::Key_PageDown);
    EXPECT_EQ(across->table()->currentRow(), 2);
    ASSERT_TRUE(window->session().selection().hover());
    EXPECT_NEAR(window->session().selection().hover()->place.x, 60, 1e-9);
    QTest::keyClick(across, Qt::Key_PageUp);
    EXPECT_EQ(across->table()->currentRow(), 1);
    across->every()->setText(QStringLiteral("50"));
    Q_EMIT across->every()->editingFinished();
    waitFor(page);
    EXPECT_EQ(across->table()->rowCount(), int(derived().alignments.at(axis)->length / 50) + 2);
    across->reach()->setText(QStringLiteral("-3"));
    Q_EMIT across->reach()->editingFinished();
    EXPECT_FALSE(across->reach()->styleSheet().isEmpty());
    across->reach()->setText(QStringLiteral("5"));
    Q_EMIT across->reach()->editingFinished();
    waitFor(page);
    const std::string csv = folder / "x.csv";
    ASSERT_TRUE(page->exportTo(QString::fromStdString(csv)));
    EXPECT_GT(std::filesystem::file_size(csv), 100U);
}

TEST_F(RouteDesign, ASectionIsKeptOpenedAndChanged) {
    select(axis);
    auto* page = sectionPage();
    page->interval()->setText(QStringLiteral("10"));
    Q_EMIT page->interval()->editingFinished();
    waitFor(page);
    page->keepAction()->trigger();
    window->settle();
    ASSERT_EQ(doc().all<objects::Section>().size(), 1U);
    const ObjectId kept = doc().all<objects::Section>().front();
    EXPECT_EQ(doc().get<objects::Section>(kept)->along, axis);
    EXPECT_EQ(doc().get<objects::Section>(kept)->interval, 10);
    // Something else, then the kept one again.
    window->session().selection().set({{survey, 0}, {survey, 24}});
    window->settle();
    page->interval()->setText(QString());
    Q_EMIT page->interval()->editingFinished();
    EXPECT_EQ(doc().get<objects::Section>(kept)->interval, 10);
    select(kept);
    waitFor(page);
    EXPECT_EQ(page->interval()->text(), QStringLiteral("10"));
    EXPECT_FALSE(page->keepAction()->isEnabled());
    page->interval()->setText(QStringLiteral("25"));
    Q_EMIT page->interval()->editingFinished();
    window->settle();
    EXPECT_EQ(doc().get<objects::Section>(kept)->interval, 25);
    run("undo");
    EXPECT_EQ(doc().get<objects::Section>(kept)->interval, 10);
    waitFor(page);
    // The page shows what was undone, so leaving its field does not bring it back.
    EXPECT_EQ(page->interval()->text(), QStringLiteral("10"));
    Q_EMIT page->interval()->editingFinished();
    EXPECT_EQ(doc().get<objects::Section>(kept)->interval, 10);
    // It stands in 3D.
    SceneContent content(window->session().snapshot(), {});
    kindOf<objects::Section>().show(content, kept);
    EXPECT_GE(content.strokes().size(), 3U);
}

TEST_F(RouteDesign, PointsGoAlongWithAPiThatIsDragged) {
    ASSERT_TRUE(window->session().edit(
        QStringLiteral("p"),
        operations::pointsByStation(window->session().results(), axis, "Stakes",
                                    {{"a", 20, 5, 101.0, "", 2}, {"b", 40, 5, 102.0, "", 3}},
                                    operations::StationTies::Tied)));
    window->settle();
    const ObjectId stakes = named<objects::Points>("Stakes 1");
    const auto at = [&](std::size_t i) { return doc().get<objects::Points>(stakes)->set[i].plan; };
    EXPECT_THAT(at(0), test::IsNear(40, 85, 1e-9));
    select(axis, 0);
    drag({20, 90}, {20, 70});
    window->session().waitForResults();
    // While the mouse is down.
    const auto& shown = derived().document.get<objects::Points>(stakes)->set[0].plan;
    EXPECT_LT(shown.y, 84);
    drop({20, 70});
    EXPECT_LT(at(0).y, 84);
    run("undo");
    EXPECT_THAT(at(0), test::IsNear(40, 85, 1e-9));
    // Reported, joined by their offset.
    select(stakes);
    run("stations");
    auto* table = window->tables()->stationTable();
    ASSERT_EQ(table->rowCount(), 2);
    EXPECT_EQ(table->item(1, 1)->text(), QStringLiteral("0+040.00"));
    EXPECT_EQ(table->item(1, 2)->text(), QStringLiteral("5.00"));
    const std::string csv = folder / "s.csv";
    ASSERT_TRUE(window->tables()->exportTo(QString::fromStdString(csv)));
    EXPECT_GT(std::filesystem::file_size(csv), 80U);
    run("points-by-offset");
    EXPECT_EQ(doc().all<objects::Line>().size(), 1U);
    ASSERT_TRUE(window->session().edit(QStringLiteral("l"), operations::loosenPoints(stakes)));
    select(stakes);
    run("points-tie");
    EXPECT_TRUE(doc().get<objects::Points>(stakes)->tie);
}

TEST_F(RouteDesign, StationsAreShownBeforeTheyComeIn) {
    const auto open = [&](std::vector<route::StationedPoint> rows) {
        auto* dialog = new StationImport(window->session(), QStringLiteral("/tmp/stakes.csv"),
                                         std::move(rows), axis, window.get());
        dialog->open();
        return dialog;
    };
    auto* dialog = open({{"a", 20, 5, 101.0, "edge", 2}, {"b", 9000, 5, {}, "", 3}});
    EXPECT_EQ(dialog->table()->item(0, 5)->text(), QStringLiteral("E 40.00  N 85.00"));
    EXPECT_EQ(dialog->table()->item(1, 5)->text(), QStringLiteral("not on it (line 3)"));
    EXPECT_TRUE(dialog->tied()->isChecked());
    dialog->importButton()->click();
    window->settle();
    const auto& stakes = *doc().get<objects::Points>(named<objects::Points>("stakes 1"));
    ASSERT_EQ(stakes.set.size(), 1U);
    EXPECT_EQ(stakes.set[0].height, 101.0);
    ASSERT_TRUE(stakes.tie);
    EXPECT_EQ(stakes.tie->alignment, axis);
    run("undo");
    // Names that repeat cannot be tied; nothing on it cannot come in.
    auto* repeated = open({{"a", 20, 5, {}, "", 2}, {"a", 30, 5, {}, "", 3}});
    EXPECT_FALSE(repeated->tied()->isEnabled());
    repeated->importButton()->click();
    window->settle();
    EXPECT_FALSE(doc().get<objects::Points>(named<objects::Points>("stakes 1"))->tie);
    auto* none = open({{"a", -20, 5, {}, "", 2}});
    EXPECT_FALSE(none->importButton()->isEnabled());
    none->reject();
}

TEST_F(RouteDesign, ACurveIsBentByItsMiddle) {
    select(axis);
    const auto middle = *route::curveMiddle(*operations::pisOf(doc(), axis), 1);
    window->session().selection().set({{axis, 4}});  // the middle of the curve at the second PI
    window->settle();
    drag(middle, middle + geometry::Vec2{-4, 10});
    drop(middle + geometry::Vec2{-4, 10});
    EXPECT_GT((*operations::pisOf(doc(), axis))[1].radius, 40);
}

TEST_F(RouteDesign, AProfileThroughPickedPoints) {
    window->session().selection().set({{survey, 0}, {survey, 12}, {survey, 24}});
    window->settle();
    run("profile-through-points");
    ASSERT_EQ(doc().all<Profile>().size(), 2U);
    EXPECT_EQ(doc().get<Alignment>(doc().all<Alignment>().back())->serves, "baseline");
    EXPECT_NEAR(derived().alignments.at(doc().all<Alignment>().back())->length, 200 * std::sqrt(2.0), 1e-9);
}

}  // namespace
}  // namespace erdwerk::app
