#include "core/format/vector_file.h"

#include <gdal_priv.h>
#include <ogrsf_frmts.h>

#include <atomic>
#include <cmath>
#include <filesystem>
#include <map>
#include <memory>
#include <mutex>

#include "core/base/display.h"
#include "core/format/output.h"
#include "core/format/survey_csv.h"

namespace erdwerk::format {

namespace {

std::string& lastMessage() {
    thread_local std::string message;
    return message;
}

void keepMessage(CPLErr kind, CPLErrorNum, const char* message) {
    if (kind >= CE_Failure) lastMessage() = message;
}

/// GDAL registered once; its messages are kept for our errors instead of going to stderr.
struct GdalScope {
    GdalScope() {
        static std::once_flag once;
        std::call_once(once, [] { GDALAllRegister(); });
        lastMessage().clear();
        CPLPushErrorHandler(keepMessage);
    }
    GdalScope(const GdalScope&) = delete;
    GdalScope& operator=(const GdalScope&) = delete;
    ~GdalScope() { CPLPopErrorHandler(); }
};

using Dataset = std::unique_ptr<GDALDataset, GDALDatasetUniquePtrDeleter>;

class Reader {
public:
    Reader(std::string path, const Context& context) : path_(std::move(path)), context_(context) {}

    Result<VectorContent> run(GDALDataset& data) {
        // A format that would have to read all of itself for it does not say how many there are.
        for (int l = 0; l < data.GetLayerCount(); ++l)
            features_ += std::max<GIntBig>(0, data.GetLayer(l)->GetFeatureCount(FALSE));
        for (int l = 0; l < data.GetLayerCount(); ++l) {
            OGRLayer* layer = data.GetLayer(l);
            layer_ = layer->GetName();
            for (const auto& feature : *layer) {
                if (context_.isCancelled()) return cancelled();
                if (++read_ % 256 == 0 && read_ <= features_)
                    context_.report(static_cast<double>(read_) / static_cast<double>(features_));
                if (auto done = add(*feature); !done) return tl::unexpected(done.error());
            }
            if (!lastMessage().empty())
                return fail(ErrorCode::BadInput, "layer " + layer_ + ": " + lastMessage(), path_);
        }
        return std::move(out_);
    }

private:
    std::string field(const OGRFeature& feature, Column wanted) const {
        const OGRFeatureDefn* definition = feature.GetDefnRef();
        for (int i = 0; i < definition->GetFieldCount(); ++i)
            if (columnByName(definition->GetFieldDefn(i)->GetNameRef()) == wanted &&
                feature.IsFieldSetAndNotNull(i))
                return feature.GetFieldAsString(i);
        return {};
    }

    Result<void> add(const OGRFeature& feature) {
        const OGRGeometry* geometry = feature.GetGeometryRef();
        where_ = "layer " + layer_ + ", feature " + std::to_string(feature.GetFID());
        name_ = field(feature, Column::Number);
        const int rules = feature.GetDefnRef()->GetFieldIndex("rules");
        rules_ = rules >= 0 && feature.IsFieldSetAndNotNull(rules) ? feature.GetFieldAsString(rules) : "";
        // Triangles say which surface they are of.
        if (const int i = feature.GetDefnRef()->GetFieldIndex("surface");
            name_.empty() && i >= 0 && feature.IsFieldSetAndNotNull(i))
            name_ = feature.GetFieldAsString(i);
        if (geometry == nullptr || geometry->IsEmpty()) {
            out_.left.push_back(where_ + ": no geometry");
            return {};
        }
        return addGeometry(*geometry, feature);
    }

    Result<void> addGeometry(const OGRGeometry& geometry, const OGRFeature& feature) {
        switch (wkbFlatten(geometry.getGeometryType())) {
            case wkbPoint:
                return addPoint(*geometry.toPoint(), feature);
            case wkbLineString:
            case wkbCircularString:
            case wkbCompoundCurve:
                return addCurve(*geometry.toCurve(), false);
            case wkbPolygon:
            case wkbTriangle:
            case wkbCurvePolygon: {
                const auto* polygon = geometry.toCurvePolygon();
                if (polygon->getNumInteriorRings() > 0) out_.left.push_back(where_ + ": inner rings");
                return addCurve(*polygon->getExteriorRingCurve(), true);
            }
            case wkbTIN:
            case wkbPolyhedralSurface: {
                for (const OGRGeometry* part : *geometry.toPolyhedralSurface())
                    if (auto done = addGeometry(*part, feature); !done) return done;
                return {};
            }
            case wkbMultiPoint:
            case wkbMultiLineString:
            case wkbMultiCurve:
            case wkbMultiPolygon:
            case wkbMultiSurface:
            case wkbGeometryCollection: {
                for (const OGRGeometry* part : *geometry.toGeometryCollection())
                    if (auto done = addGeometry(*part, feature); !done) return done;
                return {};
            }
            default:
                out_.left.push_back(where_ + ": " + geometry.getGeometryName());
                return {};
        }
    }

