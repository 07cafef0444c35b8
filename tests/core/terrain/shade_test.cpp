#include "core/terrain/shade.h"

#include "core/terrain/build.h"
#include "support/geometry.h"

namespace erdwerk::terrain {
namespace {

using test::valueOf;

Shading shadingOver(std::vector<Vec3> points) {
    BuildInput input;
    input.points = std::move(points);
    return Shading(
        std::make_shared<const TinLocator>(std::make_shared<const Tin>(valueOf(build(input)).tin)));
}

Box square() {
    Box b;
    b.add(Vec2{0, 0});
    b.add(Vec2{10, 10});
    return b;
}

TEST(Shading, FlatGroundIsLitByTheSineOfTheSunsHeight) {
    const auto cells = shadingOver(test::places3("0 0 5, 10 0 5, 10 10 5, 0 10 5")).render(square(), 4, 4);
    ASSERT_EQ(cells.size(), 16U);
    for (const auto& c : cells) {
        EXPECT_NEAR(c.light, std::sqrt(0.5), 1e-6);
        EXPECT_FLOAT_EQ(c.height, 5);
    }
}

TEST(Shading, SlopesTowardsTheSunAreBrighter) {
    const auto north =
        shadingOver(test::places3("0 0 10, 10 0 10, 10 10 0, 0 10 0")).render(square(), 1, 1)[0].light;
    const auto south =
        shadingOver(test::places3("0 0 0, 10 0 0, 10 10 10, 0 10 10")).render(square(), 1, 1)[0].light;
    EXPECT_GT(north, south + 0.3);
}

TEST(Shading, RowsRunFromTheNorthAndOutsideIsMarked) {
    Box wide = square();
    wide.maxX = 20;
    const auto cells = shadingOver(test::places3("0 0 0, 10 0 0, 10 10 10, 0 10 10")).render(wide, 4, 2);
    EXPECT_FLOAT_EQ(cells[0].height, 7.5);
    EXPECT_FLOAT_EQ(cells[4].height, 2.5);
    EXPECT_LT(cells[3].light, 0);
}

}  // namespace
}  // namespace erdwerk::terrain
