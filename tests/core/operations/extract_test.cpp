#include "core/operations/extract.h"

#include "core/linework/line3d.h"
#include "core/objects/points.h"
#include "core/objects/surface.h"
#include "core/operations/points.h"
#include "core/operations/surfaces.h"
#include "support/after_edit.h"
#include "support/geometry.h"

namespace erdwerk::operations {
namespace {

using namespace document;
using namespace derive;

using test::valueOf;

/// A plane of 20 x 20 that rises 1 in 2 to the north, from 0 to 10.
struct Plane {
    Document document;
    ObjectId surface;
    Derived derived;

    Plane() {
        ObjectId points;
        document = test::afterEdit({},
                                   addPoints("s", {{"1", {0, 0}, 0.0, "", ""},
                                                   {"2", {20, 0}, 0.0, "", ""},
                                                   {"3", {20, 20}, 10.0, "", ""},
                                                   {"4", {0, 20}, 10.0, "", ""}}),
                                   &points);
        document = test::afterEdit(document, addSurface("G", {{points, Role::Points}}), &surface);
        document = changed<Surface>(document, surface, [](Surface& s) { s.style.interval = 1; });
        derived = valueOf(evaluate(document));
    }
    Extracted take(const ExtractOptions& options) const {
        return valueOf(extractFrom(derived, surface, options));
    }
};

TEST(Extract, ContoursAllIndexRangeAndPicked) {
    const Plane p;
    const auto count = [&](const ExtractOptions& o) { return p.take(o).objects; };
    EXPECT_EQ(count({Extract::Contours, {}, false, -1e300, 1e300, {}, {}, 0}),
              10U);  // 1 to 10; 0 lies on the rim
    EXPECT_EQ(count({Extract::Contours, {}, true, -1e300, 1e300, {}, {}, 0}), 2U);
    EXPECT_EQ(count({Extract::Contours, {}, false, 3, 6, {}, {}, 0}), 4U);
    EXPECT_EQ(count({Extract::Contours, {}, false, -1e300, 1e300, {2, 7}, {}, 0}), 2U);
    EXPECT_FALSE(extractFrom(p.derived, p.surface, {Extract::Contours, {}, false, 100, 200, {}, {}, 0}));
}

TEST(Extract, ContoursLieOnTheirLevelInTheirGroup) {
    const Plane p;
    const auto out = p.take({});
    EXPECT_EQ(out.document.nameOf(out.group), "Contours of G");
    const auto derived = valueOf(evaluate(out.document));
    for (const auto& [id, line] : derived.lines)
        for (const auto& v : line->vertices) EXPECT_NEAR(*v.height, v.place.y / 2, 1e-9);
    // The surface is as it was, and the next extraction uses the same group.
    EXPECT_EQ(out.document.get<Surface>(p.surface)->definition,
              p.document.get<Surface>(p.surface)->definition);
    const auto again = valueOf(extractFrom(derived, p.surface, {}));
    EXPECT_EQ(again.group, out.group);
}

TEST(Extract, TrianglesEdgeAndPoints) {
    const Plane p;
    EXPECT_EQ(p.take({Extract::Triangles, {}, false, 0, 0, {}, {}, 0}).objects, 2U);
    EXPECT_EQ(p.take({Extract::Triangles, {}, false, 0, 0, {}, {{19, 10}, {19, 11}}, 0}).objects, 1U);
    const auto edge = p.take({Extract::Edge, "Rim", false, 0, 0, {}, {}, 0});
    EXPECT_EQ(edge.document.nameOf(edge.group), "Rim");
    const auto derivedEdge = valueOf(evaluate(edge.document));
    const auto& ring = *derivedEdge.lines.begin()->second;
    EXPECT_TRUE(ring.closed);
    EXPECT_NEAR(ring.length, 80, 1e-9);
    const auto points = p.take({Extract::Points, {}, false, 0, 0, {}, {}, 0});
    EXPECT_EQ(points.document.all<Points>().size(), 2U);
}

TEST(Extract, ArrowsPointDownhillAndLieOnTheSurface) {
    const Plane p;
    const auto out = p.take({Extract::SlopeArrows, {}, false, 0, 0, {}, {}, 2});
    EXPECT_EQ(out.objects, 2U);
    const auto derived = valueOf(evaluate(out.document));
    for (const auto& [id, line] : derived.lines) {
        const auto& v = line->vertices;
        EXPECT_NEAR(v[1].place.y - v[0].place.y, -2, 1e-9);  // south is down
        EXPECT_NEAR(v[1].place.x, v[0].place.x, 1e-9);
        EXPECT_NEAR(*v[0].height - *v[1].height, 1, 1e-9);
    }
}

TEST(Extract, NothingIsChangedWithoutASurface) {
    EXPECT_FALSE(extractFrom(valueOf(evaluate({})), ObjectId{7}, {}));
}

}  // namespace
}  // namespace erdwerk::operations