    Result<geometry::Vec2> place(double x, double y) const {
        if (!std::isfinite(x) || !std::isfinite(y) || std::abs(x) > 1e9 || std::abs(y) > 1e9)
            return badInput(where_ + ": a coordinate is not a finite number in range", path_);
        return geometry::Vec2{x, y};
    }

    Result<void> addPoint(const OGRPoint& point, const OGRFeature& feature) {
        const auto p = place(point.getX(), point.getY());
        if (!p) return tl::unexpected(p.error());
        survey::SurveyPoint out{name_, *p, std::nullopt, field(feature, Column::Code),
                                field(feature, Column::Note)};
        if (point.Is3D() != 0 && std::isfinite(point.getZ())) out.height = point.getZ();
        out_.points.push_back(std::move(out));
        return {};
    }

    Result<void> addCurve(const OGRCurve& curve, bool polygon) {
        linework::Line3D line;
        if (auto done = appendCurve(line, curve); !done) return done;
        auto& vertices = line.vertices;
        line.closed = vertices.size() > 3 && vertices.front().place == vertices.back().place;
        if (line.closed) vertices.pop_back();
        if (const auto problem = validate(line)) {
            out_.left.push_back(where_ + ": " + *problem);
            return {};
        }
        const std::string name = name_.empty() ? layer_ + " " + std::to_string(out_.lines.size() + 1) : name_;
        out_.lines.push_back({name, layer_, std::move(line), polygon, rules_, path_, where_});
        return {};
    }

    Result<void> appendCurve(linework::Line3D& line, const OGRCurve& curve) {
        if (wkbFlatten(curve.getGeometryType()) == wkbCompoundCurve) {
            for (const OGRCurve* part : *curve.toCompoundCurve())
                if (auto done = appendCurve(line, *part); !done) return done;
            return {};
        }
        const auto* simple = curve.toSimpleCurve();
        const bool arcs = wkbFlatten(curve.getGeometryType()) == wkbCircularString;
        for (int i = 0; i < simple->getNumPoints(); ++i) {
            const auto p = place(simple->getX(i), simple->getY(i));
            if (!p) return tl::unexpected(p.error());
            if (arcs && i % 2 == 1 && i + 1 < simple->getNumPoints()) {
                line.vertices.back().through = *p;
                continue;
            }
            // Parts of a compound curve and repeated places share a vertex.
            if (!line.vertices.empty() && line.vertices.back().place == *p) continue;
            linework::LineVertex v;
            v.place = *p;
            if (simple->Is3D() != 0 && std::isfinite(simple->getZ(i)))
                v.rule = linework::FixedHeight{simple->getZ(i)};
            line.vertices.push_back(v);
        }
        return {};
    }

