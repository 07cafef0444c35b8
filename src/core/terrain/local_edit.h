#pragma once
// Changing a triangulation where a line was added, instead of building it again.

#include <optional>

#include "core/terrain/build.h"
#include "core/terrain/locator.h"

namespace erdwerk::terrain {

/// The triangulation of `input` with `added` as last of its lines, worked out from the one without it.
/// `before` is `triangulate(input)`; `locator` finds triangles in `before.tin`. Vertices that were there keep
/// their numbers; the corners and crossings of the new line come last. It is the triangulation that a build
/// from nothing gives, save where four vertices lie on one circle. Costs a copy of the flat arrays, the walk
/// along the line, and noding the lines again; nothing that grows with the points beyond the copy. Nothing is
/// returned where only a build from nothing will do: when the line leaves the convex hull, or rounding made
/// sides cross.
std::optional<BuiltSurface> withLine(const BuiltSurface& before, const TinLocator& locator,
                                     const BuildInput& input, const Breakline& added);

}  // namespace erdwerk::terrain
