// Rows beside lines, and heights of stretches, through the real window.

#include "app/base/open_project.h"
#include "app/kinds/row_section.h"
#include "core/objects/group.h"
#include "core/objects/offset_set.h"
#include "core/operations/surfaces.h"
#include "plan_shape_site.h"

namespace erdwerk::app {
namespace {

using test::valueOf;

class Rows : public PlanShape {};

TEST_F(Rows, RowsFollowWhileTheirLineIsDragged) {
    select(edge);
    run("offset-rows");
    type(QStringLiteral("2,+0.15"));
    type(QStringLiteral("left"));
    key(Qt::Key_Return);
    const ObjectId row = doc().byName<objects::Line>("Edge row 1");
    ASSERT_TRUE(row);
    select(edge);
    drag({60, 5}, {60, 20});
    window->session().waitForResults();
    const auto on = geometry::nearestOn(resolved(edge).path, resolved(row).vertices.back().place);
    EXPECT_NEAR(std::abs(on->distance), 2, 1e-6);
    drop({60, 20});
    EXPECT_NEAR(*resolved(row).vertices.back().height, 23.15, 1e-9);
    // It cannot be dragged itself, and says why; loosened it can.
    select(row);
    const auto end = resolved(row).vertices.back().place;
    drag(end, {50, 40});
    drop({50, 40});
    EXPECT_THAT(resolved(row).vertices.back().place, test::IsNear(end.x, end.y, 1e-9));
    EXPECT_TRUE(said().contains(QStringLiteral("follows"))) << qPrintable(said());
    for (auto* button : window->findChildren<QPushButton*>())
        if (button->text() == QStringLiteral("Loosen")) {
            button->click();
            break;
        }
    window->settle();
    EXPECT_FALSE(doc().get<objects::Line>(row)->follows);
    EXPECT_NEAR(*resolved(row).vertices.back().height, 23.15, 1e-9);
    run("undo");
    ASSERT_TRUE(doc().get<objects::Line>(row)->follows);
    select(row);
    run("loosen");
    EXPECT_FALSE(doc().get<objects::Line>(row)->follows);
}

TEST_F(Rows, RowsAreKeptByNameAndTakenAgain) {
    select(edge);
    run("offset-rows");
    type(QStringLiteral("0.3,-2%"));
    type(QStringLiteral("0,+0.12"));
    type(QStringLiteral("chained"));
    type(QStringLiteral("save Kerb"));
    key(Qt::Key_Escape);
    const ObjectId set = named<objects::OffsetSet>("Kerb");
    // The cross-section in its facts: the second row is dragged up by a third of what it stands over the
    // first.
    select(set);
    auto* section = window->findChild<RowSection*>();
    ASSERT_NE(section, nullptr);
    const QPointF from = section->positionOf(2);
    const QPointF to = from + (from - section->positionOf(1)) * (1.0 / 3);
    QTest::mousePress(section, Qt::LeftButton, {}, from.toPoint());
    QMouseEvent move(QEvent::MouseMove, to, section->mapToGlobal(to), Qt::NoButton, Qt::LeftButton,
                     Qt::NoModifier);
    QApplication::sendEvent(section, &move);
    QTest::mouseRelease(section, Qt::LeftButton, {}, to.toPoint());
    QCoreApplication::processEvents();
    window->settle();
    const auto& row = doc().get<objects::OffsetSet>(set)->rows[1];
    EXPECT_NEAR(row.height.value, 0.16, 0.011);
    EXPECT_LE(row.run, 0.01);
    // Used on another line.
    select(site.lane);
    run("offset-rows");
    type(QStringLiteral("set Ditch"));
    EXPECT_TRUE(said().contains(QStringLiteral("no offset set named Ditch"))) << qPrintable(said());
    type(QStringLiteral("set Kerb"));
    key(Qt::Key_Return);
    const ObjectId second = named<objects::Line>("Lane row 2");
    const auto& follows = std::get<objects::RowOf>(*doc().get<objects::Line>(second)->follows);
    EXPECT_EQ(follows.line, named<objects::Line>("Lane row 1"));
    EXPECT_EQ(follows.row, row);
}

TEST_F(Rows, GradesBeyondWhatIsMeantAreFindings) {
    put(QStringLiteral("meant"), valueOf(operations::setTypedLimits(edge, "0.5% to 4%")(doc())).document);
    const auto found = [&] {
        const auto all = window->session().snapshot()->findings;
        return std::count_if(all.begin(), all.end(), [](const auto& f) { return f.kind == "grade-limit"; });
    };
    window->settle();
    EXPECT_EQ(found(), 1);  // 20 to 23 over 60: 5 %
    select(edge);
    window->bench()->open(Bench::Page::Grades);
    run("line-lift");
    EXPECT_EQ(found(), 1);
    key(Qt::Key_Escape);
    put(QStringLiteral("flatter"), valueOf(operations::setTypedRule(edge, 1, "2%")(doc())).document);
    window->settle();
    EXPECT_EQ(found(), 0);
    EXPECT_FALSE(operations::setTypedLimits(edge, "steep")(doc()));
}

TEST_F(Rows, ALineIsLiftedToAHeightAndMadeLevelOnAStretch) {
    select(edge, 1);
    run("line-lift");
    type(QStringLiteral("to 30"));
    EXPECT_NEAR(*resolved(edge).vertices[0].height, 27, 1e-9);
    EXPECT_NEAR(*resolved(edge).vertices[1].height, 30, 1e-9);
    key(Qt::Key_Escape);
    select(edge);
    run("level-with");
    type(QStringLiteral("20"));
    type(QStringLiteral("40"));
    EXPECT_TRUE(said().contains(QStringLiteral("Level at"))) << qPrintable(said());
    type(QStringLiteral("25.5"));
    for (const double d : {20.0, 30.0, 40.0}) EXPECT_NEAR(*linework::heightAt(resolved(edge), d), 25.5, 1e-9);
    EXPECT_NEAR(*linework::heightAt(resolved(edge), 60), 30, 1e-9);
    // Draped between two places: 10 + 0.02 x + 0.01 y.
    select(edge);
    run("drape");
    type(QStringLiteral("from 20 to 40"));
    key(Qt::Key_Return);
    EXPECT_NEAR(*linework::heightAt(resolved(edge), 30), 10.65, 1e-6);
    EXPECT_NEAR(*linework::heightAt(resolved(edge), 60), 30, 1e-9);
    EXPECT_EQ(rule(edge, line(edge).vertices.size() - 1), "30");
}

TEST_F(Rows, InTheSectionAStretchIsDraggedAndACurvePulledOut) {
    select(edge);
    run("corner-insert");
    type(QStringLiteral("30"));
    key(Qt::Key_Escape);
    put(QStringLiteral("a bend"), valueOf(operations::setTypedRule(edge, 1, "23")(doc())).document);
    window->settle();
    select(edge);
    window->bench()->open(Bench::Page::Grades);
    window->settle();
    auto* section = window->grades()->section();
    const auto dragIn = [&](QPointF from, QPointF to, Qt::KeyboardModifiers keys) {
        QTest::mousePress(section, Qt::LeftButton, keys, from.toPoint());
        for (const double t : {0.5, 1.0}) {
            const QPointF at = from + (to - from) * t;
            QMouseEvent move(QEvent::MouseMove, at, section->mapToGlobal(at), Qt::NoButton, Qt::LeftButton,
                             keys);
            QApplication::sendEvent(section, &move);
        }
        QTest::mouseRelease(section, Qt::LeftButton, keys, to.toPoint());
        window->settle();
    };
    // The stretch from the first to the second point goes up by half.
    const double rise = 0.5;
    dragIn(section->positionOf(15, 21.5), section->positionOf(15, 21.5 + rise), {});
    EXPECT_NEAR(*resolved(edge).vertices[0].height, 20.5, 0.1);
    EXPECT_NEAR(*resolved(edge).vertices[1].height, 23.5, 0.1);
    EXPECT_NEAR(*resolved(edge).vertices[2].height, 23, 1e-9);
    const double up = *resolved(edge).vertices[1].height - 23;
    EXPECT_NEAR(up, *resolved(edge).vertices[0].height - 20, 1e-9);
    // A curve 20 long is pulled out of the second point.
    dragIn(section->handlePosition(1),
           section->handlePosition(1) + (section->positionOf(40, 23) - section->positionOf(30, 23)),
           Qt::ShiftModifier);
    ASSERT_TRUE(line(edge).vertices[1].curve);
    EXPECT_NEAR(line(edge).vertices[1].curve->value, 20, 0.6);
    run("undo");
    EXPECT_FALSE(line(edge).vertices[1].curve);
}

}  // namespace
}  // namespace erdwerk::app
