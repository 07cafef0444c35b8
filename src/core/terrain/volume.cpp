#include "core/terrain/volume.h"

#include <oneapi/tbb/blocked_range.h>
#include <oneapi/tbb/parallel_reduce.h>

#include <algorithm>

namespace erdwerk::terrain {

namespace {

/// A plan place with the difference of heights (to - from) there.
struct Sample {
    Vec2 place;
    double difference = 0;
};

/// Keeps the part of a convex polygon where `side` is not negative.
template <class Corner, class SideOf, class Mix>
void cutPolygon(std::vector<Corner>& polygon, const SideOf& side, const Mix& mix) {
    std::vector<Corner> out;
    out.reserve(polygon.size() + 1);
    for (std::size_t i = 0; i < polygon.size(); ++i) {
        const Corner& a = polygon[i];
        const Corner& b = polygon[(i + 1) % polygon.size()];
        const double sa = side(a);
        const double sb = side(b);
        if (sa >= 0) out.push_back(a);
        if ((sa > 0 && sb < 0) || (sa < 0 && sb > 0)) out.push_back(mix(a, b, sa / (sa - sb)));
    }
    polygon = std::move(out);
}

/// Integral of the (linear) difference over a convex polygon, and its area.
void addPiece(const std::vector<Sample>& polygon, double& volume, double& area) {
    for (std::size_t i = 1; i + 1 < polygon.size(); ++i) {
        const double part =
            geometry::cross(polygon[i].place - polygon[0].place, polygon[i + 1].place - polygon[0].place) / 2;
        area += part;
        volume += part * (polygon[0].difference + polygon[i].difference + polygon[i + 1].difference) / 3;
    }
}

void addPair(const std::array<Vec3, 3>& from, const std::array<Vec3, 3>& to, Volumes& sum) {
    // Worked out about one corner, so that large coordinates do not cancel.
    const Vec2 origin = from[0].plan();
    std::vector<Vec2> overlap;
    overlap.reserve(8);
    for (const Vec3& v : from) overlap.push_back(v.plan() - origin);
    for (std::size_t i = 0; i < 3 && overlap.size() > 2; ++i) {
        const Vec2 a = to[i].plan() - origin;
        const Vec2 b = to[(i + 1) % 3].plan() - origin;
        cutPolygon(
            overlap, [&](Vec2 p) { return geometry::cross(b - a, p - a); },
            [](Vec2 p, Vec2 q, double t) { return geometry::lerp(p, q, t); });
    }
    if (overlap.size() < 3) return;
    std::vector<Sample> samples;
    samples.reserve(overlap.size());
    for (const Vec2 p : overlap)
        samples.push_back({p, planeHeight(to, p + origin) - planeHeight(from, p + origin)});
    const auto mix = [](const Sample& a, const Sample& b, double t) {
        return Sample{geometry::lerp(a.place, b.place, t), 0.0};
    };
    double all = 0;
    addPiece(samples, all, sum.area);
    std::vector<Sample> above = samples;
    cutPolygon(
        above, [](const Sample& s) { return s.difference; }, mix);
    double fillArea = 0;
    const auto touches = [](const std::vector<Sample>& piece) {
        return std::any_of(piece.begin(), piece.end(), [](const Sample& s) { return s.difference != 0; });
    };
    if (touches(above)) addPiece(above, sum.fill, fillArea);
    sum.fillArea += fillArea;
    cutPolygon(
        samples, [](const Sample& s) { return -s.difference; }, mix);
    double below = 0;
    if (touches(samples)) addPiece(samples, below, sum.cutArea);
    sum.cut -= below;
}

}  // namespace

Result<Volumes> volumeBetween(const TinLocator& from, const TinLocator& to, const Context& context) {
    const auto add = [&](const tbb::blocked_range<std::uint32_t>& range, Volumes sum) {
        for (std::uint32_t t = range.begin(); t < range.end() && !context.isCancelled(); ++t) {
            const auto triangle = from.tin().triangle(t);
            Box box;
            for (const Vec3& v : triangle) box.add(v.plan());
            for (const std::uint32_t other : to.near(box)) addPair(triangle, to.tin().triangle(other), sum);
        }
        return sum;
    };
    const auto join = [](const Volumes& a, const Volumes& b) {
        return Volumes{a.cut + b.cut, a.fill + b.fill, a.area + b.area, a.cutArea + b.cutArea,
                       a.fillArea + b.fillArea};
    };
    const Volumes sum = tbb::parallel_deterministic_reduce(
        tbb::blocked_range<std::uint32_t>(0, from.tin().triangleCount(), 512), Volumes{}, add, join);
    if (context.isCancelled()) return cancelled();
    return sum;
}

}  // namespace erdwerk::terrain
