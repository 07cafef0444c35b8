#pragma once
// One line of a journal: JSON behind its checksum.

#include <nlohmann/json.hpp>
#include <optional>
#include <string>

#include "core/base/result.h"
#include "core/document/document.h"

namespace erdwerk::format {

/// The line with its checksum in front, ended.
std::string sealed(const nlohmann::json& content);
/// The content of a line (without its end); nothing when the checksum is not that of the rest.
std::optional<nlohmann::json> unsealed(std::string_view line);

/// What differs, as a line's content.
nlohmann::json changeToJson(const std::string& what, std::uint64_t number, const document::Document& before,
                            const document::Document& after);
/// The document after a line's change; BadInput when it does not apply.
Result<document::Document> applyChange(const nlohmann::json& line, const document::Document& document);

}  // namespace erdwerk::format
