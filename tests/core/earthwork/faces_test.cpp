// Faces over humps, knolls and slots: they end on the ground, wherever they hang together with the edge.

#include <cmath>
#include <deque>
#include <memory>
#include <numbers>
#include <random>
#include <set>

#include "core/earthwork/pad.h"
#include "core/geometry/path.h"
#include "core/terrain/clip.h"
#include "support/geometry.h"
#include "support/ground.h"

namespace erdwerk::earthwork {
namespace {

using linework::OutsideCorner;
using terrain::TinLocator;
using test::valueOf;

constexpr double cutSlope = 0.4;
constexpr double fillSlope = 0.3;

/// Hills with knolls and hollows of a metre or two on them.
std::shared_ptr<const terrain::Tin> knollyGround(std::mt19937& random) {
    std::uniform_real_distribution<double> wobble(-1, 1);
    struct Knoll {
        Vec2 at;
        double size;
        double height;
    };
    std::vector<Knoll> knolls;
    for (int i = 0; i < 40; ++i)
        knolls.push_back(
            {{45 * wobble(random), 45 * wobble(random)}, 3 + 1.5 * wobble(random), 2.5 * wobble(random)});
    terrain::BuildInput input;
    for (int i = 0; i < 900; ++i) {
        const Vec2 p{60 * wobble(random), 60 * wobble(random)};
        double z = 100 + 3 * std::sin(p.x / 9) + 2 * std::cos(p.y / 7) + 0.2 * wobble(random);
        for (const Knoll& k : knolls) {
            const double d = geometry::distance(k.at, p) / k.size;
            if (d < 1) z += k.height * (1 - d);
        }
        input.points.push_back({p.x, p.y, z});
    }
    // Far away the ground is level, so that every face ends.
    for (const double x : {-200.0, 200.0})
        for (const double y : {-200.0, 200.0}) input.points.push_back({x, y, 100});
    return std::make_shared<const terrain::Tin>(valueOf(terrain::build(input)).tin);
}

Edge ring(std::mt19937& random, int count, double rough, double twisted) {
    std::uniform_real_distribution<double> wobble(-1, 1);
    Edge edge;
    edge.closed = true;
    for (int k = 0; k < count; ++k) {
        const double a = k * 2 * std::numbers::pi / count;
        const double r = 14 + rough * wobble(random);
        edge.corners.push_back({r * std::cos(a), r * std::sin(a), 100 + twisted * wobble(random)});
    }
    return edge;
}

PadShape shapeWith(OutsideCorner corners) {
    PadShape shape;
    shape.batter.cut = cutSlope;
    shape.batter.fill = fillSlope;
    shape.batter.corners = corners;
    return shape;
}

/// Along the rim of a surface: how far it lies off the ground, where nothing of the surface goes on beside
/// it.
struct RimCheck {
    double worst = 0;
    Vec2 where;
    int places = 0;
    int beside = 0;  ///< places where another face goes on, higher or lower
};

RimCheck rimOf(const terrain::Tin& tin, const TinLocator& ground) {
    RimCheck out;
    const TinLocator own(std::make_shared<const terrain::Tin>(tin));
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t)
        for (int i = 0; i < 3; ++i) {
            if (tin.neighbour(t, i) != terrain::Tin::none) continue;
            const Vec3 a = tin.vertex(tin.corner(t, (i + 1) % 3));
            const Vec3 b = tin.vertex(tin.corner(t, (i + 2) % 3));
            const double size = geometry::distance(a.plan(), b.plan());
            if (size < 1e-3) continue;
            const Vec2 outwards = geometry::leftOf(b.plan() - a.plan()) * (-1 / size);
            for (const double share : {0.03, 0.3, 0.5, 0.8, 0.97}) {
                const Vec2 p = geometry::lerp(a.plan(), b.plan(), share);
                ++out.places;
                if (own.heightAt(p + outwards * 2e-4)) {
                    ++out.beside;
                    continue;
                }
                const double off = std::abs(a.z + (b.z - a.z) * share - *ground.heightAt(p));
                if (off > out.worst) {
                    out.worst = off;
                    out.where = p;
                }
            }
        }
    return out;
}

/// Level ground at 100 with a pyramid on it, `half` to each side of its middle.
std::shared_ptr<const TinLocator> pyramid(Vec2 middle, double half, double top) {
    terrain::BuildInput input;
    for (const double x : {-100.0, 100.0})
        for (const double y : {-100.0, 100.0}) input.points.push_back({x, y, 100});
    const std::array<Vec3, 4> foot{{{middle.x - half, middle.y - half, 100},
                                    {middle.x + half, middle.y - half, 100},
                                    {middle.x + half, middle.y + half, 100},
                                    {middle.x - half, middle.y + half, 100}}};
    terrain::Breakline ring;
    ring.corners.assign(foot.begin(), foot.end());
    ring.closed = true;
    input.lines.push_back(ring);
    for (const Vec3& p : foot) {
        terrain::Breakline hip;
        hip.corners = {p, {middle.x, middle.y, top}};
        input.lines.push_back(hip);
    }
    return std::make_shared<TinLocator>(
        std::make_shared<const terrain::Tin>(valueOf(terrain::build(input)).tin));
}

TEST(Faces, GoRoundAKnollWhoseTopStaysOut) {
    // 5 m down at 2:1 is 10 m out. The pyramid's top of 104 stands 1.5 m over the face, which is at 102.5
    // there: its sides rise 2 in 1. Over the foot the plane through the face cuts sides along y at u from the
    // middle where 104 - 2 u = 102.5 - u / 2 outwards and 104 - 2 u = 102.5 + u / 2 inwards.
    const auto ground = pyramid({15, 0}, 2, 104);
    const Edge edge{{{-10, -10, 105}, {10, -10, 105}, {10, 10, 105}, {-10, 10, 105}}, true};
    PadShape shape = shapeWith(OutsideCorner::Mitre);
    shape.batter.cut = 1;
    shape.batter.fill = 0.5;
    const Pad made = valueOf(pad(edge, shape, *ground));
    EXPECT_TRUE(made.batter.open.empty());
    const double outer = 1.5 / 1.5;
    const double inner = 1.5 / 2.5;
    // A quadrilateral with corners on the hips: on a hip u = v, towards the corner 104 - 2 u = 102.5 -+ u
    // / 2. Corners: (outer, +-outer), (-inner, +-inner).
    const double island = (2 * outer + 2 * inner) / 2 * (outer + inner);
    EXPECT_NEAR(made.batter.planArea, 1200 - island, 1e-8);
    const double slant = std::hypot(outer + inner, outer - inner);
    EXPECT_NEAR(made.batter.daylightLength, 160 + 2 * outer + 2 * inner + 2 * slant, 1e-8);
    EXPECT_EQ(made.batter.daylight.size(), 2U);
    // The frustum less the pyramid's part below the face: its volume 4 * 4 * 4 / 3 less the top, a pyramid
    // over the island whose height over the face's plane is 1.5 at the apex.
    const double frustum = 5.0 / 3 * (1600 + 400 + 800);
    const double below = 4.0 * 4 * 4 / 3 - island * 1.5 / 3;
    EXPECT_NEAR(made.volumes.fill, frustum - below, 1e-7);
    EXPECT_NEAR(made.volumes.cut, 0, 1e-9);
    EXPECT_LT(rimOf(made.surface, *ground).worst, 1e-9);
}

TEST(Faces, BehindAHumpTheyGoOnToTheGround) {
    // A hump of 0.1 m over the face, 6 m long, on the middle of a side of 20: round it the face hangs
    // together.
    const auto ground = pyramid({13, 0}, 0.5, 103.6);
    const Edge edge{{{10, 10, 105}, {10, -10, 105}}, false};
    BatterShape shape;
    shape.cut = 1;
    shape.fill = 0.5;
    const Batter made = valueOf(batter(edge, shape, ground.get()));
    const TinLocator faces(std::make_shared<const terrain::Tin>(made.faces));
    for (const double x : {14.0, 16.0, 19.9}) {
        const auto z = faces.heightAt({x, 0});
        ASSERT_TRUE(z) << x;
        EXPECT_NEAR(*z, 105 - (x - 10) / 2, 1e-9);
    }
    EXPECT_FALSE(faces.heightAt({13, 0}));
    EXPECT_TRUE(made.open.empty());
}

TEST(Faces, OneThatLiesUnderAnotherIsNotOpen) {
    // Two arms of a hairpin, 4 m apart: the slope from the one at 105 lies 2 m over the edge of the other at
    // 101, of whose face nothing is left. The ground is there all the same.
    const auto ground = test::planeGround(100);
    const Edge edge{{{0, 20, 105}, {0, 0.5, 105}, {4, 0.5, 101}, {4, 20, 101}}, false};
    BatterShape shape;
    shape.cut = 1;
    shape.fill = 0.5;
    const Batter made = valueOf(batter(edge, shape, ground.get()));
    EXPECT_NEAR(*TinLocator(std::make_shared<const terrain::Tin>(made.faces)).heightAt({3.5, 15}), 103.25,
                1e-9);
    EXPECT_NEAR(made.openLength(), 0, 1e-9);
}

TEST(Faces, OneWayPassesBesideTheOtherAtATwistedCorner) {
    // An inside corner at which one side lies 2 m over the ground and the other 2 m under it, each level but
    // for the last metre: both planes cover the corner, each has what is nearer to its edge.
    const auto ground = test::planeGround(100);
    const Edge edge{{{20, 0.5, 102}, {1, 0.5, 102}, {0, 0.5, 100}, {0, 1.5, 98}, {0, 20.5, 98}}, false};
    BatterShape shape;
    shape.cut = 0.5;
    shape.fill = 0.5;
    shape.right = true;
    const Batter made = valueOf(batter(edge, shape, ground.get()));
    const TinLocator faces(std::make_shared<const terrain::Tin>(made.faces));
    EXPECT_NEAR(*faces.heightAt({3.5, 1.5}), 101.5, 1e-9);
    EXPECT_NEAR(*faces.heightAt({1, 4.5}), 98.5, 1e-9);
    double area = 0;
    for (double x = 0.05; x < 20; x += 0.1)
        for (double y = 0.55; y < 20.5; y += 0.1) area += faces.heightAt({x, y}) ? 0.01 : 0;
    EXPECT_NEAR(made.planArea, area, 1);  // nothing lies over another
}

/// The ground can be cut along its rim, and it has no cracks.
void expectToBeCutAlong(const terrain::Tin& tin) {
    for (const auto& ring : terrain::rimRings(tin)) {
        std::vector<Vec2> places;
        for (const std::uint32_t v : ring) places.push_back(tin.vertex(v).plan());
        EXPECT_TRUE(terrain::validate(terrain::Boundary{places, {}}));
        double around = 0;
        for (std::size_t k = 0; k < places.size(); ++k)
            around += geometry::distance(places[k], places[(k + 1) % places.size()]);
        EXPECT_GT(std::abs(geometry::signedArea(places)), 1e-5 * around);
    }
}

TEST(Faces, TheRimOfAPadLiesOnTheGround) {
    int places = 0;
    int beside = 0;
    for (unsigned seed = 1; seed <= 400; ++seed) {
        SCOPED_TRACE("seed " + std::to_string(seed));
        std::mt19937 random(seed);
        const auto tin = knollyGround(random);
        const TinLocator ground(tin);
        const Edge edge = ring(random, 4 + static_cast<int>(seed % 6), 4, seed % 3 == 0 ? 1.5 : 0.0);
        const auto made =
            pad(edge, shapeWith(seed % 2 == 0 ? OutsideCorner::Mitre : OutsideCorner::Round), ground);
        ASSERT_TRUE(made) << made.error().text;
        EXPECT_TRUE(made->batter.open.empty());
        expectToBeCutAlong(made->surface);
        const RimCheck rim = rimOf(made->surface, ground);
        EXPECT_LT(rim.worst, 1e-3) << rim.where.x << " " << rim.where.y;
        places += rim.places;
        beside += rim.beside;
    }
    EXPECT_GT(places, 400 * 200);
    EXPECT_LT(beside, places / 20);
}

/// Each side of a triangle is gone along once in each direction at most.
int sidesGoneTwice(const terrain::Tin& tin) {
    std::set<std::pair<std::uint32_t, std::uint32_t>> sides;
    int out = 0;
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t)
        for (int i = 0; i < 3; ++i)
            if (!sides.insert({tin.corner(t, i), tin.corner(t, (i + 1) % 3)}).second) ++out;
    return out;
}

