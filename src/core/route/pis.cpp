#include "core/route/pis.h"

#include <cmath>
#include <numbers>

#include "core/base/display.h"

namespace erdwerk::route {

namespace {

using geometry::Segment;
using geometry::Spiral;

/// Shorter straights are none.
constexpr double tiny = 1e-9;

/// Shift and drawing out of a spiral, see CurveTangents.
struct SpiralShift {
    double k = 0;
    double p = 0;
};

SpiralShift shiftOf(double radius, double length) {
    if (length == 0) return {};
    const Spiral shape{0, 1 / radius, length};
    const double chord = shape.chord();
    const double azimuth = shape.chordAzimuth().radians();
    const double turn = length / (2 * radius);
    return {chord * std::cos(azimuth) - radius * std::sin(turn),
            chord * std::sin(azimuth) - radius * (1 - std::cos(turn))};
}

/// What stands at a PI: its directions, and how much of the tangents its curve takes.
struct Corner {
    Angle in;
    Angle out;
    Vec2 wayIn;  ///< the same as vectors of length 1, which lose no digits where they run along an axis
    Vec2 wayOut;
    double turn = 0;  ///< clockwise positive
    CurveTangents tangents;
    bool curved = false;
};

Vec2 wayBetween(Vec2 a, Vec2 b) {
    return (b - a) * (1 / geometry::distance(a, b));
}

std::string named(std::size_t i) {
    return "PI " + std::to_string(i + 1);
}

Result<Corner> cornerAt(const std::vector<Pi>& pis, std::size_t i) {
    const Pi& pi = pis[i];
    Corner c;
    c.in = geometry::azimuth(pis[i - 1].place, pi.place);
    c.out = geometry::azimuth(pi.place, pis[i + 1].place);
    c.wayIn = wayBetween(pis[i - 1].place, pi.place);
    c.wayOut = wayBetween(pi.place, pis[i + 1].place);
    c.turn = (c.out - c.in).signedTurn().radians();
    const double turn = std::abs(c.turn);
    if (pi.radius == 0 || turn < 1e-9) return c;
    if (turn > std::numbers::pi - 1e-6)
        return badInput(named(i) + ": the tangents turn right back, so no curve joins them");
    if ((pi.spiralIn + pi.spiralOut) / (2 * pi.radius) > turn + 1e-9)
        return badInput(
            named(i) + ": its spirals turn by " +
            formatFixed((pi.spiralIn + pi.spiralOut) / (2 * pi.radius) * 180 / std::numbers::pi, 4) +
            " degrees, its tangents only by " + formatFixed(turn * 180 / std::numbers::pi, 4) +
            ": shorten them or take a larger radius");
    c.curved = true;
    c.tangents = curveTangents(pi.radius, pi.spiralIn, pi.spiralOut, Angle::radians(turn));
    return c;
}

Result<void> validate(const std::vector<Pi>& pis) {
    if (pis.size() < 2) return badInput("an alignment has at least two PIs, its beginning and its end");
    for (std::size_t i = 0; i < pis.size(); ++i) {
        const Pi& pi = pis[i];
        if (!std::isfinite(pi.place.x) || !std::isfinite(pi.place.y) || !std::isfinite(pi.radius) ||
            !std::isfinite(pi.spiralIn) || !std::isfinite(pi.spiralOut))
            return badInput(named(i) + " has no figures");
        if (pi.radius < 0) return badInput(named(i) + ": a radius is above 0, or 0 for a bare corner");
        if (pi.spiralIn < 0 || pi.spiralOut < 0)
            return badInput(named(i) + ": a spiral has a length above 0, or none");
        if (pi.radius == 0 && (pi.spiralIn > 0 || pi.spiralOut > 0))
            return badInput(named(i) + " has a spiral but no radius");
        if (i > 0 && pi.place == pis[i - 1].place)
            return badInput(named(i) + " lies where the one before it does");
    }
    return {};
}

void addCurve(Path& path, const Pi& pi, const Corner& c) {
    const double side = c.turn > 0 ? 1 : -1;
    const double curvature = side / pi.radius;
    const Vec2 begin = pi.place - c.wayIn * c.tangents.in;
    const Vec2 end = pi.place + c.wayOut * c.tangents.out;
    Vec2 from = begin;
    Vec2 to = end;
    std::optional<Segment> out;
    if (pi.spiralIn > 0) {
        path.push_back(geometry::clothoidFrom(begin, c.in, {0, curvature, pi.spiralIn}));
        from = path.back().end;
    }
    if (pi.spiralOut > 0) {
        // From its far end, where it is known.
        const Segment back = geometry::clothoidFrom(end, c.out + Angle::radians(std::numbers::pi),
                                                    {0, -curvature, pi.spiralOut});
        out = reversed(back);
        to = out->start;
    }
    const double turn = std::abs(c.turn) - (pi.spiralIn + pi.spiralOut) / (2 * pi.radius);
    if (turn * pi.radius > tiny)
        path.push_back(geometry::arcByRadius(from, to, pi.radius, side > 0, turn > std::numbers::pi));
    else if (out)
        out->start = from;
    if (out) path.push_back(*out);
}

}  // namespace

CurveTangents curveTangents(double radius, double spiralIn, double spiralOut, Angle turn) {
    const SpiralShift a = shiftOf(radius, spiralIn);
    const SpiralShift b = shiftOf(radius, spiralOut);
    const double s = std::sin(turn.radians());
    const double t = std::tan(turn.radians());
    // Of equal spirals by half the turn, which loses no digits at small and at large ones.
    if (spiralIn == spiralOut) {
        const double both = a.k + (radius + a.p) * std::tan(turn.radians() / 2);
        return {both, both};
    }
    return {a.k + (radius + b.p) / s - (radius + a.p) / t, b.k + (radius + a.p) / s - (radius + b.p) / t};
}

Result<Path> pathOf(const std::vector<Pi>& pis) {
    if (auto valid = validate(pis); !valid) return tl::unexpected(valid.error());
    std::vector<Corner> corners(pis.size());
    for (std::size_t i = 1; i + 1 < pis.size(); ++i) {
        auto corner = cornerAt(pis, i);
        if (!corner) return tl::unexpected(corner.error());
        corners[i] = *corner;
    }
    Path path;
    Vec2 at = pis.front().place;
    for (std::size_t i = 1; i < pis.size(); ++i) {
        const double room = geometry::distance(pis[i - 1].place, pis[i].place);
        const double straight = room - corners[i - 1].tangents.out - corners[i].tangents.in;
        if (straight < -1e-6)
            return badInput((corners[i - 1].curved && corners[i].curved
                                 ? "the curves at " + named(i - 1) + " and " + named(i) + " overlap by "
                                 : "the curve at " + named(corners[i].curved ? i : i - 1) +
                                       " is longer than its tangent by ") +
                            formatFixed(-straight, 3) + ": take smaller radii or spirals");
        const Vec2 to = pis[i].place - wayBetween(pis[i - 1].place, pis[i].place) * corners[i].tangents.in;
        if (straight > tiny) path.push_back({at, corners[i].curved ? to : pis[i].place, std::nullopt});
        at = pis[i].place;
        if (!corners[i].curved) continue;
        addCurve(path, pis[i], corners[i]);
        at = path.back().end;
    }
    // Each begins where the one before ends, to the last digit.
    for (std::size_t i = 1; i < path.size(); ++i) path[i].start = path[i - 1].end;
    return path;
}

std::optional<std::vector<Pi>> pisOf(const Path& path) {
    if (path.empty()) return std::nullopt;
    std::vector<Pi> out{{path.front().start}};
    for (std::size_t i = 0; i < path.size();) {
        if (!isCurved(path[i])) {
            if (i + 1 < path.size() && !isCurved(path[i + 1])) out.push_back({path[i].end});
            ++i;
            continue;
        }
        // A spiral that winds up, an arc, one that unwinds; each may be missing.
        const std::size_t first = i;
        Pi pi;
        double turn = 0;
        const auto spiral = [&](bool in) -> double {
            const auto c = i < path.size() ? clothoidOf(path[i]) : std::nullopt;
            if (!c || (in ? c->shape.startCurvature : c->shape.endCurvature) != 0) return 0;
            pi.radius = 1 / std::abs(in ? c->shape.endCurvature : c->shape.startCurvature);
            turn += c->shape.turn().radians();
            ++i;
            return c->length();
        };
        pi.spiralIn = spiral(true);
        if (const auto arc = i < path.size() ? arcOf(path[i]) : std::nullopt; arc) {
            pi.radius = arc->radius;
            turn += arc->sweep.radians();
            ++i;
        }
        pi.spiralOut = spiral(false);
        if (i == first || std::abs(turn) >= std::numbers::pi - 1e-6) return std::nullopt;
        const auto tangents =
            curveTangents(pi.radius, pi.spiralIn, pi.spiralOut, Angle::radians(std::abs(turn)));
        pi.place = path[first].start + geometry::directionOf(tangentAt(path[first], 0)) * tangents.in;
        out.push_back(pi);
    }
    out.push_back({path.back().end});
    // A spiral between two arcs, a joint that is not tangent: the PIs would give something else.
    const auto again = pathOf(out);
    if (!again || again->size() != path.size()) return std::nullopt;
    for (std::size_t i = 0; i < path.size(); ++i)
        for (const double t : {0.0, 0.5, 1.0})
            if (geometry::distance(pointAt(path[i], t), pointAt((*again)[i], t)) > 1e-6) return std::nullopt;
    return out;
}

std::vector<Pi> withRadius(std::vector<Pi> pis, double radius) {
    for (std::size_t i = 1; i + 1 < pis.size(); ++i)
        if (pis[i].radius == 0) pis[i].radius = radius;
    return pis;
}

namespace {

/// Along which a curve at a PI grows, and half of its turn.
struct Opening {
    Vec2 inwards;  ///< a unit, from the PI
    double half = 0;
};

std::optional<Opening> openingAt(const std::vector<Pi>& pis, std::size_t pi) {
    if (pi == 0 || pi + 1 >= pis.size()) return std::nullopt;
    const Angle in = geometry::azimuth(pis[pi - 1].place, pis[pi].place);
    const Angle out = geometry::azimuth(pis[pi].place, pis[pi + 1].place);
    const double turn = std::abs((out - in).signedTurn().radians());
    const Vec2 sum = geometry::directionOf(out) - geometry::directionOf(in);
    const double size = geometry::length(sum);
    if (turn < 1e-9 || size < 1e-9) return std::nullopt;
    return Opening{sum * (1 / size), turn / 2};
}

double shiftOf(const Pi& pi, double radius) {
    return (pi.spiralIn * pi.spiralIn + pi.spiralOut * pi.spiralOut) / 48 / radius;
}

}  // namespace

std::optional<double> radiusThrough(const std::vector<Pi>& pis, std::size_t pi, Vec2 place) {
    const auto opening = openingAt(pis, pi);
    if (!opening) return std::nullopt;
    const double away = geometry::dot(place - pis[pi].place, opening->inwards);
    const double bend = 1 / std::cos(opening->half);
    if (!(away > 0) || !(bend > 1 + 1e-12)) return std::nullopt;
    // (R + p) bend = R + E; the shift hardly changes with the radius.
    double radius = away / (bend - 1);
    for (int round = 0; round < 50; ++round) {
        const double next = (away - shiftOf(pis[pi], radius) * bend) / (bend - 1);
        if (!(next > 0)) return std::nullopt;
        if (std::abs(next - radius) < 1e-9 * next) return next;
        radius = (radius + next) / 2;
    }
    return radius;
}

std::optional<Vec2> curveMiddle(const std::vector<Pi>& pis, std::size_t pi) {
    const auto opening = openingAt(pis, pi);
    if (!opening || !(pis[pi].radius > 0)) return std::nullopt;
    const double radius = pis[pi].radius;
    const double away = (radius + shiftOf(pis[pi], radius)) / std::cos(opening->half) - radius;
    return pis[pi].place + opening->inwards * away;
}

}  // namespace erdwerk::route
