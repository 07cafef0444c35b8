#include "core/format/json_file.h"

#include <algorithm>
#include <fstream>
#include <sstream>

#include "core/format/output.h"

namespace erdwerk::format {

Result<nlohmann::json> parseJson(const std::string& text, const std::string& file) {
    try {
        return nlohmann::json::parse(text);
    } catch (const nlohmann::json::parse_error& e) {
        const auto end = text.begin() + static_cast<std::ptrdiff_t>(std::min(e.byte, text.size()));
        return badInput("is no JSON from here on", file, 1 + std::count(text.begin(), end, '\n'));
    }
}

Result<nlohmann::json> readJsonFile(const std::string& path) {
    std::ifstream in(path, std::ios::binary);
    if (!in) return badInput("cannot be read", path);
    std::ostringstream all;
    all << in.rdbuf();
    return parseJson(all.str(), path);
}

Result<void> writeNamed(const std::string& path, const std::string& name,
                        const nlohmann::ordered_json& fields) {
    nlohmann::ordered_json j{{"name", name}};
    for (const auto& [key, value] : fields.items()) j[key] = value;
    return replaceFile(path, j.dump(2) + "\n");
}

}  // namespace erdwerk::format
