// Commands that make lines of lines, and give lines their heights.

#include "cli/operation.h"
#include "core/base/notation.h"
#include "core/format/line_rules.h"
#include "core/linework/drape.h"
#include "core/linework/edit.h"
#include "core/linework/give_heights.h"
#include "core/linework/meet.h"
#include "core/linework/offset.h"
#include "core/linework/offset_row.h"

namespace erdwerk::cli {

namespace {

using linework::Line3D;
using linework::ResolvedLine;
using nlohmann::ordered_json;

/// A row's line for a file: arcs stay where the format has them.
format::VectorFeature rowFeature(const Line3D& line, bool arcs) {
    const auto value = resolved(line);
    const linework::RuleNames noNames;
    auto ruled = format::ruledGeometry(line, value, noNames, arcs);
    format::VectorFeature f;
    f.flat = ruled.flat;
    f.places = std::move(ruled.places);
    f.curve = std::move(ruled.line);
    if (!arcs && line.closed) f.places.push_back(f.places.front());
    return f;
}

/// A row on a surface: corners, grade points and edges crossed take its heights; nothing off it.
Line3D onSurface(const Line3D& row, const terrain::TinLocator& surface) {
    const auto draped = linework::drape(row, surface, ObjectId{1});
    if (!draped) return row;
    const auto heights = linework::resolve(
        *draped,
        [&](ObjectId, geometry::Vec2 p) -> Result<std::optional<double>> { return surface.heightAt(p); });
    return linework::frozen(*draped, heights, std::vector<bool>(draped->vertices.size(), true));
}

/// Lines for a file: those with arcs in a layer of their own, where the format has arcs.
class LineLayers {
public:
    LineLayers(std::string path, const std::string& name, std::vector<format::VectorField> fields)
        : path_(std::move(path)),
          straights_{name, format::Shape::LineZ, fields, {}},
          curves_{"curved_" + name, format::Shape::CurveZ, std::move(fields), {}} {}

