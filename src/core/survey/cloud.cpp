#include "core/survey/cloud.h"

#include <oneapi/tbb/blocked_range.h>
#include <oneapi/tbb/parallel_for.h>
#include <oneapi/tbb/parallel_reduce.h>

#include <algorithm>
#include <cmath>
#include <limits>

#include "core/geometry/path.h"

namespace erdwerk::survey {

namespace {

struct GridBox {
    Grid3 low{std::numeric_limits<std::int32_t>::max(), std::numeric_limits<std::int32_t>::max(),
              std::numeric_limits<std::int32_t>::max()};
    Grid3 high{std::numeric_limits<std::int32_t>::min(), std::numeric_limits<std::int32_t>::min(),
               std::numeric_limits<std::int32_t>::min()};
    void add(const Grid3& g) {
        for (std::size_t k = 0; k < 3; ++k) {
            low[k] = std::min(low[k], g[k]);
            high[k] = std::max(high[k], g[k]);
        }
    }
    void add(const GridBox& b) {
        add(b.low);
        add(b.high);
    }
};

using Range = tbb::blocked_range<std::size_t>;
constexpr std::size_t grain = 1 << 16;

GridBox boxOf(const CloudColumns& columns) {
    return tbb::parallel_reduce(
        Range(0, columns.size, grain), GridBox{},
        [&](const Range& range, GridBox box) {
            for (std::size_t i = range.begin(); i != range.end(); ++i) box.add(columns.grid[i]);
            return box;
        },
        [](GridBox a, const GridBox& b) {
            a.add(b);
            return a;
        });
}

}  // namespace

CloudColumns::CloudColumns(std::size_t count, bool coloured)
    : size(count),
      grid(std::make_unique_for_overwrite<Grid3[]>(count)),
      intensity(std::make_unique_for_overwrite<std::uint16_t[]>(count)),
      returns(std::make_unique_for_overwrite<std::uint8_t[]>(count)),
      flags(std::make_unique_for_overwrite<std::uint8_t[]>(count)),
      classes(std::make_unique_for_overwrite<std::uint8_t[]>(count)),
      colours(coloured ? std::make_unique_for_overwrite<Colour[]>(count) : nullptr) {}

PointCloud::PointCloud(CloudColumns columns) {
    classes_ = std::move(columns.classes);
    const GridBox box = boxOf(columns);
    const auto at = [&](const Grid3& g) {
        return Vec3{columns.offset.x + columns.scale.x * g[0], columns.offset.y + columns.scale.y * g[1],
                    columns.offset.z + columns.scale.z * g[2]};
    };
    if (columns.size > 0) {
        min_ = at(box.low);
        max_ = at(box.high);
    }
    data_ = std::make_shared<const CloudColumns>(std::move(columns));
}

Box PointCloud::bounds() const {
    Box box;
    if (empty()) return box;
    box.add(min_.plan());
    box.add(max_.plan());
    return box;
}

std::size_t PointCloud::memory() const {
    return size() * (sizeof(Grid3) + sizeof(std::uint16_t) + 3 + (coloured() ? sizeof(Colour) : 0));
}

double PointCloud::spacing() const {
    if (empty()) return 0;
    const Box box = bounds();
    return std::sqrt(std::max(box.width() * box.height(), 1e-12) / static_cast<double>(size()));
}

std::array<std::size_t, 256> PointCloud::classCounts() const {
    std::array<std::size_t, 256> counts{};
    for (std::size_t i = 0; i < size(); ++i) ++counts[classOf(i)];
    return counts;
}

PointCloud PointCloud::withClasses(std::shared_ptr<const std::uint8_t[]> classes) const {
    PointCloud out = *this;
    out.classes_ = std::move(classes);
    return out;
}

PointCloud PointCloud::reordered(const std::vector<std::uint32_t>& order) const {
    CloudColumns columns(order.size(), coloured());
    columns.scale = data_->scale;
    columns.offset = data_->offset;
    tbb::parallel_for(Range(0, order.size(), grain), [&](const Range& range) {
        for (std::size_t i = range.begin(); i != range.end(); ++i) {
            const std::size_t from = order[i];
            columns.grid[i] = data_->grid[from];
            columns.intensity[i] = data_->intensity[from];
            columns.returns[i] = data_->returns[from];
            columns.flags[i] = data_->flags[from];
            columns.classes[i] = classOf(from);
            if (columns.colours) columns.colours[i] = data_->colours[from];
        }
    });
    return PointCloud(std::move(columns));
}

std::array<bool, 256> CloudFilter::admitted() const {
    std::array<bool, 256> out{};
    out.fill(classes.empty());
    for (const std::uint8_t c : classes) out[c] = true;
    return out;
}

CloudPart::CloudPart(const PointCloud& cloud, const CloudFilter& filter)
    : cloud_(cloud), inside_(filter.inside), admitted_(filter.admitted()) {
    for (const Vec2& p : inside_) window_.add(p);
}

bool CloudPart::has(std::size_t point) const {
    if (!admitted_[cloud_.classOf(point)] || cloud_.withheld(point)) return false;
    if (inside_.empty()) return true;
    const Vec2 p = cloud_.place(point).plan();
    return window_.contains(p) && geometry::sideOf(inside_, p) != geometry::Side::Outside;
}

Result<std::vector<Vec3>> placesOf(const PointCloud& cloud, const CloudFilter& filter,
                                   const Context& context) {
    const CloudPart part(cloud, filter);
    std::vector<Vec3> out;
    if (filter.classes.empty() && filter.inside.empty()) out.reserve(cloud.size());
    for (std::size_t i = 0; i < cloud.size(); ++i) {
        if ((i & 0xfffffU) == 0 && context.isCancelled()) return cancelled();
        if (part.has(i)) out.push_back(cloud.place(i));
    }
    return out;
}

PointCloud cloudFrom(const std::vector<Vec3>& places) {
    CloudColumns columns(places.size(), false);
    Vec3 low = places.empty() ? Vec3{} : places.front();
    Vec3 high = low;
    for (const Vec3& p : places) {
        low = {std::min(low.x, p.x), std::min(low.y, p.y), std::min(low.z, p.z)};
        high = {std::max(high.x, p.x), std::max(high.y, p.y), std::max(high.z, p.z)};
    }
    // The offset stands on whole units, so that places written with four decimals come back as they were.
    columns.offset = {std::floor((low.x + high.x) / 2), std::floor((low.y + high.y) / 2),
                      std::floor((low.z + high.z) / 2)};
    double step = 1e-4;
    while (std::max({high.x - low.x, high.y - low.y, high.z - low.z}) / step > 4e9) step *= 10;
    columns.scale = {step, step, step};
    const auto onGrid = [&](double v, double offset) {
        return static_cast<std::int32_t>(std::lround((v - offset) / step));
    };
    for (std::size_t i = 0; i < places.size(); ++i) {
        columns.grid[i] = {onGrid(places[i].x, columns.offset.x), onGrid(places[i].y, columns.offset.y),
                           onGrid(places[i].z, columns.offset.z)};
        columns.intensity[i] = 0;
        columns.returns[i] = 0x11;
        columns.flags[i] = 0;
        columns.classes[i] = cloud_class::unclassified;
    }
    return PointCloud(std::move(columns));
}

}  // namespace erdwerk::survey
