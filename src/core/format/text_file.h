#pragma once
// Files of plain text, whatever wrote them.

#include <string>
#include <string_view>

#include "core/base/result.h"

namespace erdwerk::format {

/// In UTF-8 and without a byte-order mark; what is no UTF-8 is taken for Latin-1. BadInput for UTF-16, for
/// what is not text (NUL bytes, with the line), and for an empty file.
Result<std::string> asText(std::string_view bytes, const std::string& file);
/// The same of a file.
Result<std::string> readTextFile(const std::string& path);

}  // namespace erdwerk::format
