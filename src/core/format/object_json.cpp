#include "core/format/object_json.h"

#include <nlohmann/json.hpp>

#include "core/format/ply.h"

namespace erdwerk::format {

using nlohmann::json;
using namespace document;

namespace {

json place(geometry::Vec2 p) {
    return json::array({p.x, p.y});
}
geometry::Vec2 place(const json& j) {
    return {j.at(0).get<double>(), j.at(1).get<double>()};
}

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

struct PayloadToJson {
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
            sources.push_back({{"object", s.object.value}, {"role", roleName(s.role)}});
        json j{{"sources", std::move(sources)},  {"maxEdge", p.definition->maxEdge},
               {"interval", p.style.interval},   {"indexEvery", p.style.indexEvery},
               {"contours", p.style.contours},   {"triangles", p.style.triangles},
               {"hillshade", p.style.hillshade}, {"heightColours", p.style.heightColours}};
        if (p.definition->imported) {
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

Payload surfaceFrom(const json& j) {
    SurfaceDefinition definition;
    for (const json& s : j.at("sources"))
        definition.sources.push_back(
            {idFrom(s, "object"),
             fromName(s.at("role"), std::vector{Role::Points, Role::Breakline, Role::Edge}, roleName)});
    definition.maxEdge = j.at("maxEdge");
    if (j.contains("imported")) {
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
    return Surface{std::make_shared<const SurfaceDefinition>(std::move(definition)), style};
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

Payload payloadFrom(const std::string& kind, const json& j) {
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
    if (kind == "surface") return surfaceFrom(j);
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

json toJson(const Object& object) {
    json j = std::visit(PayloadToJson{}, object.payload);
    j["kind"] = kindName(object.payload);
    j["id"] = object.id.value;
    j["name"] = object.name;
    j["group"] = object.group.value;
    return j;
}

Result<Object> objectFromJson(const json& j) {
    std::string name = "an object";
    try {
        Object object{idFrom(j, "id"), j.at("name"), idFrom(j, "group"), Group{}};
        name = "'" + object.name + "'";
        if (!object.id) throw std::runtime_error("its id is 0");
        object.payload = payloadFrom(j.at("kind"), j);
        return object;
    } catch (const std::exception& e) {
        return badInput(name + " is damaged: " + e.what());
    }
}

json toJson(const Settings& s) {
    const DisplaySettings& d = s.display;
    return {{"name", s.name},
            {"unit", unitSymbol(d.unit)},
            {"direction", d.direction == DirectionStyle::Bearing ? "bearing" : "azimuth"},
            {"angleUnit", d.angleUnit == AngleUnit::Gon
                              ? "gon"
                              : (d.angleUnit == AngleUnit::DecimalDegrees ? "degrees" : "dms")},
            {"station", d.station == StationStyle::Thousands ? "0+000" : "0+00"},
            {"order", d.order == CoordinateOrder::EastingNorthing ? "EN" : "NE"},
            {"lengthDecimals", d.lengthDecimals},
            {"heightDecimals", d.heightDecimals},
            {"gradeDecimals", d.gradeDecimals}};
}

Result<Settings> settingsFromJson(const json& j) {
    try {
        Settings s;
        s.name = j.at("name");
        const auto unit = unitFromSymbol(j.at("unit").get<std::string>());
        if (!unit) throw std::runtime_error("unknown unit");
        s.display.unit = *unit;
        s.display.direction =
            j.at("direction") == "azimuth" ? DirectionStyle::Azimuth : DirectionStyle::Bearing;
        const std::string angle = j.at("angleUnit");
        s.display.angleUnit = angle == "gon" ? AngleUnit::Gon
                                             : (angle == "degrees" ? AngleUnit::DecimalDegrees
                                                                   : AngleUnit::DegreesMinutesSeconds);
        s.display.station = j.at("station") == "0+00" ? StationStyle::Hundreds : StationStyle::Thousands;
        s.display.order =
            j.at("order") == "NE" ? CoordinateOrder::NorthingEasting : CoordinateOrder::EastingNorthing;
        s.display.lengthDecimals = j.at("lengthDecimals");
        s.display.heightDecimals = j.at("heightDecimals");
        s.display.gradeDecimals = j.at("gradeDecimals");
        return s;
    } catch (const std::exception& e) {
        return badInput(std::string("the settings are damaged: ") + e.what());
    }
}

}  // namespace erdwerk::format
