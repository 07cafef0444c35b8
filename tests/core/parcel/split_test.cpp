#include "core/parcel/split.h"

#include <numbers>

#include "core/parcel/description_corpus.h"
#include "support/geometry.h"

namespace erdwerk::parcel {
namespace {

using testing::HasSubstr;

double areaOf(const Path& path) {
    return std::abs(geometry::signedArea(path));
}

/// 100 east, 60 north; counter-clockwise.
Path rectangle() {
    return {
        {{0, 0}, {100, 0}, {}}, {{100, 0}, {100, 60}, {}}, {{100, 60}, {0, 60}, {}}, {{0, 60}, {0, 0}, {}}};
}

/// A whole circle of radius 10 in two arcs.
Path circle() {
    return {{{-10, 0}, {10, 0}, Vec2{0, 10}}, {{10, 0}, {-10, 0}, Vec2{0, -10}}};
}

TEST(AreaRightOf, OfARectangleAndACircle) {
    EXPECT_NEAR(areaRightOf(rectangle(), {30, 0}, Angle::degrees(0)), 70 * 60, 1e-9);
    EXPECT_NEAR(areaRightOf(rectangle(), {30, 0}, Angle::degrees(180)), 30 * 60, 1e-9);
    EXPECT_NEAR(areaRightOf(rectangle(), {0, 0}, Angle::degrees(45)), 0.5 * 60 * 60 + 40 * 60, 1e-9);
    EXPECT_NEAR(areaRightOf(geometry::reversed(rectangle()), {30, 0}, Angle::degrees(0)), 70 * 60, 1e-9);
    // A segment of height 4 of a circle: r² acos((r - h) / r) - (r - h) sqrt(2 r h - h²).
    const double segment = 100 * std::acos(0.6) - 6 * std::sqrt(2 * 10 * 4 - 16.0);
    EXPECT_NEAR(areaRightOf(circle(), {6, 0}, Angle::degrees(0)), segment, 1e-9);
    EXPECT_NEAR(areaRightOf(circle(), {6, 0}, Angle::degrees(180)), 100 * std::numbers::pi - segment, 1e-9);
    EXPECT_NEAR(areaRightOf(circle(), {20, 0}, Angle::degrees(0)), 0, 1e-9);
}

TEST(Split, AlongALine) {
    const auto parts = splitAlong(rectangle(), {30, -5}, {30, 70});
    ASSERT_TRUE(parts) << parts.error().text;
    EXPECT_NEAR(areaOf(parts->first), 70 * 60, 1e-9);
    EXPECT_NEAR(areaOf(parts->second), 30 * 60, 1e-9);
    EXPECT_EQ(parts->first.back().start, parts->second.front().end);
    EXPECT_FALSE(splitAlong(rectangle(), {200, 0}, {200, 1}));
    EXPECT_FALSE(splitAlong(rectangle(), {2, 0}, {2, 0}));
    Path open = rectangle();
    open.pop_back();
    EXPECT_THAT(splitAlong(open, {30, -5}, {30, 70}).error().text, HasSubstr("closed"));
    // A U is cut into three.
    const auto corners = test::places("0 0, 100 0, 100 80, 80 80, 80 20, 20 20, 20 80, 0 80");
    Path u;
    for (std::size_t i = 0; i < corners.size(); ++i)
        u.push_back({corners[i], corners[(i + 1) % corners.size()], {}});
    EXPECT_THAT(splitAlong(u, {-5, 50}, {105, 50}).error().text, HasSubstr("4 times"));
}

TEST(Split, ByAreaIsExact) {
    auto parts = splitOffParallel(rectangle(), 3, 1500);
    ASSERT_TRUE(parts) << parts.error().text;
    EXPECT_NEAR(areaOf(parts->first), 1500, 1e-9);
    EXPECT_NEAR(parts->first.back().start.x, 25, 1e-9);
    parts = splitOffParallel(geometry::reversed(rectangle()), 0, 1500);
    ASSERT_TRUE(parts) << parts.error().text;
    EXPECT_NEAR(areaOf(parts->first), 1500, 1e-9);
    // From the corner: a triangle of 60 by 50 is 1500.
    parts = splitOffThrough(rectangle(), {0, 0}, 1500);
    ASSERT_TRUE(parts) << parts.error().text;
    EXPECT_NEAR(areaOf(parts->first), 1500, 1e-9);
    EXPECT_FALSE(splitOffParallel(rectangle(), 0, 6000));
    EXPECT_FALSE(splitOffParallel(rectangle(), 0, 0));
    EXPECT_FALSE(splitOffParallel(rectangle(), 9, 10));
    EXPECT_FALSE(splitOffThrough(rectangle(), {50, 30}, 10));
    EXPECT_FALSE(splitOffParallel(circle(), 0, 10));
}

TEST(Split, OfRandomFiguresWithArcs) {
    int parallel = 0;
    int through = 0;
    for (unsigned seed = 0; seed < 300; ++seed) {
        SCOPED_TRACE(seed);
        std::mt19937 random(seed);
        Path figure = madeUpFigure(random, 80);
        if (seed % 2 == 1) figure = geometry::reversed(figure);
        const double whole = areaOf(figure);
        const double wanted = whole * std::uniform_real_distribution<double>(0.1, 0.9)(random);
        const auto check = [&](const SplitFigure& parts) {
            EXPECT_NEAR(areaOf(parts.first), wanted, 1e-8 * whole);
            EXPECT_NEAR(areaOf(parts.first) + areaOf(parts.second), whole, 1e-8 * whole);
            for (const Path* path : {&parts.first, &parts.second})
                for (std::size_t i = 0; i < path->size(); ++i)
                    EXPECT_LT(geometry::distance((*path)[i].end, (*path)[(i + 1) % path->size()].start),
                              1e-9);
        };
        std::size_t side = 0;
        while (figure[side].through) ++side;
        if (const auto parts = splitOffParallel(figure, side, wanted)) {
            check(*parts);
            ++parallel;
        }
        const Vec2 place = pointAt(figure[seed % figure.size()], 0.3);
        if (const auto parts = splitOffThrough(figure, place, wanted)) {
            check(*parts);
            ++through;
        }
    }
    EXPECT_GT(parallel, 250);
    EXPECT_GT(through, 280);
}

}  // namespace
}  // namespace erdwerk::parcel
