#pragma once
// A table of the record: of what, which columns, in which order.

#include <array>

#include "core/base/quantity.h"
#include "core/objects/kind.h"

namespace erdwerk::objects {

enum class TableSort { Courses, Curves, Points, Stations, Areas, Volumes, Controls, Stages, Tags };
/// What is said of a sort of table, in one place; its columns and rows stand in operations/record_rows.cpp.
struct TableWords {
    std::string_view name;  ///< in files and on the command line
    const char* title;      ///< for people, to be translated in the context "TableWords"
};
/// In the order of TableSort.
inline constexpr std::array tableWords{
    TableWords{"courses", "Courses"},   TableWords{"curves", "Curves"}, TableWords{"points", "Points"},
    TableWords{"stations", "Stations"}, TableWords{"areas", "Areas"},   TableWords{"volumes", "Volumes"},
    TableWords{"controls", "Controls"}, TableWords{"stages", "Stages"}, TableWords{"tags", "Tags"}};
static_assert(tableWords.size() == static_cast<std::size_t>(TableSort::Tags) + 1);

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
