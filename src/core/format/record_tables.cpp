#include "core/format/record_tables.h"

#include "core/base/csv.h"
#include "core/format/output.h"
#include "core/format/table_file.h"

namespace erdwerk::format {

std::string toCsv(const operations::RecordRows& rows) {
    std::string out;
    const auto line = [&](const auto& cells, const auto& textOf) {
        bool first = true;
        for (const auto& cell : cells) {
            if (!first) out += ',';
            first = false;
            out += csvCell(textOf(cell), ',');
        }
        out += "\r\n";
    };
    line(rows.header, [](const std::string& s) { return s; });
    for (const auto& row : rows.rows) line(row.cells, [](const operations::RecordCell& c) { return c.text; });
    return out;
}

Result<void> writeRecord(const std::string& path, const operations::RecordRows& rows) {
    if (path.ends_with(".csv")) return replaceFile(path, toCsv(rows));
    std::vector<std::vector<SheetCell>> cells;
    cells.reserve(rows.rows.size());
    for (const auto& row : rows.rows) {
        std::vector<SheetCell> line;
        line.reserve(row.cells.size());
        for (const auto& c : row.cells) line.push_back({c.text, c.figure, c.decimals});
        cells.push_back(std::move(line));
    }
    return writeSheetTable(path, rows.name, rows.header, cells);
}

}  // namespace erdwerk::format
