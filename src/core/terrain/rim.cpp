#include "core/terrain/rim.h"

namespace erdwerk::terrain {

namespace {

bool toBePeeled(const Tin& tin, std::uint32_t t, const RimOptions& options) {
    double longest = 0;
    for (int i = 0; i < 3; ++i) {
        const Vec2 a = tin.vertex(tin.corner(t, i)).plan();
        const Vec2 b = tin.vertex(tin.corner(t, (i + 1) % 3)).plan();
        longest = std::max(longest, geometry::distance(a, b));
    }
    if (options.maxEdge > 0 && longest > options.maxEdge) return true;
    const auto [a, b, c] = tin.triangle(t);
    const double twiceArea = geometry::cross(b.plan() - a.plan(), c.plan() - a.plan());
    return twiceArea < options.needleRatio * longest * longest;
}

}  // namespace

Tin peelRim(const Tin& tin, const RimOptions& options) {
    std::vector<bool> keep(tin.triangleCount(), true);
    std::vector<std::uint32_t> work;
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t)
        for (int i = 0; i < 3; ++i)
            if (tin.neighbour(t, i) == Tin::none && !(options.keepConstrained && tin.constrained(t, i)))
                work.push_back(t);
    bool changed = false;
    while (!work.empty()) {
        const std::uint32_t t = work.back();
        work.pop_back();
        if (!keep[t] || !toBePeeled(tin, t, options)) continue;
        keep[t] = false;
        changed = true;
        for (int i = 0; i < 3; ++i) {
            const std::uint32_t n = tin.neighbour(t, i);
            if (n != Tin::none && keep[n] && !(options.keepConstrained && tin.constrained(t, i)))
                work.push_back(n);
        }
    }
    return changed ? tin.subset(keep) : tin;
}

}  // namespace erdwerk::terrain
