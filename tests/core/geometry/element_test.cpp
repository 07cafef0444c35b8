// Every sort of element answers alike: what one function says is checked against the others and against dense
// sampling.

#include "core/geometry/element.h"

#include <numbers>

#include "support/geometry.h"

namespace erdwerk::geometry {
namespace {

using test::IsNear;

/// Straights, arcs of all sweeps and clothoids, also ones that turn the other way half way, both ways round.
std::vector<Segment> anyElements(std::mt19937& random, int count) {
    std::uniform_real_distribution<double> any(-50, 50);
    std::vector<Segment> out;
    while (static_cast<int>(out.size()) < count) {
        Segment s{{any(random), any(random)}, {any(random), any(random)}, std::nullopt};
        if (out.size() % 4 == 3) {
            const double from = out.size() % 8 == 3 ? 0 : any(random) / 900;
            s = clothoidFrom(s.start, Angle::degrees(any(random) * 7),
                             {from, any(random) / 900, 55 + any(random)});
            if (distance(s.start, s.end) > 1) out.push_back(s);
            continue;
        }
        if (out.size() % 4 != 0) s.through = Vec2{any(random), any(random)};
        const auto arc = arcOf(s);
        if (distance(s.start, s.end) > 1 && (!arc || (arc->radius < 500 && arc->length() > 1)))
            out.push_back(s);
    }
    return out;
}

TEST(Element, EndsExactlyAtItsEnds) {
    std::mt19937 random(31);
    for (const Segment& s : anyElements(random, 300)) {
        EXPECT_EQ(pointAt(s, 0), s.start);
        EXPECT_EQ(pointAt(s, 1), s.end);
        EXPECT_THAT(pointAt(s, 1e-12), IsNear(s.start.x, s.start.y, 1e-8));
        EXPECT_THAT(pointAt(s, 1 - 1e-12), IsNear(s.end.x, s.end.y, 1e-8));
    }
}

TEST(Element, LengthDirectionAndCurvatureAreThoseOfItsPlaces) {
    std::mt19937 random(32);
    for (const Segment& s : anyElements(random, 300)) {
        double length = 0;
        for (int k = 0; k < 4000; ++k)
            length += distance(pointAt(s, k / 4000.0), pointAt(s, (k + 1) / 4000.0));
        EXPECT_NEAR(length, lengthOf(s), 2e-6 * lengthOf(s));
        const double h = 1e-6;
        for (const double t : {0.1, 0.5, 0.83}) {
            const Angle chord = azimuth(pointAt(s, t - h), pointAt(s, t + h));
            EXPECT_NEAR((chord - tangentAt(s, t)).signedTurn().radians(), 0, 1e-6);
            const double turn = (tangentAt(s, t + h) - tangentAt(s, t - h)).signedTurn().radians();
            const double curvature = std::visit([t](const auto& e) { return e.curvature(t); }, elementOf(s));
            EXPECT_NEAR(turn / (2 * h * lengthOf(s)), curvature, 1e-6);
        }
    }
}

TEST(Element, NearestPlaceIsNoFartherThanAnyOther) {
    std::mt19937 random(33);
    std::uniform_real_distribution<double> any(-80, 80);
    for (const Segment& s : anyElements(random, 300)) {
        const Vec2 p{any(random), any(random)};
        const double found = distance(pointAt(s, nearestFraction(s, p)), p);
        double least = 1e300;
        for (int k = 0; k <= 2000; ++k) least = std::min(least, distance(pointAt(s, k / 2000.0), p));
        EXPECT_LE(found, least + 1e-9);
        EXPECT_GE(found, least - lengthOf(s) / 2000);
    }
}

TEST(Element, BoundsHoldItAndTouchIt) {
    std::mt19937 random(34);
    for (const Segment& s : anyElements(random, 300)) {
        const Box box = boundsOf(s);
        Box sampled;
        for (int k = 0; k <= 5000; ++k) sampled.add(pointAt(s, k / 5000.0));
        EXPECT_TRUE(box.grown(1e-9).contains({sampled.minX, sampled.minY}));
        EXPECT_TRUE(box.grown(1e-9).contains({sampled.maxX, sampled.maxY}));
        EXPECT_NEAR(box.width(), sampled.width(), 1e-3);
        EXPECT_NEAR(box.height(), sampled.height(), 1e-3);
    }
}

TEST(Element, PiecesStayWithinTheSagitta) {
    std::mt19937 random(35);
    for (const Segment& s : anyElements(random, 200))
        for (const double sagitta : {1.0, 0.01}) {
            const auto places = flattened(s, sagitta);
            EXPECT_EQ(places.front(), s.start);
            EXPECT_EQ(places.back(), s.end);
            for (int k = 0; k <= 400; ++k) {
                const Vec2 p = pointAt(s, k / 400.0);
                double off = 1e300;
                for (std::size_t i = 0; i + 1 < places.size(); ++i) {
                    const Straight chord{places[i], places[i + 1]};
                    off = std::min(off, distance(chord.at(chord.nearest(p)), p));
                }
                EXPECT_LE(off, sagitta * (1 + 1e-9));
            }
        }
}

TEST(Element, BulgeIsTheAreaBesideTheChord) {
    std::mt19937 random(36);
    for (const Segment& s : anyElements(random, 200)) {
        // The shoelace of many chords, closed by the element's own chord; clockwise is to the left of it.
        std::vector<Vec2> ring;
        for (int k = 0; k <= 4000; ++k) ring.push_back(pointAt(s, k / 4000.0));
        double twice = 0;
        for (std::size_t i = 0; i < ring.size(); ++i)
            twice += cross(ring[i] - s.start, ring[(i + 1) % ring.size()] - s.start);
        EXPECT_NEAR(bulgeArea(s), -twice / 2, 1e-4 * (1 + std::abs(twice)));
    }
}

TEST(Element, PartsAndBetweenKeepTheShape) {
    std::mt19937 random(37);
    for (const Segment& s : anyElements(random, 200)) {
        const Segment middle = part(s, 0.25, 0.75);
        EXPECT_NEAR(lengthOf(middle), lengthOf(s) / 2, 1e-6 * lengthOf(s));
        EXPECT_THAT(pointAt(middle, 0.5), IsNear(pointAt(s, 0.5).x, pointAt(s, 0.5).y, 1e-6));
        EXPECT_NEAR(lengthOf(reversed(s)), lengthOf(s), 1e-9 * lengthOf(s));
        // Twice as large and turned a quarter: all lengths double.
        const Vec2 chord = s.end - s.start;
        const Segment larger = between(s, {7, 8}, Vec2{7, 8} + leftOf(chord) * 2);
        EXPECT_NEAR(lengthOf(larger), 2 * lengthOf(s), 1e-6 * lengthOf(s));
        EXPECT_NEAR(bulgeArea(larger), 4 * bulgeArea(s), 1e-5 * (1 + std::abs(bulgeArea(s))));
    }
}

/// Upper half of a circle of radius 5 about the origin, from west to east.
const Segment half{{-5, 0}, {5, 0}, Vec2{0, 5}};

TEST(Crossings, OfAStraightWithAnArcAreThoseOfTheCircle) {
    // x = 3 and y = 3 meet x² + y² = 25 at (3, 4) and at (±4, 3).
    const auto once = crossings({{3, -10}, {3, 10}, std::nullopt}, half);
    ASSERT_EQ(once.size(), 1U);
    EXPECT_THAT(once[0].place, IsNear(3, 4, 1e-9));
    EXPECT_NEAR(once[0].first, 0.7, 1e-12);
    const auto twice = crossings({{-10, 3}, {10, 3}, std::nullopt}, half);
    ASSERT_EQ(twice.size(), 2U);
    EXPECT_THAT(twice[0].place, IsNear(-4, 3, 1e-9));
    EXPECT_THAT(twice[1].place, IsNear(4, 3, 1e-9));
    EXPECT_TRUE(crossings({{-10, -3}, {10, -3}, std::nullopt}, half).empty());
    EXPECT_TRUE(crossings({{-10, 6}, {10, 6}, std::nullopt}, half).empty());
}

TEST(Crossings, OfTwoArcsAreThoseOfTheirCircles) {
    // Circles of radius 5 about (0, 0) and (6, 0) meet at (3, ±4); only the upper halves are here.
    const Segment other{{1, 0}, {11, 0}, Vec2{6, 5}};
    const auto found = crossings(half, other);
    ASSERT_EQ(found.size(), 1U);
    EXPECT_THAT(found[0].place, IsNear(3, 4, 1e-9));
    EXPECT_NEAR(found[0].second, std::acos(3.0 / 5) / std::numbers::pi, 1e-9);
}

TEST(Crossings, OfAnyTwoAreWhereDenseChordsCross) {
    std::mt19937 random(38);
    const auto elements = anyElements(random, 180);
    int crossed = 0;
    for (std::size_t i = 0; i + 1 < elements.size(); i += 2) {
        const Segment& a = elements[i];
        const Segment& b = elements[i + 1];
        const auto found = crossings(a, b);
        std::size_t counted = 0;
        constexpr int n = 150;
        for (int j = 0; j < n; ++j)
            for (int k = 0; k < n; ++k)
                counted += crossings({pointAt(a, j * 1.0 / n), pointAt(a, (j + 1.0) / n), std::nullopt},
                                     {pointAt(b, k * 1.0 / n), pointAt(b, (k + 1.0) / n), std::nullopt})
                               .size();
        EXPECT_EQ(found.size(), counted) << i;
        crossed += static_cast<int>(counted);
        for (const auto& c : found) {
            EXPECT_THAT(pointAt(a, c.first), IsNear(c.place.x, c.place.y, 1e-7));
            EXPECT_THAT(pointAt(b, c.second), IsNear(c.place.x, c.place.y, 1e-7));
        }
    }
    EXPECT_GT(crossed, 15);
}

}  // namespace
}  // namespace erdwerk::geometry
