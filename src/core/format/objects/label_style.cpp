#include "core/format/objects/json_kind.h"

namespace erdwerk::format {

using namespace objects;

template <>
json Json<LabelStyle>::write(const LabelStyle& p, const JsonContext<LabelStyle>&) {
    json fields = json::array();
    for (const auto& f : p.style.fields)
        fields.push_back({{"field", annotate::fieldName(f.field)},
                          {"prefix", f.prefix},
                          {"decimals", f.decimals},
                          {"above", f.above}});
    return {{"for", annotate::kindName(p.style.kind)}, {"fields", std::move(fields)}};
}

template <>
LabelStyle Json<LabelStyle>::read(const json& j, const JsonContext<LabelStyle>&) {
    using annotate::LabelKind;
    LabelStyle out;
    out.style.kind =
        fromName(word(j.at("for")), std::vector{LabelKind::Segment, LabelKind::Curve, LabelKind::Point},
                 annotate::kindName);
    for (const json& f : j.at("fields"))
        out.style.fields.push_back(
            {fromName(word(f.at("field")), annotate::fieldsOf(out.style.kind), annotate::fieldName),
             word(f.at("prefix")), static_cast<int>(whole(f.at("decimals"))), flag(f.at("above"))});
    return out;
}

}  // namespace erdwerk::format
