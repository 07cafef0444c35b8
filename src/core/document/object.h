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
#include "core/survey/points.h"
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

enum class Role { Points, Breakline, Edge };
std::string_view roleName(Role role);

/// One input of a surface.
struct Source {
    ObjectId object;
    Role role = Role::Points;
    friend bool operator==(const Source&, const Source&) = default;
};

/// What the triangulation depends on. Held by pointer: a change of style leaves it, and so the surface, as it
/// is.
struct SurfaceDefinition {
    std::vector<Source> sources;                   ///< in order of precedence
    double maxEdge = 0;                            ///< longest edge of a rim triangle; 0: no limit
    std::shared_ptr<const terrain::Tin> imported;  ///< a surface taken over from a file, instead of sources
};

struct SurfaceStyle {
    double interval = 1;
    int indexEvery = 5;
    bool contours = true;
    bool triangles = false;
    bool hillshade = true;
    bool heightColours = true;
    friend bool operator==(const SurfaceStyle&, const SurfaceStyle&) = default;
};

struct Surface {
    std::shared_ptr<const SurfaceDefinition> definition = std::make_shared<const SurfaceDefinition>();
    SurfaceStyle style;
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

using Payload =
    std::variant<Points, Line, Surface, Alignment, Profile, Parcel, LabelStyle, Label, Sheet, Group>;

struct Object {
    ObjectId id;
    std::string name;
    ObjectId group;  ///< may be none
    Payload payload;
};

/// "points", "line", "surface" …: the kind as stored in files.
std::string_view kindName(const Payload& payload);

}  // namespace erdwerk::document
