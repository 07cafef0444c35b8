#include "core/terrain/crease.h"

#include <oneapi/tbb/parallel_for.h>

#include <algorithm>
#include <cmath>
#include <numbers>
#include <numeric>

namespace erdwerk::terrain {

std::vector<Vec3> simplified(const std::vector<Vec3>& places, double deviation) {
    if (places.size() < 3 || deviation <= 0) return places;
    std::vector<bool> keep(places.size(), false);
    keep.front() = keep.back() = true;
    std::vector<std::pair<std::size_t, std::size_t>> work{{0, places.size() - 1}};
    while (!work.empty()) {
        const auto [a, b] = work.back();
        work.pop_back();
        const Vec2 pa = places[a].plan();
        const Vec2 d = places[b].plan() - pa;
        const double size = std::max(geometry::dot(d, d), 1e-300);
        double worst = deviation;
        std::size_t at = 0;
        for (std::size_t i = a + 1; i < b; ++i) {
            const double t = std::clamp(geometry::dot(places[i].plan() - pa, d) / size, 0.0, 1.0);
            const double off =
                std::max(geometry::distance(places[i].plan(), pa + d * t),
                         std::abs(places[i].z - (places[a].z + t * (places[b].z - places[a].z))));
            if (off > worst) {
                worst = off;
                at = i;
            }
        }
        if (at == 0) continue;
        keep[at] = true;
        work.emplace_back(a, at);
        work.emplace_back(at, b);
    }
    std::vector<Vec3> out;
    for (std::size_t i = 0; i < places.size(); ++i)
        if (keep[i]) out.push_back(places[i]);
    return out;
}

namespace {

double planLength(const std::vector<Vec3>& places, bool closed) {
    double sum = 0;
    for (std::size_t i = 0; i + 1 < places.size(); ++i)
        sum += geometry::distance(places[i].plan(), places[i + 1].plan());
    if (closed && places.size() > 1) sum += geometry::distance(places.back().plan(), places.front().plan());
    return sum;
}

/// The place of the greatest bend near `p` on the line through it along `across`, within `reach` cells;
/// nothing when the greatest is at the end of the reach.
std::optional<Vec2> peak(const CreaseField& field, CreaseKind kind, Vec2 p, Vec2 across, int reach) {
    const double step = field.grid().cell / 2;
    std::vector<double> values;
    for (int k = -2 * reach; k <= 2 * reach; ++k) values.push_back(field.bend(kind, p + across * (k * step)));
    const auto best =
        static_cast<std::size_t>(std::max_element(values.begin(), values.end()) - values.begin());
    if (best == 0 || best + 1 == values.size() || values[best] <= 0) return std::nullopt;
    const double bottom = values[best - 1] - 2 * values[best] + values[best + 1];
    const double shift = bottom < 0 ? 0.5 * (values[best - 1] - values[best + 1]) / bottom : 0;
    const double k = static_cast<double>(best) - 2.0 * reach + std::clamp(shift, -1.0, 1.0);
    return p + across * (k * step);
}

/// Follows ridges of the bend from node to node.
class Finder {
public:
    Finder(const CreaseField& field, const CreaseOptions& options)
        : field_(field), grid_(field.grid()), options_(options), low_(0.6 * options.minAngle) {}

    std::vector<Crease> run(const Context& context) {
        std::vector<Crease> out;
        for (const CreaseKind kind : {CreaseKind::Crest, CreaseKind::Toe}) {
            kind_ = kind;
            markRidges();
            for (const std::size_t seed : seeds_) {
                if (context.isCancelled()) return {};
                if (taken_[seed] != 0) continue;
                follow(seed, out);
            }
        }
        std::stable_sort(out.begin(), out.end(), [](const Crease& a, const Crease& b) {
            return planLength(a.places, a.closed) > planLength(b.places, b.closed);
        });
        return out;
    }

private:
    /// A node is on a ridge when the bend a cell to either side, square to the fold, is no greater.
    void markRidges() {
        place_.assign(grid_.heights.size(), {});
        ridge_.assign(grid_.heights.size(), 0);
        taken_.assign(grid_.heights.size(), 0);
        seeds_.clear();
        for (int r = 1; r + 1 < grid_.rows; ++r)
            for (int c = 1; c + 1 < grid_.columns; ++c) {
                const std::size_t i = grid_.at(c, r);
                const double here = field_.bendAt(kind_, i);
                if (here < low_) continue;
                const Vec2 n = field_.across(i);
                const Vec2 p = grid_.place(c, r);
                const double minus = field_.bend(kind_, p - n * grid_.cell);
                const double plus = field_.bend(kind_, p + n * grid_.cell);
                if (here < minus || here < plus) continue;
                const double bottom = minus - 2 * here + plus;
                const double shift = bottom < 0 ? std::clamp(0.5 * (minus - plus) / bottom, -0.7, 0.7) : 0;
                ridge_[i] = 1;
                place_[i] = p + n * (shift * grid_.cell);
                if (here >= options_.minAngle) seeds_.push_back(i);
            }
        std::stable_sort(seeds_.begin(), seeds_.end(), [&](std::size_t a, std::size_t b) {
            return field_.bendAt(kind_, a) > field_.bendAt(kind_, b);
        });
    }

