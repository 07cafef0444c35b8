#include "core/objects/surface.h"
#include "core/derive/derived.h"
#include "core/format/objects/json_kind.h"
#include "core/format/ply.h"
#include "core/terrain/build.h"
#include "core/terrain/own_edits.h"

namespace erdwerk::format {

using namespace objects;

namespace {

constexpr std::array<const char*, 4> crossingNames{"first", "higher", "lower", "mean"};

}  // namespace

template <>
json Json<Surface>::write(const Surface& p, const JsonContext<Surface>& c) {
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
           {"before", p.style.before},
           {"bands", bandsName(p.style.bands)},
           {"deviation", p.style.deviation},
           {"narrowest", p.definition->narrowest},
           {"onCrossing", crossingNames[static_cast<std::size_t>(p.definition->onCrossing)]},
           {"tolerance", p.definition->tolerance},
           {"slopeChange", p.definition->slopeChange},
           {"edits", std::move(edits)},
           {"base", p.definition->base.value},
           {"fit", {{"source", p.fit.source.value}, {"tolerance", p.fit.tolerance}}}};
    const auto* was = c.before;
    if (was != nullptr && was->definition->imported == p.definition->imported) {
        j["keeps"] = true;
    } else if (p.definition->imported) {
        json vertices = json::array();
        for (const auto& v : p.definition->imported->vertices())
            vertices.insert(vertices.end(), {v.x, v.y, v.z});
        j["imported"] = {{"vertices", std::move(vertices)}, {"triangles", p.definition->imported->corners()}};
    }
    return j;
}

namespace {

SurfaceStyle styleFrom(const json& j) {
    SurfaceStyle style;
    style.interval = figure(j.at("interval"));
    style.indexEvery = static_cast<int>(whole(j.at("indexEvery")));
    style.contours = flag(j.at("contours"));
    style.triangles = flag(j.at("triangles"));
    style.hillshade = flag(j.at("hillshade"));
    style.heightColours = flag(j.at("heightColours"));
    if (!(style.interval > 0)) throw std::runtime_error("the contour interval must be above 0");
    style.smooth = j.value("smooth", false);
    style.before = j.value("before", true);
    style.bands =
        fromName(j.value("bands", "none"),
                 std::vector{Bands::None, Bands::Height, Bands::Slope, Bands::Direction}, bandsName);
    style.deviation = j.value("deviation", false);
    return style;
}

}  // namespace

template <>
Surface Json<Surface>::read(const json& j, const JsonContext<Surface>& c) {
    SurfaceDefinition definition;
    for (const json& s : j.at("sources"))
        definition.sources.push_back({idFrom(s, "object"), fromName(word(s.at("role")), allRoles, roleName),
                                      s.value("on", true), s.value("ownHeights", true)});
    if (j.contains("base")) definition.base = idFrom(j, "base");
    definition.maxEdge = figure(j.at("maxEdge"));
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
        edit.edit.kind = fromName(word(e.at("edit")), kinds, editName);
        edit.edit.at = place(e.at("at"));
        edit.edit.to = {figure(e.at("to").at(0)), figure(e.at("to").at(1)), figure(e.at("to").at(2))};
        edit.surface = idFrom(e, "surface");
        edit.on = flag(e.at("on"));
        definition.edits.push_back(edit);
    }
    if (const auto* old = kept(j, c.before)) {
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
    Surface surface{std::make_shared<const SurfaceDefinition>(std::move(definition)), styleFrom(j), {}};
    if (j.contains("fit")) {
        surface.fit.source = idFrom(j.at("fit"), "source");
        surface.fit.tolerance = figure(j.at("fit").at("tolerance"));
        if (!(surface.fit.tolerance > 0)) throw std::runtime_error("the tolerance must be above 0");
    }
    return surface;
}

}  // namespace erdwerk::format
