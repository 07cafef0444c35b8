#include "core/terrain/volume.h"

#include <oneapi/tbb/blocked_range.h>
#include <oneapi/tbb/parallel_reduce.h>

#include <algorithm>
#include <array>

namespace erdwerk::terrain {

namespace {

/// A convex polygon in plan, with the difference of heights (to - from) at its corners: a triangle cut by the
/// three sides of another, and once more where the difference changes sign. Each cut adds at most one corner,
/// and rounding one more.
struct Piece {
    static constexpr std::size_t most = 12;
    std::array<double, most> x;
    std::array<double, most> y;
    std::array<double, most> difference;
    std::size_t count = 0;

    void add(double px, double py, double d) {
        x[count] = px;
        y[count] = py;
        difference[count++] = d;
    }
};

/// The part of a piece where `side`, one value for each of its corners, is not negative.
void keep(const Piece& piece, const std::array<double, Piece::most>& side, Piece& out) {
    out.count = 0;
    for (std::size_t i = 0; i < piece.count; ++i) {
        const std::size_t next = i + 1 < piece.count ? i + 1 : 0;
        const double a = side[i];
        const double b = side[next];
        if (a >= 0) out.add(piece.x[i], piece.y[i], piece.difference[i]);
        if ((a > 0 && b < 0) || (a < 0 && b > 0)) {
            const double t = a / (a - b);
            const Vec2 p = geometry::lerp({piece.x[i], piece.y[i]}, {piece.x[next], piece.y[next]}, t);
            out.add(p.x, p.y, 0);
        }
    }
}

/// Integral of the (linear) difference over a piece, and its area.
void addPiece(const Piece& p, double& volume, double& area) {
    for (std::size_t i = 1; i + 1 < p.count; ++i) {
        const double part =
            ((p.x[i] - p.x[0]) * (p.y[i + 1] - p.y[0]) - (p.y[i] - p.y[0]) * (p.x[i + 1] - p.x[0])) / 2;
        area += part;
        volume += part * (p.difference[0] + p.difference[i] + p.difference[i + 1]) / 3;
    }
}

bool differs(const Piece& p) {
    return std::any_of(p.difference.begin(), p.difference.begin() + static_cast<std::ptrdiff_t>(p.count),
                       [](double d) { return d != 0; });
}

/// Whether all corners of one triangle lie beyond a side of the other.
bool apart(const std::array<Vec2, 3>& a, const std::array<Vec2, 3>& b) {
    for (std::size_t i = 0; i < 3; ++i) {
        const Vec2 p = a[i];
        const Vec2 along = a[(i + 1) % 3] - p;
        if (geometry::cross(along, b[0] - p) <= 0 && geometry::cross(along, b[1] - p) <= 0 &&
            geometry::cross(along, b[2] - p) <= 0)
            return true;
    }
    return false;
}

void addPair(const std::array<Vec3, 3>& from, const std::array<Vec3, 3>& to, Volumes& sum) {
    // Worked out about one corner, so that large coordinates do not cancel.
    const Vec2 origin = from[0].plan();
    std::array<Vec2, 3> own;
    std::array<Vec2, 3> other;
    for (std::size_t i = 0; i < 3; ++i) {
        own[i] = from[i].plan() - origin;
        other[i] = to[i].plan() - origin;
    }
    if (apart(own, other) || apart(other, own)) return;
    std::array<Piece, 2> pieces;
    std::array<double, Piece::most> side;
    std::size_t now = 0;
    for (const Vec2 p : own) pieces[0].add(p.x, p.y, 0);
    for (std::size_t i = 0; i < 3 && pieces[now].count > 2; ++i) {
        const Vec2 a = other[i];
        const Vec2 along = other[(i + 1) % 3] - a;
        bool cuts = false;
        for (std::size_t k = 0; k < pieces[now].count; ++k) {
            side[k] = geometry::cross(along, Vec2{pieces[now].x[k], pieces[now].y[k]} - a);
            cuts = cuts || side[k] < 0;
        }
        if (!cuts) continue;
        keep(pieces[now], side, pieces[1 - now]);
        now = 1 - now;
    }
    Piece& overlap = pieces[now];
    if (overlap.count < 3) return;
    for (std::size_t k = 0; k < overlap.count; ++k) {
        const Vec2 p = Vec2{overlap.x[k], overlap.y[k]} + origin;
        overlap.difference[k] = planeHeight(to, p) - planeHeight(from, p);
    }
    double all = 0;
    addPiece(overlap, all, sum.area);
    Piece part;
    keep(overlap, overlap.difference, part);
    double fillArea = 0;
    if (differs(part)) addPiece(part, sum.fill, fillArea);
    sum.fillArea += fillArea;
    for (std::size_t k = 0; k < overlap.count; ++k) side[k] = -overlap.difference[k];
    keep(overlap, side, part);
    double below = 0;
    if (differs(part)) addPiece(part, below, sum.cutArea);
    sum.cut -= below;
}

}  // namespace

Result<Volumes> volumeBetween(const TinLocator& from, const TinLocator& to, const Context& context) {
    const auto add = [&](const tbb::blocked_range<std::uint32_t>& range, Volumes sum) {
        for (std::uint32_t t = range.begin(); t < range.end() && !context.isCancelled(); ++t) {
            const auto triangle = from.tin().triangle(t);
            const std::array<Vec2, 3> places{triangle[0].plan(), triangle[1].plan(), triangle[2].plan()};
            for (const std::uint32_t other : to.between(places))
                addPair(triangle, to.tin().triangle(other), sum);
        }
        return sum;
    };
    const auto join = [](const Volumes& a, const Volumes& b) {
        return Volumes{a.cut + b.cut, a.fill + b.fill, a.area + b.area, a.cutArea + b.cutArea,
                       a.fillArea + b.fillArea};
    };
    const Volumes sum = tbb::parallel_deterministic_reduce(
        tbb::blocked_range<std::uint32_t>(0, from.tin().triangleCount(), 64), Volumes{}, add, join);
    if (context.isCancelled()) return cancelled();
    return sum;
}

}  // namespace erdwerk::terrain
