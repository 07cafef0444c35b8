#include "core/terrain/sampling.h"

#include <oneapi/tbb/parallel_for.h>

#include <cmath>

#include "core/geometry/path.h"

namespace erdwerk::terrain {

Result<survey::Raster> rasterOf(const TinLocator& surface, double cell, const Context& context) {
    if (!(cell > 0)) return badInput("the cell must be above 0");
    const Box box = surface.tin().bounds();
    const double west = std::floor(box.minX / cell) * cell;
    const double north = std::ceil(box.maxY / cell) * cell;
    const double columns = std::max(1.0, std::ceil((box.maxX - west) / cell));
    const double rows = std::max(1.0, std::ceil((north - box.minY) / cell));
    if (columns * rows > 4e8) return badInput("more than 400 million cells: take a larger cell");
    survey::Raster out;
    out.columns = static_cast<std::size_t>(columns);
    out.rows = static_cast<std::size_t>(rows);
    out.transform = {west, cell, 0, north, 0, -cell};
    out.heights.assign(out.columns * out.rows, 0);
    std::vector<std::uint8_t> present(out.heights.size(), 0);
    tbb::parallel_for(std::size_t{0}, out.rows, [&](std::size_t r) {
        if (context.isCancelled()) return;
        for (std::size_t c = 0; c < out.columns; ++c) {
            const auto h = surface.heightAt(out.centre(c, r));
            if (!h) continue;
            out.heights[r * out.columns + c] = *h;
            present[r * out.columns + c] = 1;
        }
    });
    if (context.isCancelled()) return cancelled();
    out.present.assign(present.begin(), present.end());
    return out;
}

Result<std::vector<Vec3>> sampleOnGrid(const TinLocator& surface, double spacing,
                                       const std::vector<Vec2>& ring, const Context& context) {
    if (!(spacing > 0)) return badInput("the spacing must be above 0");
    Box box = surface.tin().bounds();
    if (!ring.empty()) {
        Box inner;
        for (const Vec2& p : ring) inner.add(p);
        box = {std::max(box.minX, inner.minX), std::max(box.minY, inner.minY), std::min(box.maxX, inner.maxX),
               std::min(box.maxY, inner.maxY)};
    }
    if (box.width() / spacing * (box.height() / spacing) > 1e8)
        return badInput("more than a hundred million places: take a wider spacing");
    std::vector<Vec3> out;
    for (double j = std::ceil(box.minY / spacing); j * spacing <= box.maxY; ++j) {
        if (context.isCancelled()) return cancelled();
        for (double i = std::ceil(box.minX / spacing); i * spacing <= box.maxX; ++i) {
            const Vec2 p{i * spacing, j * spacing};
            if (!ring.empty() && geometry::sideOf(ring, p) == geometry::Side::Outside) continue;
            if (const auto h = surface.heightAt(p)) out.push_back({p.x, p.y, *h});
        }
    }
    return out;
}

double meanSpacing(const Tin& tin) {
    double area = 0;
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t) {
        const auto [a, b, c] = tin.triangle(t);
        area += geometry::cross(b.plan() - a.plan(), c.plan() - a.plan()) / 2;
    }
    return std::sqrt(area / std::max<double>(1, static_cast<double>(tin.vertexCount())));
}

}  // namespace erdwerk::terrain
