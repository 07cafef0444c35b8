#include "core/linework/path_crossings.h"

#include <algorithm>

namespace erdwerk::linework {

std::vector<std::pair<double, double>> pathCrossings(const Path& path, const Path& other) {
    std::vector<std::pair<double, double>> out;
    double base = 0;
    for (const auto& a : path) {
        const auto box = boundsOf(a).grown(pathsTouch);
        const double size = lengthOf(a);
        double otherBase = 0;
        for (const auto& b : other) {
            const double otherSize = lengthOf(b);
            if (box.meets(boundsOf(b))) {
                for (const auto& c : crossings(a, b))
                    out.emplace_back(base + size * c.first, otherBase + otherSize * c.second);
                // Ends that lie on the other are no crossing of insides.
                for (const double end : {0.0, 1.0}) {
                    const double onA = nearestFraction(a, pointAt(b, end));
                    if (distance(pointAt(a, onA), pointAt(b, end)) <= pathsTouch)
                        out.emplace_back(base + size * onA, otherBase + otherSize * end);
                    const double onB = nearestFraction(b, pointAt(a, end));
                    if (distance(pointAt(b, onB), pointAt(a, end)) <= pathsTouch)
                        out.emplace_back(base + size * end, otherBase + otherSize * onB);
                }
            }
            otherBase += otherSize;
        }
        base += size;
    }
    std::sort(out.begin(), out.end());
    out.erase(std::unique(out.begin(), out.end(),
                          [](const auto& x, const auto& y) { return y.first - x.first <= pathsTouch; }),
              out.end());
    return out;
}

}  // namespace erdwerk::linework