double steepest(const Edge& edge) {
    double out = 0;
    for (std::size_t k = 0; k < edge.corners.size(); ++k) {
        const Vec3& a = edge.corners[k];
        const Vec3& b = edge.corners[(k + 1) % edge.corners.size()];
        out = std::max(out, std::abs(b.z - a.z) / geometry::distance(a.plan(), b.plan()));
    }
    return out;
}

TEST(Faces, OfAnEdgeThatLiesOnTheGroundHereAndThereTheyFitIntoIt) {
    int tried = 0;
    for (unsigned seed = 1; seed <= 300; ++seed) {
        SCOPED_TRACE("seed " + std::to_string(seed));
        std::mt19937 random(seed);
        const auto tin = knollyGround(random);
        const TinLocator ground(tin);
        Edge edge = ring(random, 4 + static_cast<int>(seed % 9), 4, 1);
        // Some corners on the ground.
        for (std::size_t k = 0; k < edge.corners.size(); ++k)
            if (k % 3 != 1) edge.corners[k].z = *ground.heightAt(edge.corners[k].plan());
        // Beside a side that is steeper than the slopes planes meet behind the edge.
        if (steepest(edge) > fillSlope) continue;
        ++tried;
        const auto made =
            pad(edge, shapeWith(seed % 2 == 0 ? OutsideCorner::Mitre : OutsideCorner::Round), ground);
        ASSERT_TRUE(made) << made.error().text;
        EXPECT_EQ(sidesGoneTwice(made->surface), 0);
        EXPECT_LT(rimOf(made->surface, ground).worst, 1e-3);
        EXPECT_EQ(sidesGoneTwice(finished(*tin, made->surface)), 0);
    }
    EXPECT_GT(tried, 20);
}

