#pragma once
// Cells of CSV files (RFC 4180).

#include <string>

namespace erdwerk {

/// The text as a cell: in quotes, with its own quotes doubled, where it holds a separator, a quote or a line
/// end.
std::string csvCell(const std::string& text, char separator = ',');

}  // namespace erdwerk
