#pragma once
// Survey points.

#include <memory>
#include <optional>
#include <string>
#include <vector>

#include "core/geometry/vec.h"

namespace erdwerk::survey {

using geometry::Vec2;

struct SurveyPoint {
    std::string number;  ///< as in the field book; not necessarily a figure, should be unique
    Vec2 plan;
    std::optional<double> height;  ///< absent is absent, never 0
    std::string code;              ///< what was measured, e.g. TOE1
    std::string note;
    friend bool operator==(const SurveyPoint&, const SurveyPoint&) = default;
};

/// Any number of points, as a value. Points stand in blocks that copies share, so changing one point of a
/// million costs one block.
class PointSet {
public:
    static constexpr std::size_t blockSize = 512;
    using Block = std::vector<SurveyPoint>;

    PointSet() = default;
    explicit PointSet(std::vector<SurveyPoint> points);
    static PointSet fromBlocks(std::vector<std::shared_ptr<const Block>> blocks);

    [[nodiscard]] std::size_t size() const { return size_; }
    [[nodiscard]] bool empty() const { return size_ == 0; }
    /// Requires i < size().
    [[nodiscard]] const SurveyPoint& operator[](std::size_t i) const;
    [[nodiscard]] const std::vector<std::shared_ptr<const Block>>& blocks() const { return blocks_; }
    /// Stands for the places and heights of all points: the same pointer while none of them changed, whatever
    /// numbers, codes and notes did. Null for an empty set.
    [[nodiscard]] const std::shared_ptr<const void>& geometry() const { return geometry_; }

    [[nodiscard]] PointSet with(std::size_t i, SurveyPoint point) const;
    [[nodiscard]] PointSet appended(std::vector<SurveyPoint> points) const;
    /// Requires rising positions.
    [[nodiscard]] PointSet without(const std::vector<std::size_t>& positions) const;
    [[nodiscard]] std::vector<SurveyPoint> all() const;
    [[nodiscard]] std::optional<std::size_t> find(const std::string& number) const;

private:
    std::vector<std::shared_ptr<const Block>> blocks_;  ///< all full but the last
    std::size_t size_ = 0;
    std::shared_ptr<const void> geometry_;
};

/// Points to be joined into one line, by position in the set.
using Chain = std::vector<std::size_t>;

/// All given points in the order of their numbers (figures compare as figures: 9 before 10, P9 before P10).
Chain chainByNumber(const PointSet& points, std::vector<std::size_t> members);
/// One chain for each code, in order of number; codes are compared without regard to case. Single points give
/// none.
std::vector<std::pair<std::string, Chain>> chainsByCode(const PointSet& points,
                                                        const std::vector<std::size_t>& members);

/// The next free number after the largest figure in the set.
std::string nextNumber(const PointSet& points);

/// Figures within texts compare as figures.
bool numberBefore(const std::string& a, const std::string& b);

}  // namespace erdwerk::survey
