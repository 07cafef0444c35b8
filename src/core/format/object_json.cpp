#include "core/format/object_json.h"

#include <filesystem>
#include <nlohmann/json.hpp>

#include "core/format/attached.h"
#include "core/format/json_place.h"
#include "core/format/ply.h"

namespace erdwerk::format {

using nlohmann::json;
using namespace document;

namespace {

constexpr std::array<const char*, 4> crossingNames{"first", "higher", "lower", "mean"};

json ruleToJson(const linework::HeightRule& rule) {
    using namespace linework;
    if (const auto* r = std::get_if<FixedHeight>(&rule)) return {{"rule", "fixed"}, {"height", r->height}};
    if (const auto* r = std::get_if<GradeFromPrevious>(&rule))
        return {{"rule", "grade"}, {"grade", r->grade.riseOverRun()}};
    if (const auto* r = std::get_if<RiseFromPrevious>(&rule)) return {{"rule", "rise"}, {"rise", r->rise}};
    if (const auto* r = std::get_if<OnSurface>(&rule))
        return {{"rule", "surface"}, {"surface", r->surface.value}, {"amount", r->amount}};
    if (std::holds_alternative<Interpolated>(rule)) return {{"rule", "interpolated"}};
    return {{"rule", "none"}};
}

linework::HeightRule ruleFromJson(const json& j) {
    using namespace linework;
    const std::string rule = j.at("rule");
    if (rule == "fixed") return FixedHeight{j.at("height").get<double>()};
    if (rule == "grade") return GradeFromPrevious{Grade::riseOverRun(j.at("grade").get<double>())};
    if (rule == "rise") return RiseFromPrevious{j.at("rise").get<double>()};
    if (rule == "surface")
        return OnSurface{{j.at("surface").get<std::uint64_t>()}, j.at("amount").get<double>()};
    if (rule == "interpolated") return Interpolated{};
    if (rule == "none") return NoHeight{};
    throw std::runtime_error("unknown height rule '" + rule + "'");
}

std::string inFolder(const std::string& file, const std::string& folder) {
    if (folder.empty()) return file;
    const auto relative = std::filesystem::path(file).lexically_relative(folder);
    return relative.empty() || *relative.begin() == ".." ? file : relative.string();
}

std::string fromFolder(const std::string& file, const std::string& folder) {
    const std::filesystem::path path(file);
    if (path.is_absolute() && !std::filesystem::exists(path)) {
        // A project that was moved with its files beside it.
        const auto beside = std::filesystem::path(folder) / path.filename();
        if (!folder.empty() && std::filesystem::exists(beside)) return beside.string();
    }
    return path.is_absolute() || folder.empty() ? file : (std::filesystem::path(folder) / path).string();
}

struct PayloadToJson {
    std::string folder;
    const Payload* before = nullptr;  ///< what is large and the same in it is not written again

    /// The payload before, when it was of this kind.
    template <class T>
    [[nodiscard]] const T* old() const {
        return before == nullptr ? nullptr : std::get_if<T>(before);
    }

