#include "core/geometry/clothoid.h"

#include <algorithm>
#include <boost/math/quadrature/gauss.hpp>
#include <cmath>
#include <numbers>

namespace erdwerk::geometry {

namespace {

/// Gauss and Legendre's rule of ten points: half of its places on -1 to 1, and their weights; the others
/// mirror them.
using Rule = boost::math::quadrature::gauss<double, 10>;

/// Stretches that turn by less than half a radian each.
int stretches(const Spiral& s, double from, double to) {
    const auto curvature = [&](double f) {
        return s.startCurvature + (s.endCurvature - s.startCurvature) * f;
    };
    const double most = std::max(std::abs(curvature(from)), std::abs(curvature(to)));
    return 1 + static_cast<int>(std::min(1e5, 2 * most * s.length * std::abs(to - from)));
}

/// Integral of f over the fractions from a to b.
template <class F>
auto integrated(const F& f, double a, double b) {
    const double middle = (a + b) / 2;
    const double half = (b - a) / 2;
    const auto& places = Rule::abscissa();
    const auto& weights = Rule::weights();
    auto sum = (f(middle + half * places[0]) + f(middle - half * places[0])) * (weights[0] * half);
    for (std::size_t k = 1; k < places.size(); ++k)
        sum = sum + (f(middle + half * places[k]) + f(middle - half * places[k])) * (weights[k] * half);
    return sum;
}

/// From one fraction to another, the start heading north.
Vec2 moved(const Spiral& s, double from, double to) {
    const int n = stretches(s, from, to);
    Vec2 sum{0, 0};
    const auto step = [&](double f) {
        const double t = s.turnedAt(f);
        return Vec2{std::sin(t), std::cos(t)} * s.length;
    };
    for (int k = 0; k < n; ++k)
        sum = sum + integrated(step, from + (to - from) * k / n, from + (to - from) * (k + 1) / n);
    return sum;
}

/// Clockwise, so that what heads north heads along the azimuth.
Vec2 turnedBy(Vec2 v, Angle azimuth) {
    const double s = std::sin(azimuth.radians());
    const double c = std::cos(azimuth.radians());
    return {v.x * c + v.y * s, v.y * c - v.x * s};
}

/// Fractions where g is 0, found between places where its sign differs, by halving and secants.
template <class G>
std::vector<double> zeros(const G& g, int samples) {
    std::vector<double> out;
    double a = 0;
    double ga = g(0.0);
    for (int k = 1; k <= samples; ++k) {
        const double b = static_cast<double>(k) / samples;
        const double gb = g(b);
        if (ga == 0) out.push_back(a);
        if (ga * gb < 0) {
            double low = a;
            double high = b;
            double gl = ga;
            double gh = gb;
            for (int i = 0; i < 60 && high - low > 1e-16; ++i) {
                double t = low + (high - low) * gl / (gl - gh);
                if (i % 3 == 2 || !(t > low && t < high)) t = (low + high) / 2;
                const double gt = g(t);
                if (gt == 0) {
                    low = high = t;
                    break;
                }
                (gt * gl < 0 ? high : low) = t;
                (gt * gl < 0 ? gh : gl) = gt;
            }
            out.push_back((low + high) / 2);
        }
        a = b;
        ga = gb;
    }
    if (ga == 0) out.push_back(1);
    return out;
}

}  // namespace

Vec2 Spiral::way(double from, double to) const {
    return moved(*this, from, to);
}

Angle Spiral::chordAzimuth() const {
    return geometry::azimuth({0, 0}, moved(*this, 0, 1));
}

double Spiral::chord() const {
    return geometry::length(moved(*this, 0, 1));
}

Vec2 Clothoid::turned(Vec2 v) const {
    return turnedBy(v, azimuth);
}

Vec2 Clothoid::at(double fraction) const {
    // From the nearer end, so that both are met exactly.
    if (fraction > 0.5) return end - turnedBy(moved(shape, fraction, 1), azimuth);
    return start + turnedBy(moved(shape, 0, fraction), azimuth);
}

Angle Clothoid::direction(double fraction) const {
    return (azimuth + Angle::radians(shape.turnedAt(fraction))).normalized();
}

double Clothoid::nearest(Vec2 p) const {
    const auto ahead = [&](double f) { return dot(p - at(f), directionOf(direction(f))); };
    double best = distance(p, start) <= distance(p, end) ? 0 : 1;
    double least = std::min(distance(p, start), distance(p, end));
    for (const double f : zeros(ahead, 4 + 2 * stretches(shape, 0, 1))) {
        const double d = distance(p, at(f));
        if (d >= least) continue;
        least = d;
        best = f;
    }
    return best;
}

std::vector<double> Clothoid::touches(Vec2 from) const {
    return zeros([&](double f) { return cross(directionOf(direction(f)), from - at(f)); },
                 4 + 2 * stretches(shape, 0, 1));
}

Box Clothoid::bounds() const {
    Box box;
    box.add(start);
    box.add(end);
    // Farthest to one side where it runs along an axis.
    const auto along = [&](bool east) {
        return [this, east](double f) {
            const Vec2 d = directionOf(direction(f));
            return east ? d.x : d.y;
        };
    };
    for (const bool east : {true, false})
        for (const double f : zeros(along(east), 4 + 2 * stretches(shape, 0, 1))) box.add(at(f));
    return box;
}

int Clothoid::pieces(double sagitta) const {
    const double most = std::max(std::abs(shape.startCurvature), std::abs(shape.endCurvature));
    if (most == 0) return 1;
    const double piece = std::min(std::sqrt(8 * sagitta / most), 0.5 * std::numbers::pi / most);
    return std::max(1, static_cast<int>(std::ceil(std::min(1e6, shape.length / piece))));
}

double Clothoid::bulge() const {
    const int n = stretches(shape, 0, 1);
    const auto swept = [&](double f) {
        return cross(at(f) - start, directionOf(direction(f))) * shape.length / 2;
    };
    double sum = 0;
    for (int k = 0; k < n; ++k)
        sum += integrated(swept, static_cast<double>(k) / n, static_cast<double>(k + 1) / n);
    return -sum;
}

}  // namespace erdwerk::geometry
