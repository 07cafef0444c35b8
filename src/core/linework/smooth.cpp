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

struct Biarc {
    geometry::Segment first;
    geometry::Segment second;
    [[nodiscard]] double share() const { return lengthOf(first) / (lengthOf(first) + lengthOf(second)); }
};

std::optional<Biarc> biarc(Vec2 p, Vec2 q, Vec2 t, Vec2 u) {
    const auto joint = biarcJoint(p, q, t, u);
    if (!joint) return std::nullopt;
    return Biarc{geometry::tangentArc(p, azimuthOf(t), *joint),
                 geometry::reversed(geometry::tangentArc(q, azimuthOf(u * -1), *joint))};
}

/// At each corner that of the circle through it and its neighbours; nothing where the line turns back.
std::optional<std::vector<Vec2>> tangentsAt(const std::vector<Vec2>& corners, bool closed) {
    const std::size_t n = corners.size();
    const auto at = [&](std::size_t k) { return corners[k % n]; };
    std::vector<Vec2> out;
    for (std::size_t k = 0; k < n; ++k) {
        if (!closed && k == 0)
            out.push_back(tangentOnCircle(at(0), at(1), at(2), 0));
        else if (!closed && k + 1 == n)
            out.push_back(tangentOnCircle(at(n - 3), at(n - 2), at(n - 1), 2));
        else
            out.push_back(tangentOnCircle(at(k + n - 1), at(k), at(k + 1), 1));
        if (geometry::length(out.back()) < 0.5) return std::nullopt;
    }
    return out;
}

/// The line as it becomes, and where on the old one each vertex was; nothing for a joint.
struct Smoothing {
    Line3D line;
    std::vector<std::optional<double>> came;

    /// The joint of a side, and its grade points on the two arcs.
    void addSide(const Line3D& old, const ResolvedLine& at, std::size_t start, std::size_t end,
                 const Biarc& arcs) {
        line.vertices.back().through = arcs.first.through;
        const double share = arcs.share();
        bool joined = false;
        const auto join = [&] {
            LineVertex v;
            v.place = arcs.second.start;
            v.through = arcs.second.through;
            if (!std::holds_alternative<NoHeight>(old.vertices[start].rule)) v.rule = Interpolated{};
            line.vertices.push_back(v);
            came.emplace_back();
            joined = true;
        };
        for (std::size_t i = start + 1; i < end; ++i) {
            LineVertex v = old.vertices[i];
            if (!joined && v.fraction >= share) join();
            v.fraction = joined ? (v.fraction - share) / (1 - share) : v.fraction / share;
            if (!(v.fraction > 0)) v.fraction = 1e-9;
            line.vertices.push_back(v);
            came.emplace_back(at.vertices[i].distance);
        }
        if (!joined) join();
    }
};

Result<Smoothing> smoothing(const Line3D& line) {
    const auto corners = cornersOf(line);
    const std::size_t n = corners.size();
    if (n < 3) return badInput("a smooth line goes through at least three corners");
    std::vector<Vec2> places;
    places.reserve(n);
    for (const std::size_t i : corners) places.push_back(line.vertices[i].place);
    const auto tangents = tangentsAt(places, line.closed);
    if (!tangents) return badInput("the line turns back on itself");
    const auto at = placed(line);
    Smoothing next;
    next.line.closed = line.closed;
    for (std::size_t k = 0; k < n; ++k) {
        next.line.vertices.push_back(line.vertices[corners[k]]);
        next.came.emplace_back(at.vertices[corners[k]].distance);
        if (!line.closed && k + 1 == n) break;
        const std::size_t other = (k + 1) % n;
        const auto arcs = biarc(places[k], places[other], (*tangents)[k], (*tangents)[other]);
        if (!arcs) return badInput("the line turns back on itself");
        next.addSide(line, at, corners[k], other == 0 ? line.vertices.size() : corners[other], *arcs);
    }
    if (auto problem = validate(next.line)) return badInput(std::move(*problem));
    return next;
}

}  // namespace

Result<Line3D> smoothShape(const Line3D& line) {
    auto smooth = smoothing(line);
    if (!smooth) return tl::unexpected(smooth.error());
    return std::move(smooth->line);
}

Result<Reshaped> smoothed(const Line3D& line, const ResolvedLine& resolved, const Surroundings& around) {
    auto smooth = smoothing(line);
    if (!smooth) return tl::unexpected(smooth.error());
    return keepHeights(
        std::move(smooth->line),
        [&](std::size_t vertex, double) -> std::optional<Wanted> {
            if (!smooth->came[vertex]) return std::nullopt;
            return wantedFrom(resolved, *smooth->came[vertex]);
        },
        around);
}

}  // namespace erdwerk::linework
