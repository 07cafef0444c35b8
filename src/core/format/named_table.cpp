#include "core/format/named_table.h"

#include <algorithm>
#include <cmath>

#include "core/base/notation.h"

namespace erdwerk::format {

Result<NamedTable> NamedTable::read(std::string_view bytes, const std::string& file,
                                    const std::vector<Column>& columns) {
    const char separator = bytes.substr(0, bytes.find('\n')).find(';') != std::string_view::npos ? ';' : ',';
    auto table = readTable(bytes, separator, file);
    if (!table) return tl::unexpected(table.error());
    NamedTable out;
    out.file_ = file;
    out.rows_ = std::move(table->rows);
    std::erase_if(out.rows_, [](const auto& row) {
        return std::all_of(row.cells.begin(), row.cells.end(),
                           [](const auto& c) { return trimmed(c).empty(); });
    });
    if (out.rows_.empty()) return badInput("holds no rows", file, 1);
    const auto& header = out.rows_.front();
    for (std::size_t k = 0; k < header.cells.size(); ++k) {
        std::string name(trimmed(header.cells[k]));
        std::transform(name.begin(), name.end(), name.begin(),
                       [](unsigned char c) { return std::tolower(c); });
        for (const Column& c : columns) {
            std::string own = c.name;
            std::transform(own.begin(), own.end(), own.begin(),
                           [](unsigned char ch) { return std::tolower(ch); });
            if (name == own || std::find(c.also.begin(), c.also.end(), name) != c.also.end())
                out.at_.emplace(c.name, k);
        }
    }
    std::string missing;
    for (const Column& c : columns)
        if (c.required && out.at_.count(c.name) == 0) missing += (missing.empty() ? "" : ", ") + c.name;
    if (!missing.empty())
        return badInput("the first row names the columns, and these are missing: " + missing, file,
                        header.line);
    out.rows_.erase(out.rows_.begin());
    return out;
}

std::string NamedTable::text(std::size_t row, const std::string& column) const {
    const auto it = at_.find(column);
    if (it == at_.end() || it->second >= rows_[row].cells.size()) return {};
    return std::string(trimmed(rows_[row].cells[it->second]));
}

Result<std::optional<double>> NamedTable::number(std::size_t row, const std::string& column) const {
    const std::string word = text(row, column);
    if (word.empty()) return std::optional<double>{};
    const auto value = parseNumber(word);
    if (!value || std::abs(*value) > 1e9) return bad(row, "'" + word + "' is not a figure for " + column);
    return std::optional(*value);
}

Result<double> NamedTable::needed(std::size_t row, const std::string& column) const {
    const auto value = number(row, column);
    if (!value) return tl::unexpected(value.error());
    if (!*value) return bad(row, column + " is missing");
    return **value;
}

Result<double> NamedTable::station(std::size_t row) const {
    const std::string word = text(row, "station");
    if (word.empty()) return bad(row, "station is missing");
    const auto value = parseStation(word, DisplaySettings{});
    if (!value) return bad(row, value.error().text);
    return *value;
}

tl::unexpected<Error> NamedTable::bad(std::size_t row, const std::string& why) const {
    return badInput(why, file_, line(row));
}

}  // namespace erdwerk::format
