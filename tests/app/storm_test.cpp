// Hundreds of quick actions without waiting for results; the history is then undone and redone to equal
// documents.

#include <QTableView>
#include <QTreeWidget>
#include <thread>

#include "app/base/open_project.h"
#include "core/linework/offset_row.h"
#include "core/objects/line.h"
#include "core/objects/points.h"
#include "core/operations/derived_lines.h"
#include "core/operations/dimensions.h"
#include "core/operations/labels.h"
#include "core/operations/objects.h"
#include "core/operations/plan_move.h"
#include "core/operations/plan_shape.h"
#include "core/operations/points.h"
#include "core/operations/records.h"
#include "core/operations/shape.h"
#include "storm_base.h"

namespace erdwerk::app {
namespace {

using geometry::Vec2;

class Storm : public StormTest {
protected:
    std::vector<Action> lineActions() {
        const auto on = [this](auto edit) {
            return [this, edit] {
                const ObjectId id = any<objects::Line>();
                return id && quick("line", edit(id));
            };
        };
        return {
            on([this](ObjectId id) {
                return operations::insertCorner({id, {}, anySide(id), 0.4});
            }),
            on([this](ObjectId id) {
                return operations::insertGradePoint({id, {}, anySide(id), 0.37});
            }),
            on([this](ObjectId id) { return operations::removeVertex(id, anyVertex(id)); }),
            on([this](ObjectId id) {
                const std::size_t v = anyVertex(id);
                return operations::moveVertex(id, v, line(id).vertices[v].place + Vec2{step(), step()});
            }),
            on([this](ObjectId id) {
                return operations::splitLine(window->session().results(), {id, anyVertex(id), 0, 0});
            }),
            on([this](ObjectId id) {
                return operations::joinLines(window->session().results(), id, any<objects::Line>());
            }),
            on([](ObjectId id) { return operations::reverseLine(id); }),
            on([](ObjectId id) { return operations::closeLine(id); }),
            on([this](ObjectId id) { return operations::makeLabel(id, {}, anySide(id)); }),
            on([](ObjectId id) { return operations::labelMany({id}, {}); }),
            on([](ObjectId id) { return operations::relabel({id}); }),
            on([this](ObjectId id) {
                return operations::dragLabel(any<objects::Label>(), line(id).vertices[0].place);
            }),
            on([this](ObjectId id) {
                const objects::Anchor corner{objects::Anchor::On::Vertex, id, anyVertex(id)};
                const objects::Anchor side{objects::Anchor::On::Side, any<objects::Line>(), 0};
                return operations::newDimension(annotate::DimensionKind::Aligned, {corner, side},
                                                {step(), {}});
            }),
            on([this](ObjectId) {
                return operations::dragDimension(any<objects::Dimension>(), {48000 + step(), 91000 + step()});
            }),
            on([this](ObjectId id) {
                return operations::setTypedRule(id, anyVertex(id), pick(2) == 0 ? "2%" : "=Ground+0.10");
            }),
        };
    }
    /// Shape in plan and lines from lines, on whatever comes to hand.
    std::vector<Action> shapeActions() {
        const auto on = [this](auto edit) {
            return [this, edit] {
                const ObjectId id = any<objects::Line>();
                return id && quick("shape", edit(id, window->session().results()));
            };
        };
        using operations::Results;
        const auto place = [this](ObjectId id) { return operations::LinePlace{id, {}, anySide(id), 0.3}; };
        return {
            on([=](ObjectId id, const Results& s) {
                return operations::cutStretchOut(s, place(id), place(id));
            }),
            on([](ObjectId id, const Results& s) { return operations::splitAtCrossings(s, id); }),
            on([=, this](ObjectId id, const Results& s) {
                return operations::reachLine(s, place(id), any<objects::Line>());
            }),
            on([this](ObjectId id, const Results& s) {
                return operations::roundCorner(s, id, anyVertex(id), 1 + std::abs(step()));
            }),
            on([this](ObjectId id, const Results& s) {
                return operations::setArcRadius(s, id, anySide(id), 5 + step());
            }),
            on([this](ObjectId id, const Results&) {
                const auto side = anySide(id);
                const auto middle = pointAt(planPath(line(id))[side], 0.5);
                return operations::setSide(id, side, middle + Vec2{step(), step()});
            }),
            on([this](ObjectId id, const Results& s) {
                return operations::fitArc(s, id, anyVertex(id), anyVertex(id));
            }),
            on([](ObjectId id, const Results& s) { return operations::smoothLine(s, id); }),
            on([](ObjectId id, const Results& s) {
                return document::atOnce(
                    operations::thinLines(s, {id}, {.deviation = 0.5, .angle = {}, .spacing = 0}));
            }),
            on([this](ObjectId id, const Results& s) {
                linework::OffsetOptions options;
                options.right = pick(2) == 0;
                options.chained = pick(2) == 0;
                return operations::offsetRows(
                    s, id, {*linework::parseOffsetRow("0.5,-2%"), *linework::parseOffsetRow("1,=")}, options,
                    any<objects::Surface>(), pick(4) == 0);
            }),
            on([this](ObjectId id, const Results& s) {
                return operations::meetLines(s, id, any<objects::Line>(),
                                             {Grade::percent(-50), Grade::percent(-40)});
            }),
            on([](ObjectId id, const Results& s) { return operations::loosen(s, {id}); }),
            on([](ObjectId id, const Results&) { return operations::setTypedRow(id, "0.8,+0.1"); }),
            on([=](ObjectId id, const Results& s) {
                return operations::levelWith(s, {place(id), place(id)}, 320);
            }),
            on([this](ObjectId id, const Results& s) {
                return operations::lift(s, {{id, {}}}, step());
            }),
        };
    }
    /// Of whole lines and whole projects.
    std::vector<Action> wholeActions() {
        return {
            [this] {
                const ObjectId id = any<objects::Line>();
                return id && quick("limits", operations::setTypedLimits(id, "0.5% to 6%"));
            },
            [this] {
                const ObjectId id = any<objects::Line>();
                const bool copy = doc().all<objects::Line>().size() < 40;
                return id && quick("move", operations::movePlan({{id, {}}},
                                                                linework::PlanMove::turned(
                                                                    Angle::degrees(step()), {48100, 91100}),
                                                                copy));
            },
            [this] {
                const ObjectId id = any<objects::Line>();
                const auto rule = "=" + linework::nameText(doc().nameOf(any<objects::Line>())) + "+0.1";
                return id && quick("across", operations::setTypedRule(id, anyVertex(id), rule));
            },
        };
    }
    std::vector<Action> otherActions() {
        return {
            [this] {
                const ObjectId set = any<objects::Points>();
                const std::size_t i = pick(points(set).size());
                const Vec2 to = points(set)[0].plan + Vec2{step(), step()};
                return quick("point", operations::movePoint({set, i}, to));
            },
            [this] {
                const ObjectId set = any<objects::Points>();
                return quick("remove points", operations::remove({}, {{set, pick(points(set).size())}}));
            },
            [this] {
                return doc().all<objects::Line>().size() > 8 &&
                       quick("delete", operations::remove({any<objects::Line>()}, {}));
            },
            [this] {
                window->session().undo();
                window->session().redo();
                return false;
            },
        };
    }
    /// Types into any cell that can be typed into.
    bool cell(QTableWidget* table, const QStringList& texts) {
        if (table->rowCount() == 0 || table->columnCount() == 0) return false;
        const int row = static_cast<int>(pick(static_cast<std::size_t>(table->rowCount())));
        const int column = static_cast<int>(pick(static_cast<std::size_t>(table->columnCount())));
        auto* item = table->item(row, column);
        if (item == nullptr || !item->flags().testFlag(Qt::ItemIsEditable)) return false;
        item->setText(texts[static_cast<qsizetype>(pick(static_cast<std::size_t>(texts.size())))]);
        return true;
    }
    bool pageCell(Bench::Page page, ObjectId id, QTableWidget* table, const QStringList& texts) {
        window->bench()->open(page);
        if (id) window->session().selection().set({{id, std::nullopt}});
        return cell(table, texts);
    }
    /// What a person does on the pages of the bench and in the panels, without waiting.
    std::vector<Action> pageActions() {
        const auto open = [this](Bench::Page page) { window->bench()->open(page); };
        return {
            [this] {
                return pageCell(Bench::Page::Grades, any<objects::Line>(), window->grades()->table(),
                                {"101.5", "2%", "-1:3", "+0.2", "nonsense", ""});
            },
            [this] {
                return pageCell(Bench::Page::Profile, any<objects::Profile>(), window->profile()->table(),
                                {"60", "2%", "318.25", "0+080", "x"});
            },
            [=, this] {
                open(Bench::Page::Findings);
                auto* list = window->findings()->list();
                if (list->topLevelItemCount() == 0) return false;
                list->setCurrentItem(list->topLevelItem(
                    static_cast<int>(pick(static_cast<std::size_t>(list->topLevelItemCount())))));
                QTest::keyClick(list, std::array{Qt::Key_1, Qt::Key_2, Qt::Key_3}[pick(3)]);
                return true;
            },
            [=, this] {
                open(Bench::Page::Fit);
                auto* add = window->fit()->findChild<QPushButton*>(QStringLiteral("addSourcePoint"));
                add->click();
                return true;
            },
            [=, this] {
                open(Bench::Page::Tables);
                auto* model = window->tables()->points()->model();
                if (model == nullptr || model->rowCount() == 0) return false;
                const auto at =
                    model->index(static_cast<int>(pick(static_cast<std::size_t>(model->rowCount()))),
                                 static_cast<int>(pick(static_cast<std::size_t>(model->columnCount()))));
                return model->setData(at, std::array{QStringLiteral("12"), QStringLiteral("abc")}[pick(2)]);
            },
            [=, this] {
                open(Bench::Page::Volumes);
                const auto surfaces = doc().all<objects::Surface>();
                window->volumes()->choose(surfaces[pick(surfaces.size())], surfaces[pick(surfaces.size())]);
                return true;
            },
            [=, this] {
                open(Bench::Page::Section);
                if (const ObjectId id = any<objects::Line>()) window->session().selection().set({{id, {}}});
                return true;
            },
            [=, this] {
                open(Bench::Page::History);
                const auto& steps = window->session().history().steps();
                window->session().goTo(steps.size() - 1 - pick(std::min<std::size_t>(steps.size(), 3)));
                return true;
            },
        };
    }
    /// In facts and contents, and by keys.
    std::vector<Action> panelActions() {
        return {
            [this] {
                // An entry of the facts, of whatever is selected.
                const auto entries = window->facts()->findChildren<QLineEdit*>();
                if (entries.isEmpty()) return false;
                auto* entry = entries[static_cast<qsizetype>(pick(static_cast<std::size_t>(entries.size())))];
                entry->setFocus();
                entry->selectAll();
                QTest::keyClicks(entry, std::array{QStringLiteral("7"), QStringLiteral("2%"),
                                                   QStringLiteral("Pit")}[pick(3)]);
                QTest::keyClick(entry, Qt::Key_Return);
                return true;
            },
            [this] {
                const auto& all = doc().objects();
                auto it = all.begin();
                std::advance(it, static_cast<std::ptrdiff_t>(pick(all.size())));
                window->session().selection().set({{it->first, {}}});
                return true;
            },
            [this] {
                runQuick({"undo", "redo", "reverse-line", "close-line"});
                return true;
            },
        };
    }
    /// Edits that take their time, with others asked for meanwhile.
    std::vector<Action> longActions() {
        return {
            [this] {
                const ObjectId id = any<objects::Line>();
                if (!id) return false;
                window->session().longEdit(
                    QStringLiteral("thin down"),
                    operations::thinLines(window->session().results(), {id},
                                          {.deviation = 0.2, .angle = {}, .spacing = 0}));
                return true;
            },
            [this] {
                const ObjectId set = any<objects::Points>();
                window->session().longEdit(
                    QStringLiteral("wait, then rename"),
                    [set, name = "Set " + std::to_string(pick(1000)), ms = pick(8)](
                        const document::Document& d, const Context& context) -> Result<document::Edited> {
                        std::this_thread::sleep_for(std::chrono::milliseconds(ms));
                        if (context.isCancelled()) return cancelled();
                        return operations::rename(set, name)(d);
                    });
                return true;
            },
            [this] {
                if (pick(3) == 0) window->session().cancelWork();
                return false;
            },
        };
    }
    /// An action as from a key: not waited for.
    void runQuick(const std::vector<const char*>& ids) {
        window->actions().run(QString::fromLatin1(ids[pick(ids.size())]));
    }
};

TEST_F(Storm, OfQuickEditsIsUndoneAndRedoneToEqualDocuments) {
    demo();
    auto actions = lineActions();
    for (auto& action : otherActions()) actions.push_back(std::move(action));
    std::vector<document::Document> after{doc()};
    for (int i = 0; i < 500; ++i) {
        if (actions[pick(actions.size())]() && !difference(after.back(), doc()).empty())
            after.push_back(doc());
        expectNothingDangles(i);
    }
    EXPECT_GT(after.size(), 150U);
    auto& session = window->session();
    ASSERT_EQ(session.history().steps().size(), after.size());
    for (std::size_t k = after.size() - 1; k-- > 0;) {
        session.undo();
        ASSERT_TRUE(difference(doc(), after[k]).empty()) << k;
    }
    for (std::size_t k = 1; k < after.size(); ++k) {
        session.redo();
        ASSERT_TRUE(difference(doc(), after[k]).empty()) << k;
    }
    window->settle();
}

TEST_F(Storm, OfEditsThatTakeTheirTimeKeepsWhatIsDone) {
    savedDemo();
    auto actions = lineActions();
    for (auto& action : otherActions()) actions.push_back(std::move(action));
    const auto slow = longActions();
    int done = 0;
    for (int i = 0; i < 250; ++i) {
        const auto& all = pick(3) == 0 ? slow : actions;
        done += all[pick(all.size())]() ? 1 : 0;
        if (pick(4) == 0) QCoreApplication::processEvents();
        expectNothingDangles(i);
    }
    window->settle();
    EXPECT_GT(done, 100);
    EXPECT_TRUE(window->session().editing().isEmpty());
    expectHistoryHolds();
    window->settle();
    EXPECT_TRUE(difference(derived().document, doc()).empty());
}

TEST_F(Storm, OnEveryPageLosesNothing) {
    savedDemo();
    window->session().edit(QStringLiteral("profile"),
                           operations::newProfile(named<objects::Alignment>("Starling Lane"),
                                                  named<objects::Surface>("Ground")));
    window->settle();
    auto pages = pageActions();
    for (auto& action : panelActions()) pages.push_back(std::move(action));
    const auto lines = lineActions();
    const auto steps = window->session().history().steps().size();
    int done = 0;
    for (int i = 0; i < 300; ++i) {
        done += pick(4) == 0 ? lines[pick(lines.size())]() : pages[pick(pages.size())]();
        // Now and then what is queued has its turn; results come when they come.
        if (pick(3) == 0) QCoreApplication::processEvents();
        expectNothingDangles(i);
    }
    window->settle();
    EXPECT_GT(done, 150);
    EXPECT_GT(window->session().history().steps().size(), steps + 20);
    expectHistoryHolds();
    window->settle();
    // Results are those of the document as it is.
    EXPECT_TRUE(difference(derived().document, doc()).empty());
}

TEST_F(Storm, OfShapesKeepsLinesThatFollowInStep) {
    savedDemo();
    auto actions = shapeActions();
    for (auto& action : wholeActions()) actions.push_back(std::move(action));
    for (auto& action : lineActions()) actions.push_back(std::move(action));
    int done = 0;
    for (int i = 0; i < 300; ++i) {
        done += actions[pick(actions.size())]() ? 1 : 0;
        expectNothingDangles(i);
        if (pick(5) == 0) window->session().undo();
        if (pick(3) == 0) window->settle();
    }
    window->settle();
    EXPECT_GT(done, 80);
    // What was worked out step by step is what comes of the document alone.
    const auto fresh = test::valueOf(derive::evaluate(doc()));
    for (const ObjectId id : doc().all<objects::Line>()) {
        ASSERT_EQ(derived().lines.at(id)->vertices.size(), derived().definition(id)->vertices.size());
        ASSERT_EQ(fresh.lines.at(id)->vertices.size(), derived().lines.at(id)->vertices.size());
        for (std::size_t v = 0; v < fresh.lines.at(id)->vertices.size(); ++v)
            // Triangles of a surface that was changed where it had to be have their corners in another order.
            EXPECT_NEAR(fresh.lines.at(id)->vertices[v].height.value_or(-1),
                        derived().lines.at(id)->vertices[v].height.value_or(-1), 1e-6)
                << doc().nameOf(id) << ", point " << v + 1;
    }
    expectHistoryHolds();
    window->settle();
}

}  // namespace
}  // namespace erdwerk::app
