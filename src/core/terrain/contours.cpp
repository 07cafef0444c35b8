#include "core/terrain/contours.h"

#include <oneapi/tbb/parallel_for.h>

#include <algorithm>
#include <cmath>
#include <memory>

#include "core/terrain/contour_walk.h"

namespace erdwerk::terrain {

namespace {

/// A triangle that levels cross: the first of them and one past the last, and where its slots begin.
struct Crossed {
    std::uint32_t triangle;
    std::uint32_t first;
    std::uint32_t end;
    std::uint32_t slot;
};

/// Triangles by the levels that cross them, as one flat list per level. Most triangles are crossed by none;
/// they cost nothing but a look.
struct LevelLists {
    std::vector<double> heights;     ///< of the levels, rising
    std::vector<std::size_t> start;  ///< per level, into triangles
    std::vector<std::uint32_t> triangles;
    std::vector<Crossed> crossed;
    std::unique_ptr<std::uint32_t[]> indexOf;  ///< per triangle, into crossed; set for those only
    std::vector<std::uint32_t> slots;          ///< where a triangle stands in the list of each of its levels

    /// Position of a triangle in the list of a level that crosses it.
    [[nodiscard]] std::size_t positionOf(std::uint32_t t, std::size_t level) const {
        const Crossed& c = crossed[indexOf[t]];
        return slots[c.slot + level - c.first];
    }
};

}  // namespace

/// An interval that is a short decimal fraction m / n is worked out as such, so that level 3 of 0.1 is the
/// very double that 0.3 reads as, and a vertex measured at 0.3 lies on it.
std::vector<double> contourLevels(double low, double high, double interval) {
    double numerator = interval;
    double denominator = 1;
    for (double n = 1; n <= 1e6; n *= 10) {
        const double m = std::round(interval * n);
        if (m < 1 || m / n != interval) continue;
        numerator = m;
        denominator = n;
        break;
    }
    std::vector<double> levels;
    for (double k = std::floor(low / interval) - 1;; ++k) {
        const double level = k * numerator / denominator;
        if (level > high) return levels;
        if (level > low) levels.push_back(level);
    }
}

namespace {

/// Triangles with the levels that cross them, in order. A guess by division is put right by comparison with
/// the levels themselves, so rounding decides nothing.
std::vector<Crossed> crossedTriangles(const Tin& tin, const std::vector<double>& z, double interval,
                                      const std::vector<double>& heights) {
    constexpr std::uint32_t blockSize = 32768;
    const auto count = static_cast<std::uint32_t>(heights.size());
    const double perUnit = 1 / interval;
    std::vector<std::vector<Crossed>> blocks(tin.triangleCount() / blockSize + 1);
    tbb::parallel_for(std::size_t{0}, blocks.size(), [&](std::size_t b) {
        const auto from = static_cast<std::uint32_t>(b * blockSize);
        const std::uint32_t to = std::min(tin.triangleCount(), from + blockSize);
        for (std::uint32_t t = from; t < to; ++t) {
            const double z0 = z[tin.corner(t, 0)];
            const double z1 = z[tin.corner(t, 1)];
            const double z2 = z[tin.corner(t, 2)];
            const double low = std::min({z0, z1, z2});
            const double high = std::max({z0, z1, z2});
            auto first = static_cast<std::uint32_t>(
                std::clamp((low - heights.front()) * perUnit, 0.0, static_cast<double>(count)));
            while (first < count && heights[first] <= low) ++first;
            while (first > 0 && heights[first - 1] > low) --first;
            std::uint32_t end = first;
            while (end < count && heights[end] <= high) ++end;
            if (end > first) blocks[b].push_back({t, first, end, 0});
        }
    });
    std::vector<Crossed> all;
    std::size_t size = 0;
    for (const auto& block : blocks) size += block.size();
    all.reserve(size);
    for (const auto& block : blocks) all.insert(all.end(), block.begin(), block.end());
    return all;
}

LevelLists listsOf(const Tin& tin, const std::vector<double>& z, double interval,
                   std::vector<double> heights) {
    LevelLists lists;
    lists.crossed = crossedTriangles(tin, z, interval, heights);
    lists.start.assign(heights.size() + 1, 0);
    lists.indexOf = std::make_unique_for_overwrite<std::uint32_t[]>(tin.triangleCount());
    std::uint32_t slot = 0;
    for (std::uint32_t i = 0; i < lists.crossed.size(); ++i) {
        Crossed& c = lists.crossed[i];
        lists.indexOf[c.triangle] = i;
        c.slot = slot;
        slot += c.end - c.first;
        for (std::uint32_t k = c.first; k < c.end; ++k) ++lists.start[k + 1];
    }
    for (std::size_t i = 1; i < lists.start.size(); ++i) lists.start[i] += lists.start[i - 1];
    lists.triangles.resize(lists.start.back());
    lists.slots.resize(lists.start.back());
    std::vector<std::size_t> next(lists.start.begin(), lists.start.end() - 1);
    for (const Crossed& c : lists.crossed)
        for (std::uint32_t k = c.first; k < c.end; ++k) {
            lists.slots[c.slot + k - c.first] = static_cast<std::uint32_t>(next[k] - lists.start[k]);
            lists.triangles[next[k]++] = c.triangle;
        }
    lists.heights = std::move(heights);
    return lists;
}

class LevelTracer {
public:
    LevelTracer(const Tin& tin, const LevelLists& lists, std::size_t level, const ContourOptions& options)
        : tin_(tin),
          lists_(lists),
          index_(level),
          walk_(tin, lists.heights[level], options),
          triangles_(lists.triangles.data() + lists.start[level],
                     lists.start[level + 1] - lists.start[level]),
          done_(triangles_.size(), false) {}

