#pragma once
// The way of a drop of water over a surface.

#include <vector>

#include "core/terrain/locator.h"

namespace erdwerk::terrain {

enum class DropEnd { Hollow, LeavesSurface, NotOnSurface };

struct DropPath {
    std::vector<Vec3> places;
    DropEnd end = DropEnd::NotOnSurface;
};

/// From a place down the steepest slope of each triangle, along a valley's edge where both sides fall towards
/// it, until no way leads down or the surface ends. Heights along the path never rise.
DropPath dropPath(const TinLocator& surface, Vec2 from);

}  // namespace erdwerk::terrain
