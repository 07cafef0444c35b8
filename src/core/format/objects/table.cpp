#include "core/objects/table.h"
#include "core/base/display.h"
#include "core/format/objects/json_kind.h"

namespace erdwerk::format {

using namespace objects;

template <>
json Json<Table>::write(const Table& p, const JsonContext<Table>&) {
    json of = json::array();
    for (const ObjectId id : p.of) of.push_back(id.value);
    json out{{"sort", tableName(p.sort)},
             {"of", std::move(of)},
             {"columns", p.columns},
             {"by", p.by},
             {"falling", p.falling}};
    if (p.unit) out["unit"] = unitSymbol(*p.unit);
    return out;
}

template <>
Table Json<Table>::read(const json& j, const JsonContext<Table>&) {
    Table out;
    out.sort = fromName(word(j.at("sort")), allTableSorts(), tableName);
    for (const json& id : j.at("of")) out.of.push_back({whole(id)});
    for (const json& column : j.at("columns")) out.columns.push_back(word(column));
    out.by = word(j.at("by"));
    out.falling = flag(j.at("falling"));
    if (j.contains("unit")) {
        out.unit = unitFromSymbol(word(j.at("unit")));
        if (!out.unit) throw std::runtime_error("unknown unit '" + word(j.at("unit")) + "'");
    }
    return out;
}

}  // namespace erdwerk::format
