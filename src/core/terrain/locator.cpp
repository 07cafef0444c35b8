#include "core/terrain/locator.h"

#include <algorithm>
#include <cmath>

#include "core/geometry/predicates.h"

namespace erdwerk::terrain {

int TinLocator::Grid::column(double x) const {
    return static_cast<int>(std::clamp((x - bounds.minX) / cell, 0.0, columns - 1.0));
}

int TinLocator::Grid::row(double y) const {
    return static_cast<int>(std::clamp((y - bounds.minY) / cell, 0.0, rows - 1.0));
}

/// Calls visit for each grid row that a shape meets, with the columns from its first to its last there.
template <class Visit>
void TinLocator::Grid::rowsOf(std::span<const Vec2> shape, const Visit& visit) const {
    double low = shape[0].y;
    double high = shape[0].y;
    for (const Vec2& p : shape) {
        low = std::min(low, p.y);
        high = std::max(high, p.y);
    }
    const int last = row(high);
    for (int r = row(low); r <= last; ++r) {
        // A hair more than the row, so that rounding never loses a cell. The outer rows reach to infinity.
        const double bottom = r == 0 ? low : bounds.minY + (r - 1e-6) * cell;
        const double top = r == rows - 1 ? high : bounds.minY + (r + 1 + 1e-6) * cell;
        double left = std::numeric_limits<double>::infinity();
        double right = -left;
        for (std::size_t i = 0; i < shape.size(); ++i) {
            const Vec2 a = shape[i];
            const Vec2 b = shape[(i + 1) % shape.size()];
            if (std::max(a.y, b.y) < bottom || std::min(a.y, b.y) > top) continue;
            double from = a.x;
            double to = b.x;
            if (a.y != b.y) {
                const double t0 = std::clamp((bottom - a.y) / (b.y - a.y), 0.0, 1.0);
                const double t1 = std::clamp((top - a.y) / (b.y - a.y), 0.0, 1.0);
                from = a.x + t0 * (b.x - a.x);
                to = a.x + t1 * (b.x - a.x);
            }
            left = std::min({left, from, to});
            right = std::max({right, from, to});
        }
        if (left <= right) visit(Span{r, column(left - 1e-6 * cell), column(right + 1e-6 * cell)});
    }
}

template <class Visit>
void TinLocator::eachCell(std::uint32_t t, const Visit& visit) const {
    const auto [a, b, c] = tin_->triangle(t);
    const std::array<Vec2, 3> shape{a.plan(), b.plan(), c.plan()};
    grid_->rowsOf(shape, [&](const Span& s) {
        for (int col = s.firstColumn; col <= s.lastColumn; ++col) visit(grid_->cellAt(s.row, col));
    });
}

namespace {
/// Rounded outwards.
TinLocator::Heights heightsOf(const Tin& tin, std::uint32_t t) {
    constexpr float far = std::numeric_limits<float>::infinity();
    TinLocator::Heights out{far, -far};
    for (int i = 0; i < 3; ++i) {
        if (tin.neighbour(t, i) == Tin::none) return {};
        const auto z = static_cast<float>(tin.vertex(tin.corner(t, i)).z);
        out = {std::min(out.least, z), std::max(out.most, z)};
    }
    return {std::nextafter(out.least, -far), std::nextafter(out.most, far)};
}
}  // namespace

TinLocator::TinLocator(std::shared_ptr<const Tin> tin) : tin_(std::move(tin)) {
    auto grid = std::make_shared<Grid>();
    grid_ = grid;
    grid->bounds = tin_->bounds();
    const double count = std::max<double>(1, tin_->triangleCount());
    const double width = std::max(grid->bounds.width(), 1e-9);
    const double height = std::max(grid->bounds.height(), 1e-9);
    grid->cell = std::max(std::sqrt(width * height / (count / 2)), std::max(width, height) / 20000.0);
    grid->columns = std::clamp(static_cast<int>(width / grid->cell) + 1, 1, 20001);
    grid->rows = std::clamp(static_cast<int>(height / grid->cell) + 1, 1, 20001);
    auto& start = grid->start;
    start.assign(static_cast<std::size_t>(grid->columns) * static_cast<std::size_t>(grid->rows) + 1, 0);
    const std::uint32_t n = tin_->triangleCount();
    for (std::uint32_t t = 0; t < n; ++t) eachCell(t, [&](std::size_t cell) { ++start[cell + 1]; });
    for (std::size_t i = 1; i < start.size(); ++i) start[i] += start[i - 1];
    grid->members.resize(start.back());
    std::vector<std::uint32_t> next(start.begin(), start.end() - 1);
    constexpr float far = std::numeric_limits<float>::infinity();
    grid->heights.assign(start.size() - 1, {far, -far});
    for (std::uint32_t t = 0; t < n; ++t) {
        const Heights all = heightsOf(*tin_, t);
        eachCell(t, [&](std::size_t cell) {
            grid->members[next[cell]++] = t;
            auto& heights = grid->heights[cell];
            heights = {std::min(heights.least, all.least), std::max(heights.most, all.most)};
        });
    }
}

TinLocator::TinLocator(std::shared_ptr<const Tin> tin, const TinLocator& base)
    : tin_(std::move(tin)), grid_(base.grid_), changed_(base.changed_) {}

std::span<const std::uint32_t> TinLocator::in(std::size_t cell) const {
    if (!changed_.empty())
        if (const auto it = changed_.find(cell); it != changed_.end()) return it->second;
    return std::span(grid_->members).subspan(grid_->start[cell], grid_->start[cell + 1] - grid_->start[cell]);
}

void TinLocator::put(std::uint32_t triangle) {
    eachCell(triangle, [&](std::size_t cell) {
        const auto before = in(cell);
        auto& list = changed_.try_emplace(cell, before.begin(), before.end()).first->second;
        list.insert(std::lower_bound(list.begin(), list.end(), triangle), triangle);
    });
}

void TinLocator::take(std::uint32_t triangle) {
    eachCell(triangle, [&](std::size_t cell) {
        const auto before = in(cell);
        auto& list = changed_.try_emplace(cell, before.begin(), before.end()).first->second;
        std::erase(list, triangle);
    });
}

std::optional<std::uint32_t> TinLocator::triangleAt(Vec2 p) const {
    if (!grid_->bounds.contains(p)) return std::nullopt;
    for (const std::uint32_t t : in(grid_->cellAt(grid_->row(p.y), grid_->column(p.x)))) {
        const auto [a, b, c] = tin_->triangle(t);
        if (geometry::orientation(a.plan(), b.plan(), p) >= 0 &&
            geometry::orientation(b.plan(), c.plan(), p) >= 0 &&
            geometry::orientation(c.plan(), a.plan(), p) >= 0)
            return t;
    }
    return std::nullopt;
}

std::optional<double> TinLocator::heightAt(Vec2 p) const {
    if (const auto t = triangleAt(p)) return planeHeight(tin_->triangle(*t), p);
    return std::nullopt;
}

void TinLocator::collect(const Span& s, std::vector<std::uint32_t>& out) const {
    if (changed_.empty()) {
        const auto first = grid_->start[grid_->cellAt(s.row, s.firstColumn)];
        const auto last = grid_->start[grid_->cellAt(s.row, s.lastColumn) + 1];
        out.insert(out.end(), grid_->members.begin() + static_cast<std::ptrdiff_t>(first),
                   grid_->members.begin() + static_cast<std::ptrdiff_t>(last));
        return;
    }
    for (int column = s.firstColumn; column <= s.lastColumn; ++column) {
        const auto members = in(grid_->cellAt(s.row, column));
        out.insert(out.end(), members.begin(), members.end());
    }
}

namespace {
void sortUnique(std::vector<std::uint32_t>& v) {
    std::sort(v.begin(), v.end());
    v.erase(std::unique(v.begin(), v.end()), v.end());
}
}  // namespace

std::vector<std::uint32_t> TinLocator::near(const Box& window) const {
    std::vector<std::uint32_t> out;
    if (!window.meets(grid_->bounds)) return out;
    for (int r = grid_->row(window.minY); r <= grid_->row(window.maxY); ++r)
        collect({r, grid_->column(window.minX), grid_->column(window.maxX)}, out);
    sortUnique(out);
    std::erase_if(out, [&](std::uint32_t t) {
        Box box;
        for (const Vec3& v : tin_->triangle(t)) box.add(v.plan());
        return !box.meets(window);
    });
    return out;
}

std::vector<std::uint32_t> TinLocator::along(Vec2 a, Vec2 b) const {
    return between(std::array<Vec2, 2>{a, b});
}

std::vector<std::uint32_t> TinLocator::between(std::span<const Vec2> ring) const {
    std::vector<std::uint32_t> out;
    if (ring.empty()) return out;
    grid_->rowsOf(ring, [&](const Span& s) { collect(s, out); });
    sortUnique(out);
    return out;
}

}  // namespace erdwerk::terrain
