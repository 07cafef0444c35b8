#include "core/annotate/placer.h"

#include <algorithm>
#include <random>

#include "core/annotate/text_places.h"
#include "support/geometry.h"

namespace erdwerk::annotate {
namespace {

using geometry::cross;

/// Area that two convex polygons share, by cutting one with the sides of the other (Sutherland and Hodgman).
/// Another method than separating axes, which the placer uses.
double sharedArea(const TextBox& a, const TextBox& b) {
    auto shape = cornersOf(a);
    const auto sides = cornersOf(b);
    for (std::size_t i = 0; i < sides.size() && !shape.empty(); ++i) {
        const Vec2 p = sides[i];
        const Vec2 way = sides[(i + 1) % sides.size()] - p;
        std::vector<Vec2> kept;
        for (std::size_t k = 0; k < shape.size(); ++k) {
            const Vec2 from = shape[k];
            const Vec2 to = shape[(k + 1) % shape.size()];
            const double u = cross(way, from - p);
            const double v = cross(way, to - p);
            if (u >= 0) kept.push_back(from);
            if ((u > 0 && v < 0) || (u < 0 && v > 0)) kept.push_back(lerp(from, to, u / (u - v)));
        }
        shape = kept;
    }
    return shape.size() < 3 ? 0 : std::abs(geometry::signedArea(shape));
}

TextLine line(double width, Stand stand = Stand::Above, double along = 0.5, double gap = 1) {
    return {width, 10, stand, along, gap};
}

TEST(Placer, BoxesOverlapWhenTheyShareAnArea) {
    EXPECT_FALSE(overlap({{0, 0}, 10, 10}, {{10, 0}, 10, 10}));  // they touch
    EXPECT_TRUE(overlap({{0, 0}, 10, 10}, {{9.9, 0}, 10, 10}));
    // A square stood on its corner beside another: their boxes meet, they do not.
    EXPECT_FALSE(overlap({{0, 0}, 10, 10, M_PI / 4}, {{10, 10}, 8, 8}));
    std::mt19937 random(5);
    std::uniform_real_distribution<double> at(-20, 20);
    std::uniform_real_distribution<double> size(1, 25);
    int met = 0;
    for (int i = 0; i < 3000; ++i) {
        const TextBox a{{at(random), at(random)}, size(random), size(random), at(random)};
        const TextBox b{{at(random), at(random)}, size(random), size(random), at(random)};
        const double area = sharedArea(a, b);
        if (area > 1e-9 && area < 1e-4) continue;  // they graze
        EXPECT_EQ(overlap(a, b), area > 0) << i << " " << area;
        met += area > 0 ? 1 : 0;
    }
    EXPECT_GT(met, 500);
    EXPECT_TRUE(crosses({{0, 0}, 10, 10}, {-20, 1}, {20, 2}));
    EXPECT_FALSE(crosses({{0, 0}, 10, 10}, {-20, 5.1}, {20, 5.1}));
    EXPECT_TRUE(contains({{0, 0}, 10, 2, M_PI / 2}, {0.5, 4.5}));
    EXPECT_FALSE(contains({{0, 0}, 10, 2, M_PI / 2}, {4.5, 0.5}));
}

PlacedText fixed(Vec2 at, int rank, std::uint64_t key) {
    PlacedText text;
    text.rank = rank;
    text.key = key;
    text.candidates.push_back({{{at, 20, 10, 0}}});
    return text;
}

TEST(Placer, TheHigherRankHasThePlace) {
    Placer placer;
    placer.add(fixed({5, 0}, 2, 1));
    placer.add(fixed({0, 0}, 1, 2));
    placer.add(fixed({0, 30}, 2, 3));
    const auto placed = placer.place();
    EXPECT_FALSE(placed[0]);
    EXPECT_EQ(placed[1], 0U);
    EXPECT_EQ(placed[2], 0U);
}

TEST(Placer, TextsKeepOffSymbolsUnlessTheyWerePutThere) {
    Placer placer;
    placer.keepOff({{0, 0}, 4, 4});
    placer.add(fixed({0, 0}, 1, 1));
    auto put = fixed({0, 0}, 1, 2);
    put.stays = true;
    placer.add(put);
    auto onIt = fixed({0, 2}, 1, 3);
    onIt.stays = true;
    placer.add(onIt);
    const auto placed = placer.place();
    EXPECT_FALSE(placed[0]);
    // Of two that were put on each other one is left.
    EXPECT_NE(placed[1].has_value(), placed[2].has_value());
}

TEST(Placer, LeadersKeepFreeOfTextsToo) {
    Placer placer;
    placer.add(fixed({0, 0}, 0, 1));
    PlacedText text;
    text.rank = 1;
    Candidate across{{{{40, 0}, 20, 10, 0}}};
    across.leader = Leader{{-40, 0}, {30, 0}};
    Candidate free{{{{40, 40}, 20, 10, 0}}};
    free.leader = Leader{{-40, 40}, {30, 40}};
    text.candidates = {across, free};
    placer.add(text);
    EXPECT_EQ(placer.place()[1], 1U);
}

/// Many labels of lines and points, close together.
Placer crowd(unsigned seed, int count, double size, bool shuffled) {
    std::mt19937 random(seed);
    std::uniform_real_distribution<double> at(0, size);
    std::uniform_real_distribution<double> length(5, 90);
    std::uniform_real_distribution<double> turn(-1.5, 1.5);
    std::vector<PlacedText> all;
    for (int i = 0; i < count; ++i) {
        const Vec2 from{at(random), at(random)};
        PlacedText text;
        if (i % 3 == 0) {
            const double t = turn(random);
            const double l = length(random);
            text = placesAlong({from, from + Vec2{std::cos(t), std::sin(t)} * l},
                               {line(40), line(25, Stand::Below)}, line(10));
        } else {
            text = placesBeside(from, 3, {line(20), line(30, Stand::Below)}, i % 2 == 0);
        }
        text.rank = i % 4;
        text.key = static_cast<std::uint64_t>(i);
        all.push_back(std::move(text));
    }
    if (shuffled) std::shuffle(all.begin(), all.end(), random);
    Placer placer;
    for (auto& text : all) placer.add(std::move(text));
    return placer;
}

TEST(Placer, NoTextLiesOnAnotherAndTheSameInputGivesTheSamePicture) {
    for (const unsigned seed : {1U, 2U, 3U}) {
        const Placer placer = crowd(seed, 1500, 700, false);
        const auto placed = placer.place();
        std::vector<TextBox> boxes;
        std::map<std::uint64_t, std::size_t> ways;
        for (std::size_t i = 0; i < placed.size(); ++i) {
            if (!placed[i]) continue;
            ways[placer.text(i).key] = *placed[i];
            for (const auto& box : placer.text(i).candidates[*placed[i]].boxes) boxes.push_back(box);
        }
        EXPECT_GT(boxes.size(), 200U);
        double worst = 0;
        for (std::size_t i = 0; i < boxes.size(); ++i)
            for (std::size_t j = i + 1; j < boxes.size(); ++j)
                worst = std::max(worst, sharedArea(boxes[i], boxes[j]));
        EXPECT_LT(worst, 1e-3);
        EXPECT_EQ(countOverlaps(boxes), 0U);
        // In another order they are placed alike.
        const Placer other = crowd(seed, 1500, 700, true);
        const auto again = other.place();
        std::map<std::uint64_t, std::size_t> same;
        for (std::size_t i = 0; i < again.size(); ++i)
            if (again[i]) same[other.text(i).key] = *again[i];
        EXPECT_EQ(ways, same);
    }
}

TEST(Placer, WhatIsTakenAwayMattersOnlyNearby) {
    const Placer placer = crowd(7, 2000, 2500, false);
    const auto before = placer.place();
    Placer fewer;
    const Vec2 gone = placer.text(1).candidates.front().boxes.front().centre;
    for (std::size_t i = 0; i < placer.size(); ++i)
        if (i != 1) fewer.add(placer.text(i));
    const auto after = fewer.place();
    for (std::size_t i = 2; i < placer.size(); ++i) {
        const Vec2 at = placer.text(i).candidates.front().boxes.front().centre;
        if (geometry::distance(at, gone) > 800) EXPECT_EQ(before[i], after[i - 1]) << i;
    }
}

TEST(Placer, CountsOverlapsAsEachWithEachDoes) {
    std::mt19937 random(11);
    std::uniform_real_distribution<double> at(0, 100);
    std::uniform_real_distribution<double> size(2, 15);
    std::vector<TextBox> boxes;
    for (int i = 0; i < 300; ++i)
        boxes.push_back({{at(random), at(random)}, size(random), size(random), at(random)});
    std::size_t count = 0;
    for (std::size_t i = 0; i < boxes.size(); ++i)
        for (std::size_t j = i + 1; j < boxes.size(); ++j)
            count += sharedArea(boxes[i], boxes[j]) > 1e-9 ? 1 : 0;
    EXPECT_NEAR(static_cast<double>(countOverlaps(boxes)), static_cast<double>(count), 2);
    EXPECT_EQ(countOverlaps(std::vector<TextBox>{{{0, 0}, 0, 10}, {{0, 0}, 5, 10}}), 0U);
}

TEST(TextPlaces, AlongALineTheyStandAsStyledFirst) {
    // Read from the left; y goes down, so above is less.
    const auto text = placesAlong(
        {{0, 0}, {100, 0}}, {line(40, Stand::Above, 0.5, 2), line(30, Stand::Below, 1, 3)}, std::nullopt);
    const auto& first = text.candidates.front();
    EXPECT_THAT(first.boxes[0].centre, test::IsNear(50, -7, 1e-9));
    EXPECT_THAT(first.boxes[1].centre, test::IsNear(85, 8, 1e-9));
    // Two lines above: the second is nearer to the line.
    const auto two = placesAlong({{0, 0}, {100, 0}}, {line(40), line(30)}, std::nullopt);
    EXPECT_THAT(two.candidates.front().boxes[0].centre, test::IsNear(50, -16, 1e-9));
    EXPECT_THAT(two.candidates.front().boxes[1].centre, test::IsNear(50, -6, 1e-9));
}

TEST(TextPlaces, OnACurveTheyKeepOffIt) {
    std::vector<Vec2> arc;
    for (int i = 0; i <= 60; ++i)
        arc.push_back({100 * std::cos(M_PI + i * M_PI / 60), 100 * std::sin(M_PI + i * M_PI / 60)});
    for (const Stand stand : {Stand::Above, Stand::Below}) {
        const auto text = placesAlong(arc, {line(80, stand)}, std::nullopt);
        const auto& box = text.candidates.front().boxes.front();
        for (std::size_t i = 1; i < arc.size(); ++i)
            EXPECT_FALSE(crosses(box, arc[i - 1], arc[i]))
                << i << (stand == Stand::Above ? " above" : " below");
    }
}

TEST(TextPlaces, WhereTheSideIsTooShortTheTagComesFirst) {
    const auto text = placesAlong({{0, 0}, {30, 0}}, {line(60), line(40, Stand::Below)}, line(12));
    ASSERT_FALSE(text.candidates.empty());
    EXPECT_EQ(text.candidates.front().way, static_cast<std::uint8_t>(Way::Tag));
    EXPECT_EQ(text.candidates.front().boxes.size(), 1U);
    // Without a tag it is led to from where there is room.
    const auto without = placesAlong({{0, 0}, {30, 0}}, {line(60)}, std::nullopt);
    EXPECT_EQ(without.candidates.front().way, static_cast<std::uint8_t>(Way::Leader));
    EXPECT_TRUE(without.candidates.front().leader);
}

TEST(TextPlaces, DraggingATextIsTheInverseOfPlacingIt) {
    const std::vector<Vec2> side{{10, 20}, {210, 120}};
    for (const Stand stand : {Stand::Above, Stand::Below})
        for (const double along : {0.0, 0.3, 0.5, 1.0}) {
            const TextLine text{40, 10, stand, along, 2 * 4};
            const auto at = placesAlong(side, {text}, std::nullopt).candidates.front().boxes.front().centre;
            const auto dragged = draggedTo(side, {}, 0, text, at, 4);
            EXPECT_EQ(dragged.stand, stand);
            EXPECT_NEAR(dragged.along, along, 1e-6);
            EXPECT_NEAR(dragged.gap, 2, 1e-9);
        }
    EXPECT_EQ(draggedTo(side, {}, 0, {40, 10}, {110, 71}, 4).stand, Stand::InLine);
    // Beside a point.
    EXPECT_EQ(draggedTo({}, {0, 0}, 3, {20, 10}, {25, -1}, 4).stand, Stand::InLine);
    EXPECT_EQ(draggedTo({}, {0, 0}, 3, {20, 10}, {0, 30}, 4).stand, Stand::Below);
    EXPECT_EQ(draggedTo({}, {0, 0}, 3, {20, 10}, {-60, -30}, 4).along, 0);
}

TEST(TextPlaces, PutByHandTheyHaveALeaderOnlyFromAfar) {
    EXPECT_FALSE(placeByHand({0, 0}, {0, -8}, {line(30)}).candidates.front().leader);
    const auto far = placeByHand({0, 0}, {100, -50}, {line(30), line(20)});
    ASSERT_TRUE(far.candidates.front().leader);
    EXPECT_TRUE(far.stays);
    // It ends off the texts.
    for (const auto& box : far.candidates.front().boxes)
        EXPECT_FALSE(crosses(box, far.candidates.front().leader->from, far.candidates.front().leader->to));
}

TEST(TextPlaces, OnALineTheyReadFromTheLeft) {
    const auto text = placesOn({{100, 0}, {0, 0}}, 20, 10);
    EXPECT_NEAR(text.candidates.front().boxes.front().turn, 0, 1e-9);
    EXPECT_TRUE(placesOn({{0, 0}, {10, 0}}, 20, 10).candidates.empty());
}

}  // namespace
}  // namespace erdwerk::annotate
