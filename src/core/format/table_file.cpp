#include "core/format/table_file.h"

#include <xlsxwriter.h>

#include <filesystem>
#include <map>

#include "core/base/csv.h"
#include "core/base/notation.h"
#include "core/format/output.h"

namespace erdwerk::format {

namespace {

/// A book with one sheet and a bold heading row, while it is filled.
class Book {
public:
    Book(const std::string& path, const std::string& title, const std::vector<std::string>& header)
        : path_(path), book_(workbook_new(path.c_str())) {
        if (book_ == nullptr) return;
        // A sheet's name has at most 31 characters and none of []:*?/\ in it.
        std::string name;
        for (const char c : title.substr(0, 31))
            name += std::string("[]:*?/\\'").find(c) == std::string::npos ? c : ' ';
        sheet_ = workbook_add_worksheet(book_, name.empty() ? nullptr : name.c_str());
        if (sheet_ == nullptr) sheet_ = workbook_add_worksheet(book_, nullptr);
        lxw_format* bold = workbook_add_format(book_);
        format_set_bold(bold);
        for (std::size_t c = 0; c < header.size(); ++c)
            worksheet_write_string(sheet_, 0, static_cast<lxw_col_t>(c), header[c].c_str(), bold);
        worksheet_freeze_panes(sheet_, 1, 0);
        if (!header.empty())
            worksheet_set_column(sheet_, 0, static_cast<lxw_col_t>(header.size() - 1), 16, nullptr);
    }
    [[nodiscard]] bool open() const { return book_ != nullptr; }
    void text(std::size_t row, std::size_t column, const std::string& words) {
        worksheet_write_string(sheet_, static_cast<lxw_row_t>(row + 1), static_cast<lxw_col_t>(column),
                               words.c_str(), nullptr);
    }
    /// With `decimals` it is shown so; without, in full.
    void number(std::size_t row, std::size_t column, double value, std::optional<int> decimals = {}) {
        worksheet_write_number(sheet_, static_cast<lxw_row_t>(row + 1), static_cast<lxw_col_t>(column), value,
                               decimals ? shown(*decimals) : nullptr);
    }
    Result<void> close() {
        const lxw_error error = workbook_close(book_);
        if (error != LXW_NO_ERROR)
            return fail(ErrorCode::Io, "cannot be written: " + plainReason(lxw_strerror(error)), path_);
        return {};
    }

private:
    lxw_format* shown(int decimals) {
        auto& format = formats_[decimals];
        if (format == nullptr) {
            format = workbook_add_format(book_);
            const std::string pattern =
                decimals > 0 ? "0." + std::string(static_cast<std::size_t>(decimals), '0') : "0";
            format_set_num_format(format, pattern.c_str());
        }
        return format;
    }

    std::string path_;
    lxw_workbook* book_;
    lxw_worksheet* sheet_ = nullptr;
    std::map<int, lxw_format*> formats_;
};

Result<void> writeXlsx(const std::string& path, const Table& table) {
    Book book(path, table.name, table.header);
    if (!book.open()) return fail(ErrorCode::Io, "cannot be written", path);
    const std::size_t shift = table.firstColumn.empty() ? 0 : 1;
    for (std::size_t r = 0; r < table.rows.size(); ++r) {
        if (shift == 1) book.text(r, 0, table.firstColumn[r]);
        for (std::size_t c = 0; c < table.rows[r].size(); ++c)
            if (table.rows[r][c]) book.number(r, c + shift, *table.rows[r][c]);
    }
    return book.close();
}

}  // namespace

Result<void> writeSheetTable(const std::string& path, const std::string& name,
                             const std::vector<std::string>& header,
                             const std::vector<std::vector<SheetCell>>& rows) {
    if (std::filesystem::path(path).extension().string() != ".xlsx")
        return badInput("a table is written as .csv or .xlsx", path);
    return replaceFile(path, [&](const std::string& temporary) -> Result<void> {
        Book book(temporary, name, header);
        if (!book.open()) return fail(ErrorCode::Io, "cannot be written", temporary);
        for (std::size_t r = 0; r < rows.size(); ++r)
            for (std::size_t c = 0; c < rows[r].size(); ++c) {
                const SheetCell& cell = rows[r][c];
                if (cell.figure)
                    book.number(r, c, *cell.figure, cell.decimals);
                else if (!cell.text.empty())
                    book.text(r, c, cell.text);
            }
        return book.close();
    });
}

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
