// The ground stage in the real window: sources, creases, fit, findings, own edits, parts.

#include <QCheckBox>
#include <QTreeWidget>
#include <random>

#include "app/tools/find_creases.h"
#include "app/tools/trace_crease.h"
#include "core/derive/dense_source.h"
#include "core/format/las.h"
#include "core/format/output.h"
#include "core/operations/edit.h"
#include "demo_site/cloud.h"
#include "window_test.h"

namespace erdwerk::app {
namespace {

using geometry::Vec2;
using geometry::Vec3;

class Ground : public WindowTest {
protected:
    /// A plateau: level at 10, from x = 30 down 1 in 1 to level at 0. Points every half unit.
    void plateau() {
        std::vector<Vec3> places;
        for (int y = 0; y <= 120; ++y)
            for (int x = 0; x <= 120; ++x)
                places.push_back({x * 0.5, y * 0.5, std::clamp(40 - x * 0.5, 0.0, 10.0)});
        ASSERT_TRUE(format::writeLas(folder / "plateau.las", survey::cloudFrom(places)));
        window->session().startNew({});
        ASSERT_TRUE(window->importDense(QString::fromStdString(folder / "plateau.las"), true));
        window->settle();
        cloud = named<objects::Cloud>("plateau");
    }
    /// Waits until a crease tool has its field.
    template <class T>
    T* crease() {
        auto* tool = qobject_cast<T*>(window->tool());
        for (int i = 0; tool != nullptr && tool->working() && i < 2000; ++i) {
            QCoreApplication::processEvents();
            QTest::qWait(5);
        }
        QCoreApplication::processEvents();
        return tool;
    }
    ObjectId cloud;
};

TEST_F(Ground, ACloudBecomesASurfaceThatIsProved) {
    plateau();
    EXPECT_EQ(doc().get<objects::Cloud>(cloud)->cloud->size(), 121U * 121U);
    run("thin-surface");
    window->settle();
    const auto surface = window->session().selected<objects::Surface>();
    ASSERT_TRUE(surface);
    const auto& result = *derived().surfaces.at(*surface);
    ASSERT_TRUE(result.thinned);
    EXPECT_EQ(result.thinned->pointsIn, 121U * 121U);
    EXPECT_LT(result.thinned->kept, 1000U);
    EXPECT_LE(result.thinned->largestDeviation, 0.1 + 1e-9);
    EXPECT_EQ(result.thinned->beyond, 0U);
    // The Fit page shows it.
    EXPECT_EQ(window->bench()->currentWidget(), window->fit());
    EXPECT_EQ(window->fit()->figures()->item(0, 1)->text(), QString::number(121 * 121));
    EXPECT_TRUE(window->fit()->figures()->item(7, 1)->text().startsWith(QStringLiteral("100.00 %")));
    EXPECT_EQ(window->fit()->figures()->item(2, 2)->text(), QStringLiteral("–"));
    // A finer tolerance is another run; the one before stands beside it.
    put(QStringLiteral("finer"),
        operations::changeDefinition(doc(), *surface, [](auto& d) { d.tolerance = 0.01; }));
    window->settle();
    EXPECT_NE(window->fit()->figures()->item(2, 2)->text(), QStringLiteral("–"));
    EXPECT_LE(derived().surfaces.at(*surface)->thinned->largestDeviation, 0.01 + 1e-9);
}

TEST_F(Ground, FoundCreasesArePickedAndKept) {
    plateau();
    run("find-creases");
    auto* tool = crease<FindCreasesTool>();
    ASSERT_NE(tool, nullptr);
    ASSERT_EQ(tool->found().size(), 2U);  // the crest at x = 30, the toe at x = 40
    look({35, 30}, 10);
    click({30, 30});  // leaves the crest out
    key(Qt::Key_Return);
    EXPECT_EQ(doc().all<objects::Line>().size(), 1U);
    const ObjectId toe = doc().all<objects::Line>().front();
    EXPECT_EQ(doc().get<objects::Line>(toe)->style, objects::LineStyle::Toe);
    EXPECT_EQ(doc().nameOf(doc().find(toe)->group), "Toes");
    for (const auto& v : derived().lines.at(toe)->vertices) {
        EXPECT_NEAR(v.place.x, 40, 0.5);
        EXPECT_NEAR(*v.height, 0, 0.3);
    }
    run("undo");
    EXPECT_TRUE(doc().all<objects::Line>().empty());
}

TEST_F(Ground, TypedFiguresOfFindCreasesAreCheckedAndUsed) {
    plateau();
    run("find-creases");
    auto* tool = crease<FindCreasesTool>();
    ASSERT_EQ(tool->found().size(), 2U);
    type(QStringLiteral("angle 400"));
    EXPECT_TRUE(window->prompt()->text().contains(QStringLiteral("90")));
    type(QStringLiteral("length 5000"));
    crease<FindCreasesTool>();
    EXPECT_TRUE(tool->found().empty());
    type(QStringLiteral("length 20"));
    crease<FindCreasesTool>();
    EXPECT_EQ(tool->found().size(), 2U);
    key(Qt::Key_Escape);
    EXPECT_TRUE(doc().all<objects::Line>().empty());
}

TEST_F(Ground, ATracedCreaseStopsAtTheEndAndIsKept) {
    plateau();
    run("trace-crease");
    ASSERT_NE(crease<TraceCreaseTool>(), nullptr);
    look({30, 30}, 8);
    click({30, 20});
    click({30, 24});
    EXPECT_TRUE(window->prompt()->text().contains(QStringLiteral("Stopped")))
        << window->prompt()->text().toStdString();
    key(Qt::Key_Return);
    ASSERT_EQ(doc().all<objects::Line>().size(), 1U);
    const ObjectId crest = doc().all<objects::Line>().front();
    EXPECT_EQ(doc().get<objects::Line>(crest)->style, objects::LineStyle::Crest);
    EXPECT_GT(derived().lines.at(crest)->length, 30);
    for (const auto& v : derived().lines.at(crest)->vertices) EXPECT_NEAR(v.place.x, 30, 0.6);
}

TEST_F(Ground, BackspaceTakesBackWhatWasFollowed) {
    plateau();
    run("trace-crease");
    crease<TraceCreaseTool>();
    look({30, 30}, 8);
    click({30, 20});
    click({30, 24});
    key(Qt::Key_Backspace);
    EXPECT_TRUE(window->prompt()->text().contains(QStringLiteral("continue")));
    key(Qt::Key_Backspace);
    EXPECT_TRUE(window->prompt()->text().contains(QStringLiteral("again")));
    // On level ground there is nothing to follow, and it says so.
    click({10, 24});
    EXPECT_FALSE(window->prompt()->text().contains(QStringLiteral("Stopped")));
    EXPECT_TRUE(doc().all<objects::Line>().empty());
}

TEST_F(Ground, ASurveyPointTakesItsHeightFromTheCloud) {
    plateau();
    select(cloud);
    run("add-point");
    look({35, 30}, 20);
    type(QStringLiteral("code TOE1"));
    type(QStringLiteral("no 120"));
    click({35, 30.25});
    ASSERT_EQ(doc().all<objects::Points>().size(), 1U);
    const auto p = doc().get<objects::Points>(doc().all<objects::Points>().front())->set[0];
    EXPECT_EQ(p.number, "120");
    EXPECT_EQ(p.code, "TOE1");
    EXPECT_NEAR(*p.height, 5, 0.06);
    // The next number is proposed.
    click({20, 30.25});
    EXPECT_EQ(doc().get<objects::Points>(doc().all<objects::Points>().front())->set[1].number, "121");
    EXPECT_NEAR(*doc().get<objects::Points>(doc().all<objects::Points>().front())->set[1].height, 10, 1e-3);
}

TEST_F(Ground, ACloudPointIsSnappedToWhenItCanBeToldFromOthers) {
    plateau();
    look({35, 30}, 40);  // half a unit is 20 pixels
    moveTo({35.1, 30.05});
    ASSERT_TRUE(window->plan()->snap());
    EXPECT_EQ(window->plan()->snap()->kind, SnapKind::CloudPoint);
    EXPECT_NEAR(window->plan()->snap()->place.x, 35, 1e-3);
    EXPECT_NEAR(*window->plan()->snap()->height, 5, 1e-3);
    EXPECT_TRUE(window->plan()->snap()->name.contains(QStringLiteral("plateau")));
    // Far off they are too dense for that.
    look({35, 30}, 4);
    moveTo({35.1, 30.05});
    EXPECT_NE(window->plan()->snap()->kind, SnapKind::CloudPoint);
}

TEST_F(Ground, TheGroundIsFoundAndAClassIsSetByHand) {
    demo();
    const ObjectId knoll = named<objects::Cloud>("knoll");
    select(knoll);
    run("find-ground");
    window->settle();
    const auto counts = doc().get<objects::Cloud>(knoll)->cloud->classCounts();
    EXPECT_GT(counts[2], 100'000U);
    EXPECT_GT(counts[1], 1'000U);
    // Everything inside a closed line becomes building.
    const auto box = doc().get<objects::Cloud>(knoll)->cloud->bounds();
    const Vec2 c = box.centre();
    ObjectId ring;
    const auto next = doc().added(
        "Ring",
        objects::Line{
            linework::lineThrough({c, c + Vec2{10, 0}, c + Vec2{10, 10}, c + Vec2{0, 10}}, {}, true),
            objects::LineStyle::Plain},
        &ring);
    put(QStringLiteral("ring"), next);
    window->settle();
    select(ring);
    run("cloud-class");
    type(QStringLiteral("300"));
    EXPECT_EQ(doc().get<objects::Cloud>(knoll)->cloud->classCounts()[6], counts[6]);
    type(QStringLiteral("6"));
    EXPECT_GT(doc().get<objects::Cloud>(knoll)->cloud->classCounts()[6], 1'000U);
    run("undo");
    EXPECT_EQ(doc().get<objects::Cloud>(knoll)->cloud->classCounts()[6], counts[6]);
}

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
TEST_F(Ground, AHundredConflictsAreWorkedThroughWithTheKeyboardAlone) {
    document::Document d;
    std::vector<survey::SurveyPoint> points;
    for (int y = 0; y <= 11; ++y)
        for (int x = 0; x <= 11; ++x)
            points.push_back({std::to_string(points.size() + 1), {x * 20.0, y * 20.0}, 10.0, "", ""});
    ObjectId set;
    d = operations::addPoints(d, "s", std::move(points), &set);
    std::vector<objects::Source> sources{{set, objects::Role::Points}};
    std::mt19937 random(3);
    for (int k = 0; k < 100; ++k) {
        const Vec2 c{5 + 20.0 * (k % 10) + static_cast<double>(random() % 5), 5 + 20.0 * (k / 10)};
        for (const bool second : {false, true}) {
            ObjectId id;
            const Vec2 along = second ? Vec2{1, 4} : Vec2{4, 1};
            d = d.added((second ? "B" : "A") + std::to_string(k),
                        objects::Line{linework::lineThrough({c + along * -1, c + along},
                                                            {second ? 11.0 : 10.5, second ? 11.0 : 10.5}),
                                      objects::LineStyle::Plain},
                        &id);
            sources.push_back({id, objects::Role::Breakline});
        }
    }
    d = operations::addSurface(d, "G", sources);
    window->session().startNew(d);
    window->settle();
    auto* list = window->findings()->list();
    window->bench()->setCurrentWidget(window->findings());
    ASSERT_GE(list->topLevelItemCount(), 100);
    const auto crossings = [&] {
        return std::count_if(window->session().snapshot()->findings.begin(),
                             window->session().snapshot()->findings.end(),
                             [](const auto& f) { return f.kind == "crossing-breaklines"; });
    };
    ASSERT_EQ(crossings(), 100);
    list->setFocus();
    QTest::keyClick(list, Qt::Key_Return);
    window->settle();
    // The first is accepted with a reason, the others get the mean, one key each.
    QTest::keyClick(list, Qt::Key_A);
    auto* reason = window->findings()->findChild<QLineEdit*>(QStringLiteral("reason"));
    ASSERT_TRUE(reason->isVisible());
    QTest::keyClicks(reason, QStringLiteral("bridge"));
    QTest::keyClick(reason, Qt::Key_Return);
    window->settle();
    EXPECT_EQ(crossings(), 99);
    ASSERT_EQ(doc().settings().accepted.size(), 1U);
    EXPECT_EQ(doc().settings().accepted.front().reason, "bridge");
    for (int k = 0; k < 99; ++k) {
        QTest::keyClick(list, Qt::Key_3);
        window->settle();
    }
    EXPECT_EQ(crossings(), 0);
    EXPECT_EQ(window->session().history().position(), 100U);
    // What was accepted can be taken back.
    auto* show = window->findings()->findChild<QCheckBox*>(QStringLiteral("showAccepted"));
    ASSERT_TRUE(show->isVisible());
    const auto labels = window->findings()->findChildren<QLabel*>();
    EXPECT_TRUE(std::any_of(labels.begin(), labels.end(), [](const QLabel* l) {
        return l->text().contains(QStringLiteral("100 fixed")) &&
               l->text().contains(QStringLiteral("1 accepted"));
    }));
    const int rows = list->topLevelItemCount();
    show->click();
    ASSERT_EQ(list->topLevelItemCount(), rows + 1);
    auto* back = qobject_cast<QPushButton*>(list->itemWidget(list->topLevelItem(rows), 2));
    ASSERT_NE(back, nullptr);
    back->click();
    window->settle();
    EXPECT_EQ(crossings(), 1);
    EXPECT_TRUE(doc().settings().accepted.empty());
}

TEST_F(Ground, AFixOfAnEarlierStateIsNotApplied) {
    demo();
    auto* list = window->findings()->list();
    window->bench()->setCurrentWidget(window->findings());
    const auto& findings = window->session().snapshot()->findings;
    const auto same =
        std::find_if(findings.begin(), findings.end(), [](const auto& f) { return f.kind == "same-place"; });
    ASSERT_NE(same, findings.end());
    list->setFocus();
    list->setCurrentItem(list->topLevelItem(static_cast<int>(same - findings.begin())));
    const auto count = [&] {
        return doc().get<objects::Points>(named<objects::Points>("survey"))->set.size();
    };
    const auto before = count();
    // Twice at once: the second would name points by numbers that have moved.
    QTest::keyClick(list, Qt::Key_1);
    QTest::keyClick(list, Qt::Key_1);
    EXPECT_EQ(count(), before - 1);
    EXPECT_EQ(window->session().history().position(), 1U);
    window->settle();
}

TEST_F(Ground, TheCreaseOfAFindingIsFollowedOnTheSource) {
    demo();
    const ObjectId ground = named<objects::Surface>("Ground");
    const ObjectId knoll = named<objects::Cloud>("knoll");
    put(QStringLiteral("against"), document::changed<objects::Surface>(
                                       doc(), ground, [&](objects::Surface& s) { s.fit.source = knoll; }));
    window->settle();
    select(ground);
    Q_EMIT window->fit()->tracePressed(ground);
    auto* tool = crease<TraceCreaseTool>();
    ASSERT_NE(tool, nullptr);
    EXPECT_EQ(tool->chips().front().value, QStringLiteral("knoll"));
}

TEST_F(Ground, FindingsAreWrittenAsCsv) {
    demo();
    const std::string path = folder / "findings.csv";
    ASSERT_TRUE(window->findings()->exportTo(QString::fromStdString(path)));
    const auto text = test::valueOf(format::readFile(path));
    EXPECT_THAT(text, testing::HasSubstr("crossing-breaklines"));
    EXPECT_FALSE(window->findings()->exportTo(QStringLiteral("/nowhere/at/all/f.csv")));
}

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
    window->showTwin(true);
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
    window->bench()->setCurrentWidget(window->slice());
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
    next = operations::addEdit(next, design, {{terrain::EditKind::Raise, {}, {0, 0, 1}}, {}, true});
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
        operations::addEdit(doc(), design, {{terrain::EditKind::Raise, {}, {0, 0, 1}}, {}, true}));
    window->settle();
    EXPECT_NEAR(cell(2), 2 * area, 0.1);
}

TEST_F(Ground, ADamagedCloudIsRefusedAndNothingChanges) {
    window->session().startNew({});
    QString said;
    withDialog([&said](QDialog* dialog) {
        said = qobject_cast<QMessageBox*>(dialog)->text();
        dialog->accept();
    });
    EXPECT_FALSE(window->importDense(QString::fromStdString(folder.file("bad.las", "LASF nonsense")), true));
    EXPECT_TRUE(said.contains(QStringLiteral("bad.las")));
    EXPECT_TRUE(doc().objects().empty());
}

TEST_F(Ground, ABackdropLiesWhereItsWorldFileSays) {
    // 40 x 30 pixels of half a unit, the western half red, the eastern blue; its corner at 100, 200.
    QImage image(40, 30, QImage::Format_RGB32);
    for (int y = 0; y < 30; ++y)
        for (int x = 0; x < 40; ++x) image.setPixel(x, y, x < 20 ? qRgb(200, 20, 20) : qRgb(20, 20, 200));
    ASSERT_TRUE(image.save(QString::fromStdString(folder / "site.png")));
    (void)folder.file("site.pgw", "0.5\n0\n0\n-0.5\n100.25\n199.75\n");
    window->session().startNew({});
    ASSERT_TRUE(window->importDense(QString::fromStdString(folder / "site.png"), false));
    window->settle();
    ASSERT_EQ(doc().all<objects::Backdrop>().size(), 1U);
    look({110, 192.5}, 20);
    const QImage shown = window->plan()->grab().toImage();
    const double ratio = shown.devicePixelRatio();
    const auto colour = [&](Vec2 p) { return shown.pixelColor((QPointF(pixel(p)) * ratio).toPoint()); };
    EXPECT_GT(colour({104, 193}).red(), 150);
    EXPECT_GT(colour({116, 193}).blue(), 150);
    EXPECT_GT(colour({98, 193}).green(), 150);  // paper beside it
    // Hidden, it is gone.
    put(QStringLiteral("hide"),
        document::changed<objects::Backdrop>(doc(), doc().all<objects::Backdrop>().front(),
                                             [](auto& b) { b.visible = false; }));
    window->settle();
    EXPECT_GT(
        window->plan()->grab().toImage().pixelColor((QPointF(pixel({104, 193})) * ratio).toPoint()).green(),
        150);
}

TEST_F(Ground, ARasterOfHeightsBecomesASurface) {
    std::string grid = "ncols 40\nnrows 30\nxllcorner 0\nyllcorner 0\ncellsize 1\nNODATA_value -9999\n";
    for (int y = 0; y < 30; ++y) {
        for (int x = 0; x < 40; ++x) grid += std::to_string(0.25 * x) + " ";
        grid += "\n";
    }
    window->session().startNew({});
    ASSERT_TRUE(window->importDense(QString::fromStdString(folder.file("dem.asc", grid)), false));
    run("thin-surface");
    window->settle();
    const auto surface = window->session().selected<objects::Surface>();
    ASSERT_TRUE(surface);
    // Cell centres from 0.5 to 39.5: a plane with few vertices.
    EXPECT_NEAR(*derived().surface(*surface)->heightAt({20.5, 15}), 5, 0.11);
    EXPECT_LT(derived().surface(*surface)->tin().vertexCount(), 20U);
    EXPECT_EQ(derived().surfaces.at(*surface)->thinned->pointsIn, 1200U);
}

TEST_F(Ground, ACroppedCloudShowsAndTakesOnlyWhatLiesInside) {
    plateau();
    ObjectId ring;
    put(QStringLiteral("ring"),
        doc().added("Crop",
                    objects::Line{linework::lineThrough({{5, 5}, {25, 5}, {25, 25}, {5, 25}}, {}, true),
                                  objects::LineStyle::Plain},
                    &ring));
    window->settle();
    select(ring);
    run("cloud-crop");
    key(Qt::Key_Return);  // the selected line fills the pick
    EXPECT_EQ(doc().get<objects::Cloud>(cloud)->filter.inside.size(), 4U);
    select(cloud);
    run("thin-surface");
    window->settle();
    const auto surface = *window->session().selected<objects::Surface>();
    EXPECT_EQ(derived().surfaces.at(surface)->thinned->pointsIn, 41U * 41U);
    look({15, 15}, 10);
    const QImage shown = window->plan()->grab().toImage();
    EXPECT_GT(shown.pixelColor(pixel({45, 15}).x(), pixel({45, 15}).y()).lightness(), 200);
}

TEST_F(Ground, AGridIsSampledInsideALine) {
    plateau();
    ObjectId ring;
    put(QStringLiteral("ring"),
        doc().added("Field",
                    objects::Line{linework::lineThrough({{1, 1}, {19, 1}, {19, 19}, {1, 19}}, {}, true),
                                  objects::LineStyle::Plain},
                    &ring));
    window->settle();
    select(cloud);
    run("grid-sample");
    look({10, 10}, 15);
    click({10, 1});
    type(QStringLiteral("0"));
    EXPECT_TRUE(doc().all<objects::Points>().empty());
    type(QStringLiteral("2"));
    ASSERT_EQ(doc().all<objects::Points>().size(), 1U);
    const auto& set = doc().get<objects::Points>(doc().all<objects::Points>().front())->set;
    EXPECT_EQ(set.size(), 81U);
    EXPECT_NEAR(*set[0].height, 10, 1e-3);
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
    window->bench()->setCurrentWidget(window->tables());
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
    window->bench()->setCurrentWidget(window->fit());
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
    window->bench()->setCurrentWidget(window->findings());
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