    [[nodiscard]] Vec2 along(std::size_t node) const { return geometry::leftOf(field_.across(node)); }

    /// The next ridge node ahead, up to two nodes away.
    [[nodiscard]] std::optional<std::size_t> next(std::size_t from, Vec2 direction) const {
        const int c = static_cast<int>(from % static_cast<std::size_t>(grid_.columns));
        const int r = static_cast<int>(from / static_cast<std::size_t>(grid_.columns));
        std::optional<std::size_t> best;
        double bestCost = 1e300;
        for (int dr = -2; dr <= 2; ++dr)
            for (int dc = -2; dc <= 2; ++dc) {
                if ((dr == 0 && dc == 0) || c + dc < 0 || r + dr < 0 || c + dc >= grid_.columns ||
                    r + dr >= grid_.rows)
                    continue;
                const std::size_t i = grid_.at(c + dc, r + dr);
                if (ridge_[i] == 0 || taken_[i] != 0) continue;
                const Vec2 step = place_[i] - place_[from];
                const double size = geometry::length(step);
                if (size < 0.3 * grid_.cell || size > 2.5 * grid_.cell) continue;
                const double straight = geometry::dot(step, direction) / size;
                if (straight < 0.6) continue;
                const double cost = size / grid_.cell + 2 * (1 - straight);
                if (cost < bestCost) {
                    bestCost = cost;
                    best = i;
                }
            }
        return best;
    }

    void take(std::size_t node) {
        const int c = static_cast<int>(node % static_cast<std::size_t>(grid_.columns));
        const int r = static_cast<int>(node / static_cast<std::size_t>(grid_.columns));
        for (int dr = -1; dr <= 1; ++dr)
            for (int dc = -1; dc <= 1; ++dc) {
                if (c + dc < 0 || r + dr < 0 || c + dc >= grid_.columns || r + dr >= grid_.rows) continue;
                const std::size_t i = grid_.at(c + dc, r + dr);
                // Beside the line, but not what the line goes on to.
                if (ridge_[i] != 0 &&
                    std::abs(geometry::dot(place_[i] - place_[node], along(node))) < 0.5 * grid_.cell)
                    taken_[i] = 1;
            }
        taken_[node] = 1;
    }

    std::vector<std::size_t> walk(std::size_t seed, Vec2 direction) {
        std::vector<std::size_t> out;
        std::size_t at = seed;
        while (const auto step = next(at, direction)) {
            Vec2 d = along(*step);
            const Vec2 moved = place_[*step] - place_[at];
            if (geometry::dot(d, moved) < 0) d = d * -1.0;
            direction = d;
            at = *step;
            take(at);
            out.push_back(at);
        }
        return out;
    }

    void follow(std::size_t seed, std::vector<Crease>& out) {
        take(seed);
        const Vec2 direction = along(seed);
        const auto ahead = walk(seed, direction);
        const auto behind = walk(seed, direction * -1.0);
        std::vector<std::size_t> nodes(behind.rbegin(), behind.rend());
        nodes.push_back(seed);
        nodes.insert(nodes.end(), ahead.begin(), ahead.end());
        Crease crease;
        crease.kind = kind_;
        double sum = 0;
        for (const std::size_t i : nodes) {
            const Vec2 p = place_[i];
            crease.places.push_back({p.x, p.y, field_.height(p)});
            sum += field_.bendAt(kind_, i);
        }
        crease.bend = sum / static_cast<double>(nodes.size());
        crease.closed = nodes.size() > 8 && geometry::distance(crease.places.front().plan(),
                                                               crease.places.back().plan()) < 3 * grid_.cell;
        if (planLength(crease.places, crease.closed) < options_.minLength) return;
        if (crease.closed) crease.places.push_back(crease.places.front());
        crease.places = simplified(crease.places, options_.deviation);
        if (crease.closed) crease.places.pop_back();
        out.push_back(std::move(crease));
    }

