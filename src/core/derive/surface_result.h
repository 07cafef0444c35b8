#pragma once
// What is worked out of a surface: its triangles with what they came to, its fit, its bands.

#include <cstdint>
#include <memory>
#include <optional>
#include <string>
#include <utility>
#include <vector>

#include "core/derive/derived.h"
#include "core/objects/point_ref.h"
#include "core/terrain/bands.h"
#include "core/terrain/build.h"
#include "core/terrain/fit.h"
#include "core/terrain/locator.h"

namespace erdwerk::derive {

struct SurfaceCrossing {
    terrain::Crossing crossing;
    ObjectId first;
    ObjectId second;
};

struct SurfaceDuplicate {
    PointRef kept;
    PointRef dropped;
};

/// What thinning the clouds and rasters came to.
struct ThinFigures {
    std::size_t pointsIn = 0;
    std::size_t kept = 0;  ///< vertices
    std::size_t triangles = 0;
    double largestDeviation = 0;  ///< of all points
    double largestProved = 0;     ///< of those that are not excused
    std::size_t excused = 0;
    std::size_t beyond = 0;
    std::size_t contradicting = 0;
};

struct SurfaceWork;

/// How a surface differs from the one that it begins with.
struct SurfacePatch {
    std::shared_ptr<const terrain::TinLocator> base;
    std::vector<std::uint32_t> gone;   ///< triangles of the base
    std::vector<std::uint32_t> fresh;  ///< its own triangles that the base does not have
};

struct SurfaceResult {
    std::shared_ptr<const terrain::TinLocator>
        locator;  ///< null when there is no surface; `problem` says why
    std::string problem;
    std::size_t points = 0;
    terrain::TinFigures figures;
    std::vector<SurfaceCrossing> crossings;
    std::vector<SurfaceDuplicate> duplicates;
    std::optional<ThinFigures> thinned;
    std::vector<std::pair<std::size_t, std::string>> editProblems;  ///< own edits that do not apply, and why
    bool locally = false;                                           ///< worked out from the result before
    std::shared_ptr<const SurfaceWork> work;                        ///< for the next one; may be null
    std::shared_ptr<const SurfacePatch> patch;                      ///< of a finished surface; may be null
};

struct FitResult {
    terrain::FitFigures figures;
    terrain::DeviationMap map;
    double tolerance = 0;
    struct Place {
        geometry::Vec3 point;  ///< of the source
        double deviation = 0;
    };
    std::vector<Place> worst;  ///< beyond the tolerance, the worst first
};

struct BandTable {
    terrain::BandKind kind = terrain::BandKind::Height;
    std::vector<double> limits;
    std::vector<terrain::Band> bands;
};

/// Arcs are cut to this when a line becomes a breakline or an edge, in project units.
inline constexpr double breaklineSagitta = 0.01;

}  // namespace erdwerk::derive
