#pragma once
// Putting joints right that are out by a little.

#include <optional>

#include "core/geometry/path.h"

namespace erdwerk::route {

struct Mended {
    geometry::Path path;
    double moved = 0;  ///< how far the joint went
};

/// The joint behind an element made tangent by the least change: between an arc and a straight the joint
/// slides along the arc's circle to where the straight, its other end kept, touches it. Nothing where no such
/// place lies within a quarter of the shorter of both, for any other two elements, and where another joint
/// would no longer be tangent for it.
std::optional<Mended> madeTangent(const geometry::Path& path, std::size_t element);

}  // namespace erdwerk::route
