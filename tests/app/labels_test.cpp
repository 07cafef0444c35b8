// Labels, dimensions and tables through the real window.

#include <QHeaderView>
#include <QLineEdit>
#include <QPainter>
#include <random>

#include "app/base/open_project.h"
#include "app/bench/record_table.h"
#include "app/bench/tables_page.h"
#include "app/kinds/all_kinds.h"
#include "app/plan/plan_painter.h"
#include "app/sheet/sheet_painter.h"
#include "app/sheet/text_recorder.h"
#include "core/annotate/dimension.h"
#include "core/annotate/label.h"
#include "core/objects/dimension.h"
#include "core/objects/label.h"
#include "core/objects/label_style.h"
#include "core/objects/line.h"
#include "core/objects/points.h"
#include "core/operations/labels.h"
#include "core/operations/points.h"
#include "core/operations/records.h"
#include "core/operations/sheets.h"
#include "core/operations/tables.h"
#include "support/after_edit.h"
#include "view_at.h"
#include "window_test.h"

namespace erdwerk::app {
namespace {

using annotate::LabelKind;
using geometry::Vec2;

class Labels : public WindowTest {
protected:
    /// A straight of 60 with an arc behind it, and a point beside them.
    void site() {
        auto line = linework::lineThrough(test::places("0 0, 60 0, 90 30"), {10, 13, 14});
        line.vertices[1].through = Vec2{85, 10};
        document::Document d;
        d = d.added("Wall", objects::Line{line}, &wall);
        d = d.added("Spots", objects::Points{survey::PointSet({{"7", {30, 20}, 11.5, "G", ""}})}, &spots);
        window->session().project().startNew(d);
        window->settle();
        look({40, 10}, 6);
        window->session().selection().set({});
    }
    [[nodiscard]] std::vector<ObjectId> labels() const { return doc().all<objects::Label>(); }
    [[nodiscard]] const TextsShown& shown() const { return window->session().textsShown(); }
    [[nodiscard]] Vec2 textPlace(ObjectId id, std::size_t i = 0) const {
        return shown().shown.at(id).boxes.at(i).centre;
    }
    [[nodiscard]] QString prompt() const { return window->tool()->prompt(); }
    ObjectId wall;
    ObjectId spots;
};

TEST_F(Labels, TheToolLabelsWhateverIsClickedOrWhatIsTyped) {
    site();
    run("label");
    click({20, 0});
    ASSERT_EQ(labels().size(), 1U);
    EXPECT_EQ(derived().labels.at(labels()[0])->below(), "60.00");
    click({30, 20});
    EXPECT_EQ(derived().labels.at(labels()[1])->kind, LabelKind::Point);
    type(QStringLiteral("control"));
    EXPECT_TRUE(prompt().contains(QStringLiteral("corner or a grade point")));
    click({0, 0});
    ASSERT_EQ(labels().size(), 3U);
    EXPECT_EQ(derived().labels.at(labels()[2])->above(), "10.00");
    // What does not fit is refused; an unknown word too; nothing is made.
    click({30, 20});
    type(QStringLiteral("chimney"));
    EXPECT_EQ(labels().size(), 3U);
    run("undo");
    EXPECT_EQ(labels().size(), 2U);
    key(Qt::Key_Escape);
    EXPECT_EQ(window->tool(), nullptr);
}

TEST_F(Labels, AStyleIsChangedByDraggingATextOnTheThingItself) {
    site();
    window->session().edit(QStringLiteral("l"), operations::labelMany({wall}, {}));
    window->settle();
    const ObjectId label = labels()[0];
    const ObjectId style = doc().get<objects::Label>(label)->style;
    run("texts-in-place");
    click({20, 0});
    ASSERT_TRUE(window->session().selection().holds(label));
    // The bearing, which stands above, is taken below to the end of the side; the plan follows on the way.
    const Vec2 from = textPlace(label);
    EXPECT_GT(from.y, 0);
    drag(from, {50, -4});
    window->settle();
    EXPECT_LT(textPlace(label).y, 0);
    EXPECT_EQ(doc().get<objects::LabelStyle>(style)->style.lines[0].stand, annotate::Stand::Below);
    EXPECT_EQ(window->session().history().steps().size(), 2U);  // not yet a step
    drop({50, -4});
    const auto& line = doc().get<objects::LabelStyle>(style)->style.lines[0];
    EXPECT_EQ(line.stand, annotate::Stand::Below);
    EXPECT_GT(line.along, 0.6);
    EXPECT_EQ(window->session().history().steps().size(), 3U);
    // Esc half way leaves all as it was.
    const auto before = doc();
    drag(textPlace(label), {30, 8});
    key(Qt::Key_Escape);
    EXPECT_TRUE(difference(before, doc()).empty());
    ASSERT_NE(window->tool(), nullptr);
    // A typed height is of the style; "only" is of this label.
    type(QStringLiteral("3"));
    EXPECT_EQ(doc().get<objects::LabelStyle>(style)->style.height, 3);
    type(QStringLiteral("only"));
    type(QStringLiteral("2"));
    EXPECT_EQ(doc().get<objects::LabelStyle>(style)->style.height, 3);
    EXPECT_EQ(doc().get<objects::Label>(label)->own->height, 2);
    type(QStringLiteral("as styled"));
    EXPECT_FALSE(doc().get<objects::Label>(label)->byHand());
    type(QStringLiteral("0.1"));  // refused
    EXPECT_EQ(doc().get<objects::LabelStyle>(style)->style.height, 3);
    run("undo");
    run("undo");
    run("undo");
    run("undo");
    EXPECT_EQ(doc().get<objects::LabelStyle>(style)->style.lines[0].stand, annotate::Stand::Above);
}

TEST_F(Labels, ATextIsMovedByHandKeepsItsPlaceAndHasALeader) {
    site();
    window->session().edit(QStringLiteral("l"), operations::makeLabel(spots, 0, 0));
    window->settle();
    const ObjectId label = labels()[0];
    const Vec2 from = textPlace(label);
    drag(from, {10, 25});
    drop({10, 25});
    ASSERT_TRUE(doc().get<objects::Label>(label)->moved);
    EXPECT_NEAR(derived().labels.at(label)->byHand->x, 10, 0.3);
    // It goes along with its point.
    put(QStringLiteral("Move"), test::afterEdit(doc(), operations::movePoint({spots, 0}, {35, 22})));
    window->settle();
    EXPECT_NEAR(derived().labels.at(label)->byHand->x, 15, 0.3);
    select(label);
    auto* back = window->facts()->findChild<QPushButton*>();
    ASSERT_NE(back, nullptr);
    EXPECT_EQ(back->text(), QStringLiteral("As its style says"));
    QTest::mouseClick(back, Qt::LeftButton);
    window->settle();
    EXPECT_FALSE(doc().get<objects::Label>(label)->moved);
}

TEST_F(Labels, ManyAreMadeOfAWindowAndOfWhatIsSelected) {
    site();
    run("label-many");
    click({-10, -10});
    EXPECT_TRUE(prompt().contains(QStringLiteral("other corner")));
    key(Qt::Key_Escape);
    ASSERT_NE(window->tool(), nullptr);
    click({-10, -10});
    click({65, 15});
    ASSERT_EQ(labels().size(), 1U);  // the straight; the arc's middle lies outside
    type(QStringLiteral("Wall"));
    EXPECT_TRUE(prompt().contains(QStringLiteral("Enter labels 1 parts")));
    type(QStringLiteral("controls"));
    key(Qt::Key_Return);
    EXPECT_EQ(labels().size(), 5U);
    type(QStringLiteral("nothing of that name"));
    EXPECT_EQ(labels().size(), 5U);
    key(Qt::Key_Escape);
    // Turned round and cut they are still there, each on its side.
    window->session().edit(QStringLiteral("Reverse"), operations::reverseLine(wall));
    window->settle();
    EXPECT_EQ(labels().size(), 5U);
    for (const ObjectId id : labels()) EXPECT_EQ(derived().labels.at(id)->problem, "");
}

TEST_F(Labels, SidesTooShortHaveATagAndARowInATable) {
    site();
    window->session().edit(QStringLiteral("l"), operations::labelMany({wall}, {}));
    window->settle();
    const ObjectId label = labels()[0];
    EXPECT_FALSE(shown().shown.at(label).tag);
    look({40, 10}, 0.6);  // 36 pixels for two words
    ASSERT_EQ(shown().shown.count(label), 1U);
    EXPECT_TRUE(shown().shown.at(label).tag);
    select(label);
    bool said = false;
    for (const auto* l : window->facts()->findChildren<QLabel*>())
        said = said || l->text() == QStringLiteral("as tag L1");
    EXPECT_TRUE(said);
    run("new-table");
    auto* table = window->tables()->recordTable();
    QTRY_VERIFY(table->settled());
    window->settle();
    ASSERT_EQ(table->model()->rowCount(), 1);
    EXPECT_EQ(table->model()->index(0, 1).data().toString(), QStringLiteral("L1"));
}

TEST_F(Labels, WhatHasNoRoomIsCounted) {
    site();
    std::vector<survey::SurveyPoint> crowd;
    for (int i = 0; i < 60; ++i) crowd.push_back({std::to_string(100 + i), {40 + i * 0.1, 25}, 1.0, "", ""});
    put(QStringLiteral("Crowd"), test::afterEdit(doc(), operations::addPoints("Crowd", crowd)));
    const ObjectId set = doc().all<objects::Points>().back();
    window->session().edit(QStringLiteral("l"), operations::labelMany({set}, {}));
    window->settle();
    const std::size_t out = shown().leftOut.size();
    EXPECT_GT(out, 10U);
    EXPECT_LT(out, 60U);
    window->session().selection().set({});
    bool said = false;
    for (const auto* l : window->facts()->findChildren<QLabel*>())
        said = said || l->text() == QStringLiteral("%1 at this scale").arg(out);
    EXPECT_TRUE(said);
}

/// Texts of a plan that lie on each other, and how many found no room.
struct Counted {
    std::size_t overlaps = 0;
    std::size_t without = 0;
    std::size_t texts = 0;
};
Counted counted(const Snapshot& snapshot, Vec2 centre, double scale) {
    const ViewTransform view = viewAt(centre, scale, {1000, 700});
    TextRecorder recorder(view.size);
    QPainter painter(&recorder);
    PlanPainter plan(painter, snapshot, view, planLayers(), {});
    plan.paint();
    painter.end();
    return {recorder.overlaps(), plan.texts().without, recorder.written().size()};
}

TEST_F(Labels, NoTextOfTheDemoLiesOnAnotherAtAnyZoom) {
    demo();
    for (const double scale : {1.6, 4.0, 11.0}) {
        const auto c = counted(*window->session().snapshot(), {48110, 91100}, scale);
        EXPECT_EQ(c.overlaps, 0U) << scale;
        EXPECT_GT(c.texts, 15U) << scale;
    }
    for (const ObjectId sheet : doc().all<objects::Sheet>())
        EXPECT_EQ(textsOn(*window->session().snapshot(), sheet).overlaps, 0U) << doc().nameOf(sheet);
}

TEST_F(Labels, OfThreeThousandLabelsNoneLiesOnAnotherInTwoSizes) {
    std::mt19937 random(8);
    std::uniform_real_distribution<double> at(0, 600);
    document::Document d;
    std::vector<document::NewObject> lines;
    for (int i = 0; i < 750; ++i) {
        const Vec2 a{at(random), at(random)};
        const Vec2 b = a + Vec2{at(random) / 30 - 10, at(random) / 30 - 10};
        lines.push_back(
            {"L" + std::to_string(i), objects::Line{linework::lineThrough({a, b, b + (b - a)}, {})}});
    }
    std::vector<survey::SurveyPoint> points;
    for (int i = 0; i < 1500; ++i)
        points.push_back({std::to_string(i), {at(random), at(random)}, 5.0, "", ""});
    d = test::afterEdit(d.addedAll(std::move(lines)), operations::addPoints("P", points));
    std::vector<ObjectId> all = d.all<objects::Line>();
    all.push_back(d.all<objects::Points>().front());
    d = operations::labelMany(all, {})(d)->document;
    ASSERT_EQ(d.all<objects::Label>().size(), 3000U);
    std::size_t before = 0;
    for (const double height : {1.6, 3.0}) {
        for (const ObjectId style : d.all<objects::LabelStyle>())
            d = operations::changeLabelStyle(style, [=](annotate::LabelStyle& s) { s.height = height; })(d)
                    ->document;
        Snapshot snapshot;
        snapshot.derived = test::valueOf(derive::evaluate(d));
        const auto c = counted(snapshot, {300, 300}, 3.5);
        EXPECT_EQ(c.overlaps, 0U) << height;
        // Larger texts find less room.
        EXPECT_GT(c.without, before);
        before = c.without;
    }
}

TEST_F(Labels, PanningKeepsWhereTextsStand) {
    demo();
    const auto written = [&](Vec2 centre) {
        const ViewTransform view = viewAt(centre, 5, {1000, 700});
        TextRecorder recorder(view.size);
        QPainter painter(&recorder);
        PlanOptions options;
        options.off = {objects::PlanPart::GridCrosses};
        PlanPainter(painter, *window->session().snapshot(), view, planLayers(), options).paint();
        painter.end();
        // On the ground, to the nearest third of a pixel.
        std::set<std::tuple<std::string, long, long>> out;
        for (const auto& w : recorder.written()) {
            const QPointF p(w.box.centre.x, w.box.centre.y);
            if (!QRectF(150, 150, 700, 400).contains(p)) continue;
            const Vec2 g = view.toGround(p);
            out.insert({w.text.toStdString(), std::lround(g.x * 15), std::lround(g.y * 15)});
        }
        return out;
    };
    const auto first = written({48110, 91100});
    EXPECT_GT(first.size(), 20U);
    for (const double by : {3.0, 11.0, 20.0}) {
        const auto next = written({48110 + by, 91100 - by / 2});
        std::size_t kept = 0;
        std::size_t there = 0;
        for (const auto& [text, x, y] : first) {
            // Those that are in the inner part of both pictures.
            const Vec2 g{static_cast<double>(x) / 15, static_cast<double>(y) / 15};
            const ViewTransform view = viewAt({48110 + by, 91100 - by / 2}, 5, {1000, 700});
            if (!QRectF(155, 155, 690, 390).contains(view.toPicture(g))) continue;
            ++there;
            bool found = false;
            for (const long dx : {-1L, 0L, 1L})
                for (const long dy : {-1L, 0L, 1L}) found = found || next.count({text, x + dx, y + dy}) != 0;
            kept += found ? 1 : 0;
        }
        EXPECT_EQ(kept, there) << by;
        EXPECT_GT(there, 10U);
    }
}

TEST_F(Labels, DimensionsAreMadeByPicksAndFollow) {
    site();
    run("dimension");
    click({0, 0});
    click({60, 0});
    EXPECT_TRUE(prompt().contains(QStringLiteral("where the dimension line")));
    click({30, -8});
    ASSERT_EQ(doc().all<objects::Dimension>().size(), 1U);
    const ObjectId made = doc().all<objects::Dimension>()[0];
    EXPECT_EQ(derived().dimensions.at(made)->spans.front().text, "60.00");
    EXPECT_NEAR(doc().get<objects::Dimension>(made)->line.offset, 8, 0.2);
    // The line is dragged by its text, the corner by itself.
    key(Qt::Key_Escape);
    window->session().selection().set({});
    window->settle();
    drag({30, -8}, {30, -12});
    drop({30, -12});
    EXPECT_NEAR(doc().get<objects::Dimension>(made)->line.offset, 12, 0.3);
    drag({60, 0}, {50, 0});
    drop({50, 0});
    EXPECT_EQ(derived().dimensions.at(made)->spans.front().text, "50.00");
    run("dimension");
    type(QStringLiteral("radius"));
    click({20, 0});  // no arc
    EXPECT_EQ(window->tool()->chips().back().value, QString());
    const Vec2 onArc = pointAt(derived().lines.at(wall)->path[1], 0.5);
    click(onArc);
    click(onArc + Vec2{-5, 2});
    ASSERT_EQ(doc().all<objects::Dimension>().size(), 2U);
    // A chain takes places until Enter; one too many is taken back; its line is typed.
    type(QStringLiteral("chain"));
    click({0, 0});
    click({30, 20});
    click({50, 0});
    key(Qt::Key_Backspace);
    click({50, 0});
    key(Qt::Key_Return);
    type(QStringLiteral("-5"));
    ASSERT_EQ(doc().all<objects::Dimension>().size(), 3U);
    EXPECT_EQ(derived().dimensions.at(doc().all<objects::Dimension>()[2])->spans.size(), 2U);
    type(QStringLiteral("nonsense"));
    EXPECT_EQ(doc().all<objects::Dimension>().size(), 3U);
    key(Qt::Key_Escape);
    // The wall goes: the dimensions say so, and one click keeps them where they were.
    put(QStringLiteral("Remove"), doc().without(wall));
    window->settle();
    std::size_t lost = 0;
    for (const auto& f : window->session().snapshot()->findings) lost += f.kind == "lost-dimension" ? 1 : 0;
    EXPECT_EQ(lost, 3U);
}

TEST_F(Labels, ATableIsSortedByItsHeadingAndStandsOnTheSheet) {
    demo();
    select(named<objects::Points>("survey"));
    run("new-table");
    auto* table = window->tables()->recordTable();
    const ObjectId id = doc().all<objects::Table>().back();
    QTRY_VERIFY(table->settled());
    window->settle();
    ASSERT_GT(table->model()->rowCount(), 100);
    QTest::mouseClick(table->horizontalHeader()->viewport(), Qt::LeftButton, {},
                      QPoint(table->horizontalHeader()->sectionViewportPosition(4) + 10, 8));
    window->settle();
    EXPECT_EQ(doc().get<objects::Table>(id)->by, "height");
    QTRY_VERIFY(table->settled());
    window->settle();
    const auto height = [&](int row) {
        return table->rows().rows[static_cast<std::size_t>(row)].cells[4].figure;
    };
    EXPECT_LE(*height(0), *height(1));
    // Six hundred rows do not fit a sheet: the last line says how many are missing, and nothing overlaps.
    const ObjectId sheet = doc().all<objects::Sheet>().front();
    const ObjectId areas = named<objects::Table>("Areas");
    std::size_t frame = 0;
    while (doc().get<objects::Sheet>(sheet)->frames[frame].content !=
           objects::FrameContent(objects::TableFrame{areas}))
        ++frame;
    window->session().edit(QStringLiteral("another"), operations::changeFrame<objects::TableFrame>(
                                                          sheet, frame, [&](auto& f) { f.of = id; }));
    window->settle();
    TextRecorder recorder({420 * 20, 297 * 20});
    QPainter painter(&recorder);
    paintSheet(painter, *window->session().snapshot(), sheet, 20);
    painter.end();
    const bool said = std::any_of(recorder.written().begin(), recorder.written().end(), [](const auto& w) {
        return w.text.contains(QStringLiteral("more rows have no room"));
    });
    EXPECT_TRUE(said);
    EXPECT_EQ(recorder.overlaps(), 0U);
    const QString csv = QString::fromStdString(folder / "t.csv");
    ASSERT_TRUE(window->tables()->exportTo(csv));
    EXPECT_GT(QFileInfo(csv).size(), 1000);
}

TEST_F(Labels, TheRecorderSeesTextsThatLieOnEachOther) {
    TextRecorder recorder({200, 200});
    QPainter painter(&recorder);
    painter.setFont(theme::font(14));
    painter.drawText(QPointF(20, 50), QStringLiteral("one text"));
    painter.drawText(QPointF(40, 54), QStringLiteral("another"));
    painter.translate(100, 100);
    painter.rotate(90);
    painter.drawText(QRectF(0, 0, 80, 20), Qt::AlignLeft, QStringLiteral("turned"));
    painter.end();
    ASSERT_EQ(recorder.written().size(), 3U);
    EXPECT_EQ(recorder.overlaps(), 1U);
    EXPECT_NEAR(recorder.written()[2].box.turn, M_PI / 2, 1e-6);
}

}  // namespace
}  // namespace erdwerk::app
