#include "core/earthwork/reach.h"

#include <algorithm>
#include <cmath>
#include <memory>
#include <random>

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

/// Where the face ends at s, by rays; nothing where it does not get there or never ends.
std::optional<double> endByRays(const Facet& f, const TinLocator& ground, double s) {
    const auto& tin = ground.tin();
    const auto at = [&](Along p) {
        const Vec2 place = f.place(p);
        return Vec3{place.x, place.y, f.height(p)};
    };
    const double grade = f.strips.front().alongD;
    const double slope = f.strips.front().alongS;
    double start = 0;
    std::optional<double> flank;
    for (const auto* side : {&f.first, &f.last}) {
        const bool isFirst = side == &f.first;
        const double lean = side->onwards.s;  // for each d
        const double beyond = isFirst ? -s : s - f.length;
        const double leansOut = isFirst ? -lean : lean;
        if (beyond > 0) {
            if (leansOut <= 0) return std::nullopt;
            start = beyond / leansOut;
            // Along the flank it goes until it meets the ground there.
            const double length = std::hypot(lean, 1);
            const Vec2 way = (f.along * lean + f.out) * (1 / length);
            const Along next{side->knots.front().s + 1e-4 * lean, 1e-4};
            if (f.gap(next, ground.heightAt(f.place(next)).value_or(f.height(next))) < 0) return std::nullopt;
            const auto ends = firstHit(tin, at(side->knots.front()), way, (grade + slope * lean) / length);
            if (ends && *ends / length < start) return std::nullopt;
        } else if (leansOut < 0) {
            const double d = -beyond / -leansOut;
            flank = std::min(flank.value_or(d), d);
        }
    }
    if (flank && *flank <= start) return std::nullopt;
    const auto hit = firstHit(tin, at({s, start}), f.out, grade);
    const double away = hit ? start + *hit : 1e9;
    if (flank) return std::min(away, *flank);
    return hit ? std::optional(away) : std::nullopt;
}

TEST(Reach, FacesEndWhereRaysDo) {
    int ended = 0;
    for (unsigned seed = 1; seed <= 400; ++seed) {
        SCOPED_TRACE("seed " + std::to_string(seed));
        std::mt19937 random(seed);
        const auto tin = test::roughGround(random);
        const TinLocator ground(tin);
        const Facet f = randomFacet(random, ground, seed % 2 == 0);
        const Envelope made = reachOf(f, ToSurface{}, &ground);
        for (double s = -20.03; s < 30; s += 0.71) {
            const auto expected = endByRays(f, ground, s);
            const auto piece = std::find_if(made.begin(), made.end(),
                                            [&](const Piece& p) { return p.s0 <= s && s <= p.s1; });
            ASSERT_EQ(piece != made.end(), expected.has_value()) << "at " << s;
            if (!expected) continue;
            ++ended;
            ASSERT_NEAR(piece->at(s), *expected, 1e-6 * (1 + *expected)) << "at " << s;
        }
    }
    EXPECT_GT(ended, 3000);
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
    const auto endAt = [&](const TinLocator& ground) {
        const Envelope made = reachOf(f, ToSurface{}, &ground);
        const auto piece =
            std::find_if(made.begin(), made.end(), [](const Piece& p) { return p.s0 <= 5 && 5 <= p.s1; });
        return piece == made.end() ? -1 : piece->at(5);
    };
    EXPECT_NEAR(endAt(*flat), 40, 1e-9);
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
    EXPECT_NEAR(endAt(*risen), 10 + 7.5 / 1.45, 1e-9);
    EXPECT_NEAR(endAt(*flat), 40, 1e-9);
}

}  // namespace
}  // namespace erdwerk::earthwork
