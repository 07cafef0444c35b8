#include "core/terrain/contour_patch.h"

#include <algorithm>
#include <map>
#include <unordered_set>

#include "core/terrain/contour_walk.h"
#include "core/terrain/trace.h"

namespace erdwerk::terrain {

namespace {

/// Triangles by the levels that cross them.
std::map<double, std::vector<std::uint32_t>> byLevel(const Tin& tin,
                                                     const std::vector<std::uint32_t>& triangles,
                                                     double interval) {
    std::map<double, std::vector<std::uint32_t>> out;
    if (triangles.empty()) return out;
    const auto heights = [&](std::uint32_t t) {
        const auto [a, b, c] = tin.triangle(t);
        return std::minmax({a.z, b.z, c.z});
    };
    auto [low, high] = heights(triangles.front());
    for (const std::uint32_t t : triangles) {
        const auto [l, h] = heights(t);
        low = std::min(low, l);
        high = std::max(high, h);
    }
    const auto levels = contourLevels(low, high, interval);
    for (const std::uint32_t t : triangles) {
        const auto [l, h] = heights(t);
        for (auto it = std::upper_bound(levels.begin(), levels.end(), l); it != levels.end() && *it <= h;
             ++it)
            out[*it].push_back(t);
    }
    return out;
}

/// Where a whole line through a triangle begins, as `contours` would: over the rim, or in the lowest of its
/// triangles.
std::uint32_t beginning(const Tin& tin, const ContourWalk& walk, std::uint32_t through) {
    std::uint32_t lowest = through;
    std::uint32_t t = through;
    for (std::uint32_t steps = 0; steps < tin.triangleCount(); ++steps) {
        const std::uint32_t before = tin.neighbour(t, walk.entry(t));
        if (before == Tin::none) return t;
        if (before == through) break;
        t = before;
        lowest = std::min(lowest, t);
    }
    return lowest;
}

/// The lines of a level that run through some triangles, each once.
std::vector<Contour> linesThrough(const Tin& tin, double level, const std::vector<std::uint32_t>& triangles,
                                  const ContourOptions& options) {
    std::vector<Contour> out;
    ContourWalk walk(tin, level, options);
    std::unordered_set<std::uint32_t> done;
    for (const std::uint32_t t : triangles) {
        if (done.count(t) != 0) continue;
        auto line =
            walk.follow(beginning(tin, walk, t), [&](std::uint32_t u) { return done.insert(u).second; });
        done.insert(t);
        if (line) out.push_back(std::move(*line));
    }
    return out;
}

bool lower(const Contour& a, const Contour& b) {
    return a.height < b.height;
}

}  // namespace

std::optional<std::vector<Contour>> contoursAfter(const std::vector<Contour>& before, const Tin& base,
                                                  const std::vector<std::uint32_t>& gone, const Tin& now,
                                                  const std::vector<std::uint32_t>& fresh,
                                                  const ContourOptions& options) {
    std::vector<bool> left(before.size(), false);
    for (const auto& [level, triangles] : byLevel(base, gone, options.interval)) {
        Contour at;
        at.height = level;
        const auto [from, to] = std::equal_range(before.begin(), before.end(), at, lower);
        for (const Contour& line : linesThrough(base, level, triangles, options)) {
            const auto it = std::find_if(from, to, [&](const Contour& c) {
                return c.closed == line.closed && c.places == line.places;
            });
            if (it == to) return std::nullopt;
            left[static_cast<std::size_t>(it - before.begin())] = true;
        }
    }
    std::vector<Contour> added;
    for (const auto& [level, triangles] : byLevel(now, fresh, options.interval))
        for (Contour& line : linesThrough(now, level, triangles, options)) added.push_back(std::move(line));
    std::vector<Contour> out;
    out.reserve(before.size() + added.size());
    std::size_t next = 0;
    const auto addBelow = [&](double height) {
        while (next < added.size() && added[next].height < height) out.push_back(std::move(added[next++]));
    };
    for (std::size_t k = 0; k < before.size(); ++k) {
        addBelow(before[k].height);
        if (!left[k]) out.push_back(before[k]);
    }
    addBelow(std::numeric_limits<double>::infinity());
    return out;
}

std::vector<Contour> contoursWithin(const Tin& tin, const std::vector<std::uint32_t>& triangles,
                                    const ContourOptions& options) {
    std::vector<Contour> out;
    const std::unordered_set<std::uint32_t> all(triangles.begin(), triangles.end());
    for (const auto& [level, crossed] : byLevel(tin, triangles, options.interval)) {
        ContourWalk walk(tin, level, options);
        std::unordered_set<std::uint32_t> done;
        const auto follow = [&](std::uint32_t first) {
            auto line = walk.follow(
                first, [&](std::uint32_t t) { return all.count(t) != 0 && done.insert(t).second; });
            if (line) out.push_back(std::move(*line));
        };
        // Parts that begin at the border first; what is left then is closed.
        for (const std::uint32_t t : crossed)
            if (all.count(tin.neighbour(t, walk.entry(t))) == 0) follow(t);
        for (const std::uint32_t t : crossed)
            if (done.count(t) == 0) follow(t);
    }
    return out;
}

std::vector<Contour> contoursTakenAway(const Tin& base, const std::vector<std::uint32_t>& gone,
                                       const TinLocator& now, double interval) {
    std::vector<Contour> out;
    for (const Contour& line : contoursWithin(base, gone, {interval, false})) {
        Contour part{line.height, false, {}};
        const auto end = [&] {
            if (part.places.size() > 1) out.push_back(part);
            part.places.clear();
        };
        for (std::size_t k = 1; k < line.places.size(); ++k) {
            const auto points = trace(now, line.places[k - 1], line.places[k]);
            for (std::size_t i = 1; i < points.size(); ++i) {
                const Vec2 middle = geometry::lerp(points[i - 1].place, points[i].place, 0.5);
                const auto t = points[i - 1].triangleAfter;
                if (t && std::abs(planeHeight(now.tin().triangle(*t), middle) - line.height) <= 1e-6) {
                    end();
                    continue;
                }
                if (part.places.empty()) part.places.push_back(points[i - 1].place);
                part.places.push_back(points[i].place);
            }
        }
        end();
    }
    return out;
}

}  // namespace erdwerk::terrain
