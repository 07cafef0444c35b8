#include "core/annotate/dimension.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <numbers>

namespace erdwerk::annotate {

using geometry::Segment;
using geometry::Vec2;

namespace {

constexpr std::array<std::string_view, dimensionKinds> kindNames{"aligned", "linear", "chain", "angle",
                                                                 "delta",   "radius", "slope", "height"};
constexpr std::array<std::string_view, 5> arrowNames{"filled", "open", "stroke", "dot", "none"};
constexpr double pi = std::numbers::pi;

Vec2 rightOf(Vec2 v) {
    return {v.y, -v.x};
}

Dimensioned cannot(std::string why) {
    return {{}, std::move(why)};
}

/// A dimension line along `direction` with the feet of all places on it.
class Feet {
public:
    Feet(Vec2 first, Vec2 direction, double offset)
        : on_(first + rightOf(direction) * offset), direction_(direction) {}
    [[nodiscard]] Vec2 of(Vec2 place) const {
        return on_ + direction_ * geometry::dot(place - on_, direction_);
    }

private:
    Vec2 on_;
    Vec2 direction_;
};

Dimensioned distances(DimensionKind kind, const std::vector<MeasuredPlace>& at, const DimensionLine& line,
                      const DimensionStyle& style) {
    Vec2 direction = at.back().place - at.front().place;
    if (line.azimuth && kind != DimensionKind::Aligned) direction = geometry::directionOf(*line.azimuth);
    if (geometry::length(direction) < 1e-9) return cannot("its ends are in the same place");
    direction = direction * (1 / geometry::length(direction));
    const Feet feet(at.front().place, direction, line.offset);
    Dimensioned out;
    for (std::size_t i = 0; i + 1 < at.size(); ++i) {
        DimensionSpan span;
        span.from = feet.of(at[i].place);
        span.to = feet.of(at[i + 1].place);
        span.origin = at[i].place;
        span.target = at[i + 1].place;
        span.value = geometry::distance(span.from, span.to);
        span.text = formatFixed(span.value, style.decimals);
        out.spans.push_back(std::move(span));
    }
    return out;
}

Dimensioned heights(DimensionKind kind, const std::vector<MeasuredPlace>& at, const DimensionLine& line,
                    const DimensionStyle& style) {
    if (!at[0].height || !at[1].height) return cannot("a height is missing at one of its ends");
    auto out = distances(DimensionKind::Aligned, at, line, style);
    if (out.spans.empty()) return out;
    DimensionSpan& span = out.spans.front();
    const double rise = *at[1].height - *at[0].height;
    if (kind == DimensionKind::Height) {
        span.value = rise;
        span.text = (rise >= 0 ? "+" : "") + formatFixed(rise, style.decimals);
        return out;
    }
    // The arrow points downhill.
    span.value = rise / span.value;
    span.arrowAtFrom = rise > 0;
    span.arrowAtTo = rise <= 0;
    span.text = formatFixed(std::abs(span.value) * 100, style.decimals) + "%";
    return out;
}

/// Direction of travel at the place of a side that is nearest to another.
Vec2 directionAt(const Segment& side, Vec2 place) {
    return geometry::directionOf(tangentAt(side, nearestFraction(side, place)));
}

Dimensioned angle(const std::vector<MeasuredPlace>& at, const DimensionLine& line,
                  const DisplaySettings& display) {
    std::array<Vec2, 2> direction;
    for (std::size_t i = 0; i < 2; ++i) {
        if (!at[i].side) return cannot("it measures between two sides");
        direction[i] = directionAt(*at[i].side, at[i].place);
    }
    const auto corner = cornerOfSides(*at[0].side, at[0].place, *at[1].side, at[1].place);
    if (!corner) return cannot("its sides are parallel");
    const double radius = std::abs(line.offset);
    if (radius < 1e-9) return cannot("its arc has no radius");
    Dimensioned out;
    DimensionSpan span;
    // From the corner towards what was picked of each side.
    for (std::size_t i = 0; i < 2; ++i)
        if (geometry::dot(at[i].place - *corner, direction[i]) < 0) direction[i] = direction[i] * -1.0;
    const double turn = Angle::radians(geometry::azimuth({0, 0}, direction[1]).radians() -
                                       geometry::azimuth({0, 0}, direction[0]).radians())
                            .normalized()
                            .radians();
    span.centre = corner;
    span.turn = turn > pi ? turn - 2 * pi : turn;
    span.from = *corner + direction[0] * radius;
    span.to = *corner + direction[1] * radius;
    span.origin = at[0].place;
    span.target = at[1].place;
    span.value = std::abs(span.turn);
    span.text = formatAngle(Angle::radians(span.value), display.angleUnit);
    out.spans.push_back(std::move(span));
    return out;
}

Dimensioned ofArc(DimensionKind kind, const MeasuredPlace& at, const DimensionLine& line,
                  const DimensionStyle& style, const DisplaySettings& display) {
    const auto arc = at.side ? arcOf(*at.side) : std::nullopt;
    if (!arc) return cannot("what it measures is no arc any more");
    Dimensioned out;
    DimensionSpan span;
    if (kind == DimensionKind::Radius) {
        // From the middle of the radius outwards: a centre is often far away.
        span.to = at.place;
        span.from = lerp(arc->centre, at.place, std::max(0.0, 1 - std::abs(line.offset) / arc->radius));
        span.arrowAtFrom = false;
        span.value = arc->radius;
        span.text = "R " + formatFixed(arc->radius, style.decimals);
        out.spans.push_back(std::move(span));
        return out;
    }
    const double radius = std::abs(line.offset) < 1e-9 ? arc->radius : std::abs(line.offset);
    span.centre = arc->centre;
    span.turn = arc->sweep.radians();
    const auto onto = [&](Vec2 place) {
        const Vec2 away = place - arc->centre;
        return arc->centre + away * (radius / geometry::length(away));
    };
    span.from = onto(at.side->start);
    span.to = onto(at.side->end);
    span.origin = at.side->start;
    span.target = at.side->end;
    span.value = std::abs(span.turn);
    span.text = "Δ " + formatAngle(Angle::radians(span.value), display.angleUnit);
    out.spans.push_back(std::move(span));
    return out;
}

/// Azimuth turned about a centre, clockwise positive.
Vec2 turned(Vec2 centre, Vec2 place, double by) {
    const Vec2 v = place - centre;
    return centre + Vec2{v.x * std::cos(by) + v.y * std::sin(by), v.y * std::cos(by) - v.x * std::sin(by)};
}

geometry::Path lineOf(const DimensionSpan& span) {
    if (!span.centre) return {{span.from, span.to, std::nullopt}};
    return {{span.from, span.to, turned(*span.centre, span.from, span.turn / 2)}};
}

}  // namespace

std::string_view dimensionName(DimensionKind kind) {
    return kindNames[static_cast<std::size_t>(kind)];
}

const std::vector<DimensionKind>& allDimensionKinds() {
    using enum DimensionKind;
    static const std::vector<DimensionKind> all{Aligned, Linear, Chain, Angle, Delta, Radius, Slope, Height};
    return all;
}

std::size_t anchorsOf(DimensionKind kind) {
    return kind == DimensionKind::Delta || kind == DimensionKind::Radius ? 1 : 2;
}

bool isOfSides(DimensionKind kind) {
    return kind == DimensionKind::Angle || kind == DimensionKind::Delta || kind == DimensionKind::Radius;
}

std::string_view arrowName(ArrowKind kind) {
    return arrowNames[static_cast<std::size_t>(kind)];
}

const std::vector<ArrowKind>& allArrowKinds() {
    static const std::vector<ArrowKind> all{ArrowKind::Filled, ArrowKind::Open, ArrowKind::Stroke,
                                            ArrowKind::Dot, ArrowKind::None};
    return all;
}

std::string_view textName(DimensionText text) {
    return text == DimensionText::Automatic ? "automatic"
           : text == DimensionText::Inside  ? "inside"
                                            : "outside";
}

Result<void> validate(const DimensionStyle& style) {
    for (const double length : {style.arrowSize, style.extensionGap, style.overshoot, style.textGap})
        if (!(length >= 0 && length <= 100)) return badInput("lengths on paper are 0 to 100 mm");
    if (!(style.height >= 0.5 && style.height <= 50)) return badInput("texts are 0.5 to 50 mm high on paper");
    if (style.decimals < 0 || style.decimals > 9) return badInput("decimals are 0 to 9");
    return {};
}

Dimensioned measure(DimensionKind kind, const std::vector<MeasuredPlace>& at, const DimensionLine& line,
                    const DimensionStyle& style, const DisplaySettings& display) {
    if (at.size() < anchorsOf(kind)) return cannot("it has too few ends");
    switch (kind) {
        case DimensionKind::Aligned:
        case DimensionKind::Linear:
        case DimensionKind::Chain:
            return distances(kind, at, line, style);
        case DimensionKind::Slope:
        case DimensionKind::Height:
            return heights(kind, at, line, style);
        case DimensionKind::Angle:
            return angle(at, line, display);
        case DimensionKind::Delta:
        case DimensionKind::Radius:
            return ofArc(kind, at.front(), line, style, display);
    }
    return {};
}

std::optional<Vec2> cornerOfSides(const Segment& a, Vec2 onA, const Segment& b, Vec2 onB) {
    const Vec2 u = directionAt(a, onA);
    const Vec2 v = directionAt(b, onB);
    const double across = geometry::cross(u, v);
    if (std::abs(across) < 1e-9) return std::nullopt;
    return onA + u * (geometry::cross(onB - onA, v) / across);
}

DimensionDrawing drawn(const DimensionSpan& span, const DimensionStyle& style, double width,
                       double unitsPerMillimetre) {
    DimensionDrawing out;
    out.line = lineOf(span);
    const double mm = unitsPerMillimetre;
    const double length = geometry::lengthOf(out.line);
    const int ends = (span.arrowAtFrom ? 1 : 0) + (span.arrowAtTo ? 1 : 0);
    const double arrows = (style.arrows == ArrowKind::None ? 0 : ends * style.arrowSize) * mm;
    out.fits = width * mm + arrows + 2 * style.textGap * mm <= length;
    const bool inward = arrows > length * 0.9 && length > 0;
    out.lines.push_back(geometry::flattened(out.line, 0.05 * mm));
    const Vec2 first = geometry::directionOf(tangentAt(out.line.front(), 0));
    const Vec2 last = geometry::directionOf(tangentAt(out.line.front(), 1));
    if (inward) {
        // The line goes on to where the arrows begin.
        out.lines.push_back({span.from, span.from - first * (2 * style.arrowSize * mm)});
        out.lines.push_back({span.to, span.to + last * (2 * style.arrowSize * mm)});
    }
    if (span.arrowAtFrom) out.arrows.push_back({span.from, inward ? first : first * -1.0});
    if (span.arrowAtTo) out.arrows.push_back({span.to, inward ? last * -1.0 : last});
    if (!style.extensions) return out;
    const auto extension = [&](std::optional<Vec2> from, Vec2 to) {
        if (!from) return;
        const double far = geometry::distance(*from, to);
        if (far <= style.extensionGap * mm) return;
        const Vec2 along = (to - *from) * (1 / far);
        out.lines.push_back({*from + along * (style.extensionGap * mm), to + along * (style.overshoot * mm)});
    };
    extension(span.origin, span.from);
    extension(span.target, span.to);
    return out;
}

}  // namespace erdwerk::annotate
