#include "core/terrain/thin.h"

#include <oneapi/tbb/parallel_for.h>
#include <oneapi/tbb/parallel_sort.h>

#include <algorithm>
#include <cmath>
#include <numeric>
#include <queue>

#include "core/geometry/box_index.h"
#include "core/geometry/path.h"
#include "core/geometry/predicates.h"
#include "core/terrain/clip.h"
#include "core/terrain/fit.h"
#include "core/terrain/locator.h"
#include "core/terrain/mesh.h"

namespace erdwerk::terrain {

namespace {

constexpr std::uint32_t nobody = 0xffffffffU;

/// Interleaves the bits of two 16-bit numbers (Morton order).
std::uint32_t interleaved(std::uint32_t x, std::uint32_t y) {
    const auto spread = [](std::uint32_t v) {
        v = (v | (v << 8U)) & 0x00ff00ffU;
        v = (v | (v << 4U)) & 0x0f0f0f0fU;
        v = (v | (v << 2U)) & 0x33333333U;
        return (v | (v << 1U)) & 0x55555555U;
    };
    return spread(x) | (spread(y) << 1U);
}

/// The points along a curve that keeps neighbours together.
std::vector<Vec3> alongCurve(std::vector<Vec3> points) {
    Box box;
    for (const Vec3& p : points) box.add(p.plan());
    const double size = std::max({box.width(), box.height(), 1e-9});
    std::vector<std::pair<std::uint32_t, std::uint32_t>> keys(points.size());
    for (std::uint32_t i = 0; i < points.size(); ++i)
        keys[i] = {interleaved(static_cast<std::uint32_t>((points[i].x - box.minX) / size * 65535),
                               static_cast<std::uint32_t>((points[i].y - box.minY) / size * 65535)),
                   i};
    tbb::parallel_sort(keys.begin(), keys.end());
    std::vector<Vec3> out(points.size());
    for (std::size_t i = 0; i < out.size(); ++i) out[i] = points[keys[i].second];
    return out;
}

/// Corners of the convex hull (Andrew's monotone chain), exact.
std::vector<Vec3> hullOf(const std::vector<Vec3>& points) {
    std::vector<Vec3> sorted = points;
    tbb::parallel_sort(sorted.begin(), sorted.end(), [](const Vec3& a, const Vec3& b) {
        return a.x != b.x ? a.x < b.x : (a.y != b.y ? a.y < b.y : a.z < b.z);
    });
    std::vector<Vec3> hull;
    const auto half = [&](auto first, auto last) {
        const std::size_t base = hull.size();
        for (auto it = first; it != last; ++it) {
            while (hull.size() >= base + 2 &&
                   geometry::orientation(hull[hull.size() - 2].plan(), hull.back().plan(), it->plan()) <= 0)
                hull.pop_back();
            hull.push_back(*it);
        }
        hull.pop_back();
    };
    half(sorted.begin(), sorted.end());
    half(sorted.rbegin(), sorted.rend());
    return hull;
}

/// The points, each in the triangle it lies in, and the refinement of the triangles.
class Refiner {
public:
    Refiner(Mesh mesh, std::vector<Vec3> points, const ThinOptions& options)
        : mesh_(std::move(mesh)),
          points_(std::move(points)),
          options_(options),
          after_(points_.size(), nobody) {
        mesh_.reserve(points_.size() / 32);
    }

    [[nodiscard]] std::size_t contradicting() const { return contradicting_; }

    bool run(const Context& context) {
        grow();
        distribute();
        if (!refine(context, options_.tolerance * (1 - 1e-9))) return false;
        if (options_.slopeChange <= 0) return true;
        return refineSlopes(context);
    }

    Tin finish() && { return std::move(mesh_).tin(); }

private:
    struct Worst {
        double deviation = 0;
        std::uint32_t point = nobody;
    };
    struct Entry {
        double deviation;
        std::uint32_t triangle;
        std::uint32_t point;
        bool operator<(const Entry& o) const {
            return deviation != o.deviation ? deviation < o.deviation : point > o.point;
        }
    };

    void grow() {
        first_.resize(mesh_.triangleCount(), nobody);
        worst_.resize(mesh_.triangleCount());
    }

    void distribute() {
        std::uint32_t at = 0;
        for (std::uint32_t i = 0; i < points_.size(); ++i) {
            const auto where = mesh_.locate(points_[i].plan(), at);
            at = where.triangle;
            if (where.at == Mesh::At::Corner)
                noteCorner(i, mesh_.vertex(mesh_.corner(at, where.index)));
            else if (where.at != Mesh::At::Outside)
                put(i, at);
        }
        for (std::uint32_t t = 0; t < mesh_.triangleCount(); ++t) measure(t);
    }

