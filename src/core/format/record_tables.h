#pragma once
// Tables of the record as files.

#include <string>

#include "core/base/result.h"
#include "core/operations/record_rows.h"

namespace erdwerk::format {

/// RFC 4180, a heading row first, with the texts of the display.
std::string toCsv(const operations::RecordRows& rows);
/// By the ending: .csv, or .xlsx with the same texts and, for figures, numbers that are shown alike.
Result<void> writeRecord(const std::string& path, const operations::RecordRows& rows);

}  // namespace erdwerk::format
