#pragma once
// Small JSON files that hold one thing with a name.

#include <nlohmann/json.hpp>

#include "core/base/result.h"

namespace erdwerk::format {

/// BadInput with the file, and the line where the text stops being JSON.
Result<nlohmann::json> parseJson(const std::string& text, const std::string& file);
/// The whole of a file. BadInput with the file, and the line where it stops being JSON.
Result<nlohmann::json> readJsonFile(const std::string& path);

/// The name in it (else `unnamed`) and what `read` makes of it; what `read` throws is the reason.
template <class Read>
auto readNamed(const std::string& path, const std::string& unnamed, const Read& read)
    -> Result<std::pair<std::string, decltype(read(nlohmann::json()))>> {
    const auto j = readJsonFile(path);
    if (!j) return tl::unexpected(j.error());
    try {
        return std::pair{j->value("name", unnamed), read(*j)};
    } catch (const std::exception& e) {
        return badInput(e.what(), path);
    }
}

/// "name" first, then the fields.
Result<void> writeNamed(const std::string& path, const std::string& name,
                        const nlohmann::ordered_json& fields);

}  // namespace erdwerk::format