    json operator()(const Cloud& p) const {
        json j{{"file", inFolder(p.file, folder)},
               {"colouring", colouringName(p.colouring)},
               {"classes", p.filter.classes},
               {"spacing", p.spacing}};
        if (!p.filter.inside.empty()) {
            j["crop"] = json::array();
            for (const auto& corner : p.filter.inside) j["crop"].push_back(place(corner));
        }
        const auto* was = old<Cloud>();
        if (was != nullptr && was->cloud == p.cloud && was->file == p.file) {
            j["keeps"] = true;
        } else if (p.classified && p.cloud) {
            std::vector<std::uint8_t> classes(p.cloud->size());
            for (std::size_t i = 0; i < classes.size(); ++i) classes[i] = p.cloud->classOf(i);
            j["classified"] = {{"points", classes.size()}, {"classes", packed(classes)}};
        }
        return j;
    }
    json operator()(const HeightRaster& p) const { return {{"file", inFolder(p.file, folder)}}; }
    json operator()(const Backdrop& p) const {
        return {{"file", inFolder(p.file, folder)}, {"visible", p.visible}};
    }
    json operator()(const Points& p) const {
        json points = json::array();
        for (const auto& block : p.set.blocks())
            for (const auto& point : *block) points.push_back(toJson(point));
        return {{"points", std::move(points)}};
    }
    json operator()(const Line& p) const {
        json vertices = json::array();
        for (const auto& v : p.line.vertices) {
            json j = ruleToJson(v.rule);
            if (v.isCorner) {
                j["at"] = place(v.place);
                if (v.through) j["through"] = place(*v.through);
            } else {
                j["fraction"] = v.fraction;
            }
            vertices.push_back(std::move(j));
        }
        return {{"closed", p.line.closed}, {"style", styleName(p.style)}, {"vertices", std::move(vertices)}};
    }
    json operator()(const Surface& p) const {
        json sources = json::array();
        for (const Source& s : p.definition->sources)
            sources.push_back({{"object", s.object.value},
                               {"role", roleName(s.role)},
                               {"on", s.on},
                               {"ownHeights", s.ownHeights}});
        json edits = json::array();
        for (const SurfaceEdit& e : p.definition->edits)
            edits.push_back({{"edit", editName(e.edit.kind)},
                             {"at", place(e.edit.at)},
                             {"to", json::array({e.edit.to.x, e.edit.to.y, e.edit.to.z})},
                             {"surface", e.surface.value},
                             {"on", e.on}});
        json j{{"sources", std::move(sources)},
               {"maxEdge", p.definition->maxEdge},
               {"interval", p.style.interval},
               {"indexEvery", p.style.indexEvery},
               {"contours", p.style.contours},
               {"triangles", p.style.triangles},
               {"hillshade", p.style.hillshade},
               {"heightColours", p.style.heightColours},
               {"smooth", p.style.smooth},
               {"bands", bandsName(p.style.bands)},
               {"deviation", p.style.deviation},
               {"narrowest", p.definition->narrowest},
               {"onCrossing", crossingNames[static_cast<std::size_t>(p.definition->onCrossing)]},
               {"tolerance", p.definition->tolerance},
               {"slopeChange", p.definition->slopeChange},
               {"edits", std::move(edits)},
               {"fit", {{"source", p.fit.source.value}, {"tolerance", p.fit.tolerance}}}};
        const auto* was = old<Surface>();
        if (was != nullptr && was->definition->imported == p.definition->imported) {
            j["keeps"] = true;
        } else if (p.definition->imported) {
            json vertices = json::array();
            for (const auto& v : p.definition->imported->vertices())
                vertices.insert(vertices.end(), {v.x, v.y, v.z});
            j["imported"] = {{"vertices", std::move(vertices)},
                             {"triangles", p.definition->imported->corners()}};
        }
        return j;
    }
    json operator()(const Alignment& p) const {
        return {{"line", p.line.value},
                {"reversed", p.reversed},
                {"startStation", p.startStation},
                {"tickInterval", p.tickInterval}};
    }
    json operator()(const Profile& p) const {
        json pvis = json::array();
        for (const auto& pvi : p.design)
            pvis.push_back(
                {{"station", pvi.station}, {"height", pvi.height}, {"curveLength", pvi.curveLength}});
        return {{"alignment", p.alignment.value},
                {"ground", p.ground.value},
                {"design", std::move(pvis)},
                {"exaggeration", p.exaggeration}};
    }
    json operator()(const Parcel& p) const {
        return {
            {"line", p.line.value}, {"reversed", p.reversed}, {"begin", p.begin}, {"beginning", p.beginning}};
    }
    json operator()(const LabelStyle& p) const {
        json fields = json::array();
        for (const auto& f : p.style.fields)
            fields.push_back({{"field", annotate::fieldName(f.field)},
                              {"prefix", f.prefix},
                              {"decimals", f.decimals},
                              {"above", f.above}});
        return {{"for", annotate::kindName(p.style.kind)}, {"fields", std::move(fields)}};
    }
    json operator()(const Label& p) const {
        return {{"target", p.target.value}, {"part", p.part}, {"style", p.style.value}};
    }
    json operator()(const Sheet& p) const {
        return {{"paper", paperName(p.paper)}, {"scale", p.scale},     {"centre", place(p.centre)},
                {"parcel", p.parcel.value},    {"project", p.project}, {"title", p.title},
                {"drawnBy", p.drawnBy},        {"date", p.date}};
    }
    json operator()(const Group& p) const { return {{"colour", p.colour}, {"visible", p.visible}}; }
};

ObjectId idFrom(const json& j, const char* key) {
    return {j.at(key).get<std::uint64_t>()};
}

template <class Names>
auto fromName(const std::string& name, const Names& all,
              std::string_view (*nameOf)(typename Names::value_type)) {
    for (const auto value : all)
        if (nameOf(value) == name) return value;
    throw std::runtime_error("unknown word '" + name + "'");
}

Payload lineFrom(const json& j) {
    Line out;
    out.line.closed = j.at("closed");
    out.style = fromName(j.value("style", "plain"),
                         std::vector{LineStyle::Plain, LineStyle::Crest, LineStyle::Toe}, styleName);
    for (const json& v : j.at("vertices")) {
        linework::LineVertex vertex;
        vertex.rule = ruleFromJson(v);
        vertex.isCorner = v.contains("at");
        if (vertex.isCorner) {
            vertex.place = place(v.at("at"));
            if (v.contains("through")) vertex.through = place(v.at("through"));
        } else {
            vertex.fraction = v.at("fraction");
        }
        out.line.vertices.push_back(vertex);
    }
    if (const auto problem = validate(out.line)) throw std::runtime_error(*problem);
    return out;
}

/// What an object written with `keeps` shares with the one before.
template <class T>
const T* kept(const json& j, const Payload* before) {
    if (!j.value("keeps", false)) return nullptr;
    const T* old = before == nullptr ? nullptr : std::get_if<T>(before);
    if (old == nullptr) throw std::runtime_error("what it shares with the state before is not there");
    return old;
}

Payload surfaceFrom(const json& j, const Payload* before) {
    SurfaceDefinition definition;
    for (const json& s : j.at("sources"))
        definition.sources.push_back({idFrom(s, "object"), fromName(s.at("role"), allRoles, roleName),
                                      s.value("on", true), s.value("ownHeights", true)});
    definition.maxEdge = j.at("maxEdge");
    definition.narrowest = j.value("narrowest", 1e-6);
    definition.tolerance = j.value("tolerance", 0.0);
    definition.slopeChange = j.value("slopeChange", 0.0);
    if (!(definition.tolerance >= 0)) throw std::runtime_error("the tolerance must not be below 0");
    const std::string rule = j.value("onCrossing", "first");
    const auto known = std::find(crossingNames.begin(), crossingNames.end(), rule);
    if (known == crossingNames.end()) throw std::runtime_error("unknown word '" + rule + "'");
    definition.onCrossing = static_cast<terrain::CrossingRule>(known - crossingNames.begin());
    for (const json& e : j.value("edits", json::array())) {
        SurfaceEdit edit;
        std::vector<terrain::EditKind> kinds;
        for (int k = 0; k <= static_cast<int>(terrain::EditKind::TakeOver); ++k)
            kinds.push_back(static_cast<terrain::EditKind>(k));
        edit.edit.kind = fromName(e.at("edit"), kinds, editName);
        edit.edit.at = place(e.at("at"));
        edit.edit.to = {e.at("to").at(0), e.at("to").at(1), e.at("to").at(2)};
        edit.surface = idFrom(e, "surface");
        edit.on = e.at("on");
        definition.edits.push_back(edit);
    }
    if (const auto* old = kept<Surface>(j, before)) {
        definition.imported = old->definition->imported;
    } else if (j.contains("imported")) {
        const auto flat = j.at("imported").at("vertices").get<std::vector<double>>();
        std::vector<geometry::Vec3> vertices;
        for (std::size_t i = 0; i + 2 < flat.size(); i += 3)
            vertices.push_back({flat[i], flat[i + 1], flat[i + 2]});
        auto tin = surfaceFromTriangles(
            std::move(vertices), j.at("imported").at("triangles").get<std::vector<std::uint32_t>>(), "");
        if (!tin) throw std::runtime_error(tin.error().text);
        definition.imported = std::make_shared<const terrain::Tin>(std::move(*tin));
    }
    SurfaceStyle style{j.at("interval"),  j.at("indexEvery"), j.at("contours"),
                       j.at("triangles"), j.at("hillshade"),  j.at("heightColours")};
    if (!(style.interval > 0)) throw std::runtime_error("the contour interval must be above 0");
    style.smooth = j.value("smooth", false);
    style.bands =
        fromName(j.value("bands", "none"),
                 std::vector{Bands::None, Bands::Height, Bands::Slope, Bands::Direction}, bandsName);
    style.deviation = j.value("deviation", false);
    Surface surface{std::make_shared<const SurfaceDefinition>(std::move(definition)), style, {}};
    if (j.contains("fit")) {
        surface.fit.source = idFrom(j.at("fit"), "source");
        surface.fit.tolerance = j.at("fit").at("tolerance");
        if (!(surface.fit.tolerance > 0)) throw std::runtime_error("the tolerance must be above 0");
    }
    return surface;
}

Payload labelStyleFrom(const json& j) {
    using annotate::LabelKind;
    LabelStyle out;
    out.style.kind = fromName(
        j.at("for"), std::vector{LabelKind::Segment, LabelKind::Curve, LabelKind::Point}, annotate::kindName);
    for (const json& f : j.at("fields"))
        out.style.fields.push_back(
            {fromName(f.at("field"), annotate::fieldsOf(out.style.kind), annotate::fieldName), f.at("prefix"),
             f.at("decimals"), f.at("above")});
    return out;
}

Payload cloudFrom(const json& j, const std::string& folder, const Payload* before) {
    Cloud out;
    out.file = fromFolder(j.at("file"), folder);
    out.colouring = fromName(j.at("colouring"),
                             std::vector{CloudColouring::Height, CloudColouring::Class,
                                         CloudColouring::Intensity, CloudColouring::Colour},
                             colouringName);
    out.filter.classes = j.at("classes").get<std::vector<std::uint8_t>>();
    out.spacing = j.at("spacing");
    for (const json& corner : j.value("crop", json::array())) out.filter.inside.push_back(place(corner));
    if (const auto* old = kept<Cloud>(j, before)) {
        out.cloud = old->cloud;
        out.problem = old->problem;
        out.classified = old->classified;
        return out;
    }
    auto cloud = attachedCloud(out.file);
    if (!cloud) {
        out.problem = cloud.error().text;
        return out;
    }
    out.cloud = std::move(*cloud);
    if (!j.contains("classified")) return out;
    const auto points = j.at("classified").at("points").get<std::size_t>();
    if (points != out.cloud->size()) {
        out.problem = "the file changed; what was classified no longer fits it";
        return out;
    }
    const auto classes = unpacked(j.at("classified").at("classes").get<std::string>(), points);
    if (!classes) throw std::runtime_error(classes.error().text);
    auto shared = std::make_shared<std::uint8_t[]>(points);
    std::copy(classes->begin(), classes->end(), shared.get());
    out.cloud = std::make_shared<const survey::PointCloud>(out.cloud->withClasses(std::move(shared)));
    out.classified = true;
    return out;
}

Payload rasterFrom(const json& j, const std::string& folder) {
    HeightRaster out;
    out.file = fromFolder(j.at("file"), folder);
    if (auto raster = attachedRaster(out.file))
        out.raster = std::move(*raster);
    else
        out.problem = raster.error().text;
    return out;
}

Payload backdropFrom(const json& j, const std::string& folder) {
    Backdrop out;
    out.file = fromFolder(j.at("file"), folder);
    out.visible = j.at("visible");
    if (auto picture = attachedPicture(out.file))
        out.picture = std::move(*picture);
    else
        out.problem = picture.error().text;
    return out;
}

Payload payloadFrom(const std::string& kind, const json& j, const std::string& folder,
                    const Payload* before) {
    if (kind == "points") {
        std::vector<survey::SurveyPoint> points;
        for (const json& p : j.at("points")) {
            auto point = pointFromJson(p);
            if (!point) throw std::runtime_error(point.error().text);
            points.push_back(std::move(*point));
        }
        return Points{survey::PointSet(std::move(points))};
    }
    if (kind == "line") return lineFrom(j);
    if (kind == "surface") return surfaceFrom(j, before);
    if (kind == "alignment")
        return Alignment{idFrom(j, "line"), j.at("reversed"), j.at("startStation"), j.at("tickInterval")};
    if (kind == "profile") {
        Profile out{idFrom(j, "alignment"), idFrom(j, "ground"), {}, j.at("exaggeration")};
        for (const json& p : j.at("design"))
            out.design.push_back({p.at("station"), p.at("height"), p.at("curveLength")});
        return out;
    }
    if (kind == "parcel")
        return Parcel{idFrom(j, "line"), j.at("reversed"), j.at("begin"), j.at("beginning")};
    if (kind == "label-style") return labelStyleFrom(j);
    if (kind == "label") return Label{idFrom(j, "target"), j.at("part"), idFrom(j, "style")};
    if (kind == "sheet")
        return Sheet{fromName(j.at("paper"), std::vector{Paper::A4, Paper::A3, Paper::A1}, paperName),
                     j.at("scale"),
                     place(j.at("centre")),
                     idFrom(j, "parcel"),
                     j.at("project"),
                     j.at("title"),
                     j.at("drawnBy"),
                     j.at("date")};
    if (kind == "cloud") return cloudFrom(j, folder, before);
    if (kind == "raster") return rasterFrom(j, folder);
    if (kind == "backdrop") return backdropFrom(j, folder);
    if (kind == "group") return Group{j.at("colour"), j.at("visible")};
    throw std::runtime_error("unknown kind '" + kind + "'");
}

}  // namespace

json toJson(const survey::SurveyPoint& p) {
    json j = json::array({p.number, p.plan.x, p.plan.y, nullptr, p.code, p.note});
    if (p.height) j[3] = *p.height;
    return j;
}

Result<survey::SurveyPoint> pointFromJson(const json& j) {
    try {
        survey::SurveyPoint p{j.at(0), {j.at(1), j.at(2)}, std::nullopt, j.at(4), j.at(5)};
        if (!j.at(3).is_null()) p.height = j.at(3).get<double>();
        return p;
    } catch (const std::exception& e) {
        return badInput(std::string("a point is damaged: ") + e.what());
    }
}

json toJson(const Object& object, const std::string& folder, const Object* before) {
    json j =
        std::visit(PayloadToJson{folder, before == nullptr ? nullptr : &before->payload}, object.payload);
    j["kind"] = kindName(object.payload);
    j["id"] = object.id.value;
    j["name"] = object.name;
    j["group"] = object.group.value;
    return j;
}

Result<Object> objectFromJson(const json& j, const std::string& folder, const Object* before) {
    std::string name = "an object";
    try {
        Object object{idFrom(j, "id"), j.at("name"), idFrom(j, "group"), Group{}};
        name = "'" + object.name + "'";
        if (!object.id) throw std::runtime_error("its id is 0");
        object.payload = payloadFrom(j.at("kind"), j, folder, before == nullptr ? nullptr : &before->payload);
        return object;
    } catch (const std::exception& e) {
        return badInput(name + " is damaged: " + e.what());
    }
}

}  // namespace erdwerk::format
