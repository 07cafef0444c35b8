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

}  // namespace
}  // namespace erdwerk::route
