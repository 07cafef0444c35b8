#include "core/objects/profile.h"
#include "core/format/objects/json_kind.h"
#include "core/route/profile_rows.h"

namespace erdwerk::format {

using namespace objects;

template <>
json Json<Profile>::write(const Profile& p, const JsonContext<Profile>&) {
    json pvis = json::array();
    for (const auto& pvi : p.design) {
        pvis.push_back({{"station", pvi.station}, {"height", pvi.height}, {"curveLength", pvi.curveLength}});
        if (pvi.byK > 0) pvis.back()["byK"] = pvi.byK;
        if (pvi.locked) pvis.back()["locked"] = true;
        if (pvi.onGround) pvis.back()["onGround"] = *pvi.onGround;
    }
    json rows = json::array();
    for (const auto row : p.rows) rows.push_back(route::rowName(row));
    json across = json::array();
    for (const ObjectId line : p.across) across.push_back(line.value);
    return {{"alignment", p.alignment.value},
            {"ground", p.ground.value},
            {"design", std::move(pvis)},
            {"exaggeration", p.exaggeration},
            {"rows", std::move(rows)},
            {"across", std::move(across)},
            {"scale", p.scale}};
}

template <>
Profile Json<Profile>::read(const json& j, const JsonContext<Profile>&) {
    Profile out{idFrom(j, "alignment"), idFrom(j, "ground"), {}, figure(j.at("exaggeration"))};
    for (const json& p : j.at("design"))
        out.design.push_back(
            {figure(p.at("station")), figure(p.at("height")), figure(p.at("curveLength")),
             p.value("byK", 0.0), p.value("locked", false),
             p.contains("onGround") ? std::optional(figure(p.at("onGround"))) : std::nullopt});
    if (j.contains("rows")) {
        out.rows.clear();
        for (const json& row : j.at("rows")) {
            const auto known = route::rowFromName(word(row));
            if (!known) throw std::runtime_error("unknown row '" + word(row) + "' of a profile");
            out.rows.push_back(*known);
        }
    }
    for (const json& line : j.value("across", json::array())) out.across.push_back({whole(line)});
    if (j.contains("scale")) out.scale = figure(j.at("scale"));
    return out;
}

}  // namespace erdwerk::format
