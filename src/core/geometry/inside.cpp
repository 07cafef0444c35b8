#include "core/geometry/inside.h"

#include <algorithm>

namespace erdwerk::geometry {

Vec2 placeInside(const std::vector<Vec2>& ring) {
    Box box;
    for (const Vec2 p : ring) box.add(p);
    Vec2 best = box.centre();
    double widest = 0;
    // Rows at odd shares never run through the corners of a figure with simple shares.
    for (const double share : {0.4970, 0.4371, 0.5573, 0.3767, 0.6179, 0.2873, 0.7069}) {
        const double y = box.minY + (box.maxY - box.minY) * share;
        std::vector<double> at;
        for (std::size_t i = 0; i < ring.size(); ++i) {
            const Vec2 a = ring[i];
            const Vec2 b = ring[(i + 1) % ring.size()];
            if ((a.y > y) != (b.y > y)) at.push_back(a.x + (y - a.y) / (b.y - a.y) * (b.x - a.x));
        }
        std::sort(at.begin(), at.end());
        for (std::size_t i = 0; i + 1 < at.size(); i += 2)
            // A row nearer the middle wins unless another is clearly wider.
            if (at[i + 1] - at[i] > widest * 1.15) {
                widest = at[i + 1] - at[i];
                best = {(at[i] + at[i + 1]) / 2, y};
            }
    }
    return best;
}

}  // namespace erdwerk::geometry
