#include "core/linework/drape.h"

#include <algorithm>
#include <cmath>
#include <utility>

#include "core/terrain/trace.h"

namespace erdwerk::linework {

namespace {

/// A vertex of a draped path.
struct OnGround {
    Vec2 place;
    double distance = 0;
    std::optional<double> height;
    bool corner = false;
    bool groundAfter = false;  ///< whether the stretch behind it lies on the surface
};

std::vector<OnGround> followed(const std::vector<Vec2>& chain, const terrain::TinLocator& surface) {
    std::vector<OnGround> out;
    double base = 0;
    for (std::size_t c = 0; c + 1 < chain.size(); ++c) {
        const double size = geometry::distance(chain[c], chain[c + 1]);
        if (!(size > 0)) continue;
        for (const auto& p : trace(surface, chain[c], chain[c + 1])) {
            const bool end = p.fraction >= 1;
            if (end && c + 2 < chain.size()) continue;  // the next straight begins with it
            out.push_back({p.place, base + p.fraction * size, p.height, p.fraction <= 0 || end,
                           p.triangleAfter.has_value() && !end});
        }
        base += size;
    }
    return out;
}

/// Only the corners; the stretch between two is on the ground when both are.
std::vector<OnGround> cornersOnly(const std::vector<OnGround>& all) {
    std::vector<OnGround> out;
    for (const OnGround& p : all)
        if (p.corner) out.push_back(p);
    for (std::size_t i = 0; i + 1 < out.size(); ++i) out[i].groundAfter = out[i].height && out[i + 1].height;
    return out;
}

}  // namespace

std::vector<std::size_t> thinned(const std::vector<double>& distance, const std::vector<double>& height,
                                 const std::vector<bool>& marked, double tolerance) {
    std::vector<std::size_t> out;
    std::vector<bool> keep = marked;
    if (distance.empty()) return out;
    keep.front() = keep.back() = true;
    std::vector<std::pair<std::size_t, std::size_t>> open;
    std::size_t last = 0;
    for (std::size_t i = 1; i < keep.size(); ++i)
        if (keep[i]) open.emplace_back(std::exchange(last, i), i);
    while (!open.empty()) {
        const auto [a, b] = open.back();
        open.pop_back();
        const double run = distance[b] - distance[a];
        double worst = tolerance;
        std::size_t at = a;
        for (std::size_t i = a + 1; i < b; ++i) {
            const double t = run > 0 ? (distance[i] - distance[a]) / run : 0;
            const double off = std::abs(height[i] - (height[a] + t * (height[b] - height[a])));
            if (off > worst) {
                worst = off;
                at = i;
            }
        }
        if (at == a) continue;
        keep[at] = true;
        open.emplace_back(a, at);
        open.emplace_back(at, b);
    }
    for (std::size_t i = 0; i < keep.size(); ++i)
        if (keep[i]) out.push_back(i);
    return out;
}

DrapedRuns drapedRuns(const Path& path, const terrain::TinLocator& surface, const DrapeOptions& options,
                      double sagitta) {
    auto all = followed(geometry::flattened(path, sagitta), surface);
    if (options.cornersOnly) all = cornersOnly(all);
    DrapedRuns out;
    std::vector<OnGround> run;
    const auto finish = [&] {
        if (run.size() > 1) {
            std::vector<double> distance;
            std::vector<double> height;
            std::vector<bool> corner;
            for (const OnGround& p : run) {
                distance.push_back(p.distance);
                height.push_back(*p.height);
                corner.push_back(p.corner);
            }
            std::vector<Vec3> places;
            const auto add = [&](std::size_t i) {
                places.push_back({run[i].place.x, run[i].place.y, height[i] + options.amount});
            };
            if (options.thin)
                for (const std::size_t i : thinned(distance, height, corner, *options.thin)) add(i);
            else
                for (std::size_t i = 0; i < run.size(); ++i) add(i);
            out.runs.push_back(std::move(places));
        }
        run.clear();
    };
    for (std::size_t i = 0; i < all.size(); ++i) {
        if (all[i].height) run.push_back(all[i]);
        if (i + 1 == all.size() || all[i].groundAfter) continue;
        out.outside += all[i + 1].distance - all[i].distance;
        finish();
    }
    finish();
    return out;
}

Result<Line3D> drape(const Line3D& line, const terrain::TinLocator& surface, ObjectId surfaceId,
                     const DrapeOptions& options) {
    Line3D out;
    out.closed = line.closed;
    const Path path = planPath(line);
    const auto corners = cornersOf(line);
    bool any = false;
    for (std::size_t k = 0; k < corners.size(); ++k) {
        LineVertex corner = line.vertices[corners[k]];
        const auto keeps = [&](const LineVertex& v) {
            return options.keepFixed && std::holds_alternative<FixedHeight>(v.rule);
        };
        if (!keeps(corner) && surface.heightAt(corner.place)) {
            corner.rule = OnSurface{surfaceId, options.amount};
            any = true;
        }
        out.vertices.push_back(corner);
        if (k >= path.size()) continue;
        std::vector<LineVertex> onSide;
        const std::size_t sideEnd = k + 1 < corners.size() ? corners[k + 1] : line.vertices.size();
        for (std::size_t i = corners[k] + 1; i < sideEnd; ++i)
            if (keeps(line.vertices[i])) onSide.push_back(line.vertices[i]);
        if (options.cornersOnly) {
            out.vertices.insert(out.vertices.end(), onSide.begin(), onSide.end());
            continue;
        }
        const double size = lengthOf(path[k]);
        const auto chain = flattened(path[k], 0.005);
        const double pieces = static_cast<double>(chain.size() - 1);
        std::vector<double> fractions{0};
        std::vector<double> heights{surface.heightAt(corner.place).value_or(0)};
        double last = 0;
        for (std::size_t c = 0; c + 1 < chain.size(); ++c) {
            for (const auto& p : trace(surface, chain[c], chain[c + 1])) {
                const double fraction = (static_cast<double>(c) + p.fraction) / pieces;
                // Nearer than a tenth of a millimetre to the point before it, another says nothing new.
                if (!p.onEdge || !p.height || (fraction - last) * size < 1e-4 || (1 - fraction) * size < 1e-4)
                    continue;
                fractions.push_back(last = fraction);
                heights.push_back(*p.height);
            }
        }
        fractions.push_back(1);
        heights.push_back(surface.heightAt(path[k].end).value_or(0));
        std::vector<std::size_t> kept(fractions.size());
        for (std::size_t i = 0; i < kept.size(); ++i) kept[i] = i;
        if (options.thin)
            kept = thinned(fractions, heights, std::vector<bool>(fractions.size(), false), *options.thin);
        const std::vector<LineVertex> own = onSide;
        for (const std::size_t i : kept) {
            if (i == 0 || i + 1 == fractions.size()) continue;
            const bool taken = std::any_of(own.begin(), own.end(), [&](const LineVertex& v) {
                return std::abs(v.fraction - fractions[i]) * size < 1e-4;
            });
            if (taken) continue;
            LineVertex v;
            v.isCorner = false;
            v.fraction = fractions[i];
            v.rule = OnSurface{surfaceId, options.amount};
            onSide.push_back(v);
            any = true;
        }
        std::vector<const LineVertex*> order;
        order.reserve(onSide.size());
        for (const LineVertex& v : onSide) order.push_back(&v);
        std::sort(order.begin(), order.end(),
                  [](const LineVertex* a, const LineVertex* b) { return a->fraction < b->fraction; });
        for (const LineVertex* v : order) out.vertices.push_back(*v);
    }
    if (!any) return badInput("the line does not lie over the surface");
    if (auto problem = validate(out)) return badInput(std::move(*problem));
    return out;
}

}  // namespace erdwerk::linework
