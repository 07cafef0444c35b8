// Commands on dense heights: clouds, rasters, and surfaces made from them.

#include <cmath>
#include <numbers>

#include "cli/operation.h"
#include "core/format/cloud_file.h"
#include "core/format/dense.h"
#include "core/format/las.h"
#include "core/terrain/clip.h"
#include "core/terrain/fit.h"
#include "core/terrain/thin.h"

namespace erdwerk::cli {

namespace {

using nlohmann::ordered_json;

constexpr double degree = std::numbers::pi / 180;

Result<Outcome> cloudInfo(const Arguments& a) {
    const std::string& file = a.inputs.front();
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

Result<Outcome> thin(const Arguments& a) {
    const std::string& source = a.inputs.front();
    const auto points = format::readDense(source, classFilter(a), a.context);
    if (!points) return tl::unexpected(points.error());
    terrain::ThinOptions options;
    options.tolerance = a.tolerance;
    options.slopeChange = a.slopeChange * degree;
    auto lines = readBreaklines(a.lines);
    if (!lines) return tl::unexpected(lines.error());
    options.lines = std::move(*lines);
    if (!a.boundary.empty()) {
        auto boundary = readBoundary(a.boundary);
        if (!boundary) return tl::unexpected(boundary.error());
        options.boundary = std::move(*boundary);
    }
    const auto thinned = terrain::thin(*points, options, a.context);
    if (!thinned && thinned.error().code == ErrorCode::Cancelled) return tl::unexpected(thinned.error());
    if (!thinned) return badInput(thinned.error().text, source, 1);
    if (auto done = writeSurface(a.output, thinned->tin); !done) return tl::unexpected(done.error());
    Outcome out;
    out.json = {{"pointsIn", thinned->pointsIn},
                {"pointsKept", thinned->tin.vertexCount()},
                {"triangles", thinned->tin.triangleCount()},
                {"largestDeviation", thinned->largestDeviation},
                {"excused", thinned->excused},
                {"beyond", thinned->beyond},
                {"outside", thinned->outside}};
    out.dataIsWrong = thinned->beyond > 0;
    if (thinned->contradicting > 0)
        say(std::to_string(thinned->contradicting) +
            " points lie in the place of another at a height that differs by more than the tolerance");
    return out;
}

Result<Outcome> fit(const Arguments& a) {
    const auto surface = format::openSurface(a.inputs.front());
    if (!surface) return tl::unexpected(surface.error());
    const auto points = format::readDense(a.source, classFilter(a), a.context);
    if (!points) return tl::unexpected(points.error());
    const auto deviations = terrain::deviationsOf(**surface, *points, a.context);
    if (!deviations) return tl::unexpected(deviations.error());
    const auto f = terrain::figuresOf(*deviations, a.tolerance);
    if (f.points == 0) return badInput("none of its points lies on the surface", a.source, 1);
    Outcome out;
    out.json = {{"points", f.points},
                {"outside", f.outside},
                {"mean", f.mean},
                {"rms", f.rms},
                {"largestUp", f.largestUp},
                {"largestDown", f.largestDown},
                {"p95", f.p95},
                {"within", a.tolerance > 0 ? ordered_json(f.withinShare()) : ordered_json(nullptr)}};
    out.dataIsWrong = a.tolerance > 0 && f.within < f.points;
    return out;
}

void denseArgument(CLI::App& app, Arguments& a) {
    app.add_option("source", a.inputs, "a cloud (.las, .ply, text x y z), raster (.tif, .asc) or surface")
        ->required()
        ->expected(1);
}

void classesOption(CLI::App& app, Arguments& a) {
    app.add_option("--classes", a.classes, "classes of a cloud that take part (all)")
        ->delimiter(',')
        ->check(CLI::Range(0, 255));
}

}  // namespace

std::vector<Operation> denseOperations() {
    std::vector<Operation> out;
    out.push_back(
        {"cloud-info", "Figures of a point cloud.", "erdwerk-cli cloud-info data/demo/knoll.las --json",
         [](CLI::App& app, Arguments& a) {
             app.add_option("cloud", a.inputs, "a cloud: .las, .ply or text x y z")->required()->expected(1);
         },
         cloudInfo});
    out.push_back(
        {"thin", "The fewest triangles within a tolerance of all points.",
         "erdwerk-cli thin data/demo/knoll.las --classes 2 --tolerance 0.1 -o knoll.ply",
         [](CLI::App& app, Arguments& a) {
             denseArgument(app, a);
             classesOption(app, a);
             app.add_option("--tolerance", a.tolerance, "greatest deviation in height")
                 ->required()
                 ->check(CLI::PositiveNumber);
             app.add_option(
                    "--slope-change", a.slopeChange,
                    "degrees; where neighbouring triangles differ by more, a quarter of the tolerance")
                 ->check(CLI::PositiveNumber);
             app.add_option("--boundary", a.boundary, "vector file with one closed line");
             app.add_option("--lines", a.lines, "vector files of breaklines with heights");
             app.add_option("-o,--output", a.output, "surface to write: .xml or .ply")->required();
         },
         thin});
    out.push_back(
        {"fit", "How well a surface fits dense heights.",
         "erdwerk-cli fit knoll.ply --source data/demo/knoll.las --classes 2 --tolerance 0.1 --json",
         [](CLI::App& app, Arguments& a) {
             app.add_option("surface", a.inputs, "a surface: .xml, .ply or PROJECT.erdwerk:NAME")
                 ->required()
                 ->expected(1);
             app.add_option("--source", a.source, "a cloud, raster or surface (its points)")->required();
             classesOption(app, a);
             app.add_option("--tolerance", a.tolerance, "for the share within it")
                 ->check(CLI::PositiveNumber);
         },
         fit});
    return out;
}

}  // namespace erdwerk::cli
