#include "core/paper/room.h"

#include <gtest/gtest.h>

#include <array>
#include <random>

namespace erdwerk::paper {
namespace {

const Room page{8, 8, 404, 281};

TEST(Room, IsHeldByItsEdgesAndCornersBeforeTheWhole) {
    const Room r{100, 50, 80, 40};
    EXPECT_EQ(gripAt(r, 140, 70, 2), Grip{});
    EXPECT_EQ(gripAt(r, 101, 70, 2), (Grip{-1, 0}));
    EXPECT_EQ(gripAt(r, 181, 70, 2), (Grip{1, 0}));
    EXPECT_EQ(gripAt(r, 140, 49, 2), (Grip{0, -1}));
    EXPECT_EQ(gripAt(r, 179, 91, 2), (Grip{1, 1}));
    EXPECT_EQ(gripAt(r, 183, 70, 2), std::nullopt);
    EXPECT_EQ(gripAt(r, 140, 47, 2), std::nullopt);
}

TEST(Room, DraggedAsAWholeKeepsItsSizeAndByAnEdgeItsOtherEdges) {
    const Room r{100, 50, 80, 40};
    EXPECT_EQ(dragged(r, {}, 3, -4), (Room{103, 46, 80, 40}));
    EXPECT_EQ(dragged(r, {-1, 0}, 10, 99), (Room{110, 50, 70, 40}));
    EXPECT_EQ(dragged(r, {1, 1}, 10, 5), (Room{100, 50, 90, 45}));
    EXPECT_EQ(dragged(r, {-1, -1}, -10, -5), (Room{90, 45, 90, 45}));
}

TEST(Room, NeverBecomesTooSmallToBeTakenAgain) {
    const Room r{100, 50, 80, 40};
    const Room narrow = dragged(r, {-1, 0}, 500, 0);
    EXPECT_DOUBLE_EQ(narrow.width, leastRoom);
    EXPECT_DOUBLE_EQ(narrow.right(), r.right());
    EXPECT_EQ(dragged(r, {1, 1}, -500, -500), (Room{100, 50, leastRoom, leastRoom}));
}

TEST(Room, CatchesOnTheNearestGuideOfPageAndOtherRooms) {
    const std::array others{Room{200, 100, 100, 100}};
    // Its right edge comes 1.5 from the other's left edge, its top 4 from the page's.
    const auto at = guided({118.5, 12, 80, 40}, {}, page, others, 3);
    EXPECT_EQ(at.x, 200);
    EXPECT_FALSE(at.y);
    EXPECT_EQ(at.room, (Room{120, 12, 80, 40}));
    // By its left edge only that edge moves.
    const auto edge = guided({202, 60, 70, 40}, {-1, 0}, page, others, 3);
    EXPECT_EQ(edge.x, 200);
    EXPECT_EQ(edge.room, (Room{200, 60, 72, 40}));
}

TEST(Room, TakesThePagesGuideBeforeARoomsThatIsAsNear) {
    const std::array others{Room{6, 200, 20, 20}};
    EXPECT_EQ(guided({7, 60, 80, 40}, {}, page, others, 3).x, 8);
}

TEST(Room, IsBroughtOntoThePaperByTheLeastMove) {
    const Room paper{0, 0, 420, 297};
    EXPECT_EQ(broughtWithin({400, -20, 80, 40}, paper), (Room{340, 0, 80, 40}));
    EXPECT_EQ(broughtWithin({10, 10, 500, 400}, paper), (Room{0, 0, 420, 297}));
    EXPECT_TRUE(isWithin({0, 0, 420, 297}, paper));
    EXPECT_FALSE(isWithin({0, 0, 420.1, 297}, paper));
}

TEST(Room, RoomsThatShareAnEdgeDoNotOverlap) {
    EXPECT_FALSE(overlap({0, 0, 10, 10}, {10, 0, 10, 10}));
    EXPECT_TRUE(overlap({0, 0, 10, 10}, {9, 9, 10, 10}));
}

/// Whatever is dragged: it keeps what is not held, and a guide that it caught on is really met.
TEST(Room, AnyDragMeetsTheGuideThatItSays) {
    const unsigned seed = 20261201;
    SCOPED_TRACE(seed);
    std::mt19937 random(seed);
    std::uniform_real_distribution<double> place(0, 300);
    std::uniform_real_distribution<double> size(6, 120);
    std::uniform_int_distribution<int> grip(-1, 1);
    int caught = 0;
    for (int k = 0; k < 500; ++k) {
        const Room was{place(random), place(random), size(random), size(random)};
        const std::array others{Room{place(random), place(random), size(random), size(random)}};
        const Grip g{grip(random), grip(random)};
        const Room moved = dragged(was, g, place(random) / 10 - 15, place(random) / 10 - 15);
        const auto now = guided(moved, g, page, others, 4);
        EXPECT_GE(now.room.width, leastRoom - 1e-9);
        if (g.whole()) {
            EXPECT_DOUBLE_EQ(now.room.width, was.width);
            EXPECT_DOUBLE_EQ(now.room.height, was.height);
        }
        if (g.across < 0) EXPECT_NEAR(now.room.right(), was.right(), 1e-9);
        if (g.across > 0) EXPECT_NEAR(now.room.left, was.left, 1e-9);
        if (now.x && now.room.width > leastRoom + 1e-6) {
            ++caught;
            const double x = *now.x;
            const double nearest = std::min({std::abs(now.room.left - x), std::abs(now.room.right() - x),
                                             std::abs(now.room.left + now.room.width / 2 - x)});
            EXPECT_NEAR(nearest, 0, 1e-9);
        }
    }
    EXPECT_GT(caught, 50);
}

}  // namespace
}  // namespace erdwerk::paper
