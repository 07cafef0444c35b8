#include "core/route/tangency.h"

#include "core/route/alignment.h"
#include "core/route/pis.h"
#include "support/geometry.h"

namespace erdwerk::route {
namespace {

using test::valueOf;

TEST(Tangency, AJointOutByHalfADegreeSlidesAlongItsArc) {
    const Path good = valueOf(pathOf({{{0, 0}}, {{200, 0}, 80}, {{300, 150}}}));
    for (const double degrees : {0.5, -0.5, 2.0}) {
        for (const bool turned : {false, true}) {
            Path path = good;
            // The last straight turned about the joint.
            const Vec2 joint = path[2].start;
            const double length = lengthOf(path[2]);
            path[2].end =
                joint + geometry::directionOf(tangentAt(path[2], 0) + Angle::degrees(degrees)) * length;
            if (turned) path = geometry::reversed(path);
            const std::size_t at = turned ? 0 : 1;
            ASSERT_EQ(alignmentOn(path, 0).breaks.size(), 1U);
            const auto mended = madeTangent(path, at);
            ASSERT_TRUE(mended) << degrees;
            EXPECT_TRUE(alignmentOn(mended->path, 0).breaks.empty());
            // Ends stay, the circle stays, the joint moves by about R times the angle.
            EXPECT_EQ(mended->path.front().start, path.front().start);
            EXPECT_EQ(mended->path.back().end, path.back().end);
            EXPECT_NEAR(arcOf(mended->path[1])->radius, 80, 1e-9);
            EXPECT_NEAR(mended->moved, 80 * std::abs(degrees) * M_PI / 180, 0.2 * mended->moved);
        }
    }
}

TEST(Tangency, WhatCannotBeMendedSoIsLeft) {
    const Path corner{{{0, 0}, {100, 0}, {}}, {{100, 0}, {100, 100}, {}}};
    EXPECT_FALSE(madeTangent(corner, 0));
    EXPECT_FALSE(madeTangent(corner, 7));
    Path far = valueOf(pathOf({{{0, 0}}, {{200, 0}, 80}, {{300, 150}}}));
    far[2].end = far[2].start + geometry::directionOf(tangentAt(far[2], 0) + Angle::degrees(80)) * 60;
    EXPECT_FALSE(madeTangent(far, 1));
}

TEST(Tangency, NeverPutsAnotherJointOut) {
    int mended = 0;
    for (unsigned seed = 1; seed <= 300; ++seed) {
        std::mt19937 random(seed);
        std::uniform_real_distribution<double> unit(0, 1);
        // A straight of a metre or two between two arcs, the first of which is bent by a little.
        Path path =
            valueOf(pathOf({{{0, 0}}, {{200, 0}, 98 + 2 * unit(random)}, {{260, 60}, 100}, {{460, 60}}}));
        path[1].through = *path[1].through + Vec2{unit(random) - 0.5, unit(random) - 0.5} * 0.2;
        const auto before = alignmentOn(path, 0).breaks.size();
        for (std::size_t i = 0; i < path.size(); ++i) {
            const auto done = madeTangent(path, i);
            if (!done) continue;
            ++mended;
            EXPECT_LT(alignmentOn(done->path, 0).breaks.size(), before) << "seed " << seed;
        }
    }
    EXPECT_GT(mended, 0);
}

double turnAt(const Path& path, std::size_t joint) {
    return std::abs((tangentAt(path[joint + 1], 0) - tangentAt(path[joint], 1)).signedTurn().radians());
}

TEST(Tangency, ACurveIsPutIntoAnyJointOfStraightsAndArcs) {
    std::mt19937 random(17);
    std::uniform_real_distribution<double> unit(0, 1);
    int made = 0;
    for (int i = 0; i < 600; ++i) {
        // Two elements, straight or bent to either side, that meet at the origin at some angle.
        const auto element = [&](Vec2 from, Vec2 to) -> geometry::Segment {
            if (unit(random) < 0.4) return {from, to, {}};
            const Vec2 middle = geometry::lerp(from, to, 0.5);
            const Vec2 across{-(to - from).y, (to - from).x};
            return {from, to, middle + across * (0.02 + 0.1 * unit(random)) * (unit(random) < 0.5 ? -1 : 1)};
        };
        const Angle turn = Angle::degrees(-80 + 160 * unit(random));
        const Vec2 far = geometry::directionOf(Angle::degrees(90) + turn) * (60 + 40 * unit(random));
        const Path path{element({-80, 0}, {0, 0}), element({0, 0}, far)};
        const double radius = 5 + 40 * unit(random);
        const auto rounded = withCurve(path, 0, radius);
        if (!rounded) continue;
        ++made;
        ASSERT_EQ(rounded->size(), 3U);
        const auto arc = arcOf((*rounded)[1]);
        ASSERT_TRUE(arc) << i;
        EXPECT_NEAR(arc->radius, radius, 1e-6 * radius) << i;
        EXPECT_LT(turnAt(*rounded, 0), 1e-6) << i;
        EXPECT_LT(turnAt(*rounded, 1), 1e-6) << i;
        EXPECT_EQ(rounded->front().start, path.front().start);
        EXPECT_EQ(rounded->back().end, path.back().end);
        // What is left of both lies on them.
        for (const auto& [part, whole] : {std::pair{(*rounded)[0], path[0]}, {(*rounded)[2], path[1]}}) {
            const Vec2 p = pointAt(part, 0.3);
            EXPECT_LT(geometry::distance(pointAt(whole, nearestFraction(whole, p)), p), 1e-6);
        }
    }
    EXPECT_GT(made, 300);
}

TEST(Tangency, ACurveThatDoesNotFitIsRefused) {
    const Path corner{{{0, 0}, {100, 0}, {}}, {{100, 0}, {100, 100}, {}}};
    // Tangent length R at a right angle.
    const auto rounded = valueOf(withCurve(corner, 0, 40));
    EXPECT_THAT(rounded[0].end, test::IsNear(60, 0, 1e-9));
    EXPECT_THAT(rounded[2].start, test::IsNear(100, 40, 1e-9));
    const auto why = [](const Path& path, std::size_t at, double radius) {
        const auto done = withCurve(path, at, radius);
        return done ? std::string("done") : done.error().text;
    };
    EXPECT_THAT(why(corner, 0, 120), testing::HasSubstr("smaller one"));
    EXPECT_THAT(why(corner, 0, 0), testing::HasSubstr("above 0"));
    EXPECT_THAT(why(corner, 1, 10), testing::HasSubstr("no joint"));
    EXPECT_THAT(why({{{0, 0}, {9, 0}, {}}, {{9, 0}, {20, 0}, {}}}, 0, 10),
                testing::HasSubstr("tangent already"));
}

TEST(Pis, TheCurvesMiddleComesToThePlaceItIsDraggedTo) {
    std::mt19937 random(23);
    std::uniform_real_distribution<double> unit(0, 1);
    for (int i = 0; i < 300; ++i) {
        std::vector<Pi> pis{{{0, 0}}, {{500, 0}}, {{0, 0}}};
        const Angle out = Angle::degrees(90 + (20 + 110 * unit(random)) * (unit(random) < 0.5 ? 1 : -1));
        pis[2].place = pis[1].place + geometry::directionOf(out) * 500;
        pis[1].radius = 40 + 60 * unit(random);
        if (i % 2 == 0) pis[1].spiralIn = pis[1].spiralOut = 10 * unit(random);
        const auto path = pathOf(pis);
        if (!path) continue;
        const auto middle = curveMiddle(pis, 1);
        ASSERT_TRUE(middle);
        // On the curve: exactly without spirals, within the next term of the series with them.
        const auto near = *geometry::nearestOn(*path, *middle);
        EXPECT_NEAR(near.distance, 0, i % 2 == 0 ? 5e-3 : 1e-9);
        const auto radius = radiusThrough(pis, 1, *middle);
        ASSERT_TRUE(radius);
        EXPECT_NEAR(*radius, pis[1].radius, 1e-6);
    }
    const std::vector<Pi> straight{{{0, 0}}, {{50, 0}, 10}, {{100, 0}}};
    EXPECT_FALSE(radiusThrough(straight, 1, {50, 10}));
    EXPECT_FALSE(radiusThrough({{{0, 0}}, {{50, 0}}, {{50, 50}}}, 1, {60, -10}));  // on the outer side
    EXPECT_FALSE(radiusThrough(straight, 0, {0, 10}));
    EXPECT_FALSE(curveMiddle({{{0, 0}}, {{50, 0}}, {{50, 50}}}, 1));
}

}  // namespace
}  // namespace erdwerk::route
