#include "core/route/design_line.h"

#include "core/linework/height_solver.h"
#include "core/route/pis.h"
#include "support/geometry.h"

namespace erdwerk::route {
namespace {

using test::valueOf;
using testing::HasSubstr;

/// With an arc and spirals, 1 km from its start.
AlignmentGeometry winding() {
    return alignmentOn(valueOf(pathOf({{{0, 0}}, {{200, 0}, 80, 30, 20}, {{300, 200}, 60}, {{500, 250}}})),
                       1000);
}

TEST(DesignLine, HasTheDesignsHeightsEverywhere) {
    const auto line = winding();
    const std::vector<Pvi> design{
        {1000, 100, 0}, {1120, 104, 60}, {1250, 101, 40}, {1000 + line.length, 106, 0}};
    const auto made = valueOf(designLine(line, design));
    const auto resolved = linework::resolve(made, linework::Surroundings{});
    EXPECT_TRUE(resolved.complete());
    EXPECT_NEAR(resolved.length, line.length, 2e-4);  // spirals are cut to straights
    EXPECT_EQ(resolved.curves.size(), 2U);
    for (double d = 0; d <= line.length; d += 1.3) {
        const auto place = placeAt(line, 1000 + d);
        const auto near = *geometry::nearestOn(resolved.path, place);
        EXPECT_NEAR(near.distance, 0, 1.1e-3);
        EXPECT_NEAR(*linework::heightAt(resolved, distanceAlong(resolved.path, near)),
                    designAt(design, 1000 + d)->height, 1e-4)
            << d;
    }
}

TEST(DesignLine, KeepsArcsAndBeginsAndEndsWithTheDesign) {
    const auto line = alignmentOn(valueOf(pathOf({{{0, 0}}, {{200, 0}, 80}, {{300, 200}}})), 0);
    const auto made = valueOf(designLine(line, {{50, 10, 0}, {150, 12, 0}, {200, 12, 0}}));
    const auto path = linework::planPath(made);
    double length = 0;
    std::size_t arcs = 0;
    for (const auto& s : path) {
        length += lengthOf(s);
        arcs += isCurved(s) ? 1 : 0;
    }
    EXPECT_NEAR(length, 150, 1e-9);
    EXPECT_EQ(arcs, 1U);
    EXPECT_THAT(path.front().start, test::IsNear(50, 0, 1e-9));
    // A PVI where an element begins is the corner itself.
    const auto at = valueOf(designLine(line, {{0, 10, 0}, {line.starts[1], 12, 20}, {line.length, 12, 0}}));
    EXPECT_EQ(cornersOf(at).size(), at.vertices.size());
    EXPECT_TRUE(at.vertices[1].curve);
}

TEST(DesignLine, SaysWhyThereIsNone) {
    const auto line = winding();
    EXPECT_THAT(designLine(line, {{1000, 1, 0}}).error().text, HasSubstr("at least two PVIs"));
    EXPECT_THAT(designLine(line, {{0, 1, 0}, {900, 2, 0}}).error().text, HasSubstr("does not reach"));
    EXPECT_THAT(designLine(line, {{1000, 1, 0}, {1050, 2, 80}, {1100, 1, 80}, {1200, 2, 0}}).error().text,
                HasSubstr("overlaps"));
    // What lies beyond the alignment is left out.
    const auto longer =
        valueOf(designLine(line, {{900, 10, 0}, {1100 + line.length, 10 + line.length + 200, 0}}));
    const auto resolved = linework::resolve(longer, linework::Surroundings{});
    EXPECT_NEAR(*resolved.vertices.front().height, 110, 1e-9);
    EXPECT_NEAR(*resolved.vertices.back().height, 110 + line.length, 1e-9);
}

}  // namespace
}  // namespace erdwerk::route
