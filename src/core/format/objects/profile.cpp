#include "core/format/objects/json_kind.h"

namespace erdwerk::format {

using namespace objects;

template <>
json Json<Profile>::write(const Profile& p, const JsonContext<Profile>&) {
    json pvis = json::array();
    for (const auto& pvi : p.design) {
        pvis.push_back({{"station", pvi.station}, {"height", pvi.height}, {"curveLength", pvi.curveLength}});
        if (pvi.byK > 0) pvis.back()["byK"] = pvi.byK;
    }
    return {{"alignment", p.alignment.value},
            {"ground", p.ground.value},
            {"design", std::move(pvis)},
            {"exaggeration", p.exaggeration}};
}

template <>
Profile Json<Profile>::read(const json& j, const JsonContext<Profile>&) {
    Profile out{idFrom(j, "alignment"), idFrom(j, "ground"), {}, figure(j.at("exaggeration"))};
    for (const json& p : j.at("design"))
        out.design.push_back({figure(p.at("station")), figure(p.at("height")), figure(p.at("curveLength")),
                              p.value("byK", 0.0)});
    return out;
}

}  // namespace erdwerk::format
