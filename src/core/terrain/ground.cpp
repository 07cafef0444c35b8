#include "core/terrain/ground.h"

#include <oneapi/tbb/parallel_for.h>

#include <algorithm>
#include <cmath>
#include <deque>
#include <limits>

#include "core/terrain/build.h"
#include "core/terrain/height_grid.h"

namespace erdwerk::terrain {

namespace {

constexpr std::uint32_t nobody = 0xffffffffU;

/// Least (or greatest) value within `half` on either side, along one row, by a queue of candidates.
template <class Better>
void slide(const double* in, double* out, int count, int half, const Better& better,
           std::vector<int>& queue) {
    queue.clear();
    std::size_t head = 0;
    int next = 0;
    for (int i = 0; i < count; ++i) {
        for (; next < count && next <= i + half; ++next) {
            while (queue.size() > head && !better(in[queue.back()], in[next])) queue.pop_back();
            queue.push_back(next);
        }
        while (queue[head] < i - half) ++head;
        out[i] = in[queue[head]];
    }
}

/// Erosion (better = less) or dilation (better = greater) by a disk.
template <class Better>
std::vector<double> byDisk(const std::vector<double>& in, int columns, int rows, int radius,
                           const Better& better) {
    std::vector<double> out(in.size());
    tbb::parallel_for(0, rows, [&](int row) {
        thread_local std::vector<int> queue;
        thread_local std::vector<double> slid;
        slid.resize(static_cast<std::size_t>(columns));
        double* target = out.data() + static_cast<std::ptrdiff_t>(row) * columns;
        bool first = true;
        for (int d = -radius; d <= radius; ++d) {
            const int from = row + d;
            if (from < 0 || from >= rows) continue;
            const int half = static_cast<int>(std::sqrt(static_cast<double>(radius * radius - d * d)));
            slide(in.data() + static_cast<std::ptrdiff_t>(from) * columns, slid.data(), columns, half, better,
                  queue);
            for (int c = 0; c < columns; ++c)
                if (first || better(slid[static_cast<std::size_t>(c)], target[c]))
                    target[c] = slid[static_cast<std::size_t>(c)];
            first = false;
        }
    });
    return out;
}

std::vector<double> opened(const std::vector<double>& in, int columns, int rows, int radius) {
    const auto eroded = byDisk(in, columns, rows, radius, std::less<>());
    return byDisk(eroded, columns, rows, radius, std::greater<>());
}

class Filter {
public:
    Filter(const std::vector<Vec3>& points, const GroundOptions& options)
        : points_(points), options_(options) {}

    Result<std::vector<bool>> run(const Context& context) {
        if (points_.size() < 3) return fail(ErrorCode::Degenerate, "fewer than three points");
        Box box;
        for (const Vec3& p : points_) box.add(p.plan());
        double cell = options_.cell;
        if (cell <= 0)
            cell = 2 * std::sqrt(std::max(box.width() * box.height(), 1e-6) /
                                 static_cast<double>(points_.size()));
        cell = std::max(cell, std::max(box.width(), box.height()) / 20000);
        // Finer cells see nothing more of objects that large, and the openings cost their square.
        if (options_.cell <= 0) cell = std::max(cell, options_.largestObject / 100);
        auto grid = emptyGrid(box, cell);
        if (!grid) return tl::unexpected(grid.error());
        grid_ = std::move(*grid);
        lowestPoints();
        context.report(0.1);
        if (!findObjects(context)) return cancelled();
        keepWhatRunsOver();
        context.report(0.7);
        return classify(context);
    }

private:
    [[nodiscard]] std::size_t cellOf(const Vec3& p) const {
        const auto index = [&](double v, double from, int count) {
            return std::clamp(static_cast<int>((v - from) / grid_.cell), 0, count - 1);
        };
        return grid_.at(index(p.x, grid_.origin.x, grid_.columns), index(p.y, grid_.origin.y, grid_.rows));
    }

    void lowestPoints() {
        lowest_.assign(grid_.heights.size(), nobody);
        for (std::uint32_t i = 0; i < points_.size(); ++i) {
            std::uint32_t& lowest = lowest_[cellOf(points_[i])];
            if (lowest == nobody || points_[i].z < points_[lowest].z) lowest = i;
        }
        removeLowOutliers();
        for (std::size_t k = 0; k < lowest_.size(); ++k) {
            if (lowest_[k] == nobody) continue;
            grid_.heights[k] = points_[lowest_[k]].z;
            grid_.present[k] = 1;
        }
        fillGaps(grid_);
    }

    /// A lone point far below all cells round it is an error of the scanner (a reflection): it is not the
    /// ground.
    void removeLowOutliers() {
        std::vector<std::size_t> low;
        for (int r = 0; r < grid_.rows; ++r)
            for (int c = 0; c < grid_.columns; ++c) {
                const std::uint32_t here = lowest_[grid_.at(c, r)];
                if (here == nobody) continue;
                double below = std::numeric_limits<double>::infinity();
                int around = 0;
                for (int dr = -2; dr <= 2; ++dr)
                    for (int dc = -2; dc <= 2; ++dc) {
                        if ((dr == 0 && dc == 0) || c + dc < 0 || c + dc >= grid_.columns || r + dr < 0 ||
                            r + dr >= grid_.rows)
                            continue;
                        const std::uint32_t other = lowest_[grid_.at(c + dc, r + dr)];
                        if (other == nobody) continue;
                        ++around;
                        const double run = grid_.cell * std::hypot(dr, dc);
                        below = std::min(below, points_[other].z - points_[here].z - 5 * run);
                    }
                if (around >= 8 && below > 0) low.push_back(grid_.at(c, r));
            }
        for (const std::size_t k : low) lowest_[k] = nobody;
    }

