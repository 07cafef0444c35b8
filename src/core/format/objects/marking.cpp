#include "core/format/objects/marking.h"

#include <set>

#include "core/format/objects/json_kind.h"

namespace erdwerk::format {

using namespace objects;

nlohmann::ordered_json markingJson(const route::MarkingSettings& m) {
    return {{"small", m.small},
            {"large", m.large},
            {"points", m.points},
            {"curves", m.curves},
            {"speeds", m.speeds},
            {"equations", m.equations},
            {"side", m.right ? "right" : "left"},
            {"height", m.height}};
}

route::MarkingSettings markingFromJson(const json& j) {
    static const std::set<std::string> known{"name",   "small",     "large", "points", "curves",
                                             "speeds", "equations", "side",  "height"};
    for (const auto& [key, value] : j.items())
        if (known.count(key) == 0) throw std::runtime_error("unknown key '" + key + "' in a marking");
    route::MarkingSettings out;
    const auto given = [&](const char* key, auto& field, auto read) {
        if (j.contains(key)) field = read(j.at(key));
    };
    given("small", out.small, figure);
    given("large", out.large, figure);
    given("points", out.points, flag);
    given("curves", out.curves, flag);
    given("speeds", out.speeds, flag);
    given("equations", out.equations, flag);
    given("height", out.height, figure);
    if (j.contains("side")) {
        const auto side = word(j.at("side"));
        if (side != "left" && side != "right")
            throw std::runtime_error("'" + side + "' is no side; it is left or right");
        out.right = side == "right";
    }
    if (const auto valid = route::validate(out); !valid) throw std::runtime_error(valid.error().text);
    return out;
}

template <>
json Json<Marking>::write(const Marking& p, const JsonContext<Marking>&) {
    return {{"marking", json(markingJson(p.marking))}};
}

template <>
Marking Json<Marking>::read(const json& j, const JsonContext<Marking>&) {
    return {markingFromJson(j.at("marking"))};
}

}  // namespace erdwerk::format
