#include "core/format/objects/json_kind.h"

namespace erdwerk::format {

using namespace objects;

namespace {

json ruleToJson(const linework::HeightRule& rule) {
    const auto fields = linework::writeRule(rule);
    json out{{"rule", linework::ruleName(rule)}};
    for (const auto& [key, figure] : fields.figures) out[key] = figure;
    for (const auto& [key, word] : fields.words) out[key] = word;
    for (const auto& [key, object] : fields.objects) out[key] = object.value;
    return out;
}

linework::HeightRule ruleFromJson(const json& j) {
    linework::RuleFields fields;
    for (const auto& [key, value] : j.items()) {
        if (value.is_number()) fields.figures[key] = value.get<double>();
        if (value.is_number_unsigned()) fields.objects[key] = {value.get<std::uint64_t>()};
        if (value.is_string()) fields.words[key] = value.get<std::string>();
    }
    auto rule = linework::readRule(word(j.at("rule")), fields);
    if (!rule) throw std::runtime_error(rule.error().text);
    return std::move(*rule);
}

}  // namespace

template <>
json Json<Line>::write(const Line& p, const JsonContext<Line>&) {
    json vertices = json::array();
    for (const auto& v : p.line.vertices) {
        json j = ruleToJson(v.rule);
        if (v.curve) j["curve"] = linework::curveText(*v.curve);
        if (v.isCorner) {
            j["at"] = place(v.place);
            if (v.through) j["through"] = place(*v.through);
        } else {
            j["fraction"] = v.fraction;
        }
        vertices.push_back(std::move(j));
    }
    return {{"closed", p.line.closed}, {"style", styleName(p.style)}, {"vertices", std::move(vertices)}};
}

template <>
Line Json<Line>::read(const json& j, const JsonContext<Line>&) {
    Line out;
    out.line.closed = flag(j.at("closed"));
    out.style = fromName(j.value("style", "plain"),
                         std::vector{LineStyle::Plain, LineStyle::Crest, LineStyle::Toe}, styleName);
    for (const json& v : j.at("vertices")) {
        linework::LineVertex vertex;
        vertex.rule = ruleFromJson(v);
        if (v.contains("curve")) {
            const auto curve = linework::parseCurve("~ " + v.at("curve").get<std::string>());
            if (!curve) throw std::runtime_error(curve.error().text);
            vertex.curve = curve->second;
        }
        vertex.isCorner = v.contains("at");
        if (vertex.isCorner) {
            vertex.place = place(v.at("at"));
            if (v.contains("through")) vertex.through = place(v.at("through"));
        } else {
            vertex.fraction = figure(v.at("fraction"));
        }
        out.line.vertices.push_back(vertex);
    }
    if (const auto problem = validate(out.line)) throw std::runtime_error(*problem);
    return out;
}

}  // namespace erdwerk::format
