#include "core/annotate/dimension.h"
#include "core/format/objects/json_kind.h"
#include "core/objects/anchor.h"
#include "core/objects/dimension.h"
#include "core/objects/dimension_style.h"

namespace erdwerk::format {

using namespace objects;
using annotate::DimensionText;

template <>
json Json<Dimension>::write(const Dimension& p, const JsonContext<Dimension>&) {
    json anchors = json::array();
    for (const Anchor& a : p.anchors)
        anchors.push_back({{"on", anchorName(a.on)},
                           {"object", a.object.value},
                           {"index", a.index},
                           {"fraction", a.fraction},
                           {"place", place(a.place)}});
    json out{{"measures", annotate::dimensionName(p.kind)},
             {"anchors", std::move(anchors)},
             {"offset", p.line.offset},
             {"style", p.style.value}};
    if (p.line.azimuth) out["azimuth"] = p.line.azimuth->radians();
    return out;
}

template <>
Dimension Json<Dimension>::read(const json& j, const JsonContext<Dimension>&) {
    using On = Anchor::On;
    Dimension out;
    out.kind = fromName(word(j.at("measures")), annotate::allDimensionKinds(), annotate::dimensionName);
    for (const json& a : j.at("anchors"))
        out.anchors.push_back(
            {fromName(word(a.at("on")), std::vector{On::Place, On::Vertex, On::Side, On::Gone}, anchorName),
             idFrom(a, "object"), whole(a.at("index")), figure(a.at("fraction")), place(a.at("place"))});
    if (out.anchors.size() < annotate::anchorsOf(out.kind))
        throw std::runtime_error("a dimension has too few ends");
    out.line.offset = figure(j.at("offset"));
    if (j.contains("azimuth")) out.line.azimuth = Angle::radians(figure(j.at("azimuth")));
    out.style = idFrom(j, "style");
    return out;
}

template <>
json Json<DimensionStyle>::write(const DimensionStyle& p, const JsonContext<DimensionStyle>&) {
    const auto& s = p.style;
    return {{"arrows", annotate::arrowName(s.arrows)},
            {"arrowSize", s.arrowSize},
            {"extensions", s.extensions},
            {"extensionGap", s.extensionGap},
            {"overshoot", s.overshoot},
            {"text", annotate::textName(s.text)},
            {"textGap", s.textGap},
            {"height", s.height},
            {"decimals", s.decimals}};
}

template <>
DimensionStyle Json<DimensionStyle>::read(const json& j, const JsonContext<DimensionStyle>&) {
    annotate::DimensionStyle s;
    s.arrows = fromName(word(j.at("arrows")), annotate::allArrowKinds(), annotate::arrowName);
    s.arrowSize = figure(j.at("arrowSize"));
    s.extensions = flag(j.at("extensions"));
    s.extensionGap = figure(j.at("extensionGap"));
    s.overshoot = figure(j.at("overshoot"));
    s.text = fromName(word(j.at("text")),
                      std::vector{DimensionText::Automatic, DimensionText::Inside, DimensionText::Outside},
                      annotate::textName);
    s.textGap = figure(j.at("textGap"));
    s.height = figure(j.at("height"));
    s.decimals = static_cast<int>(whole(j.at("decimals")));
    if (const auto valid = annotate::validate(s); !valid) throw std::runtime_error(valid.error().text);
    return {s};
}

}  // namespace erdwerk::format
