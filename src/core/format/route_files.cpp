#include "core/format/route_files.h"

#include <algorithm>
#include <map>
#include <nlohmann/json.hpp>
#include <set>

#include "core/base/notation.h"
#include "core/format/json_file.h"
#include "core/format/named_table.h"

namespace erdwerk::format {

namespace {

using nlohmann::json;
using nlohmann::ordered_json;

}  // namespace

Result<std::vector<route::Pi>> parsePis(std::string_view bytes, const std::string& file) {
    const auto table = NamedTable::read(bytes, file,
                                        {{"easting", {"e", "x"}},
                                         {"northing", {"n", "y"}},
                                         {"radius", {"r"}, false},
                                         {"spiralIn", {"spiral in"}, false},
                                         {"spiralOut", {"spiral out"}, false}});
    if (!table) return tl::unexpected(table.error());
    std::vector<route::Pi> out;
    for (std::size_t i = 0; i < table->size(); ++i) {
        const auto e = table->needed(i, "easting");
        const auto n = table->needed(i, "northing");
        if (!e || !n) return tl::unexpected(e ? n.error() : e.error());
        route::Pi pi{{*e, *n}};
        for (const auto& [column, field] :
             {std::pair{"radius", &pi.radius}, {"spiralIn", &pi.spiralIn}, {"spiralOut", &pi.spiralOut}}) {
            const auto value = table->number(i, column);
            if (!value) return tl::unexpected(value.error());
            if (value->value_or(0) < 0) return table->bad(i, std::string(column) + " is below 0");
            *field = value->value_or(0);
        }
        if (pi.radius == 0 && (pi.spiralIn > 0 || pi.spiralOut > 0))
            return table->bad(i, "a spiral needs a radius");
        out.push_back(pi);
    }
    if (out.size() < 2)
        return badInput("an alignment has at least two PIs, its beginning and its end", file, 1);
    return out;
}

Result<std::vector<route::Pi>> readPis(const std::string& path) {
    return fromFile<std::vector<route::Pi>>(path, &parsePis);
}

Result<std::vector<WrittenPvi>> parsePvis(std::string_view bytes, const std::string& file) {
    const auto table = NamedTable::read(bytes, file,
                                        {{"station", {"sta"}},
                                         {"height", {"elevation", "z", "h"}},
                                         {"curve", {"length", "curve length"}, false}});
    if (!table) return tl::unexpected(table.error());
    std::vector<WrittenPvi> out;
    for (std::size_t i = 0; i < table->size(); ++i) {
        WrittenPvi pvi;
        pvi.line = table->line(i);
        const auto station = table->station(i);
        const auto height = table->needed(i, "height");
        if (!station || !height) return tl::unexpected(station ? height.error() : station.error());
        pvi.station = *station;
        pvi.height = *height;
        const std::string curve = table->text(i, "curve");
        const bool byK = !curve.empty() && (curve.front() == 'K' || curve.front() == 'k');
        if (!curve.empty()) {
            const auto value = parseNumber(byK ? std::string_view(curve).substr(1) : std::string_view(curve));
            if (!value || *value < 0 || (byK && *value == 0))
                return table->bad(i, "'" + curve + "' is no curve: write a length, or K12");
            if (byK)
                pvi.k = *value;
            else if (*value > 0)
                pvi.length = *value;
        }
        out.push_back(pvi);
    }
    if (out.size() < 2) return badInput("a design has at least two PVIs", file, 1);
    return out;
}

Result<std::vector<WrittenPvi>> readPvis(const std::string& path) {
    return fromFile<std::vector<WrittenPvi>>(path, &parsePvis);
}

Result<std::vector<route::Pvi>> pvisOn(const route::AlignmentGeometry& alignment,
                                       const std::vector<WrittenPvi>& written, const std::string& file) {
    std::vector<route::Pvi> out;
    for (std::size_t i = 0; i < written.size(); ++i) {
        const WrittenPvi& w = written[i];
        const auto distance = alignment.stationing.distanceAt(w.station, alignment.length);
        if (!distance)
            return badInput("station " + formatExact(w.station) + " is not on the alignment (" +
                                formatExact(alignment.stationing.start()) + " to " +
                                formatExact(alignment.endStation()) + ")",
                            file, w.line);
        const double running = alignment.running(*distance);
        if (!out.empty() && !(running > out.back().station))
            return badInput("station " + formatExact(w.station) + " does not lie beyond the one before", file,
                            w.line);
        if ((i == 0 || i + 1 == written.size()) && (w.length || w.k))
            return badInput("the first and the last PVI have no curve", file, w.line);
        out.push_back({running, w.height, w.length.value_or(0)});
    }
    for (std::size_t i = 0; i < written.size(); ++i)
        if (written[i].k) out[i].curveLength = route::curveLengthByK(out, i, *written[i].k).value_or(0);
    return out;
}

Result<std::vector<StationRow>> parseStationRows(std::string_view bytes, const std::string& file) {
    const auto table = NamedTable::read(bytes, file,
                                        {{"station", {"sta"}},
                                         {"offset", {"off"}},
                                         {"name", {"number", "id", "point"}, false},
                                         {"height", {"elevation", "z", "h"}, false},
                                         {"code", {"description"}, false}});
    if (!table) return tl::unexpected(table.error());
    std::vector<StationRow> out;
    for (std::size_t i = 0; i < table->size(); ++i) {
        StationRow row;
        const auto station = table->station(i);
        const auto offset = table->needed(i, "offset");
        const auto height = table->number(i, "height");
        if (!station) return tl::unexpected(station.error());
        if (!offset) return tl::unexpected(offset.error());
        if (!height) return tl::unexpected(height.error());
        out.push_back(
            {table->text(i, "name"), *station, *offset, *height, table->text(i, "code"), table->line(i)});
    }
    return out;
}

Result<std::vector<StationRow>> readStationRows(const std::string& path) {
    return fromFile<std::vector<StationRow>>(path, &parseStationRows);
}

namespace {

/// The fields that hold a limit, by their keys.
struct LimitKey {
    const char* key;
    std::optional<double> route::Criteria::*field;
};
constexpr std::array<LimitKey, 5> limitKeys{{{"maxGrade", &route::Criteria::maxGrade},
                                             {"minGrade", &route::Criteria::minGrade},
                                             {"minCurveLength", &route::Criteria::minCurveLength},
                                             {"minTangent", &route::Criteria::minTangent},
                                             {"maxDeflection", &route::Criteria::maxDeflection}}};
struct SpeedKey {
    const char* key;
    std::optional<double> route::SpeedLimits::*field;
};
constexpr std::array<SpeedKey, 4> speedKeys{{{"minRadius", &route::SpeedLimits::minRadius},
                                             {"minSpiral", &route::SpeedLimits::minSpiral},
                                             {"minCrestK", &route::SpeedLimits::minCrestK},
                                             {"minSagK", &route::SpeedLimits::minSagK}}};

double figureAt(const json& object, const std::string& key) {
    const json& value = object.at(key);
    if (!value.is_number()) throw std::runtime_error("'" + key + "' is not a number");
    return value.get<double>();
}

void onlyKeys(const json& object, const std::set<std::string>& known, const std::string& where) {
    for (const auto& [key, value] : object.items())
        if (known.count(key) == 0) throw std::runtime_error("'" + key + "' is no key of " + where);
}

route::Criteria criteriaFrom(const json& j) {
    if (!j.is_object()) throw std::runtime_error("criteria are an object with keys");
    onlyKeys(j,
             {"name", "source", "unit", "bySpeed", "maxGrade", "minGrade", "minCurveLength", "minTangent",
              "maxDeflection"},
             "criteria");
    route::Criteria out;
    for (const auto& [key, field] : {std::pair{"name", &out.name}, {"source", &out.source}}) {
        if (!j.contains(key)) continue;
        if (!j.at(key).is_string()) throw std::runtime_error(std::string("'") + key + "' is not a text");
        *field = j.at(key).get<std::string>();
    }
    if (j.contains("unit")) {
        const json& unit = j.at("unit");
        if (unit != "m" && unit != "ft")
            throw std::runtime_error("'unit' is m or ft" +
                                     (unit.is_string() ? ", not " + unit.get<std::string>() : ""));
        out.unit = unit == "m" ? LengthUnit::Metre : LengthUnit::InternationalFoot;
    }
    for (const auto& [key, field] : limitKeys)
        if (j.contains(key)) out.*field = figureAt(j, key);
    if (!j.contains("bySpeed")) return out;
    if (!j.at("bySpeed").is_array()) throw std::runtime_error("'bySpeed' is a list");
    for (const json& row : j.at("bySpeed")) {
        if (!row.is_object() || !row.contains("speed"))
            throw std::runtime_error("a row of 'bySpeed' has no 'speed'");
        onlyKeys(row, {"speed", "minRadius", "minSpiral", "minCrestK", "minSagK"}, "'bySpeed'");
        route::SpeedLimits limits;
        limits.speed = figureAt(row, "speed");
        for (const auto& [key, field] : speedKeys)
            if (row.contains(key)) limits.*field = figureAt(row, key);
        out.bySpeed.push_back(limits);
    }
    return out;
}

}  // namespace

Result<route::Criteria> parseCriteria(const std::string& text, const std::string& file) {
    const auto parsed = parseJson(text, file);
    if (!parsed) return tl::unexpected(parsed.error());
    try {
        auto out = criteriaFrom(*parsed);
        if (auto valid = validate(out); !valid) return badInput(valid.error().text, file, 1);
        return out;
    } catch (const std::exception& e) {
        return badInput(e.what(), file, 1);
    }
}

Result<route::Criteria> readCriteria(const std::string& path) {
    const auto text = readFile(path);
    if (!text) return tl::unexpected(text.error());
    return parseCriteria(*text, path);
}

std::string criteriaText(const route::Criteria& criteria) {
    ordered_json j{{"name", criteria.name},
                   {"source", criteria.source},
                   {"unit", criteria.unit == LengthUnit::Metre ? "m" : "ft"}};
    j["bySpeed"] = ordered_json::array();
    for (const auto& s : criteria.bySpeed) {
        ordered_json row{{"speed", s.speed}};
        for (const auto& [key, field] : speedKeys)
            if (s.*field) row[key] = *(s.*field);
        j["bySpeed"].push_back(std::move(row));
    }
    for (const auto& [key, field] : limitKeys)
        if (criteria.*field) j[key] = *(criteria.*field);
    return j.dump(2) + "\n";
}

}  // namespace erdwerk::format
