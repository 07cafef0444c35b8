#include "core/route/stationing.h"

#include "core/base/notation.h"
#include "core/route/pis.h"
#include "core/route/station_finder.h"
#include "support/geometry.h"

namespace erdwerk::route {
namespace {

using test::valueOf;

TEST(Stationing, JumpsAtItsEquations) {
    // 2750 .. 2800 reads on as 2850 (a gap), .. 2900 reads on as 2880 (again).
    const auto s = valueOf(Stationing::withEquations(2750, {{2800, 2850}, {2900, 2880}}));
    EXPECT_EQ(s.stationAt(0), 2750);
    EXPECT_EQ(s.stationAt(49), 2799);
    EXPECT_EQ(s.stationAt(50), 2850);
    EXPECT_EQ(s.stationAt(99), 2899);
    EXPECT_EQ(s.stationAt(100), 2880);
    EXPECT_EQ(s.stationAt(130), 2910);
    EXPECT_EQ(s.distanceAt(2760, 200), 10);
    EXPECT_EQ(s.distanceAt(2820, 200), std::nullopt);
    EXPECT_EQ(s.distanceAt(2890, 200), 90);  // the first of both
    EXPECT_EQ(s.distanceAt(2910, 200), 130);
    EXPECT_EQ(s.distanceAt(2980, 200), 200);
    EXPECT_EQ(s.distanceAt(2981, 200), std::nullopt);
    EXPECT_EQ(s.distanceAt(2749, 200), std::nullopt);
    EXPECT_EQ(s.upTo(60).equations().size(), 1U);
}

TEST(Stationing, EveryPlaceIsFoundByWhatIsReadThere) {
    for (unsigned seed = 1; seed <= 300; ++seed) {
        std::mt19937 random(seed);
        std::uniform_real_distribution<double> any(0, 300);
        std::vector<StationEquation> equations;
        double from = any(random) - 100;
        const double start = from;
        double length = 0;
        for (unsigned k = 0; k < seed % 4; ++k) {
            const double run = 1 + any(random);
            length += run;
            equations.push_back({from + run, from + run + any(random) - 150});
            from = equations.back().ahead;
        }
        length += 50;
        const auto s = valueOf(Stationing::withEquations(start, equations));
        for (int k = 0; k < 20; ++k) {
            const double d = std::uniform_real_distribution<double>(0, length)(random);
            const double station = s.stationAt(d);
            const auto back = s.distanceAt(station, length);
            ASSERT_TRUE(back) << "seed " << seed;
            // The first place that reads so.
            EXPECT_LE(*back, d + 1e-9);
            EXPECT_NEAR(s.stationAt(*back + 1e-7), station, 1e-6);
        }
    }
}

TEST(Stationing, RefusesWhatTheNumberingNeverReaches) {
    EXPECT_THAT(Stationing::withEquations(100, {{90, 95}}).error().text,
                testing::HasSubstr("never reaches 90"));
    EXPECT_THAT(Stationing::withEquations(0, {{50, 200}, {150, 10}}).error().text,
                testing::HasSubstr("at 200 already"));
}

TEST(Stationing, IsTypedAsItIsWritten) {
    const DisplaySettings display;
    EXPECT_EQ(valueOf(parseStation("2+750", display)), 2750);
    EXPECT_EQ(valueOf(parseStation("27+50", display)), 2750);
    EXPECT_EQ(valueOf(parseStation("27+50.25", display)), 2750.25);
    EXPECT_EQ(valueOf(parseStation("2750", display)), 2750);
    EXPECT_EQ(valueOf(parseStation("-0+010", display)), -10);
    const auto e = valueOf(parseEquation("2+750=28+00", display));
    EXPECT_EQ(e.back, 2750);
    EXPECT_EQ(e.ahead, 2800);
    EXPECT_FALSE(parseEquation("2750", display));
    EXPECT_FALSE(parseEquation("2750=x", display));
}

AlignmentGeometry anyAlignment(std::mt19937& random) {
    std::uniform_real_distribution<double> unit(0, 1);
    std::vector<Pi> pis;
    Vec2 at{0, 0};
    double heading = 1;
    for (int k = 0; k < 5; ++k) {
        pis.push_back({at, k > 0 && k < 4 && k != 2 ? 20 + 20 * unit(random) : 0.0});
        if (pis.back().radius > 0) pis.back().spiralIn = pis.back().spiralOut = 8 * unit(random);
        heading += (unit(random) < 0.5 ? -1 : 1) * (0.7 + 0.4 * unit(random));
        at = at + Vec2{std::sin(heading), std::cos(heading)} * (110 + 100 * unit(random));
    }
    return alignmentOn(valueOf(pathOf(pis)), 1000);
}

TEST(StationFinder, FindsTheNearestPlaceThereIs) {
    for (unsigned seed = 1; seed <= 60; ++seed) {
        SCOPED_TRACE("seed " + std::to_string(seed));
        std::mt19937 random(seed);
        const auto line = anyAlignment(random);
        const StationFinder finder(line);
        const auto box = geometry::boundsOf(line.path).grown(60);
        std::uniform_real_distribution<double> unit(0, 1);
        for (int k = 0; k < 20; ++k) {
            const Vec2 p{box.minX + unit(random) * box.width(), box.minY + unit(random) * box.height()};
            const auto found = finder.find(p);
            double least = 1e300;
            constexpr int n = 4000;
            for (int i = 0; i <= n; ++i)
                least = std::min(least, geometry::distance(p, placeAt(line, 1000 + line.length * i / n)));
            EXPECT_LE(std::abs(found.offset), least + 1e-9);
            EXPECT_GE(std::abs(found.offset), least - line.length / n);
            EXPECT_NEAR(geometry::distance(p, placeAt(line, 1000 + found.distance)), std::abs(found.offset),
                        1e-9);
        }
    }
}

TEST(StationFinder, IsTheInverseNearTheLine) {
    for (unsigned seed = 1; seed <= 60; ++seed) {
        std::mt19937 random(seed);
        const auto line = anyAlignment(random);
        const StationFinder finder(line);
        std::uniform_real_distribution<double> unit(0, 1);
        for (int k = 0; k < 50; ++k) {
            const double d = unit(random) * line.length;
            const double off = 4 * unit(random) - 2;
            // Near a bare corner another side may be nearer.
            bool corner = false;
            for (const auto& b : line.breaks) corner = corner || std::abs(b.distance - d) < 10;
            if (corner) continue;
            const auto found = finder.find(placeAt(line, line.running(d), off));
            EXPECT_NEAR(found.distance, d, 1e-9) << "seed " << seed;
            EXPECT_NEAR(found.offset, off, 1e-9);
            EXPECT_FALSE(found.beyond);
        }
    }
}

TEST(StationFinder, CornersAndEnds) {
    // East, then north: the corner's outer side is the south-east.
    const auto line = alignmentOn({{{0, 0}, {100, 0}, {}}, {{100, 0}, {100, 80}, {}}}, 0);
    const StationFinder finder(line);
    const auto outer = finder.find({103, -4});
    EXPECT_DOUBLE_EQ(outer.distance, 100);
    EXPECT_DOUBLE_EQ(outer.offset, 5);  // right of both directions together
    EXPECT_FALSE(outer.beyond);
    const auto before = finder.find({-3, 4});
    EXPECT_TRUE(before.beyond);
    EXPECT_DOUBLE_EQ(before.distance, 0);
    EXPECT_DOUBLE_EQ(before.offset, -5);
    EXPECT_FALSE(finder.find({0, -7}).beyond);  // at right angles to the start
    EXPECT_DOUBLE_EQ(finder.find({0, -7}).offset, 7);
    EXPECT_TRUE(finder.find({100, 81}).beyond);
    // Turning right instead, the outer side is to the left.
    const auto other = alignmentOn({{{0, 0}, {100, 0}, {}}, {{100, 0}, {100, -80}, {}}}, 0);
    EXPECT_DOUBLE_EQ(StationFinder(other).find({103, 4}).offset, -5);
}

TEST(Alignment, TicksReadWhatTheNumberingSays) {
    const auto line =
        alignmentOn({{{0, 0}, {100, 0}, {}}}, valueOf(Stationing::withEquations(5, {{40, 60}})));
    const auto t = ticks(line, 10);
    std::vector<double> read;
    for (const auto& tick : t) read.push_back(tick.station);
    EXPECT_EQ(read, (std::vector<double>{10, 20, 30, 60, 70, 80, 90, 100, 110, 120}));
    EXPECT_DOUBLE_EQ(t[3].place.x, 35);
}

}  // namespace
}  // namespace erdwerk::route