/// The rule, place by place: round corners, so that each place has the heights of the sides it lies in front
/// of, and of the corners between.
class ByPlaces {
public:
    ByPlaces(const Edge& edge, const TinLocator& ground) : edge_(edge), ground_(ground) {
        for (const int way : {1, -1}) flood(way);
    }
    static constexpr double step = 0.25;
    static constexpr int half = 200;

    /// The finished height at a place of the grid, where there is a face.
    [[nodiscard]] std::optional<double> at(int i, int k) const {
        const auto rises = faces_[0].at(number(i, k));
        const auto falls = faces_[1].at(number(i, k));
        if (rises.on && falls.on) return rises.away < falls.away ? rises.height : falls.height;
        if (rises.on) return rises.height;
        return falls.on ? std::optional(falls.height) : std::nullopt;
    }
    static Vec2 place(int i, int k) { return {(i - half + 0.37) * step, (k - half + 0.41) * step}; }

private:
    struct Place {
        bool may = false;
        bool on = false;
        double height = 0;
        double away = 0;
    };
    static std::size_t number(int i, int k) { return static_cast<std::size_t>(i * 2 * half + k); }

    /// Of the faces that go one way the one that stays.
    [[nodiscard]] Place faceAt(Vec2 p, int way) const {
        Place out;
        const double slope = way > 0 ? cutSlope : fillSlope;
        const auto take = [&](double z, double away) {
            const double height = z + way * slope * away;
            if (out.may && (way > 0 ? height >= out.height : height <= out.height)) return;
            out = {true, false, height, away};
        };
        const std::size_t n = edge_.corners.size();
        for (std::size_t k = 0; k < n; ++k) {
            const Vec3 a = edge_.corners[k];
            const Vec3 b = edge_.corners[(k + 1) % n];
            const Vec3 c = edge_.corners[(k + 2) % n];
            const double size = geometry::distance(a.plan(), b.plan());
            const Vec2 along = (b.plan() - a.plan()) * (1 / size);
            const double s = geometry::dot(p - a.plan(), along);
            const double d =
                -geometry::cross(along, p - a.plan());  // to the right of a ring that runs to the left
            if (s >= 0 && s <= size && d > 0) take(a.z + (b.z - a.z) * s / size, d);
            const Vec2 next = c.plan() - b.plan();
            if (s > size && geometry::dot(p - b.plan(), next) < 0 && geometry::cross(along, next) > 0)
                take(b.z, geometry::distance(p, b.plan()));
        }
        return out;
    }

