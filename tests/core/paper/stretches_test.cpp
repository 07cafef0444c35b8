#include "core/paper/stretches.h"

#include <gtest/gtest.h>

#include <random>

#include "core/geometry/path.h"

namespace erdwerk::paper {
namespace {

using geometry::Path;
using geometry::Segment;
using geometry::Vec2;

Path straight(Vec2 from, Vec2 to) {
    return {Segment{from, to, std::nullopt}};
}

/// The place of a ground point on paper, right and up from the middle, in ground units.
Vec2 onPaper(const TurnedPlace& at, Vec2 p) {
    const double s = std::sin(at.up.radians());
    const double c = std::cos(at.up.radians());
    const Vec2 d = p - at.centre;
    return {d.x * c - d.y * s, d.x * s + d.y * c};
}

TEST(TurnedAlong, AStraightLineLiesLevelFromLeftToRight) {
    // To the south-west, 100 long: up is left of the way, the south-east.
    const double h = 100 / std::sqrt(2.0);
    const auto at = turnedAlong(straight({1000, 2000}, {1000 - h, 2000 - h}), 0, 100);
    EXPECT_NEAR(at.centre.x, 1000 - h / 2, 1e-9);
    EXPECT_NEAR(at.centre.y, 2000 - h / 2, 1e-9);
    EXPECT_NEAR(onPaper(at, {1000, 2000}).x, -50, 1e-9);
    EXPECT_NEAR(onPaper(at, {1000, 2000}).y, 0, 1e-9);
    EXPECT_NEAR(onPaper(at, {1000 - h, 2000 - h}).x, 50, 1e-9);
    EXPECT_NEAR(Angle(at.up).normalized().degrees(), 135, 1e-9);
}

TEST(TurnedAlong, ABendLiesInTheMiddleOfTheHeight) {
    // A semicircle of radius 50 from west to east over the north: ends level, its top 50 above them.
    const Path path{Segment{{-50, 0}, {50, 0}, Vec2{0, 50}}};
    const auto at = turnedAlong(path, 0, geometry::lengthOf(path));
    EXPECT_NEAR(Angle(at.up).signedTurn().degrees(), 0, 1e-9);
    EXPECT_NEAR(at.centre.x, 0, 1e-6);
    EXPECT_NEAR(at.centre.y, 25, 1e-2);
    const auto [w, h] = extentAlong(path, 0, geometry::lengthOf(path));
    EXPECT_NEAR(w, 100, 1e-6);
    EXPECT_NEAR(h, 50, 1e-2);
}

TEST(Stretches, AStraightLineTakesTheFewestAndStandsAtRoundDistances) {
    const auto found = stretchesAlong(straight({0, 0}, {450, 0}), 200, 50, 10);
    ASSERT_TRUE(found);
    EXPECT_EQ(*found, (std::vector<Stretch>{{0, 150}, {150, 300}, {300, 450}}));
    const auto odd = stretchesAlong(straight({0, 0}, {433, 0}), 200, 50, 10);
    ASSERT_TRUE(odd);
    EXPECT_EQ(*odd, (std::vector<Stretch>{{0, 150}, {150, 300}, {300, 433}}));
}

TEST(Stretches, RoundingNeverTakesASheetMore) {
    // Three of 199.9 fill the room: rounded up to 200 they would not fit.
    const auto found = stretchesAlong(straight({0, 0}, {599.7, 0}), 199.95, 50, 10);
    ASSERT_TRUE(found);
    ASSERT_EQ(found->size(), 3U);
    EXPECT_NEAR((*found)[0].to, 199.9, 1e-9);
    EXPECT_DOUBLE_EQ(found->back().to, 599.7);
}

TEST(Stretches, OneSheetHoldsWhatFits) {
    const auto found = stretchesAlong(straight({0, 0}, {0, 180}), 200, 50, 10);
    ASSERT_TRUE(found);
    EXPECT_EQ(*found, (std::vector<Stretch>{{0, 180}}));
}

TEST(Stretches, AnEmptyPathNoRoomAndTooManyAreSaid) {
    EXPECT_FALSE(stretchesAlong({}, 200, 50, 10));
    EXPECT_FALSE(stretchesAlong(straight({0, 0}, {9, 0}), 0, 50, 10));
    const auto many = stretchesAlong(straight({0, 0}, {1e6, 0}), 10, 5, 0);
    ASSERT_FALSE(many);
    EXPECT_NE(many.error().text.find("500 sheets"), std::string::npos);
}

/// Straights and arcs: the extent against ten thousand places of the stretch, turned by hand.
TEST(Stretches, TheExtentIsThatOfManyPlaces) {
    const unsigned seed = 4711;
    SCOPED_TRACE(seed);
    std::mt19937 random(seed);
    std::uniform_real_distribution<double> share(0, 1);
    for (int k = 0; k < 200; ++k) {
        Path path;
        Vec2 at{0, 0};
        for (int i = 0; i < 6; ++i) {
            const Vec2 next = at + Vec2{20 + 40 * share(random), 60 * share(random) - 30};
            const Vec2 middle = (at + next) * 0.5 + Vec2{0, 16 * share(random) - 8};
            path.push_back(Segment{at, next, i % 2 == 0 ? std::optional<Vec2>() : middle});
            at = next;
        }
        const double all = geometry::lengthOf(path);
        double from = all * share(random);
        double to = all * share(random);
        if (from > to) std::swap(from, to);
        if (to - from < 1) continue;
        const auto lies = turnedAlong(path, from, to);
        double minX = 1e9, maxX = -1e9, minY = 1e9, maxY = -1e9;
        for (int j = 0; j <= 10000; ++j) {
            const Vec2 p = onPaper(lies, geometry::positionAt(path, from + (to - from) * j / 10000).place);
            minX = std::min(minX, p.x);
            maxX = std::max(maxX, p.x);
            minY = std::min(minY, p.y);
            maxY = std::max(maxY, p.y);
        }
        const auto [w, h] = extentAlong(path, from, to);
        EXPECT_NEAR(w, maxX - minX, 0.02) << k;
        EXPECT_NEAR(h, maxY - minY, 0.02) << k;
        // And it lies in the middle of it.
        EXPECT_NEAR(minX + maxX, 0, 0.04) << k;
        EXPECT_NEAR(minY + maxY, 0, 0.04) << k;
    }
}

TEST(Stretches, ABendThatIsTooWideForTheHeightIsSaid) {
    // A semicircle of radius 1000: a five hundredth of it still rises by 6.28^2 / 8000, five millimetres.
    const Path path{Segment{{-1000, 0}, {1000, 0}, Vec2{0, 1000}}};
    const auto found = stretchesAlong(path, 4000, 0.004, 0);
    ASSERT_FALSE(found);
    EXPECT_NE(found.error().text.find("smaller scale"), std::string::npos);
    // Six millimetres hold it, by 500 sheets or somewhat fewer.
    const auto fits = stretchesAlong(path, 4000, 0.006, 0);
    ASSERT_TRUE(fits);
    EXPECT_GT(fits->size(), 440U);
}

/// Winding lines: the stretches follow each other without a gap, and every place of each lies in its frame.
TEST(Stretches, OfWindingLinesFollowEachOtherAndFitTheirFrames) {
    const unsigned seed = 77;
    SCOPED_TRACE(seed);
    std::mt19937 random(seed);
    std::uniform_real_distribution<double> turn(-0.5, 0.5);
    for (int k = 0; k < 200; ++k) {
        Path path;
        Vec2 at{48000, 91000};
        double azimuth = turn(random) * 6;
        for (int i = 0; i < 12; ++i) {
            const Vec2 next =
                at + Vec2{std::sin(azimuth), std::cos(azimuth)} * (20 + 60 * std::abs(turn(random)));
            path.push_back(Segment{at, next, std::nullopt});
            at = next;
            azimuth += turn(random);
        }
        const double all = geometry::lengthOf(path);
        const auto found = stretchesAlong(path, 180, 110, 5);
        ASSERT_TRUE(found) << k;
        EXPECT_EQ(found->front().from, 0);
        EXPECT_NEAR(found->back().to, all, 1e-9);
        for (std::size_t i = 0; i < found->size(); ++i) {
            const auto& s = (*found)[i];
            if (i > 0) EXPECT_EQ(s.from, (*found)[i - 1].to);
            const auto lies = turnedAlong(path, s.from, s.to);
            for (int j = 0; j <= 400; ++j) {
                const Vec2 p =
                    onPaper(lies, geometry::positionAt(path, s.from + (s.to - s.from) * j / 400).place);
                EXPECT_LE(std::abs(p.x), 90.2);
                EXPECT_LE(std::abs(p.y), 55.2);
            }
        }
    }
}

}  // namespace
}  // namespace erdwerk::paper
