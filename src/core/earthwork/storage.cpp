#include "core/earthwork/storage.h"

#include <algorithm>
#include <cmath>

namespace erdwerk::earthwork {

Stage stageAt(const terrain::Tin& surface, double height) {
    Stage out{height, 0, 0};
    for (std::uint32_t t = 0; t < surface.triangleCount(); ++t) {
        const auto corners = surface.triangle(t);
        std::array<double, 3> z{corners[0].z, corners[1].z, corners[2].z};
        std::sort(z.begin(), z.end());
        if (z[0] >= height) continue;
        const double area =
            geometry::cross(corners[1].plan() - corners[0].plan(), corners[2].plan() - corners[0].plan()) / 2;
        if (z[2] <= height) {
            out.area += area;
            out.volume += area * (height - (z[0] + z[1] + z[2]) / 3);
        } else if (z[1] >= height) {
            // A small triangle about the lowest corner, under a pyramid.
            const double below = height - z[0];
            const double part = area * (below / (z[1] - z[0])) * (below / (z[2] - z[0]));
            out.area += part;
            out.volume += part * below / 3;
        } else {
            // All but a small triangle about the highest corner.
            const double above = z[2] - height;
            const double part = area * (above / (z[2] - z[1])) * (above / (z[2] - z[0]));
            out.area += area - part;
            out.volume += area * (height - (z[0] + z[1] + z[2]) / 3) + part * above / 3;
        }
    }
    return out;
}

Result<Storage> storage(const terrain::Tin& surface, double step, const Context& context) {
    if (!(step > 0) || !std::isfinite(step)) return badInput("the step must be above 0");
    if (surface.empty()) return fail(ErrorCode::NotFound, "there is no surface");
    Storage out;
    out.lowest = std::numeric_limits<double>::infinity();
    for (const std::uint32_t c : surface.corners()) out.lowest = std::min(out.lowest, surface.vertex(c).z);
    out.spill = std::numeric_limits<double>::infinity();
    for (const auto& ring : rimRings(surface))
        for (const std::uint32_t v : ring) out.spill = std::min(out.spill, surface.vertex(v).z);
    if (!(out.spill > out.lowest))
        return fail(ErrorCode::NotFound, "it holds nothing: its lowest place lies on its rim");
    const double count = (out.spill - out.lowest) / step;
    if (count > 1e6) return badInput("the step is too small for this depth");
    for (double i = 0; i * step < out.spill - out.lowest; ++i) {
        if (context.isCancelled()) return cancelled();
        out.stages.push_back(stageAt(surface, out.lowest + i * step));
    }
    out.stages.push_back(stageAt(surface, out.spill));
    return out;
}

}  // namespace erdwerk::earthwork
