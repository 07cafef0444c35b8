// The Shape stage's heights and lines from lines, through the real window.

#include "app/base/open_project.h"
#include "app/bench/grades_bar.h"
#include "app/tools/give_heights.h"
#include "core/derive/model.h"
#include "core/objects/group.h"
#include "core/operations/points.h"
#include "core/operations/surfaces.h"
#include "support/after_edit.h"
#include "support/plane_site.h"
#include "window_test.h"

namespace erdwerk::app {
namespace {

using test::valueOf;

/// The plane site in a window: the lane 10 10, 40 10, 40 50 with 10.3, between, 12; "Kerb" along y = 5 from 0
/// to 60, flat; a view of all of it.
class Shape : public WindowTest {
protected:
    void SetUp() override {
        WindowTest::SetUp();
        site.document = site.document.added(
            "Kerb", objects::Line{linework::lineThrough(test::places("0 5, 30 5, 60 5"), {}), {}}, &kerb);
        window->session().project().startNew(site.document);
        window->settle();
        window->stageBar()->setStage(Stage::Shape);
        look({35, 30}, 6);
    }
    [[nodiscard]] const linework::Line3D& line(ObjectId id) const {
        return doc().get<objects::Line>(id)->line;
    }
    [[nodiscard]] std::string rule(ObjectId id, std::size_t i) const {
        return operations::controlText(doc(), line(id).vertices[i]);
    }
    [[nodiscard]] double height(ObjectId id, std::size_t i) const {
        return derived().lines.at(id)->vertices[i].height.value_or(-1);
    }
    [[nodiscard]] QString said() const { return window->prompt()->text(); }

