#include "core/annotate/placer.h"

#include <algorithm>
#include <cmath>
#include <numeric>

namespace erdwerk::annotate {

namespace {

/// Half-axes of a box.
struct Axes {
    explicit Axes(const TextBox& box)
        : u{std::cos(box.turn), std::sin(box.turn)},
          v{-u.y, u.x},
          halfWidth(box.width / 2),
          halfHeight(box.height / 2) {}
    /// How far the box reaches from its centre in a direction.
    [[nodiscard]] double reach(Vec2 direction) const {
        return halfWidth * std::abs(geometry::dot(u, direction)) +
               halfHeight * std::abs(geometry::dot(v, direction));
    }
    Vec2 u;
    Vec2 v;
    double halfWidth;
    double halfHeight;
};

constexpr double slack = 1e-6;

geometry::Box boundsOf(const TextBox& box) {
    const Axes axes(box);
    const Vec2 reach{axes.reach({1, 0}), axes.reach({0, 1})};
    geometry::Box out;
    out.add(box.centre - reach);
    out.add(box.centre + reach);
    return out;
}

/// A leader as a box without height.
TextBox asBox(const Leader& leader) {
    const Vec2 along = leader.to - leader.from;
    return {lerp(leader.from, leader.to, 0.5), geometry::length(along), 0, std::atan2(along.y, along.x)};
}

/// Boxes by the cells of a grid that they touch. What lies beyond the grid is in its outermost cells.
class BoxGrid {
public:
    BoxGrid(const geometry::Box& bounds, double cell, std::size_t most) : bounds_(bounds), cell_(cell) {
        const double width = std::max(bounds.maxX - bounds.minX, cell);
        const double height = std::max(bounds.maxY - bounds.minY, cell);
        while ((width / cell_ + 1) * (height / cell_ + 1) > static_cast<double>(most)) cell_ *= 1.5;
        columns_ = static_cast<int>(width / cell_) + 1;
        rows_ = static_cast<int>(height / cell_) + 1;
        cells_.resize(static_cast<std::size_t>(columns_) * static_cast<std::size_t>(rows_));
    }
    template <class Visit>
    bool any(const geometry::Box& box, const Visit& visit) const {
        bool found = false;
        each(box, [&](std::size_t cell) {
            for (const std::uint32_t i : cells_[cell])
                if (!found && visit(i)) found = true;
        });
        return found;
    }
    void put(const geometry::Box& box, std::uint32_t i) {
        each(box, [&](std::size_t cell) { cells_[cell].push_back(i); });
    }

private:
    template <class Act>
    void each(const geometry::Box& box, const Act& act) const {
        const auto at = [&](double v, double low, int count) {
            return std::clamp(static_cast<int>(std::floor((v - low) / cell_)), 0, count - 1);
        };
        const int right = at(box.maxX, bounds_.minX, columns_);
        const int top = at(box.maxY, bounds_.minY, rows_);
        for (int y = at(box.minY, bounds_.minY, rows_); y <= top; ++y)
            for (int x = at(box.minX, bounds_.minX, columns_); x <= right; ++x)
                act(static_cast<std::size_t>(y) * static_cast<std::size_t>(columns_) +
                    static_cast<std::size_t>(x));
    }

