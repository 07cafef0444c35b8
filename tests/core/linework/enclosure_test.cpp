#include "core/linework/enclosure.h"

#include <numbers>
#include <random>
#include <set>

#include "support/geometry.h"

namespace erdwerk::linework {
namespace {

using geometry::Path;
using geometry::Vec2;

Path through(const std::string& corners) {
    const auto at = test::places(corners);
    Path out;
    for (std::size_t i = 0; i + 1 < at.size(); ++i) out.push_back({at[i], at[i + 1], {}});
    return out;
}

double areaOf(const Result<Enclosure>& made) {
    EXPECT_TRUE(made) << (made ? "" : made.error().text);
    if (!made) return 0;
    const Path& path = made->figure;
    for (std::size_t i = 0; i < path.size(); ++i) EXPECT_EQ(path[i].end, path[(i + 1) % path.size()].start);
    return geometry::signedArea(path);
}

TEST(Enclosure, OfLinesThatCrossWithLooseEnds) {
    // A frame of four lines that run on beyond their crossings, and one that divides it.
    const std::vector<Path> lines{through("-10 0, 110 0"), through("100 -10, 100 70"),
                                  through("110 60, -10 60"), through("0 70, 0 -10"), through("40 -5, 40 65")};
    const auto left = enclosureOf(lines, {20, 30});
    EXPECT_NEAR(areaOf(left), 40 * 60, 1e-9);
    EXPECT_EQ(left->figure.size(), 4U);
    EXPECT_EQ(left->paths, (std::vector<std::size_t>{0, 2, 3, 4}));
    EXPECT_NEAR(areaOf(enclosureOf(lines, {70, 30})), 60 * 60, 1e-9);
    EXPECT_FALSE(enclosureOf(lines, {-5, 30}));
    EXPECT_FALSE(enclosureOf({}, {0, 0}));
}

TEST(Enclosure, TouchingEndsMakeNoCornersInStraightSides) {
    // The dividing line only touches: the big side is one course on the undivided side of it.
    const std::vector<Path> lines{through("0 0, 100 0, 100 60, 0 60, 0 0"),
                                  through("100 30, 150 30, 150 60, 100 60")};
    const auto inside = enclosureOf(lines, {50, 30});
    EXPECT_NEAR(areaOf(inside), 6000, 1e-9);
    EXPECT_EQ(inside->figure.size(), 4U);
    EXPECT_EQ(inside->paths, std::vector<std::size_t>{0});
    EXPECT_NEAR(areaOf(enclosureOf(lines, {120, 45})), 50 * 30, 1e-9);
}

TEST(Enclosure, KeepsArcsAndPassesIslands) {
    // A half circle of radius 30 on a square of 60, and an island between the place and the arc.
    Path d = through("0 60, 0 0, 60 0");
    d.push_back({{60, 0}, {60, 60}, Vec2{90, 30}});
    const std::vector<Path> lines{d, through("60 60, 0 60"), through("40 20, 50 20, 50 40, 40 40, 40 20")};
    const auto figure = enclosureOf(lines, {20, 30});
    EXPECT_NEAR(areaOf(figure), 3600 + 450 * std::numbers::pi, 1e-6);
    EXPECT_NEAR(areaOf(enclosureOf(lines, {45, 30})), 200, 1e-9);
}

bool crosses(Vec2 a, Vec2 b, Vec2 c, Vec2 d) {
    const auto side = [](Vec2 p, Vec2 q, Vec2 r) {
        return (q.x - p.x) * (r.y - p.y) - (q.y - p.y) * (r.x - p.x) > 0;
    };
    return side(a, b, c) != side(a, b, d) && side(c, d, a) != side(c, d, b);
}

/// Cells of a grid of 1 that can be walked to from a place without crossing a line; nothing when that leads
/// out.
std::optional<std::vector<Vec2>> walked(const std::vector<Path>& lines, Vec2 from) {
    std::vector<Vec2> out{from};
    std::set<std::pair<long, long>> seen{{0, 0}};
    for (std::size_t i = 0; i < out.size(); ++i) {
        const Vec2 at = out[i];
        if (std::abs(at.x - 50) > 60 || std::abs(at.y - 50) > 60) return std::nullopt;
        for (const Vec2 step : {Vec2{1, 0}, {-1, 0}, {0, 1}, {0, -1}}) {
            const Vec2 next = at + step;
            const bool blocked = std::any_of(lines.begin(), lines.end(), [&](const Path& line) {
                return crosses(at, next, line.front().start, line.front().end);
            });
            if (!blocked && seen.insert({std::lround(next.x - from.x), std::lround(next.y - from.y)}).second)
                out.push_back(next);
        }
    }
    return out;
}

/// Straights only: what can be walked to lies in the figure, and where there is none it leads out.
TEST(Enclosure, IsWhatCanBeWalkedTo) {
    int closed = 0;
    int open = 0;
    int narrow = 0;
    for (unsigned seed = 0; seed < 150; ++seed) {
        SCOPED_TRACE(seed);
        std::mt19937 random(seed);
        const auto at = [&] { return std::uniform_real_distribution<double>(0, 100)(random); };
        std::vector<Path> lines;
        for (int i = 0; i < 22; ++i) lines.push_back({{{at(), at()}, {at(), at()}, {}}});
        const Vec2 place{at(), at()};
        const auto face = enclosureOf(lines, place);
        const auto cells = walked(lines, place);
        if (!face) {
            // A way out that is narrower than a step is not walked.
            cells ? ++narrow : ++open;
            continue;
        }
        ++closed;
        ASSERT_TRUE(cells);
        std::vector<Vec2> ring;
        for (const auto& s : face->figure) ring.push_back(s.start);
        for (const Vec2 cell : *cells) ASSERT_EQ(geometry::sideOf(ring, cell), geometry::Side::Inside);
    }
    EXPECT_GT(closed, 25);
    EXPECT_GT(open, 30);
    EXPECT_LT(narrow, 25);
}

/// Random lines over a square: the faces that are found have their place inside, and never overlap.
TEST(Enclosure, OfRandomLines) {
    int found = 0;
    for (unsigned seed = 0; seed < 100; ++seed) {
        SCOPED_TRACE(seed);
        std::mt19937 random(seed);
        const auto at = [&] { return std::uniform_real_distribution<double>(0, 100)(random); };
        std::vector<Path> lines;
        for (int i = 0; i < 24; ++i) {
            const Vec2 a{at(), at()};
            const Vec2 b{at(), at()};
            if (i % 3 == 0)
                lines.push_back({geometry::tangentArc(a, Angle::degrees(at() * 3.6), b)});
            else
                lines.push_back({{a, b, {}}});
        }
        const Vec2 place{at(), at()};
        const auto face = enclosureOf(lines, place);
        if (!face) continue;
        ++found;
        const auto ring = geometry::flattened(face->figure, 1e-4);
        EXPECT_EQ(geometry::sideOf(std::span(ring).subspan(1), place), geometry::Side::Inside);
        EXPECT_GT(areaOf(face), 0);
        // From any other place in it, it is the same.
        const Vec2 other = geometry::lerp(place, pointAt(face->figure.front(), 0.5), 0.5);
        if (geometry::sideOf(std::span(ring).subspan(1), other) != geometry::Side::Inside) continue;
        const auto again = enclosureOf(lines, other);
        ASSERT_TRUE(again);
        EXPECT_NEAR(geometry::signedArea(again->figure), geometry::signedArea(face->figure), 1e-6);
    }
    EXPECT_GT(found, 30);
}

}  // namespace
}  // namespace erdwerk::linework
