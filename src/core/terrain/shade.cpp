#include "core/terrain/shade.h"

#include <oneapi/tbb/parallel_for.h>

#include <cmath>

namespace erdwerk::terrain {

Shading::Shading(std::shared_ptr<const TinLocator> surface, const Context& context)
    : surface_(std::move(surface)) {
    const Tin& tin = surface_->tin();
    normals_.assign(3 * tin.vertexCount(), 0.0F);
    if (!tin.empty()) lowest_ = highest_ = tin.vertex(0).z;
    for (const Vec3& v : tin.vertices()) {
        lowest_ = std::min(lowest_, v.z);
        highest_ = std::max(highest_, v.z);
    }
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t) {
        if (t % 65536 == 0 && context.isCancelled()) return;
        const auto [a, b, c] = tin.triangle(t);
        const Vec3 u{b.x - a.x, b.y - a.y, b.z - a.z};
        const Vec3 v{c.x - a.x, c.y - a.y, c.z - a.z};
        const std::array<double, 3> n{u.y * v.z - u.z * v.y, u.z * v.x - u.x * v.z, u.x * v.y - u.y * v.x};
        for (int i = 0; i < 3; ++i)
            for (std::size_t k = 0; k < 3; ++k)
                normals_[3 * std::size_t{tin.corner(t, i)} + k] += static_cast<float>(n[k]);
    }
}

std::vector<Shading::Cell> Shading::render(const Box& window, int columns, int rows,
                                           const Context& context) const {
    std::vector<Cell> out(static_cast<std::size_t>(columns) * static_cast<std::size_t>(rows));
    const Tin& tin = surface_->tin();
    const double dx = window.width() / columns;
    const double dy = window.height() / rows;
    // From the north-west, 45 degrees up.
    const std::array<double, 3> sun{-0.5, 0.5, std::sqrt(0.5)};
    tbb::parallel_for(0, rows, [&](int r) {
        if (context.isCancelled()) return;
        for (int c = 0; c < columns; ++c) {
            const Vec2 p{window.minX + (c + 0.5) * dx, window.maxY - (r + 0.5) * dy};
            const auto t = surface_->triangleAt(p);
            if (!t) continue;
            const auto triangle = tin.triangle(*t);
            const Vec2 a = triangle[0].plan();
            const Vec2 u = triangle[1].plan() - a;
            const Vec2 v = triangle[2].plan() - a;
            const double area = geometry::cross(u, v);
            const double wb = geometry::cross(p - a, v) / area;
            const double wc = geometry::cross(u, p - a) / area;
            const std::array<double, 3> weights{1 - wb - wc, wb, wc};
            std::array<double, 3> n{0, 0, 0};
            for (int i = 0; i < 3; ++i) {
                const float* normal = normals_.data() + 3 * std::size_t{tin.corner(*t, i)};
                const double size = std::hypot(normal[0], normal[1], normal[2]);
                for (std::size_t k = 0; k < 3 && size > 0; ++k)
                    n[k] += weights[static_cast<std::size_t>(i)] * normal[k] / size;
            }
            const double size = std::hypot(n[0], n[1], n[2]);
            const double light = size > 0 ? (n[0] * sun[0] + n[1] * sun[1] + n[2] * sun[2]) / size : 0;
            Cell& cell = out[static_cast<std::size_t>(r) * static_cast<std::size_t>(columns) +
                             static_cast<std::size_t>(c)];
            cell.light = static_cast<float>(std::clamp(light, 0.0, 1.0));
            cell.height = static_cast<float>(planeHeight(triangle, p));
        }
    });
    return out;
}

}  // namespace erdwerk::terrain
