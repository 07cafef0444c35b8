// Alignments by PIs and from lines, through the real window.

#include "app/base/open_project.h"
#include "app/bench/pi_table.h"
#include "app/bench/slice_page.h"
#include "core/objects/alignment.h"
#include "core/objects/line.h"
#include "core/objects/profile.h"
#include "core/objects/surface.h"
#include "core/operations/points.h"
#include "core/operations/records.h"
#include "core/operations/routes.h"
#include "core/operations/surfaces.h"
#include "support/after_edit.h"
#include "window_test.h"

namespace erdwerk::app {
namespace {

using objects::Alignment;

class Route : public WindowTest {
protected:
    void SetUp() override {
        WindowTest::SetUp();
        document::Document d;
        std::vector<survey::SurveyPoint> points;
        for (int x = 0; x <= 200; x += 50)
            for (int y = 0; y <= 200; y += 50)
                points.push_back(
                    {std::to_string(points.size() + 1), {double(x), double(y)}, 100 + x / 20.0, "", ""});
        ObjectId set;
        d = test::afterEdit(d, operations::addPoints("Survey", points), &set);
        d = test::afterEdit(d, operations::addSurface("Ground", {{set, objects::Role::Points}}), &ground);
        window->session().project().startNew(d);
        window->settle();
        window->stageBar()->setStage(Stage::Route);
        look({100, 100}, 4);
    }
    [[nodiscard]] ObjectId only() const { return doc().all<Alignment>().back(); }
    [[nodiscard]] const route::AlignmentGeometry& line() const { return *derived().alignments.at(only()); }
    [[nodiscard]] QString said() const { return window->prompt()->text(); }
    PiTable* table() { return window->findChild<PiTable*>(); }
    void draw() {
        run("draw-alignment");
        type(QStringLiteral("20, 90"));
        type(QStringLiteral("radius 30"));
        type(QStringLiteral("100, 90"));
        type(QStringLiteral("az 135 80"));
        key(Qt::Key_Return);
        window->settle();
    }