    test::PlaneSite site;
    ObjectId kerb;
};

TEST_F(Shape, HeightsAtHandGoFromPointToPoint) {
    select(kerb);
    run("heights-at-hand");
    type(QStringLiteral("20"));
    type(QStringLiteral("2%"));
    EXPECT_EQ(window->session().selection().front().part, std::size_t{2});
    type(QStringLiteral("-3:1"));
    EXPECT_EQ(rule(kerb, 0), "20");
    EXPECT_EQ(rule(kerb, 1), "2%");
    EXPECT_NEAR(height(kerb, 2), 20.6 - 10, 1e-9);
    // A wrong one in the middle is mended without starting over; nonsense is said and changes nothing.
    click({30, 5});
    type(QStringLiteral("1 in"));
    EXPECT_TRUE(said().contains(QStringLiteral("1 in"))) << qPrintable(said());
    EXPECT_EQ(rule(kerb, 1), "2%");
    type(QStringLiteral("3% curve 10"));
    EXPECT_EQ(rule(kerb, 1), "3% curve 10");
    EXPECT_EQ(derived().lines.at(kerb)->curves.size(), 1U);
    // Enter alone goes on, Backspace back.
    key(Qt::Key_Backspace);
    EXPECT_EQ(window->session().selection().front().part, std::size_t{1});
    key(Qt::Key_Return);
    EXPECT_EQ(window->session().selection().front().part, std::size_t{2});
}

TEST_F(Shape, ALineIsLiftedAndMatchedAndCanBeTakenBack) {
    select(site.lane);
    run("line-lift");
    type(QStringLiteral("0.5"));
    EXPECT_NEAR(height(site.lane, 0), 10.8, 1e-9);
    EXPECT_NEAR(height(site.lane, 2), 12.5, 1e-9);
    key(Qt::Key_Escape);
    run("undo");
    EXPECT_NEAR(height(site.lane, 0), 10.3, 1e-9);
    select(kerb);
    run("line-match");
    click({25, 10});
    type(QStringLiteral("-2%"));
    EXPECT_EQ(rule(kerb, 1), "=Lane-2%");
    // At 30 5 the lane is 5 away, at 20 of its 70: 10.3 + 1.7 * 2 / 7.
    EXPECT_NEAR(height(kerb, 1), 10.3 + 1.7 * 2 / 7 - 0.1, 1e-9);
    // And follows.
    key(Qt::Key_Escape);
    select(site.lane);
    run("line-lift");
    type(QStringLiteral("1"));
    EXPECT_NEAR(height(kerb, 1), 11.3 + 1.7 * 2 / 7 - 0.1, 1e-9);
}

TEST_F(Shape, DrapingTakesAnAmountAndKeepsWhatIsFixedByHand) {
    put(QStringLiteral("fixed"), valueOf(operations::setTypedRule(kerb, 1, "25")(doc())).document);
    select(kerb);
    run("drape");
    type(QStringLiteral("amount 0.2"));
    type(QStringLiteral("corners"));
    type(QStringLiteral("keep"));
    type(QStringLiteral("deeper"));
    EXPECT_TRUE(said().contains(QStringLiteral("amount"))) << qPrintable(said());
    key(Qt::Key_Return);
    EXPECT_EQ(rule(kerb, 0), "=Ground+0.2");
    EXPECT_EQ(rule(kerb, 1), "25");
    EXPECT_EQ(rule(kerb, 2), "=Ground+0.2");
    // As values they do not follow, and may go back into the surface.
    type(QStringLiteral("values"));
    type(QStringLiteral("keep"));
    key(Qt::Key_Return);
    EXPECT_EQ(rule(kerb, 1), formatExact(height(kerb, 1)));
    EXPECT_NEAR(height(kerb, 1), test::PlaneSite::height(30, 5) + 0.2, 1e-9);
}

TEST_F(Shape, RowsAreTypedShownAndMade) {
    select(site.lane);
    run("offset-rows");
    type(QStringLiteral("0.5,-2%"));
    type(QStringLiteral("word"));
    EXPECT_TRUE(said().contains(QStringLiteral("word")));
    type(QStringLiteral("9,9"));  // no sign: refused
    type(QStringLiteral("3,3:1"));
    type(QStringLiteral("20"));
    key(Qt::Key_Backspace);
    click({20, 20});  // left of the lane
    key(Qt::Key_Return);
    const auto group = doc().byName<objects::Group>("Rows of Lane");
    ASSERT_TRUE(group);
    const ObjectId first = named<objects::Line>("Lane row 1");
    const ObjectId second = named<objects::Line>("Lane row 2");
    EXPECT_EQ(doc().find(first)->group, group);
    EXPECT_THAT(line(first).vertices[0].place, test::IsNear(10, 10.5, 1e-9));
    EXPECT_NEAR(height(first, 0), 10.3 - 0.01, 1e-9);
    EXPECT_THAT(line(second).vertices[1].place, test::IsNear(37, 13, 1e-9));
    EXPECT_EQ(doc().all<objects::Line>().size(), 5U);
    run("undo");
    EXPECT_EQ(doc().all<objects::Line>().size(), 3U);
}

TEST_F(Shape, TwoSlopesMeetInADitchBottom) {
    put(QStringLiteral("heights"),
        valueOf(operations::setTypedRules({{kerb, 0}, {kerb, 1}, {kerb, 2}}, "10.3")(doc())).document);
    put(QStringLiteral("level"), valueOf(operations::setTypedRule(site.lane, 2, "10.3")(doc())).document);
    select(kerb);
    run("lines-meet");
    click({25, 10});
    type(QStringLiteral("sideways"));
    EXPECT_EQ(doc().all<objects::Line>().size(), 3U);
    run("lines-meet");
    click({25, 10});
    type(QStringLiteral("-2:1"));
    ASSERT_EQ(doc().all<objects::Line>().size(), 4U);
    const ObjectId bottom = named<objects::Line>("Meeting 1");
    EXPECT_THAT(line(bottom).vertices[0].place, test::IsNear(10, 7.5, 1e-9));
    EXPECT_NEAR(height(bottom, 0), 10.3 - 1.25, 1e-9);
}

TEST_F(Shape, FreezeAndFreeByKey) {
    put(QStringLiteral("rules"),
        valueOf(operations::setTypedRules({{kerb, 0}, {kerb, 2}}, "=Ground+0.5")(doc())).document);
    select(kerb);
    key(Qt::Key_Z);
    EXPECT_EQ(rule(kerb, 0), "10.55");
    EXPECT_EQ(rule(kerb, 2), formatExact(height(kerb, 2)));
    select(kerb, 2);
    key(Qt::Key_F);
    EXPECT_EQ(rule(kerb, 2), "none");
    EXPECT_EQ(rule(kerb, 0), "10.55");
}

// ---- the Grades page

TEST_F(Shape, SeveralRowsGetARuleAtOnce) {
    select(kerb);
    auto* table = window->grades()->table();
    auto* bar = window->grades()->bar();
    EXPECT_FALSE(bar->isVisibleTo(window->grades()));
    table->setCurrentCell(0, 2);
    table->setRangeSelected(QTableWidgetSelectionRange(0, 2, 2, 2), true);
    EXPECT_TRUE(bar->isVisibleTo(window->grades()));
    bar->entry()->setText(QStringLiteral("=Ground"));
    QTest::keyClick(bar->entry(), Qt::Key_Return);
    window->settle();
    for (std::size_t i = 0; i < 3; ++i) EXPECT_EQ(rule(kerb, i), "=Ground");
    bar->entry()->setText(QStringLiteral("lift 0.2"));
    QTest::keyClick(bar->entry(), Qt::Key_Return);
    window->settle();
    for (std::size_t i = 0; i < 3; ++i) EXPECT_EQ(rule(kerb, i), "=Ground+0.2");
    bar->findChild<QPushButton*>(QStringLiteral("oneGrade"))->click();
    window->settle();
    EXPECT_EQ(rule(kerb, 1), "interpolated");
    bar->findChild<QPushButton*>(QStringLiteral("freeze"))->click();
    window->settle();
    EXPECT_EQ(rule(kerb, 0), formatExact(height(kerb, 0)));
    bar->entry()->setText(QStringLiteral("lift much"));
    QTest::keyClick(bar->entry(), Qt::Key_Return);
    EXPECT_EQ(bar->entry()->text(), QStringLiteral("lift much"));  // to be mended
}

TEST_F(Shape, RunsCurvesAndPlacesAreTypedInTheTable) {
    put(QStringLiteral("heights"),
        valueOf(operations::setTypedRules({{kerb, 0}, {kerb, 2}}, "10")(doc())).document);
    put(QStringLiteral("grade point"),
        valueOf(operations::insertGradePoint({kerb, {}, 0, 0.5})(doc())).document);
    select(kerb);
    auto* table = window->grades()->table();
    const auto column = [&](const char* name) {
        for (int c = 0; c < table->columnCount(); ++c)
            if (table->horizontalHeaderItem(c)->text() == QString::fromLatin1(name)) return c;
        return -1;
    };
    setCell(table, 1, column("Rule"), QStringLiteral("11 curve 8"));
    EXPECT_EQ(rule(kerb, 1), "11 curve 8");
    EXPECT_EQ(table->item(1, column("Curve"))->text(), QStringLiteral("8.00"));
    setCell(table, 1, column("Height"), QStringLiteral("12"));
    EXPECT_EQ(rule(kerb, 1), "12 curve 8");  // a height keeps the curve
    setCell(table, 1, column("K"), QStringLiteral("0.5"));
    EXPECT_EQ(rule(kerb, 1), "12 curve K0.5");
    setCell(table, 0, column("Run"), QStringLiteral("20"));
    EXPECT_NEAR(derived().lines.at(kerb)->vertices[1].distance, 20, 1e-9);
    setCell(table, 0, column("E"), QStringLiteral("1.5"));
    EXPECT_THAT(line(kerb).vertices[0].place, test::IsNear(1.5, 5, 1e-9));
    setCell(table, 1, column("Curve"), QStringLiteral("none"));
    EXPECT_EQ(rule(kerb, 1), "12");
    EXPECT_TRUE(table->isColumnHidden(column("K")));
}

TEST_F(Shape, APointThatIsSolvedStandsInItsPlaceInTheTable) {
    put(QStringLiteral("heights"),
        valueOf(operations::setTypedRules({{kerb, 0}, {kerb, 2}}, "10")(doc())).document);
    put(QStringLiteral("between"), valueOf(operations::setTypedRule(kerb, 1, "~")(doc())).document);
    put(QStringLiteral("grade point"),
        valueOf(operations::insertGradePoint({kerb, {}, 0, 0.5})(doc())).document);
    put(QStringLiteral("meet"), valueOf(operations::setTypedRule(kerb, 1, "meet 1% -2%")(doc())).document);
    select(kerb);
    auto* table = window->grades()->table();
    EXPECT_EQ(table->item(1, 0)->text(), QStringLiteral("corner 3"));
    EXPECT_EQ(table->item(2, 0)->text(), QStringLiteral("grade point"));
    EXPECT_EQ(table->item(2, 1)->text(), QStringLiteral("0+040.00"));
    EXPECT_EQ(table->item(2, 3)->text(), QStringLiteral("meet 1% -2%"));
    // Typed in the row, it goes to the point of the row.
    setCell(table, 2, 3, QStringLiteral("meet 2% -4%"));
    EXPECT_EQ(rule(kerb, 1), "meet 2% -4%");
}

// ---- heights for flat lines

TEST_F(Shape, FlatLinesGetTheirHeightsAfterAPreview) {
    auto d = test::afterEdit(doc(), operations::addPoints("texts", {{"a", {30, 9}, {}, "", "10,75"},
                                                                    {"b", {55, 9}, {}, "", "island"}}));
    d = d.added("leader 1", objects::Line{linework::lineThrough(test::places("30 9, 30 5"), {}), {}});
    d = d.added("leader 2", objects::Line{linework::lineThrough(test::places("55 9, 55 5"), {}), {}});
    d = d.added("Side", objects::Line{linework::lineThrough(test::places("0 0, 0 5"), {9.0, 10.0}), {}});
    window->session().project().startNew(d);
    window->settle();
    run("give-heights");
    auto* tool = dynamic_cast<GiveHeightsTool*>(window->tool());
    ASSERT_NE(tool, nullptr);
    // Who takes part is asked; no line gives its height just because it is there.
    EXPECT_TRUE(tool->prompt().contains(QStringLiteral("are to get heights"))) << qPrintable(tool->prompt());
    key(Qt::Key_Return);
    EXPECT_TRUE(said().contains(QStringLiteral("first"))) << qPrintable(said());
    type(QStringLiteral("for all"));
    EXPECT_EQ(tool->found().given.size(), 1U);
    type(QStringLiteral("from nobody"));
    EXPECT_TRUE(said().contains(QStringLiteral("nobody"))) << qPrintable(said());
    type(QStringLiteral("from Side"));
    EXPECT_EQ(tool->found().given.size(), 2U);
    EXPECT_TRUE(tool->stepBack());
    EXPECT_EQ(tool->found().given.size(), 1U);
    type(QStringLiteral("from all"));
    EXPECT_EQ(tool->found().given.size(), 2U);
    ASSERT_EQ(tool->found().unused.size(), 1U);
    EXPECT_EQ(tool->found().unused[0].text, "island");
    EXPECT_EQ(window->session().history().position(), 0U);  // nothing yet
    type(QStringLiteral("tolerance none"));
    EXPECT_TRUE(said().contains(QStringLiteral("tolerance"))) << qPrintable(said());
    type(QStringLiteral("otherwise 11"));
    EXPECT_TRUE(tool->found().missed.empty());
    type(QStringLiteral("otherwise nothing"));
    key(Qt::Key_Return);
    EXPECT_NEAR(height(kerb, 0), 10, 1e-9);
    EXPECT_NEAR(height(kerb, 1), 10.75, 1e-9);
    EXPECT_FALSE(derived().lines.at(kerb)->vertices[2].height);
    // What got none is a finding.
    bool told = false;
    for (const auto& f : window->session().snapshot()->findings)
        told = told || (f.kind == "without-height" && f.names.front() == "Kerb");
    EXPECT_TRUE(told);
    run("undo");
    EXPECT_EQ(rule(kerb, 1), "none");
}

}  // namespace
}  // namespace erdwerk::app