    [[nodiscard]] bool keepsArcs(const ResolvedLine& line) const {
        return hasCurves(line.path) && path_.ends_with(".gpkg");
    }
    void add(format::VectorFeature feature, bool arcs) {
        (arcs ? curves_ : straights_).features.push_back(std::move(feature));
    }
    [[nodiscard]] bool empty() const { return straights_.features.empty() && curves_.features.empty(); }
    Result<void> write() && {
        std::vector<format::VectorLayer> layers{std::move(straights_), std::move(curves_)};
        std::erase_if(layers, [](const auto& l) { return l.features.empty(); });
        return format::writeVectorFile(path_, layers);
    }

private:
    std::string path_;
    format::VectorLayer straights_;
    format::VectorLayer curves_;
};

Result<Outcome> offset(const Arguments& a) {
    std::vector<linework::OffsetRow> rows;
    bool onGround = false;
    for (const auto& text : a.texts("row")) {
        auto row = linework::parseOffsetRow(text);
        if (!row) return badInput("--row " + text + ": " + row.error().text);
        onGround = onGround || row->height.by == linework::RowHeight::By::Surface;
        rows.push_back(std::move(*row));
    }
    std::shared_ptr<const terrain::TinLocator> surface;
    if (onGround && a.texts("surface").empty()) return badInput("a row on the surface needs --surface");
    if (!a.texts("surface").empty()) {
        auto opened = format::openSurface(a.texts("surface").front(), a.withJournal);
        if (!opened) return tl::unexpected(opened.error());
        surface = std::move(*opened);
    }
    const auto lines = readLines(a.inputs());
    if (!lines) return tl::unexpected(lines.error());
    linework::OffsetOptions options;
    options.right = a.text("side") == "right";
    options.corners =
        a.text("corners") == "round" ? linework::OutsideCorner::Round : linework::OutsideCorner::Mitre;
    LineLayers layers(a.text("output"), "rows", {{"name"}, {"row", format::FieldKind::Integer}});
    Outcome out;
    out.json["lines"] = ordered_json::array();
    for (const auto& given : *lines) {
        ResolvedLine source = resolved(given.line);
        for (std::size_t r = 0; r < rows.size(); ++r) {
            auto row = linework::offset(source, rows[r], options, a.context);
            if (!row) {
                say("line " + given.name + ", row " + std::to_string(r + 1) + ": " + row.error().text);
                out.dataIsWrong = true;
                if (a.flag("chained")) break;  // there is nothing to measure the others from
                continue;
            }
            if (rows[r].height.by == linework::RowHeight::By::Surface) *row = onSurface(*row, *surface);
            auto value = resolved(*row);
            const bool arcs = layers.keepsArcs(value);
            auto f = rowFeature(*row, arcs);
            f.values = {given.name, static_cast<std::int64_t>(r + 1)};
            layers.add(std::move(f), arcs);
            out.json["lines"].push_back(
                {{"row", r + 1}, {"length", value.length}, {"corners", cornersOf(*row).size()}});
            if (a.flag("chained")) source = std::move(value);
        }
    }
    if (layers.empty()) return badInput("nothing is left of any row", a.inputs().front(), 1);
    if (auto done = std::move(layers).write(); !done) return tl::unexpected(done.error());
    return out;
}

/// The stretches of a line that have heights, arcs and vertical curves cut finely.
Result<std::vector<std::vector<geometry::Vec3>>> chainsOf(const std::string& file) {
    const auto line = readNamedLine(file, "meet");
    if (!line) return tl::unexpected(line.error());
    auto runs = runsWithHeights(resolved(line->line), 0.001);
    if (runs.empty()) return badInput("the line has no heights", file, 1);
    return runs;
}

Result<Outcome> meet(const Arguments& a) {
    linework::MeetOptions options;
    for (const auto& [text, grade] :
         {std::pair{&a.text("grade-a"), &options.a}, {&a.text("grade-b"), &options.b}}) {
        const auto entry = parseHeightEntry(*text);
        const auto* typed = entry ? std::get_if<TypedGrade>(&*entry) : nullptr;
        if (typed == nullptr)
            return badInput("'" + *text + "' is no grade or ratio; write it like -2% or -3:1");
        *grade = typed->grade;
    }
    options.along =
        a.text("along") == "fall" ? linework::SlopeAlong::Fall : linework::SlopeAlong::Perpendicular;
    const auto first = chainsOf(a.inputs()[0]);
    if (!first) return tl::unexpected(first.error());
    const auto second = chainsOf(a.inputs()[1]);
    if (!second) return tl::unexpected(second.error());
    format::VectorLayer layer{"meeting", format::Shape::LineZ, {}, {}};
    Outcome out;
    double length = 0;
    double least = std::numeric_limits<double>::infinity();
    double most = -least;
    for (const auto& x : *first)
        for (const auto& y : *second) {
            auto chains = linework::meetingLine(x, y, options);
            if (!chains) continue;
            for (auto& chain : *chains) {
                for (std::size_t i = 0; i < chain.size(); ++i) {
                    if (i > 0) length += geometry::distance(chain[i - 1].plan(), chain[i].plan());
                    least = std::min(least, chain[i].z);
                    most = std::max(most, chain[i].z);
                }
                format::VectorFeature f;
                f.places = std::move(chain);
                layer.features.push_back(std::move(f));
            }
        }
    out.dataIsWrong = layer.features.empty();
    if (out.dataIsWrong) {
        say("the slopes never meet between the two lines");
        out.json = {{"length", 0}, {"min", nullptr}, {"max", nullptr}};
        return out;
    }
    if (auto done = format::writeVectorFile(a.text("output"), {std::move(layer)}); !done)
        return tl::unexpected(done.error());
    out.json = {{"length", length}, {"min", least}, {"max", most}};
    return out;
}

Result<linework::HeightGivers> readGivers(const Arguments& a) {
    linework::HeightGivers out;
    const auto crossing = readLines(a.texts("crossing"));
    if (!crossing) return tl::unexpected(crossing.error());
    for (const auto& line : *crossing) out.lines.push_back({line.name, resolved(line.line)});
    for (const auto& file : a.texts("points")) {
        const bool table = file.ends_with(".csv") || file.ends_with(".txt");
        std::vector<survey::SurveyPoint> points;
        if (table) {
            auto read = format::readPointFile(file, csvOptionsOf(a), LengthUnit::Metre);
            if (!read) return tl::unexpected(read.error());
            points = std::move(read->points);
        } else {
            auto read = format::readVectorFile(file);
            if (!read) return tl::unexpected(read.error());
            points = std::move(read->points);
        }
        for (const auto& p : points)
            if (p.height) out.points.push_back({p.number, p.plan, *p.height});
    }
    for (const auto& file : a.texts("texts")) {
        auto texts = format::readTexts(file, a.text("field"));
        if (!texts) return tl::unexpected(texts.error());
        for (auto& t : *texts) out.texts.push_back({std::move(t.text), t.place});
    }
    const auto leaders = readLines(a.texts("leaders"));
    if (!leaders) return tl::unexpected(leaders.error());
    for (const auto& line : *leaders) out.leaders.push_back(planPath(line.line));
    out.prefix = a.text("prefix");
    return out;
}

Result<Outcome> giveHeights(const Arguments& a) {
    if (!a.texts("texts").empty() && a.text("field").empty())
        return badInput("--texts needs --field, the attribute that is read");
    const auto lines = readLines(a.inputs());
    if (!lines) return tl::unexpected(lines.error());
    const auto givers = readGivers(a);
    if (!givers) return tl::unexpected(givers.error());
    std::vector<linework::FlatLine> flat;
    for (const auto& line : *lines) flat.push_back({line.name, line.line});
    linework::GiveOptions options;
    if (a.number("tolerance") > 0) options.tolerance = a.number("tolerance");
    if (!a.text("otherwise").empty()) {
        options.otherwise = parseNumber(a.text("otherwise"));
        if (!options.otherwise) return badInput("--otherwise: '" + a.text("otherwise") + "' is no height");
    }
    if (a.text("flat") == "none") {
        options.flat.reset();
    } else {
        options.flat = parseNumber(a.text("flat"));
        if (!options.flat) return badInput("--flat: '" + a.text("flat") + "' is no height, nor none");
    }
    const auto done = linework::giveHeights(flat, *givers, options, a.context);
    if (!done) return tl::unexpected(done.error());
    Outcome out;
    out.json = {{"given", ordered_json::array()},
                {"missed", ordered_json::array()},
                {"unused", ordered_json::array()}};
    for (const auto& g : done->given) {
        ordered_json one{
            {"line", flat[g.line].name}, {"at", {g.at.x, g.at.y}}, {"height", g.height}, {"from", g.from}};
        for (const auto& [from, height] : g.differs)
            one["differs"].push_back({{"from", from}, {"height", height}});
        out.json["given"].push_back(std::move(one));
    }
    for (const auto& m : done->missed)
        out.json["missed"].push_back({{"line", flat[m.line].name}, {"at", {m.at.x, m.at.y}}, {"why", m.why}});
    for (const auto& u : done->unused)
        out.json["unused"].push_back({{"text", u.text}, {"at", {u.at.x, u.at.y}}, {"why", u.why}});
    out.dataIsWrong = !done->missed.empty();
    LineLayers layers(a.text("output"), "lines", {{"name"}, {"rules"}});
    for (std::size_t i = 0; i < flat.size(); ++i) {
        const auto value = resolved(done->lines[i]);
        const bool arcs = layers.keepsArcs(value);
        auto f = rowFeature(done->lines[i], arcs);
        auto rules = format::ruledGeometry(done->lines[i], value, {}, arcs).rules;
        f.values = {flat[i].name, std::move(rules)};
        layers.add(std::move(f), arcs);
    }
    if (auto written = std::move(layers).write(); !written) return tl::unexpected(written.error());
    return out;
}

Operation offsetOperation() {
    return {
        "offset", "Lines beside lines: rows of a run and a height.",
        "erdwerk-cli offset data/demo/lane.gpkg --side right --row 0.5,-2% --row 3,3:1 -o rows.gpkg --json",
        [](Options& options) {
            linesArgument(options);
            options.text("--side", "left or right of the direction of the line")
                .needed()
                .among({"left", "right"});
            options.texts("--row", "RUN or RUN,HEIGHT; HEIGHT: +0.15, 2%, 3:1, =101.25 or = (surface)")
                .needed()
                .count(1)
                .all();
            options.flag("--chained", "each row is measured from the row before");
            options.text("--corners", "mitre or round (mitre)").defaultsTo("mitre").among({"mitre", "round"});
            options.texts("--surface", "for rows on it").count(1);
            outputOption(options, linesToWrite);
        },
        offset};
}

Operation meetOperation() {
    return {"meet", "The line where the slopes from two 3D lines meet.",
            "erdwerk-cli meet 'data/demo/lines.gpkg:Lane edge left' 'data/demo/lines.gpkg:Lane edge "
            "right' --grade-a "
            "-2% --grade-b -2% -o middle.geojson --json",
            [](Options& options) {
                options.inputs("lines", "two files with one line each, or FILE:NAME").needed().count(2);
                options.text("--grade-a", "grade or ratio from the first, upwards positive").needed();
                options.text("--grade-b", "and from the second").needed();
                options.text("--along", "perpendicular or fall (perpendicular)")
                    .defaultsTo("perpendicular")
                    .among({"perpendicular", "fall"});
                outputOption(options, linesToWrite);
            },
            meet};
}

Operation giveHeightsOperation() {
    return {"give-heights", "Heights for flat lines, from lines, points and texts.",
            "erdwerk-cli give-heights data/demo/plot.gpkg --points data/demo/survey.csv --tolerance "
            "0.5 --otherwise 318 "
            "-o plot.gpkg --json",
            [](Options& options) {
                linesArgument(options);
                options.texts("--crossing", "3D lines that cross or touch them");
                options.texts("--points", "points: .csv or a vector file");
                csvOptions(options);
                options.texts("--texts", "points with a text");
                options.text("--field", "the attribute that holds the text");
                options.texts("--leaders", "lines from a text to what it speaks of");
                options.text("--prefix", "what texts with heights begin with");
                options.number("--tolerance", "between a giver and a line (0.05)").positive();
                options.text("--otherwise", "the height of what nothing gives one");
                options.text("--flat", "a line at this height throughout has none yet, or none (0)")
                    .defaultsTo("0");
                outputOption(options, linesToWrite);
            },
            giveHeights};
}

}  // namespace

std::vector<Operation> derivedLineOperations() {
    return {offsetOperation(), meetOperation(), giveHeightsOperation()};
}

}  // namespace erdwerk::cli
