// Commands that find something in a cloud: its figures, its ground, its creases.

#include <algorithm>
#include <filesystem>
#include <numbers>

#include "cli/operation.h"
#include "core/format/cloud_file.h"
#include "core/format/dense.h"
#include "core/format/las.h"
#include "core/terrain/crease.h"
#include "core/terrain/ground.h"
#include "core/terrain/sampling.h"

namespace erdwerk::cli {

namespace {

using nlohmann::ordered_json;

Result<Outcome> cloudInfo(const Arguments& a) {
    const std::string& file = a.inputs().front();
    const auto cloud = format::readCloud(file, a.context);
    if (!cloud) return tl::unexpected(cloud.error());
    const auto header = format::readLasHeader(file);
    ordered_json classes = ordered_json::object();
    const auto counts = cloud->classCounts();
    for (std::size_t c = 0; c < counts.size(); ++c)
        if (counts[c] > 0) classes[std::to_string(c)] = counts[c];
    std::array<std::size_t, 16> returnCounts{};
    for (std::size_t i = 0; i < cloud->size(); ++i)
        ++returnCounts[static_cast<std::size_t>(cloud->returnNumber(i))];
    ordered_json returns = ordered_json::object();
    for (std::size_t r = 0; r < returnCounts.size(); ++r)
        if (returnCounts[r] > 0) returns[std::to_string(r)] = returnCounts[r];
    const auto corner = [&](const geometry::Vec3& p) {
        return cloud->empty() ? ordered_json(nullptr) : ordered_json{p.x, p.y, p.z};
    };
    Outcome out;
    out.json = {{"points", cloud->size()},
                {"version", header ? ordered_json(header->version()) : ordered_json(nullptr)},
                {"pointFormat", header ? ordered_json(header->pointFormat) : ordered_json(nullptr)},
                {"min", corner(cloud->min())},
                {"max", corner(cloud->max())},
                {"classes", classes},
                {"returns", returns}};
    return out;
}

Result<Outcome> ground(const Arguments& a) {
    const std::string& file = a.inputs().front();
    const auto cloud = format::readLas(file, a.context);
    if (!cloud) return tl::unexpected(cloud.error());
    const auto classes = terrain::groundClasses(*cloud, {}, a.context);
    if (!classes && classes.error().code == ErrorCode::Cancelled) return tl::unexpected(classes.error());
    if (!classes) return badInput(classes.error().text, file, 1);
    if (auto done = format::writeLasWithClasses(file, a.text("output"), *classes); !done)
        return tl::unexpected(done.error());
    const auto count = std::count(classes->begin(), classes->end(), survey::cloud_class::ground);
    Outcome out;
    out.json = {{"ground", count}, {"other", static_cast<std::ptrdiff_t>(cloud->size()) - count}};
    return out;
}

/// A surface file as it is; anything else triangulated.
Result<std::shared_ptr<const terrain::TinLocator>> denseSurface(const std::string& source,
                                                                const Arguments& a) {
    const std::string ending = std::filesystem::path(source).extension().string();
    if (ending == ".ply" || ending == ".xml" || source.find(".erdwerk") != std::string::npos) {
        auto surface = format::openSurface(source, a.withJournal);
        if (surface || ending != ".ply") return surface;
    }
    auto points = format::readDense(source, classFilter(a), a.context);
    if (!points) return tl::unexpected(points.error());
    terrain::BuildInput input;
    input.points = std::move(*points);
    auto built = terrain::triangulate(input, a.context);
    if (!built && built.error().code == ErrorCode::Cancelled) return tl::unexpected(built.error());
    if (!built) return badInput(built.error().text, source, 1);
    return std::make_shared<const terrain::TinLocator>(
        std::make_shared<const terrain::Tin>(std::move(built->tin)));
}

Result<Outcome> creases(const Arguments& a) {
    const auto surface = denseSurface(a.inputs().front(), a);
    if (!surface) return tl::unexpected(surface.error());
    const double spacing = terrain::meanSpacing((*surface)->tin());
    auto grid = terrain::gridOf(**surface, (*surface)->tin().bounds(), spacing, a.context);
    if (!grid) return tl::unexpected(grid.error());
    const terrain::CreaseField field(std::move(*grid));
    const double deviation = a.number("deviation") > 0 ? a.number("deviation") : spacing / 2;
    const auto found = terrain::findCreases(
        field, {a.number("min-angle") * degree, a.number("min-length"), deviation}, a.context);
    if (a.context.isCancelled()) return cancelled();
    format::VectorLayer layer{"creases",
                              format::Shape::LineZ,
                              {{"kind", format::FieldKind::Text}, {"angle", format::FieldKind::Real}},
                              {}};
    double length = 0;
    for (const auto& crease : found) {
        format::VectorFeature f;
        f.places = crease.places;
        if (crease.closed) f.places.push_back(f.places.front());
        for (auto& p : f.places)
            if (const auto h = (*surface)->heightAt(p.plan())) p.z = *h;
        for (std::size_t i = 0; i + 1 < f.places.size(); ++i)
            length += geometry::distance(f.places[i].plan(), f.places[i + 1].plan());
        f.values = {std::string(crease.kind == terrain::CreaseKind::Crest ? "crest" : "toe"),
                    crease.bend / degree};
        layer.features.push_back(std::move(f));
    }
    if (auto done = format::writeVectorFile(a.text("output"), {layer}); !done)
        return tl::unexpected(done.error());
    Outcome out;
    out.json = {{"lines", found.size()}, {"length", length}};
    return out;
}

}  // namespace

std::vector<Operation> cloudOperations() {
    std::vector<Operation> out;
    out.push_back({"cloud-info", "Figures of a point cloud.",
                   "erdwerk-cli cloud-info data/demo/knoll.las --json",
                   [](Options& options) {
                       options.inputs("cloud", "a cloud: .las, .ply or text x y z").needed().count(1);
                   },
                   cloudInfo});
    out.push_back({"ground", "Classify the ground points of a cloud; nothing else in the file changes.",
                   "erdwerk-cli ground data/demo/knoll.las -o knoll-ground.las --json",
                   [](Options& options) {
                       options.inputs("cloud", "a .las file").needed().count(1);
                       outputOption(options, "the .las file to write");
                   },
                   ground});
    out.push_back({"creases", "Crests and toes in dense heights.",
                   "erdwerk-cli creases data/demo/knoll.las --min-angle 25 -o creases.gpkg --json",
                   [](Options& options) {
                       denseArgument(options);
                       classesOption(options);
                       options.number("--min-angle", "degrees between the ground on both sides (25)")
                           .defaultsTo(25)
                           .between(1.0, 90.0);
                       options.number("--min-length", "shortest line (5)").defaultsTo(5).notNegative();
                       options
                           .number(
                               "--deviation",
                               "of the simplified line, in plan and height (half the spacing of the source)")
                           .positive();
                       outputOption(options, "lines to write: .gpkg or .geojson");
                   },
                   creases});
    return out;
}

}  // namespace erdwerk::cli