    [[nodiscard]] bool isInside(Vec2 p) const {
        bool inside = false;
        const auto& corners = edge_.corners;
        for (std::size_t k = 0; k < corners.size(); ++k) {
            const Vec3& a = corners[k];
            const Vec3& b = corners[(k + 1) % corners.size()];
            if ((a.y > p.y) != (b.y > p.y) && p.x < a.x + (b.x - a.x) * (p.y - a.y) / (b.y - a.y))
                inside = !inside;
        }
        return inside;
    }

    void flood(int way) {
        auto& all = faces_[way > 0 ? 0 : 1];
        all.resize(number(2 * half, 0));
        std::deque<std::pair<int, int>> open;
        for (int i = 0; i < 2 * half; ++i)
            for (int k = 0; k < 2 * half; ++k) {
                const Vec2 p = place(i, k);
                if (isInside(p)) continue;
                Place f = faceAt(p, way);
                f.may = f.may && way * (*ground_.heightAt(p) - f.height) > 0;
                // Close to the edge and on its side of the ground.
                f.on = f.may && f.away < 1.5 * step;
                if (f.on) open.emplace_back(i, k);
                all[number(i, k)] = f;
            }
        while (!open.empty()) {
            const auto [i, k] = open.front();
            open.pop_front();
            for (const auto& [x, y] : {std::pair{i + 1, k}, {i - 1, k}, {i, k + 1}, {i, k - 1}}) {
                if (x < 0 || y < 0 || x >= 2 * half || y >= 2 * half) continue;
                Place& next = all[number(x, y)];
                if (!next.may || next.on) continue;
                next.on = true;
                open.emplace_back(x, y);
            }
        }
    }

