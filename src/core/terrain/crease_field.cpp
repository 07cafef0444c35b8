// How sharply the ground bends at every node of a grid.

#include "core/terrain/crease.h"

#include <oneapi/tbb/parallel_for.h>

#include <algorithm>
#include <cmath>
#include <numbers>
#include <numeric>

namespace erdwerk::terrain {

namespace {

/// Position of a kernel's value that stands `i` from its middle.
std::size_t tap(int i, int half) {
    const int position = i + half;
    return static_cast<std::size_t>(position);
}

/// Samples of a Gaussian and its derivatives, per cell, cut at four sigma.
struct Kernels {
    std::vector<double> value;
    std::vector<double> first;
    std::vector<double> second;
    explicit Kernels(double sigma) {
        const int half = static_cast<int>(std::ceil(4 * sigma));
        double sum = 0;
        for (int i = -half; i <= half; ++i) {
            const double g = std::exp(-0.5 * i * i / (sigma * sigma));
            value.push_back(g);
            sum += g;
        }
        double moment1 = 0;
        for (int i = -half; i <= half; ++i) {
            double& g = value[tap(i, half)];
            g /= sum;
            first.push_back(i / (sigma * sigma) * g);
            second.push_back((i * i / (sigma * sigma) - 1) / (sigma * sigma) * g);
            moment1 += i * first.back();
        }
        // Sampled and cut, they are scaled so that a plane has exactly its slope and a parabola its
        // curvature.
        for (double& v : first) v /= moment1;
        const double mean =
            std::accumulate(second.begin(), second.end(), 0.0) / static_cast<double>(second.size());
        double moment2 = 0;
        for (int i = -half; i <= half; ++i) {
            second[tap(i, half)] -= mean;
            moment2 += i * i * second[tap(i, half)] / 2;
        }
        for (double& v : second) v /= moment2;
    }
};

std::vector<double> alongRows(const std::vector<double>& in, int columns, int rows,
                              const std::vector<double>& kernel) {
    const int half = static_cast<int>(kernel.size() / 2);
    std::vector<double> out(in.size());
    tbb::parallel_for(0, rows, [&](int r) {
        const double* row = in.data() + static_cast<std::ptrdiff_t>(r) * columns;
        for (int c = 0; c < columns; ++c) {
            double sum = 0;
            for (int k = -half; k <= half; ++k)
                sum += kernel[tap(k, half)] * row[std::clamp(c + k, 0, columns - 1)];
            out[static_cast<std::size_t>(r) * static_cast<std::size_t>(columns) +
                static_cast<std::size_t>(c)] = sum;
        }
    });
    return out;
}

std::vector<double> alongColumns(const std::vector<double>& in, int columns, int rows,
                                 const std::vector<double>& kernel) {
    const int half = static_cast<int>(kernel.size() / 2);
    std::vector<double> out(in.size(), 0);
    tbb::parallel_for(0, rows, [&](int r) {
        double* target = out.data() + static_cast<std::ptrdiff_t>(r) * columns;
        for (int k = -half; k <= half; ++k) {
            const double weight = kernel[tap(k, half)];
            const double* row =
                in.data() + static_cast<std::ptrdiff_t>(std::clamp(r + k, 0, rows - 1)) * columns;
            for (int c = 0; c < columns; ++c) target[c] += weight * row[c];
        }
    });
    return out;
}

/// Nodes whose kernel would reach over an edge of the data say nothing.
std::vector<std::uint8_t> farFromGaps(const HeightGrid& grid, int reach) {
    std::vector<double> gap(grid.present.size());
    for (std::size_t i = 0; i < gap.size(); ++i) gap[i] = grid.present[i] != 0 ? 0 : 1;
    const std::vector<double> box(static_cast<std::size_t>(2 * reach + 1), 1.0);
    const auto near =
        alongColumns(alongRows(gap, grid.columns, grid.rows, box), grid.columns, grid.rows, box);
    std::vector<std::uint8_t> out(gap.size());
    for (int r = 0; r < grid.rows; ++r)
        for (int c = 0; c < grid.columns; ++c) {
            const std::size_t i = grid.at(c, r);
            out[i] = near[i] < 0.5 && c >= reach && r >= reach && c < grid.columns - reach &&
                     r < grid.rows - reach;
        }
    return out;
}

}  // namespace

CreaseField::CreaseField(HeightGrid source, double sigma) : grid_(std::move(source)) {
    const auto usable = farFromGaps(grid_, static_cast<int>(std::ceil(2 * sigma)));
    if (std::find(grid_.present.begin(), grid_.present.end(), 1) != grid_.present.end()) fillGaps(grid_);
    const Kernels k(sigma);
    const int columns = grid_.columns;
    const int rows = grid_.rows;
    // Heights relative to their mean, so that large coordinates cost no digits.
    std::vector<double> z = grid_.heights;
    const double mean =
        z.empty() ? 0 : std::accumulate(z.begin(), z.end(), 0.0) / static_cast<double>(z.size());
    for (double& v : z) v -= mean;
    const auto x0 = alongRows(z, columns, rows, k.value);
    const auto x1 = alongRows(z, columns, rows, k.first);
    const auto zx = alongColumns(x1, columns, rows, k.value);
    const auto zxy = alongColumns(x1, columns, rows, k.first);
    const auto zy = alongColumns(x0, columns, rows, k.first);
    const auto zyy = alongColumns(x0, columns, rows, k.second);
    const auto zxx = alongColumns(alongRows(z, columns, rows, k.second), columns, rows, k.value);
    bend_.assign(z.size(), 0);
    acrossX_.assign(z.size(), 1);
    acrossY_.assign(z.size(), 0);
    const double h = grid_.cell;
    const double widen = sigma * h * std::sqrt(2 * std::numbers::pi);
    tbb::parallel_for(0, rows, [&](int r) {
        for (int c = 0; c < columns; ++c) {
            const std::size_t i = grid_.at(c, r);
            if (usable[i] == 0) continue;
            // The eigenvalue of the Hessian that is larger in size, and its direction.
            const double half = (zxx[i] + zyy[i]) / 2;
            const double root = std::hypot((zxx[i] - zyy[i]) / 2, zxy[i]);
            const double lambda = half >= 0 ? half + root : half - root;
            const double angle =
                0.5 * std::atan2(2 * zxy[i], zxx[i] - zyy[i]) + (half >= 0 ? 0 : std::numbers::pi / 2);
            const Vec2 n{std::cos(angle), std::sin(angle)};
            const double difference = lambda / (h * h) * widen;  // of the grades on both sides
            const double grade = (zx[i] * n.x + zy[i] * n.y) / h;
            bend_[i] =
                static_cast<float>(std::atan(grade + difference / 2) - std::atan(grade - difference / 2));
            acrossX_[i] = static_cast<float>(n.x);
            acrossY_[i] = static_cast<float>(n.y);
        }
    });
}

double CreaseField::bend(CreaseKind kind, Vec2 p) const {
    const double c = (p.x - grid_.origin.x) / grid_.cell;
    const double r = (p.y - grid_.origin.y) / grid_.cell;
    if (!(c >= 0 && r >= 0 && c < grid_.columns - 1 && r < grid_.rows - 1)) return 0;
    const int c0 = static_cast<int>(c);
    const int r0 = static_cast<int>(r);
    const double u = c - c0;
    const double v = r - r0;
    return (1 - v) * ((1 - u) * bendAt(kind, grid_.at(c0, r0)) + u * bendAt(kind, grid_.at(c0 + 1, r0))) +
           v * ((1 - u) * bendAt(kind, grid_.at(c0, r0 + 1)) + u * bendAt(kind, grid_.at(c0 + 1, r0 + 1)));
}

double CreaseField::height(Vec2 p) const {
    const double c = std::clamp((p.x - grid_.origin.x) / grid_.cell, 0.0, grid_.columns - 1.0);
    const double r = std::clamp((p.y - grid_.origin.y) / grid_.cell, 0.0, grid_.rows - 1.0);
    const int c0 = std::min(static_cast<int>(c), std::max(0, grid_.columns - 2));
    const int r0 = std::min(static_cast<int>(r), std::max(0, grid_.rows - 2));
    const int c1 = std::min(c0 + 1, grid_.columns - 1);
    const int r1 = std::min(r0 + 1, grid_.rows - 1);
    const double u = c - c0;
    const double v = r - r0;
    const auto& z = grid_.heights;
    return (1 - v) * ((1 - u) * z[grid_.at(c0, r0)] + u * z[grid_.at(c1, r0)]) +
           v * ((1 - u) * z[grid_.at(c0, r1)] + u * z[grid_.at(c1, r1)]);
}

}  // namespace erdwerk::terrain
