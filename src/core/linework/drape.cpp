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

/// How many equal chords keep within `sagitta` of a piece. An arc is cut in two at least, but where its whole
/// chord is near enough.
std::size_t chordsOf(const geometry::Segment& piece, double sagitta) {
    const double rise = geometry::distance(pointAt(piece, 0.5), geometry::lerp(piece.start, piece.end, 0.5));
    return arcOf(piece) && rise <= sagitta ? 1 : flattened(piece, sagitta).size() - 1;
}

/// Vertices at the corners and where edges are crossed; on curves as many more as straights within `sagitta`
/// need.
std::vector<OnGround> followed(const Path& path, const terrain::TinLocator& surface, double sagitta) {
    std::vector<OnGround> out;
    double base = 0;
    for (std::size_t k = 0; k < path.size(); ++k) {
        const double size = lengthOf(path[k]);
        if (!(size > 0)) continue;
        const auto points = trace(surface, path[k]);
        for (std::size_t i = 0; i < points.size(); ++i) {
            const auto& p = points[i];
            const bool end = p.fraction >= 1;
            if (end && k + 1 < path.size()) continue;  // the next element begins with it
            out.push_back({p.place, base + p.fraction * size, p.height, p.fraction <= 0 || end,
                           p.triangleAfter.has_value() && !end});
            if (end) continue;
            const double gap = points[i + 1].fraction - p.fraction;
            const std::size_t chords = chordsOf(part(path[k], p.fraction, points[i + 1].fraction), sagitta);
            for (std::size_t c = 1; c < chords; ++c) {
                const double at = p.fraction + gap * static_cast<double>(c) / static_cast<double>(chords);
                const Vec2 place = pointAt(path[k], at);
                // Marked, so that thinning leaves the shape in plan.
                out.push_back(
                    {place, base + at * size, surface.heightAt(place), true, out.back().groundAfter});
            }
        }
        base += size;
    }
    return out;
}

/// Where a side needs a grade point: at each edge that is crossed and, where it curves over a triangle, so
/// that straights between them are within 1 mm of the surface.
struct GradePlace {
    double fraction = 0;
    double height = 0;
};
std::vector<GradePlace> gradePlaces(const terrain::TinLocator& surface, const geometry::Segment& side,
                                    double size) {
    constexpr double tolerance = 0.001;
    std::vector<GradePlace> out;
    const auto points = trace(surface, side);
    for (std::size_t i = 0; i + 1 < points.size(); ++i) {
        const auto& p = points[i];
        if (p.onEdge && p.height) out.push_back({p.fraction, *p.height});
        if (!p.triangleAfter || !isCurved(side)) continue;
        const double gap = points[i + 1].fraction - p.fraction;
        const auto curvature = [&](double t) {
            return std::abs(std::visit([t](const auto& e) { return e.curvature(t); }, elementOf(side)));
        };
        // A chord of length c is off by c² / 8 times the second derivative: at most gradient times curvature.
        const double bend = geometry::length(gradientOf(surface.tin(), *p.triangleAfter)) *
                            std::max(curvature(p.fraction), curvature(points[i + 1].fraction));
        const double pieces = std::ceil(std::min(10'000.0, gap * size * std::sqrt(bend / (8 * tolerance))));
        for (double c = 1; c < pieces; ++c) {
            const double at = p.fraction + gap * c / pieces;
            if (const auto h = surface.heightAt(pointAt(side, at))) out.push_back({at, *h});
        }
    }
    return out;
}

/// Only the corners and what gives curves their shape; the stretch between two is on the ground when both
/// are.
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
    auto all = followed(path, surface, sagitta);
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
        std::vector<double> fractions{0};
        std::vector<double> heights{surface.heightAt(corner.place).value_or(0)};
        double last = 0;
        for (const auto& p : gradePlaces(surface, path[k], size)) {
            // Nearer than a tenth of a millimetre to the point before it, another says nothing new.
            if ((p.fraction - last) * size < 1e-4 || (1 - p.fraction) * size < 1e-4) continue;
            fractions.push_back(last = p.fraction);
            heights.push_back(p.height);
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
