#include "core/linework/drape.h"

#include <cmath>

#include "core/terrain/build.h"
#include "core/terrain/trace.h"
#include "support/geometry.h"

namespace erdwerk::linework {
namespace {

terrain::TinLocator hills(unsigned seed) {
    std::mt19937 random(seed);
    const auto points = test::scattered(random, 80, 200, [](double x, double y) {
        return 300 + 12 * std::sin(x / 31) + 9 * std::cos(y / 23);
    });
    return terrain::TinLocator(
        std::make_shared<const terrain::Tin>(test::valueOf(terrain::build({points, {}, {}, {}})).tin));
}

/// A straight, an arc of radius 40 about (100, 60) and a straight.
Line3D bend() {
    Line3D line;
    for (const Vec2 place : {Vec2{60, 20}, {60, 60}, {100, 100}, {150, 100}}) {
        LineVertex corner;
        corner.place = place;
        line.vertices.push_back(corner);
    }
    line.vertices[1].through = Vec2{100 - 40 * std::sqrt(0.5), 60 + 40 * std::sqrt(0.5)};
    return line;
}

TEST(Drape, OnArcsTheRunLiesOnTheArcAndOnTheSurface) {
    for (unsigned seed = 1; seed <= 10; ++seed) {
        SCOPED_TRACE(seed);
        const auto surface = hills(seed);
        const auto made = drapedRuns(planPath(bend()), surface, {});
        ASSERT_EQ(made.runs.size(), 1U);
        int onArc = 0;
        for (const Vec3& p : made.runs.front()) {
            EXPECT_NEAR(p.z, surface.heightAt(p.plan()).value(), 1e-8);
            if (p.x > 100 || p.y < 60) continue;
            EXPECT_NEAR(geometry::distance(p.plan(), {100, 60}), 40, 1e-9);
            ++onArc;
        }
        EXPECT_GT(onArc, 40);
    }
}

TEST(Drape, WhereEdgesStandCloseTogetherAnArcNeedsNoMoreVertices) {
    // Squares of a quarter of a metre over the whole of the arc: edges every few centimetres, the chord of
    // 0.25 m rises by 0.2 mm.
    std::vector<Vec3> grid;
    for (int x = 0; x <= 60; ++x)
        for (int y = 0; y <= 60; ++y) grid.push_back({0.25 * x, 0.25 * y, 0.01 * x * y});
    const terrain::TinLocator surface(
        std::make_shared<const terrain::Tin>(test::valueOf(terrain::build({grid, {}, {}, {}})).tin));
    const geometry::Segment arc{{2, 7}, {12, 7}, Vec2{7, 12}};
    const auto made = drapedRuns({arc}, surface, {});
    ASSERT_EQ(made.runs.size(), 1U);
    EXPECT_EQ(made.runs.front().size(), terrain::trace(surface, arc).size());
}

TEST(Drape, ALineStaysOnTheSurfaceWhereItCurvesOverATriangle) {
    for (unsigned seed = 1; seed <= 10; ++seed) {
        SCOPED_TRACE(seed);
        const auto surface = hills(seed);
        const Line3D draped = test::valueOf(drape(bend(), surface, ObjectId{1}));
        const auto arc = planPath(bend())[1];
        std::vector<double> at{0};
        for (const LineVertex& v : draped.vertices)
            if (!v.isCorner && v.fraction > 0 && &v > &draped.vertices[cornersOf(draped)[1]] &&
                &v < &draped.vertices[cornersOf(draped)[2]])
                at.push_back(v.fraction);
        at.push_back(1);
        for (std::size_t k = 0; k + 1 < at.size(); ++k) {
            const double from = surface.heightAt(pointAt(arc, at[k])).value();
            const double to = surface.heightAt(pointAt(arc, at[k + 1])).value();
            for (const double t : {0.25, 0.5, 0.75})
                EXPECT_NEAR(from + t * (to - from),
                            surface.heightAt(pointAt(arc, at[k] + t * (at[k + 1] - at[k]))).value(), 0.001);
        }
    }
}

}  // namespace
}  // namespace erdwerk::linework
