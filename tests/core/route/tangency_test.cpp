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
    // A straight between two arcs: putting one joint right would put the other out.
    Path between = valueOf(pathOf({{{0, 0}}, {{200, 0}, 60}, {{300, 150}, 60}, {{500, 150}}}));
    between[1].through = *between[1].through + Vec2{6, 4};
    EXPECT_FALSE(madeTangent(between, 1));
}

}  // namespace
}  // namespace erdwerk::route
