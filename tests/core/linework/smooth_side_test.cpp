#include "core/linework/smooth_side.h"

#include <random>

#include "core/linework/edit.h"
#include "core/linework/pieces.h"
#include "core/linework/smooth.h"
#include "support/geometry.h"

namespace erdwerk::linework {
namespace {

using test::places;
using test::valueOf;

Line3D smoothThrough(const std::string& corners, bool closed = false) {
    const auto at = places(corners);
    return valueOf(smoothShape(lineThrough(at, std::vector<std::optional<double>>(at.size(), 1.0), closed)));
}

/// The line neither breaks nor bends at joints and at corners that have smooth sides on both sides.
void expectSmooth(const Line3D& line, const std::string& trace) {
    const auto path = planPath(line);
    const auto corners = cornersOf(line);
    for (std::size_t k = 0; k < corners.size(); ++k) {
        if (!line.closed && (k == 0 || k + 1 == corners.size())) continue;
        const std::size_t before = (k + corners.size() - 1) % corners.size();
        const bool smooth = jointOf(line, corners[k]) && jointOf(line, corners[before]);
        if (!smooth) continue;
        const Vec2 in = geometry::directionOf(tangentAt(path[before], 1));
        const Vec2 out = geometry::directionOf(tangentAt(path[k], 0));
        EXPECT_NEAR(geometry::cross(in, out), 0, 1e-7) << trace << ", corner " << k;
        EXPECT_GT(geometry::dot(in, out), 0) << trace << ", corner " << k;
    }
}

TEST(SmoothSide, ThroughCornersOnACircleIsTheCircle) {
    std::vector<Vec2> on;
    for (const double degrees : {0.0, 30.0, 75.0, 110.0, 150.0})
        on.push_back({100 * std::cos(degrees * M_PI / 180), 100 * std::sin(degrees * M_PI / 180)});
    Line3D line = valueOf(smoothShape(lineThrough(on, std::vector<std::optional<double>>(5, 2.0))));
    const auto expectCircle = [](const Line3D& l) {
        for (const auto& side : planPath(l)) {
            const auto arc = geometry::arcOf(side);
            ASSERT_TRUE(arc);
            EXPECT_NEAR(arc->radius, 100, 1e-6);
            EXPECT_NEAR(geometry::length(arc->centre), 0, 1e-6);
        }
    };
    expectCircle(line);
    // A corner moved along the circle: the sides beside it follow, on the circle.
    line = valueOf(moveCorner(line, 4, {100 * std::cos(1.5), 100 * std::sin(1.5)}));
    expectCircle(line);
    EXPECT_EQ(line.vertices.size(), 9U);
}

TEST(SmoothSide, AMovedCornerTakesItsNeighboursAlongAndNoOthers) {
    const Line3D line = smoothThrough("0 0, 10 5, 20 0, 30 5, 40 0, 50 5, 60 0, 70 5, 80 0");
    const Line3D moved = valueOf(moveCorner(line, 8, {41, -3}));
    expectSmooth(moved, "moved");
    const auto a = planPath(line);
    const auto b = planPath(moved);
    ASSERT_EQ(a.size(), b.size());
    int same = 0;
    for (std::size_t s = 0; s < a.size(); ++s) same += a[s] == b[s] ? 1 : 0;
    // Eight sides of two arcs; four sides depend on the corner.
    EXPECT_EQ(same, 8);
    EXPECT_FALSE(moveCorner(line, 1, {5, 5}));  // a joint
}

TEST(SmoothSide, BesideAStraightItTouchesTheStraight) {
    Line3D line = lineThrough(places("0 0, 10 0, 20 8, 30 0"), {1, 1, 1, 1});
    line = valueOf(withSmoothSide(line, 1));
    ASSERT_EQ(line.vertices.size(), 5U);
    EXPECT_TRUE(line.vertices[2].joint);
    const auto path = planPath(line);
    EXPECT_THAT(geometry::directionOf(tangentAt(path[1], 0)), test::IsNear(1, 0, 1e-9));
    const Vec2 down = (Vec2{30, 0} - Vec2{20, 8}) * (1 / std::hypot(10.0, 8.0));
    EXPECT_THAT(geometry::directionOf(tangentAt(path[2], 1)), test::IsNear(down.x, down.y, 1e-9));
    EXPECT_FALSE(withSmoothSide(line, 1));
    const Line3D straight = valueOf(withoutSmoothSide(line, 2));
    EXPECT_EQ(straight.vertices.size(), 4U);
    EXPECT_FALSE(straight.vertices[1].through);
}

TEST(SmoothSide, ACornerMoreLeavesTheShapeAndIsGoneThrough) {
    const Line3D line = smoothThrough("0 0, 10 5, 20 0, 30 9, 40 0", true);
    const double length = placed(line).length;
    for (std::size_t s = 0; s < planPath(line).size(); ++s) {
        const Line3D more = valueOf(insertCorner(line, s, 0.3));
        EXPECT_EQ(more.vertices.size(), line.vertices.size() + 2);
        EXPECT_NEAR(placed(more).length, length, 1e-7);
        for (double d = 0; d < length; d += 0.7) {
            const Vec2 p = geometry::positionAt(planPath(line), d).place;
            EXPECT_NEAR(geometry::nearestOn(planPath(more), p)->distance, 0, 1e-7);
        }
        expectSmooth(more, "side " + std::to_string(s));
    }
}

TEST(SmoothSide, SmoothingTwiceIsSmoothingOnce) {
    const Line3D once = smoothThrough("0 0, 10 5, 20 0, 30 9, 40 0");
    const Line3D twice = valueOf(smoothShape(once));
    ASSERT_EQ(once.vertices.size(), twice.vertices.size());
    for (std::size_t i = 0; i < once.vertices.size(); ++i)
        EXPECT_THAT(twice.vertices[i].place,
                    test::IsNear(once.vertices[i].place.x, once.vertices[i].place.y, 1e-9));
}

TEST(SmoothSide, DeletingCornersKeepsOneSmoothSideForTwo) {
    Line3D line = smoothThrough("0 0, 10 5, 20 0, 30 9, 40 0");
    line = valueOf(removeVertex(line, 4));
    EXPECT_EQ(line.vertices.size(), 7U);
    expectSmooth(line, "middle");
    line = valueOf(removeVertex(line, line.vertices.size() - 1));
    EXPECT_EQ(line.vertices.size(), 5U);
    EXPECT_FALSE(line.vertices.back().joint);
    expectSmooth(line, "end");
    line = valueOf(removeVertex(line, 1));  // a joint: its side is straight then
    EXPECT_EQ(line.vertices.size(), 4U);
    EXPECT_FALSE(line.vertices[0].through);
}

TEST(SmoothSide, CutInTwoBothPartsKeepTheShape) {
    const Line3D line = smoothThrough("0 0, 10 5, 20 0, 30 9, 40 0");
    const auto before = resolve(line, Surroundings{});
    for (double at = 1; at < before.length; at += 3.1) {
        const auto parts = valueOf(cutAt(line, before, {at}, Surroundings{}));
        ASSERT_EQ(parts.size(), 2U);
        double sum = 0;
        for (const auto& part : parts) {
            sum += placed(part.line).length;
            expectSmooth(part.line, std::to_string(at));
            EXPECT_FALSE(part.line.vertices.front().joint);
            EXPECT_FALSE(part.line.vertices.back().joint);
        }
        EXPECT_NEAR(sum, before.length, 1e-7);
    }
}

TEST(SmoothSide, StaysSmoothThroughRandomChanges) {
    for (unsigned seed = 1; seed <= 120; ++seed) {
        std::mt19937 random(seed);
        std::uniform_real_distribution<double> wobble(-3, 3);
        std::vector<Vec2> at;
        const bool closed = seed % 3 == 0;
        for (int k = 0; k < 9; ++k)
            at.push_back(closed ? Vec2{40 * std::cos(k * 0.69), 40 * std::sin(k * 0.69)}
                                : Vec2{k * 12.0, wobble(random)});
        Line3D line =
            valueOf(smoothShape(lineThrough(at, std::vector<std::optional<double>>(9, 5.0), closed)));
        for (int step = 0; step < 12; ++step) {
            const auto corners = cornersOf(line);
            const std::size_t pick = corners[random() % corners.size()];
            Result<Line3D> next = line;
            switch (random() % 3) {
                case 0:
                    next = moveCorner(line, pick,
                                      line.vertices[pick].place + Vec2{wobble(random), wobble(random)} * 0.5);
                    break;
                case 1:
                    next = insertCorner(line, random() % planPath(line).size(), 0.5);
                    break;
                default:
                    if (corners.size() > 9 && !line.vertices[pick].joint) next = removeVertex(line, pick);
            }
            if (next) line = std::move(*next);
            ASSERT_FALSE(validate(line)) << "seed " << seed << ", step " << step;
            expectSmooth(line, "seed " + std::to_string(seed) + ", step " + std::to_string(step));
        }
    }
}

}  // namespace
}  // namespace erdwerk::linework
