#pragma once
// Station and offset of many places.

#include <optional>
#include <span>
#include <string>
#include <vector>

#include "core/route/alignment.h"

namespace erdwerk::route {

struct FoundStation {
    double distance = 0;  ///< from the start of the line
    double offset = 0;    ///< positive to the right
    Vec2 place;           ///< the nearest on the line
    /// Nearest to an end, and not at right angles to the line there: before the start or past the end.
    bool beyond = false;
};

/// A point by its station, as it is read on the line, and offset.
struct StationedPoint {
    std::string name;
    double station = 0;
    double offset = 0;  ///< positive to the right
    std::optional<double> height;
    std::string code;
    long line = 0;  ///< of the file it was read from
};

/// The nearest place on the line; of several as near the first. Beside a sharp corner, on its outer side,
/// that is the corner itself, and the side is that of both directions there together. Shares nothing; may be
/// used from several threads. A place costs a look at the box of each element and the elements that may be
/// nearest.
class StationFinder {
public:
    /// Requires a path that is not empty.
    explicit StationFinder(const AlignmentGeometry& alignment);
    [[nodiscard]] FoundStation find(Vec2 place) const;
    /// Of many, on all cores.
    [[nodiscard]] std::vector<FoundStation> findAll(std::span<const Vec2> places) const;

private:
    /// A clothoid at places along it, so that nothing far from them is integrated.
    struct Sample {
        double fraction = 0;
        Vec2 place;
        Vec2 way;
    };
    struct Piece {
        geometry::Element element;
        geometry::Box box;
        double start = 0;
        double length = 0;
        std::vector<Sample> samples = {};
    };
    struct Near {
        double fraction = 0;
        Vec2 place;
    };
    static Near nearestOf(const Piece& part, Vec2 place);
    static Near nearestOfSpiral(const Piece& part, const geometry::Clothoid& spiral, Vec2 place);
    [[nodiscard]] Vec2 directionAt(std::size_t part, double fraction) const;

    std::vector<Piece> parts_;
};

}  // namespace erdwerk::route
