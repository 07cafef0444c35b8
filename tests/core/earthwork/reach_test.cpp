#include "core/earthwork/reach.h"

#include <algorithm>
#include <cmath>
#include <memory>
#include <random>

#include "core/earthwork/face_cells.h"
#include "core/terrain/patch.h"
#include "support/geometry.h"
#include "support/ground.h"

namespace erdwerk::earthwork {
namespace {

using terrain::TinLocator;
using test::firstHit;

/// A face that begins on the ground or beside it, between flanks that lean either way.
Facet randomFacet(std::mt19937& random, const TinLocator& ground, bool endsOnGround) {
    std::uniform_real_distribution<double> wobble(-1, 1);
    Facet f;
    const double turned = 3 * wobble(random);
    f.along = {std::cos(turned), std::sin(turned)};
    f.out = geometry::leftOf(f.along) * -1.0;
    f.origin = {15 * wobble(random), 15 * wobble(random)};
    f.length = 4 + 3 * wobble(random);
    f.way = wobble(random) > 0 ? 1 : -1;
    const double start = *ground.heightAt(f.origin) - f.way * (0.2 + std::abs(wobble(random)));
    const double end = *ground.heightAt(f.place({f.length, 0})) -
                       (endsOnGround ? 0.0 : f.way * (0.2 + std::abs(wobble(random))));
    f.strips = {{start, (end - start) / f.length, f.way * 0.6, 0, 0}};
    f.first = {{{0, 0}}, {1.5 * wobble(random), 1}, false};
    f.last = {{{f.length, 0}}, {1.5 * wobble(random), 1}, false};
    return f;
}

/// The cells of one face alone.
FaceCells cellsOf(const Facet& f, const TinLocator& ground) {
    EdgeFacets made;
    made.facets = {f};
    made.facets.front().starts = {{0, f.length}};
    auto lines = linesOf(made, ToSurface{}, &ground, {});
    return {f, std::move(lines.front()), [&](Along at) {
                const auto gap = gapAt(f, at, ToSurface{}, &ground);
                return gap && *gap > 0;
            }};
}

/// Where it ends going out from the edge.
std::optional<double> endAt(const FaceCells& made, double s) {
    const auto cell = made.at({s, 1e-6});
    return cell ? std::optional(made.high(made.cells[*cell], s)) : std::nullopt;
}

/// The same by rays; nothing where it never ends.
std::optional<double> endByRays(const Facet& f, const TinLocator& ground, double s) {
    std::optional<double> flank;
    for (const auto* side : {&f.first, &f.last}) {
        const double lean = (side == &f.first ? 1 : -1) * side->onwards.s;  // inwards, for each d
        if (lean > 0) flank = std::min(flank.value_or(1e9), (side == &f.first ? s : f.length - s) / lean);
    }
    const Vec2 place = f.place({s, 0});
    const auto hit =
        firstHit(ground.tin(), {place.x, place.y, f.height({s, 0})}, f.out, f.strips.front().alongD);
    if (hit) return std::min(*hit, flank.value_or(*hit));
    return flank && ground.heightAt(f.place({s, *flank})) ? flank : std::nullopt;
}

TEST(Reach, FacesEndWhereRaysDo) {
    int ended = 0;
    int before = 0;
    for (unsigned seed = 1; seed <= 400; ++seed) {
        SCOPED_TRACE("seed " + std::to_string(seed));
        std::mt19937 random(seed);
        const auto tin = test::roughGround(random);
        const TinLocator ground(tin);
        const Facet f = randomFacet(random, ground, seed % 2 == 0);
        const FaceCells made = cellsOf(f, ground);
        for (double s = 0.03; s < f.length; s += 0.11) {
            if (f.gap({s, 0}, *ground.heightAt(f.place({s, 0}))) < 1e-3) continue;
            const auto expected = endByRays(f, ground, s);
            const auto end = endAt(made, s);
            ASSERT_EQ(end.has_value(), expected.has_value()) << "at " << s;
            if (!expected) continue;
            ++ended;
            ASSERT_NEAR(*end, *expected, 1e-6 * (1 + *expected)) << "at " << s;
        }
        // All of each cell lies before the ground, behind humps too.
        for (const FaceCell& c : made.cells)
            for (const double share : {0.1, 0.5, 0.9}) {
                const double s = c.from + (c.to - c.from) * share;
                const Along at{s, made.low(c, s) + (made.high(c, s) - made.low(c, s)) * share};
                ASSERT_GT(f.gap(at, ground.heightAt(f.place(at)).value_or(1e9 * f.way)), -1e-9);
                ++before;
            }
    }
    EXPECT_GT(ended, 3000);
    EXPECT_GT(before, 3000);
}

TEST(Reach, WhereTheSurfaceChangedItIsTheNewOne) {
    const auto flat = test::planeGround(100);
    Facet f;
    f.origin = {-5, -20};
    f.along = {1, 0};
    f.out = {0, 1};
    f.length = 10;
    f.way = -1;
    f.strips = {{110, 0, -0.25, 0, 0}};
    f.first.knots = {{0, 0}};
    f.last.knots = {{10, 0}};
    const auto reach = [&](const TinLocator& ground) { return endAt(cellsOf(f, ground), 5).value_or(-1); };
    EXPECT_NEAR(reach(*flat), 40, 1e-9);
    // A mound of 12 m in its way: 1.2 u above the ground, u beyond its foot, which is 10 m from the edge.
    const terrain::Tin mound({{-10, -10, 100},
                              {0, -10, 100},
                              {10, -10, 100},
                              {10, 0, 100},
                              {10, 10, 100},
                              {0, 10, 100},
                              {-10, 10, 100},
                              {-10, 0, 100},
                              {0, 0, 112}},
                             {0, 1, 8, 1, 2, 8, 2, 3, 8, 3, 4, 8, 4, 5, 8, 5, 6, 8, 6, 7, 8, 7, 0, 8});
    terrain::Patch patch(flat);
    patch.takeOver(mound);
    const auto risen = std::move(patch).finish().locator;
    EXPECT_NEAR(reach(*risen), 10 + 7.5 / 1.45, 1e-9);
    EXPECT_NEAR(reach(*flat), 40, 1e-9);
}

}  // namespace
}  // namespace erdwerk::earthwork
