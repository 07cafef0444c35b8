#pragma once
// Changes of a line's shape in plan that leave its heights what they were.

#include <functional>
#include <vector>

#include "core/linework/height_solver.h"

namespace erdwerk::linework {

/// A rule that could not keep its meaning and became the height it had.
struct SettledRule {
    HeightRule rule;
    Vec2 place;
};

/// A line after a change of shape, and what that did to its rules.
struct Reshaped {
    Line3D line;
    std::vector<SettledRule> settled = {};
    std::size_t left = 0;  ///< controls that are no longer there
};

/// Where a vertical curve is centred the height of its tangents' point, else that of the finished line.
std::optional<double> controlHeightAt(const ResolvedLine& line, double distance);

/// The height that a vertex shall have.
struct Wanted {
    std::optional<double> finished;  ///< of the line there; none: it shall have none
    std::optional<double> control;   ///< of the tangents' point, should it carry a vertical curve
};
/// By position of the vertex and its distance along the new line; nothing leaves it as its rule gives it.
using WantedHeight = std::function<std::optional<Wanted>(std::size_t vertex, double distance)>;
/// What an earlier line has at a distance along it.
Wanted wantedFrom(const ResolvedLine& line, double distance);

/// Keeps each rule that gives the wanted height (to 1e-9); the others become fixed heights: `first` before
/// all others, those that stand on others last, so that as few as possible do.
Reshaped keepHeights(Line3D line, const WantedHeight& wanted, const Surroundings& around,
                     const std::vector<std::size_t>& first = {});

}  // namespace erdwerk::linework
