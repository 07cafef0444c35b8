#pragma once
// Tables as CSV (RFC 4180) and XLSX (ISO/IEC 29500).

#include <optional>
#include <string>
#include <vector>

#include "core/base/result.h"

namespace erdwerk::format {

struct Table {
    std::string name;
    std::vector<std::string> header;
    std::vector<std::vector<std::optional<double>>> rows;  ///< an absent number is an empty cell
    std::vector<std::string> firstColumn;  ///< texts that stand before the numbers; empty: there are none
    std::optional<int> decimals = {};      ///< of all numbers; nothing: full precision
};

/// A cell of a sheet: a number that is shown with so many decimals, else a text.
struct SheetCell {
    std::string text;
    std::optional<double> figure;
    int decimals = 0;
};
/// As .xlsx. BadInput for another ending.
Result<void> writeSheetTable(const std::string& path, const std::string& name,
                             const std::vector<std::string>& header,
                             const std::vector<std::vector<SheetCell>>& rows);

std::string toCsv(const Table& table, char separator = ',');
/// By the ending: .csv, or .xlsx with full precision.
Result<void> writeTable(const std::string& path, const Table& table);

}  // namespace erdwerk::format