    geometry::Box bounds_;
    double cell_;
    int columns_ = 1;
    int rows_ = 1;
    std::vector<std::vector<std::uint32_t>> cells_;
};

/// What is taken already.
class Taken {
public:
    Taken(const geometry::Box& bounds, double cell, std::size_t most) : grid_(bounds, cell, most) {}
    /// `symbols`: the first so many that were taken do not matter.
    [[nodiscard]] bool free(const TextBox& box, std::size_t symbols = 0) const {
        const auto bounds = boundsOf(box);
        return !grid_.any(bounds, [&](std::uint32_t i) {
            return i >= symbols && boxes_[i].meets(bounds) && overlap(all_[i], box);
        });
    }
    void take(const TextBox& box) {
        boxes_.push_back(boundsOf(box));
        grid_.put(boxes_.back(), static_cast<std::uint32_t>(all_.size()));
        all_.push_back(box);
    }

private:
    BoxGrid grid_;
    std::vector<TextBox> all_;
    std::vector<geometry::Box> boxes_;
};

std::uint64_t mixed(std::uint64_t key) {
    key = (key ^ (key >> 30U)) * 0xBF58476D1CE4E5B9U;
    key = (key ^ (key >> 27U)) * 0x94D049BB133111EBU;
    return key ^ (key >> 31U);
}

bool offItsLine(const Candidate& candidate, const std::vector<Vec2>& own) {
    for (const TextBox& box : candidate.boxes)
        for (std::size_t i = 1; i < own.size() && !box.onLine; ++i)
            if (crosses(box, own[i - 1], own[i])) return false;
    return true;
}

bool isFree(const Candidate& candidate, const Taken& taken, std::size_t symbols) {
    for (const TextBox& box : candidate.boxes)
        if (!taken.free(box, symbols)) return false;
    return !candidate.leader || taken.free(asBox(*candidate.leader), symbols);
}

}  // namespace

std::vector<Vec2> cornersOf(const TextBox& box) {
    const Axes a(box);
    const Vec2 u = a.u * a.halfWidth;
    const Vec2 v = a.v * a.halfHeight;
    return {box.centre - u - v, box.centre + u - v, box.centre + u + v, box.centre - u + v};
}

bool overlap(const TextBox& a, const TextBox& b) {
    const Axes one(a);
    const Axes other(b);
    const Vec2 between = b.centre - a.centre;
    for (const Vec2 axis : {one.u, one.v, other.u, other.v})
        if (std::abs(geometry::dot(between, axis)) >= one.reach(axis) + other.reach(axis) - slack)
            return false;
    return true;
}

bool contains(const TextBox& box, Vec2 place) {
    const Axes axes(box);
    const Vec2 off = place - box.centre;
    return std::abs(geometry::dot(off, axes.u)) <= axes.halfWidth &&
           std::abs(geometry::dot(off, axes.v)) <= axes.halfHeight;
}

bool crosses(const TextBox& box, Vec2 a, Vec2 b) {
    return overlap(box, asBox({a, b}));
}

std::vector<std::optional<std::size_t>> Placer::place() const {
    geometry::Box bounds;
    double height = 0;
    std::size_t boxes = symbols_.size();
    for (const PlacedText& text : texts_)
        if (!text.candidates.empty())
            for (const TextBox& box : text.candidates.front().boxes) {
                bounds.add(box.centre);
                height += box.height;
                ++boxes;
            }
    std::vector<std::optional<std::size_t>> out(texts_.size());
    if (boxes == symbols_.size()) return out;
    const double cell = std::max(2.5 * height / static_cast<double>(boxes - symbols_.size()), 1e-6);
    Taken taken(bounds, cell, 4 * boxes + 1024);
    for (const TextBox& symbol : symbols_) taken.take(symbol);
    std::vector<std::uint32_t> order(texts_.size());
    std::iota(order.begin(), order.end(), 0U);
    std::sort(order.begin(), order.end(), [&](std::uint32_t i, std::uint32_t j) {
        const PlacedText& a = texts_[i];
        const PlacedText& b = texts_[j];
        if (a.rank != b.rank) return a.rank < b.rank;
        if (a.key != b.key) return std::pair(mixed(a.key), a.key) < std::pair(mixed(b.key), b.key);
        return i < j;
    });
    for (const std::uint32_t i : order) {
        const PlacedText& text = texts_[i];
        for (std::size_t c = 0; c < text.candidates.size(); ++c) {
            const Candidate& candidate = text.candidates[c];
            const bool off = text.stays || offItsLine(candidate, text.own);
            if (!off || !isFree(candidate, taken, text.stays ? symbols_.size() : 0)) continue;
            for (const TextBox& box : candidate.boxes) taken.take(box);
            if (candidate.leader) taken.take(asBox(*candidate.leader));
            out[i] = c;
            break;
        }
    }
    return out;
}

std::size_t countOverlaps(std::span<const TextBox> boxes) {
    // Sorted by their left ends: only what begins before another ends can meet it.
    std::vector<std::pair<geometry::Box, const TextBox*>> sorted;
    sorted.reserve(boxes.size());
    for (const TextBox& box : boxes)
        if (box.width * box.height > 0) sorted.emplace_back(boundsOf(box), &box);
    std::sort(sorted.begin(), sorted.end(),
              [](const auto& a, const auto& b) { return a.first.minX < b.first.minX; });
    std::size_t count = 0;
    for (std::size_t i = 0; i < sorted.size(); ++i)
        for (std::size_t j = i + 1; j < sorted.size() && sorted[j].first.minX < sorted[i].first.maxX; ++j)
            if (sorted[i].first.meets(sorted[j].first) && overlap(*sorted[i].second, *sorted[j].second))
                ++count;
    return count;
}

}  // namespace erdwerk::annotate
