#include "core/format/object_json.h"
#include "core/format/objects/json_kind.h"

namespace erdwerk::format {

using namespace objects;

template <>
json Json<Points>::write(const Points& p, const JsonContext<Points>&) {
    json points = json::array();
    for (const auto& block : p.set.blocks())
        for (const auto& point : *block) points.push_back(toJson(point));
    return {{"points", std::move(points)}};
}

template <>
Points Json<Points>::read(const json& j, const JsonContext<Points>&) {
    std::vector<survey::SurveyPoint> points;
    for (const json& p : j.at("points")) {
        auto point = pointFromJson(p);
        if (!point) throw std::runtime_error(point.error().text);
        points.push_back(std::move(*point));
    }
    return Points{survey::PointSet(std::move(points))};
}

}  // namespace erdwerk::format
