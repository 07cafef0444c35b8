// Settings of a project, and what it shows, as JSON.

#include <nlohmann/json.hpp>
#include <stdexcept>

#include "core/format/json_place.h"
#include "core/format/object_json.h"
#include "core/format/objects/json_kind.h"

namespace erdwerk::format {

using document::Accepted;
using document::Settings;
using document::Shown;
using nlohmann::json;

json toJson(const Settings& s) {
    const DisplaySettings& d = s.display;
    json accepted = json::array();
    for (const Accepted& a : s.accepted) {
        json objects = json::array();
        for (const ObjectId id : a.objects) objects.push_back(id.value);
        accepted.push_back(
            {{"kind", a.kind}, {"at", place(a.at)}, {"objects", std::move(objects)}, {"reason", a.reason}});
    }
    return {{"name", s.name},
            {"accepted", std::move(accepted)},
            {"nearDuplicates", s.checks.near},
            {"nearlyTouching", s.checks.touch},
            {"mostEarth", s.checks.earth},
            {"farthestSlopes", s.checks.reach},
            {"highestSlopes", s.checks.depth},
            {"steepestGiven", s.checks.steepest},
            {"unit", unitSymbol(d.unit)},
            {"direction", d.direction == DirectionStyle::Bearing ? "bearing" : "azimuth"},
            {"angleUnit", d.angleUnit == AngleUnit::Gon
                              ? "gon"
                              : (d.angleUnit == AngleUnit::DecimalDegrees ? "degrees" : "dms")},
            {"station", d.station == StationStyle::Thousands ? "0+000" : "0+00"},
            {"order", d.order == CoordinateOrder::EastingNorthing ? "EN" : "NE"},
            {"lengthDecimals", d.lengthDecimals},
            {"heightDecimals", d.heightDecimals},
            {"gradeDecimals", d.gradeDecimals}};
}

Result<Settings> settingsFromJson(const json& j) {
    try {
        Settings s;
        s.name = j.at("name");
        const auto unit = unitFromSymbol(j.at("unit").get<std::string>());
        if (!unit) throw std::runtime_error("unknown unit");
        s.display.unit = *unit;
        s.display.direction =
            j.at("direction") == "azimuth" ? DirectionStyle::Azimuth : DirectionStyle::Bearing;
        const std::string angle = j.at("angleUnit");
        s.display.angleUnit = angle == "gon" ? AngleUnit::Gon
                                             : (angle == "degrees" ? AngleUnit::DecimalDegrees
                                                                   : AngleUnit::DegreesMinutesSeconds);
        s.display.station = j.at("station") == "0+00" ? StationStyle::Hundreds : StationStyle::Thousands;
        s.display.order =
            j.at("order") == "NE" ? CoordinateOrder::NorthingEasting : CoordinateOrder::EastingNorthing;
        s.checks.near = j.value("nearDuplicates", s.checks.near);
        s.checks.touch = j.value("nearlyTouching", s.checks.touch);
        s.checks.earth = j.value("mostEarth", s.checks.earth);
        s.checks.reach = j.value("farthestSlopes", s.checks.reach);
        s.checks.depth = j.value("highestSlopes", s.checks.depth);
        s.checks.steepest = j.value("steepestGiven", s.checks.steepest);
        for (const json& a : j.value("accepted", json::array())) {
            Accepted accepted{a.at("kind"), place(a.at("at")), {}, a.at("reason")};
            for (const json& id : a.at("objects")) accepted.objects.push_back({id.get<std::uint64_t>()});
            s.accepted.push_back(std::move(accepted));
        }
        s.display.lengthDecimals = j.at("lengthDecimals");
        s.display.heightDecimals = j.at("heightDecimals");
        s.display.gradeDecimals = j.at("gradeDecimals");
        return s;
    } catch (const std::exception& e) {
        return badInput(std::string("the settings are damaged: ") + e.what());
    }
}

json toJson(const Shown& s) {
    json hidden = json::array();
    for (const ObjectId id : s.hidden) hidden.push_back(id.value);
    return {{"hidden", std::move(hidden)}, {"off", toJson(s.off)}};
}

Result<Shown> shownFromJson(const json& j) {
    try {
        Shown s;
        if (!j.at("hidden").is_array()) throw std::runtime_error("what is hidden is no list");
        for (const json& id : j.at("hidden")) s.hidden.insert({whole(id)});
        s.off = planPartsFromJson(j.at("off"));
        return s;
    } catch (const std::exception& e) {
        return badInput(std::string("what is shown is damaged: ") + e.what());
    }
}

bool wasHidden(const json& object) {
    return object.contains("visible") && !flag(object.at("visible"));
}

}  // namespace erdwerk::format
