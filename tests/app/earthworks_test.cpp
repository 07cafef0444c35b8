// Batters, pads and ponds through the real window.

#include "core/operations/earthworks.h"
#include "app/base/open_project.h"
#include "app/kinds/balance_curve.h"
#include "app/tools/earthwork_tool.h"
#include "core/geometry/element.h"
#include "core/linework/line3d.h"
#include "core/objects/line.h"
#include "core/objects/surface.h"
#include "core/operations/points.h"
#include "core/operations/shape.h"
#include "core/operations/surfaces.h"
#include "support/after_edit.h"
#include "window_test.h"

namespace erdwerk::app {
namespace {

using objects::Earthwork;

/// Ground that rises 1 in 10 to the east from 100, and a closed edge of 20 x 20 at 110 about (100, 100),
/// where the ground is at 110 too.
class Earthworks : public WindowTest {
protected:
    void SetUp() override {
        WindowTest::SetUp();
        document::Document d;
        std::vector<survey::SurveyPoint> points;
        for (int x = 0; x <= 200; x += 25)
            for (int y = 0; y <= 200; y += 25)
                points.push_back(
                    {std::to_string(points.size() + 1), {double(x), double(y)}, 100 + x / 10.0, "", ""});
        ObjectId set;
        d = test::afterEdit(d, operations::addPoints("Survey", points), &set);
        d = test::afterEdit(d, operations::addSurface("Ground", {{set, objects::Role::Points}}), &ground);
        objects::Line line{
            linework::lineThrough(test::places("90 90, 110 90, 110 110, 90 110"), {110.0}, true), {}};
        for (std::size_t i = 1; i < 4; ++i) line.line.vertices[i].rule = linework::RiseFromPrevious{0};
        d = d.added("Terrace", line, &edge);
        window->session().project().startNew(d);
        window->settle();
        window->stageBar()->setStage(Stage::Shape);
        look({100, 100}, 5);
    }
    [[nodiscard]] const derive::EarthworkResult& made(ObjectId id) const {
        return *derived().earthworks.at(id);
    }
    [[nodiscard]] ObjectId only() const { return doc().all<Earthwork>().back(); }
    [[nodiscard]] QString said() const { return window->prompt()->text(); }
    [[nodiscard]] const terrain::TinLocator* finished() const {
        return derived().surface(operations::finishedOf(doc(), ground));
    }
    /// A row of the facts, by its label.
    ObjectId ground, edge;
};

TEST_F(Earthworks, ATerraceIsMadeChangedBalancedAndDragged) {
    select(edge);
    run("pad");
    auto* tool = dynamic_cast<EarthworkTool*>(window->tool());
    ASSERT_NE(tool, nullptr);
    type(QStringLiteral("cut 0:1"));
    EXPECT_TRUE(said().contains(QStringLiteral("cut")) || said().contains(QStringLiteral("0:1")))
        << qPrintable(said());
    type(QStringLiteral("nonsense"));
    EXPECT_TRUE(said().contains(QStringLiteral("none of what can be typed"))) << qPrintable(said());
    type(QStringLiteral("1.5:1"));
    type(QStringLiteral("swell 1.2"));
    ASSERT_TRUE(tool->preview());
    EXPECT_GT(tool->preview()->volumes.cut, 50);
    EXPECT_TRUE(doc().all<Earthwork>().empty());  // nothing yet
    key(Qt::Key_Return);
    window->settle();
    ASSERT_EQ(doc().all<Earthwork>().size(), 1U);
    const ObjectId pad = only();
    EXPECT_NEAR(made(pad).volumes.cut, made(pad).volumes.fill, 1e-6);
    EXPECT_NEAR(*finished()->heightAt({100, 100}), 110, 1e-9);
    // One edit takes both slopes to 3:1.
    const auto steps = window->session().history().position();
    ASSERT_TRUE(window->session().edit(QStringLiteral("slopes"),
                                       operations::setTypedSlope(pad, operations::SlopeOf::Both, "3:1")));
    window->settle();
    EXPECT_EQ(window->session().history().position(), steps + 1);
    const double wide = made(pad).volumes.area;
    run("undo");
    EXPECT_LT(made(pad).volumes.area, wide);
    run("redo");
    // Balanced with its swell: the pad rises, its rules stay.
    select(pad);
    for (auto* button : window->findChildren<QPushButton*>())
        if (button->text() == QStringLiteral("Balance")) {
            button->click();
            break;
        }
    QCoreApplication::processEvents();
    window->settle();
    EXPECT_NEAR(made(pad).net, 0, 1e-6);
    EXPECT_GT(*made(pad).height, 110.01) << qPrintable(said());
    // Dragging a corner moves the slopes and what they take while the mouse is down.
    const double before = made(pad).volumes.area;
    select(edge);
    drag({110, 90}, {118, 86});
    window->session().waitForResults();
    EXPECT_GT(made(pad).volumes.area, before + 50);
    drop({118, 86});
    window->settle();
    EXPECT_NEAR(*finished()->heightAt({112, 95}), *made(pad).height, 1e-6);
    // All of it can be taken back.
    for (int i = 0; i < 20 && window->session().history().position() > 0; ++i) run("undo");
    EXPECT_TRUE(doc().all<Earthwork>().empty());
    EXPECT_EQ(doc().all<objects::Surface>().size(), 1U);
}

TEST_F(Earthworks, ABatterFollowsTheSideThatIsClicked) {
    select(edge);
    run("batter");
    click({100, 80});
    type(QStringLiteral("2:1"));
    type(QStringLiteral("berm +2,1"));
    type(QStringLiteral("rise 4"));
    type(QStringLiteral("from 0 to 20"));
    type(QStringLiteral("save Bank"));
    key(Qt::Key_Return);
    window->settle();
    ASSERT_EQ(doc().all<Earthwork>().size(), 1U);
    const auto& batter = *doc().get<Earthwork>(only());
    EXPECT_TRUE(batter.right);
    // 4 up at 2:1 and a step of 1.
    EXPECT_NEAR(made(only()).batter.planArea, 20 * 9, 1e-6);
    EXPECT_TRUE(doc().byName<objects::BatterKind>("Bank"));
    // Backspace takes back setting by setting; Esc makes nothing.
    run("batter");
    type(QStringLiteral("kind Bank"));
    type(QStringLiteral("round"));
    key(Qt::Key_Backspace);
    auto* tool = dynamic_cast<EarthworkTool*>(window->tool());
    ASSERT_NE(tool, nullptr);
    for (const auto& chip : tool->chips()) EXPECT_NE(chip.role, QStringLiteral("Corners"));
    key(Qt::Key_Escape);
    EXPECT_EQ(doc().all<Earthwork>().size(), 1U);
}

TEST_F(Earthworks, ABatterToADistanceRisesWhenItsCutIsTyped) {
    select(edge);
    run("batter");
    click({100, 80});
    type(QStringLiteral("distance 4"));
    type(QStringLiteral("cut 1:1"));
    auto* tool = dynamic_cast<EarthworkTool*>(window->tool());
    ASSERT_NE(tool, nullptr);
    ASSERT_TRUE(tool->preview());
    EXPECT_EQ(tool->preview()->problem, "");
    key(Qt::Key_Return);
    ASSERT_EQ(doc().all<Earthwork>().size(), 1U) << qPrintable(said());
    const ObjectId batter = only();
    const double height = *made(batter).height;
    EXPECT_NEAR(*made(batter).faces->heightAt({100, 87}), height + 3, 1e-9);
    // In the facts the slope that is not there may be emptied, the other one may be typed instead.
    select(batter);
    const auto give = [&](const QString& fact, const QString& text) {
        auto* field = window->facts()->findChild<QLineEdit*>(QStringLiteral("fact:") + fact);
        ASSERT_NE(field, nullptr);
        field->setFocus();
        field->selectAll();
        QTest::keyClick(field, Qt::Key_Delete);
        QTest::keyClicks(field, text);
        QTest::keyClick(field, Qt::Key_Return);
        window->settle();
    };
    give(QStringLiteral("Cut"), QString());
    EXPECT_TRUE(said().contains(QStringLiteral("rises"))) << qPrintable(said());
    EXPECT_EQ(doc().get<Earthwork>(batter)->form.cut, "1:1");
    give(QStringLiteral("Fill"), QStringLiteral("2:1"));
    EXPECT_EQ(doc().get<Earthwork>(batter)->form.cut, "");
    EXPECT_NEAR(*made(batter).faces->heightAt({100, 87}), height - 1.5, 1e-9);
    run("undo");
    EXPECT_EQ(doc().get<Earthwork>(batter)->form.cut, "1:1");
}

TEST_F(Earthworks, APondSaysWhatItHolds) {
    select(edge);
    ASSERT_TRUE(window->session().edit(
        QStringLiteral("deeper"), operations::lift(window->session().results(), {{edge, std::nullopt}}, -6)));
    window->settle();
    run("pond");
    type(QStringLiteral("1:1"));
    key(Qt::Key_Return);
    window->settle();
    const ObjectId pond = only();
    ASSERT_TRUE(made(pond).storage);
    EXPECT_GT(made(pond).storage->spill, 104.5);
    select(pond);
    bool told = false;
    for (auto* label : window->findChildren<QLabel*>())
        told = told || label->text() == QStringLiteral("Spills at");
    EXPECT_TRUE(told);
    // The curve comes from the background.
    auto* curve = window->findChild<BalanceCurve*>();
    ASSERT_NE(curve, nullptr);
    EXPECT_TRUE(QTest::qWaitFor([&] { return curve->curve().size() > 5; }, 5000));
}

TEST_F(Earthworks, AnOpenLineIsNoPadAndDeletingTheEdgeSaysWhatGoes) {
    ASSERT_TRUE(window->session().edit(
        QStringLiteral("line"),
        operations::drawLine(linework::lineThrough(test::places("20 20, 60 20"), {101, 104}))));
    window->settle();
    select(doc().all<objects::Line>().back());
    run("pad");
    auto* tool = dynamic_cast<EarthworkTool*>(window->tool());
    ASSERT_NE(tool, nullptr);
    EXPECT_TRUE(tool->prompt().contains(QStringLiteral("closed line"))) << qPrintable(tool->prompt());
    key(Qt::Key_Return);
    EXPECT_TRUE(doc().all<Earthwork>().empty());
    click({100, 90});
    key(Qt::Key_Return);
    window->settle();
    ASSERT_EQ(doc().all<Earthwork>().size(), 1U);
    select(edge);
    run("delete");
    window->settle();
    EXPECT_TRUE(doc().all<Earthwork>().empty());
    run("undo");
    window->settle();
    EXPECT_EQ(doc().all<Earthwork>().size(), 1U);
    EXPECT_TRUE(made(only()).surface);
}

TEST_F(Earthworks, HeightsToGiveAreATable) {
    ASSERT_TRUE(window->session().edit(QStringLiteral("line"), operations::drawLine(linework::lineThrough(
                                                                   test::places("90 100, 130 100"), {}))));
    window->settle();
    window->bench()->open(Bench::Page::History);
    run("give-heights");
    type(QStringLiteral("for all"));
    type(QStringLiteral("from all"));
    auto* table = window->findChild<QTableWidget*>(QStringLiteral("toolTable"));
    ASSERT_NE(table, nullptr);
    EXPECT_EQ(window->bench()->page(), Bench::Page::Tables);
    ASSERT_GE(table->rowCount(), 2);
    EXPECT_EQ(table->columnCount(), 5);
    bool given = false;
    for (int r = 0; r < table->rowCount(); ++r)
        given = given || table->item(r, 3)->text().contains(QStringLiteral("Terrace"));
    EXPECT_TRUE(given);
    key(Qt::Key_Escape);
    EXPECT_EQ(table->rowCount(), 0);
    EXPECT_EQ(window->bench()->page(), Bench::Page::History);
}

TEST_F(Earthworks, ASmoothSideFollowsItsCorners) {
    ObjectId line;
    ASSERT_TRUE(window->session().edit(QStringLiteral("line"),
                                       operations::drawLine(linework::lineThrough(
                                           test::places("60 60, 80 60, 100 70, 120 60"), {1, 1, 1, 1}))));
    line = doc().all<objects::Line>().back();
    window->settle();
    run("bend");
    click({90, 65});
    type(QStringLiteral("smooth"));
    window->settle();
    key(Qt::Key_Escape);
    const auto corners = [&] { return doc().get<objects::Line>(line)->line; };
    ASSERT_EQ(corners().vertices.size(), 5U);
    EXPECT_TRUE(corners().vertices[2].joint);
    const auto was = corners().vertices[2].place;
    select(line);
    drag({100, 70}, {100, 76});
    drop({100, 76});
    window->settle();
    EXPECT_NE(corners().vertices[2].place.y, was.y);
    const auto path = planPath(corners());
    const auto in = geometry::directionOf(tangentAt(path[1], 1));
    const auto out = geometry::directionOf(tangentAt(path[2], 0));
    EXPECT_NEAR(geometry::cross(in, out), 0, 1e-7);
}

}  // namespace
}  // namespace erdwerk::app
