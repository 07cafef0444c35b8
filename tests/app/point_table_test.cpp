// The table of survey points: its view has the rows that the document has.

#include <QHeaderView>
#include <QTableView>

#include "app/base/open_project.h"
#include "app/bench/bench.h"
#include "app/bench/tables_page.h"
#include "core/objects/points.h"
#include "core/operations/objects.h"
#include "core/operations/points.h"
#include "support/after_edit.h"
#include "window_test.h"

namespace erdwerk::app {
namespace {

class PointTable : public WindowTest {};

TEST_F(PointTable, TheViewOfPointsFollowsWhatComesAndGoes) {
    window->session().project().startNew(test::afterEdit(
        {},
        operations::addPoints(
            "P", {{"1", {0, 0}, 1.0, "A", ""}, {"2", {5, 0}, 2.0, "B", ""}, {"3", {9, 9}, {}, "C", ""}})));
    window->settle();
    window->bench()->open(Bench::Page::Tables);
    auto* table = window->tables()->findChild<QTableView*>(QStringLiteral("pointTable"));
    const ObjectId set = doc().all<objects::Points>().front();
    // What the view itself has: a row at each height, none beyond the last.
    const auto rows = [&] {
        QStringList out;
        const int height = table->verticalHeader()->defaultSectionSize();
        EXPECT_EQ(table->verticalHeader()->length(), table->verticalHeader()->count() * height);
        for (int y = height / 2; table->rowAt(y) >= 0; y += height)
            out << table->model()->index(table->rowAt(y), 0).data().toString();
        EXPECT_EQ(out.size(), table->verticalHeader()->count());
        return out.join(QLatin1Char(' '));
    };
    EXPECT_EQ(rows(), QStringLiteral("1 2 3"));
    // The cursor stays at its point while rows above it go.
    table->setFocus();
    table->setCurrentIndex(table->model()->index(2, 0));
    ASSERT_TRUE(window->session().edit(QStringLiteral("Delete"), operations::remove({}, {{set, 0}})));
    window->settle();
    EXPECT_EQ(rows(), QStringLiteral("2 3"));
    EXPECT_EQ(table->currentIndex().row(), 1);
    ASSERT_TRUE(
        window->session().edit(QStringLiteral("Add"), operations::addPoint({"77", {1, 2}, 3.0, "", ""})));
    window->settle();
    EXPECT_EQ(rows(), QStringLiteral("2 3 77"));
    window->session().undo();
    window->session().undo();
    window->settle();
    EXPECT_EQ(rows(), QStringLiteral("1 2 3"));
    // Twice and at once, while results are still being worked out.
    for (int i = 0; i < 2; ++i)
        ASSERT_TRUE(window->session().edit(QStringLiteral("Delete"), operations::remove({}, {{set, 1}})));
    window->settle();
    EXPECT_EQ(rows(), QStringLiteral("1"));
    ASSERT_TRUE(window->session().edit(QStringLiteral("Delete"), operations::remove({set}, {})));
    window->settle();
    EXPECT_EQ(table->model()->rowCount(), 0);
    window->session().undo();
    window->settle();
    EXPECT_EQ(rows(), QStringLiteral("1"));
}

}  // namespace
}  // namespace erdwerk::app
