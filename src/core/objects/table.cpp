#include "core/objects/table.h"

#include <algorithm>
#include <array>

namespace erdwerk::objects {

namespace {

constexpr std::array<std::string_view, 9> names{"courses", "curves",   "points", "stations", "areas",
                                                "volumes", "controls", "stages", "tags"};

}  // namespace

std::string_view tableName(TableSort sort) {
    return names[static_cast<std::size_t>(sort)];
}

std::optional<TableSort> tableFromName(std::string_view name) {
    const auto at = std::find(names.begin(), names.end(), name);
    if (at == names.end()) return std::nullopt;
    return static_cast<TableSort>(at - names.begin());
}

const std::vector<TableSort>& allTableSorts() {
    static const std::vector<TableSort> all = [] {
        std::vector<TableSort> out;
        for (std::size_t i = 0; i < names.size(); ++i) out.push_back(static_cast<TableSort>(i));
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
