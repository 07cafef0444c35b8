// Writes the demo site's files, or large data for benchmarks.

#include <CLI/CLI.hpp>
#include <cmath>
#include <filesystem>
#include <iostream>

#include "core/format/description_file.h"
#include "core/format/import.h"
#include "core/format/las.h"
#include "core/format/output.h"
#include "core/format/project_file.h"
#include "core/format/route_files.h"
#include "core/format/survey_csv.h"
#include "core/format/vector_file.h"
#include "core/linework/height_solver.h"
#include "demo_site/cloud.h"
#include "demo_site/project.h"

namespace {

using namespace erdwerk;

format::VectorFeature feature(const demo::NamedLine& line, bool curve) {
    format::VectorFeature f;
    const auto value = linework::resolve(
        line.line,
        [](ObjectId, geometry::Vec2) -> Result<std::optional<double>> { return std::optional<double>{}; });
    f.flat = !value.complete();
    for (const auto& v : value.vertices) f.places.push_back({v.place.x, v.place.y, v.height.value_or(0)});
    if (curve)
        f.curve = line.line;
    else if (line.line.closed)
        f.places.push_back(f.places.front());
    f.values = {line.name};
    return f;
}

Result<void> writeLines(const std::string& path, const std::string& layer,
                        const std::vector<demo::NamedLine>& lines, bool curve) {
    format::VectorLayer out{layer, curve ? format::Shape::CurveZ : format::Shape::LineZ, {{"name"}}, {}};
    for (const auto& line : lines) out.features.push_back(feature(line, curve));
    return format::writeVectorFile(path, {out});
}

/// Lines and leaders in 2D, texts as points with an attribute.
Result<void> writeFlat(const std::string& path, const demo::FlatDrawing& drawing) {
    format::VectorLayer kerbs{"kerbs", format::Shape::CurveZ, {{"name"}}, {}};
    for (const auto& line : drawing.kerbs) kerbs.features.push_back(feature(line, true));
    format::VectorLayer leaders{"leaders", format::Shape::LineZ, {{"name"}}, {}};
    for (const auto& line : drawing.leaders) leaders.features.push_back(feature(line, false));
    format::VectorLayer texts{"texts", format::Shape::PointZ, {{"text"}}, {}};
    for (const auto& [text, at] : drawing.texts) {
        format::VectorFeature f;
        f.places = {{at.x, at.y, 0}};
        f.flat = true;
        f.values = {text};
        texts.features.push_back(std::move(f));
    }
    return format::writeVectorFile(path, {kerbs, leaders, texts});
}

/// The wording of a list, the names of the plot's sides, its description in feet, and an older deed of it in
/// other words with three slips: two digits of a distance swapped, a curve to the wrong side, an area that is
/// another's.
Result<void> writeDescription(const std::string& folder, const linework::Line3D& plot) {
    const auto figure = parcel::survey(planPath(plot));
    const auto shipped = parcel::shippedTemplates();
    if (auto done = format::writeWording(folder + "/wording.json", shipped[2]); !done) return done;
    if (auto done = format::replaceFile(folder + "/plot-names.csv",
                                        "course,along,to\n1,the moor,\n2,,\n3,the knoll,\n4,,\n"
                                        "5,Starling Fell,a dry-stone wall\n6,Starling Fell,\n");
        !done)
        return done;
    parcel::DescriptionOrder order;
    order.name = "Plot Q-4";
    order.beginning = "the iron pin";
    const auto feet = written(figure, shipped[1], order);
    if (!feet) return tl::unexpected(feet.error());
    if (auto done = format::replaceFile(folder + "/plot.txt", feet->text); !done) return done;
    parcel::DescriptionTemplate old;
    old.name = "Deed";
    old.opening = "Of the plot that is called {name} on Quillmoor:";
    old.commence = old.beginning = "Beginning at {beginning}";
    old.line = "{direction:0}, {distance:2} m";
    old.curveTangent =
        "by a tangent curve to the {side} of radius {radius:2} m for an arc of {arcLength:2} m, delta "
        "{delta:0}";
    old.curveNonTangent =
        "by a non-tangent curve to the {side} of radius {radius:2} m for an arc of {arcLength:2} m, its "
        "chord being "
        "{chordDirection:0}, {chord:2} m";
    old.along = "along {along}, ";
    old.leaving = "leaving {leaving}, ";
    old.to = " to {to}";
    old.closing = ", home";
    old.area = "In all {area}.";
    order.areaUnits = {"m2"};
    const auto deed = written(figure, old, order);
    if (!deed) return tl::unexpected(deed.error());
    std::string text = deed->text;
    const auto slip = [&](const std::string& from, const std::string& to) {
        const auto at = text.find(from);
        if (at == std::string::npos) throw std::logic_error("the deed does not say " + from);
        text.replace(at, from.size(), to);
    };
    slip("38.33 m", "33.83 m");
    slip("non-tangent curve to the left", "non-tangent curve to the right");
    slip("4343.56", "4434.56");
    return format::replaceFile(folder + "/deed.txt", text);
}

Result<void> writeDemo(const std::string& folder, std::uint32_t seed) {
    const demo::Site site = demo::survey(seed);
    if (auto done = format::replaceFile(folder + "/survey.csv", format::writePoints(site.points)); !done)
        return done;
    if (auto done = writeLines(folder + "/lines.gpkg", "breaklines", site.breaklines, false); !done)
        return done;
    if (auto done = writeLines(folder + "/rim.geojson", "rim", {site.rim}, false); !done) return done;
    if (auto done = writeLines(folder + "/lane.gpkg", "lane", {site.lane}, true); !done) return done;
    std::string design = "station,height,curve\n";
    for (const auto& pvi : demo::laneDesign())
        design += formatExact(pvi.station) + "," + formatExact(pvi.height) + "," +
                  (pvi.curveLength > 0 ? formatExact(pvi.curveLength) : "") + "\n";
    if (auto done = format::replaceFile(folder + "/lane-design.csv", design); !done) return done;
    if (auto done =
            format::replaceFile(folder + "/lane-criteria.json", format::criteriaText(route::laneCriteria()));
        !done)
        return done;
    // Stakes at both edges of the lane, 3 from its middle with 2.5 % to both sides.
    std::string stakes = "name,station,offset,height,code\n";
    for (int k = 0; k <= 11; ++k)
        for (const auto& [side, offset] : {std::pair{"L", -3.0}, {"R", 3.0}})
            if (const auto at = route::designAt(demo::laneDesign(), 20.0 * k))
                stakes += side + std::to_string(k + 1) + "," + formatExact(20.0 * k) + "," +
                          formatExact(offset) + "," + formatFixed(at->height - 0.075, 3) + ",edge\n";
    if (auto done = format::replaceFile(folder + "/lane-stations.csv", stakes); !done) return done;
    // A way up to the terrace, as an old plan has it.
    if (auto done = format::replaceFile(
            folder + "/path-pis.csv",
            "easting,northing,radius,spiralIn,spiralOut\n48058,91041,,,\n48072,91068,18,4,4\n"
            "48098,91070,12,,\n48104,91081,,,\n");
        !done)
        return done;
    if (auto done = writeLines(folder + "/plot.gpkg", "plot", {site.plot}, true); !done) return done;
    if (auto done = writeDescription(folder, site.plot.line); !done) return done;
    const std::vector<demo::NamedLine> edges{{"Dome Terrace", demo::domeTerrace()},
                                             {"Pond floor", demo::pondFloor()},
                                             {"Pond rim", demo::pondRim()}};
    if (auto done = writeLines(folder + "/earthworks.gpkg", "edges", edges, false); !done) return done;
    if (auto done = writeFlat(folder + "/turning-place.gpkg", demo::turningPlace(site.lane.line)); !done)
        return done;
    if (auto done = format::writeLas(folder + "/knoll.las", demo::makeCloud(demo::northKnoll()).cloud, true);
        !done)
        return done;
    auto withCloud = format::addCloud(demo::project(site), folder + "/knoll.las");
    if (!withCloud) return tl::unexpected(withCloud.error());
    const auto derived = derive::evaluate(withCloud->document);
    if (!derived) return tl::unexpected(derived.error());
    if (auto stamp = format::saveProject(folder + "/quillmoor.erdwerk", *derived); !stamp)
        return tl::unexpected(stamp.error());
    return {};
}

Result<void> writeLarge(const std::string& folder, std::size_t points, std::size_t segments,
                        std::uint32_t seed) {
    const auto input = demo::largeInput(points, segments, seed);
    std::vector<survey::SurveyPoint> survey;
    survey.reserve(points);
    for (const auto& p : input.points)
        survey.push_back({std::to_string(survey.size() + 1), p.plan(), p.z, "GRND", ""});
    if (auto done = format::replaceFile(folder + "/points.csv", format::writePoints(survey)); !done)
        return done;
    std::vector<demo::NamedLine> lines;
    for (const auto& line : input.lines) {
        std::vector<geometry::Vec2> plan;
        std::vector<std::optional<double>> heights;
        for (const auto& c : line.corners) {
            plan.push_back(c.plan());
            heights.emplace_back(c.z);
        }
        lines.push_back({"Break " + std::to_string(lines.size() + 1), linework::lineThrough(plan, heights)});
    }
    return lines.empty() ? Result<void>{} : writeLines(folder + "/lines.gpkg", "breaklines", lines, false);
}

/// A flight over the site.
Result<void> writeFlight(const std::string& folder, std::size_t points, std::uint32_t seed) {
    demo::CloudPlan plan;
    const double side = std::sqrt(static_cast<double>(points));
    plan.area = {demo::originEast, demo::originNorth, demo::originEast + demo::siteWidth,
                 demo::originNorth + demo::siteDepth};
    plan.spacing = std::sqrt(demo::siteWidth * demo::siteDepth) / side;
    plan.seed = seed;
    return format::writeLas(folder + "/flight.las", demo::makeCloud(plan).cloud);
}

}  // namespace

int main(int argc, char** argv) {
    CLI::App app("Makes the Quillmoor Observatory demo site.");
    std::string folder = ".";
    std::uint32_t seed = 7;
    std::size_t points = 0;
    std::size_t segments = 20000;
    app.add_option("-o,--output", folder, "folder to write to");
    app.add_option("--seed", seed, "the same seed gives the same data");
    app.add_option("--points", points, "instead of the demo, this many points over a larger site");
    app.add_option("--segments", segments, "with --points: breakline sides");
    std::size_t flight = 0;
    app.add_option("--flight", flight,
                   "instead of the demo, a point cloud of the site with this many points");
    CLI11_PARSE(app, argc, argv);
    std::error_code ignored;
    std::filesystem::create_directories(folder, ignored);
    const auto done = flight > 0   ? writeFlight(folder, flight, seed)
                      : points > 0 ? writeLarge(folder, points, segments, seed)
                                   : writeDemo(folder, seed);
    if (!done) {
        std::cerr << "erdwerk-demo-site: " << done.error().message() << "\n";
        return 2;
    }
    return 0;
}
