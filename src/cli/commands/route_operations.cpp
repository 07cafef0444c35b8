#include "cli/operation.h"
#include "core/base/notation.h"
#include "core/format/open_alignment.h"
#include "core/format/output.h"
#include "core/format/route_files.h"
#include "core/route/design.h"
#include "core/route/station_finder.h"

namespace erdwerk::cli {

namespace {

using format::OpenedAlignment;
using geometry::Vec2;
using nlohmann::ordered_json;
using route::AlignmentGeometry;

ordered_json at(Vec2 p) {
    return {p.x, p.y};
}

ordered_json radiusOf(double curvature) {
    return curvature == 0 ? ordered_json(nullptr) : ordered_json(1 / std::abs(curvature));
}

const char* sideOf(double turn) {
    return turn > 0 ? "right" : "left";
}

ordered_json elementJson(const AlignmentGeometry& a, std::size_t i) {
    const auto& s = a.path[i];
    const auto arc = arcOf(s);
    const auto spiral = clothoidOf(s);
    ordered_json j{{"kind", arc ? "curve" : (spiral ? "spiral" : "line")},
                   {"startStation", a.stationing.stationAt(a.starts[i])},
                   {"distance", a.starts[i]},
                   {"length", lengthOf(s)},
                   {"start", at(s.start)},
                   {"end", at(s.end)},
                   {"azimuthIn", tangentAt(s, 0).degrees()},
                   {"azimuthOut", tangentAt(s, 1).degrees()}};
    if (arc) {
        j["radius"] = arc->radius;
        j["delta"] = std::abs(arc->sweep.degrees());
        j["side"] = sideOf(arc->sweep.radians());
    } else if (spiral) {
        const double turn = spiral->shape.turn().degrees();
        j["radiusIn"] = radiusOf(spiral->shape.startCurvature);
        j["radiusOut"] = radiusOf(spiral->shape.endCurvature);
        j["delta"] = std::abs(turn);
        j["side"] = sideOf(turn);
    }
    return j;
}

ordered_json pointsJson(const AlignmentGeometry& a) {
    struct Point {
        double distance;
        std::string kind;
        Vec2 place;
    };
    std::vector<Point> points;
    for (const auto& key : a.keyPoints)
        points.push_back({key.distance, std::string(shortName(key.kind)), key.place});
    for (const auto& pi : intersections(a)) points.push_back({pi.distance, "PI", pi.place});
    std::stable_sort(points.begin(), points.end(),
                     [](const Point& x, const Point& y) { return x.distance < y.distance; });
    ordered_json out = ordered_json::array();
    for (const Point& p : points)
        out.push_back({{"kind", p.kind},
                       {"station", a.stationing.stationAt(p.distance)},
                       {"distance", p.distance},
                       {"at", at(p.place)}});
    return out;
}

Result<OpenedAlignment> opened(const std::string& spec, const Arguments& a) {
    format::AlignmentOptions options;
    options.withJournal = a.withJournal;
    return format::openAlignment({spec}, options);
}

Result<LengthUnit> unitOf(const Arguments& a) {
    if (a.text("unit") == "m") return LengthUnit::Metre;
    if (a.text("unit") == "ft") return LengthUnit::InternationalFoot;
    if (a.text("unit") == "ftUS") return LengthUnit::UsSurveyFoot;
    return badInput("a unit is m, ft or ftUS, not '" + a.text("unit") + "'");
}

Result<Outcome> alignment(const Arguments& a) {
    format::AlignmentOptions options;
    options.withJournal = a.withJournal;
    options.reverse = a.flag("reverse");
    options.equations = a.texts("equation");
    if (!a.text("start").empty()) {
        const auto start = parseStation(a.text("start"), DisplaySettings{});
        if (!start) return tl::unexpected(start.error());
        options.start = *start;
    }
    if (a.number("radius") > 0) options.radius = a.number("radius");
    options.gap = a.number("gap");
    const auto read = format::openAlignment(a.inputs(), options);
    if (!read) return tl::unexpected(read.error());
    const AlignmentGeometry& line = read->geometry;
    Outcome out;
    out.json = {
        {"length", line.length}, {"startStation", line.startStation}, {"endStation", line.endStation()}};
    out.json["elements"] = ordered_json::array();
    for (std::size_t i = 0; i < line.path.size(); ++i) out.json["elements"].push_back(elementJson(line, i));
    out.json["points"] = pointsJson(line);
    out.json["notTangent"] = ordered_json::array();
    for (const auto& b : line.breaks)
        out.json["notTangent"].push_back(
            {{"station", b.station}, {"distance", b.distance}, {"angle", b.turn.degrees()}});
    out.json["closed"] = ordered_json::array();
    for (const auto& joint : read->closed)
        out.json["closed"].push_back({{"at", at(joint.place)},
                                      {"gap", joint.gap},
                                      {"by", wordFor(joint.by)},
                                      {"turn", joint.turn.degrees()}});
    if (a.text("output").empty()) return out;
    const auto unit = read->unit ? Result<LengthUnit>(*read->unit) : unitOf(a);
    if (!unit) return tl::unexpected(unit.error());
    format::LandXml content;
    content.unit = *unit;
    content.alignments.push_back({read->name, line.stationing, line.path, {}});
    if (auto done = format::writeLandXml(a.text("output"), content, format::stemOf(a.text("output"))); !done)
        return tl::unexpected(done.error());
    return out;
}

/// In quotes where a comma or a quote asks for them.
std::string cell(const std::string& text) {
    return csvCell(text);
}

std::string figure(const std::optional<double>& value) {
    return value ? formatExact(*value) : std::string();
}

Result<Outcome> stationsOfPoints(const Arguments& a, const AlignmentGeometry& line) {
    const auto options = csvOptionsOf(a);
    const route::StationFinder finder(line);
    std::string text = "number,station,offset,distance,easting,northing,height,code\n";
    std::size_t points = 0;
    std::size_t beyond = 0;
    for (const auto& file : a.texts("points")) {
        const auto read = format::readPointFile(file, options, LengthUnit::Metre);
        if (!read) return tl::unexpected(read.error());
        std::vector<Vec2> places;
        places.reserve(read->points.size());
        for (const auto& p : read->points) places.push_back(p.plan);
        const auto all = finder.findAll(places);
        for (std::size_t i = 0; i < all.size(); ++i) {
            const auto& p = read->points[i];
            const auto& found = all[i];
            ++points;
            if (found.beyond) ++beyond;
            text += cell(p.number) + "," +
                    (found.beyond ? ",,"
                                  : formatExact(line.stationing.stationAt(found.distance)) + "," +
                                        formatExact(found.offset) + "," + formatExact(found.distance)) +
                    "," + formatExact(p.plan.x) + "," + formatExact(p.plan.y) + "," + figure(p.height) + "," +
                    cell(p.code) + "\n";
        }
    }
    if (auto done = format::replaceFile(a.text("output"), text); !done) return tl::unexpected(done.error());
    Outcome out;
    out.json = {{"points", points}, {"beyond", beyond}};
    return out;
}

Result<Outcome> pointsOfStations(const Arguments& a, const AlignmentGeometry& line) {
    const auto rows = format::readStationRows(a.text("offsets"));
    if (!rows) return tl::unexpected(rows.error());
    std::string text = "number,easting,northing,height,code\n";
    std::size_t beyond = 0;
    for (const auto& row : *rows) {
        const auto distance = line.stationing.distanceAt(row.station, line.length);
        text += cell(row.name) + ",";
        if (distance) {
            const Vec2 p = placeAt(line, line.running(*distance), row.offset);
            text += formatExact(p.x) + "," + formatExact(p.y) + "," + figure(row.height);
        } else {
            ++beyond;
            text += ",,";
        }
        text += "," + cell(row.code) + "\n";
    }
    if (auto done = format::replaceFile(a.text("output"), text); !done) return tl::unexpected(done.error());
    Outcome out;
    out.json = {{"points", rows->size()}, {"beyond", beyond}};
    return out;
}

Result<Outcome> station(const Arguments& a) {
    if (a.texts("points").empty() == a.text("offsets").empty())
        return badInput("give either --points or --offsets, one of them");
    const auto line = opened(a.text("alignment"), a);
    if (!line) return tl::unexpected(line.error());
    return a.text("offsets").empty() ? stationsOfPoints(a, line->geometry)
                                     : pointsOfStations(a, line->geometry);
}

ordered_json stationJson(const AlignmentGeometry& line, double running) {
    return line.read(running);
}

ordered_json pviJson(const AlignmentGeometry& line, const std::vector<route::Pvi>& pvis, std::size_t i,
                     const std::vector<route::PviFigures>& figures) {
    const auto percent = [](const std::optional<Grade>& g) {
        return g ? ordered_json(g->percent()) : ordered_json(nullptr);
    };
    const bool turns =
        figures[i].gradeIn && figures[i].gradeOut && *figures[i].gradeIn != *figures[i].gradeOut;
    ordered_json j{{"station", stationJson(line, pvis[i].station)},
                   {"distance", pvis[i].station - line.startStation},
                   {"height", pvis[i].height},
                   {"gradeIn", percent(figures[i].gradeIn)},
                   {"gradeOut", percent(figures[i].gradeOut)},
                   {"curve", pvis[i].curveLength},
                   {"k", figures[i].k ? ordered_json(*figures[i].k) : ordered_json(nullptr)},
                   {"kind", turns ? ordered_json(figures[i].crest ? "crest" : "sag") : ordered_json(nullptr)},
                   {"highLow", nullptr}};
    if (const auto turning = route::highLowAt(pvis, i))
        j["highLow"] = {{"station", stationJson(line, turning->station)},
                        {"distance", turning->station - line.startStation},
                        {"height", turning->height}};
    return j;
}

Result<std::vector<std::shared_ptr<const terrain::TinLocator>>> grounds(const Arguments& a) {
    std::vector<std::shared_ptr<const terrain::TinLocator>> out;
    for (const auto& spec : a.texts("ground")) {
        auto surface = format::openSurface(spec, a.withJournal);
        if (!surface) return tl::unexpected(surface.error());
        out.push_back(std::move(*surface));
    }
    return out;
}

Result<Outcome> design(const Arguments& a) {
    const auto opened_ = opened(a.text("alignment"), a);
    if (!opened_) return tl::unexpected(opened_.error());
    const AlignmentGeometry& line = opened_->geometry;
    const auto written = format::readPvis(a.text("pvis"));
    if (!written) return tl::unexpected(written.error());
    const auto pvis = format::pvisOn(line, *written, a.text("pvis"));
    if (!pvis) return tl::unexpected(pvis.error());
    const auto surfaces = grounds(a);
    if (!surfaces) return tl::unexpected(surfaces.error());
    if (a.number("interval") > 0 && line.length / a.number("interval") > 1e5)
        return badInput("the interval gives more than a hundred thousand stations");
    std::string text = "station,distance,easting,northing,ground,design,cut,fill,grade";
    for (std::size_t k = 1; k < surfaces->size(); ++k) text += ",ground" + std::to_string(k + 1);
    text += "\n";
    for (const double running : route::designStations(line, *pvis, a.number("interval"))) {
        const Vec2 p = placeAt(line, running);
        const auto d = route::designAt(*pvis, running);
        const auto ground = surfaces->empty() ? std::nullopt : surfaces->front()->heightAt(p);
        const auto over = d && ground ? std::optional(d->height - *ground) : std::nullopt;
        text += formatExact(line.read(running)) + "," + formatExact(running - line.startStation) + "," +
                formatExact(p.x) + "," + formatExact(p.y) + "," + figure(ground) + "," +
                (d ? formatExact(d->height) : "") + "," + (over ? formatExact(std::max(0.0, -*over)) : "") +
                "," + (over ? formatExact(std::max(0.0, *over)) : "") + "," +
                (d ? formatExact(d->grade.percent()) : "");
        for (std::size_t k = 1; k < surfaces->size(); ++k) text += "," + figure((*surfaces)[k]->heightAt(p));
        text += "\n";
    }
    if (auto done = format::replaceFile(a.text("output"), text); !done) return tl::unexpected(done.error());
    Outcome out;
    out.json["pvis"] = ordered_json::array();
    const auto figures = route::figures(*pvis);
    for (std::size_t i = 0; i < pvis->size(); ++i)
        out.json["pvis"].push_back(pviJson(line, *pvis, i, figures));
    for (const auto& o : route::overlaps(*pvis)) {
        out.dataIsWrong = true;
        say("the curves at PVI " + std::to_string(o.pvi) + " and " + std::to_string(o.pvi + 1) +
            " overlap by " + formatFixed(o.length, 3));
    }
    return out;
}

Result<std::vector<route::SpeedFrom>> speeds(const Arguments& a, const AlignmentGeometry& line) {
    std::vector<route::SpeedFrom> out;
    for (const auto& word : a.texts("speed")) {
        const auto mark = word.find('@');
        const auto speed = parseNumber(std::string_view(word).substr(0, mark));
        if (mark == std::string::npos || !speed || !(*speed > 0))
            return badInput("a speed is S@STATION, as 50@0+120, not '" + word + "'");
        const auto from = parseStation(word.substr(mark + 1), DisplaySettings{});
        if (!from) return tl::unexpected(from.error());
        const auto distance = line.stationing.distanceAt(*from, line.length);
        if (!distance)
            return badInput("station " + formatExact(*from) + " of --speed is not on the alignment");
        out.push_back({*distance, *speed});
    }
    std::stable_sort(out.begin(), out.end(),
                     [](const auto& x, const auto& y) { return x.distance < y.distance; });
    return out;
}

Result<Outcome> checkDesign(const Arguments& a) {
    const auto line = opened(a.text("alignment"), a);
    if (!line) return tl::unexpected(line.error());
    const auto criteria = format::readCriteria(a.text("criteria"));
    if (!criteria) return tl::unexpected(criteria.error());
    const auto unit = line->unit ? Result<LengthUnit>(*line->unit) : unitOf(a);
    if (!unit) return tl::unexpected(unit.error());
    std::vector<route::Pvi> pvis;
    if (!a.text("pvis").empty()) {
        const auto written = format::readPvis(a.text("pvis"));
        if (!written) return tl::unexpected(written.error());
        auto read = format::pvisOn(line->geometry, *written, a.text("pvis"));
        if (!read) return tl::unexpected(read.error());
        pvis = std::move(*read);
    }
    const auto from = speeds(a, line->geometry);
    if (!from) return tl::unexpected(from.error());
    const auto found = route::checkDesign(line->geometry, pvis, route::inUnit(*criteria, *unit), *from);
    if (!found) return badInput(found.error().text, a.text("criteria"), 1);
    Outcome out;
    out.json["findings"] = ordered_json::array();
    const auto& numbering = line->geometry.stationing;
    for (const auto& f : *found)
        out.json["findings"].push_back({{"kind", faultName(f.fault)},
                                        {"from", numbering.stationAt(f.from)},
                                        {"to", numbering.stationAt(f.to)},
                                        {"fromDistance", f.from},
                                        {"toDistance", f.to},
                                        {"value", f.value},
                                        {"limit", f.limit}});
    out.dataIsWrong = !found->empty();
    return out;
}

void alignmentOption(Options& options) {
    options
        .text("--alignment",
              "LandXML (FILE.xml or FILE.xml:NAME), vector file, CSV of PIs, or PROJECT.erdwerk:NAME")
        .needed();
}

}  // namespace

std::vector<Operation> routeOperations() {
    std::vector<Operation> out;
    out.push_back(
        {"alignment", "An alignment from lines and arcs in any order, or from PIs.",
         "erdwerk-cli alignment data/demo/lane.gpkg --start 2+750 -o lane.xml --json",
         [](Options& options) {
             options
                 .inputs("lines",
                         "vector files, a CSV easting,northing,radius,spiralIn,spiralOut, LandXML or "
                         "PROJECT.erdwerk:NAME")
                 .needed();
             options.text("--start", "station of its beginning (0): 2+750, 27+50 or plain");
             options.flag("--reverse", "run the other way");
             options.number("--radius", "of all bare corners").positive();
             options.number("--gap", "ends of loose pieces nearer than this meet")
                 .notNegative()
                 .defaultsTo(0.01);
             options.texts("--equation", "BACK=AHEAD: where the numbering reaches BACK it goes on at AHEAD");
             options.text("--unit", "m, ft or ftUS, written to the LandXML (m)").defaultsTo("m");
             options.text("-o,--output", "LandXML to write");
         },
         alignment});
    out.push_back(
        {"station", "Stations and offsets of points, or points from stations and offsets.",
         "erdwerk-cli station --alignment data/demo/lane.gpkg --points data/demo/survey.csv -o stations.csv",
         [](Options& options) {
             alignmentOption(options);
             options.texts("--points", "CSV files of points");
             csvOptions(options);
             options.text("--offsets", "CSV name,station,offset,height,code");
             outputOption(options, "CSV to write");
         },
         station});
    out.push_back(
        {"design", "A design of PVIs over an alignment.",
         "erdwerk-cli design --alignment data/demo/lane.gpkg --pvis data/demo/lane-design.csv --ground "
         "data/demo/quillmoor.erdwerk:Ground --interval 10 -o design.csv --json",
         [](Options& options) {
             alignmentOption(options);
             options.text("--pvis", "CSV station,height,curve (a length, or K12)").needed();
             options.texts("--ground", "surfaces; cut and fill are against the first");
             options.number("--interval", "a row at every multiple of it").positive();
             outputOption(options, "CSV to write");
         },
         design});
    out.push_back(
        {"check-design", "An alignment and its design against criteria.",
         "erdwerk-cli check-design --alignment data/demo/lane.gpkg --pvis data/demo/lane-design.csv "
         "--criteria data/demo/lane-criteria.json --speed 30@0 --json",
         [](Options& options) {
             alignmentOption(options);
             options.text("--pvis", "CSV station,height,curve (a length, or K12)");
             options.text("--criteria", "JSON of limits").needed();
             options.texts("--speed", "S@STATION: design speed S from a station on");
             options.text("--unit", "m, ft or ftUS, of files that do not say so (m)").defaultsTo("m");
         },
         checkDesign});
    return out;
}

}  // namespace erdwerk::cli
