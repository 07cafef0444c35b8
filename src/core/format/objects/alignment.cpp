#include "core/objects/alignment.h"
#include "core/format/json_place.h"
#include "core/format/objects/json_kind.h"
#include "core/geometry/element.h"
#include "core/route/pis.h"

namespace erdwerk::format {

using namespace objects;

namespace {

json elementJson(const geometry::Segment& s) {
    json j{{"start", place(s.start)}, {"end", place(s.end)}};
    if (s.through) j["through"] = place(*s.through);
    if (s.spiral) j["spiral"] = {s.spiral->startCurvature, s.spiral->endCurvature, s.spiral->length};
    return j;
}

geometry::Segment elementFrom(const json& j) {
    geometry::Segment s{place(j.at("start")), place(j.at("end")), std::nullopt};
    if (j.contains("through")) s.through = place(j.at("through"));
    if (j.contains("spiral"))
        s.spiral = geometry::Spiral{figure(j.at("spiral").at(0)), figure(j.at("spiral").at(1)),
                                    figure(j.at("spiral").at(2))};
    if (s.spiral && !(s.spiral->length > 0)) throw std::runtime_error("a spiral has a length above 0");
    return s;
}

}  // namespace

template <>
json Json<Alignment>::write(const Alignment& p, const JsonContext<Alignment>&) {
    json pis = json::array();
    for (const route::Pi& pi : p.pis)
        pis.push_back({pi.place.x, pi.place.y, pi.radius, pi.spiralIn, pi.spiralOut});
    json elements = json::array();
    for (const auto& s : p.elements) elements.push_back(elementJson(s));
    json equations = json::array();
    for (const auto& e : p.equations) equations.push_back({e.back, e.ahead});
    json speeds = json::array();
    for (const DesignSpeed& s : p.speeds) speeds.push_back({s.station, s.speed});
    return {{"line", p.line.value},
            {"reversed", p.reversed},
            {"startStation", p.startStation},
            {"tickInterval", p.tickInterval},
            {"pis", std::move(pis)},
            {"elements", std::move(elements)},
            {"equations", std::move(equations)},
            {"serves", p.serves},
            {"description", p.description},
            {"criteria", p.criteria.value},
            {"speeds", std::move(speeds)},
            {"checked", p.checked},
            {"marking", p.marking.value}};
}

template <>
Alignment Json<Alignment>::read(const json& j, const JsonContext<Alignment>&) {
    Alignment out{idFrom(j, "line"), flag(j.at("reversed")), figure(j.at("startStation")),
                  figure(j.at("tickInterval"))};
    for (const json& pi : j.value("pis", json::array()))
        out.pis.push_back(
            {{figure(pi.at(0)), figure(pi.at(1))}, figure(pi.at(2)), figure(pi.at(3)), figure(pi.at(4))});
    for (const json& s : j.value("elements", json::array())) out.elements.push_back(elementFrom(s));
    for (const json& e : j.value("equations", json::array()))
        out.equations.push_back({figure(e.at(0)), figure(e.at(1))});
    out.serves = j.value("serves", "");
    out.description = j.value("description", "");
    if (j.contains("criteria")) out.criteria = idFrom(j, "criteria");
    for (const json& s : j.value("speeds", json::array()))
        out.speeds.push_back({figure(s.at(0)), figure(s.at(1))});
    out.checked = j.value("checked", true);
    if (j.contains("marking")) out.marking = idFrom(j, "marking");
    return out;
}

}  // namespace erdwerk::format
