#include "core/terrain/patch.h"

#include <set>

#include "core/terrain/contour_patch.h"
#include "support/geometry.h"
#include "support/mesh.h"

namespace erdwerk::terrain {
namespace {

using test::expectLinked;
using test::valueOf;

std::shared_ptr<const TinLocator> located(Tin tin) {
    return std::make_shared<const TinLocator>(std::make_shared<const Tin>(std::move(tin)));
}

Tin groundOf(std::mt19937& random, int count) {
    auto points = test::scattered(random, count, 100, [](double x, double y) {
        return 5 * std::sin(x / 17) + 4 * std::cos(y / 13) + x / 20;
    });
    for (const Vec2 p : test::places("0 0, 100 0, 100 100, 0 100")) points.push_back({p.x, p.y, p.x / 20});
    return valueOf(build({points, {}, {}, {}})).tin;
}

/// A ring of a wavy shape, its corners at one height.
Tin padOf(std::mt19937& random, Vec2 middle, double radius, double height) {
    std::uniform_real_distribution<double> wave(0.6, 1.0);
    std::uniform_int_distribution<int> corners(3, 12);
    const int n = corners(random);
    Boundary ring;
    std::vector<Vec3> points;
    for (int k = 0; k < n; ++k) {
        const double a = k * 2 * M_PI / n;
        const double r = radius * wave(random);
        ring.ring.push_back({middle.x + r * std::cos(a), middle.y + r * std::sin(a)});
        ring.heights.emplace_back(height);
    }
    BuildInput input;
    input.boundary = std::move(ring);
    input.narrowest = 0;
    return valueOf(build(std::move(input))).tin;
}

void expectEveryVertexUsed(const Tin& tin) {
    std::set<std::uint32_t> used(tin.corners().begin(), tin.corners().end());
    EXPECT_EQ(used.size(), tin.vertexCount());
}

/// The same triangle as an index made anew, or one that shares the place.
void expectSameIndex(const TinLocator& locator, std::mt19937& random) {
    const TinLocator fresh(locator.tinPointer());
    std::uniform_real_distribution<double> place(-5, 105);
    for (int k = 0; k < 200; ++k) {
        const Vec2 p{place(random), place(random)};
        ASSERT_EQ(locator.triangleAt(p), fresh.triangleAt(p)) << p.x << ' ' << p.y;
    }
}

/// Closed lines begin at their least place.
std::multiset<std::vector<std::pair<double, double>>> comparable(const std::vector<Contour>& lines) {
    std::multiset<std::vector<std::pair<double, double>>> out;
    for (const Contour& line : lines) {
        std::vector<std::pair<double, double>> places{{line.height, line.closed ? 1.0 : 0.0}};
        std::vector<std::pair<double, double>> own;
        for (const Vec2 p : line.places) own.emplace_back(p.x, p.y);
        if (line.closed) {
            own.pop_back();
            std::rotate(own.begin(), std::min_element(own.begin(), own.end()), own.end());
        }
        places.insert(places.end(), own.begin(), own.end());
        out.insert(std::move(places));
    }
    return out;
}

double lengthOf(const std::vector<Contour>& lines) {
    double sum = 0;
    for (const Contour& line : lines)
        for (std::size_t k = 1; k < line.places.size(); ++k)
            sum += geometry::distance(line.places[k - 1], line.places[k]);
    return sum;
}

TEST(Patch, TakesOverInPlace) {
    const auto ground =
        located(valueOf(build({test::places3("0 0 0, 100 0 0, 100 100 0, 0 100 0"), {}, {}, {}})).tin);
    const Tin pad = valueOf(build({test::places3("40 40 7, 60 40 7, 60 60 7, 40 60 7"), {}, {}, {}})).tin;
    const Tin both = takenOver(ground->tin(), pad);
    expectLinked(both);
    EXPECT_NEAR(figuresOf(both).planArea, 10000, 1e-6);
    const TinLocator there(std::make_shared<const Tin>(both));
    EXPECT_EQ(there.heightAt({50, 50}), 7.0);
    EXPECT_EQ(there.heightAt({30, 50}), 0.0);
}

TEST(Patch, IsWhatWorkingAnewGives) {
    for (unsigned seed = 1; seed <= 300; ++seed) {
        SCOPED_TRACE("seed " + std::to_string(seed));
        std::mt19937 random(seed);
        const auto ground = located(groundOf(random, 30 + static_cast<int>(seed % 5) * 150));
        std::uniform_real_distribution<double> where(20, 80);
        Patch patch(ground);
        std::vector<Tin> pads;
        for (unsigned k = 0; k < 1 + seed % 3; ++k) {
            const Vec2 middle{where(random), where(random)};
            pads.push_back(padOf(random, middle, 4 + static_cast<double>(seed % 4) * 5, 20 + k));
            patch.takeOver(pads.back());
        }
        const Patched patched = std::move(patch).finish();
        const Tin& tin = patched.locator->tin();
        expectLinked(tin);
        expectEveryVertexUsed(tin);
        expectSameIndex(*patched.locator, random);
        if (::testing::Test::HasFailure()) return;
        const TinFigures figures = figuresOf(tin);
        EXPECT_NEAR(figures.planArea, figuresOf(ground->tin()).planArea, 1e-6);
        const TinFigures after =
            figuresAfter(figuresOf(ground->tin()), ground->tin(), patched.gone, tin, patched.fresh);
        EXPECT_EQ(after.triangles, figures.triangles);
        EXPECT_EQ(after.points, figures.points);
        EXPECT_EQ(after.max.z, figures.max.z);
        EXPECT_NEAR(after.surfaceArea, figures.surfaceArea, 1e-6);
        for (int k = 0; k < 100; ++k) {
            const Vec2 p{where(random), where(random)};
            std::optional<double> expected = ground->heightAt(p);
            for (const Tin& pad : pads)
                if (const auto h = TinLocator(std::make_shared<const Tin>(pad)).heightAt(p)) expected = h;
            ASSERT_NEAR(*patched.locator->heightAt(p), *expected, 1e-9);
        }
    }
}

TEST(Patch, ContoursAreThoseOfTheWholeSurface) {
    for (unsigned seed = 1; seed <= 200; ++seed) {
        SCOPED_TRACE("seed " + std::to_string(seed));
        std::mt19937 random(seed);
        const auto ground = located(groundOf(random, 400));
        Patch patch(ground);
        patch.takeOver(padOf(random, {50, 50}, 15, 3.2));
        patch.takeOver(padOf(random, {30, 60}, 9, 5));
        const Patched patched = std::move(patch).finish();
        for (const bool smooth : {false, true}) {
            const ContourOptions options{0.5, smooth};
            const auto before = valueOf(contours(ground->tin(), options));
            const auto after = contoursAfter(before, ground->tin(), patched.gone, patched.locator->tin(),
                                             patched.fresh, options);
            ASSERT_TRUE(after);
            EXPECT_TRUE(std::is_sorted(after->begin(), after->end(), [](const Contour& a, const Contour& b) {
                return a.height < b.height;
            }));
            const auto whole = valueOf(contours(patched.locator->tin(), options));
            EXPECT_EQ(after->size(), whole.size());
            // A rounded closed line that begins elsewhere differs in the last digits.
            if (smooth)
                EXPECT_NEAR(lengthOf(*after), lengthOf(whole), 1e-6);
            else
                EXPECT_TRUE(comparable(*after) == comparable(whole));
        }
        // What is in the taken triangles and what is in the others is all there was.
        std::vector<std::uint32_t> rest;
        for (std::uint32_t t = 0; t < ground->tin().triangleCount(); ++t)
            if (!std::binary_search(patched.gone.begin(), patched.gone.end(), t)) rest.push_back(t);
        const ContourOptions plain{0.5, false};
        EXPECT_NEAR(lengthOf(contoursWithin(ground->tin(), patched.gone, plain)) +
                        lengthOf(contoursWithin(ground->tin(), rest, plain)),
                    lengthOf(valueOf(contours(ground->tin(), plain))), 1e-6);
    }
}

TEST(Patch, ContoursOfAnotherIntervalAreRefused) {
    std::mt19937 random(4);
    const auto ground = located(groundOf(random, 300));
    Patch patch(ground);
    patch.takeOver(padOf(random, {50, 50}, 20, 3));
    const Patched patched = std::move(patch).finish();
    const auto other = valueOf(contours(ground->tin(), {0.7, false}));
    EXPECT_FALSE(contoursAfter(other, ground->tin(), patched.gone, patched.locator->tin(), patched.fresh,
                               {0.5, false}));
}

TEST(Patch, GroundStaysInTheOpeningsOfWhatIsTakenOver) {
    for (unsigned seed = 1; seed <= 50; ++seed) {
        SCOPED_TRACE("seed " + std::to_string(seed));
        std::mt19937 random(seed);
        const auto ground = located(groundOf(random, 300));
        BuildInput input;
        input.points = test::places3("30 30 9, 70 30 9, 70 70 9, 30 70 9");
        input.openings.push_back({{test::places("41 42, 58 40, 60 61, 40 57"), {}}, false});
        const Tin frame = valueOf(build(std::move(input))).tin;
        ASSERT_NEAR(figuresOf(frame).planArea, 1600 - 351.5, 20);
        Patch patch(ground);
        patch.takeOver(frame);
        const Patched patched = std::move(patch).finish();
        expectLinked(patched.locator->tin());
        expectEveryVertexUsed(patched.locator->tin());
        EXPECT_NEAR(figuresOf(patched.locator->tin()).planArea, 10000, 1e-6);
        EXPECT_NEAR(*patched.locator->heightAt({50, 50}), *ground->heightAt({50, 50}), 1e-9);
        EXPECT_NEAR(*patched.locator->heightAt({35, 50}), 9, 1e-9);
        EXPECT_NEAR(*patched.locator->heightAt({20, 50}), *ground->heightAt({20, 50}), 1e-9);
    }
}

TEST(Patch, ReachesOverTheRim) {
    std::mt19937 random(2);
    const auto ground = located(groundOf(random, 300));
    const Tin pad = valueOf(build({test::places3("90 40 7, 120 40 7, 120 60 7, 90 60 7"), {}, {}, {}})).tin;
    Patch patch(ground);
    patch.takeOver(pad);
    patch.takeOver(padOf(random, {60, 50}, 10, 11));
    const Patched patched = std::move(patch).finish();
    expectLinked(patched.locator->tin());
    EXPECT_NEAR(figuresOf(patched.locator->tin()).planArea, 10000 + 400, 1e-6);
    EXPECT_EQ(patched.locator->heightAt({110, 50}), 7.0);
    EXPECT_EQ(patched.locator->heightAt({60, 50}), 11.0);
}

TEST(Patch, AllOfItMayGo) {
    std::mt19937 random(3);
    const auto ground = located(groundOf(random, 60));
    const Tin over =
        valueOf(build({test::places3("-10 -10 1, 110 -10 1, 110 110 1, -10 110 1"), {}, {}, {}})).tin;
    Patch patch(ground);
    patch.takeOver(over);
    const Patched patched = std::move(patch).finish();
    expectLinked(patched.locator->tin());
    EXPECT_EQ(patched.locator->tin().vertexCount(), 4U);
    EXPECT_EQ(patched.gone.size(), ground->tin().triangleCount());
}

TEST(Patch, SharedRimsAreOne) {
    const auto ground = located(
        valueOf(build({test::places3("0 0 0, 100 0 0, 100 100 0, 0 100 0, 50 50 0"), {}, {}, {}})).tin);
    Patch patch(ground);
    // At the ground along its rim, higher in the middle.
    patch.takeOver(
        valueOf(build({test::places3("20 20 0, 40 20 0, 40 40 0, 20 40 0, 30 30 5"), {}, {}, {}})).tin);
    const Patched patched = std::move(patch).finish();
    const Tin& tin = patched.locator->tin();
    expectLinked(tin);
    std::size_t open = 0;
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t)
        for (int i = 0; i < 3; ++i) open += tin.neighbour(t, i) == Tin::none ? 1 : 0;
    EXPECT_EQ(open, 4U);
}

TEST(Patch, ARimThatTouchesItselfAtACornerIsTwoRings) {
    const Tin bow({{0, 0, 0}, {10, 0, 0}, {5, 5, 0}, {10, 10, 0}, {0, 10, 0}}, {0, 1, 2, 2, 3, 4});
    const auto rings = rimRings(bow);
    ASSERT_EQ(rings.size(), 2U);
    EXPECT_EQ(rings[0].size(), 3U);
    EXPECT_EQ(rings[1].size(), 3U);
    // A square with an opening that touches its edge from within.
    const Tin touched({{0, 0, 0}, {10, 0, 0}, {10, 10, 0}, {0, 10, 0}, {5, 0, 0}, {4, 4, 0}, {6, 4, 0}},
                      {0, 4, 5, 4, 1, 6, 1, 2, 6, 6, 2, 5, 5, 2, 3, 5, 3, 0});
    const auto both = rimRings(touched);
    ASSERT_EQ(both.size(), 2U);
    for (const auto& ring : both)
        EXPECT_EQ(std::set<std::uint32_t>(ring.begin(), ring.end()).size(), ring.size());
    EXPECT_EQ(both[0].size() + both[1].size(), 8U);
}

TEST(Patch, ACrackInWhatIsTakenOverKeepsNoGround) {
    const auto ground = located(
        valueOf(build({test::places3("0 0 0, 100 0 0, 100 100 0, 0 100 0, 50 50 0"), {}, {}, {}})).tin);
    // The middle of a side of one triangle is a corner of two others.
    const Tin cracked({{20, 20, 5}, {40, 20, 5}, {40, 40, 5}, {20, 40, 5}, {30, 30, 5}},
                      {0, 1, 2, 0, 4, 3, 4, 2, 3});
    // Whichever way its rim is gone round at both ends of the crack, the rings hold what it covers.
    double within = 0;
    for (const auto& ring : ringsToCut(cracked)) {
        EXPECT_GT(geometry::signedArea(ring), 1);
        within += geometry::signedArea(ring);
    }
    EXPECT_NEAR(within, 20.0 * 20.0, 1e-9);
    Patch patch(ground);
    patch.takeOver(cracked);
    const Tin& tin = std::move(patch).finish().locator->tin();
    double area = 0;
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t) {
        const auto [a, b, c] = tin.triangle(t);
        area += geometry::cross(b.plan() - a.plan(), c.plan() - a.plan()) / 2;
    }
    EXPECT_NEAR(area, 100.0 * 100.0, 1e-6);
}

}  // namespace
}  // namespace erdwerk::terrain
