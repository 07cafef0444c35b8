// Every table of the bench has the rows that the document has: when something comes, goes, goes twice and at
// once, and comes back.

#include <QHeaderView>
#include <QListWidget>
#include <QTableView>

#include "app/base/open_project.h"
#include "app/bench/bench.h"
#include "app/bench/parcel_pane.h"
#include "app/bench/pi_table.h"
#include "app/bench/record_table.h"
#include "app/bench/tables_page.h"
#include "core/linework/line3d.h"
#include "core/objects/alignment.h"
#include "core/objects/line.h"
#include "core/objects/parcel.h"
#include "core/objects/profile.h"
#include "core/operations/lines.h"
#include "core/operations/records.h"
#include "core/operations/routes.h"
#include "core/operations/tables.h"
#include "window_test.h"

namespace erdwerk::app {
namespace {

class TableRows : public WindowTest {
protected:
    void SetUp() override {
        WindowTest::SetUp();
        document::Document d;
        d = d.added("Plot line",
                    objects::Line{linework::lineThrough(test::places("0 0, 40 0, 60 30, 40 60, 0 60, -20 30"),
                                                        {}, true)},
                    &line);
        d = d.added("Plot", objects::Parcel{line, false, 0, {}}, &parcel);
        objects::Alignment made;
        made.pis = {{{0, 100}}, {{50, 140}}, {{100, 100}}, {{150, 140}}, {{200, 100}}};
        d = d.added("Axis", made, &axis);
        d = d.added("Grade",
                    objects::Profile{axis, {}, {{0, 10, 0}, {50, 12, 0}, {100, 11, 0}, {150, 13, 0}}, 5},
                    &profile);
        window->session().project().startNew(d);
        window->settle();
    }

    /// Rows that can be reached in the view itself, from its top to its end.
    static int shown(const QTableView* table) {
        const auto* header = table->verticalHeader();
        int rows = 0;
        for (int y = 0; table->rowAt(y) >= 0; y += table->rowHeight(table->rowAt(y))) ++rows;
        // What is scrolled out of sight has its height in the header.
        int height = 0;
        for (int row = 0; row < header->count(); ++row) height += header->sectionSize(row);
        EXPECT_EQ(header->length(), height);
        EXPECT_EQ(header->count(), table->model()->rowCount());
        EXPECT_LE(rows, header->count());
        return header->count();
    }

    /// `change` takes one row away, or adds one.
    void expectFollows(const QTableView* table, int rows, int by, const document::Edit& change) {
        auto& session = window->session();
        ASSERT_TRUE(table->isVisible());
        EXPECT_EQ(shown(table), rows);
        ASSERT_TRUE(session.edit(QStringLiteral("once"), change));
        window->settle();
        EXPECT_EQ(shown(table), rows + by);
        session.undo();
        window->settle();
        EXPECT_EQ(shown(table), rows);
        // Twice and at once, while results are still being worked out.
        for (int i = 0; i < 2; ++i) ASSERT_TRUE(session.edit(QStringLiteral("again"), change));
        window->settle();
        EXPECT_EQ(shown(table), rows + 2 * by);
        session.undo();
        session.undo();
        session.redo();
        window->settle();
        EXPECT_EQ(shown(table), rows + by);
    }

    void open(Bench::Page page, ObjectId id) {
        select(id);
        window->bench()->open(page);
        window->settle();
    }

    ObjectId line;
    ObjectId parcel;
    ObjectId axis;
    ObjectId profile;
};

TEST_F(TableRows, OfGradesAreThePointsOfTheLine) {
    open(Bench::Page::Grades, line);
    expectFollows(window->grades()->table(), 6, -1, operations::removeVertex(line, 1));
}

TEST_F(TableRows, OfAProfileAreItsPvis) {
    open(Bench::Page::Profile, profile);
    expectFollows(window->profile()->table(), 4, -1, operations::removePvi(profile, 1));
}

TEST_F(TableRows, OfAnAlignmentAreItsPis) {
    open(Bench::Page::Tables, axis);
    expectFollows(window->tables()->piTable(), 5, -1, operations::removePi(axis, 1));
}

TEST_F(TableRows, OfAParcelAreItsCourses) {
    open(Bench::Page::Tables, parcel);
    expectFollows(window->tables()->parcelPane()->courses(), 6, -1, operations::removeVertex(line, 2));
}

TEST_F(TableRows, OfTheRecordAreTheRowsOfItsObjectsAndTheCursorStaysAtItsRow) {
    const auto made = window->session().edit(QStringLiteral("table"),
                                             operations::newTable(objects::TableSort::Courses, {parcel}));
    ASSERT_EQ(made.made.size(), 1U);
    open(Bench::Page::Tables, made.made.front());
    auto* table = window->tables()->recordTable();
    ASSERT_EQ(shown(table), 6);
    table->setCurrentIndex(table->model()->index(3, 1));
    ASSERT_TRUE(window->session().edit(QStringLiteral("move"),
                                       operations::moveVertex(line, 0, geometry::Vec2{1, 1})));
    window->settle();
    EXPECT_EQ(table->currentIndex().row(), 3);
    EXPECT_EQ(table->currentIndex().column(), 1);
    expectFollows(table, 6, -1, operations::removeVertex(line, 1));
}

TEST_F(TableRows, OfTheHistoryAreItsSteps) {
    window->bench()->open(Bench::Page::History);
    auto* list = window->findChild<QListWidget*>(QStringLiteral("history"));
    ASSERT_NE(list, nullptr);
    auto& session = window->session();
    const auto expectSteps = [&] {
        EXPECT_EQ(static_cast<std::size_t>(list->count()), session.history().steps().size());
    };
    expectSteps();
    for (int i = 0; i < 3; ++i)
        ASSERT_TRUE(session.edit(QStringLiteral("remove"), operations::removeVertex(line, 0)));
    expectSteps();
    session.goTo(1);
    expectSteps();
    ASSERT_TRUE(session.edit(QStringLiteral("other"), operations::removePvi(profile, 1)));
    EXPECT_EQ(list->count(), 3);
}

}  // namespace
}  // namespace erdwerk::app
