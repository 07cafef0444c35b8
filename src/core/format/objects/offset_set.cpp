#include "core/format/objects/offset_set.h"

#include "core/format/objects/json_kind.h"
#include "core/linework/offset_row.h"

namespace erdwerk::format {

using namespace objects;

json offsetSetJson(const OffsetSet& set) {
    json rows = json::array();
    for (const auto& row : set.rows) rows.push_back(linework::rowText(row));
    return {{"rows", std::move(rows)},
            {"side", set.options.right ? "right" : "left"},
            {"measured", set.options.chained ? "from the row before" : "from the line"},
            {"corners", set.options.corners == linework::OutsideCorner::Round ? "round" : "mitre"}};
}

OffsetSet offsetSetFromJson(const json& j) {
    const auto isFirst = [&](const char* key, const char* first, const char* second) {
        const std::string said = word(j.at(key));
        if (said != first && said != second)
            throw std::runtime_error("'" + said + "' is no " + key + "; it is " + first + " or " + second);
        return said == first;
    };
    OffsetSet out;
    for (const json& text : j.at("rows")) {
        auto row = linework::parseOffsetRow(word(text));
        if (!row) throw std::runtime_error(row.error().text);
        out.rows.push_back(std::move(*row));
    }
    if (out.rows.empty()) throw std::runtime_error("a set has at least one row");
    out.options.right = isFirst("side", "right", "left");
    out.options.chained = isFirst("measured", "from the row before", "from the line");
    if (isFirst("corners", "round", "mitre")) out.options.corners = linework::OutsideCorner::Round;
    return out;
}

template <>
json Json<OffsetSet>::write(const OffsetSet& p, const JsonContext<OffsetSet>&) {
    return offsetSetJson(p);
}

template <>
OffsetSet Json<OffsetSet>::read(const json& j, const JsonContext<OffsetSet>&) {
    return offsetSetFromJson(j);
}

}  // namespace erdwerk::format
