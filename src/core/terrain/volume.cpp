#include "core/terrain/volume.h"

#include <oneapi/tbb/blocked_range.h>
#include <oneapi/tbb/parallel_reduce.h>

#include <algorithm>
#include <array>

namespace erdwerk::terrain {

namespace {

/// A plan place with the difference of heights (to - from) there.
struct Sample {
    Vec2 place;
    double difference = 0;
};

/// A convex polygon: a triangle cut by the three sides of another, and once more where the difference changes
/// sign.
template <class Corner>
class Polygon {
public:
    void add(const Corner& c) { corners_[count_++] = c; }
    [[nodiscard]] std::size_t size() const { return count_; }
    [[nodiscard]] const Corner& operator[](std::size_t i) const { return corners_[i]; }
    [[nodiscard]] const Corner* begin() const { return corners_.data(); }
    [[nodiscard]] const Corner* end() const { return corners_.data() + count_; }

    /// The part where `side` is not negative.
    template <class SideOf, class Mix>
    [[nodiscard]] Polygon cut(const SideOf& side, const Mix& mix) const {
        Polygon out;
        if (count_ == 0) return out;
        std::array<double, most> sides;
        for (std::size_t i = 0; i < count_; ++i) sides[i] = side(corners_[i]);
        for (std::size_t i = 0; i < count_; ++i) {
            const std::size_t next = i + 1 < count_ ? i + 1 : 0;
            const double sa = sides[i];
            const double sb = sides[next];
            if (sa >= 0) out.add(corners_[i]);
            if ((sa > 0 && sb < 0) || (sa < 0 && sb > 0))
                out.add(mix(corners_[i], corners_[next], sa / (sa - sb)));
        }
        return out;
    }

private:
    // Each cut of a convex polygon adds one corner; rounding may add one more.
    static constexpr std::size_t most = 16;
    std::array<Corner, most> corners_;
    std::size_t count_ = 0;
};

/// Integral of the (linear) difference over a convex polygon, and its area.
void addPiece(const Polygon<Sample>& polygon, double& volume, double& area) {
    for (std::size_t i = 1; i + 1 < polygon.size(); ++i) {
        const double part =
            geometry::cross(polygon[i].place - polygon[0].place, polygon[i + 1].place - polygon[0].place) / 2;
        area += part;
        volume += part * (polygon[0].difference + polygon[i].difference + polygon[i + 1].difference) / 3;
    }
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
    Polygon<Vec2> overlap;
    for (const Vec2 p : own) overlap.add(p);
    for (std::size_t i = 0; i < 3 && overlap.size() > 2; ++i) {
        const Vec2 a = other[i];
        const Vec2 along = other[(i + 1) % 3] - a;
        overlap = overlap.cut([&](Vec2 p) { return geometry::cross(along, p - a); },
                              [](Vec2 p, Vec2 q, double t) { return geometry::lerp(p, q, t); });
    }
    if (overlap.size() < 3) return;
    Polygon<Sample> samples;
    for (const Vec2 p : overlap)
        samples.add({p, planeHeight(to, p + origin) - planeHeight(from, p + origin)});
    const auto mix = [](const Sample& a, const Sample& b, double t) {
        return Sample{geometry::lerp(a.place, b.place, t), 0.0};
    };
    double all = 0;
    addPiece(samples, all, sum.area);
    double fillArea = 0;
    const auto touches = [](const Polygon<Sample>& piece) {
        return std::any_of(piece.begin(), piece.end(), [](const Sample& s) { return s.difference != 0; });
    };
    const auto above = samples.cut([](const Sample& s) { return s.difference; }, mix);
    if (touches(above)) addPiece(above, sum.fill, fillArea);
    sum.fillArea += fillArea;
    const auto under = samples.cut([](const Sample& s) { return -s.difference; }, mix);
    double below = 0;
    if (touches(under)) addPiece(under, below, sum.cutArea);
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
