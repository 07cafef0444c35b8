#include "core/terrain/bands.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <numbers>

namespace erdwerk::terrain {

namespace {

constexpr double pi = std::numbers::pi;

/// Plan area of the part of a triangle that lies below a height.
double areaBelow(std::array<Vec3, 3> t, double height) {
    std::sort(t.begin(), t.end(), [](const Vec3& a, const Vec3& b) { return a.z < b.z; });
    const double whole = std::abs(geometry::cross(t[1].plan() - t[0].plan(), t[2].plan() - t[0].plan())) / 2;
    if (height <= t[0].z) return 0;
    if (height >= t[2].z) return whole;
    // Similar triangles at the lowest corner, or what is left at the highest.
    if (height <= t[1].z)
        return whole * (height - t[0].z) / (t[1].z - t[0].z) * (height - t[0].z) / (t[2].z - t[0].z);
    return whole - whole * (t[2].z - height) / (t[2].z - t[1].z) * (t[2].z - height) / (t[2].z - t[0].z);
}

}  // namespace

std::vector<double> bandLimits(const Tin& tin, BandKind kind) {
    if (kind == BandKind::Slope)
        return {0, 0.02, 0.05, 0.1, 0.2, 1.0 / 3, 0.5, 1, std::numeric_limits<double>::infinity()};
    if (kind == BandKind::Direction) {
        std::vector<double> out;
        for (int k = 0; k <= 8; ++k) out.push_back((k - 0.5) * pi / 4);
        return out;
    }
    if (tin.vertexCount() == 0) return {0, 1};
    double low = tin.vertex(0).z;
    double high = low;
    for (const Vec3& v : tin.vertices()) {
        low = std::min(low, v.z);
        high = std::max(high, v.z);
    }
    double step = std::pow(10, std::floor(std::log10(std::max(high - low, 1e-6) / 8)));
    for (const double factor : {2.0, 2.5, 2.0}) {  // 1, 2, 5, 10
        if ((high - low) / step <= 10) break;
        step *= factor;
    }
    std::vector<double> out;
    for (double k = std::floor(low / step); out.empty() || out.back() <= high; ++k) out.push_back(k * step);
    return out;
}

int bandOf(BandKind kind, const Slope& slope, const std::vector<double>& limits) {
    double value = slope.grade;
    if (kind == BandKind::Direction) {
        if (slope.grade < 0.001) return -1;
        value = slope.downhill.normalized().radians();
        if (value >= limits.back()) value -= 2 * pi;
    }
    const auto it = std::upper_bound(limits.begin(), limits.end(), value);
    const auto at = static_cast<int>(it - limits.begin()) - 1;
    return at < static_cast<int>(limits.size()) - 1 ? at : -1;
}

std::vector<Band> bandsOf(const Tin& tin, BandKind kind, const std::vector<double>& limits) {
    std::vector<Band> out;
    for (std::size_t k = 0; k + 1 < limits.size(); ++k) out.push_back({limits[k], limits[k + 1], 0, 0});
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t) {
        const auto triangle = tin.triangle(t);
        const Slope slope = slopeOf(triangle);
        const double steep = std::sqrt(1 + slope.grade * slope.grade);
        if (kind == BandKind::Height) {
            double below = limits.empty() ? 0 : areaBelow(triangle, limits.front());
            for (Band& band : out) {
                const double upTo = areaBelow(triangle, band.to);
                band.planArea += upTo - below;
                band.surfaceArea += (upTo - below) * steep;
                below = upTo;
            }
            // A level triangle on a limit counts above it.
            if (triangle[0].z == triangle[1].z && triangle[1].z == triangle[2].z)
                for (std::size_t k = 0; k + 1 < out.size(); ++k)
                    if (triangle[0].z == out[k].to) {
                        const double area = areaBelow(triangle, std::numeric_limits<double>::infinity());
                        out[k].planArea -= area;
                        out[k].surfaceArea -= area;
                        out[k + 1].planArea += area;
                        out[k + 1].surfaceArea += area;
                    }
            continue;
        }
        const int at = bandOf(kind, slope, limits);
        if (at < 0) continue;
        const double area = geometry::cross(triangle[1].plan() - triangle[0].plan(),
                                            triangle[2].plan() - triangle[0].plan()) /
                            2;
        out[static_cast<std::size_t>(at)].planArea += area;
        out[static_cast<std::size_t>(at)].surfaceArea += area * steep;
    }
    return out;
}

}  // namespace erdwerk::terrain