    void put(std::uint32_t point, std::uint32_t t) {
        after_[point] = first_[t];
        first_[t] = point;
    }

    /// A point in the place of a vertex either is that vertex or contradicts it.
    void noteCorner(std::uint32_t point, const Vec3& vertex) {
        if (std::abs(points_[point].z - vertex.z) > options_.tolerance) ++contradicting_;
    }

    void measure(std::uint32_t t) {
        Worst worst;
        const auto triangle = mesh_.triangle(t);
        for (std::uint32_t p = first_[t]; p != nobody; p = after_[p]) {
            const double d = std::abs(points_[p].z - planeHeight(triangle, points_[p].plan()));
            if (d > worst.deviation || (d == worst.deviation && p < worst.point)) worst = {d, p};
        }
        worst_[t] = worst;
    }

    bool refine(const Context& context, double limit) {
        std::priority_queue<Entry> queue;
        const auto offer = [&](std::uint32_t t) {
            if (worst_[t].deviation > limit) queue.push({worst_[t].deviation, t, worst_[t].point});
        };
        double largest = limit;
        for (std::uint32_t t = 0; t < mesh_.triangleCount(); ++t) {
            offer(t);
            largest = std::max(largest, worst_[t].deviation);
        }
        std::vector<std::uint32_t> star;
        for (std::size_t step = 0; !queue.empty(); ++step) {
            const Entry entry = queue.top();
            queue.pop();
            if ((step & 0x3ffU) == 0) {
                if (context.isCancelled()) return false;
                // The largest deviation falls about geometrically on the way to the tolerance.
                context.report(
                    largest <= limit ? 1 : std::log(largest / entry.deviation) / std::log(largest / limit));
            }
            if (worst_[entry.triangle].point != entry.point) continue;
            insert(entry.point, entry.triangle, star);
            for (const std::uint32_t t : star) offer(t);
        }
        return true;
    }

    /// Makes a point a vertex; `star` receives the triangles that changed.
    void insert(std::uint32_t point, std::uint32_t t, std::vector<std::uint32_t>& star) {
        star.clear();
        const auto where = mesh_.locate(points_[point].plan(), t);
        if (where.at == Mesh::At::Corner || where.at == Mesh::At::Outside) {
            if (where.at == Mesh::At::Corner)
                noteCorner(point, mesh_.vertex(mesh_.corner(where.triangle, where.index)));
            remove(point, t);
            measure(t);
            star.push_back(t);
            return;
        }
        touched_.clear();
        const std::uint32_t v = mesh_.insert(points_[point], where, &touched_);
        grow();
        moving_.clear();
        for (const std::uint32_t old : touched_) {
            for (std::uint32_t p = first_[old]; p != nobody; p = after_[p])
                if (p != point) moving_.push_back(p);
            first_[old] = nobody;
        }
        // By rounding the point may have been listed in a triangle beside the one it lies in.
        if (std::find(touched_.begin(), touched_.end(), t) == touched_.end()) remove(point, t);
        mesh_.around(v, where.triangle, star);
        share(v, star);
    }

    void remove(std::uint32_t point, std::uint32_t t) {
        std::uint32_t* at = &first_[t];
        while (*at != nobody && *at != point) at = &after_[*at];
        if (*at == point) *at = after_[point];
    }

    /// Puts the moving points into the triangles round the new vertex, and measures them there. Which side of
    /// a spoke a point lies on need not be exact: both triangles have the same height there.
    void share(std::uint32_t v, const std::vector<std::uint32_t>& star) {
        const Vec3 centre = mesh_.vertex(v);
        spokes_.clear();
        for (const std::uint32_t t : star) {
            const Vec3& a = mesh_.vertex(mesh_.corner(t, 1));
            const Vec3& b = mesh_.vertex(mesh_.corner(t, 2));
            const Vec2 da = a.plan() - centre.plan();
            const Vec2 db = b.plan() - centre.plan();
            const double area = geometry::cross(da, db);
            const double za = a.z - centre.z;
            const double zb = b.z - centre.z;
            spokes_.push_back({da, db, {(za * db.y - zb * da.y) / area, (zb * da.x - za * db.x) / area}, {}});
        }
        std::size_t sector = 0;
        for (const std::uint32_t p : moving_) {
            const Vec2 d = points_[p].plan() - centre.plan();
            for (std::size_t tries = 0; tries < star.size(); ++tries) {
                const Spoke& s = spokes_[sector];
                if (geometry::cross(s.from, d) >= 0 && geometry::cross(s.to, d) <= 0) break;
                sector = sector + 1 == star.size() ? 0 : sector + 1;
            }
            put(p, star[sector]);
            Spoke& s = spokes_[sector];
            const double deviation = std::abs(points_[p].z - (centre.z + geometry::dot(s.gradient, d)));
            if (deviation > s.worst.deviation || (deviation == s.worst.deviation && p < s.worst.point))
                s.worst = {deviation, p};
        }
        for (std::size_t k = 0; k < star.size(); ++k) worst_[star[k]] = spokes_[k].worst;
    }

