#pragma once
// From the sources of a surface to the surface, and its fit check. Used by Model.

#include <functional>
#include <memory>
#include <vector>

#include "core/base/id.h"
#include "core/derive/model.h"
#include "core/objects/points.h"
#include "core/objects/surface.h"
#include "core/terrain/build.h"

namespace erdwerk::derive {

/// A source with what it names: the object, and for a line its resolved heights.
struct ResolvedSource {
    Source source;
    std::shared_ptr<const Object> object;
    std::shared_ptr<const linework::ResolvedLine> line;  ///< null for anything but lines
    friend bool operator==(const ResolvedSource&, const ResolvedSource&) = default;
};

/// Sources that are on, in order, groups replaced by their members: lines with the group's role (a breakline
/// when that is no role of a line), other things with their own. Nothing appears twice; the first counts.
std::vector<Source> expandedSources(const Document& document, const SurfaceDefinition& definition);

/// What a result remembers so that a breakline more costs only local work.
struct SurfaceWork {
    std::vector<ResolvedSource> sources;
    terrain::BuildInput lines;  ///< without points
    std::vector<ObjectId> lineOwners;
    std::vector<PointRef> points;
    terrain::BuiltSurface whole;  ///< before anything is cut or peeled; its Tin is in `locator`
    std::shared_ptr<const terrain::TinLocator> locator;
};

/// What a surface is built from beside its sources.
struct BuildBasis {
    const SurfaceResult* before = nullptr;  ///< its last result; may be null
    const SurfaceResult* base = nullptr;    ///< of the surface that it begins with; may be null
    /// Other surfaces, for edits that take one over; may give null.
    std::function<const terrain::TinLocator*(ObjectId)> surfaceAt;
};

/// Fails with Cancelled only: why there is no surface stands in the result. A surface that begins with
/// another and only takes over costs a copy of that one and what is exchanged.
Result<SurfaceResult> buildSurface(const SurfaceDefinition& definition, std::vector<ResolvedSource> sources,
                                   const BuildBasis& basis, const Context& context);

/// Clouds and rasters among the sources, all their points that take part.
Result<std::vector<geometry::Vec3>> densePlaces(const std::vector<ResolvedSource>& sources,
                                                const Context& context);

Result<FitResult> checkFit(const terrain::TinLocator& surface, const std::vector<ResolvedSource>& dense,
                           double tolerance, const Context& context);

}  // namespace erdwerk::derive
