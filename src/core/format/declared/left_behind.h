#pragma once
// What a format cannot hold, as words.

#include <initializer_list>
#include <string>
#include <string_view>
#include <vector>

#include "core/document/document.h"

namespace erdwerk::format {

/// "3 labels", for each of these kinds of which the document has any.
std::vector<std::string> leftBehind(const document::Document& document,
                                    std::initializer_list<std::string_view> kinds);

}  // namespace erdwerk::format
