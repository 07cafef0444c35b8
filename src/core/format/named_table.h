#pragma once
// Tables whose header row names the columns, in any order.

#include <map>
#include <optional>
#include <string>
#include <vector>

#include "core/base/result.h"
#include "core/format/output.h"
#include "core/format/survey_csv.h"

namespace erdwerk::format {

/// Rows below a header row that names the columns; empty rows are passed over. Errors name file, line and
/// reason.
class NamedTable {
public:
    /// Columns by their names, each with the other names that it goes by (in lower case). A name stands in
    /// any case in the file.
    struct Column {
        std::string name;
        std::vector<std::string> also;
        bool required = true;
    };

    /// BadInput for no rows, and for a required column that is missing.
    static Result<NamedTable> read(std::string_view bytes, const std::string& file,
                                   const std::vector<Column>& columns);

    [[nodiscard]] std::size_t size() const { return rows_.size(); }
    [[nodiscard]] long line(std::size_t row) const { return rows_[row].line; }
    /// Empty where the column is missing.
    [[nodiscard]] std::string text(std::size_t row, const std::string& column) const;
    [[nodiscard]] Result<std::optional<double>> number(std::size_t row, const std::string& column) const;
    [[nodiscard]] Result<double> needed(std::size_t row, const std::string& column) const;
    /// Of the column "station": plain, or as 2+750.
    [[nodiscard]] Result<double> station(std::size_t row) const;
    [[nodiscard]] tl::unexpected<Error> bad(std::size_t row, const std::string& why) const;

private:
    std::string file_;
    std::vector<CsvTable::Row> rows_;
    std::map<std::string, std::size_t> at_;
};

/// What a parser makes of the bytes of a file.
template <class T>
Result<T> fromFile(const std::string& path, Result<T> (*parse)(std::string_view, const std::string&)) {
    const auto bytes = readFile(path);
    if (!bytes) return tl::unexpected(bytes.error());
    return parse(*bytes, path);
}

}  // namespace erdwerk::format
