#include "core/survey/raster.h"

#include <cmath>

namespace erdwerk::survey {

using geometry::Box;
using geometry::Vec2;
using geometry::Vec3;

Vec2 Raster::centre(std::size_t column, std::size_t row) const {
    const double c = static_cast<double>(column) + 0.5;
    const double r = static_cast<double>(row) + 0.5;
    return {transform[0] + c * transform[1] + r * transform[2],
            transform[3] + c * transform[4] + r * transform[5]};
}

std::optional<double> Raster::heightAt(Vec2 p) const {
    const double det = transform[1] * transform[5] - transform[2] * transform[4];
    const double dx = p.x - transform[0];
    const double dy = p.y - transform[3];
    const double c = (dx * transform[5] - dy * transform[2]) / det - 0.5;
    const double r = (dy * transform[1] - dx * transform[4]) / det - 0.5;
    if (!(c >= 0 && r >= 0 && c <= static_cast<double>(columns - 1) && r <= static_cast<double>(rows - 1)))
        return std::nullopt;
    const auto c0 = static_cast<std::size_t>(c);
    const auto r0 = static_cast<std::size_t>(r);
    const double u = c - static_cast<double>(c0);
    const double v = r - static_cast<double>(r0);
    double sum = 0;
    for (std::size_t k = 0; k < 4; ++k) {
        const double weight = (k % 2 == 0 ? 1 - u : u) * (k < 2 ? 1 - v : v);
        if (weight == 0) continue;
        const std::size_t at = (r0 + k / 2) * columns + c0 + k % 2;
        if (!present[at]) return std::nullopt;
        sum += weight * heights[at];
    }
    return sum;
}

Box Raster::bounds() const {
    Box box;
    for (const double c : {0.0, static_cast<double>(columns)})
        for (const double r : {0.0, static_cast<double>(rows)})
            box.add(Vec2{transform[0] + c * transform[1] + r * transform[2],
                         transform[3] + c * transform[4] + r * transform[5]});
    return box;
}

double Raster::cell() const {
    return std::max(std::hypot(transform[1], transform[4]), std::hypot(transform[2], transform[5]));
}

std::vector<Vec3> Raster::places() const {
    std::vector<Vec3> out;
    for (std::size_t r = 0; r < rows; ++r)
        for (std::size_t c = 0; c < columns; ++c) {
            const std::size_t at = r * columns + c;
            if (!present[at]) continue;
            const Vec2 p = centre(c, r);
            out.push_back({p.x, p.y, heights[at]});
        }
    return out;
}

}  // namespace erdwerk::survey
