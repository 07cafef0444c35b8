#include "core/terrain/contours.h"

#include <oneapi/tbb/parallel_for.h>

#include <algorithm>
#include <cmath>

namespace erdwerk::terrain {

namespace {

/// Triangles by the levels that cross them, as one flat list per level.
struct LevelLists {
    std::int64_t firstLevel = 0;
    std::vector<std::size_t> start;
    std::vector<std::uint32_t> triangles;
};

/// Heights of the levels. An interval that is a short decimal fraction m / n is worked out as such, so that
/// level 3 of 0.1 is the very double that 0.3 reads as, and a vertex measured at 0.3 lies on it.
class Levels {
public:
    explicit Levels(double interval) : numerator_(interval), denominator_(1) {
        for (double n = 1; n <= 1e6; n *= 10) {
            const double m = std::round(interval * n);
            if (m < 1 || m / n != interval) continue;
            numerator_ = m;
            denominator_ = n;
            break;
        }
    }
    [[nodiscard]] double operator[](std::int64_t k) const {
        return static_cast<double>(k) * numerator_ / denominator_;
    }

private:
    double numerator_;
    double denominator_;
};

/// Levels k with low < k * interval <= high: those that separate a vertex below from one on or above.
std::pair<std::int64_t, std::int64_t> levelsBetween(double low, double high, double interval,
                                                    const Levels& levels) {
    auto first = static_cast<std::int64_t>(std::floor(low / interval)) - 1;
    while (levels[first] <= low) ++first;
    auto last = static_cast<std::int64_t>(std::floor(high / interval)) + 1;
    while (levels[last] > high) --last;
    return {first, last};
}

std::pair<double, double> heightRange(const Tin& tin, std::uint32_t t) {
    const double a = tin.vertex(tin.corner(t, 0)).z;
    const double b = tin.vertex(tin.corner(t, 1)).z;
    const double c = tin.vertex(tin.corner(t, 2)).z;
    return {std::min({a, b, c}), std::max({a, b, c})};
}

LevelLists listsOf(const Tin& tin, double interval, const Levels& levels, std::int64_t first,
                   std::int64_t last) {
    LevelLists lists;
    lists.firstLevel = first;
    lists.start.assign(static_cast<std::size_t>(last - first) + 2, 0);
    std::vector<std::pair<std::int32_t, std::int32_t>> range(tin.triangleCount());
    tbb::parallel_for(std::uint32_t{0}, tin.triangleCount(), [&](std::uint32_t t) {
        const auto [low, high] = heightRange(tin, t);
        const auto [from, to] = levelsBetween(low, high, interval, levels);
        range[t] = {static_cast<std::int32_t>(from - first), static_cast<std::int32_t>(to - first)};
    });
    for (const auto& [from, to] : range)
        for (auto k = from; k <= to; ++k) ++lists.start[static_cast<std::size_t>(k) + 1];
    for (std::size_t i = 1; i < lists.start.size(); ++i) lists.start[i] += lists.start[i - 1];
    lists.triangles.resize(lists.start.back());
    std::vector<std::size_t> next(lists.start.begin(), lists.start.end() - 1);
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t)
        for (auto k = range[t].first; k <= range[t].second; ++k)
            lists.triangles[next[static_cast<std::size_t>(k)]++] = t;
    return lists;
}

/// A place on a line, with the edge it lies on.
struct Node {
    Vec2 place;
    double slope;  ///< height difference per length along the edge, absolute
    double room;   ///< the edge's plan length: 0 where the line runs through a vertex
};

class LevelTracer {
public:
    LevelTracer(const Tin& tin, double level, std::span<const std::uint32_t> triangles,
                const ContourOptions& options)
        : tin_(tin),
          level_(level),
          triangles_(triangles),
          options_(options),
          done_(triangles.size(), false) {}

    std::vector<Contour> run() {
        // Open lines first, from where they enter over the rim; what is left then is closed.
        for (std::size_t k = 0; k < triangles_.size(); ++k)
            if (!done_[k] && tin_.neighbour(triangles_[k], entry(triangles_[k])) == Tin::none) follow(k);
        for (std::size_t k = 0; k < triangles_.size(); ++k)
            if (!done_[k]) follow(k);
        return std::move(out_);
    }

private:
    [[nodiscard]] bool above(std::uint32_t v) const { return tin_.vertex(v).z >= level_; }

