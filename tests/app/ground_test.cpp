// The ground stage in the real window: own edits, openings, parts, twin views, sections, volumes, fit.

#include <QCheckBox>
#include <QTreeWidget>

#include "app/base/open_project.h"
#include "app/tools/find_creases.h"
#include "app/tools/find_ground.h"
#include "core/derive/surface_result.h"
#include "core/format/output.h"
#include "core/linework/line3d.h"
#include "core/objects/line.h"
#include "core/objects/surface.h"
#include "core/operations/surfaces.h"
#include "core/terrain/own_edits.h"
#include "demo_site/cloud.h"
#include "plateau.h"
#include "support/after_edit.h"

namespace erdwerk::app {
namespace {

class Ground : public PlateauTest {};

TEST_F(Ground, OwnEditsAreListedSwitchedAndRemoved) {
    demo();
    const ObjectId ground = named<objects::Surface>("Ground");
    select(ground);
    run("surface-raise");
    type(QStringLiteral("1.5"));
    ASSERT_EQ(doc().get<objects::Surface>(ground)->definition->edits.size(), 1U);
    const Vec2 at{48100, 91060};
    const double raised = *derived().surface(ground)->heightAt(at);
    const auto boxes = window->facts()->findChildren<QCheckBox*>();
    const auto edit = std::find_if(boxes.begin(), boxes.end(), [](const QCheckBox* b) {
        return b->text().contains(QStringLiteral("raised"));
    });
    ASSERT_NE(edit, boxes.end());
    (*edit)->click();
    window->settle();
    window->settle();
    EXPECT_NEAR(*derived().surface(ground)->heightAt(at), raised - 1.5, 1e-9);
    EXPECT_FALSE(doc().get<objects::Surface>(ground)->definition->edits[0].on);
    // A flip that does not apply is refused, and nothing changes.
    run("flip-side");
    click({40000, 90000});
    EXPECT_EQ(doc().get<objects::Surface>(ground)->definition->edits.size(), 1U);
}

TEST_F(Ground, AnOpeningTakesTheSurfaceAway) {
    demo();
    const ObjectId ground = named<objects::Surface>("Ground");
    const Vec2 c{48100, 91060};
    ObjectId ring;
    put(QStringLiteral("ring"),
        doc().added(
            "Pond",
            objects::Line{linework::lineThrough(
                              {c + Vec2{-4, -4}, c + Vec2{4, -4}, c + Vec2{4, 4}, c + Vec2{-4, 4}}, {}, true),
                          objects::LineStyle::Plain},
            &ring));
    window->settle();
    const double before = derived().surfaces.at(ground)->figures.planArea;
    select(ground);
    run("opening");
    look(c, 20);
    click(c + Vec2{4, 1});
    EXPECT_NEAR(derived().surfaces.at(ground)->figures.planArea, before - 64, 1e-6);
    EXPECT_FALSE(derived().surface(ground)->heightAt(c));
    run("undo");
    EXPECT_TRUE(derived().surface(ground)->heightAt(c));
}

TEST_F(Ground, ARunoffLineIsKeptAndNeverRises) {
    demo();
    run("drop");
    look({48100, 91060}, 12);
    click({48100, 91060});
    const ObjectId group = named<objects::Group>("Runoff");
    ObjectId line;
    for (const ObjectId id : doc().all<objects::Line>())
        if (doc().find(id)->group == group) line = id;
    ASSERT_TRUE(line);
    const auto& v = derived().lines.at(line)->vertices;
    for (std::size_t i = 1; i < v.size(); ++i) EXPECT_LE(*v[i].height, *v[i - 1].height + 1e-9);
}

/// A hundred pairs of lines that cross at different heights.

TEST_F(Ground, PartsBecomeObjectsAndTheSurfaceStays) {
    demo();
    const ObjectId ground = named<objects::Surface>("Ground");
    const auto definition = doc().get<objects::Surface>(ground)->definition;
    run("extract");
    auto* dialog = window->findChild<QDialog*>(QStringLiteral("extract"));
    ASSERT_NE(dialog, nullptr);
    auto* kind = dialog->findChild<QComboBox*>(QStringLiteral("extractKind"));
    kind->setCurrentIndex(2);
    Q_EMIT kind->activated(2);
    dialog->findChild<QPushButton*>(QStringLiteral("extractMake"))->click();
    window->settle();
    const ObjectId group = named<objects::Group>("Edge of Ground");
    EXPECT_TRUE(group);
    EXPECT_EQ(doc().get<objects::Surface>(ground)->definition, definition);
    dialog->close();
}

TEST_F(Ground, TwoPlansStayInStepAndFade) {
    plateau();
    run("thin-surface");
    run("twin-plan");
    window->settle();
    ASSERT_EQ(window->views()->twin(), TwinViews::Twin::Plan);
    look({20, 20}, 15);
    EXPECT_EQ(window->views()->second()->view().centre, window->plan()->view().centre);
    EXPECT_EQ(window->views()->second()->view().scale, window->plan()->view().scale);
    EXPECT_EQ(*window->plan()->fade(), 1.0);
    window->views()->fade()->setValue(40);
    EXPECT_NEAR(*window->views()->second()->fade(), 0.4, 1e-9);
    window->views()->second()->setView({25, 20}, 10);
    EXPECT_NEAR(window->plan()->view().centre.x, 25, 1e-9);
    run("twin-plan");
    EXPECT_FALSE(window->plan()->fade());
}

TEST_F(Ground, TheSceneFollowsThePlan) {
    plateau();
    window->views()->setTwin(TwinViews::Twin::Scene);
    window->settle();
    look({20, 25}, 15);
    EXPECT_NEAR(window->scene()->planView().centre.x, 20, 1e-3);
    EXPECT_NEAR(window->scene()->planView().scale, 15, 1e-6);
    window->scene()->zoom(0.5);
    EXPECT_NEAR(window->plan()->view().scale, 30, 1e-6);
    run("in-step");
    look({40, 40}, 15);
    EXPECT_NEAR(window->scene()->planView().centre.x, 20, 1e-3);
}

TEST_F(Ground, ASectionRunsThroughSurfacesAndCloud) {
    plateau();
    run("thin-surface");
    ObjectId line;
    put(QStringLiteral("line"),
        doc().added("Cut",
                    objects::Line{linework::lineThrough({{5, 30}, {55, 30}}, {}), objects::LineStyle::Plain},
                    &line));
    window->settle();
    select(line);
    window->bench()->open(Bench::Page::Section);
    window->slice()->interval()->setText(QStringLiteral("10"));
    QTest::keyClick(window->slice()->interval(), Qt::Key_Return);
    window->settle();
    auto* table = window->slice()->table();
    ASSERT_EQ(table->rowCount(), 6);
    EXPECT_EQ(table->item(1, 0)->text(), QStringLiteral("10.000"));
    EXPECT_NEAR(table->item(0, 1)->text().toDouble(), 10, 0.11);
    EXPECT_NEAR(table->item(5, 1)->text().toDouble(), 0, 0.11);
    for (const char* name : {"s.csv", "s.xlsx"})
        EXPECT_TRUE(window->slice()->exportTo(QString::fromStdString(folder / name)));
    EXPECT_FALSE(window->slice()->exportTo(QString::fromStdString(folder / "s.odd")));
    window->slice()->interval()->setText(QStringLiteral("x"));
    QTest::keyClick(window->slice()->interval(), Qt::Key_Return);
    EXPECT_EQ(table->rowCount(), 0);
}

TEST_F(Ground, VolumesBetweenTwoSurfacesFollowTheProject) {
    demo();
    const ObjectId ground = named<objects::Surface>("Ground");
    // A copy that is a metre higher.
    ObjectId design;
    auto next = doc().added("Raised", *doc().get<objects::Surface>(ground), &design);
    next = test::afterEdit(
        next, operations::addOwnEdit(design, {{terrain::EditKind::Raise, {}, {0, 0, 1}}, {}, true}));
    put(QStringLiteral("copy"), next);
    window->settle();
    window->volumes()->choose(ground, design);
    window->settle();
    ASSERT_EQ(window->volumes()->table()->rowCount(), 1);
    const double area = derived().surfaces.at(ground)->figures.planArea;
    const auto cell = [&](int column) {
        return window->volumes()->table()->item(0, column)->text().section(QLatin1Char(' '), 0, 0).toDouble();
    };
    EXPECT_NEAR(cell(2), area, 0.1);
    EXPECT_NEAR(cell(1), 0, 0.1);
    EXPECT_TRUE(window->volumes()->exportTo(QString::fromStdString(folder / "v.html")));
    EXPECT_TRUE(window->volumes()->exportTo(QString::fromStdString(folder / "v.xlsx")));
    // Raised again, the figure follows by itself.
    put(QStringLiteral("raise"),
        test::afterEdit(
            doc(), operations::addOwnEdit(design, {{terrain::EditKind::Raise, {}, {0, 0, 1}}, {}, true})));
    window->settle();
    EXPECT_NEAR(cell(2), 2 * area, 0.1);
}

TEST_F(Ground, SourcesAreSwitchedAndRemovedInTheFacts) {
    demo();
    const ObjectId ground = named<objects::Surface>("Ground");
    select(ground);
    const auto count = doc().get<objects::Surface>(ground)->definition->sources.size();
    auto* crest = window->facts()->findChild<QCheckBox*>(QStringLiteral("source:North Knoll crest"));
    ASSERT_NE(crest, nullptr);
    const auto sides = [&] { return derived().surface(ground)->tin().constraintCount(); };
    const auto before = sides();
    crest->click();
    window->settle();
    window->settle();
    EXPECT_LT(sides(), before);
    EXPECT_EQ(doc().get<objects::Surface>(ground)->definition->sources.size(), count);
    for (auto* button : window->facts()->findChildren<QPushButton*>())
        if (button->accessibleName() == QStringLiteral("Remove North Knoll crest from the surface")) {
            button->click();
            break;
        }
    window->settle();
    window->settle();
    EXPECT_EQ(doc().get<objects::Surface>(ground)->definition->sources.size(), count - 1);
    run("undo");
    run("undo");
    EXPECT_EQ(sides(), before);
}

TEST_F(Ground, BandsHaveTheirTableOfAreas) {
    demo();
    const ObjectId ground = named<objects::Surface>("Ground");
    put(QStringLiteral("bands"), document::changed<objects::Surface>(
                                     doc(), ground, [](auto& s) { s.style.bands = objects::Bands::Slope; }));
    window->settle();
    window->bench()->open(Bench::Page::Tables);
    auto* choice = window->tables()->findChild<QComboBox*>();
    const int at = choice->findText(QStringLiteral("Bands: Ground"));
    ASSERT_GE(at, 0);
    choice->setCurrentIndex(at);
    Q_EMIT choice->activated(at);
    auto* table = window->tables()->findChild<QTableWidget*>(QStringLiteral("bandTable"));
    ASSERT_GT(table->rowCount(), 3);
    double sum = 0;
    for (int r = 0; r < table->rowCount(); ++r)
        sum += table->item(r, 1)->text().section(QLatin1Char(' '), 0, 0).toDouble();
    EXPECT_NEAR(sum, derived().surfaces.at(ground)->figures.planArea, 0.05 * table->rowCount());
}

TEST_F(Ground, AFitPointIsAddedFromTheWorstPlace) {
    demo();
    const ObjectId ground = named<objects::Surface>("Ground");
    put(QStringLiteral("against"),
        document::changed<objects::Surface>(
            doc(), ground, [&](objects::Surface& s) { s.fit.source = named<objects::Cloud>("knoll"); }));
    window->settle();
    select(ground);
    window->bench()->open(Bench::Page::Fit);
    ASSERT_GT(window->fit()->worst()->topLevelItemCount(), 5);
    const auto rms = derived().fits.at(ground)->figures.rms;
    const auto at = derived().fits.at(ground)->worst.front().point;
    window->fit()->worst()->setFocus();
    QTest::keyClick(window->fit()->worst(), Qt::Key_Return);
    window->settle();
    EXPECT_NEAR(window->plan()->view().centre.x, at.x, 1e-6);
    QTest::keyClick(window->fit()->worst(), Qt::Key_1);
    window->settle();
    EXPECT_TRUE(doc().byName<objects::Points>("Points from the source"));
    EXPECT_NEAR(*derived().surface(ground)->heightAt(at.plan()), at.z, 1e-6);
    EXPECT_NE(derived().fits.at(ground)->figures.rms, rms);
    EXPECT_EQ(window->fit()->figures()->item(2, 2)->text(), QString::number(rms, 'f', 4));
}

/// The job as a newcomer would do it: from the cloud to a surface with proof, and nothing left to fix.

TEST_F(Ground, TheDemoGoesFromTheCloudToAProvedSurfaceWithoutConflicts) {
    demo();
    const ObjectId knoll = named<objects::Cloud>("knoll");
    select(knoll);
    run("find-ground");
    auto* ground = qobject_cast<FindGroundTool*>(window->tool());
    ASSERT_TRUE(QTest::qWaitFor([&] { return !ground->working(); }, 60'000));
    key(Qt::Key_Return);
    run("find-creases");
    ASSERT_NE(crease<FindCreasesTool>(), nullptr);
    key(Qt::Key_Return);
    EXPECT_TRUE(doc().byName<objects::Group>("Crests"));
    EXPECT_TRUE(doc().byName<objects::Group>("Toes"));
    select(knoll);
    run("thin-surface");
    window->settle();
    const ObjectId surface = *window->session().selected<objects::Surface>();
    ASSERT_TRUE(derived().surfaces.at(surface)->thinned);
    EXPECT_EQ(derived().surfaces.at(surface)->thinned->beyond, 0U);
    EXPECT_LT(derived().surfaces.at(surface)->thinned->kept, 3'000U);
    // Every finding that has a fix gets its first one, with the keyboard.
    auto* list = window->findings()->list();
    window->bench()->open(Bench::Page::Findings);
    list->setFocus();
    for (int round = 0; round < 40; ++round) {
        const auto& findings = window->session().snapshot()->findings;
        const auto next =
            std::find_if(findings.begin(), findings.end(), [](const auto& f) { return !f.fixes.empty(); });
        if (next == findings.end()) break;
        list->setCurrentItem(list->topLevelItem(static_cast<int>(next - findings.begin())));
        QTest::keyClick(list, Qt::Key_1);
        window->settle();
    }
    for (const auto& f : window->session().snapshot()->findings) {
        EXPECT_TRUE(f.kind == "non-tangent" || f.kind == "points-outside") << f.text;
    }
    EXPECT_DOUBLE_EQ(derived().fits.at(surface)->figures.withinShare(), 1);
}

}  // namespace
}  // namespace erdwerk::app
