// Parcels, their descriptions, and texts that are read back, through the real window.

#include <QClipboard>
#include <QGuiApplication>
#include <QMimeData>
#include <QPushButton>
#include <QTableWidget>

#include "app/base/open_project.h"
#include "app/bench/parcel_pane.h"
#include "app/bench/reading_pane.h"
#include "app/bench/tables_page.h"
#include "core/linework/line3d.h"
#include "core/objects/line.h"
#include "core/objects/parcel.h"
#include "core/objects/reading.h"
#include "core/operations/descriptions.h"
#include "window_test.h"

namespace erdwerk::app {
namespace {

using geometry::Vec2;

class Descriptions : public WindowTest {
protected:
    /// A plot of 100 x 60 on nothing.
    void site() {
        document::Document d;
        d = d.added("Boundary",
                    objects::Line{linework::lineThrough(test::places("0 0, 100 0, 100 60, 0 60"), {}, true)},
                    &line);
        d = d.added("Plot", objects::Parcel{line, false, 0, "the pin"}, &plot);
        window->session().project().startNew(d);
        window->settle();
        look({50, 30}, 4);
        select(plot);
        window->bench()->open(Bench::Page::Tables);
    }
    ParcelPane* pane() { return window->tables()->parcelPane(); }
    ReadingPane* reader() { return window->tables()->readingPane(); }
    QString prompt() { return window->tool()->prompt(); }
    QString text() { return pane()->description()->toPlainText(); }
    std::size_t findings(const std::string& kind) {
        std::size_t n = 0;
        for (const auto& f : window->session().snapshot()->findings) n += f.kind == kind ? 1 : 0;
        return n;
    }
    void change(const QString& from, const QString& to) {
        QString now = text();
        ASSERT_TRUE(now.contains(from));
        pane()->description()->setPlainText(now.replace(from, to));
    }
    ObjectId line;
    ObjectId plot;
};

TEST_F(Descriptions, SidesAreNamedInTheTable) {
    site();
    auto* courses = pane()->courses();
    ASSERT_EQ(courses->rowCount(), 4);
    courses->item(1, 3)->setText(QStringLiteral("the lane"));
    courses->item(1, 4)->setText(QStringLiteral("a stone"));
    window->settle();
    EXPECT_TRUE(text().contains(
        QStringLiteral("thence along the lane, due North, a distance of 60.00 metres, to a stone;")));
    EXPECT_FALSE(courses->item(1, 1)->flags().testFlag(Qt::ItemIsEditable));
    run("undo");
    run("undo");
    window->settle();
    EXPECT_FALSE(text().contains(QStringLiteral("lane")));
    EXPECT_EQ(courses->item(1, 3)->text(), QString());
}

TEST_F(Descriptions, APassageIsTypedAndMarkedAndFoundWhenItIsBehind) {
    site();
    change(QStringLiteral("due North, a distance of 60.00 metres"),
           QStringLiteral("due North, up to the wall"));
    EXPECT_TRUE(pane()->takeTyped());
    window->settle();
    EXPECT_EQ(doc().get<objects::Parcel>(plot)->passages.size(), 1U);
    EXPECT_TRUE(text().contains(QStringLiteral("thence due North, up to the wall;")));
    EXPECT_EQ(pane()->description()->extraSelections().size(), 1);
    // Two at once, or what stands between them: refused, and the text is as it was.
    change(QStringLiteral("due East"), QStringLiteral("due Oost"));
    change(QStringLiteral("due West"), QStringLiteral("due Vest"));
    EXPECT_FALSE(pane()->takeTyped());
    EXPECT_TRUE(text().contains(QStringLiteral("due East")));
    EXPECT_EQ(doc().get<objects::Parcel>(plot)->passages.size(), 1U);
    // The corner is dragged: it no longer says what is there.
    look({50, 30}, 4);
    drag({100, 60}, {100, 66});
    drop({100, 66});
    EXPECT_EQ(findings("passage-behind"), 1U);
    EXPECT_TRUE(text().contains(QStringLiteral("up to the wall")));
    run("undo");
    run("undo");
    window->settle();
    EXPECT_TRUE(doc().get<objects::Parcel>(plot)->passages.empty());
    EXPECT_EQ(findings("passage-behind"), 0U);
}

TEST_F(Descriptions, TheWordingIsEditedBesideTheText) {
    site();
    pane()->findChild<QPushButton*>(QStringLiteral("showWording"))->setChecked(true);
    EXPECT_FALSE(pane()->sentences()->item(3, 1)->flags().testFlag(Qt::ItemIsEditable));
    pane()->findChild<QPushButton*>(QStringLiteral("ownWording"))->click();
    window->settle();
    ASSERT_TRUE(doc().get<objects::Parcel>(plot)->wording);
    pane()->sentences()->item(3, 1)->setText(QStringLiteral("go {direction} for {distance:1} m"));
    window->settle();
    EXPECT_TRUE(text().contains(QStringLiteral("thence go due East for 100.0 m;")));
    pane()->sentences()->item(3, 1)->setText(QStringLiteral("{radius}"));
    window->settle();
    EXPECT_TRUE(text().contains(QStringLiteral("thence go due East for 100.0 m;")));
    EXPECT_EQ(pane()->sentences()->item(3, 1)->text(), QStringLiteral("go {direction} for {distance:1} m"));
    pane()->copyText();
    EXPECT_TRUE(QGuiApplication::clipboard()->text().contains(QStringLiteral("go due East")));
    EXPECT_TRUE(QGuiApplication::clipboard()->mimeData()->hasHtml());
}

TEST_F(Descriptions, ATextIsReadBackDrawnAndPutRight) {
    site();
    QGuiApplication::clipboard()->setText(QString());
    run("read-back");
    EXPECT_TRUE(doc().all<objects::Reading>().empty());
    QGuiApplication::clipboard()->setText(QStringLiteral("nothing of the kind"));
    run("read-back");
    EXPECT_TRUE(doc().all<objects::Reading>().empty());
    QGuiApplication::clipboard()->setText(QStringLiteral(
        "Beginning at the pin; thence East, 100.00 m; thence North, 06.00 m; thence West, 100.00 m; "
        "thence South, 60.00 m. 6000.00 m²"));
    run("read-back");
    ASSERT_EQ(doc().all<objects::Reading>().size(), 1U);
    const ObjectId deed = doc().all<objects::Reading>().front();
    window->settle();
    EXPECT_EQ(doc().get<objects::Reading>(deed)->parcel, plot);
    ASSERT_EQ(reader()->differences()->rowCount(), 1);
    EXPECT_TRUE(reader()->differences()->item(0, 0)->text().startsWith(
        QStringLiteral("course 2, distance called 6.000")));
    EXPECT_EQ(findings("description-differs"), 1U);
    EXPECT_EQ(findings("description-open"), 1U);
    EXPECT_EQ(reader()->courses()->item(1, 1)->text(), QStringLiteral("due North, 6"));
    // A row leads to its words.
    reader()->differences()->setFocus();
    reader()->differences()->setCurrentCell(-1, -1);
    reader()->differences()->setCurrentCell(0, 0);
    EXPECT_EQ(reader()->text()->textCursor().selectedText(), QStringLiteral("06.00 m"));
    // Put right where it stands.
    QString now = reader()->text()->toPlainText();
    reader()->text()->setPlainText(now.replace(QStringLiteral("06.00"), QStringLiteral("60.00")));
    reader()->takeTyped();
    window->settle();
    EXPECT_EQ(reader()->differences()->rowCount(), 0);
    EXPECT_EQ(findings("description-differs"), 0U);
    // It is in the plan, and can be clicked there where the boundary does not hide it.
    run("undo");
    window->settle();
    EXPECT_EQ(reader()->differences()->rowCount(), 1);
    EXPECT_TRUE(reader()->text()->toPlainText().contains(QStringLiteral("06.00")));
    put(QStringLiteral("Remove"), doc().without(plot));
    window->settle();
    EXPECT_FALSE(doc().get<objects::Reading>(deed)->parcel);
}

TEST_F(Descriptions, WhatIsTypedIntoOneReadingIsKeptWhenAnotherIsChosen) {
    site();
    for (const char* words :
         {"Beginning at the pin; thence East, 100.00 m.", "Beginning at the pin; thence North, 50.00 m."}) {
        QGuiApplication::clipboard()->setText(QString::fromUtf8(words));
        run("read-back");
        window->settle();
    }
    const auto deeds = doc().all<objects::Reading>();
    ASSERT_EQ(deeds.size(), 2U);
    select(deeds[0]);
    window->settle();
    reader()->text()->setFocus();
    reader()->text()->setPlainText(QStringLiteral("Beginning at the pin; thence East, 123.00 m."));
    // Within the pause that waits for more typing.
    select(deeds[1]);
    window->settle();
    EXPECT_NE(doc().get<objects::Reading>(deeds[0])->text.find("123.00"), std::string::npos);
    EXPECT_NE(doc().get<objects::Reading>(deeds[1])->text.find("North, 50.00"), std::string::npos);
    EXPECT_TRUE(reader()->text()->toPlainText().contains(QStringLiteral("North, 50.00")));
}

TEST_F(Descriptions, AParcelIsPickedInside) {
    site();
    put(QStringLiteral("Draw"),
        doc().added("Across", objects::Line{linework::lineThrough(test::places("-5 20, 110 20"), {})}));
    window->settle();
    run("parcel-inside");
    moveTo({50, 40});
    click({50, 40});
    ASSERT_EQ(doc().all<objects::Parcel>().size(), 2U);
    window->settle();
    EXPECT_NEAR(derived().parcels.at(doc().all<objects::Parcel>()[1])->geometry.area, 4000, 1e-6);
    click({50, 100});
    EXPECT_EQ(doc().all<objects::Parcel>().size(), 2U);
    key(Qt::Key_Escape);
    // It is selected, not the boundary that was made for it.
    EXPECT_EQ(window->session().selection().refs(),
              (std::vector<Ref>{{doc().all<objects::Parcel>()[1], std::nullopt}}));
    // Its boundary goes along with the lines, and a corner dragged at it is that of the line.
    const ObjectId picked = doc().all<objects::Parcel>()[1];
    const auto area = [&] { return derived().parcels.at(picked)->geometry.area; };
    select(line);
    drag({100, 60}, {110, 60});
    EXPECT_NEAR(area(), 4000, 1e-6);
    drop({110, 60});
    EXPECT_NEAR(area(), 40 * (110 + 100 + 10 / 3.0) / 2, 30);
    run("undo");
    window->settle();
    EXPECT_NEAR(area(), 4000, 1e-6);
    select(doc().get<objects::Parcel>(picked)->line);
    window->settle();
    drag({100, 60}, {100, 66});
    drop({100, 66});
    EXPECT_NEAR(area(), 4300, 30);
    EXPECT_NEAR(doc().get<objects::Line>(line)->line.vertices[2].place.y, 66, 0.5);
    // Without a line of it the boundary stays, with a finding; loosened it is a line of its own.
    put(QStringLiteral("Remove"), doc().without(doc().all<objects::Line>()[1]));
    window->settle();
    EXPECT_EQ(findings("line-follows"), 1U);
    select(picked);
    window->settle();
    for (auto* button : window->facts()->findChildren<QPushButton*>())
        if (button->text() == QStringLiteral("Loosen from them")) {
            button->click();
            break;
        }
    QCoreApplication::processEvents();
    window->settle();
    EXPECT_EQ(findings("line-follows"), 0U);
    EXPECT_NEAR(area(), 4300, 30);
}

TEST_F(Descriptions, AParcelIsDividedByAreaAndByALine) {
    site();
    run("split-parcel");
    type(QStringLiteral("1500"));
    EXPECT_TRUE(prompt().contains(QStringLiteral("straight side")));
    moveTo({0, 30});
    click({0, 30});
    ASSERT_EQ(doc().all<objects::Parcel>().size(), 2U);
    window->settle();
    const ObjectId other = doc().all<objects::Parcel>()[1];
    EXPECT_NEAR(derived().parcels.at(plot)->geometry.area, 1500, 1e-6);
    EXPECT_NEAR(derived().parcels.at(other)->geometry.area, 4500, 1e-6);
    run("undo");
    window->settle();
    ASSERT_EQ(doc().all<objects::Parcel>().size(), 1U);
    select(plot);
    run("split-parcel");
    type(QStringLiteral("0"));
    type(QStringLiteral("words"));
    click({40, 0});
    key(Qt::Key_Backspace);
    click({30, 0});
    click({30, 60});
    ASSERT_EQ(doc().all<objects::Parcel>().size(), 2U);
    window->settle();
    EXPECT_NEAR(derived().parcels.at(plot)->geometry.area, 1800, 20);
    // Half way, and away.
    select(plot);
    run("split-parcel");
    click({10, 0});
    key(Qt::Key_Escape);
    EXPECT_EQ(doc().all<objects::Parcel>().size(), 2U);
}

}  // namespace
}  // namespace erdwerk::app
