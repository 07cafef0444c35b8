#include "core/geometry/element.h"

#include <numbers>

#include "core/geometry/predicates.h"

namespace erdwerk::geometry {

namespace {
constexpr double pi = std::numbers::pi;

Spiral scaled(const Spiral& s, double by) {
    return {s.startCurvature / by, s.endCurvature / by, s.length * by};
}
}  // namespace

std::optional<Arc> arcOf(const Segment& s) {
    if (!s.through) return std::nullopt;
    // Centre of the circle through three points, taken about the start so that large coordinates do not
    // cancel.
    const Vec2 b = *s.through - s.start;
    const Vec2 c = s.end - s.start;
    const double chord = length(c);
    const double d = 2 * cross(b, c);
    if (chord == 0 || std::abs(d) <= 1e-9 * chord * chord) return std::nullopt;
    const double b2 = dot(b, b);
    const double c2 = dot(c, c);
    const Vec2 centre{(c.y * b2 - b.y * c2) / d, (b.x * c2 - c.x * b2) / d};
    Arc arc;
    arc.start = s.start;
    arc.end = s.end;
    arc.centre = s.start + centre;
    arc.radius = length(centre);
    arc.startAzimuth = azimuth(arc.centre, s.start);
    const double turn = (azimuth(arc.centre, s.end) - arc.startAzimuth).normalized().radians();
    const double middle = (azimuth(arc.centre, *s.through) - arc.startAzimuth).normalized().radians();
    arc.sweep = Angle::radians(middle < turn ? turn : turn - 2 * pi);
    return arc;
}

std::optional<Clothoid> clothoidOf(const Segment& s) {
    if (!s.spiral) return std::nullopt;
    const double own = s.spiral->chord();
    const double chord = distance(s.start, s.end);
    const double scale = own > 0 ? chord / own : 1;
    return Clothoid{s.start, s.end, (azimuth(s.start, s.end) - s.spiral->chordAzimuth()).normalized(),
                    scaled(*s.spiral, scale)};
}

Segment clothoidFrom(Vec2 start, Angle tangent, const Spiral& shape) {
    const Vec2 end = start + directionOf(tangent + shape.chordAzimuth()) * shape.chord();
    return {start, end, std::nullopt, shape};
}

Element elementOf(const Segment& s) {
    if (const auto clothoid = clothoidOf(s)) return *clothoid;
    if (const auto arc = arcOf(s)) return *arc;
    return Straight{s.start, s.end};
}

Segment tangentArc(Vec2 start, Angle tangent, Vec2 end) {
    const double chord = distance(start, end);
    const double deflection = (azimuth(start, end) - tangent).signedTurn().radians();
    if (chord == 0 || std::abs(deflection) < 1e-9 || std::abs(deflection) > pi - 1e-9)
        return {start, end, std::nullopt};
    // The chord turns half of delta away from the tangent; the arc's middle stands a sagitta off the chord.
    const double sagitta = chord / 2 * std::tan(deflection / 2);
    const Vec2 along = (end - start) * (1 / chord);
    return {start, end, lerp(start, end, 0.5) + leftOf(along) * sagitta};
}

Segment arcByRadius(Vec2 start, Vec2 end, double radius, bool right, bool major) {
    const double half = distance(start, end) / 2;
    const double toChord = std::sqrt(std::max(0.0, radius * radius - half * half));
    const double sagitta = major ? radius + toChord : radius - toChord;
    const Vec2 along = (end - start) * (1 / (2 * half));
    // A curve to the right bulges to the left of its chord.
    return {start, end, lerp(start, end, 0.5) + leftOf(along) * (right ? sagitta : -sagitta)};
}

bool isCurved(const Segment& s) {
    return !std::holds_alternative<Straight>(elementOf(s));
}

double lengthOf(const Segment& s) {
    return std::visit([](const auto& e) { return e.length(); }, elementOf(s));
}

Vec2 pointAt(const Segment& s, double fraction) {
    if (fraction <= 0) return s.start;
    if (fraction >= 1) return s.end;
    return std::visit([fraction](const auto& e) { return e.at(fraction); }, elementOf(s));
}

Angle tangentAt(const Segment& s, double fraction) {
    return std::visit([fraction](const auto& e) { return e.direction(fraction); }, elementOf(s));
}

double nearestFraction(const Segment& s, Vec2 place) {
    return std::visit([place](const auto& e) { return e.nearest(place); }, elementOf(s));
}

Segment part(const Segment& s, double from, double to) {
    Segment out{pointAt(s, from), pointAt(s, to), std::nullopt};
    if (const auto clothoid = clothoidOf(s)) {
        out.spiral =
            Spiral{clothoid->curvature(from), clothoid->curvature(to), clothoid->length() * (to - from)};
        return out;
    }
    if (isCurved(s)) out.through = pointAt(s, (from + to) / 2);
    return out;
}

Segment reversed(const Segment& s) {
    Segment out{s.end, s.start, s.through};
    if (s.spiral) out.spiral = Spiral{-s.spiral->endCurvature, -s.spiral->startCurvature, s.spiral->length};
    return out;
}

Segment between(const Segment& s, Vec2 start, Vec2 end) {
    Segment out{start, end, std::nullopt};
    const Vec2 old = s.end - s.start;
    if (s.spiral && dot(old, old) > 0 && start != end) {
        out.spiral = scaled(*s.spiral, distance(start, end) / length(old));
        return out;
    }
    if (!isCurved(s) || start == end || dot(old, old) == 0) return out;
    // Its middle keeps its height over the chord, as a share of it.
    const double share = cross(old, pointAt(s, 0.5) - lerp(s.start, s.end, 0.5)) / dot(old, old);
    out.through = lerp(start, end, 0.5) + leftOf(end - start) * share;
    return out;
}

double bulgeArea(const Segment& s) {
    return std::visit([](const auto& e) { return e.bulge(); }, elementOf(s));
}

Box boundsOf(const Segment& s) {
    return std::visit([](const auto& e) { return e.bounds(); }, elementOf(s));
}

std::vector<Vec2> flattened(const Segment& s, double sagitta) {
    return std::visit(
        [sagitta](const auto& e) {
            std::vector<Vec2> out{e.start};
            const int pieces = e.pieces(sagitta);
            for (int k = 1; k < pieces; ++k) out.push_back(e.at(static_cast<double>(k) / pieces));
            out.push_back(e.end);
            return out;
        },
        elementOf(s));
}

namespace {

/// Newton's method on first.at(t) = second.at(u); nothing when it leaves both or does not settle.
template <class A, class B>
std::optional<ElementCrossing> refined(const A& a, const B& b, double t, double u, double size) {
    const double la = a.length();
    const double lb = b.length();
    for (int step = 0; step < 30; ++step) {
        const Vec2 off = b.at(u) - a.at(t);
        const Vec2 da = directionOf(a.direction(t)) * la;
        const Vec2 db = directionOf(b.direction(u)) * lb;
        const double d = cross(da, db);
        if (std::abs(d) <= 1e-12 * la * lb) break;
        t = std::clamp(t + cross(off, db) / d, -0.01, 1.01);
        u = std::clamp(u + cross(off, da) / d, -0.01, 1.01);
    }
    constexpr double edge = 1e-12;
    if (t < -edge || t > 1 + edge || u < -edge || u > 1 + edge) return std::nullopt;
    if (distance(a.at(t), b.at(u)) > 1e-9 * size) return std::nullopt;
    t = std::clamp(t, 0.0, 1.0);
    u = std::clamp(u, 0.0, 1.0);
    return ElementCrossing{t, u, a.at(t)};
}

}  // namespace

std::vector<ElementCrossing> crossings(const Segment& first, const Segment& second) {
    const Box box = boundsOf(first);
    const Box other = boundsOf(second);
    if (!box.meets(other)) return {};
    const auto straight = [](const Segment& s) { return !isCurved(s); };
    if (straight(first) && straight(second)) {
        if (meeting(first.start, first.end, second.start, second.end) != Meeting::Crossing) return {};
        const double t = crossingFraction(first.start, first.end, second.start, second.end);
        const double u = crossingFraction(second.start, second.end, first.start, first.end);
        return {{t, u, lerp(first.start, first.end, t)}};
    }
    const double size = std::max({box.width(), box.height(), other.width(), other.height()});
    const auto a = flattened(first, size / 1000);
    const auto b = flattened(second, size / 1000);
    const Element firstElement = elementOf(first);
    const Element secondElement = elementOf(second);
    std::vector<ElementCrossing> out;
    for (std::size_t i = 0; i + 1 < a.size(); ++i)
        for (std::size_t j = 0; j + 1 < b.size(); ++j) {
            // Chords stop short of what they cut: those that nearly reach each other count too.
            Box near;
            near.add(a[i]);
            near.add(a[i + 1]);
            Box to;
            to.add(b[j]);
            to.add(b[j + 1]);
            if (!near.grown(size / 500).meets(to)) continue;
            const double t = (static_cast<double>(i) + 0.5) / static_cast<double>(a.size() - 1);
            const double u = (static_cast<double>(j) + 0.5) / static_cast<double>(b.size() - 1);
            const auto found =
                std::visit([&](const auto& x, const auto& y) { return refined(x, y, t, u, size); },
                           firstElement, secondElement);
            const auto same = [&](const ElementCrossing& c) {
                return distance(c.place, found->place) < 1e-7 * size;
            };
            if (found && std::none_of(out.begin(), out.end(), same)) out.push_back(*found);
        }
    std::sort(out.begin(), out.end(),
              [](const ElementCrossing& x, const ElementCrossing& y) { return x.first < y.first; });
    return out;
}

}  // namespace erdwerk::geometry
