#include "core/geometry/arc.h"

#include <numbers>

namespace erdwerk::geometry {

namespace {

constexpr double pi = std::numbers::pi;

/// How far round from the start a direction from the centre lies, in the sense of the sweep, 0 to 2 pi.
double turnTo(const Arc& arc, Angle azimuthFromCentre) {
    const double turn = (azimuthFromCentre - arc.startAzimuth).normalized().radians();
    return arc.right() || turn == 0 ? turn : 2 * pi - turn;
}

}  // namespace

Vec2 Arc::at(double fraction) const {
    return centre + directionOf(startAzimuth + Angle::radians(sweep.radians() * fraction)) * radius;
}

Angle Arc::direction(double fraction) const {
    const Angle outward = startAzimuth + Angle::radians(sweep.radians() * fraction);
    return (outward + Angle::radians(right() ? pi / 2 : -pi / 2)).normalized();
}

double Arc::nearest(Vec2 p) const {
    const double turn = turnTo(*this, azimuth(centre, p));
    if (turn <= std::abs(sweep.radians())) return turn / std::abs(sweep.radians());
    return distance(p, start) <= distance(p, end) ? 0 : 1;
}

std::vector<double> Arc::touches(Vec2 from) const {
    const double d = distance(centre, from);
    if (d <= radius) return {};
    // Seen from the centre, the places of touch stand this far to both sides of the direction to `from`.
    const Angle aside = Angle::radians(std::acos(radius / d));
    const Angle towards = azimuth(centre, from);
    std::vector<double> out;
    for (const Angle where : {towards + aside, towards - aside}) {
        const double turn = turnTo(*this, where);
        if (turn <= std::abs(sweep.radians())) out.push_back(turn / std::abs(sweep.radians()));
    }
    return out;
}

Box Arc::bounds() const {
    Box box;
    box.add(start);
    box.add(end);
    for (int quarter = 0; quarter < 4; ++quarter) {
        const Angle where = Angle::radians(quarter * pi / 2);
        if (turnTo(*this, where) <= std::abs(sweep.radians())) box.add(centre + directionOf(where) * radius);
    }
    return box;
}

int Arc::pieces(double sagitta) const {
    const double step = 2 * std::acos(std::clamp(1 - sagitta / radius, -1.0, 1.0));
    const double wanted = std::abs(sweep.radians()) / std::max(step, 1e-4);
    return static_cast<int>(std::clamp(std::ceil(wanted), 2.0, 4096.0));
}

double Arc::bulge() const {
    const double delta = std::abs(sweep.radians());
    const double area = radius * radius / 2 * (delta - std::sin(delta));
    return right() ? area : -area;
}

}  // namespace erdwerk::geometry