    ObjectId ground;
};

TEST_F(Route, AnAlignmentIsDrawnByItsPisAndTyped) {
    draw();
    ASSERT_EQ(doc().all<Alignment>().size(), 1U);
    const double tangent = 30 * std::tan(M_PI / 8);
    EXPECT_NEAR(line().length, 160 - 2 * tangent + 30 * M_PI / 4, 1e-9);
    EXPECT_TRUE(line().breaks.empty());
    // The table lists its PIs; a radius, a spiral by its parameter and a distance are typed.
    select(only());
    window->bench()->open(Bench::Page::Tables);
    window->settle();
    auto* pis = table();
    ASSERT_NE(pis, nullptr);
    ASSERT_EQ(pis->rowCount(), 3);
    setCell(pis, 1, 4, QStringLiteral("40"));
    window->settle();
    EXPECT_NEAR(arcOf(line().path[1])->radius, 40, 1e-9);
    setCell(pis, 1, 5, QStringLiteral("A 20"));
    window->settle();
    ASSERT_EQ(line().path.size(), 4U);
    EXPECT_NEAR(lengthOf(line().path[1]), 10, 1e-9);  // A² / R
    setCell(pis, 2, 3, QStringLiteral("100"));
    window->settle();
    const auto& own = *operations::pisOf(doc(), only());
    EXPECT_NEAR(geometry::distance(own[1].place, own[2].place), 100, 1e-9);
    // What cannot be says why and changes nothing.
    const auto steps = window->session().history().position();
    setCell(pis, 1, 4, QStringLiteral("900"));
    window->settle();
    EXPECT_EQ(window->session().history().position(), steps);
    EXPECT_TRUE(said().contains(QStringLiteral("PI 2"))) << qPrintable(said());
    EXPECT_EQ(pis->item(1, 4)->text(), QStringLiteral("40.00"));
}

TEST_F(Route, APiIsDraggedDeletedAndInserted) {
    draw();
    select(only());
    window->bench()->open(Bench::Page::Tables);
    window->settle();
    auto* pis = table();
    ASSERT_NE(pis, nullptr);
    // A PI is dragged: the curves follow while the mouse is down.
    select(only(), 1);
    drag({100, 90}, {100, 110});
    window->session().waitForResults();
    EXPECT_NEAR(line().keyPoints.front().direction.degrees(), 90 - std::atan2(20, 80) * 180 / M_PI, 0.5);
    drop({100, 110});
    window->settle();
    EXPECT_NEAR((*operations::pisOf(doc(), only()))[1].place.y, 110, 0.5);
    run("undo");
    EXPECT_NEAR((*operations::pisOf(doc(), only()))[1].place.y, 90, 1e-9);
    // Delete takes the PI that is selected, not the alignment; a section is cut along it, whatever it is made
    // of.
    select(only(), 1);
    run("delete");
    window->settle();
    ASSERT_EQ(doc().all<Alignment>().size(), 1U);
    EXPECT_EQ(line().path.size(), 1U);
    run("undo");
    window->bench()->open(Bench::Page::Section);
    window->settle();
    auto* section = window->findChild<SlicePage*>();
    EXPECT_TRUE(QTest::qWaitFor([&] { return !section->isWorking() && section->table()->rowCount() > 0; }));
    window->bench()->open(Bench::Page::Tables);
    window->settle();
    // Insert puts one between two, in line with them.
    pis->setCurrentCell(0, 0);
    QTest::keyClick(pis, Qt::Key_Insert);
    window->settle();
    EXPECT_EQ(operations::pisOf(doc(), only())->size(), 4U);
    run("undo");
    // Without its PI it is a straight.
    pis->setCurrentCell(1, 0);
    pis->setFocus();
    QTest::keyClick(pis, Qt::Key_Delete);
    window->settle();
    EXPECT_EQ(line().path.size(), 1U);
}

TEST_F(Route, DrawingCanBeTakenBackAndEndsWithEsc) {
    run("draw-alignment");
    click({30, 60});
    click({100, 60});
    type(QStringLiteral("radius -3"));
    EXPECT_TRUE(said().contains(QStringLiteral("-3"))) << qPrintable(said());
    type(QStringLiteral("radius 500"));
    click({100, 130});
    EXPECT_TRUE(said().contains(QStringLiteral("longer than its tangent"))) << qPrintable(said());
    type(QStringLiteral("radius 20"));
    click({100, 130});
    click({160, 130});
    key(Qt::Key_Backspace);
    key(Qt::Key_Escape);
    window->settle();
    ASSERT_EQ(doc().all<Alignment>().size(), 1U);
    EXPECT_EQ(operations::pisOf(doc(), only())->size(), 3U);
    run("undo");
    EXPECT_TRUE(doc().all<Alignment>().empty());
}

TEST_F(Route, LinesInAnyOrderBecomeOneAlignment) {
    document::Document d = doc();
    ObjectId a, b, c;
    d = d.added("a", objects::Line{linework::lineThrough(test::places("20 50, 80 50"), {}), {}}, &a);
    d = d.added("c", objects::Line{linework::lineThrough(test::places("140 150, 110 80"), {}), {}}, &c);
    d = d.added("b", objects::Line{linework::lineThrough(test::places("80 50, 110 80"), {}), {}}, &b);
    put(QStringLiteral("lines"), d);
    window->session().selection().set({});
    run("alignment-from-lines");
    click({50, 50});
    click({125, 115});
    // Two that do not meet are not chained, and that is said before anything is made.
    key(Qt::Key_Return);
    EXPECT_TRUE(doc().all<Alignment>().empty());
    EXPECT_TRUE(said().contains(QStringLiteral("do not chain"))) << qPrintable(said());
    click({95, 65});
    type(QStringLiteral("hide"));
    key(Qt::Key_Return);
    window->settle();
    ASSERT_EQ(doc().all<Alignment>().size(), 1U);
    EXPECT_EQ(line().path.size(), 3U);
    EXPECT_EQ(line().path.front().start, (geometry::Vec2{20, 50}));
    EXPECT_TRUE(doc().hidden(*doc().find(b)));
    // It stands on its own: without the lines it is the same.
    ASSERT_TRUE(window->session().edit(QStringLiteral("x"),
                                       [&](const document::Document& now) -> Result<document::Edited> {
                                           return document::removeAll(now, {a, b, c});
                                       }));
    window->settle();
    EXPECT_EQ(line().path.size(), 3U);
    // One radius for its bare corners.
    ASSERT_TRUE(window->session().edit(QStringLiteral("round"), operations::roundBareCorners(only(), 15)));
    window->settle();
    EXPECT_EQ(line().path.size(), 5U);
    EXPECT_TRUE(line().breaks.empty());
}

TEST_F(Route, StationsEquationsAndCriteriaInTheFacts) {
    draw();
    select(only());
    ASSERT_TRUE(
        window->session().edit(QStringLiteral("e"), operations::typeEquations(only(), "0+050=0+080")));
    window->settle();
    EXPECT_NEAR(line().endStation(), line().length + 30, 1e-9);
    EXPECT_FALSE(window->session().edit(QStringLiteral("e"), operations::typeEquations(only(), "0+050")));
    run("criteria-lanes");
    window->settle();
    ASSERT_EQ(doc().all<objects::DesignCriteria>().size(), 1U);
    EXPECT_EQ(doc().get<Alignment>(only())->criteria, doc().all<objects::DesignCriteria>().front());
    ASSERT_TRUE(window->session().edit(QStringLiteral("s"), operations::typeSpeeds(only(), "50@0+000")));
    window->settle();
    // 30 is less than what 50 asks for, and there are no spirals.
    const auto kinds = [&] {
        int n = 0;
        for (const auto& f : window->session().snapshot()->findings) n += f.kind == "design" ? 1 : 0;
        return n;
    };
    EXPECT_EQ(kinds(), 3);
    ASSERT_TRUE(window->session().edit(QStringLiteral("s"), operations::typeSpeeds(only(), "")));
    window->settle();
    EXPECT_EQ(kinds(), 0);
    EXPECT_FALSE(window->session().edit(QStringLiteral("s"), operations::typeSpeeds(only(), "fast@0+000")));
}

TEST_F(Route, AnAlignmentLeavesItsLineAndBecomesOne) {
    document::Document d = doc();
    ObjectId wall;
    d = d.added("wall", objects::Line{linework::lineThrough(test::places("20 50, 80 50, 120 90"), {}), {}},
                &wall);
    put(QStringLiteral("line"), d);
    select(wall);
    run("alignment");
    click({50, 50});
    window->settle();
    ASSERT_EQ(doc().all<Alignment>().size(), 1U);
    EXPECT_EQ(doc().get<Alignment>(only())->line, wall);
    EXPECT_FALSE(window->session().edit(QStringLiteral("x"), operations::movePi(only(), 1, {90, 60})));
    ASSERT_TRUE(window->session().edit(QStringLiteral("own"),
                                       operations::ownElements(window->session().results(), only())));
    window->settle();
    EXPECT_FALSE(doc().get<Alignment>(only())->line);
    ASSERT_TRUE(window->session().edit(QStringLiteral("x"), operations::movePi(only(), 1, {90, 60})));
    window->settle();
    const auto lines = doc().all<objects::Line>().size();
    ASSERT_TRUE(window->session().edit(QStringLiteral("line"),
                                       operations::lineOfAlignment(window->session().results(), only())));
    EXPECT_EQ(doc().all<objects::Line>().size(), lines + 1);
}

TEST_F(Route, AVerticalCurveKeepsItsK) {
    draw();
    ASSERT_TRUE(window->session().edit(QStringLiteral("p"), operations::newProfile(only(), ground)));
    const ObjectId profile = doc().all<objects::Profile>().front();
    ASSERT_TRUE(window->session().edit(
        QStringLiteral("d"), [&](const document::Document& now) -> Result<document::Edited> {
            return document::changed<objects::Profile>(now, profile, [](objects::Profile& p) {
                p.design = {{0, 100, 0}, {60, 103, 0}, {130, 101.6, 0}};
            });
        }));
    using operations::PviFigure;
    ASSERT_TRUE(window->session().edit(QStringLiteral("k"),
                                       operations::typePvi(profile, 1, PviFigure::CurveLength, "K5")));
    const auto design = [&] { return doc().get<objects::Profile>(profile)->design; };
    EXPECT_NEAR(design()[1].curveLength, 5 * 7, 1e-9);  // +5 % to -2 %
    ASSERT_TRUE(window->session().edit(QStringLiteral("h"), operations::movePvi(profile, 1, 60, 102.4)));
    EXPECT_NEAR(design()[1].curveLength, 5 * (4 + 0.8 / 0.7), 1e-6);
    EXPECT_FALSE(window->session().edit(QStringLiteral("k"),
                                        operations::typePvi(profile, 1, PviFigure::CurveLength, "K90")));
    EXPECT_FALSE(window->session().edit(QStringLiteral("k"),
                                        operations::typePvi(profile, 0, PviFigure::CurveLength, "5")));
}

}  // namespace
}  // namespace erdwerk::app
