// Edits that nothing loses: quick ones, ones from another panel, ones inside tools; selection by identity.

#include <random>

#include "app/base/open_project.h"
#include "app/tools/draw_line.h"
#include "core/objects/alignment.h"
#include "core/objects/group.h"
#include "core/objects/line.h"
#include "core/objects/parcel.h"
#include "core/objects/points.h"
#include "core/objects/profile.h"
#include "core/objects/sheet.h"
#include "core/objects/surface.h"
#include "core/operations/ground.h"
#include "core/operations/objects.h"
#include "core/operations/records.h"
#include "core/operations/surfaces.h"
#include "support/same.h"
#include "support/sheets.h"
#include "window_test.h"

namespace erdwerk::app {
namespace {

using geometry::Vec2;

class Edits : public WindowTest {
protected:
    [[nodiscard]] const linework::Line3D& line(const std::string& name) const {
        return doc().get<objects::Line>(named<objects::Line>(name))->line;
    }
    /// Does it without waiting for results.
    bool quick(const char* what, const document::Edit& edit) {
        return window->session().edit(QString::fromLatin1(what), edit).done;
    }
    void typeQuick(const char* text) {
        QLineEdit* entry = window->prompt()->entry();
        entry->setFocus();
        entry->setText(QString::fromLatin1(text));
        QTest::keyClick(entry, Qt::Key_Return);
    }
};

TEST_F(Edits, TwoQuickPressesAreTwoEdits) {
    demo();
    const auto before = doc().all<objects::Line>().size();
    const ObjectId ground = named<objects::Surface>("Ground");
    const auto seen = window->session().results();
    const geometry::Box box = seen->surface(ground)->tin().bounds();
    const Vec2 middle = box.centre();
    EXPECT_TRUE(quick("a", operations::triangleAt(seen, ground, middle)));
    EXPECT_TRUE(quick("b", operations::triangleAt(seen, ground, {middle.x + 8, middle.y})));
    EXPECT_EQ(doc().all<objects::Line>().size(), before + 2);
    // Both on the Profile page.
    const ObjectId alignment = named<objects::Alignment>("Starling Lane");
    EXPECT_TRUE(quick("profile", operations::newProfile(alignment, ground)));
    window->settle();
    const ObjectId profile = doc().all<objects::Profile>().back();
    select(profile);
    const auto results = window->session().results();
    EXPECT_TRUE(quick("pvi", operations::addPvi(results, profile)));
    EXPECT_TRUE(quick("pvi", operations::addPvi(results, profile)));
    EXPECT_TRUE(quick("pvi", operations::addPvi(results, profile)));
    EXPECT_EQ(doc().get<objects::Profile>(profile)->design.size(), 4U);
}

TEST_F(Edits, TwoFixesWithoutWaitingBothHold) {
    demo();
    const auto findings = window->session().snapshot()->findings;
    std::vector<const check::Finding*> heights;
    for (const auto& f : findings)
        if (f.kind == "crossing-breaklines") heights.push_back(&f);
    ASSERT_FALSE(heights.empty());
    auto* page = window->findings();
    window->bench()->open(Bench::Page::Findings);
    window->settle();
    page->list()->setCurrentItem(page->list()->topLevelItem(0));
    const auto steps = window->session().history().steps().size();
    QTest::keyClick(page->list(), Qt::Key_1);
    const auto once = doc();
    // The second press is on the same finding, whose lines are others now: it is refused with a reason.
    QTest::keyClick(page->list(), Qt::Key_2);
    EXPECT_EQ(window->session().history().steps().size(), steps + 1);
    EXPECT_TRUE(window->prompt()->text().contains(QStringLiteral("changed meanwhile")));
    test::expectSame(doc(), once);
}

TEST_F(Edits, IdsAreNeverUsedTwiceAlsoAfterUndo) {
    demo();
    put(QStringLiteral("a"), doc().added("A", objects::Group{}));
    const ObjectId a = named<objects::Group>("A");
    run("undo");
    EXPECT_TRUE(window->session().edit(QStringLiteral("b"),
                                       [](const document::Document& d) -> Result<document::Edited> {
                                           return d.added("B", objects::Group{});
                                       }));
    EXPECT_NE(named<objects::Group>("B"), a);
}

TEST_F(Edits, EscKeepsTwoCornersAndAnotherToolKeepsThemToo) {
    window->session().project().startNew({});
    window->settle();
    run("draw-line");
    typeQuick("0, 0");
    typeQuick("10, 0");
    key(Qt::Key_Escape);
    EXPECT_EQ(line("Line 1").vertices.size(), 2U);
    run("draw-line");
    typeQuick("0, 5");
    typeQuick("10, 5");
    run("reverse");
    EXPECT_EQ(line("Line 2").vertices.size(), 2U);
    // One corner is no line.
    run("draw-line");
    typeQuick("0, 9");
    key(Qt::Key_Escape);
    EXPECT_EQ(doc().all<objects::Line>().size(), 2U);
}

TEST_F(Edits, ContinuingBackAndForwardKeepsContinuingTheSameLine) {
    window->session().project().startNew({});
    put(QStringLiteral("line"),
        doc().added("Ditch", objects::Line{linework::lineThrough({{0, 0}, {10, 0}}, {1.0, 2.0}), {}}));
    window->settle();
    look({5, 2}, 20);
    run("draw-line");
    click({10, 0});
    typeQuick("10, 8");
    key(Qt::Key_Backspace);
    key(Qt::Key_Backspace);
    EXPECT_EQ(qobject_cast<DrawLineTool*>(window->tool())->line().vertices.size(), 0U);
    run("redo");
    run("redo");
    // Meanwhile another panel edits the same line.
    ASSERT_TRUE(
        quick("height", operations::setRule(named<objects::Line>("Ditch"), 0, linework::FixedHeight{5})));
    key(Qt::Key_Return);
    ASSERT_EQ(doc().all<objects::Line>().size(), 1U);
    ASSERT_EQ(line("Ditch").vertices.size(), 3U);
    EXPECT_EQ(line("Ditch").vertices[0].rule, linework::HeightRule(linework::FixedHeight{5}));
    EXPECT_EQ(line("Ditch").vertices[2].place, (Vec2{10, 8}));
}

TEST_F(Edits, APickWhoseObjectIsGoneIsDroppedWithAWord) {
    demo();
    const ObjectId ditch = named<objects::Line>("Peat ditch");
    select(ditch);
    run("join");
    EXPECT_TRUE(window->prompt()->text().contains(QStringLiteral("join to it")));
    ASSERT_TRUE(quick("delete", operations::remove({ditch}, {})));
    EXPECT_TRUE(window->prompt()->text().contains(QStringLiteral("is gone")));
    EXPECT_TRUE(window->tool()->chips().front().value.isEmpty());
}

TEST_F(Edits, AfterDeleteNothingIsSelectedAndASecondDeleteRemovesNothing) {
    demo();
    const ObjectId set = named<objects::Points>("survey");
    const auto size = doc().get<objects::Points>(set)->set.size();
    select(set, 20);
    key(Qt::Key_Delete);
    EXPECT_TRUE(window->session().selection().empty());
    key(Qt::Key_Delete);
    EXPECT_EQ(doc().get<objects::Points>(set)->set.size(), size - 1);
    // From contents as well.
    select(named<objects::Line>("Peat ditch"));
    QTest::keyClick(window->contents()->tree(), Qt::Key_Delete);
    window->settle();
    EXPECT_FALSE(doc().byName<objects::Line>("Peat ditch"));
    EXPECT_TRUE(window->session().selection().empty());
}

TEST_F(Edits, TheSelectedCornerStaysTheSameCorner) {
    demo();
    const ObjectId ditch = named<objects::Line>("Peat ditch");
    const Vec2 place = line("Peat ditch").vertices[2].place;
    select(ditch, 2);
    ASSERT_TRUE(quick("insert", operations::insertCorner({ditch, {}, 0, 0.5})));
    ASSERT_EQ(window->session().selection().front().part, std::size_t{3});
    window->settle();
    EXPECT_EQ(window->grades()->table()->currentRow(), 3);
    linework::LineVertex corner;
    corner.place = line("Peat ditch").vertices.front().place + Vec2{-5, 3};
    ASSERT_TRUE(quick("continue", operations::continueLine(ditch, true, {corner}, {})));
    ASSERT_EQ(window->session().selection().front().part, std::size_t{4});
    EXPECT_EQ(line("Peat ditch").vertices[4].place, place);
    window->settle();
    EXPECT_EQ(window->grades()->table()->currentRow(), 4);
    run("undo");
    ASSERT_EQ(window->session().selection().front().part, std::size_t{3});
}

TEST_F(Edits, DeletingSaysWhatGoesWithIt) {
    demo();
    select(named<objects::Line>("Plot Q-4 boundary"));
    key(Qt::Key_Delete);
    EXPECT_TRUE(window->prompt()->text().contains(QStringLiteral("parcel 'Plot Q-4'")));
    const auto what = QString::fromStdString(window->session().history().steps().back().what);
    EXPECT_TRUE(what.contains(QStringLiteral("with it"))) << qPrintable(what);
    EXPECT_TRUE(what.contains(QStringLiteral("Plot Q-4"))) << qPrintable(what);
}

TEST_F(Edits, ANewSheetTakesTheParcelInViewAndANewProfileTheSurfaceUnderIt) {
    demo();
    look({48108, 91092}, 4);
    run("sheet");
    EXPECT_THAT(test::parcelsOn(*doc().get<objects::Sheet>(doc().all<objects::Sheet>().back())),
                testing::ElementsAre(named<objects::Parcel>("Plot Q-4")));
    run("sheet-open");  // another way in; Esc leads back to the plan
    key(Qt::Key_Escape);
    look({48200, 91180}, 8);  // no parcel here
    run("sheet");
    EXPECT_TRUE(test::parcelsOn(*doc().get<objects::Sheet>(doc().all<objects::Sheet>().back())).empty());
    window->session().edit(QStringLiteral("another"), operations::addSurface("Elsewhere", {}));
    select(named<objects::Alignment>("Starling Lane"));
    run("profile");
    EXPECT_EQ(doc().get<objects::Profile>(doc().all<objects::Profile>().back())->ground,
              named<objects::Surface>("Ground finished"));
    EXPECT_EQ(window->bench()->page(), Bench::Page::Profile);
}

}  // namespace
}  // namespace erdwerk::app
