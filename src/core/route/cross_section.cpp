#include "core/route/cross_section.h"

#include <oneapi/tbb/parallel_for.h>

#include <algorithm>
#include <cmath>

#include "core/terrain/trace.h"

namespace erdwerk::route {

namespace {

std::optional<double> heightOver(const std::vector<OffsetHeight>& chain, double offset, bool ahead) {
    // Of a place that stands twice (a wall) the first, or the last for what comes after it.
    const auto at = ahead ? std::upper_bound(chain.begin(), chain.end(), offset,
                                             [](double o, const OffsetHeight& p) { return o < p.offset; })
                          : std::lower_bound(chain.begin(), chain.end(), offset,
                                             [](const OffsetHeight& p, double o) { return p.offset < o; });
    if (ahead) {
        if (at == chain.begin()) return std::nullopt;
        const auto& a = *(at - 1);
        if (a.offset == offset) return a.height;
        if (at == chain.end() || !a.height || !at->height) return std::nullopt;
        const double t = (offset - a.offset) / (at->offset - a.offset);
        return *a.height + t * (*at->height - *a.height);
    }
    if (at == chain.end()) return std::nullopt;
    if (at->offset == offset) return at->height;
    if (at == chain.begin() || !at->height || !(at - 1)->height) return std::nullopt;
    const auto& a = *(at - 1);
    const double t = (offset - a.offset) / (at->offset - a.offset);
    return *a.height + t * (*at->height - *a.height);
}

}  // namespace

AreasBetween areasBetween(const std::vector<OffsetHeight>& first, const std::vector<OffsetHeight>& second) {
    std::vector<double> at;
    for (const auto* chain : {&first, &second})
        for (const auto& p : *chain) at.push_back(p.offset);
    std::sort(at.begin(), at.end());
    at.erase(std::unique(at.begin(), at.end()), at.end());
    AreasBetween out;
    for (std::size_t k = 0; k + 1 < at.size(); ++k) {
        const auto a1 = heightOver(first, at[k], true);
        const auto b1 = heightOver(second, at[k], true);
        const auto a2 = heightOver(first, at[k + 1], false);
        const auto b2 = heightOver(second, at[k + 1], false);
        if (!a1 || !b1 || !a2 || !b2) continue;
        const double from = *a1 - *b1;
        const double to = *a2 - *b2;
        const double width = at[k + 1] - at[k];
        const auto add = [&](double mean, double wide) {
            (mean > 0 ? out.cut : out.fill) += std::abs(mean) * wide;
        };
        if (from * to < 0) {
            // They cross: a triangle on each side.
            const double t = from / (from - to);
            add(from / 2, width * t);
            add(to / 2, width * (1 - t));
        } else {
            add((from + to) / 2, width);
        }
    }
    return out;
}

CrossSection crossSectionAt(const AlignmentGeometry& alignment, double distance,
                            std::span<const terrain::TinLocator* const> surfaces,
                            const std::vector<AcrossLine>& lines, const CrossSectionOptions& options) {
    CrossSection out;
    out.distance = distance;
    const auto at = geometry::positionAt(alignment.path, distance);
    out.place = at.place;
    out.direction = at.direction;
    const Vec2 way = geometry::directionOf(at.direction);
    const Vec2 right{way.y, -way.x};
    const Vec2 from = at.place - right * options.left;
    const Vec2 to = at.place + right * options.right;
    const double width = options.left + options.right;
    for (const auto* surface : surfaces) {
        std::vector<OffsetHeight> chain;
        for (const auto& p : terrain::trace(*surface, from, to))
            chain.push_back({p.fraction * width - options.left, p.height});
        out.surfaces.push_back(std::move(chain));
    }
    const AlignmentGeometry across = alignmentOn(Path{{from, to, {}}}, -options.left);
    for (std::size_t k = 0; k < lines.size(); ++k)
        for (const auto& p : profileAcross(across, {lines[k]})) out.lines.push_back({k, p.station, p.height});
    std::stable_sort(out.lines.begin(), out.lines.end(),
                     [](const CrossedLine& a, const CrossedLine& b) { return a.offset < b.offset; });
    if (out.surfaces.size() > 1) {
        const auto areas = areasBetween(out.surfaces[0], out.surfaces[1]);
        out.cut = areas.cut;
        out.fill = areas.fill;
    }
    return out;
}

Result<std::vector<CrossSection>> crossSections(const AlignmentGeometry& alignment, double interval,
                                                std::span<const terrain::TinLocator* const> surfaces,
                                                const std::vector<AcrossLine>& lines,
                                                const CrossSectionOptions& options, const Context& context) {
    if (!(interval > 0) || !std::isfinite(interval)) return badInput("the interval must be above 0");
    if (!(options.left > 0) || !(options.right > 0))
        return badInput("the width to each side must be above 0");
    if (alignment.path.empty()) return badInput("the alignment has no elements");
    constexpr double most = 20'000;
    if (alignment.length / interval > most)
        return badInput("that would be more than 20 000 sections; take a larger interval");
    std::vector<double> at = multiplesAlong(alignment, interval);
    at.push_back(0);
    at.push_back(alignment.length);
    std::sort(at.begin(), at.end());
    at.erase(std::unique(at.begin(), at.end(), [](double a, double b) { return b - a < 1e-6; }), at.end());
    std::vector<CrossSection> out(at.size());
    tbb::parallel_for(std::size_t{0}, at.size(), [&](std::size_t i) {
        if (!context.isCancelled()) out[i] = crossSectionAt(alignment, at[i], surfaces, lines, options);
    });
    if (context.isCancelled()) return cancelled();
    return out;
}

std::vector<EarthSum> endAreaSums(const std::vector<CrossSection>& sections) {
    std::vector<EarthSum> out;
    out.reserve(sections.size());
    for (std::size_t i = 0; i < sections.size(); ++i) {
        EarthSum sum;
        if (i > 0) {
            const double run = sections[i].distance - sections[i - 1].distance;
            sum = {out.back().cut + (sections[i].cut + sections[i - 1].cut) / 2 * run,
                   out.back().fill + (sections[i].fill + sections[i - 1].fill) / 2 * run};
        }
        out.push_back(sum);
    }
    return out;
}

}  // namespace erdwerk::route
