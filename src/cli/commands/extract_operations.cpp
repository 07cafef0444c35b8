// Commands that give parts of a surface away.

#include <algorithm>

#include "cli/operation.h"
#include "core/format/raster_file.h"
#include "core/terrain/contours.h"
#include "core/terrain/sampling.h"

namespace erdwerk::cli {

namespace {

using format::FieldKind;
using format::Shape;

Result<format::VectorLayer> contourLayer(const terrain::Tin& tin, const Arguments& a) {
    if (a.number("interval") <= 0) return badInput("contours need an --interval");
    const auto lines = terrain::contours(tin, {a.number("interval"), false}, a.context);
    if (!lines) return tl::unexpected(lines.error());
    format::VectorLayer layer{"contours", Shape::LineZ, {{"height", FieldKind::Real}}, {}};
    for (const auto& line : *lines) {
        format::VectorFeature f;
        for (const auto& p : line.places) f.places.push_back({p.x, p.y, line.height});
        f.values = {line.height};
        layer.features.push_back(std::move(f));
    }
    return layer;
}

format::VectorLayer numbered(const std::string& name, Shape shape,
                             std::vector<std::vector<geometry::Vec3>> all) {
    format::VectorLayer layer{name, shape, {{"number", FieldKind::Integer}}, {}};
    for (auto& places : all) {
        format::VectorFeature f;
        f.places = std::move(places);
        f.values = {static_cast<std::int64_t>(layer.features.size() + 1)};
        layer.features.push_back(std::move(f));
    }
    return layer;
}

format::VectorLayer partsOf(const terrain::Tin& tin, const std::string& what) {
    std::vector<std::vector<geometry::Vec3>> all;
    if (what == "points")
        for (const auto& v : tin.vertices()) all.push_back({v});
    if (what == "edge")
        for (const auto& ring : terrain::rimRings(tin)) {
            all.emplace_back();
            for (const std::uint32_t v : ring) all.back().push_back(tin.vertex(v));
        }
    if (what == "triangles")
        for (std::uint32_t t = 0; t < tin.triangleCount(); ++t) {
            const auto corners = tin.triangle(t);
            all.emplace_back(corners.begin(), corners.end());
        }
    return numbered(what, what == "points" ? Shape::PointZ : Shape::PolygonZ, std::move(all));
}

Result<Outcome> extract(const Arguments& a) {
    const auto surface = format::openSurface(a.inputs().front(), a.withJournal);
    if (!surface) return tl::unexpected(surface.error());
    const auto& tin = (*surface)->tin();
    auto layer = a.text("what") == "contours" ? contourLayer(tin, a)
                                              : Result<format::VectorLayer>(partsOf(tin, a.text("what")));
    if (!layer) return tl::unexpected(layer.error());
    const std::size_t features = layer->features.size();
    if (auto done = format::writeVectorFile(a.text("output"), {std::move(*layer)}); !done)
        return tl::unexpected(done.error());
    Outcome out;
    out.json = {{"features", features}};
    return out;
}

Result<Outcome> raster(const Arguments& a) {
    const auto surface = format::openSurface(a.inputs().front(), a.withJournal);
    if (!surface) return tl::unexpected(surface.error());
    const auto sampled = terrain::rasterOf(**surface, a.number("cell"), a.context);
    if (!sampled) return tl::unexpected(sampled.error());
    if (auto done = format::writeRaster(a.text("output"), *sampled, {a.flag("double")}); !done)
        return tl::unexpected(done.error());
    Outcome out;
    out.json = {{"columns", sampled->columns},
                {"rows", sampled->rows},
                {"inside", std::count(sampled->present.begin(), sampled->present.end(), true)}};
    return out;
}

}  // namespace

std::vector<Operation> extractOperations() {
    std::vector<Operation> out;
    out.push_back({"extract", "Parts of a surface as features.",
                   "erdwerk-cli extract ground.ply --what edge -o edge.geojson --json",
                   [](Options& options) {
                       surfaceArgument(options);
                       options.text("--what", "contours, triangles, edge or points")
                           .needed()
                           .among({"contours", "triangles", "edge", "points"});
                       options.number("--interval", "of contours").positive();
                       outputOption(options, "features to write: .gpkg or .geojson");
                   },
                   extract});
    out.push_back({"raster", "A surface as GeoTIFF: heights at cell centres.",
                   "erdwerk-cli raster ground.ply --cell 0.5 -o ground.tif --json",
                   [](Options& options) {
                       surfaceArgument(options);
                       options.number("--cell", "side of a cell").needed().positive();
                       options.flag("--double", "64-bit heights");
                       outputOption(options, "GeoTIFF to write: .tif");
                   },
                   raster});
    return out;
}

}  // namespace erdwerk::cli
