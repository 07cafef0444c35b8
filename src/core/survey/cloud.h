#pragma once
// Point clouds: many millions of measured places with class, intensity, return and colour.

#include <array>
#include <cstdint>
#include <memory>
#include <optional>
#include <vector>

#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/geometry/vec.h"

namespace erdwerk::survey {

using geometry::Box;
using geometry::Vec2;
using geometry::Vec3;

/// Classes of the ASPRS LAS specification 1.4, table 17.
namespace cloud_class {
inline constexpr std::uint8_t unclassified = 1;
inline constexpr std::uint8_t ground = 2;
inline constexpr std::uint8_t vegetation = 5;
inline constexpr std::uint8_t building = 6;
}  // namespace cloud_class

/// Flags of a point, as in LAS 1.4.
namespace cloud_flag {
inline constexpr std::uint8_t synthetic = 1;
inline constexpr std::uint8_t keyPoint = 2;
inline constexpr std::uint8_t withheld = 4;
inline constexpr std::uint8_t overlap = 8;
}  // namespace cloud_flag

using Grid3 = std::array<std::int32_t, 3>;
using Colour = std::array<std::uint8_t, 3>;

/// The columns of a cloud while it is filled. 20 bytes a point with colour, 17 without.
struct CloudColumns {
    CloudColumns(std::size_t size, bool coloured);
    std::size_t size = 0;
    std::unique_ptr<Grid3[]> grid;  ///< place = offset + scale * grid
    std::unique_ptr<std::uint16_t[]> intensity;
    std::unique_ptr<std::uint8_t[]> returns;  ///< number of the return, and in the high four bits of how many
    std::unique_ptr<std::uint8_t[]> flags;
    std::unique_ptr<std::uint8_t[]> classes;
    std::unique_ptr<Colour[]> colours;  ///< null when the cloud has none
    Vec3 scale{0.001, 0.001, 0.001};
    Vec3 offset;
};

/// A value: copies share everything. Places are on the grid of the file they came from, so they are exactly
/// its places. Points marked as withheld are kept and counted, and take no part in anything else.
class PointCloud {
public:
    PointCloud() = default;
    explicit PointCloud(CloudColumns columns);

    [[nodiscard]] std::size_t size() const { return data_ ? data_->size : 0; }
    [[nodiscard]] bool empty() const { return size() == 0; }
    [[nodiscard]] Vec3 place(std::size_t i) const {
        const Grid3& g = data_->grid[i];
        return {data_->offset.x + data_->scale.x * g[0], data_->offset.y + data_->scale.y * g[1],
                data_->offset.z + data_->scale.z * g[2]};
    }
    [[nodiscard]] std::uint8_t classOf(std::size_t i) const { return classes_.get()[i]; }
    [[nodiscard]] std::uint16_t intensity(std::size_t i) const { return data_->intensity[i]; }
    [[nodiscard]] int returnNumber(std::size_t i) const { return data_->returns[i] & 0x0f; }
    [[nodiscard]] int returnCount(std::size_t i) const { return data_->returns[i] >> 4; }
    [[nodiscard]] std::uint8_t flags(std::size_t i) const { return data_->flags[i]; }
    [[nodiscard]] bool withheld(std::size_t i) const { return (data_->flags[i] & cloud_flag::withheld) != 0; }
    [[nodiscard]] bool coloured() const { return data_ && data_->colours != nullptr; }
    [[nodiscard]] Colour colour(std::size_t i) const { return data_->colours[i]; }
    [[nodiscard]] const Vec3& scale() const { return data_->scale; }
    [[nodiscard]] const Vec3& offset() const { return data_->offset; }
    /// Least and greatest coordinates of all points. Requires that there are some.
    [[nodiscard]] const Vec3& min() const { return min_; }
    [[nodiscard]] const Vec3& max() const { return max_; }
    [[nodiscard]] Box bounds() const;
    /// Bytes held by the columns.
    [[nodiscard]] std::size_t memory() const;
    /// Mean distance between neighbours if the points were spread evenly over their box.
    [[nodiscard]] double spacing() const;
    /// How many points have each class.
    [[nodiscard]] std::array<std::size_t, 256> classCounts() const;

    /// The same points with other classes (one each); shares the rest.
    [[nodiscard]] PointCloud withClasses(std::shared_ptr<const std::uint8_t[]> classes) const;
    /// The points in another order: point i of the result is point `order[i]`.
    [[nodiscard]] PointCloud reordered(const std::vector<std::uint32_t>& order) const;

private:
    std::shared_ptr<const CloudColumns> data_;
    std::shared_ptr<const std::uint8_t[]> classes_;
    Vec3 min_;
    Vec3 max_;
};

/// Which points of a cloud take part.
struct CloudFilter {
    std::vector<std::uint8_t> classes;  ///< empty: all
    std::vector<Vec2> inside;           ///< ring, first corner not repeated; empty: everywhere
    [[nodiscard]] std::array<bool, 256> admitted() const;
};

/// A cloud with a filter, made ready to be asked point by point. Both must outlive it.
class CloudPart {
public:
    CloudPart(const PointCloud& cloud, const CloudFilter& filter);
    /// Withheld points are never in it.
    [[nodiscard]] bool has(std::size_t point) const;

private:
    const PointCloud& cloud_;
    const std::vector<Vec2>& inside_;
    std::array<bool, 256> admitted_;
    Box window_;
};

/// Places of the points that pass, in the cloud's order; withheld points never pass.
Result<std::vector<Vec3>> placesOf(const PointCloud& cloud, const CloudFilter& filter,
                                   const Context& context = {});

/// A cloud from plain places, on a grid of a tenth of a millimetre (coarser where the extent asks for it).
/// Requires finite coordinates.
PointCloud cloudFrom(const std::vector<Vec3>& places);

}  // namespace erdwerk::survey
