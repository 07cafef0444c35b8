#include "core/format/objects/json_kind.h"

namespace erdwerk::format {

using namespace objects;

template <>
json Json<Sheet>::write(const Sheet& p, const JsonContext<Sheet>&) {
    return {{"paper", paperName(p.paper)}, {"scale", p.scale},     {"centre", place(p.centre)},
            {"parcel", p.parcel.value},    {"project", p.project}, {"title", p.title},
            {"drawnBy", p.drawnBy},        {"date", p.date},       {"off", toJson(p.off)}};
}

template <>
Sheet Json<Sheet>::read(const json& j, const JsonContext<Sheet>&) {
    return Sheet{fromName(word(j.at("paper")), std::vector{Paper::A4, Paper::A3, Paper::A1}, paperName),
                 figure(j.at("scale")), place(j.at("centre")), idFrom(j, "parcel"), word(j.at("project")),
                 word(j.at("title")), word(j.at("drawnBy")), word(j.at("date")),
                 // Sheets of the first version do not say.
                 j.contains("off") ? planPartsFromJson(j.at("off")) : Sheet{}.off};
}

}  // namespace erdwerk::format