    std::vector<Contour> run() {
        // Open lines first, from where they enter over the rim; what is left then is closed.
        for (std::size_t k = 0; k < triangles_.size(); ++k)
            if (!done_[k] && tin_.neighbour(triangles_[k], walk_.entry(triangles_[k])) == Tin::none)
                follow(triangles_[k]);
        for (std::size_t k = 0; k < triangles_.size(); ++k)
            if (!done_[k]) follow(triangles_[k]);
        return std::move(out_);
    }

private:
    void follow(std::uint32_t first) {
        auto line = walk_.follow(first, [&](std::uint32_t t) {
            const std::size_t k = lists_.positionOf(t, index_);
            if (done_[k]) return false;
            done_[k] = true;
            return true;
        });
        if (line) out_.push_back(std::move(*line));
    }

    const Tin& tin_;
    const LevelLists& lists_;
    std::size_t index_;
    ContourWalk walk_;
    std::span<const std::uint32_t> triangles_;
    std::vector<bool> done_;
    std::vector<Contour> out_;
};

}  // namespace

ContourWalk::Node ContourWalk::nodeOn(std::uint32_t t, int i) const {
    std::uint32_t u = tin_.corner(t, (i + 1) % 3);
    std::uint32_t v = tin_.corner(t, (i + 2) % 3);
    // The same place from both sides, and whatever the numbers are.
    if (tin_.vertex(u).z > tin_.vertex(v).z) std::swap(u, v);
    const Vec3& a = tin_.vertex(u);
    const Vec3& b = tin_.vertex(v);
    if (b.z == level_) return {b.plan(), 0, 0};
    const double size = geometry::distance(a.plan(), b.plan());
    return {geometry::lerp(a.plan(), b.plan(), (level_ - a.z) / (b.z - a.z)), std::abs(b.z - a.z) / size,
            size};
}

std::optional<Contour> ContourWalk::line(bool closed) {
    if (closed && nodes_.size() > 1 && nodes_.front().place == nodes_.back().place) nodes_.pop_back();
    if (nodes_.size() < 2) return std::nullopt;
    Contour line{level_, closed, {}};
    if (options_.smooth)
        line.places = rounded(closed);
    else
        for (const Node& n : nodes_) line.places.push_back(n.place);
    if (closed) line.places.push_back(line.places.front());
    return line;
}

/// Replaces each corner by a parabola from near the middle of one side to near the middle of the next. It
/// stays inside the triangle of its control points, where the surface leaves the level most where the cut
/// meets the edge; the cut is made small enough for that to stay below 0.45 intervals.
std::vector<Vec2> ContourWalk::rounded(bool closed) const {
    std::vector<Vec2> out;
    const std::size_t n = nodes_.size();
    for (std::size_t i = 0; i < n; ++i) {
        const Vec2 c = nodes_[i].place;
        const bool end = !closed && (i == 0 || i + 1 == n);
        if (end || nodes_[i].room == 0) {
            out.push_back(c);
            continue;
        }
        const Vec2 a = nodes_[(i + n - 1) % n].place;
        const Vec2 b = nodes_[(i + 1) % n].place;
        const Vec2 from = geometry::lerp(c, a, 0.5);
        const Vec2 to = geometry::lerp(c, b, 0.5);
        // The cut meets the edge no farther from the corner than the longer of both halves.
        const double reach = std::max(geometry::distance(c, from), geometry::distance(c, to));
        const double leaves = reach * nodes_[i].slope;
        const double share = leaves > 0 ? std::min(1.0, 0.45 * options_.interval / leaves) : 1.0;
        const Vec2 start = geometry::lerp(c, from, share);
        const Vec2 stop = geometry::lerp(c, to, share);
        for (const double t : {0.0, 0.25, 0.5, 0.75, 1.0})
            out.push_back(geometry::lerp(geometry::lerp(start, c, t), geometry::lerp(c, stop, t), t));
    }
    out.erase(std::unique(out.begin(), out.end()), out.end());
    return out;
}

Result<std::vector<Contour>> contours(const Tin& tin, const ContourOptions& options, const Context& context) {
    if (!(options.interval > 0) || !std::isfinite(options.interval))
        return badInput("the contour interval must be above 0");
    if (tin.empty()) return std::vector<Contour>{};
    // Heights alone stay in the cache where whole vertices would not.
    std::vector<double> z;
    z.reserve(tin.vertexCount());
    for (const Vec3& v : tin.vertices()) z.push_back(v.z);
    const auto [lowest, highest] = std::minmax_element(z.begin(), z.end());
    const double low = *lowest;
    const double high = *highest;
    if ((high - low) / options.interval > 1e6)
        return badInput("the interval gives more than a million levels");
    auto heights = contourLevels(low, high, options.interval);
    if (heights.empty()) return std::vector<Contour>{};
    const LevelLists lists = listsOf(tin, z, options.interval, std::move(heights));
    std::vector<std::vector<Contour>> perLevel(lists.heights.size());
    tbb::parallel_for(std::size_t{0}, perLevel.size(), [&](std::size_t k) {
        if (context.isCancelled()) return;
        perLevel[k] = LevelTracer(tin, lists, k, options).run();
    });
    if (context.isCancelled()) return cancelled();
    std::vector<Contour> all;
    for (auto& level : perLevel) std::move(level.begin(), level.end(), std::back_inserter(all));
    context.report(1);
    return all;
}

bool isIndexContour(double height, double interval, int every) {
    return every > 0 && std::llround(height / interval) % every == 0;
}

}  // namespace erdwerk::terrain
