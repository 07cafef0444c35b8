#include "core/terrain/locator.h"

#include <algorithm>
#include <cmath>

#include "core/geometry/predicates.h"

namespace erdwerk::terrain {

int TinLocator::column(double x) const {
    return static_cast<int>(std::clamp((x - bounds_.minX) / cell_, 0.0, columns_ - 1.0));
}

int TinLocator::row(double y) const {
    return static_cast<int>(std::clamp((y - bounds_.minY) / cell_, 0.0, rows_ - 1.0));
}

/// Calls visit for each grid row that a convex shape (2 or 3 points) meets, with the columns it may touch
/// there.
template <class Visit>
void TinLocator::rowsOf(std::span<const Vec2> shape, const Visit& visit) const {
    double low = shape[0].y;
    double high = shape[0].y;
    for (const Vec2& p : shape) {
        low = std::min(low, p.y);
        high = std::max(high, p.y);
    }
    const int last = row(high);
    for (int r = row(low); r <= last; ++r) {
        // A hair more than the row, so that rounding never loses a cell. The outer rows reach to infinity.
        const double bottom = r == 0 ? low : bounds_.minY + (r - 1e-6) * cell_;
        const double top = r == rows_ - 1 ? high : bounds_.minY + (r + 1 + 1e-6) * cell_;
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
        if (left <= right) visit(Span{r, column(left - 1e-6 * cell_), column(right + 1e-6 * cell_)});
    }
}

TinLocator::TinLocator(std::shared_ptr<const Tin> tin) : tin_(std::move(tin)), bounds_(tin_->bounds()) {
    const double count = std::max<double>(1, tin_->triangleCount());
    const double width = std::max(bounds_.width(), 1e-9);
    const double height = std::max(bounds_.height(), 1e-9);
    cell_ = std::max(std::sqrt(width * height / (count / 2)), std::max(width, height) / 20000.0);
    columns_ = std::clamp(static_cast<int>(width / cell_) + 1, 1, 20001);
    rows_ = std::clamp(static_cast<int>(height / cell_) + 1, 1, 20001);
    start_.assign(static_cast<std::size_t>(columns_) * static_cast<std::size_t>(rows_) + 1, 0);
    const auto eachCell = [&](std::uint32_t t, const auto& visit) {
        const auto [a, b, c] = tin_->triangle(t);
        const std::array<Vec2, 3> shape{a.plan(), b.plan(), c.plan()};
        rowsOf(shape, [&](const Span& s) {
            const std::size_t base = static_cast<std::size_t>(s.row) * static_cast<std::size_t>(columns_);
            for (int col = s.firstColumn; col <= s.lastColumn; ++col)
                visit(base + static_cast<std::size_t>(col));
        });
    };
    const std::uint32_t n = tin_->triangleCount();
    for (std::uint32_t t = 0; t < n; ++t) eachCell(t, [&](std::size_t cell) { ++start_[cell + 1]; });
    for (std::size_t i = 1; i < start_.size(); ++i) start_[i] += start_[i - 1];
    members_.resize(start_.back());
    std::vector<std::uint32_t> next(start_.begin(), start_.end() - 1);
    for (std::uint32_t t = 0; t < n; ++t) eachCell(t, [&](std::size_t cell) { members_[next[cell]++] = t; });
}

std::optional<std::uint32_t> TinLocator::triangleAt(Vec2 p) const {
    if (!bounds_.contains(p)) return std::nullopt;
    const std::size_t cell = static_cast<std::size_t>(row(p.y)) * static_cast<std::size_t>(columns_) +
                             static_cast<std::size_t>(column(p.x));
    for (std::uint32_t k = start_[cell]; k < start_[cell + 1]; ++k) {
        const auto [a, b, c] = tin_->triangle(members_[k]);
        if (geometry::orientation(a.plan(), b.plan(), p) >= 0 &&
            geometry::orientation(b.plan(), c.plan(), p) >= 0 &&
            geometry::orientation(c.plan(), a.plan(), p) >= 0)
            return members_[k];
    }
    return std::nullopt;
}

std::optional<double> TinLocator::heightAt(Vec2 p) const {
    if (const auto t = triangleAt(p)) return planeHeight(tin_->triangle(*t), p);
    return std::nullopt;
}

void TinLocator::collect(const Span& s, std::vector<std::uint32_t>& out) const {
    const std::size_t base = static_cast<std::size_t>(s.row) * static_cast<std::size_t>(columns_);
    const std::size_t first = start_[base + static_cast<std::size_t>(s.firstColumn)];
    const std::size_t last = start_[base + static_cast<std::size_t>(s.lastColumn) + 1];
    out.insert(out.end(), members_.begin() + static_cast<std::ptrdiff_t>(first),
               members_.begin() + static_cast<std::ptrdiff_t>(last));
}

namespace {
void sortUnique(std::vector<std::uint32_t>& v) {
    std::sort(v.begin(), v.end());
    v.erase(std::unique(v.begin(), v.end()), v.end());
}
}  // namespace

std::vector<std::uint32_t> TinLocator::near(const Box& window) const {
    std::vector<std::uint32_t> out;
    if (!window.meets(bounds_)) return out;
    for (int r = row(window.minY); r <= row(window.maxY); ++r)
        collect({r, column(window.minX), column(window.maxX)}, out);
    sortUnique(out);
    std::erase_if(out, [&](std::uint32_t t) {
        Box box;
        for (const Vec3& v : tin_->triangle(t)) box.add(v.plan());
        return !box.meets(window);
    });
    return out;
}

std::vector<std::uint32_t> TinLocator::along(Vec2 a, Vec2 b) const {
    std::vector<std::uint32_t> out;
    const std::array<Vec2, 2> shape{a, b};
    rowsOf(shape, [&](const Span& s) { collect(s, out); });
    sortUnique(out);
    return out;
}

}  // namespace erdwerk::terrain