    /// Greatest difference in slope (angle between the planes) to a neighbour without a line between.
    [[nodiscard]] double slopeChange(std::uint32_t t) const {
        const auto normal = [&](std::uint32_t s) {
            const auto [a, b, c] = mesh_.triangle(s);
            const Vec3 u{b.x - a.x, b.y - a.y, b.z - a.z};
            const Vec3 w{c.x - a.x, c.y - a.y, c.z - a.z};
            return Vec3{u.y * w.z - u.z * w.y, u.z * w.x - u.x * w.z, u.x * w.y - u.y * w.x};
        };
        const Vec3 n = normal(t);
        double largest = 0;
        for (int i = 0; i < 3; ++i) {
            const std::uint32_t other = mesh_.neighbour(t, i);
            if (other == Mesh::none || mesh_.constrained(t, i)) continue;
            const Vec3 m = normal(other);
            const Vec3 x{n.y * m.z - n.z * m.y, n.z * m.x - n.x * m.z, n.x * m.y - n.y * m.x};
            largest =
                std::max(largest, std::atan2(std::hypot(x.x, x.y, x.z), n.x * m.x + n.y * m.y + n.z * m.z));
        }
        return largest;
    }

    bool refineSlopes(const Context& context) {
        const double whole = options_.tolerance * (1 - 1e-9);
        const double quarter = whole / 4;
        std::vector<std::uint32_t> work(mesh_.triangleCount());
        std::iota(work.begin(), work.end(), 0U);
        std::vector<std::uint32_t> star;
        for (std::size_t step = 0; !work.empty(); ++step) {
            if ((step & 0x3ffU) == 0 && context.isCancelled()) return false;
            const std::uint32_t t = work.back();
            work.pop_back();
            const double deviation = worst_[t].deviation;
            if (deviation <= quarter || (deviation <= whole && slopeChange(t) <= options_.slopeChange))
                continue;
            insert(worst_[t].point, t, star);
            for (const std::uint32_t s : star) {
                work.push_back(s);
                for (int i = 0; i < 3; ++i)
                    if (const std::uint32_t n = mesh_.neighbour(s, i); n != Mesh::none) work.push_back(n);
            }
        }
        return true;
    }

    struct Spoke {
        Vec2 from;
        Vec2 to;
        Vec2 gradient;
        Worst worst;
    };

