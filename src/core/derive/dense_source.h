#pragma once
// The dense heights of a cloud, raster or surface as one surface that can be asked for heights, and as a
// crease field: for finding and following creases, sampling, and placing points.

#include "core/derive/model.h"
#include "core/geometry/path.h"
#include "core/terrain/crease.h"

namespace erdwerk::derive {

/// How densely a dense source's points stand on average, in project units; 0 when it has none.
double spacingOf(const Derived& derived, ObjectId source);

/// A cloud (up to six million points of it, evenly) or raster triangulated inside the area with a margin, or
/// the surface itself. BadInput when there is nothing there.
Result<std::shared_ptr<const terrain::TinLocator>> denseSurface(const Derived& derived, ObjectId source,
                                                                const geometry::Box& area,
                                                                const Context& context = {});

/// The bounds of a cloud, raster or surface; empty when it has none.
geometry::Box boundsOf(const Derived& derived, ObjectId source);

/// Bends of the ground in the area, on a grid of the source's spacing (coarser when the area is large).
Result<terrain::CreaseField> creaseField(const Derived& derived, ObjectId source, const geometry::Box& area,
                                         const Context& context = {});

/// Height of a cloud (of its nearest points, within three spacings), a raster (between cell centres) or a
/// surface at a place.
std::optional<double> denseHeight(const Derived& derived, ObjectId source, geometry::Vec2 place);

/// Points of a cloud within `halfWidth` of a chain, by distance along it and height, about `most` of them.
struct SlicePoint {
    double station = 0;
    double height = 0;
};
std::vector<SlicePoint> sliceOf(const Derived& derived, ObjectId cloud, const geometry::Path& path,
                                double halfWidth, std::size_t most = 20'000);

/// What the fit check of a surface compares it with: the chosen source, else its own first cloud or raster.
ObjectId fitSource(const Document& document, ObjectId surface);

}  // namespace erdwerk::derive
