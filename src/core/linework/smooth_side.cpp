#include "core/linework/smooth_side.h"

#include <algorithm>
#include <cmath>
#include <functional>

#include "core/linework/edit.h"

namespace erdwerk::linework {

using geometry::dot;

namespace {

Vec2 unit(Vec2 v) {
    const double size = geometry::length(v);
    return size > 0 ? v * (1 / size) : Vec2{};
}

/// The tangent at the middle one of three places on their circle: each chord weighted by the other's length.
Vec2 tangentOnCircle(Vec2 a, Vec2 b, Vec2 c) {
    const Vec2 ab = b - a;
    const Vec2 bc = c - b;
    return unit(unit(ab) * geometry::length(bc) + unit(bc) * geometry::length(ab));
}

/// The tangent at one end of a chord, as one circle through both ends has it.
Vec2 mirroredAt(Vec2 chord, Vec2 tangent) {
    const Vec2 along = unit(chord);
    return along * (2 * dot(tangent, along)) - tangent;
}

std::optional<Vec2> jointPlace(Vec2 p, Vec2 q, Vec2 t, Vec2 u) {
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

/// The corners that are no joints, and what lies between each and the next.
class SplineKnots {
public:
    explicit SplineKnots(const Line3D& line) : line_(line), corners_(cornersOf(line)) {
        const std::size_t n = corners_.size();
        const auto isJoint = [&](std::size_t c) { return line.vertices[corners_[c]].joint; };
        const auto loose = [&](std::size_t c) {
            const bool end = !line.closed && (c == 0 || c + 1 == n);
            return end || n < 3 || isJoint((c + n - 1) % n) || isJoint((c + 1) % n);
        };
        for (std::size_t c = 0; c < n; ++c)
            if (!isJoint(c) || loose(c)) knots_.push_back(c);
    }
    [[nodiscard]] std::size_t size() const { return knots_.size(); }
    [[nodiscard]] std::size_t vertex(std::size_t knot) const { return corners_[knots_[knot % size()]]; }
    [[nodiscard]] Vec2 place(std::size_t knot) const { return line_.vertices[vertex(knot)].place; }
    [[nodiscard]] bool hasAfter(std::size_t knot) const { return line_.closed || knot + 1 < size(); }
    [[nodiscard]] bool hasBefore(std::size_t knot) const { return line_.closed || knot > 0; }
    [[nodiscard]] std::size_t before(std::size_t knot) const { return (knot + size() - 1) % size(); }
    [[nodiscard]] std::size_t after(std::size_t knot) const { return (knot + 1) % size(); }

    /// The vertex of the joint between a knot and the next.
    [[nodiscard]] std::optional<std::size_t> joint(std::size_t knot) const {
        if (!hasAfter(knot)) return std::nullopt;
        const std::size_t between = (knots_[knot] + 1) % corners_.size();
        if (between == knots_[after(knot)]) return std::nullopt;
        return corners_[between];
    }
    /// The knot that begins the side that a corner begins or stands in.
    [[nodiscard]] std::optional<std::size_t> sideOf(std::size_t corner) const {
        for (std::size_t k = 0; k < size(); ++k)
            if (vertex(k) == corner || joint(k) == corner) return k;
        return std::nullopt;
    }
    [[nodiscard]] bool isJoint(std::size_t corner) const {
        const auto k = sideOf(corner);
        return k && vertex(*k) != corner;
    }
    [[nodiscard]] geometry::Segment plainSide(std::size_t knot) const {
        return {place(knot), place(after(knot)), line_.vertices[vertex(knot)].through};
    }

    /// As the line has it now, at the end of the side before or the start of the one after.
    [[nodiscard]] Vec2 presentTangent(std::size_t knot, bool atEnd) const {
        const auto corner = knots_[knot];
        const std::size_t side = atEnd ? (corner + corners_.size() - 1) % corners_.size() : corner;
        const geometry::Segment segment{line_.vertices[corners_[side]].place,
                                        line_.vertices[corners_[(side + 1) % corners_.size()]].place,
                                        line_.vertices[corners_[side]].through};
        return geometry::directionOf(tangentAt(segment, atEnd ? 1 : 0));
    }
    /// Nothing where a free end would ask a free end.
    [[nodiscard]] std::optional<Vec2> tangent(std::size_t k, bool mayMirror = true) const {
        const bool smoothBefore = hasBefore(k) && joint(before(k)).has_value();
        const bool smoothAfter = joint(k).has_value();
        if (smoothBefore && smoothAfter) return tangentOnCircle(place(before(k)), place(k), place(after(k)));
        if (hasBefore(k) && !smoothBefore) return geometry::directionOf(tangentAt(plainSide(before(k)), 1));
        if (hasAfter(k) && !smoothAfter) return geometry::directionOf(tangentAt(plainSide(k), 0));
        if (!mayMirror) return std::nullopt;
        const std::size_t other = smoothAfter ? after(k) : before(k);
        const Vec2 chord = smoothAfter ? place(other) - place(k) : place(k) - place(other);
        const auto there = tangent(other, false);
        return there ? mirroredAt(chord, *there) : unit(chord);
    }

private:
    const Line3D& line_;
    std::vector<std::size_t> corners_;
    std::vector<std::size_t> knots_;  ///< by number of corner
};

/// Unit tangents at the ends of a side; nothing where the line turns back.
using EndTangent = std::function<std::optional<Vec2>(std::size_t knot, bool atEnd)>;

void refitSide(Line3D& line, const SplineKnots& knots, std::size_t k, const EndTangent& tangent) {
    const auto joint = knots.joint(k);
    if (!joint) return;
    const auto from = tangent(k, false);
    const auto to = tangent(knots.after(k), true);
    if (!from || !to || geometry::length(*from) < 0.5 || geometry::length(*to) < 0.5) return;
    const auto arcs = biarc(knots.place(k), knots.place(k + 1), *from, *to);
    if (!arcs) return;
    line.vertices[knots.vertex(k)].through = arcs->first.through;
    line.vertices[*joint].place = arcs->second.start;
    line.vertices[*joint].through = arcs->second.through;
}

}  // namespace

double Biarc::share() const {
    return lengthOf(first) / (lengthOf(first) + lengthOf(second));
}

std::optional<Biarc> biarc(Vec2 from, Vec2 to, Vec2 tangentFrom, Vec2 tangentTo) {
    const auto joint = jointPlace(from, to, tangentFrom, tangentTo);
    if (!joint) return std::nullopt;
    return Biarc{geometry::tangentArc(from, azimuthOf(tangentFrom), *joint),
                 geometry::reversed(geometry::tangentArc(to, azimuthOf(tangentTo * -1), *joint))};
}

std::optional<std::vector<Vec2>> smoothTangents(const std::vector<Vec2>& corners, bool closed) {
    const std::size_t n = corners.size();
    if (n < 3) return std::nullopt;
    std::vector<Vec2> out(n);
    for (std::size_t k = closed ? 0 : 1; k < (closed ? n : n - 1); ++k)
        out[k] = tangentOnCircle(corners[(k + n - 1) % n], corners[k], corners[(k + 1) % n]);
    if (!closed) {
        out[0] = mirroredAt(corners[1] - corners[0], out[1]);
        out[n - 1] = mirroredAt(corners[n - 1] - corners[n - 2], out[n - 2]);
    }
    for (const Vec2& t : out)
        if (geometry::length(t) < 0.5) return std::nullopt;
    return out;
}

std::optional<std::size_t> jointOf(const Line3D& line, std::size_t corner) {
    const SplineKnots knots(line);
    const auto side = knots.sideOf(corner);
    return side ? knots.joint(*side) : std::nullopt;
}

void refitSmooth(Line3D& line, std::size_t corner) {
    if (std::none_of(line.vertices.begin(), line.vertices.end(), [](const auto& v) { return v.joint; }))
        return;
    const Line3D before = line;
    const SplineKnots knots(before);
    const auto at = knots.sideOf(corner);
    if (!at || knots.size() < 2) return;
    // The tangents at the corner and its neighbours depend on it; those beyond stay as they are.
    const auto n = static_cast<std::ptrdiff_t>(knots.size());
    const auto knotAt = [&](std::ptrdiff_t step) -> std::optional<std::size_t> {
        const auto k = static_cast<std::ptrdiff_t>(*at) + step;
        if (!line.closed && (k < 0 || k >= n)) return std::nullopt;
        return static_cast<std::size_t>(((k % n) + n) % n);
    };
    const auto tangent = [&](std::size_t k, bool atEnd) -> std::optional<Vec2> {
        for (const int step : {-1, 0, 1})
            if (knotAt(step) == k) return knots.tangent(k);
        return knots.presentTangent(k, atEnd);
    };
    for (int step = -2; step <= 1; ++step)
        if (const auto k = knotAt(step)) refitSide(line, knots, *k, tangent);
}

Result<Line3D> withSmoothSide(const Line3D& line, std::size_t segment) {
    const auto corners = cornersOf(line);
    if (segment >= planPath(line).size()) return badInput("the line has no such side");
    const SplineKnots knots(line);
    const std::size_t start = corners[segment];
    if (knots.isJoint(start) || jointOf(line, start)) return badInput("this side is smooth already");
    auto next = insertCorner(line, segment, 0.5);
    if (!next) return next;
    const auto now = cornersOf(*next);
    LineVertex& joint = next->vertices[now[segment + 1]];
    joint.joint = true;
    if (std::holds_alternative<NoHeight>(next->vertices[now[segment]].rule)) joint.rule = NoHeight{};
    refitSmooth(*next, now[segment]);
    if (auto problem = validate(*next)) return badInput(std::move(*problem));
    return next;
}

Result<Line3D> withoutSmoothSide(const Line3D& line, std::size_t segment) {
    const auto corners = cornersOf(line);
    if (segment >= corners.size()) return badInput("the line has no such side");
    const auto joint = jointOf(line, corners[segment]);
    return joint ? removeVertex(line, *joint) : line;
}

void dropLooseJoints(Line3D& line) {
    if (std::none_of(line.vertices.begin(), line.vertices.end(), [](const auto& v) { return v.joint; }))
        return;
    const Line3D before = line;
    const SplineKnots knots(before);
    for (std::size_t k = 0; k < knots.size(); ++k) line.vertices[knots.vertex(k)].joint = false;
}

}  // namespace erdwerk::linework
