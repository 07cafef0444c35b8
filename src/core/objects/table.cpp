#include "core/objects/table.h"

#include <algorithm>

namespace erdwerk::objects {

std::string_view tableName(TableSort sort) {
    return tableWords[static_cast<std::size_t>(sort)].name;
}

std::optional<TableSort> tableFromName(std::string_view name) {
    const auto at = std::find_if(tableWords.begin(), tableWords.end(),
                                 [&](const TableWords& w) { return w.name == name; });
    if (at == tableWords.end()) return std::nullopt;
    return static_cast<TableSort>(at - tableWords.begin());
}

const std::vector<TableSort>& allTableSorts() {
    static const std::vector<TableSort> all = [] {
        std::vector<TableSort> out;
        for (std::size_t i = 0; i < tableWords.size(); ++i) out.push_back(static_cast<TableSort>(i));
        return out;
    }();
    return all;
}

void Kind<Table>::references(const Table& object, const Visit& visit) {
    for (const ObjectId id : object.of) visit(id);
}

std::optional<Table> Kind<Table>::without(Table object, ObjectId gone) {
    if (std::erase(object.of, gone) > 0 && object.of.empty()) return std::nullopt;
    return object;
}

}  // namespace erdwerk::objects
