#pragma once
// A surface: its sources, own edits, how it is shown and checked.

#include <memory>
#include <vector>

#include "core/objects/kind.h"
#include "core/terrain/build.h"
#include "core/terrain/own_edits.h"
#include "core/terrain/tin.h"

namespace erdwerk::objects {

/// One input of a surface. A group stands for all its members: lines with the role given here, other things
/// with their own.
struct Source {
    ObjectId object;
    Role role = Role::Points;
    bool on = true;
    /// Edge, opening, island: whether the line keeps its own heights as a breakline (where it has them), or
    /// takes those of the ground.
    bool ownHeights = true;
    friend bool operator==(const Source&, const Source&) = default;
};

/// A change by hand to the finished surface. Those that are on are done in order.
struct SurfaceEdit {
    terrain::OwnEdit edit;
    ObjectId surface;  ///< for TakeOver: a surface, or an earthwork
    bool on = true;
    friend bool operator==(const SurfaceEdit&, const SurfaceEdit&) = default;
};
std::string_view editName(terrain::EditKind kind);

/// What the triangulation depends on. Held by pointer: a change of style leaves it, and so the surface, as it
/// is.
struct SurfaceDefinition {
    std::vector<Source> sources;  ///< in order of precedence
    double maxEdge = 0;           ///< longest edge of a rim triangle; 0: no limit
    double narrowest = 1e-6;      ///< height over longest edge of a rim triangle
    terrain::CrossingRule onCrossing = terrain::CrossingRule::First;
    /// Clouds and rasters are thinned to this greatest deviation in height; 0: all their points are taken.
    double tolerance = 0;
    double slopeChange = 0;  ///< radians, see terrain::ThinOptions; 0: not asked for
    std::vector<SurfaceEdit> edits;
    ObjectId base;                                 ///< a surface that it begins with, instead of sources
    std::shared_ptr<const terrain::Tin> imported;  ///< a surface taken over from a file, instead of sources
};

/// What the ground is coloured by.
enum class Bands { None, Height, Slope, Direction };
std::string_view bandsName(Bands bands);

struct SurfaceStyle {
    double interval = 1;
    int indexEvery = 5;
    bool contours = true;
    bool triangles = false;
    bool hillshade = true;
    bool heightColours = true;
    bool smooth = false;  ///< contours rounded at triangle edges
    bool before = true;   ///< contours of the ground where earthworks took it away, dashed
    Bands bands = Bands::None;
    bool deviation = false;  ///< map of the fit check
    friend bool operator==(const SurfaceStyle&, const SurfaceStyle&) = default;
};

/// The surface against dense heights.
struct FitCheck {
    ObjectId source;         ///< a cloud or raster; none: the surface's own, if it has any
    double tolerance = 0.1;  ///< project units
    friend bool operator==(const FitCheck&, const FitCheck&) = default;
};

struct Surface {
    std::shared_ptr<const SurfaceDefinition> definition = std::make_shared<const SurfaceDefinition>();
    SurfaceStyle style;
    FitCheck fit;
};

template <>
struct Kind<Surface> : HasNoParts<Surface> {
    static constexpr std::string_view name = "surface";
    static constexpr std::optional<Role> sourceRole = std::nullopt;
    static void references(const Surface& object, const Visit& visit);
    static std::optional<Surface> without(Surface object, ObjectId gone);
};

}  // namespace erdwerk::objects
