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

std::string toCsv(const Table& table, char separator = ',');
/// By the ending: .csv, or .xlsx with full precision.
Result<void> writeTable(const std::string& path, const Table& table);

}  // namespace erdwerk::format
