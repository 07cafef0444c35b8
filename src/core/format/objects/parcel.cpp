#include "core/objects/parcel.h"
#include "core/format/objects/json_kind.h"
#include "core/parcel/description.h"

namespace erdwerk::format {

using namespace objects;

namespace {

json namesJson(const std::vector<Parcel::Named>& names, const char* part) {
    json out = json::array();
    for (const auto& n : names) out.push_back({{part, n.part}, {"name", n.name}});
    return out;
}

std::vector<Parcel::Named> namesFrom(const json& j, const char* key, const char* part) {
    std::vector<Parcel::Named> out;
    if (!j.contains(key)) return out;
    for (const auto& n : j.at(key)) out.push_back({whole(n.at(part)), word(n.at("name"))});
    return out;
}

Passage passageFrom(const json& j) {
    Passage out;
    const std::string of = word(j.at("of"));
    using Of = Passage::Of;
    out.of = fromName(of, std::vector{Of::Opening, Of::Beginning, Of::ListOpening, Of::Course, Of::Area},
                      &passageName);
    if (out.of == Of::Course) out.side = whole(j.at("side"));
    out.text = word(j.at("text"));
    out.instead = word(j.at("instead"));
    return out;
}

}  // namespace

template <>
json Json<Parcel>::write(const Parcel& p, const JsonContext<Parcel>&) {
    json out{
        {"line", p.line.value}, {"reversed", p.reversed}, {"begin", p.begin}, {"beginning", p.beginning}};
    if (p.wording) out["wording"] = p.wording.value;
    if (p.tie) out["tie"] = p.tie.value;
    if (!p.commencement.empty()) out["commencement"] = p.commencement;
    if (!p.areas.empty()) out["areas"] = p.areas;
    if (!p.adjoiners.empty()) out["adjoiners"] = namesJson(p.adjoiners, "side");
    if (!p.things.empty()) out["things"] = namesJson(p.things, "corner");
    for (const auto& passage : p.passages) {
        json one{{"of", passageName(passage.of)}, {"text", passage.text}, {"instead", passage.instead}};
        if (passage.of == Passage::Of::Course) one["side"] = passage.side;
        out["passages"].push_back(one);
    }
    return out;
}

template <>
Parcel Json<Parcel>::read(const json& j, const JsonContext<Parcel>&) {
    Parcel out{idFrom(j, "line"), flag(j.at("reversed")), whole(j.at("begin")), word(j.at("beginning"))};
    if (j.contains("wording")) out.wording = idFrom(j, "wording");
    if (j.contains("tie")) out.tie = idFrom(j, "tie");
    if (j.contains("commencement")) out.commencement = word(j.at("commencement"));
    if (j.contains("areas"))
        for (const auto& area : j.at("areas")) {
            out.areas.push_back(word(area));
            if (!parcel::areaWords(1, LengthUnit::Metre, out.areas.back()))
                throw std::runtime_error("unknown unit of area '" + out.areas.back() + "'");
        }
    out.adjoiners = namesFrom(j, "adjoiners", "side");
    out.things = namesFrom(j, "things", "corner");
    if (j.contains("passages"))
        for (const auto& passage : j.at("passages")) out.passages.push_back(passageFrom(passage));
    return out;
}

}  // namespace erdwerk::format
