#pragma once
// A table of the record: of what, which columns, in which order.

#include "core/base/quantity.h"
#include "core/objects/kind.h"

namespace erdwerk::objects {

enum class TableSort { Courses, Curves, Points, Stations, Areas, Volumes, Controls, Stages, Tags };
/// "courses", "curves" …: as in files and on the command line.
std::string_view tableName(TableSort sort);
std::optional<TableSort> tableFromName(std::string_view name);
const std::vector<TableSort>& allTableSorts();

struct Table {
    TableSort sort = TableSort::Courses;
    std::vector<ObjectId> of;          ///< the objects that it lists; empty: all there are
    std::vector<std::string> columns;  ///< in their order; empty: all
    std::string by;                    ///< the column that it is sorted by; empty: as the objects come
    bool falling = false;
    std::optional<LengthUnit> unit;  ///< of lengths, areas and volumes; none: the project's
    friend bool operator==(const Table&, const Table&) = default;
};

template <>
struct Kind<Table> : HasNoParts<Table> {
    static constexpr std::string_view name = "table";
    static constexpr std::optional<Role> sourceRole = std::nullopt;
    static void references(const Table& object, const Visit& visit);
    /// A table of nothing but what went goes too.
    static std::optional<Table> without(Table object, ObjectId gone);
};

}  // namespace erdwerk::objects
