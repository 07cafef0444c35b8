#include "core/format/table_file.h"

#include <xlsxwriter.h>

#include <filesystem>

#include "core/base/csv.h"
#include "core/base/notation.h"
#include "core/format/output.h"

namespace erdwerk::format {

namespace {

Result<void> writeXlsx(const std::string& path, const Table& table) {
    lxw_workbook* book = workbook_new(path.c_str());
    if (book == nullptr) return fail(ErrorCode::Io, "cannot be written", path);
    // A sheet's name has at most 31 characters and none of []:*?/\ in it.
    std::string name;
    for (const char c : table.name.substr(0, 31))
        name += std::string("[]:*?/\\'").find(c) == std::string::npos ? c : ' ';
    lxw_worksheet* sheet = workbook_add_worksheet(book, name.empty() ? nullptr : name.c_str());
    if (sheet == nullptr) sheet = workbook_add_worksheet(book, nullptr);
    lxw_format* bold = workbook_add_format(book);
    format_set_bold(bold);
    for (std::size_t c = 0; c < table.header.size(); ++c)
        worksheet_write_string(sheet, 0, static_cast<lxw_col_t>(c), table.header[c].c_str(), bold);
    const std::size_t shift = table.firstColumn.empty() ? 0 : 1;
    for (std::size_t r = 0; r < table.rows.size(); ++r) {
        const auto row = static_cast<lxw_row_t>(r + 1);
        if (shift == 1) worksheet_write_string(sheet, row, 0, table.firstColumn[r].c_str(), nullptr);
        for (std::size_t c = 0; c < table.rows[r].size(); ++c)
            if (table.rows[r][c])
                worksheet_write_number(sheet, row, static_cast<lxw_col_t>(c + shift), *table.rows[r][c],
                                       nullptr);
    }
    worksheet_freeze_panes(sheet, 1, 0);
    if (!table.header.empty())
        worksheet_set_column(sheet, 0, static_cast<lxw_col_t>(table.header.size() - 1), 16, nullptr);
    const lxw_error error = workbook_close(book);
    if (error != LXW_NO_ERROR)
        return fail(ErrorCode::Io, "cannot be written: " + plainReason(lxw_strerror(error)), path);
    return {};
}

}  // namespace

std::string toCsv(const Table& table, char separator) {
    std::string out;
    for (std::size_t c = 0; c < table.header.size(); ++c)
        out += (c > 0 ? std::string(1, separator) : std::string()) + csvCell(table.header[c], separator);
    out += "\r\n";
    for (std::size_t r = 0; r < table.rows.size(); ++r) {
        std::string line;
        bool first = true;
        if (!table.firstColumn.empty()) {
            line += csvCell(table.firstColumn[r], separator);
            first = false;
        }
        for (const auto& cell : table.rows[r]) {
            if (!first) line += separator;
            first = false;
            if (cell) line += table.decimals ? formatFixed(*cell, *table.decimals) : formatExact(*cell);
        }
        out += line + "\r\n";
    }
    return out;
}

Result<void> writeTable(const std::string& path, const Table& table) {
    const std::string ending = std::filesystem::path(path).extension().string();
    if (ending == ".csv") return replaceFile(path, toCsv(table));
    if (ending == ".xlsx")
        return replaceFile(path, [&](const std::string& temporary) { return writeXlsx(temporary, table); });
    return badInput("a table is written as .csv or .xlsx", path);
}

}  // namespace erdwerk::format