    const Edge& edge_;
    const TinLocator& ground_;
    std::array<std::vector<Place>, 2> faces_;
};

TEST(Faces, AreThoseOfAFloodFillOnAFineGrid) {
    for (unsigned seed = 1; seed <= 6; ++seed) {
        SCOPED_TRACE("seed " + std::to_string(seed));
        std::mt19937 random(seed);
        const auto tin = knollyGround(random);
        const TinLocator ground(tin);
        const Edge edge = ring(random, 4 + static_cast<int>(seed % 5), 4, seed % 2 == 0 ? 1.5 : 0.0);
        const Pad made = valueOf(pad(edge, shapeWith(OutsideCorner::Round), ground));
        const TinLocator faces(std::make_shared<const terrain::Tin>(made.batter.faces));
        const ByPlaces expected(edge, ground);
        int area = 0;
        int differ = 0;
        int high = 0;
        double cut = 0;
        double fill = 0;
        double cutExpected = 0;
        double fillExpected = 0;
        for (int i = 0; i < 2 * ByPlaces::half; ++i)
            for (int k = 0; k < 2 * ByPlaces::half; ++k) {
                const Vec2 p = ByPlaces::place(i, k);
                const auto there = faces.heightAt(p);
                const auto wanted = expected.at(i, k);
                const double z = *ground.heightAt(p);
                if (wanted) ++area;
                if (wanted) (*wanted < z ? cutExpected : fillExpected) += std::abs(*wanted - z);
                if (there) (*there < z ? cut : fill) += std::abs(*there - z);
                if (there.has_value() != wanted.has_value() &&
                    std::abs((there ? *there : *wanted) - z) > 0.05)
                    ++differ;
                if (there && wanted && std::abs(*there - *wanted) > 0.02) ++high;
            }
        // Taken over into the ground, steps between faces included.
        const TinLocator after(std::make_shared<const terrain::Tin>(finished(*tin, made.surface)));
        int unlike = 0;
        for (int i = 0; i < 2 * ByPlaces::half; i += 3)
            for (int k = 0; k < 2 * ByPlaces::half; k += 3) {
                const Vec2 p = ByPlaces::place(i, k);
                const auto there = faces.heightAt(p);
                if (there && std::abs(*there - after.heightAt(p).value_or(0)) > 1e-6) ++unlike;
            }
        EXPECT_EQ(unlike, 0);
        // Necks and edges narrower than the grid.
        EXPECT_LT(differ, area / 400 + 5) << "of " << area;
        EXPECT_LT(high, area / 400 + 5) << "of " << area;
        EXPECT_NEAR(cut, cutExpected, 0.01 * (cut + fill));
        EXPECT_NEAR(fill, fillExpected, 0.01 * (cut + fill));
    }
}

}  // namespace
}  // namespace erdwerk::earthwork
