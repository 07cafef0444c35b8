#include "core/format/export.h"

#include <algorithm>

#include "core/derive/surface_result.h"
#include "core/format/import.h"
#include "core/format/mesh_file.h"
#include "core/format/output.h"
#include "core/format/ply.h"
#include "core/format/project_file.h"
#include "core/format/project_layers.h"
#include "core/format/project_lock.h"
#include "core/format/raster_file.h"
#include "core/objects/points.h"
#include "core/terrain/sampling.h"

namespace erdwerk::format {

using document::Document;

namespace {

std::size_t countAll(const Document& document, std::initializer_list<std::string_view> kinds) {
    return static_cast<std::size_t>(
        std::count_if(document.objects().begin(), document.objects().end(), [&](const auto& entry) {
            return std::find(kinds.begin(), kinds.end(), kindName(entry.second->payload)) != kinds.end();
        }));
}

std::vector<std::string> leftBehind(const Document& document, std::initializer_list<std::string_view> kinds) {
    std::vector<std::string> left;
    for (const auto kind : kinds)
        if (const auto n = countAll(document, {kind}); n > 0)
            left.push_back(std::to_string(n) + " " + std::string(kind) +
                           (n > 1 && kind != "points" ? "s" : ""));
    return left;
}

}  // namespace

Result<std::vector<std::string>> exportFile(const std::string& path, const derive::Derived& derived,
                                            Figures figures) {
    const Document& document = derived.document;
    const std::string ending = endingOf(path);
    Result<void> done;
    std::vector<std::string> left;
    if (ending == ".erdwerk") {
        if (const auto holder = lockHolder(canonicalPath(path)))
            return fail(ErrorCode::Busy, "is open: " + holder->text() + "; write to another name", path);
        auto stamp = saveProject(path, derived);
        if (!stamp) return tl::unexpected(stamp.error());
    } else if (ending == ".xml") {
        const LandXml content = landXmlOf(derived);
        left = content.left;
        done = writeLandXml(path, content, document.settings().name);
    } else if (ending == ".gpkg") {
        done = exportGeoPackage(path, derived);
        left = leftBehind(document, {"profile", "label", "sheet", "cloud", "raster", "backdrop"});
    } else if (ending == ".geojson") {
        // One layer only: the lines, or the points when there are no lines.
        const bool lines = !derived.lines.empty();
        std::size_t chorded = 0;
        auto layers = projectLayers(derived, true);
        std::erase_if(layers, [](const VectorLayer& l) { return l.name != "survey_points"; });
        if (lines) layers = {chordedLines(derived, &chorded)};
        if (layers.empty()) return badInput("there are no lines or points to write", path);
        done = writeVectorFile(path, layers);
        left = leftBehind(document, {"surface", "alignment", "profile", "parcel", "label", "sheet", "cloud",
                                     "raster", "backdrop"});
        if (lines)
            for (auto& text : leftBehind(document, {"points"})) left.push_back(text);
        if (chorded > 0)
            left.push_back("the arcs of " + std::to_string(chorded) + (chorded == 1 ? " line" : " lines") +
                           ", which became chords");
    } else if (ending == ".csv") {
        std::vector<survey::SurveyPoint> all;
        for (const auto id : document.all<objects::Points>()) {
            const auto points = document.get<objects::Points>(id)->set.all();
            all.insert(all.end(), points.begin(), points.end());
        }
        done = replaceFile(
            path, writePoints(all, figures == Figures::AsShown ? &document.settings().display : nullptr));
        left = leftBehind(document, {"line", "surface", "alignment", "profile", "parcel", "label", "sheet",
                                     "cloud", "raster", "backdrop"});
    } else if (ending == ".obj" || ending == ".glb") {
        std::vector<NamedTin> surfaces;
        for (const auto& [id, surface] : derived.surfaces)
            if (surface->locator) surfaces.push_back({document.nameOf(id), &surface->locator->tin()});
        if (surfaces.empty()) return badInput("there is no surface to write", path);
        done = ending == ".obj" ? writeObj(path, surfaces)
                                : writeGlb(path, surfaces, metresPer(document.settings().display.unit));
        left = leftBehind(document, {"points", "line", "alignment", "profile", "parcel", "label", "sheet",
                                     "cloud", "raster", "backdrop"});
    } else {
        return fail(ErrorCode::Unsupported,
                    "the ending must be .erdwerk, .xml, .gpkg, .geojson, .csv, .obj or .glb", path);
    }
    if (!done) return tl::unexpected(done.error());
    return left;
}

Result<void> exportSurface(const std::string& path, const derive::Derived& derived, ObjectId surface,
                           double cell) {
    const auto* locator = derived.surface(surface);
    if (locator == nullptr) return badInput("there is no surface to write", path);
    const std::string name = derived.document.nameOf(surface);
    const std::string ending = endingOf(path);
    if (ending == ".ply") return writePly(path, locator->tin());
    if (ending == ".obj") return writeObj(path, {{name, &locator->tin()}});
    if (ending == ".glb")
        return writeGlb(path, {{name, &locator->tin()}}, metresPer(derived.document.settings().display.unit));
    if (ending == ".tif") {
        const auto raster =
            terrain::rasterOf(*locator, cell > 0 ? cell : roundStep(terrain::meanSpacing(locator->tin())));
        if (!raster) return tl::unexpected(raster.error());
        return writeRaster(path, *raster, {});
    }
    if (ending == ".xml") {
        LandXml all = landXmlOf(derived);
        LandXml one;
        one.unit = all.unit;
        for (auto& s : all.surfaces)
            if (s.name == name && one.surfaces.empty()) one.surfaces.push_back(std::move(s));
        return writeLandXml(path, one, derived.document.settings().name);
    }
    return fail(ErrorCode::Unsupported, "a surface is written as .xml, .ply, .obj, .glb or .tif", path);
}

}  // namespace erdwerk::format