    Mesh mesh_;
    std::vector<Vec3> points_;
    const ThinOptions& options_;
    std::vector<std::uint32_t> after_;  ///< next point in the same triangle
    std::vector<std::uint32_t> first_;  ///< per triangle
    std::vector<Worst> worst_;          ///< per triangle
    std::vector<std::uint32_t> touched_;
    std::vector<std::uint32_t> moving_;
    std::vector<Spoke> spokes_;
    std::size_t contradicting_ = 0;
};

/// Distance in plan to the nearest of many sides, as far as a limit.
class NearLines {
public:
    NearLines(const std::vector<Breakline>& lines, double limit) : limit_(limit) {
        std::vector<Box> boxes;
        for (const Breakline& line : lines) {
            const std::size_t n = line.corners.size();
            for (std::size_t i = 0; i + (line.closed ? 0 : 1) < n; ++i) {
                sides_.emplace_back(line.corners[i].plan(), line.corners[(i + 1) % n].plan());
                Box box;
                box.add(sides_.back().first);
                box.add(sides_.back().second);
                boxes.push_back(box.grown(limit));
            }
        }
        index_ = geometry::BoxIndex(boxes);
    }
    [[nodiscard]] bool reaches(Vec2 p) const {
        if (sides_.empty()) return false;
        bool found = false;
        Box box;
        box.add(p);
        index_.query(box, [&](std::uint32_t i) {
            const auto& [a, b] = sides_[i];
            const Vec2 d = b - a;
            const double t =
                std::clamp(geometry::dot(p - a, d) / std::max(geometry::dot(d, d), 1e-300), 0.0, 1.0);
            found = geometry::distance(p, a + d * t) <= limit_;
            return !found;
        });
        return found;
    }

private:
    double limit_;
    std::vector<std::pair<Vec2, Vec2>> sides_;
    geometry::BoxIndex index_;
};

/// Points inside the boundary first; then, where the ground must reach past it, those a little outside.
std::vector<Vec3> withinReach(const std::vector<Vec3>& points, const Boundary& boundary,
                              std::size_t& inside) {
    Box box;
    for (const Vec2& p : boundary.ring) box.add(p);
    std::vector<Vec3> in;
    std::vector<Vec3> near;
    std::vector<std::uint8_t> place(points.size());
    const double reach = boundary.hasHeights() ? 0 : std::max(box.width(), box.height()) * 0.05;
    const Box wide = box.grown(reach);
    tbb::parallel_for(std::size_t{0}, points.size(), [&](std::size_t i) {
        const Vec2 p = points[i].plan();
        if (!wide.contains(p)) return;
        place[i] = box.contains(p) && geometry::sideOf(boundary.ring, p) != geometry::Side::Outside ? 1 : 2;
    });
    for (std::size_t i = 0; i < points.size(); ++i) {
        if (place[i] == 1) in.push_back(points[i]);
        if (place[i] == 2 && reach > 0) near.push_back(points[i]);
    }
    inside = in.size();
    in.insert(in.end(), near.begin(), near.end());
    return in;
}

/// Asks every point how far the surface is from it.
Result<void> prove(const std::vector<Vec3>& measured, const NearLines& near, double tolerance,
                   const Context& context, Thinned& out) {
    const TinLocator locator(std::make_shared<const Tin>(out.tin));
    const auto deviations = deviationsOf(locator, measured, context);
    if (!deviations) return tl::unexpected(deviations.error());
    for (std::size_t i = 0; i < measured.size(); ++i) {
        const auto& d = (*deviations)[i];
        if (!d) {
            ++out.outside;
            continue;
        }
        out.largestDeviation = std::max(out.largestDeviation, std::abs(*d));
        const bool excused = near.reaches(measured[i].plan());
        if (excused)
            ++out.excused;
        else
            out.largestProved = std::max(out.largestProved, std::abs(*d));
        if (!excused && std::abs(*d) > tolerance) ++out.beyond;
    }
    return {};
}

}  // namespace

Result<Thinned> thin(const std::vector<Vec3>& points, const ThinOptions& options, const Context& context) {
    if (!(options.tolerance > 0) || !std::isfinite(options.tolerance))
        return badInput("the tolerance must be above 0");
    for (const Vec3& p : points)
        if (!std::isfinite(p.x) || !std::isfinite(p.y) || !std::isfinite(p.z))
            return badInput("a coordinate is not a finite number");
    if (options.boundary)
        if (auto valid = validate(*options.boundary); !valid) return tl::unexpected(valid.error());
    Thinned out;
    std::vector<Vec3> reached = points;
    out.pointsIn = points.size();
    if (options.boundary) reached = withinReach(points, *options.boundary, out.pointsIn);
    const std::vector<Vec3> measured(reached.begin(),
                                     reached.begin() + static_cast<std::ptrdiff_t>(out.pointsIn));
    if (out.pointsIn == 0) return fail(ErrorCode::Degenerate, "no point lies inside the boundary");

    BuildInput start;
    start.lines = options.lines;
    // A boundary with heights holds all points by itself.
    if (options.boundary && options.boundary->hasHeights())
        start.lines.push_back(lineOf(*options.boundary));
    else
        start.points = hullOf(reached);
    start.points.insert(start.points.end(), options.fixed.begin(), options.fixed.end());
    start.onCrossing = options.onCrossing;
    const NearLines near(start.lines, options.tolerance);
    auto hull = triangulate(start, context);
    if (!hull) return tl::unexpected(hull.error());
    out.crossings = std::move(hull->crossings);
    std::vector<Vec3> free;
    free.reserve(reached.size());
    for (const Vec3& p : reached)
        if (!near.reaches(p.plan())) free.push_back(p);
    if (context.isCancelled()) return cancelled();
    const Context refining{[&](double share) { context.report(0.1 + 0.75 * share); }, context.cancelFlag};
    Refiner refiner(Mesh(hull->tin), alongCurve(std::move(free)), options);
    if (!refiner.run(refining)) return cancelled();
    out.contradicting = refiner.contradicting();
    out.tin = std::move(refiner).finish();
    if (options.boundary) out.tin = endOn(out.tin, *options.boundary);
    if (out.tin.empty()) return fail(ErrorCode::Degenerate, "no triangle is left inside the boundary");

    if (auto proved = prove(measured, near, options.tolerance, context, out); !proved)
        return tl::unexpected(proved.error());
    context.report(1);
    return out;
}

}  // namespace erdwerk::terrain