    /// Walking with higher ground on the right, a line enters a counter-clockwise triangle over the side that
    /// rises from below to above in the triangle's sense, and leaves over the side that falls.
    [[nodiscard]] int entry(std::uint32_t t) const { return sideWhere(t, false); }
    [[nodiscard]] int exit(std::uint32_t t) const { return sideWhere(t, true); }
    [[nodiscard]] int sideWhere(std::uint32_t t, bool startAbove) const {
        for (int i = 0; i < 3; ++i)
            if (above(tin_.corner(t, (i + 1) % 3)) == startAbove &&
                above(tin_.corner(t, (i + 2) % 3)) != startAbove)
                return i;
        return 0;
    }

    [[nodiscard]] Node nodeOn(std::uint32_t t, int i) const {
        std::uint32_t u = tin_.corner(t, (i + 1) % 3);
        std::uint32_t v = tin_.corner(t, (i + 2) % 3);
        if (u > v) std::swap(u, v);  // the same place from both sides
        const Vec3& a = tin_.vertex(u);
        const Vec3& b = tin_.vertex(v);
        if (a.z == level_) return {a.plan(), 0, 0};
        if (b.z == level_) return {b.plan(), 0, 0};
        const double size = geometry::distance(a.plan(), b.plan());
        return {geometry::lerp(a.plan(), b.plan(), (level_ - a.z) / (b.z - a.z)), std::abs(b.z - a.z) / size,
                size};
    }

    [[nodiscard]] std::size_t positionOf(std::uint32_t t) const {
        return static_cast<std::size_t>(std::lower_bound(triangles_.begin(), triangles_.end(), t) -
                                        triangles_.begin());
    }

    void add(const Node& node) {
        if (nodes_.empty() || !(nodes_.back().place == node.place)) nodes_.push_back(node);
    }

    void follow(std::size_t k) {
        nodes_.clear();
        const std::uint32_t first = triangles_[k];
        std::uint32_t t = first;
        add(nodeOn(t, entry(t)));
        bool closed = false;
        while (true) {
            done_[k] = true;
            const int out = exit(t);
            add(nodeOn(t, out));
            const std::uint32_t next = tin_.neighbour(t, out);
            if (next == Tin::none) break;
            if (next == first) {
                closed = true;
                break;
            }
            t = next;
            k = positionOf(t);
        }
        if (closed && nodes_.size() > 1 && nodes_.front().place == nodes_.back().place) nodes_.pop_back();
        if (nodes_.size() < 2) return;  // a peak that only just reaches the level
        Contour line{level_, closed, {}};
        if (options_.smooth)
            line.places = rounded(closed);
        else
            for (const Node& n : nodes_) line.places.push_back(n.place);
        if (closed) line.places.push_back(line.places.front());
        out_.push_back(std::move(line));
    }

    /// Replaces each corner by a parabola from near the middle of one side to near the middle of the next. It
    /// stays inside the triangle of its control points, where the surface leaves the level most where the cut
    /// meets the edge; the cut is made small enough for that to stay below 0.45 intervals.
    [[nodiscard]] std::vector<Vec2> rounded(bool closed) const {
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

    const Tin& tin_;
    double level_;
    std::span<const std::uint32_t> triangles_;
    const ContourOptions& options_;
    std::vector<bool> done_;
    std::vector<Node> nodes_;
    std::vector<Contour> out_;
};

}  // namespace

Result<std::vector<Contour>> contours(const Tin& tin, const ContourOptions& options, const Context& context) {
    if (!(options.interval > 0) || !std::isfinite(options.interval))
        return badInput("the contour interval must be above 0");
    if (tin.empty()) return std::vector<Contour>{};
    double low = tin.vertex(0).z;
    double high = low;
    for (const Vec3& v : tin.vertices()) {
        low = std::min(low, v.z);
        high = std::max(high, v.z);
    }
    if ((high - low) / options.interval > 1e6)
        return badInput("the interval gives more than a million levels");
    const Levels levels(options.interval);
    // Not a structured binding: lambdas cannot capture those portably.
    const auto range = levelsBetween(low, high, options.interval, levels);
    const std::int64_t first = range.first;
    const std::int64_t last = range.second;
    if (first > last) return std::vector<Contour>{};
    const LevelLists lists = listsOf(tin, options.interval, levels, first, last);
    std::vector<std::vector<Contour>> perLevel(static_cast<std::size_t>(last - first) + 1);
    tbb::parallel_for(std::size_t{0}, perLevel.size(), [&](std::size_t k) {
        if (context.isCancelled()) return;
        const std::span<const std::uint32_t> members(lists.triangles.data() + lists.start[k],
                                                     lists.start[k + 1] - lists.start[k]);
        const double level = levels[first + static_cast<std::int64_t>(k)];
        perLevel[k] = LevelTracer(tin, level, members, options).run();
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
