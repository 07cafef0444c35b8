#include "core/linework/smooth.h"

#include <cmath>

namespace erdwerk::linework {

namespace {

using geometry::dot;

Vec2 unit(Vec2 v) {
    const double size = geometry::length(v);
    return size > 0 ? v * (1 / size) : Vec2{};
}

/// The tangent at the middle one of three places on their circle; at the first with `at` 0.
Vec2 tangentOnCircle(Vec2 a, Vec2 b, Vec2 c, int at) {
    const Vec2 ab = b - a;
    const Vec2 bc = c - b;
    const double la = geometry::length(ab);
    const double lb = geometry::length(bc);
    // Weighted so that it is the circle's: each chord by the other's length.
    const Vec2 middle = unit(unit(ab) * lb + unit(bc) * la);
    if (at == 1) return middle;
    // Mirrored at the chord.
    const Vec2 chord = unit(at == 0 ? ab : bc);
    return chord * (2 * dot(middle, chord)) - middle;
}

/// Where the two arcs of a biarc meet, with equal lengths of tangent (the usual choice).
std::optional<Vec2> biarcJoint(Vec2 p, Vec2 q, Vec2 t, Vec2 u) {
    const Vec2 v = q - p;
    const double twist = 2 * (1 - dot(t, u));
    const double along = dot(v, t + u);
    double d = 0;
    if (twist < 1e-12) {
        if (std::abs(along) < 1e-12) return std::nullopt;
        d = dot(v, v) / (2 * along);
    } else {
        d = (-along + std::sqrt(along * along + twist * dot(v, v))) / twist;
    }
    return std::isfinite(d) ? std::optional((p + q + (t - u) * d) * 0.5) : std::nullopt;
}

Angle azimuthOf(Vec2 direction) {
    return geometry::azimuth({0, 0}, direction);
}

}  // namespace

Result<Reshaped> smoothed(const Line3D& line, const ResolvedLine& resolved, const Surroundings& around) {
    const auto corners = cornersOf(line);
    const std::size_t n = corners.size();
    if (n < 3) return badInput("a smooth line goes through at least three corners");
    const auto place = [&](std::size_t k) { return line.vertices[corners[k % n]].place; };
    std::vector<Vec2> tangents;
    for (std::size_t k = 0; k < n; ++k) {
        if (!line.closed && k == 0)
            tangents.push_back(tangentOnCircle(place(0), place(1), place(2), 0));
        else if (!line.closed && k + 1 == n)
            tangents.push_back(tangentOnCircle(place(n - 3), place(n - 2), place(n - 1), 2));
        else
            tangents.push_back(tangentOnCircle(place(k + n - 1), place(k), place(k + 1), 1));
        if (geometry::length(tangents.back()) < 0.5) return badInput("the line turns back on itself");
    }
    Line3D next;
    next.closed = line.closed;
    std::vector<std::optional<double>> came;  // where a vertex was; nothing for a joint
    for (std::size_t k = 0; k < n; ++k) {
        const std::size_t start = corners[k];
        const std::size_t end = k + 1 < n ? corners[k + 1] : line.vertices.size();
        next.vertices.push_back(line.vertices[start]);
        came.emplace_back(resolved.vertices[start].distance);
        if (!line.closed && k + 1 == n) break;
        const Vec2 p = place(k);
        const Vec2 q = place(k + 1);
        const Vec2 t = tangents[k];
        const Vec2 u = tangents[(k + 1) % n];
        const auto joint = biarcJoint(p, q, t, u);
        if (!joint) return badInput("the line turns back on itself");
        const geometry::Segment first = geometry::tangentArc(p, azimuthOf(t), *joint);
        const geometry::Segment second =
            geometry::reversed(geometry::tangentArc(q, azimuthOf(u * -1), *joint));
        const double share = lengthOf(first) / (lengthOf(first) + lengthOf(second));
        next.vertices.back().through = first.through;
        bool joined = false;
        const auto join = [&] {
            LineVertex v;
            v.place = *joint;
            v.through = second.through;
            v.rule = resolved.vertices[start].height ? HeightRule{Interpolated{}} : HeightRule{NoHeight{}};
            next.vertices.push_back(v);
            came.emplace_back();
            joined = true;
        };
        for (std::size_t i = start + 1; i < end; ++i) {
            LineVertex v = line.vertices[i];
            if (!joined && v.fraction >= share) join();
            v.fraction = joined ? (v.fraction - share) / (1 - share) : v.fraction / share;
            if (!(v.fraction > 0)) v.fraction = 1e-9;
            next.vertices.push_back(v);
            came.emplace_back(resolved.vertices[i].distance);
        }
        if (!joined) join();
    }
    if (auto problem = validate(next)) return badInput(std::move(*problem));
    return keepHeights(
        std::move(next),
        [&](std::size_t vertex, double) -> std::optional<Wanted> {
            if (!came[vertex]) return std::nullopt;
            return wantedFrom(resolved, *came[vertex]);
        },
        around);
}

}  // namespace erdwerk::linework
