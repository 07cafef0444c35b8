#pragma once
// Lines and points in any vector file that GDAL reads (GeoPackage, GeoJSON, Shapefile …).

#include <string>
#include <vector>

#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/linework/line3d.h"
#include "core/survey/points.h"

namespace erdwerk::format {

struct VectorLine {
    std::string name;  ///< from a field "name", else layer and feature number
    std::string layer;
    linework::Line3D line;   ///< heights fixed where the file has them; arcs kept
    bool polygon = false;    ///< the outer ring of a polygon
    std::string rules = {};  ///< the attribute "rules", as it stands there (see linework/rule_list.h)
    std::string file = {};   ///< with layer and feature, for messages
    std::string where = {};
};

struct VectorContent {
    std::vector<VectorLine> lines;
    std::vector<survey::SurveyPoint> points;
    std::vector<std::string> left;  ///< what was passed over, and why
};

/// LineString, Polygon, CircularString, CompoundCurve, CurvePolygon and their collections, and points. A
/// coordinate that is not finite is BadInput naming layer and feature.
Result<VectorContent> readVectorFile(const std::string& path, const Context& context = {});

/// A point with what one of its attributes says.
struct VectorText {
    std::string text;
    geometry::Vec2 place;
};
/// Points of all layers that have the attribute, in their order. BadInput when no layer has it.
Result<std::vector<VectorText>> readTexts(const std::string& path, const std::string& field);

enum class FieldKind { Real, Integer, Text };
struct VectorField {
    std::string name;
    FieldKind kind = FieldKind::Text;
};

/// What the features of a written layer are.
enum class Shape { PointZ, LineZ, PolygonZ, CurveZ };

struct VectorFeature {
    std::vector<geometry::Vec3> places;  ///< a polygon's ring is closed by the writer
    linework::Line3D curve;              ///< for CurveZ
    std::vector<std::variant<double, std::int64_t, std::string>> values;
    bool flat = false;  ///< heights are unknown: written in 2D
};

struct VectorLayer {
    std::string name;
    Shape shape = Shape::LineZ;
    std::vector<VectorField> fields;
    std::vector<VectorFeature> features;
};

/// GeoPackage (.gpkg), GeoJSON (.geojson, full double precision, local coordinates kept; one layer) by the
/// ending.
Result<void> writeVectorFile(const std::string& path, const std::vector<VectorLayer>& layers);

}  // namespace erdwerk::format
