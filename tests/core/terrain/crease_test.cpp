#include "core/terrain/crease.h"

#include <numbers>

#include "core/terrain/build.h"
#include "demo_site/cloud.h"
#include "demo_site/site.h"
#include "support/geometry.h"

namespace erdwerk::terrain {
namespace {

using test::valueOf;
constexpr double degree = std::numbers::pi / 180;

template <class Height>
HeightGrid gridFrom(double size, double cell, const Height& height) {
    auto grid = valueOf(emptyGrid({0, 0, size, size}, cell));
    for (int r = 0; r < grid.rows; ++r)
        for (int c = 0; c < grid.columns; ++c) {
            const Vec2 p = grid.place(c, r);
            grid.heights[grid.at(c, r)] = height(p.x, p.y);
            grid.present[grid.at(c, r)] = 1;
        }
    return grid;
}

/// Two planes that meet over the line through (25, 25) in the direction of `angle`.
double fold(double x, double y, double angle, double left, double right) {
    const double d = -(x - 25) * std::sin(angle) + (y - 25) * std::cos(angle);
    return 100 + (d > 0 ? left : right) * d;
}

TEST(CreaseField, StatesTheAngleBetweenTwoPlanesInAnyDirection) {
    for (const double angle : {0.0, 17.0, 45.0, 71.0, 90.0}) {
        for (const auto& [left, right] :
             {std::pair{-1.0, 1.0}, std::pair{-0.5, 0.2}, std::pair{-2.5, -0.4}}) {
            SCOPED_TRACE(angle);
            const CreaseField field(gridFrom(50, 0.25, [&, l = left, r = right](double x, double y) {
                return fold(x, y, angle * degree, l, r);
            }));
            // Grades along the section across: `right` on the one side, `left` on the other.
            const double expected = std::atan(right) - std::atan(left);
            EXPECT_NEAR(field.bend(CreaseKind::Crest, {25, 25}), expected, 0.06 * expected);
            EXPECT_EQ(field.bend(CreaseKind::Toe, {25, 25}), 0);
            const Vec2 off = Vec2{25, 25} + Vec2{-std::sin(angle * degree), std::cos(angle * degree)} * 5.0;
            EXPECT_NEAR(field.bend(CreaseKind::Crest, off), 0, 1e-9);
        }
    }
}

TEST(Creases, OfATruncatedPyramidAreItsEdges) {
    // Top 20 x 20 at height 10, sides falling 1 : 1 to a flat base.
    const auto height = [](double x, double y) {
        const double off = std::max(std::abs(x - 30), std::abs(y - 30)) - 10;
        return std::clamp(10 - off, 0.0, 10.0);
    };
    const CreaseField field(gridFrom(60, 0.25, height));
    const auto creases = findCreases(field, {20 * degree, 3, 0.05});
    double crest = 0;
    double toe = 0;
    for (const Crease& c : creases) {
        for (const Vec3& p : c.places) {
            const double ring = std::max(std::abs(p.x - 30), std::abs(p.y - 30));
            const bool diagonal = std::abs(std::abs(p.x - 30) - std::abs(p.y - 30)) < 1;
            if (c.kind == CreaseKind::Crest)
                EXPECT_TRUE(std::abs(ring - 10) < 0.5 || diagonal) << p.x << " " << p.y;
            else
                EXPECT_NEAR(ring, 20, 0.6);
        }
        for (std::size_t i = 0; i + 1 < c.places.size(); ++i)
            (c.kind == CreaseKind::Crest ? crest : toe) +=
                geometry::distance(c.places[i].plan(), c.places[i + 1].plan());
    }
    EXPECT_GT(crest, 0.9 * 80);
    EXPECT_GT(toe, 0.9 * 160);
}

/// Share of the length of lines that lies within `limit` of a closed ring.
double shareNear(const std::vector<std::vector<Vec3>>& lines, const std::vector<Vec3>& ring, double limit) {
    double near = 0;
    double all = 0;
    for (const auto& line : lines)
        for (std::size_t i = 0; i + 1 < line.size(); ++i) {
            const double piece = geometry::distance(line[i].plan(), line[i + 1].plan());
            const int parts = std::max(1, static_cast<int>(piece / 0.05));
            for (int k = 0; k < parts; ++k) {
                const Vec2 p = geometry::lerp(line[i].plan(), line[i + 1].plan(), (k + 0.5) / parts);
                double best = 1e300;
                for (std::size_t j = 0; j < ring.size(); ++j) {
                    const Vec2 a = ring[j].plan();
                    const Vec2 d = ring[(j + 1) % ring.size()].plan() - a;
                    const double t = std::clamp(geometry::dot(p - a, d) / geometry::dot(d, d), 0.0, 1.0);
                    best = std::min(best, geometry::distance(p, a + d * t));
                }
                all += piece / parts;
                near += best <= limit ? piece / parts : 0;
            }
        }
    return all > 0 ? near / all : 0;
}

const CreaseField& knoll() {
    static const CreaseField field = [] {
        auto plan = demo::northKnoll();
        plan.shrubs = false;
        const auto points = valueOf(survey::placesOf(demo::makeCloud(plan).cloud, {}));
        const auto tin = valueOf(triangulate({points, {}, {}, {}})).tin;
        const TinLocator surface(std::make_shared<const Tin>(tin));
        return CreaseField(valueOf(gridOf(surface, tin.bounds(), plan.spacing)));
    }();
    return field;
}

TEST(Creases, OfNorthKnollLieOnItsTrueCrestAndToe) {
    const auto creases = findCreases(knoll(), {25 * degree, 5, 0.1});
    std::vector<std::vector<Vec3>> crests;
    std::vector<std::vector<Vec3>> toes;
    for (const Crease& c : creases) {
        auto places = c.places;
        if (c.closed) places.push_back(places.front());
        (c.kind == CreaseKind::Crest ? crests : toes).push_back(places);
    }
    const auto crest = demo::knollCrest(2000);
    const auto toe = demo::knollToe(2000);
    const double limit = 2 * demo::northKnoll().spacing;
    const double onCrest = shareNear(crests, crest, limit);
    const double onToe = shareNear(toes, toe, limit);
    const auto joined = [](const std::vector<std::vector<Vec3>>& lines) {
        std::vector<Vec3> all;
        for (const auto& line : lines)
            for (std::size_t i = 0; i + 1 < line.size(); ++i)
                for (int k = 0; k < 50; ++k) {
                    const Vec2 p = geometry::lerp(line[i].plan(), line[i + 1].plan(), k / 50.0);
                    all.push_back({p.x, p.y, 0});
                }
        return all;
    };
    // The other way round: how much of the true edges is found.
    const auto found = [&](const std::vector<std::vector<Vec3>>& lines, const std::vector<Vec3>& ring) {
        const auto places = joined(lines);
        std::size_t near = 0;
        for (const Vec3& p : ring)
            near +=
                std::any_of(places.begin(), places.end(),
                            [&](const Vec3& q) { return geometry::distance(p.plan(), q.plan()) <= limit; })
                    ? 1
                    : 0;
        return static_cast<double>(near) / static_cast<double>(ring.size());
    };
    const double crestFound = found(crests, crest);
    const double toeFound = found(toes, toe);
    std::printf(
        "found: %zu crests, %.1f %% of their length within 0.5 m of the true crest, %.1f %% of it found; "
        "%zu toes, %.1f %% and %.1f %%\n",
        crests.size(), 100 * onCrest, 100 * crestFound, toes.size(), 100 * onToe, 100 * toeFound);
    EXPECT_GE(onCrest, 0.9);
    EXPECT_GE(onToe, 0.9);
    EXPECT_GE(crestFound, 0.9);
    EXPECT_GE(toeFound, 0.9);
}

TEST(TraceCrease, FollowsNorthKnollsCrestAndToeFromAShortStretch) {
    for (const auto& [ring, kind] : {std::pair{demo::knollCrest(2000), CreaseKind::Crest},
                                     std::pair{demo::knollToe(2000), CreaseKind::Toe}}) {
        // Drawn a little beside the edge, as by hand.
        const Vec2 a = ring[100].plan() + Vec2{0.2, -0.1};
        const Vec2 b = ring[125].plan() + Vec2{-0.1, 0.2};
        const auto traced = valueOf(traceCrease(knoll(), a, b, {25 * degree, 5, 0.1}));
        EXPECT_EQ(traced.crease.kind, kind);
        const double share = shareNear({traced.crease.places}, ring, 2 * demo::northKnoll().spacing);
        double length = 0;
        for (std::size_t i = 0; i + 1 < traced.crease.places.size(); ++i)
            length += geometry::distance(traced.crease.places[i].plan(), traced.crease.places[i + 1].plan());
        std::printf("traced %s: %.1f m, %.1f %% within 0.5 m of the true edge; %s\n",
                    kind == CreaseKind::Crest ? "crest" : "toe", length, 100 * share,
                    std::string(textOf(traced.stop)).c_str());
        EXPECT_GE(share, 0.9);
        EXPECT_EQ(traced.stop, TraceStop::Closed);
        EXPECT_GT(length, 150);
    }
}

TEST(TraceCrease, StopsWhereTheFoldEnds) {
    // A fold that flattens out east of x = 30.
    const CreaseField field(gridFrom(50, 0.25, [](double x, double y) {
        const double fade = std::clamp((34 - x) / 4, 0.0, 1.0);
        return 100 - fade * std::abs(y - 25);
    }));
    const auto traced = valueOf(traceCrease(field, {5, 25}, {10, 25}, {25 * degree, 5, 0.1}));
    EXPECT_EQ(traced.crease.kind, CreaseKind::Crest);
    EXPECT_EQ(traced.stop, TraceStop::EvidenceEnds);
    EXPECT_NEAR(traced.crease.places.back().x, 33, 1.5);
    for (const Vec3& p : traced.crease.places) EXPECT_NEAR(p.y, 25, 0.3);
}

TEST(TraceCrease, StopsWhereTheFoldForks) {
    // Three half planes' ridge lines from the west, parting in two at x = 25.
    const CreaseField field(gridFrom(50, 0.25, [](double x, double y) {
        const double spread = std::max(0.0, x - 25);
        return 100 - std::min(std::abs(y - 25 - spread), std::abs(y - 25 + spread));
    }));
    const auto traced = valueOf(traceCrease(field, {5, 25}, {10, 25}, {25 * degree, 5, 0.1}));
    EXPECT_EQ(traced.stop, TraceStop::Forks);
    EXPECT_NEAR(traced.crease.places.back().x, 25, 2);
}

TEST(TraceCrease, StopsAtTheEdgeOfTheDataAndRefusesFlatGround) {
    const CreaseField field(gridFrom(50, 0.25, [](double, double y) { return 100 - std::abs(y - 25); }));
    EXPECT_EQ(valueOf(traceCrease(field, {5, 25}, {10, 25}, {25 * degree, 5, 0.1})).stop,
              TraceStop::EdgeOfData);
    EXPECT_EQ(traceCrease(field, {5, 10}, {10, 10}, {25 * degree, 5, 0.1}).error().text,
              "there is no bend in the ground along this stretch");
    EXPECT_EQ(traceCrease(field, {5, 25}, {5.1, 25}, {25 * degree, 5, 0.1}).error().text,
              "draw a longer stretch along the crease");
}

TEST(Simplified, LeavesOutWhatLiesWithinTheDeviationInPlanAndHeight) {
    const auto line = test::places3("0 0 0, 1 0.05 0, 2 0 0, 3 0 1, 4 0 0");
    const auto out = simplified(line, 0.1);
    EXPECT_EQ(out, test::places3("0 0 0, 2 0 0, 3 0 1, 4 0 0"));
    EXPECT_EQ(simplified(line, 0).size(), 5U);
}

}  // namespace
}  // namespace erdwerk::terrain
