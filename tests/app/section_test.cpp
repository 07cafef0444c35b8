#include "app/section/section_view.h"

#include <gtest/gtest.h>

#include <QApplication>
#include <QMouseEvent>
#include <QtTest/QTest>
#include <array>

#include "app/plan/plan_painter.h"
#include "app/window/finder.h"

namespace erdwerk::app {
namespace {

SectionData sample(double exaggeration) {
    SectionData data;
    data.series.push_back({QStringLiteral("Design"), Qt::black, 2, false, {{0, 10.0}, {100, 12.0}}});
    data.series.push_back({QStringLiteral("Ground"), Qt::gray, 1, false, {{0, 11.0}, {50, {}}, {100, 11.0}}});
    data.handles = {{0, 10, QStringLiteral("10.00"), true, false},
                    {100, 12, QStringLiteral("12.00"), true, true}};
    data.exaggeration = exaggeration;
    return data;
}

TEST(Section, ShowsTheWantedExaggerationWhenItFits) {
    SectionView view;
    view.resize(800, 400);
    view.setData(sample(5));
    EXPECT_NEAR(view.shownExaggeration(), 5, 1e-9);
    view.setData(sample(1000));  // two units of height would be higher than the view
    EXPECT_LT(view.shownExaggeration(), 1000);
}

TEST(Section, DragsGiveHeightsAndStayInPlaceUnlessTheyMayMove) {
    SectionView view;
    view.resize(800, 300);
    view.setData(sample(0));
    view.show();
    std::vector<std::array<double, 3>> released;
    QObject::connect(&view, &SectionView::handleReleased, &view, [&](std::size_t i, double d, double h) {
        released.push_back({double(i), d, h});
    });
    for (std::size_t i = 0; i < 2; ++i) {
        const QPoint from = view.handlePosition(i).toPoint();
        const QPoint to = from + QPoint(i == 0 ? 30 : -30, 20);
        QTest::mousePress(&view, Qt::LeftButton, {}, from);
        QMouseEvent move(QEvent::MouseMove, QPointF(to), view.mapToGlobal(QPointF(to)), Qt::NoButton,
                         Qt::LeftButton, Qt::NoModifier);
        QApplication::sendEvent(&view, &move);
        QTest::mouseRelease(&view, Qt::LeftButton, {}, to);
    }
    ASSERT_EQ(released.size(), 2U);
    EXPECT_EQ(released[0][1], 0);
    EXPECT_LT(released[0][2], 10);
    EXPECT_LT(released[1][1], 100);
    EXPECT_LT(released[1][2], 12);
}

TEST(Section, PaintsWithNothingInItAndThenWhatComes) {
    SectionView view;
    view.resize(300, 150);
    view.setData({});
    const QImage empty = view.grab().toImage();
    // One colour of paper, whatever is said of it.
    EXPECT_EQ(empty.pixelColor(5, 5), empty.pixelColor(295, 145));
    SectionData one;
    one.handles.push_back({5, 7, QStringLiteral("7"), true, false});
    view.setData(one);
    EXPECT_NE(view.grab().toImage(), empty);
    view.setData({});
    EXPECT_EQ(view.grab().toImage(), empty);
}

TEST(RoundStep, IsOneTwoOrFiveTimesAPowerOfTen) {
    EXPECT_DOUBLE_EQ(roundStep(0.9), 1);
    EXPECT_DOUBLE_EQ(roundStep(1.1), 2);
    EXPECT_DOUBLE_EQ(roundStep(33), 50);
    EXPECT_DOUBLE_EQ(roundStep(0.021), 0.05);
    EXPECT_DOUBLE_EQ(roundStep(5), 5);
}

TEST(MatchScore, PrefersStartsOfWordsAndNeedsAllLetters) {
    EXPECT_FALSE(matchScore(QStringLiteral("xyz"), QStringLiteral("Draw 3D line")));
    EXPECT_GT(*matchScore(QStringLiteral("dl"), QStringLiteral("Drape a line")),
              *matchScore(QStringLiteral("dl"), QStringLiteral("Undo all")));
    EXPECT_TRUE(matchScore(QString(), QStringLiteral("anything")));
}

}  // namespace
}  // namespace erdwerk::app
