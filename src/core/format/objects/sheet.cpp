#include "core/format/objects/json_kind.h"

namespace erdwerk::format {

using namespace objects;

template <>
json Json<Sheet>::write(const Sheet& p, const JsonContext<Sheet>&) {
    json tables = json::array();
    for (const ObjectId id : p.tables) tables.push_back(id.value);
    return {{"paper", paperName(p.paper)},
            {"scale", p.scale},
            {"centre", place(p.centre)},
            {"parcel", p.parcel.value},
            {"project", p.project},
            {"title", p.title},
            {"drawnBy", p.drawnBy},
            {"date", p.date},
            {"off", toJson(p.off)},
            {"tables", std::move(tables)},
            {"profile", p.profile.value},
            {"sections", {p.sections.alignment.value, p.sections.interval, p.sections.reach}}};
}

template <>
Sheet Json<Sheet>::read(const json& j, const JsonContext<Sheet>&) {
    Sheet out{fromName(word(j.at("paper")), std::vector{Paper::A4, Paper::A3, Paper::A1}, paperName),
              figure(j.at("scale")), place(j.at("centre")), idFrom(j, "parcel"), word(j.at("project")),
              word(j.at("title")), word(j.at("drawnBy")), word(j.at("date")),
              // Sheets of the first version do not say.
              j.contains("off") ? planPartsFromJson(j.at("off")) : Sheet{}.off};
    if (j.contains("profile")) out.profile = idFrom(j, "profile");
    if (j.contains("tables"))
        for (const json& id : j.at("tables")) out.tables.push_back({whole(id)});
    if (j.contains("sections")) {
        const json& s = j.at("sections");
        out.sections = {{whole(s.at(0))}, figure(s.at(1)), figure(s.at(2))};
        if (!(out.sections.interval > 0) || !(out.sections.reach > 0))
            throw std::runtime_error("cross-sections have an interval and a reach above 0");
    }
    return out;
}

}  // namespace erdwerk::format
