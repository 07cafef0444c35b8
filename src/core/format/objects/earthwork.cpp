#include "core/objects/earthwork.h"
#include "core/base/result.h"
#include "core/earthwork/batter_text.h"
#include "core/format/objects/json_kind.h"

namespace erdwerk::format {

using namespace objects;

namespace {

json formToJson(const earthwork::BatterForm& form) {
    json changes = json::array();
    for (const auto& c : form.changes)
        changes.push_back({{"from", c.from}, {"to", c.to}, {"cut", c.cut}, {"fill", c.fill}});
    return {{"cut", form.cut},
            {"fill", form.fill},
            {"berms", earthwork::bermsText(form.berms)},
            {"target", earthwork::targetText(form.target)},
            {"corners", form.corners == linework::OutsideCorner::Round ? "round" : "mitre"},
            {"changes", std::move(changes)}};
}

template <class T>
T valueOf(Result<T> read) {
    if (!read) throw std::runtime_error(read.error().text);
    return std::move(*read);
}

earthwork::BatterForm formFromJson(const json& j) {
    earthwork::BatterForm out;
    out.cut = word(j.at("cut"));
    out.fill = word(j.at("fill"));
    out.berms = valueOf(earthwork::parseBerms(word(j.at("berms"))));
    out.target = valueOf(earthwork::parseTarget(word(j.at("target"))));
    const std::string corners = word(j.at("corners"));
    if (corners != "round" && corners != "mitre") throw std::runtime_error("unknown word '" + corners + "'");
    if (corners == "round") out.corners = linework::OutsideCorner::Round;
    for (const json& c : j.at("changes"))
        out.changes.push_back(
            {figure(c.at("from")), figure(c.at("to")), figure(c.at("cut")), figure(c.at("fill"))});
    valueOf(earthwork::shapeOf(out, false));
    return out;
}

}  // namespace

template <>
json Json<Earthwork>::write(const Earthwork& p, const JsonContext<Earthwork>&) {
    json inside = json::array();
    for (const ObjectId id : p.inside) inside.push_back(id.value);
    json out{{"sort", sortName(p.sort)},
             {"edge", p.edge.value},
             {"ground", p.ground.value},
             {"form", formToJson(p.form)},
             {"side", p.right ? "right" : "left"},
             {"inside", std::move(inside)},
             {"swell", p.earth.swell},
             {"shrink", p.earth.shrink}};
    if (p.stretch) out["stretch"] = {p.stretch->from, p.stretch->to};
    return out;
}

template <>
Earthwork Json<Earthwork>::read(const json& j, const JsonContext<Earthwork>&) {
    Earthwork out;
    out.sort =
        fromName(word(j.at("sort")),
                 std::vector{EarthworkSort::Batter, EarthworkSort::Pad, EarthworkSort::Pond}, sortName);
    out.edge = idFrom(j, "edge");
    out.ground = idFrom(j, "ground");
    out.form = formFromJson(j.at("form"));
    const std::string side = word(j.at("side"));
    if (side != "left" && side != "right") throw std::runtime_error("unknown word '" + side + "'");
    out.right = side == "right";
    for (const json& id : j.at("inside")) out.inside.push_back({whole(id)});
    out.earth.swell = figure(j.at("swell"));
    out.earth.shrink = figure(j.at("shrink"));
    if (!(out.earth.swell > 0) || !(out.earth.shrink > 0))
        throw std::runtime_error("swell and shrink must be above 0");
    if (j.contains("stretch")) out.stretch = {figure(j.at("stretch").at(0)), figure(j.at("stretch").at(1))};
    return out;
}

template <>
json Json<BatterKind>::write(const BatterKind& p, const JsonContext<BatterKind>&) {
    return formToJson(p.form);
}

template <>
BatterKind Json<BatterKind>::read(const json& j, const JsonContext<BatterKind>&) {
    return {formFromJson(j)};
}

}  // namespace erdwerk::format
