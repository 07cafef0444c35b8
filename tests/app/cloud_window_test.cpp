// Clouds, rasters, backdrops and what is made from them, in the real window.

#include "app/base/open_project.h"
#include "app/tools/find_creases.h"
#include "app/tools/find_ground.h"
#include "app/tools/trace_crease.h"
#include "core/derive/dense_source.h"
#include "core/derive/surface_result.h"
#include "core/format/output.h"
#include "core/linework/line3d.h"
#include "core/objects/cloud.h"
#include "core/objects/line.h"
#include "core/objects/points.h"
#include "core/objects/surface.h"
#include "core/operations/surfaces.h"
#include "plateau.h"
#include "support/after_edit.h"

namespace erdwerk::app {
namespace {

class Clouds : public PlateauTest {};

TEST_F(Clouds, ACloudBecomesASurfaceThatIsProved) {
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
    EXPECT_EQ(window->bench()->page(), Bench::Page::Fit);
    EXPECT_EQ(window->fit()->figures()->item(0, 1)->text(), QString::number(121 * 121));
    EXPECT_TRUE(window->fit()->figures()->item(7, 1)->text().startsWith(QStringLiteral("100.00 %")));
    EXPECT_EQ(window->fit()->figures()->item(2, 2)->text(), QStringLiteral("–"));
    // A finer tolerance is another run; the one before stands beside it.
    put(QStringLiteral("finer"),
        test::afterEdit(doc(), operations::changeDefinition(*surface, [](auto& d) { d.tolerance = 0.01; })));
    window->settle();
    EXPECT_NE(window->fit()->figures()->item(2, 2)->text(), QStringLiteral("–"));
    EXPECT_LE(derived().surfaces.at(*surface)->thinned->largestDeviation, 0.01 + 1e-9);
}

TEST_F(Clouds, FoundCreasesArePickedAndKept) {
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

TEST_F(Clouds, TypedFiguresOfFindCreasesAreCheckedAndUsed) {
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

TEST_F(Clouds, ATracedCreaseStopsAtTheEndAndIsKept) {
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

TEST_F(Clouds, BackspaceTakesBackWhatWasFollowed) {
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

TEST_F(Clouds, ASurveyPointTakesItsHeightFromTheCloud) {
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

TEST_F(Clouds, ACloudPointIsSnappedToWhenItCanBeToldFromOthers) {
    plateau();
    look({35, 30}, 40);  // half a unit is 20 pixels
    moveTo({35.1, 30.05});
    ASSERT_TRUE(window->plan()->snap());
    EXPECT_EQ(window->plan()->snap()->kind, SnapKind::Dense);
    EXPECT_NEAR(window->plan()->snap()->place.x, 35, 1e-3);
    EXPECT_NEAR(*window->plan()->snap()->height, 5, 1e-3);
    EXPECT_TRUE(window->plan()->snap()->name.contains(QStringLiteral("plateau")));
    // Far off they are too dense for that.
    look({35, 30}, 4);
    moveTo({35.1, 30.05});
    EXPECT_NE(window->plan()->snap()->kind, SnapKind::Dense);
}

TEST_F(Clouds, TheGroundIsFoundAndAClassIsSetByHand) {
    demo();
    const ObjectId knoll = named<objects::Cloud>("knoll");
    select(knoll);
    run("find-ground");
    // First a preview with figures; nothing is kept before Enter.
    const auto ground = [&] {
        auto* tool = qobject_cast<FindGroundTool*>(window->tool());
        while (tool->working()) QTest::qWait(20);
        return tool->chips().back().value;
    };
    const QString before = ground();
    EXPECT_EQ(doc().get<objects::Cloud>(knoll)->cloud->classCounts()[2], 0U);
    type(QStringLiteral("above 0.05"));
    EXPECT_NE(ground(), before);
    type(QStringLiteral("slope steep"));
    EXPECT_TRUE(window->prompt()->text().startsWith(QStringLiteral("⚠")));
    type(QStringLiteral("above 0.15"));
    EXPECT_EQ(ground(), before);
    EXPECT_FALSE(window->plan()->grab().isNull());
    key(Qt::Key_Return);
    EXPECT_EQ(window->tool(), nullptr);
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

TEST_F(Clouds, ADamagedCloudIsRefusedAndNothingChanges) {
    window->session().project().startNew({});
    QString said;
    withDialog([&said](QDialog* dialog) {
        said = qobject_cast<QMessageBox*>(dialog)->text();
        dialog->accept();
    });
    window->imports().dense(QString::fromStdString(folder.file("bad.las", "LASF nonsense")), true);
    ASSERT_TRUE(QTest::qWaitFor([&] { return !said.isEmpty(); }));
    EXPECT_TRUE(said.contains(QStringLiteral("bad.las")));
    EXPECT_TRUE(doc().objects().empty());
}

TEST_F(Clouds, ABackdropLiesWhereItsWorldFileSays) {
    // 40 x 30 pixels of half a unit, the western half red, the eastern blue; its corner at 100, 200.
    QImage image(40, 30, QImage::Format_RGB32);
    for (int y = 0; y < 30; ++y)
        for (int x = 0; x < 40; ++x) image.setPixel(x, y, x < 20 ? qRgb(200, 20, 20) : qRgb(20, 20, 200));
    ASSERT_TRUE(image.save(QString::fromStdString(folder / "site.png")));
    (void)folder.file("site.pgw", "0.5\n0\n0\n-0.5\n100.25\n199.75\n");
    window->session().project().startNew({});
    window->imports().dense(QString::fromStdString(folder / "site.png"), false);
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
    put(QStringLiteral("hide"), doc().withShown({{doc().all<objects::Backdrop>().front()}, {}}));
    window->settle();
    EXPECT_GT(
        window->plan()->grab().toImage().pixelColor((QPointF(pixel({104, 193})) * ratio).toPoint()).green(),
        150);
}

TEST_F(Clouds, ARasterOfHeightsBecomesASurface) {
    std::string grid = "ncols 40\nnrows 30\nxllcorner 0\nyllcorner 0\ncellsize 1\nNODATA_value -9999\n";
    for (int y = 0; y < 30; ++y) {
        for (int x = 0; x < 40; ++x) grid += std::to_string(0.25 * x) + " ";
        grid += "\n";
    }
    window->session().project().startNew({});
    window->imports().dense(QString::fromStdString(folder.file("dem.asc", grid)), false);
    window->settle();
    run("thin-surface");
    window->settle();
    const auto surface = window->session().selected<objects::Surface>();
    ASSERT_TRUE(surface);
    // Cell centres from 0.5 to 39.5: a plane with few vertices.
    EXPECT_NEAR(*derived().surface(*surface)->heightAt({20.5, 15}), 5, 0.11);
    EXPECT_LT(derived().surface(*surface)->tin().vertexCount(), 20U);
    EXPECT_EQ(derived().surfaces.at(*surface)->thinned->pointsIn, 1200U);
}

TEST_F(Clouds, ACroppedCloudShowsAndTakesOnlyWhatLiesInside) {
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

TEST_F(Clouds, AGridIsSampledInsideALine) {
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

}  // namespace
}  // namespace erdwerk::app
