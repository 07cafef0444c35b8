#include <algorithm>
#include <cmath>
#include <filesystem>

#include "cli/operation.h"
#include "core/format/dense.h"
#include "core/format/open_alignment.h"
#include "core/format/output.h"
#include "core/format/ply.h"
#include "core/route/design.h"
#include "core/terrain/clip.h"
#include "core/terrain/contours.h"
#include "core/terrain/trace.h"
#include "core/terrain/volume.h"

namespace erdwerk::cli {

namespace {

using nlohmann::ordered_json;

Result<void> addPointFile(const std::string& file, const Arguments& a, terrain::BuildInput& input,
                          std::size_t& withoutHeight, std::size_t& skipped) {
    std::vector<survey::SurveyPoint> points;
    const std::string ending = std::filesystem::path(file).extension().string();
    if (ending == ".csv" || ending == ".txt" || ending.empty()) {
        auto read = format::readPointFile(file, csvOptionsOf(a), LengthUnit::Metre);
        if (!read) return tl::unexpected(read.error());
        skipped += read->skipped.size();
        for (const auto& row : read->skipped)
            say(file + ":" + std::to_string(row.line) + ": skipped: " + row.reason);
        points = std::move(read->points);
    } else {
        auto read = format::readVectorFile(file);
        if (!read) return tl::unexpected(read.error());
        points = std::move(read->points);
    }
    for (const auto& p : points) {
        if (p.height)
            input.points.push_back({p.plan.x, p.plan.y, *p.height});
        else
            ++withoutHeight;
    }
    return {};
}

Result<Outcome> build(const Arguments& a) {
    if (a.texts("points").empty() && a.texts("lines").empty() && a.texts("cloud").empty() &&
        a.texts("raster").empty())
        return badInput("give at least one source: --points, --lines, --cloud or --raster");
    terrain::BuildInput input;
    input.maxEdge = a.number("max-edge");
    std::size_t withoutHeight = 0;
    std::size_t skipped = 0;
    for (const auto& file : a.texts("points"))
        if (auto done = addPointFile(file, a, input, withoutHeight, skipped); !done)
            return tl::unexpected(done.error());
    for (const auto* files : {&a.texts("cloud"), &a.texts("raster")})
        for (const auto& file : *files) {
            const auto dense = format::readDense(file, classFilter(a), a.context);
            if (!dense) return tl::unexpected(dense.error());
            input.points.insert(input.points.end(), dense->begin(), dense->end());
        }
    auto lines = readBreaklines(a.texts("lines"));
    if (!lines) return tl::unexpected(lines.error());
    input.lines = std::move(*lines);
    static const std::map<std::string, terrain::CrossingRule> rules{{"first", terrain::CrossingRule::First},
                                                                    {"higher", terrain::CrossingRule::Higher},
                                                                    {"lower", terrain::CrossingRule::Lower},
                                                                    {"mean", terrain::CrossingRule::Mean}};
    input.onCrossing = rules.at(a.text("on-crossing"));
    for (const auto& file : a.texts("opening")) {
        auto rings = readRings(file);
        if (!rings) return tl::unexpected(rings.error());
        for (auto& ring : *rings) input.openings.push_back({std::move(ring), false});
    }
    if (!a.text("boundary").empty()) {
        auto boundary = readBoundary(a.text("boundary"));
        if (!boundary) return tl::unexpected(boundary.error());
        input.boundary = std::move(*boundary);
    }
    std::string source;
    for (const auto* files : {&a.texts("raster"), &a.texts("cloud"), &a.texts("lines"), &a.texts("points")})
        if (!files->empty()) source = files->front();
    auto built = terrain::build(std::move(input), a.context);
    if (!built && built.error().code == ErrorCode::Cancelled) return tl::unexpected(built.error());
    if (!built) return badInput(built.error().text, source, 1);
    if (auto done = writeSurface(a.text("output"), built->tin); !done) return tl::unexpected(done.error());
    Outcome out;
    out.json = {{"points", built->points},
                {"triangles", built->tin.triangleCount()},
                {"constraints", built->tin.constraintCount()},
                {"duplicates", built->duplicates.size()},
                {"withoutHeight", withoutHeight},
                {"crossings", built->crossings.size()},
                {"skippedRows", skipped}};
    out.dataIsWrong = skipped > 0;
    return out;
}

Result<Outcome> info(const Arguments& a) {
    LengthUnit unit = LengthUnit::Metre;
    const auto surface = format::openSurface(a.inputs().front(), a.withJournal, &unit);
    if (!surface) return tl::unexpected(surface.error());
    const auto f = terrain::figuresOf((*surface)->tin());
    Outcome out;
    out.json = {{"points", f.points},
                {"triangles", f.triangles},
                {"min", {f.min.x, f.min.y, f.min.z}},
                {"max", {f.max.x, f.max.y, f.max.z}},
                {"planArea", f.planArea},
                {"surfaceArea", f.surfaceArea},
                {"unit", unitSymbol(unit)}};
    return out;
}

Result<Outcome> contours(const Arguments& a) {
    const auto surface = format::openSurface(a.inputs().front(), a.withJournal);
    if (!surface) return tl::unexpected(surface.error());
    const auto lines = terrain::contours((*surface)->tin(), {a.number("interval"), a.flag("smooth")});
    if (!lines) return tl::unexpected(lines.error());
    format::VectorLayer layer{"contours",
                              format::Shape::LineZ,
                              {{"height", format::FieldKind::Real}, {"index", format::FieldKind::Integer}},
                              {}};
    double length = 0;
    std::size_t levels = 0;
    for (std::size_t i = 0; i < lines->size(); ++i) {
        const auto& line = (*lines)[i];
        if (i == 0 || line.height != (*lines)[i - 1].height) ++levels;
        format::VectorFeature f;
        for (std::size_t k = 0; k < line.places.size(); ++k) {
            f.places.push_back({line.places[k].x, line.places[k].y, line.height});
            if (k > 0) length += geometry::distance(line.places[k - 1], line.places[k]);
        }
        f.values = {
            line.height,
            std::int64_t{terrain::isIndexContour(line.height, a.number("interval"), a.whole("index")) ? 1
                                                                                                      : 0}};
        layer.features.push_back(std::move(f));
    }
    if (auto done = format::writeVectorFile(a.text("output"), {layer}); !done)
        return tl::unexpected(done.error());
    Outcome out;
    out.json = {{"levels", levels}, {"lines", lines->size()}, {"length", length}};
    return out;
}

Result<Outcome> sample(const Arguments& a) {
    const auto surface = format::openSurface(a.inputs().front(), a.withJournal);
    if (!surface) return tl::unexpected(surface.error());
    const auto bytes = format::readFile(a.text("at"));
    if (!bytes) return tl::unexpected(bytes.error());
    const auto layout = format::layoutFor(*bytes, a.text("columns"), a.text("at"));
    if (!layout) return tl::unexpected(layout.error());
    const auto table = format::readTable(*bytes, layout->separator, a.text("at"));
    if (!table) return tl::unexpected(table.error());
    auto points = format::readPoints(*bytes, *layout, LengthUnit::Metre, a.text("at"));
    if (!points) return tl::unexpected(points.error());
    if (!points->skipped.empty())
        return badInput(points->skipped.front().reason, a.text("at"), points->skipped.front().line);
    std::string text;
    std::size_t row = 0;
    const auto addRow = [&](const std::vector<std::string>& cells, const std::string& last, bool names) {
        for (const auto& cell : cells)
            text += csvCell(names && cell == "height" ? "inputHeight" : cell) + ",";
        text += last + "\n";
    };
    if (layout->header) {
        addRow(table->rows[row++].cells, "height", true);
    } else {
        std::vector<std::string> names;
        for (const auto c : layout->columns) names.emplace_back(format::columnName(c));
        addRow(names, "height", true);
    }
    std::size_t inside = 0;
    for (const auto& p : points->points) {
        const auto h = (*surface)->heightAt(p.plan);
        inside += h ? 1 : 0;
        addRow(table->rows[row++].cells, h ? formatExact(*h) : "", false);
    }
    if (auto done = format::replaceFile(a.text("output"), text); !done) return tl::unexpected(done.error());
    Outcome out;
    out.json = {{"inside", inside}, {"outside", points->points.size() - inside}};
    return out;
}

Result<Outcome> volume(const Arguments& a) {
    auto from = format::openSurface(a.text("from"), a.withJournal);
    if (!from) return tl::unexpected(from.error());
    const auto to = format::openSurface(a.text("to"), a.withJournal);
    if (!to) return tl::unexpected(to.error());
    if (!a.text("boundary").empty()) {
        const auto boundary = readBoundary(a.text("boundary"));
        if (!boundary) return tl::unexpected(boundary.error());
        from = std::make_shared<const terrain::TinLocator>(
            std::make_shared<const terrain::Tin>(terrain::clip((*from)->tin(), boundary->ring)));
    }
    const auto v = terrain::volumeBetween(**from, **to);
    if (!v) return tl::unexpected(v.error());
    Outcome out;
    out.json = {{"cut", v->cut},   {"fill", v->fill},       {"net", v->net()},
                {"area", v->area}, {"cutArea", v->cutArea}, {"fillArea", v->fillArea}};
    return out;
}

/// The axis of a profile: a line, or an alignment with its stations.
Result<route::AlignmentGeometry> axisOf(const Arguments& a, bool& isAlignment) {
    const std::string ending = std::filesystem::path(a.text("along")).extension().string();
    isAlignment = ending == ".xml" || ending == ".csv" ||
                  a.text("along").find(".xml:") != std::string::npos ||
                  a.text("along").find(".erdwerk") != std::string::npos;
    if (isAlignment) {
        format::AlignmentOptions options;
        options.withJournal = a.withJournal;
        auto opened = format::openAlignment({a.text("along")}, options);
        if (!opened) return tl::unexpected(opened.error());
        return std::move(opened->geometry);
    }
    const auto line = readOneLine(a.text("along"), "a profile");
    if (!line) return tl::unexpected(line.error());
    return route::alignmentOn(planPath(line->line), 0);
}

/// Where loose lines cross the axis.
Result<std::vector<route::ProfilePoint>> across(const Arguments& a, const route::AlignmentGeometry& axis) {
    const auto lines = readLines(a.texts("across"));
    if (!lines) return tl::unexpected(lines.error());
    std::vector<linework::ResolvedLine> values;
    values.reserve(lines->size());
    for (const auto& line : *lines) values.push_back(resolved(line.line));
    std::vector<route::AcrossLine> all;
    all.reserve(values.size());
    for (std::size_t i = 0; i < values.size(); ++i)
        all.push_back({values[i].path, [&values, i](double along) { return heightAt(values[i], along); }});
    return route::profileAcross(axis, all);
}

Result<std::vector<route::ProfilePoint>> over(const Arguments& a, const route::AlignmentGeometry& axis) {
    const auto surface = format::openSurface(a.inputs().front(), a.withJournal);
    if (!surface) return tl::unexpected(surface.error());
    if (!(a.number("interval") > 0)) return route::groundProfile(axis, **surface);
    if (axis.length / a.number("interval") > 1e7)
        return badInput("the interval gives more than ten million points");
    std::vector<double> distances = route::multiplesAlong(axis, a.number("interval"));
    if (distances.empty() || distances.front() > 1e-9) distances.insert(distances.begin(), 0);
    if (distances.back() < axis.length - 1e-9) distances.push_back(axis.length);
    std::vector<route::ProfilePoint> points;
    for (const double distance : distances) {
        const auto place = route::placeAt(axis, axis.running(distance));
        points.push_back({axis.running(distance), place, (*surface)->heightAt(place)});
    }
    return points;
}

Result<Outcome> profile(const Arguments& a) {
    if (a.inputs().empty() == a.texts("across").empty())
        return badInput("give either a surface or --across, one of them");
    bool isAlignment = false;
    const auto axis = axisOf(a, isAlignment);
    if (!axis) return tl::unexpected(axis.error());
    const auto points = a.texts("across").empty() ? over(a, *axis) : across(a, *axis);
    if (!points) return tl::unexpected(points.error());
    std::string text =
        isAlignment ? "station,easting,northing,height,distance\n" : "station,easting,northing,height\n";
    for (const auto& p : *points)
        text += formatExact(axis->read(p.station)) + "," + formatExact(p.place.x) + "," +
                formatExact(p.place.y) + "," + (p.height ? formatExact(*p.height) : "") +
                (isAlignment ? "," + formatExact(p.station - axis->startStation) : "") + "\n";
    if (auto done = format::replaceFile(a.text("output"), text); !done) return tl::unexpected(done.error());
    Outcome out;
    out.json = {{"length", axis->length}, {"points", points->size()}};
    return out;
}

void declareBuild(Options& options) {
    options.texts("--points", "CSV files of points");
    csvOptions(options);
    options.texts("--lines", "vector files of breaklines with heights");
    options.text("--boundary", "vector file with one closed line");
    options.texts("--cloud", "point clouds: .las, .ply or text x y z");
    classesOption(options);
    options.texts("--raster", "rasters of heights, taken at cell centres");
    options.texts("--opening", "vector files with one closed line each, inside which there is no surface");
    options
        .text("--on-crossing",
              "height where two lines cross: of the first, the higher, the lower, or the "
              "mean (first)")
        .defaultsTo("first")
        .among({"first", "higher", "lower", "mean"});
    options.number("--max-edge", "longest edge of a rim triangle").positive();
    outputOption(options, "surface to write: .xml, .ply, .obj or .glb");
}

}  // namespace

std::vector<Operation> surfaceOperations() {
    std::vector<Operation> out;
    out.push_back({"build", "Build a surface from points, breaklines and a boundary.",
                   "erdwerk-cli build --points data/demo/survey.csv --lines data/demo/lines.gpkg --max-edge "
                   "60 -o ground.ply",
                   declareBuild, build});
    out.push_back(
        {"info", "Figures of a surface.", "erdwerk-cli info ground.ply --json", surfaceArgument, info});
    out.push_back(
        {"contours", "Contour lines of a surface.",
         "erdwerk-cli contours ground.ply --interval 0.5 --index 5 -o contours.gpkg",
         [](Options& options) {
             surfaceArgument(options);
             options.number("--interval", "height between contours; levels are its multiples")
                 .needed()
                 .positive();
             options.whole("--index", "every n-th level is an index contour (5)").defaultsTo(5).positive();
             options.flag("--smooth", "round the corners; neighbours never meet");
             outputOption(options, "lines to write: .gpkg or .geojson");
         },
         contours});
    out.push_back({"sample", "Heights of a surface at the places of a CSV.",
                   "erdwerk-cli sample ground.ply --at data/demo/survey.csv -o heights.csv",
                   [](Options& options) {
                       surfaceArgument(options);
                       options.text("--at", "CSV of places").needed();
                       options.text("--columns", "one letter a column of the CSV");
                       outputOption(options, "CSV to write");
                   },
                   sample});
    out.push_back({"volume", "Cut and fill between two surfaces, exact for both triangulations.",
                   "erdwerk-cli volume --from ground.ply --to ground.ply",
                   [](Options& options) {
                       options.text("--from", "the surface before").needed();
                       options.text("--to", "the surface after").needed();
                       options.text("--boundary", "only inside this closed line");
                   },
                   volume});
    out.push_back(
        {"profile", "Heights of a surface, or of lines that cross it, along a line or an alignment.",
         "erdwerk-cli profile ground.ply --along data/demo/lane.gpkg -o profile.csv",
         [](Options& options) {
             options.inputs("surface", "a surface: .xml, .ply or PROJECT.erdwerk:NAME").count(1);
             options.texts("--across", "3D lines instead of a surface: a point where each crosses the axis");
             options
                 .text("--along",
                       "vector file with one line, or an alignment: LandXML, CSV of PIs, "
                       "PROJECT.erdwerk:NAME")
                 .needed();
             options.number("--interval", "a point each multiple; without it at every triangle edge crossed")
                 .positive();
             outputOption(options, "CSV to write");
         },
         profile});
    return out;
}

}  // namespace erdwerk::cli
