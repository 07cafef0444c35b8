#pragma once
// Ground under earthworks, and rays against it.

#include <cmath>
#include <memory>
#include <optional>
#include <random>

#include "core/terrain/build.h"
#include "core/terrain/locator.h"
#include "support/geometry.h"

namespace erdwerk::test {

using geometry::Vec2;
using geometry::Vec3;

/// A square of ground about the origin with heights a + b x + c y.
inline std::shared_ptr<const terrain::TinLocator> planeGround(double a, double b = 0, double c = 0,
                                                              double size = 100) {
    terrain::BuildInput input;
    for (const double x : {-size, 0.0, size})
        for (const double y : {-size, 0.0, size}) input.points.push_back({x, y, a + b * x + c * y});
    return std::make_shared<terrain::TinLocator>(
        std::make_shared<const terrain::Tin>(valueOf(terrain::build(input)).tin));
}

/// Hills of a few metres over 120 m, with bumps.
inline std::shared_ptr<const terrain::Tin> roughGround(std::mt19937& random) {
    std::uniform_real_distribution<double> wobble(-1, 1);
    terrain::BuildInput input;
    for (int i = 0; i < 400; ++i) {
        const double x = 60 * wobble(random);
        const double y = 60 * wobble(random);
        input.points.push_back(
            {x, y, 100 + 3 * std::sin(x / 9) + 2 * std::cos(y / 7) + 0.3 * wobble(random)});
    }
    return std::make_shared<const terrain::Tin>(valueOf(terrain::build(input)).tin);
}

/// How far from p in a direction a ray with this rise over run first meets a triangle.
inline std::optional<double> firstHit(const terrain::Tin& tin, Vec3 p, Vec2 way, double grade) {
    std::optional<double> best;
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t) {
        const auto [a, b, c] = tin.triangle(t);
        // p + d (way, grade) = a + u (b - a) + v (c - a), by Cramer's rule.
        const double m[3][3] = {
            {b.x - a.x, c.x - a.x, -way.x}, {b.y - a.y, c.y - a.y, -way.y}, {b.z - a.z, c.z - a.z, -grade}};
        const double r[3] = {p.x - a.x, p.y - a.y, p.z - a.z};
        const auto det = [](const double k[3][3]) {
            return k[0][0] * (k[1][1] * k[2][2] - k[1][2] * k[2][1]) -
                   k[0][1] * (k[1][0] * k[2][2] - k[1][2] * k[2][0]) +
                   k[0][2] * (k[1][0] * k[2][1] - k[1][1] * k[2][0]);
        };
        const double whole = det(m);
        if (std::abs(whole) < 1e-14) continue;
        double x[3];
        for (int col = 0; col < 3; ++col) {
            double n[3][3];
            for (int i = 0; i < 3; ++i)
                for (int k = 0; k < 3; ++k) n[i][k] = k == col ? r[i] : m[i][k];
            x[col] = det(n) / whole;
        }
        if (x[0] < -1e-12 || x[1] < -1e-12 || x[0] + x[1] > 1 + 1e-12 || x[2] < 1e-7) continue;
        if (!best || x[2] < *best) best = x[2];
    }
    return best;
}

}  // namespace erdwerk::test
