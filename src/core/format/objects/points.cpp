#include "core/format/objects/points.h"

#include "core/format/object_json.h"
#include "core/format/objects/json_kind.h"

namespace erdwerk::format {

using namespace objects;

json tieJson(const StationTie& tie) {
    json points = json::array();
    for (const TiedPoint& p : tie.points) points.push_back({p.number, p.station, p.offset});
    return {{"alignment", tie.alignment.value}, {"points", std::move(points)}};
}

StationTie tieFromJson(const json& j) {
    StationTie out{idFrom(j, "alignment"), {}};
    for (const json& p : j.at("points"))
        out.points.push_back({word(p.at(0)), figure(p.at(1)), figure(p.at(2))});
    return out;
}

template <>
json Json<Points>::write(const Points& p, const JsonContext<Points>&) {
    json points = json::array();
    for (const auto& block : p.set.blocks())
        for (const auto& point : *block) points.push_back(toJson(point));
    json out{{"points", std::move(points)}};
    if (p.tie) out["tie"] = tieJson(*p.tie);
    return out;
}

template <>
Points Json<Points>::read(const json& j, const JsonContext<Points>&) {
    std::vector<survey::SurveyPoint> points;
    for (const json& p : j.at("points")) {
        auto point = pointFromJson(p);
        if (!point) throw std::runtime_error(point.error().text);
        points.push_back(std::move(*point));
    }
    Points out{survey::PointSet(std::move(points))};
    if (j.contains("tie")) out.tie = std::make_shared<const StationTie>(tieFromJson(j.at("tie")));
    return out;
}

}  // namespace erdwerk::format
