#include "core/objects/line.h"
#include "core/format/objects/json_kind.h"
#include "core/linework/offset_row.h"

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

json followsToJson(const Follows& follows) {
    if (const auto* row = std::get_if<RowOf>(&follows)) {
        json j{{"rowOf", row->line.value},
               {"row", linework::rowText(row->row)},
               {"side", row->options.right ? "right" : "left"},
               {"corners", row->options.corners == linework::OutsideCorner::Round ? "round" : "mitre"}};
        if (row->surface) j["surface"] = row->surface.value;
        return j;
    }
    if (const auto* design = std::get_if<DesignOf>(&follows))
        return {{"designOf", design->profile.value},
                {"row", linework::rowText(design->row)},
                {"side", design->options.right ? "right" : "left"},
                {"corners", design->options.corners == linework::OutsideCorner::Round ? "round" : "mitre"}};
    if (const auto* figure = std::get_if<FigureOf>(&follows)) {
        json lines = json::array();
        for (const ObjectId line : figure->lines) lines.push_back(line.value);
        return {{"figureOf", std::move(lines)}, {"inside", place(figure->inside)}};
    }
    const auto& meeting = std::get<MeetingOf>(follows);
    return {{"meetingOf", {meeting.first.value, meeting.second.value}},
            {"grades", {meeting.options.a.riseOverRun(), meeting.options.b.riseOverRun()}},
            {"along", meeting.options.along == linework::SlopeAlong::Fall ? "fall" : "perpendicular"},
            {"part", meeting.part}};
}

/// One of two words.
bool isFirst(const json& j, const char* first, const char* second) {
    const std::string said = word(j);
    if (said != first && said != second) throw std::runtime_error("unknown word '" + said + "'");
    return said == first;
}

Follows followsFromJson(const json& j) {
    const auto beside = [&](auto& out) {
        auto row = linework::parseOffsetRow(word(j.at("row")));
        if (!row) throw std::runtime_error(row.error().text);
        out.row = std::move(*row);
        out.options.right = isFirst(j.at("side"), "right", "left");
        if (isFirst(j.at("corners"), "round", "mitre")) out.options.corners = linework::OutsideCorner::Round;
    };
    if (j.contains("rowOf")) {
        RowOf out;
        out.line = idFrom(j, "rowOf");
        beside(out);
        if (j.contains("surface")) out.surface = idFrom(j, "surface");
        return out;
    }
    if (j.contains("designOf")) {
        DesignOf out;
        out.profile = idFrom(j, "designOf");
        beside(out);
        return out;
    }
    if (j.contains("figureOf")) {
        FigureOf out;
        for (const json& line : j.at("figureOf")) out.lines.push_back({whole(line)});
        out.inside = place(j.at("inside"));
        return out;
    }
    MeetingOf out;
    out.first = {whole(j.at("meetingOf").at(0))};
    out.second = {whole(j.at("meetingOf").at(1))};
    out.options.a = Grade::riseOverRun(figure(j.at("grades").at(0)));
    out.options.b = Grade::riseOverRun(figure(j.at("grades").at(1)));
    if (isFirst(j.at("along"), "fall", "perpendicular")) out.options.along = linework::SlopeAlong::Fall;
    out.part = whole(j.at("part"));
    return out;
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
            if (v.joint) j["joint"] = true;
        } else {
            j["fraction"] = v.fraction;
        }
        vertices.push_back(std::move(j));
    }
    json out{{"closed", p.line.closed}, {"style", styleName(p.style)}, {"vertices", std::move(vertices)}};
    if (p.limits.any()) out["grades"] = linework::gradeLimitsText(p.limits);
    if (p.follows) out["follows"] = followsToJson(*p.follows);
    return out;
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
            if (v.contains("joint")) vertex.joint = flag(v.at("joint"));
        } else {
            vertex.fraction = figure(v.at("fraction"));
        }
        out.line.vertices.push_back(vertex);
    }
    if (j.contains("grades")) {
        const auto limits = linework::parseGradeLimits(word(j.at("grades")));
        if (!limits) throw std::runtime_error(limits.error().text);
        out.limits = *limits;
    }
    if (j.contains("follows"))
        out.follows = std::make_shared<const Follows>(followsFromJson(j.at("follows")));
    if (const auto problem = validate(out.line)) throw std::runtime_error(*problem);
    return out;
}

}  // namespace erdwerk::format
