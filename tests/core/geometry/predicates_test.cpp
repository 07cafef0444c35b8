#include "core/geometry/predicates.h"

#include "support/geometry.h"

namespace erdwerk::geometry {
namespace {

TEST(Orientation, IsExactWhereDoublesCannotTell) {
    // Points on y = x, moved by single units in the last place: the sign must follow the exact value.
    const Vec2 a{12, 12};
    const Vec2 b{24, 24};
    for (int i = -8; i <= 8; ++i)
        for (int j = -8; j <= 8; ++j) {
            const double ulp = std::ldexp(1.0, -53);
            const Vec2 c{0.5 + i * ulp, 0.5 + j * ulp};
            EXPECT_EQ(orientation(a, b, c), j > i ? 1 : (j < i ? -1 : 0)) << i << " " << j;
        }
}

TEST(InCircle, DecidesCocircularPointsExactly) {
    EXPECT_EQ(inCircle({0, 0}, {1, 0}, {1, 1}, {0, 1}), 0);
    EXPECT_EQ(inCircle({0, 0}, {1, 0}, {1, 1}, {0.5, 0.5}), 1);
    EXPECT_EQ(inCircle({0, 0}, {1, 0}, {1, 1}, {0, 1 + 1e-15}), -1);
}

TEST(Meeting, TellsHowSegmentsMeet) {
    EXPECT_EQ(meeting({0, 0}, {2, 2}, {0, 2}, {2, 0}), Meeting::Crossing);
    EXPECT_EQ(meeting({0, 0}, {2, 0}, {1, 0}, {1, 5}), Meeting::Touching);
    EXPECT_EQ(meeting({0, 0}, {2, 0}, {2, 0}, {3, 1}), Meeting::Touching);
    EXPECT_EQ(meeting({0, 0}, {2, 0}, {1, 0}, {3, 0}), Meeting::Overlap);
    EXPECT_EQ(meeting({0, 0}, {2, 0}, {2, 0}, {3, 0}), Meeting::Touching);
    EXPECT_EQ(meeting({0, 0}, {2, 0}, {3, 0}, {4, 0}), Meeting::None);
    EXPECT_EQ(meeting({0, 0}, {2, 0}, {0, 1}, {2, 1}), Meeting::None);
    EXPECT_EQ(meeting({0, 0}, {2, 2}, {3, 0}, {2.5, 2.4}), Meeting::None);
}

TEST(CrossingFraction, FindsThePlace) {
    EXPECT_DOUBLE_EQ(crossingFraction({0, 0}, {4, 0}, {1, -1}, {1, 1}), 0.25);
}

}  // namespace
}  // namespace erdwerk::geometry