    std::string path_;
    const Context& context_;
    GIntBig features_ = 0;
    GIntBig read_ = 0;
    std::string layer_;
    std::string where_;
    std::string name_;
    std::string rules_;
    VectorContent out_;
};

}  // namespace

namespace {

/// Within a GdalScope.
Result<Dataset> openVectors(const std::string& path) {
    std::error_code ignored;
    if (!std::filesystem::exists(path, ignored))
        return fail(ErrorCode::Io, "No such file or directory", path);
    Dataset data(static_cast<GDALDataset*>(
        GDALOpenEx(path.c_str(), GDAL_OF_VECTOR | GDAL_OF_READONLY, nullptr, nullptr, nullptr)));
    if (!data) {
        const std::string reason =
            lastMessage().empty() ? "is not a vector file that can be read" : lastMessage();
        return badInput(reason.substr(0, 300), path, 1);
    }
    if (data->GetLayerCount() == 0) return badInput("holds no layers", path, 1);
    return data;
}

}  // namespace

Result<VectorContent> readVectorFile(const std::string& path, const Context& context) {
    const GdalScope scope;
    const auto data = openVectors(path);
    if (!data) return tl::unexpected(data.error());
    return Reader(path, context).run(**data);
}

Result<std::vector<VectorText>> readTexts(const std::string& path, const std::string& field) {
    const GdalScope scope;
    const auto data = openVectors(path);
    if (!data) return tl::unexpected(data.error());
    std::vector<VectorText> out;
    bool found = false;
    for (int l = 0; l < (*data)->GetLayerCount(); ++l) {
        OGRLayer* layer = (*data)->GetLayer(l);
        const int at = layer->GetLayerDefn()->GetFieldIndex(field.c_str());
        if (at < 0) continue;
        found = true;
        for (const auto& feature : *layer) {
            const OGRGeometry* geometry = feature->GetGeometryRef();
            if (geometry == nullptr || wkbFlatten(geometry->getGeometryType()) != wkbPoint ||
                geometry->IsEmpty() || !feature->IsFieldSetAndNotNull(at))
                continue;
            const geometry::Vec2 place{geometry->toPoint()->getX(), geometry->toPoint()->getY()};
            if (!std::isfinite(place.x) || !std::isfinite(place.y))
                return badInput("layer " + std::string(layer->GetName()) + ", feature " +
                                    std::to_string(feature->GetFID()) +
                                    ": a coordinate is not a finite number",
                                path);
            out.push_back({feature->GetFieldAsString(at), place});
        }
    }
    if (!lastMessage().empty()) return badInput(lastMessage().substr(0, 300), path);
    if (!found) return badInput("no layer has an attribute '" + field + "'", path, 1);
    return out;
}

namespace {

void addPoints(OGRLineString& line, const std::vector<geometry::Vec3>& places, bool flat) {
    for (const auto& p : places) {
        if (flat)
            line.addPoint(p.x, p.y);
        else
            line.addPoint(p.x, p.y, p.z);
    }
}

std::unique_ptr<OGRGeometry> curveOf(const linework::Line3D& line, const std::vector<geometry::Vec3>& places,
                                     bool flat) {
    auto out = std::make_unique<OGRCompoundCurve>();
    const auto path = planPath(line);
    const auto add = [flat](OGRSimpleCurve& c, geometry::Vec2 p, double z) {
        if (flat)
            c.addPoint(p.x, p.y);
        else
            c.addPoint(p.x, p.y, z);
    };
    for (std::size_t i = 0; i < path.size(); ++i) {
        const double z0 = places[i].z;
        const double z1 = places[(i + 1) % places.size()].z;
        std::unique_ptr<OGRSimpleCurve> part;
        if (isCurved(path[i])) {
            part = std::make_unique<OGRCircularString>();
            add(*part, path[i].start, z0);
            add(*part, *path[i].through, (z0 + z1) / 2);
        } else {
            part = std::make_unique<OGRLineString>();
            add(*part, path[i].start, z0);
        }
        add(*part, path[i].end, z1);
        out->addCurveDirectly(part.release());
    }
    return out;
}

std::unique_ptr<OGRGeometry> geometryOf(const VectorFeature& f, Shape shape) {
    switch (shape) {
        case Shape::PointZ:
            return f.flat ? std::make_unique<OGRPoint>(f.places[0].x, f.places[0].y)
                          : std::make_unique<OGRPoint>(f.places[0].x, f.places[0].y, f.places[0].z);
        case Shape::CurveZ:
            return curveOf(f.curve, f.places, f.flat);
        case Shape::PolygonZ: {
            auto ring = std::make_unique<OGRLinearRing>();
            addPoints(*ring, f.places, f.flat);
            ring->closeRings();
            auto polygon = std::make_unique<OGRPolygon>();
            polygon->addRingDirectly(ring.release());
            return polygon;
        }
        case Shape::LineZ:
            break;
    }
    auto line = std::make_unique<OGRLineString>();
    addPoints(*line, f.places, f.flat);
    return line;
}

OGRwkbGeometryType typeOf(Shape shape) {
    switch (shape) {
        case Shape::PointZ:
            return wkbPoint25D;
        case Shape::PolygonZ:
            return wkbPolygon25D;
        case Shape::CurveZ:
            return wkbCompoundCurveZ;
        case Shape::LineZ:
            break;
    }
    return wkbLineString25D;
}

Result<void> writeLayer(GDALDataset& data, const VectorLayer& content, bool geoJson,
                        const std::string& path) {
    const OGRwkbGeometryType type = typeOf(content.shape);
    char** options = nullptr;
    if (geoJson) {
        options = CSLSetNameValue(options, "COORDINATE_PRECISION", "17");
        options = CSLSetNameValue(options, "SIGNIFICANT_FIGURES", "17");
    }
    OGRLayer* layer = data.CreateLayer(content.name.c_str(), nullptr, type, options);
    CSLDestroy(options);
    if (layer == nullptr)
        return fail(ErrorCode::Io, "cannot be written: " + plainReason(lastMessage()), path);
    for (const auto& f : content.fields) {
        const OGRFieldType kind =
            f.kind == FieldKind::Real ? OFTReal : (f.kind == FieldKind::Integer ? OFTInteger64 : OFTString);
        OGRFieldDefn definition(f.name.c_str(), kind);
        layer->CreateField(&definition);
    }
    for (const auto& f : content.features) {
        OGRFeature feature(layer->GetLayerDefn());
        for (int i = 0; i < static_cast<int>(f.values.size()); ++i) {
            const auto& value = f.values[static_cast<std::size_t>(i)];
            if (const auto* real = std::get_if<double>(&value))
                feature.SetField(i, *real);
            else if (const auto* whole = std::get_if<std::int64_t>(&value))
                feature.SetField(i, static_cast<GIntBig>(*whole));
            else
                feature.SetField(i, std::get<std::string>(value).c_str());
        }
        feature.SetGeometryDirectly(geometryOf(f, content.shape).release());
        if (layer->CreateFeature(&feature) != OGRERR_NONE)
            return fail(ErrorCode::Io, "cannot be written: " + plainReason(lastMessage()), path);
    }
    return {};
}

/// Another one each time in this process.
std::string uniqueNumber() {
    static std::atomic<std::uint64_t> count{0};
    return std::to_string(++count);
}

/// In memory first: this driver does not say when a disk is full.
Result<void> writeGeoJson(const std::string& path, const std::vector<VectorLayer>& layers) {
    const std::string memory = "/vsimem/erdwerk-" + uniqueNumber() + ".geojson";
    const auto fill = [&]() -> Result<void> {
        GDALDriver* driver = GetGDALDriverManager()->GetDriverByName("GeoJSON");
        const Dataset data(driver->Create(memory.c_str(), 0, 0, 0, GDT_Unknown, nullptr));
        if (!data) return fail(ErrorCode::Io, "cannot be written: " + plainReason(lastMessage()), path);
        for (const VectorLayer& layer : layers)
            if (auto done = writeLayer(*data, layer, true, path); !done) return done;
        return {};
    };
    const auto filled = fill();
    vsi_l_offset size = 0;
    GByte* bytes = VSIGetMemFileBuffer(memory.c_str(), &size, TRUE);  // and it is gone
    const std::string content(reinterpret_cast<const char*>(bytes), bytes == nullptr ? 0 : size);
    CPLFree(bytes);
    return filled ? replaceFile(path, content) : filled;
}

}  // namespace

Result<void> writeVectorFile(const std::string& path, const std::vector<VectorLayer>& layers) {
    const GdalScope scope;
    const std::string ending = std::filesystem::path(path).extension().string();
    const bool geoJson = ending == ".geojson" || ending == ".json";
    if (!geoJson && ending != ".gpkg")
        return fail(ErrorCode::Unsupported, "use .gpkg or .geojson for vector data", path);
    if (geoJson) return writeGeoJson(path, layers);
    return replaceFile(path, [&](const std::string& temporary) -> Result<void> {
        GDALDriver* driver = GetGDALDriverManager()->GetDriverByName("GPKG");
        Dataset data(driver->Create(temporary.c_str(), 0, 0, 0, GDT_Unknown, nullptr));
        if (!data) return fail(ErrorCode::Io, "cannot be written: " + plainReason(lastMessage()), path);
        data->StartTransaction();
        for (const VectorLayer& layer : layers)
            if (auto done = writeLayer(*data, layer, false, path); !done) return done;
        if (data->CommitTransaction() != OGRERR_NONE)
            return fail(ErrorCode::Io, "cannot be written: " + plainReason(lastMessage()), path);
        data.reset();
        if (!lastMessage().empty() && !std::filesystem::exists(temporary))
            return fail(ErrorCode::Io, "cannot be written: " + plainReason(lastMessage()), path);
        return {};
    });
}

}  // namespace erdwerk::format
