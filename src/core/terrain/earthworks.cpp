#include "core/terrain/earthworks.h"

#include <oneapi/tbb/parallel_for.h>

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/terrain/clip.h"

namespace erdwerk::terrain {

namespace {

Box overlapOf(const Tin& a, const Tin& b) {
    const Box p = a.bounds();
    const Box q = b.bounds();
    Box out;
    out.minX = std::max(p.minX, q.minX);
    out.minY = std::max(p.minY, q.minY);
    out.maxX = std::min(p.maxX, q.maxX);
    out.maxY = std::min(p.maxY, q.maxY);
    return out;
}

}  // namespace

Result<CutFillMap> cutFillMap(const TinLocator& from, const TinLocator& to, std::size_t most,
                              const Context& context) {
    CutFillMap map;
    const Box box = overlapOf(from.tin(), to.tin());
    if (box.empty() || box.width() <= 0 || box.height() <= 0) return map;
    map.origin = {box.minX, box.minY};
    map.cell = std::sqrt(box.width() * box.height() / static_cast<double>(std::max<std::size_t>(most, 1)));
    map.columns = static_cast<int>(std::ceil(box.width() / map.cell));
    map.rows = static_cast<int>(std::ceil(box.height() / map.cell));
    map.difference.assign(static_cast<std::size_t>(map.columns) * static_cast<std::size_t>(map.rows),
                          std::numeric_limits<float>::quiet_NaN());
    tbb::parallel_for(0, map.rows, [&](int row) {
        if (context.isCancelled()) return;
        for (int column = 0; column < map.columns; ++column) {
            const Vec2 p{map.origin.x + (column + 0.5) * map.cell, map.origin.y + (row + 0.5) * map.cell};
            const auto a = from.heightAt(p);
            const auto b = to.heightAt(p);
            if (a && b)
                map.difference[static_cast<std::size_t>(row) * static_cast<std::size_t>(map.columns) +
                               static_cast<std::size_t>(column)] = static_cast<float>(*b - *a);
        }
    });
    if (context.isCancelled()) return cancelled();
    for (const float d : map.difference) {
        if (std::isnan(d)) continue;
        map.largestCut = std::max(map.largestCut, static_cast<double>(-d));
        map.largestFill = std::max(map.largestFill, static_cast<double>(d));
    }
    return map;
}

Result<std::vector<RegionVolumes>> volumesByRegion(const TinLocator& from, const TinLocator& to,
                                                   const std::vector<Region>& regions,
                                                   const Context& context) {
    std::vector<RegionVolumes> out;
    for (const Region& region : regions) {
        // Cutting one surface is enough: volumes are taken where both exist.
        const Tin part = clip(from.tin(), region.ring);
        RegionVolumes row{region.name, {}};
        if (!part.empty()) {
            auto volumes = volumeBetween(TinLocator(std::make_shared<const Tin>(part)), to, context);
            if (!volumes) return tl::unexpected(volumes.error());
            row.volumes = *volumes;
        }
        out.push_back(std::move(row));
    }
    return out;
}

}  // namespace erdwerk::terrain
