// From dense heights to a surface, and back.

#include <numbers>

#include "cli/operation.h"
#include "core/format/dense.h"
#include "core/terrain/fit.h"
#include "core/terrain/thin.h"

namespace erdwerk::cli {

namespace {

using nlohmann::ordered_json;

Result<Outcome> thin(const Arguments& a) {
    const std::string& source = a.inputs().front();
    const auto points = format::readDense(source, classFilter(a), a.context);
    if (!points) return tl::unexpected(points.error());
    terrain::ThinOptions options;
    options.tolerance = a.number("tolerance");
    options.slopeChange = a.number("slope-change") * degree;
    auto lines = readBreaklines(a.texts("lines"));
    if (!lines) return tl::unexpected(lines.error());
    options.lines = std::move(*lines);
    if (!a.text("boundary").empty()) {
        auto boundary = readBoundary(a.text("boundary"));
        if (!boundary) return tl::unexpected(boundary.error());
        options.boundary = std::move(*boundary);
    }
    const auto thinned = terrain::thin(*points, options, a.context);
    if (!thinned && thinned.error().code == ErrorCode::Cancelled) return tl::unexpected(thinned.error());
    if (!thinned) return badInput(thinned.error().text, source, 1);
    if (auto done = writeSurface(a.text("output"), thinned->tin); !done) return tl::unexpected(done.error());
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
    const auto surface = format::openSurface(a.inputs().front(), a.withJournal);
    if (!surface) return tl::unexpected(surface.error());
    const auto points = format::readDense(a.text("source"), classFilter(a), a.context);
    if (!points) return tl::unexpected(points.error());
    const auto deviations = terrain::deviationsOf(**surface, *points, a.context);
    if (!deviations) return tl::unexpected(deviations.error());
    const auto f = terrain::figuresOf(*deviations, a.number("tolerance"));
    if (f.points == 0) return badInput("none of its points lies on the surface", a.text("source"), 1);
    Outcome out;
    out.json = {
        {"points", f.points},
        {"outside", f.outside},
        {"mean", f.mean},
        {"rms", f.rms},
        {"largestUp", f.largestUp},
        {"largestDown", f.largestDown},
        {"p95", f.p95},
        {"within", a.number("tolerance") > 0 ? ordered_json(f.withinShare()) : ordered_json(nullptr)}};
    out.dataIsWrong = a.number("tolerance") > 0 && f.within < f.points;
    return out;
}

}  // namespace

std::vector<Operation> denseOperations() {
    std::vector<Operation> out;
    out.push_back(
        {"thin", "The fewest triangles within a tolerance of all points.",
         "erdwerk-cli thin knoll-ground.las --classes 2 --tolerance 0.1 -o knoll.ply",
         [](Options& options) {
             denseArgument(options);
             classesOption(options);
             options.number("--tolerance", "greatest deviation in height").needed().positive();
             options
                 .number("--slope-change",
                         "degrees; where neighbouring triangles differ by more, a quarter of the tolerance")
                 .positive();
             options.text("--boundary", "vector file with one closed line");
             options.texts("--lines", "vector files of breaklines with heights");
             outputOption(options, "surface to write: .xml, .ply, .obj or .glb");
         },
         thin});
    out.push_back({"fit", "How well a surface fits dense heights.",
                   "erdwerk-cli fit knoll.ply --source knoll-ground.las --classes 2 --tolerance 0.1 --json",
                   [](Options& options) {
                       surfaceArgument(options);
                       options.text("--source", "a cloud, raster or surface (its points)").needed();
                       classesOption(options);
                       options.number("--tolerance", "for the share within it").positive();
                   },
                   fit});
    return out;
}

}  // namespace erdwerk::cli
