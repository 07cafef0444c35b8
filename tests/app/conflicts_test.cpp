// The conflict list in the real window, worked through with the keyboard.

#include <QCheckBox>
#include <QTreeWidget>
#include <random>

#include "app/base/open_project.h"
#include "app/tools/trace_crease.h"
#include "core/format/output.h"
#include "core/linework/line3d.h"
#include "core/objects/line.h"
#include "core/objects/points.h"
#include "core/objects/surface.h"
#include "core/operations/points.h"
#include "core/operations/surfaces.h"
#include "plateau.h"
#include "support/after_edit.h"

namespace erdwerk::app {
namespace {

class Conflicts : public PlateauTest {};

/// Level ground with a hundred pairs of breaklines that cross half a unit apart.
document::Document hundredConflicts() {
    document::Document d;
    std::vector<survey::SurveyPoint> points;
    for (int y = 0; y <= 11; ++y)
        for (int x = 0; x <= 11; ++x)
            points.push_back({std::to_string(points.size() + 1), {x * 20.0, y * 20.0}, 10.0, "", ""});
    ObjectId set;
    d = test::afterEdit(d, operations::addPoints("s", std::move(points)), &set);
    std::vector<objects::Source> sources{{set, objects::Role::Points}};
    std::mt19937 random(3);
    for (int k = 0; k < 100; ++k) {
        const Vec2 c{5 + 20.0 * (k % 10) + static_cast<double>(random() % 5), 5 + 20.0 * (k / 10)};
        for (const bool second : {false, true}) {
            ObjectId id;
            const Vec2 along = second ? Vec2{1, 4} : Vec2{4, 1};
            d = d.added((second ? "B" : "A") + std::to_string(k),
                        objects::Line{linework::lineThrough({c + along * -1, c + along},
                                                            {second ? 11.0 : 10.5, second ? 11.0 : 10.5}),
                                      objects::LineStyle::Plain},
                        &id);
            sources.push_back({id, objects::Role::Breakline});
        }
    }
    return test::afterEdit(d, operations::addSurface("G", sources));
}

TEST_F(Conflicts, AHundredConflictsAreWorkedThroughWithTheKeyboardAlone) {
    const auto d = hundredConflicts();
    window->session().project().startNew(d);
    window->settle();
    auto* list = window->findings()->list();
    window->bench()->open(Bench::Page::Findings);
    ASSERT_GE(list->topLevelItemCount(), 100);
    const auto crossings = [&] {
        return std::count_if(window->session().snapshot()->findings.begin(),
                             window->session().snapshot()->findings.end(),
                             [](const auto& f) { return f.kind == "crossing-breaklines"; });
    };
    ASSERT_EQ(crossings(), 100);
    list->setFocus();
    QTest::keyClick(list, Qt::Key_Return);
    window->settle();
    // The first is accepted with a reason, the others get the mean, one key each.
    QTest::keyClick(list, Qt::Key_A);
    auto* reason = window->findings()->findChild<QLineEdit*>(QStringLiteral("reason"));
    ASSERT_TRUE(reason->isVisible());
    QTest::keyClicks(reason, QStringLiteral("bridge"));
    QTest::keyClick(reason, Qt::Key_Return);
    window->settle();
    EXPECT_EQ(crossings(), 99);
    ASSERT_EQ(doc().settings().accepted.size(), 1U);
    EXPECT_EQ(doc().settings().accepted.front().reason, "bridge");
    for (int k = 0; k < 99; ++k) {
        QTest::keyClick(list, Qt::Key_3);
        window->settle();
    }
    EXPECT_EQ(crossings(), 0);
    EXPECT_EQ(window->session().history().position(), 100U);
    // What was accepted can be taken back.
    auto* show = window->findings()->findChild<QCheckBox*>(QStringLiteral("showAccepted"));
    ASSERT_TRUE(show->isVisible());
    const auto labels = window->findings()->findChildren<QLabel*>();
    EXPECT_TRUE(std::any_of(labels.begin(), labels.end(), [](const QLabel* l) {
        return l->text().contains(QStringLiteral("99 fixed")) &&
               l->text().contains(QStringLiteral("1 accepted"));
    }));
    const int rows = list->topLevelItemCount();
    show->click();
    ASSERT_EQ(list->topLevelItemCount(), rows + 1);
    auto* back = qobject_cast<QPushButton*>(list->itemWidget(list->topLevelItem(rows), 2));
    ASSERT_NE(back, nullptr);
    back->click();
    window->settle();
    EXPECT_EQ(crossings(), 1);
    EXPECT_TRUE(doc().settings().accepted.empty());
}

TEST_F(Conflicts, AFixOfAnEarlierStateIsNotApplied) {
    demo();
    auto* list = window->findings()->list();
    window->bench()->open(Bench::Page::Findings);
    const auto& findings = window->session().snapshot()->findings;
    const auto same =
        std::find_if(findings.begin(), findings.end(), [](const auto& f) { return f.kind == "same-place"; });
    ASSERT_NE(same, findings.end());
    list->setFocus();
    list->setCurrentItem(list->topLevelItem(static_cast<int>(same - findings.begin())));
    const auto count = [&] {
        return doc().get<objects::Points>(named<objects::Points>("survey"))->set.size();
    };
    const auto before = count();
    // Twice at once: the second would name points by numbers that have moved.
    QTest::keyClick(list, Qt::Key_1);
    QTest::keyClick(list, Qt::Key_1);
    EXPECT_EQ(count(), before - 1);
    EXPECT_EQ(window->session().history().position(), 1U);
    window->settle();
}

TEST_F(Conflicts, TheCreaseOfAFindingIsFollowedOnTheSource) {
    demo();
    const ObjectId ground = named<objects::Surface>("Ground");
    const ObjectId knoll = named<objects::Cloud>("knoll");
    put(QStringLiteral("against"), document::changed<objects::Surface>(
                                       doc(), ground, [&](objects::Surface& s) { s.fit.source = knoll; }));
    window->settle();
    select(ground);
    Q_EMIT window->fit()->tracePressed(ground);
    auto* tool = crease<TraceCreaseTool>();
    ASSERT_NE(tool, nullptr);
    EXPECT_EQ(tool->chips().front().value, QStringLiteral("knoll"));
}

TEST_F(Conflicts, FindingsAreWrittenAsCsv) {
    demo();
    const std::string path = folder / "findings.csv";
    ASSERT_TRUE(window->findings()->exportTo(QString::fromStdString(path)));
    const auto text = test::valueOf(format::readFile(path));
    EXPECT_THAT(text, testing::HasSubstr("crossing-breaklines"));
    EXPECT_FALSE(window->findings()->exportTo(QStringLiteral("/nowhere/at/all/f.csv")));
}

}  // namespace
}  // namespace erdwerk::app
