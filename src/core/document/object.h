#pragma once
// What a project holds.

#include <array>
#include <memory>
#include <string>
#include <string_view>
#include <variant>
#include <vector>

#include "core/annotate/label.h"
#include "core/base/id.h"
#include "core/linework/line3d.h"
#include "core/route/profile.h"
#include "core/survey/cloud.h"
#include "core/survey/points.h"
#include "core/survey/raster.h"
#include "core/terrain/build.h"
#include "core/terrain/own_edits.h"
#include "core/terrain/tin.h"

namespace erdwerk::document {

struct Points {
    survey::PointSet set;
};

/// How a line is drawn: a crest has hachures on its downhill side, a toe is dashed.
enum class LineStyle { Plain, Crest, Toe };
std::string_view styleName(LineStyle style);

struct Line {
    linework::Line3D line;
    LineStyle style = LineStyle::Plain;
};

/// By what a cloud's points are coloured.
enum class CloudColouring { Height, Class, Intensity, Colour };
std::string_view colouringName(CloudColouring colouring);

/// A point cloud. It stays in its file; the project keeps where that is and what was changed of it.
struct Cloud {
    std::string file;                                 ///< absolute path
    std::shared_ptr<const survey::PointCloud> cloud;  ///< null when the file could not be read
    std::string problem;                              ///< why
    bool classified = false;                          ///< the classes are not those of the file
    CloudColouring colouring = CloudColouring::Height;
    survey::CloudFilter filter;  ///< classes, and the ring of a crop: what is shown and takes part
    double spacing = 0;          ///< least distance between points shown, for display only; 0: all
};

/// A raster of heights, in its file.
struct HeightRaster {
    std::string file;
    std::shared_ptr<const survey::Raster> raster;  ///< null when the file could not be read
    std::string problem;
};

/// A picture of the ground with a place in the world, in its file.
struct Picture {
    std::size_t columns = 0;
    std::size_t rows = 0;
    std::array<double, 6> transform{0, 1, 0, 0, 0, -1};  ///< as in survey::Raster
    std::vector<std::uint8_t> rgb;                       ///< row by row from the top
};
struct Backdrop {
    std::string file;
    std::shared_ptr<const Picture> picture;  ///< null when the file could not be read
    std::string problem;
    bool visible = true;
};

/// What an object is to a surface. Opening: no surface inside; island: surface again inside an opening. A
/// contour is a breakline that lies on one height.
enum class Role { Points, Cloud, Raster, Breakline, Contour, Edge, Opening, Island };
inline constexpr std::array allRoles{Role::Points,  Role::Cloud, Role::Raster,  Role::Breakline,
                                     Role::Contour, Role::Edge,  Role::Opening, Role::Island};
std::string_view roleName(Role role);
/// The roles a line can have.
inline constexpr std::array lineRoles{Role::Breakline, Role::Contour, Role::Edge, Role::Opening,
                                      Role::Island};

/// Edge, opening and island: closed lines that say where there is surface.
constexpr bool isRing(Role role) {
    return role == Role::Edge || role == Role::Opening || role == Role::Island;
}

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
    ObjectId surface;  ///< for TakeOver
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

/// Follows the plan of a line.
struct Alignment {
    ObjectId line;
    bool reversed = false;
    double startStation = 0;
    double tickInterval = 20;
};

/// A design over the ground of an alignment.
struct Profile {
    ObjectId alignment;
    ObjectId ground;  ///< a surface
    std::vector<route::Pvi> design;
    double exaggeration = 5;
};

/// Follows the plan of a line.
struct Parcel {
    ObjectId line;
    bool reversed = false;
    std::size_t begin = 0;  ///< corner of the (reversed) path that is the point of beginning
    std::string beginning;  ///< its name
};

struct LabelStyle {
    annotate::LabelStyle style;
};

/// Anchored to a segment of a line or a point of a set; goes when its target goes.
struct Label {
    ObjectId target;
    std::size_t part = 0;
    ObjectId style;
};

enum class Paper { A4, A3, A1 };
/// Landscape width and height in millimetres (ISO 216).
std::array<double, 2> paperSize(Paper paper);
std::string_view paperName(Paper paper);

struct Sheet {
    Paper paper = Paper::A3;
    double scale = 500;  ///< 1 : scale
    geometry::Vec2 centre;
    ObjectId parcel;  ///< whose course table and description it shows; may be none
    std::string project;
    std::string title;
    std::string drawnBy;
    std::string date;
};

struct Group {
    std::string colour;  ///< #rrggbb
    bool visible = true;
};

using Payload = std::variant<Points, Line, Surface, Alignment, Profile, Parcel, LabelStyle, Label, Sheet,
                             Group, Cloud, HeightRaster, Backdrop>;

struct Object {
    ObjectId id;
    std::string name;
    ObjectId group;  ///< may be none
    Payload payload;
};

/// "points", "line", "surface" …: the kind as stored in files.
std::string_view kindName(const Payload& payload);

}  // namespace erdwerk::document
