#include "cli/operation.h"
#include "core/derive/surface_result.h"
#include "core/format/line_rules.h"
#include "core/linework/drape.h"
#include "core/linework/rule_list.h"
#include "core/linework/to_next.h"

namespace erdwerk::cli {

namespace {

using linework::Line3D;
using linework::ResolvedLine;
using nlohmann::ordered_json;
using Locators = std::vector<std::shared_ptr<const terrain::TinLocator>>;

template <class T>
ordered_json orNull(const std::optional<T>& value) {
    return value ? ordered_json(*value) : ordered_json(nullptr);
}

/// NAME=FILE, each; the names go to `names`.
Result<Locators> namedSurfaces(const Arguments& a, std::vector<std::string>& names) {
    Locators out;
    for (const auto& word : a.texts("surface")) {
        const auto mark = word.find('=');
        if (mark == std::string::npos || mark == 0)
            return badInput("--surface is NAME=FILE, not '" + word + "'");
        auto surface = format::openSurface(word.substr(mark + 1), a.withJournal);
        if (!surface) return tl::unexpected(surface.error());
        names.push_back(word.substr(0, mark));
        out.push_back(std::move(*surface));
    }
    return out;
}

ordered_json curveJson(const linework::ResolvedCurve& c, const ResolvedLine& line) {
    ordered_json highLow = nullptr;
    if (const auto turn = c.turn()) highLow = {{"station", c.start + *turn}, {"height", c.height(*turn)}};
    return {{"station", line.vertices[c.vertex].distance},
            {"start", c.start},
            {"end", c.end()},
            {"length", c.length},
            {"k", c.k()},
            {"gradeIn", c.in.percent()},
            {"gradeOut", c.out.percent()},
            {"highLow", highLow}};
}

ordered_json controlJson(const Line3D& line, const ResolvedLine& resolved, std::size_t i,
                         const linework::RuleNames& names) {
    const auto& v = resolved.vertices[i];
    const auto way = toNext(line, resolved, i);
    const std::string& problem = v.height ? v.curveProblem : v.problem;
    return {{"kind", line.vertices[i].isCorner ? "corner" : "grade"},
            {"station", v.distance},
            {"at", {v.place.x, v.place.y}},
            {"height", orNull(v.height)},
            {"rule", controlText(line.vertices[i], names)},
            {"gradeToNext", way ? ordered_json(way->grade().percent()) : ordered_json(nullptr)},
            {"problem", problem.empty() ? ordered_json(nullptr) : ordered_json(problem)}};
}

/// Whether a rule gives no height: an empty entry is none.
bool fails(const linework::LineVertex& v, const linework::ResolvedVertex& r) {
    return (!r.height && !std::holds_alternative<linework::NoHeight>(v.rule)) || !r.curveProblem.empty();
}

/// Adds the stretches of a line that have heights.
void addRuns(format::VectorLayer& layer, const ResolvedLine& line, std::optional<double> step,
             const std::vector<std::variant<double, std::int64_t, std::string>>& values) {
    for (auto& run : runsWithHeights(line, derive::breaklineSagitta, step)) {
        format::VectorFeature f;
        f.places = std::move(run);
        f.values = values;
        layer.features.push_back(std::move(f));
    }
}

Result<Outcome> resolve(const Arguments& a) {
    std::vector<std::string> names;
    const auto surfaces = namedSurfaces(a, names);
    if (!surfaces) return tl::unexpected(surfaces.error());
    auto lines = readRuledLines(a.inputs());
    if (!lines) return tl::unexpected(lines.error());
    const auto linked = format::linkedLines(std::move(*lines), names);
    if (!linked) return tl::unexpected(linked.error());
    const auto solved = format::solved(*linked, *surfaces);
    format::VectorLayer layer{"lines", format::Shape::LineZ, {{"name"}}, {}};
    Outcome out;
    out.json["lines"] = ordered_json::array();
    for (std::size_t i = 0; i < solved.size(); ++i) {
        const Line3D& line = linked->lines[i].line;
        ordered_json controls = ordered_json::array();
        ordered_json curves = ordered_json::array();
        for (std::size_t k = 0; k < solved[i].vertices.size(); ++k) {
            const std::size_t vertex = solved[i].ordered(k);
            if (fails(line.vertices[vertex], solved[i].vertices[vertex])) out.dataIsWrong = true;
            if (isControl(line.vertices[vertex].rule))
                controls.push_back(controlJson(line, solved[i], vertex, linked->names()));
        }
        for (const auto& c : solved[i].curves) curves.push_back(curveJson(c, solved[i]));
        out.json["lines"].push_back({{"name", linked->lines[i].name},
                                     {"length", solved[i].length},
                                     {"controls", std::move(controls)},
                                     {"curves", std::move(curves)}});
        addRuns(layer, solved[i], a.number("interval") > 0 ? a.number("interval") : 1.0,
                {linked->lines[i].name});
    }
    if (auto done = format::writeVectorFile(a.text("output"), {layer}); !done)
        return tl::unexpected(done.error());
    return out;
}

Result<std::shared_ptr<const terrain::TinLocator>> oneSurface(const Arguments& a) {
    return format::openSurface(a.texts("surface").front(), a.withJournal);
}

Result<Outcome> drape(const Arguments& a) {
    const auto surface = oneSurface(a);
    if (!surface) return tl::unexpected(surface.error());
    const auto lines = readLines(a.inputs());
    if (!lines) return tl::unexpected(lines.error());
    linework::DrapeOptions options;
    options.amount = a.number("amount");
    options.cornersOnly = a.flag("corners-only");
    if (a.number("thin") > 0) options.thin = a.number("thin");
    format::VectorLayer layer{"lines", format::Shape::LineZ, {{"name"}}, {}};
    std::size_t points = 0;
    double outside = 0;
    for (const auto& line : *lines) {
        auto draped = drapedRuns(planPath(line.line), **surface, options);
        outside += draped.outside;
        for (auto& run : draped.runs) {
            format::VectorFeature f;
            points += run.size();
            f.places = std::move(run);
            f.values = {line.name};
            layer.features.push_back(std::move(f));
        }
    }
    if (layer.features.empty()) return badInput("no line lies over the surface", a.inputs().front(), 1);
    const std::size_t written = layer.features.size();
    if (auto done = format::writeVectorFile(a.text("output"), {std::move(layer)}); !done)
        return tl::unexpected(done.error());
    Outcome out;
    out.json = {{"lines", written}, {"points", points}, {"outside", outside}};
    return out;
}

}  // namespace

std::vector<Operation> lineOperations() {
    std::vector<Operation> out;
    out.push_back(
        {"resolve", "Heights of 3D lines from their rules.",
         "erdwerk-cli resolve data/demo/lines.gpkg -o heights.geojson --json",
         [](Options& options) {
             options.inputs("lines", "vector files; the attribute `rules` holds the rules").needed();
             options.texts("--surface", "NAME=FILE: a surface that rules name");
             options.number("--interval", "vertical curves are cut every so far (1)").positive();
             outputOption(options, linesToWrite);
         },
         resolve});
    out.push_back({"drape", "Lays lines on a surface.",
                   "erdwerk-cli drape data/demo/lane.gpkg --surface ground.ply -o draped.geojson --json",
                   [](Options& options) {
                       linesArgument(options);
                       options.texts("--surface", "the surface").needed().count(1);
                       options.number("--amount", "added to its heights (0)");
                       options.flag("--corners-only", "no vertices at triangle edges");
                       options.number("--thin", "leave out vertices within this of the line").positive();
                       outputOption(options, linesToWrite);
                   },
                   drape});
    return out;
}

}  // namespace erdwerk::cli