    const CreaseField& field_;
    const HeightGrid& grid_;
    const CreaseOptions& options_;
    double low_;
    CreaseKind kind_ = CreaseKind::Crest;
    std::vector<Vec2> place_;  ///< of a ridge node, between the nodes
    std::vector<std::uint8_t> ridge_;
    std::vector<std::uint8_t> taken_;
    std::vector<std::size_t> seeds_;  ///< the sharpest first
};

}  // namespace

std::vector<Crease> findCreases(const CreaseField& field, const CreaseOptions& options,
                                const Context& context) {
    return Finder(field, options).run(context);
}

std::string_view textOf(TraceStop stop) {
    switch (stop) {
        case TraceStop::EvidenceEnds:
            return "the bend in the ground ends here";
        case TraceStop::Forks:
            return "the crease forks here";
        case TraceStop::Closed:
            return "back at the start";
        case TraceStop::EdgeOfData:
            return "the data end here";
    }
    return {};
}

namespace {

/// Directions ahead in which the bend runs on from a place: more than one is a fork.
int waysOn(const CreaseField& field, CreaseKind kind, Vec2 p, Vec2 direction, double low) {
    const double radius = 4 * field.grid().cell;
    constexpr int half = 16;
    constexpr double step = 5 * std::numbers::pi / 180;
    std::vector<double> ring;
    for (int k = -half; k <= half; ++k) {
        const double a = k * step;
        const Vec2 d{direction.x * std::cos(a) - direction.y * std::sin(a),
                     direction.x * std::sin(a) + direction.y * std::cos(a)};
        ring.push_back(field.bend(kind, p + d * radius));
    }
    // Peaks that stand out from the valley between them by a third.
    int ways = 0;
    double valley = 0;
    double top = 0;
    for (std::size_t k = 1; k + 1 < ring.size(); ++k) {
        valley = std::min(valley, ring[k]);
        if (ring[k] < ring[k - 1] || ring[k] <= ring[k + 1] || ring[k] < 1.3 * low) continue;
        if (ways == 0 || valley < 0.67 * std::min(top, ring[k])) {
            ++ways;
            top = ring[k];
        } else {
            top = std::max(top, ring[k]);
        }
        valley = ring[k];
    }
    return ways;
}

}  // namespace

Result<TracedCrease> traceCrease(const CreaseField& field, Vec2 first, Vec2 second,
                                 const CreaseOptions& options) {
    const double h = field.grid().cell;
    const double low = 0.6 * options.minAngle;
    const double drawn = geometry::distance(first, second);
    if (drawn < h) return badInput("draw a longer stretch along the crease");
    const Vec2 towards = (second - first) * (1 / drawn);
    const Vec2 side = geometry::leftOf(towards);
    // Both kinds are looked for a few cells to either side of what was drawn.
    std::array<double, 2> sum{};
    const int samples = std::max(2, static_cast<int>(drawn / h));
    const int reach = 4;
    for (int k = 0; k <= samples; ++k)
        for (const CreaseKind kind : {CreaseKind::Crest, CreaseKind::Toe})
            if (const auto p =
                    peak(field, kind, geometry::lerp(first, second, static_cast<double>(k) / samples), side,
                         reach))
                sum[static_cast<std::size_t>(kind)] += field.bend(kind, *p);
    TracedCrease out;
    out.crease.kind = sum[0] >= sum[1] ? CreaseKind::Crest : CreaseKind::Toe;
    const CreaseKind kind = out.crease.kind;
    if (std::max(sum[0], sum[1]) / (samples + 1) < 0.5 * low)
        return badInput("there is no bend in the ground along this stretch");
    std::vector<Vec2> line;
    for (int k = 0; k <= samples; ++k)
        if (const auto p = peak(field, kind, geometry::lerp(first, second, static_cast<double>(k) / samples),
                                side, reach))
            if (field.bend(kind, *p) >= low && (line.empty() || geometry::distance(line.back(), *p) > h / 2))
                line.push_back(*p);
    if (line.size() < 2) return badInput("there is no bend in the ground along this stretch");
    const Box data{field.grid().origin.x, field.grid().origin.y,
                   field.grid().origin.x + h * (field.grid().columns - 1),
                   field.grid().origin.y + h * (field.grid().rows - 1)};
    Vec2 direction = line.back() - line[line.size() > 3 ? line.size() - 3 : 0];
    direction = direction * (1 / geometry::length(direction));
    int missed = 0;
    double travelled = 0;
    const std::size_t limit = 200000;
    while (line.size() < limit) {
        const Vec2 ahead = line.back() + direction * (h * (1 + missed));
        if (!data.grown(-3 * h).contains(ahead)) {
            out.stop = TraceStop::EdgeOfData;
            break;
        }
        const auto p = peak(field, kind, ahead, geometry::leftOf(direction), 2);
        if (!p || field.bend(kind, *p) < low) {
            if (++missed <= 2) continue;
            out.stop = TraceStop::EvidenceEnds;
            break;
        }
        missed = 0;
        travelled += geometry::distance(line.back(), *p);
        line.push_back(*p);
        const Vec2 turned = *p - line[line.size() > 4 ? line.size() - 4 : 0];
        direction = turned * (1 / geometry::length(turned));
        if (travelled > 8 * h && geometry::distance(*p, line.front()) < 1.5 * h) {
            line.pop_back();
            out.crease.closed = true;
            out.stop = TraceStop::Closed;
            break;
        }
        if (travelled > 4 * h && waysOn(field, kind, *p, direction, low) > 1) {
            out.stop = TraceStop::Forks;
            break;
        }
    }
    double bends = 0;
    for (const Vec2& p : line) {
        out.crease.places.push_back({p.x, p.y, field.height(p)});
        bends += field.bend(kind, p);
    }
    out.crease.bend = bends / static_cast<double>(line.size());
    return out;
}

}  // namespace erdwerk::terrain