    bool findObjects(const Context& context) {
        object_.assign(grid_.heights.size(), 0);
        std::vector<double> surface = grid_.heights;
        const int largest = std::max(1, static_cast<int>(std::ceil(options_.largestObject / 2 / grid_.cell)));
        for (int radius = 1; radius <= largest;) {
            if (context.isCancelled()) return false;
            const auto lower = opened(surface, grid_.columns, grid_.rows, radius);
            const double limit = options_.above + options_.slope * radius * grid_.cell;
            for (std::size_t k = 0; k < surface.size(); ++k)
                if (surface[k] - lower[k] > limit) object_[k] = 1;
            surface = lower;
            context.report(0.1 + 0.6 * radius / largest);
            radius = radius == largest ? largest + 1 : std::min(largest, radius + 1 + radius / 4);
        }
        return true;
    }

    /// Gives connected object cells back to the ground when a good part of their rim passes without a step
    /// into ground cells.
    void keepWhatRunsOver() {
        std::vector<std::uint8_t> seen(object_.size(), 0);
        std::vector<std::pair<int, int>> region;
        constexpr std::array<std::pair<int, int>, 4> sides{{{1, 0}, {-1, 0}, {0, 1}, {0, -1}}};
        for (int r = 0; r < grid_.rows; ++r)
            for (int c = 0; c < grid_.columns; ++c) {
                if (object_[grid_.at(c, r)] == 0 || seen[grid_.at(c, r)] != 0) continue;
                region.assign(1, {c, r});
                seen[grid_.at(c, r)] = 1;
                std::size_t rim = 0;
                std::size_t smooth = 0;
                for (std::size_t k = 0; k < region.size(); ++k) {
                    const auto [x, y] = region[k];
                    for (const auto& [dx, dy] : sides) {
                        const int nx = x + dx;
                        const int ny = y + dy;
                        if (nx < 0 || ny < 0 || nx >= grid_.columns || ny >= grid_.rows) continue;
                        const std::size_t there = grid_.at(nx, ny);
                        if (object_[there] == 0) {
                            ++rim;
                            const double step =
                                std::abs(grid_.heights[there] - grid_.heights[grid_.at(x, y)]);
                            if (step <= options_.above + 2 * options_.slope * grid_.cell) ++smooth;
                        } else if (seen[there] == 0) {
                            seen[there] = 1;
                            region.emplace_back(nx, ny);
                        }
                    }
                }
                if (static_cast<double>(smooth) < 0.3 * static_cast<double>(rim)) continue;
                for (const auto& [x, y] : region) object_[grid_.at(x, y)] = 0;
            }
    }

    Result<std::vector<bool>> classify(const Context& context) {
        BuildInput input;
        for (std::size_t k = 0; k < lowest_.size(); ++k)
            if (lowest_[k] != nobody && object_[k] == 0) input.points.push_back(points_[lowest_[k]]);
        auto built = triangulate(input, context);
        if (!built) return tl::unexpected(built.error());
        const TinLocator surface(std::make_shared<const Tin>(std::move(built->tin)));
        std::vector<std::uint8_t> ground(points_.size(), 0);
        tbb::parallel_for(std::size_t{0}, points_.size(), [&](std::size_t i) {
            const auto t = surface.triangleAt(points_[i].plan());
            if (!t) {
                // Off the lowest points' hull: by its own cell.
                const std::size_t k = cellOf(points_[i]);
                ground[i] = object_[k] == 0 && points_[i].z - grid_.heights[k] <= options_.above ? 1 : 0;
                return;
            }
            const auto triangle = surface.tin().triangle(*t);
            const double upright = points_[i].z - planeHeight(triangle, points_[i].plan());
            const double slope = slopeOf(triangle).grade;
            ground[i] = std::abs(upright) / std::sqrt(1 + slope * slope) <= options_.above ? 1 : 0;
        });
        if (context.isCancelled()) return cancelled();
        context.report(1);
        std::vector<bool> out(points_.size());
        for (std::size_t i = 0; i < out.size(); ++i) out[i] = ground[i] != 0;
        return out;
    }

    const std::vector<Vec3>& points_;
    const GroundOptions& options_;
    HeightGrid grid_;                    ///< lowest heights, gaps filled
    std::vector<std::uint32_t> lowest_;  ///< per cell
    std::vector<std::uint8_t> object_;   ///< per cell
};

}  // namespace

Result<std::vector<bool>> groundPoints(const std::vector<Vec3>& points, const GroundOptions& options,
                                       const Context& context) {
    return Filter(points, options).run(context);
}

Result<std::vector<std::uint8_t>> groundClasses(const survey::PointCloud& cloud, const GroundOptions& options,
                                                const Context& context) {
    std::vector<Vec3> places;
    std::vector<std::size_t> which;
    for (std::size_t i = 0; i < cloud.size(); ++i) {
        if (cloud.withheld(i) || cloud.classOf(i) == 7 || cloud.classOf(i) == 18) continue;
        places.push_back(cloud.place(i));
        which.push_back(i);
    }
    const auto found = groundPoints(places, options, context);
    if (!found) return tl::unexpected(found.error());
    std::vector<std::uint8_t> classes(cloud.size());
    for (std::size_t i = 0; i < classes.size(); ++i) {
        const std::uint8_t was = cloud.classOf(i);
        classes[i] = was == survey::cloud_class::ground ? survey::cloud_class::unclassified : was;
    }
    for (std::size_t k = 0; k < which.size(); ++k)
        if ((*found)[k]) classes[which[k]] = survey::cloud_class::ground;
    return classes;
}

}  // namespace erdwerk::terrain
