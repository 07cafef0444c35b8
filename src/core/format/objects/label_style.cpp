#include "core/format/objects/label_style.h"

#include "core/annotate/label_style.h"
#include "core/format/named_table.h"
#include "core/objects/label_style.h"

namespace erdwerk::format {

using namespace objects;
using annotate::Seconds;
using annotate::Stand;

namespace {

constexpr std::array<std::string_view, 3> secondsNames{"shown", "minutes", "degrees"};
std::string_view secondsName(Seconds seconds) {
    return secondsNames[static_cast<std::size_t>(seconds)];
}

json fieldJson(const annotate::StyleField& f) {
    return {{"field", annotate::fieldName(f.field)},
            {"prefix", f.prefix},
            {"suffix", f.suffix},
            {"decimals", f.decimals},
            {"leadingZeros", f.leadingZeros},
            {"seconds", secondsName(f.seconds)}};
}

annotate::StyleField fieldFromJson(const json& f, annotate::LabelKind kind) {
    annotate::StyleField out{fromName(word(f.at("field")), annotate::fieldsOf(kind), annotate::fieldName),
                             word(f.at("prefix"))};
    out.decimals = static_cast<int>(whole(f.at("decimals")));
    if (f.contains("suffix")) out.suffix = word(f.at("suffix"));
    if (f.contains("leadingZeros")) out.leadingZeros = flag(f.at("leadingZeros"));
    if (f.contains("seconds"))
        out.seconds = fromName(word(f.at("seconds")),
                               std::vector{Seconds::Shown, Seconds::Minutes, Seconds::Degrees}, secondsName);
    return out;
}

/// Before version 8: one list of fields, each above or below.
std::vector<annotate::StyleLine> linesBefore(const json& fields, annotate::LabelKind kind) {
    const bool point = kind == annotate::LabelKind::Point;
    std::vector<annotate::StyleLine> out;
    for (const bool above : {true, false}) {
        annotate::StyleLine line{{}, above ? Stand::Above : Stand::Below, point ? 1 : 0.5, 1};
        for (const json& f : fields)
            if (flag(f.at("above")) == above) line.fields.push_back(fieldFromJson(f, kind));
        if (!line.fields.empty()) out.push_back(std::move(line));
    }
    return out;
}

}  // namespace

json styleJson(const annotate::LabelStyle& style) {
    json lines = json::array();
    for (const auto& line : style.lines) {
        json fields = json::array();
        for (const auto& f : line.fields) fields.push_back(fieldJson(f));
        lines.push_back({{"stand", annotate::standName(line.stand)},
                         {"along", line.along},
                         {"gap", line.gap},
                         {"fields", std::move(fields)}});
    }
    return {{"for", annotate::kindName(style.kind)},
            {"height", style.height},
            {"tags", style.tags},
            {"lines", std::move(lines)}};
}

annotate::LabelStyle styleFromJson(const json& j) {
    annotate::LabelStyle out;
    out.kind = fromName(word(j.at("for")), annotate::allLabelKinds(), annotate::kindName);
    if (j.contains("fields")) {
        out.lines = linesBefore(j.at("fields"), out.kind);
        return out;
    }
    out.height = figure(j.at("height"));
    out.tags = flag(j.at("tags"));
    for (const json& line : j.at("lines")) {
        annotate::StyleLine l;
        l.stand = fromName(word(line.at("stand")), std::vector{Stand::Above, Stand::InLine, Stand::Below},
                           annotate::standName);
        l.along = figure(line.at("along"));
        l.gap = figure(line.at("gap"));
        for (const json& f : line.at("fields")) l.fields.push_back(fieldFromJson(f, out.kind));
        out.lines.push_back(std::move(l));
    }
    if (const auto valid = annotate::validate(out); !valid) throw std::runtime_error(valid.error().text);
    return out;
}

template <>
json Json<LabelStyle>::write(const LabelStyle& p, const JsonContext<LabelStyle>&) {
    return styleJson(p.style);
}

template <>
LabelStyle Json<LabelStyle>::read(const json& j, const JsonContext<LabelStyle>&) {
    return {styleFromJson(j)};
}

}  // namespace erdwerk::format
