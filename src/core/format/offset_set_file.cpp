#include "core/format/offset_set_file.h"

#include <algorithm>
#include <fstream>
#include <sstream>

#include "core/format/objects/offset_set.h"
#include "core/format/output.h"

namespace erdwerk::format {

Result<std::pair<std::string, objects::OffsetSet>> readOffsetSet(const std::string& path) {
    std::ifstream in(path, std::ios::binary);
    if (!in) return badInput("cannot be read", path);
    std::ostringstream all;
    all << in.rdbuf();
    const std::string text = all.str();
    try {
        const auto j = nlohmann::json::parse(text);
        return std::pair{j.value("name", std::string("Rows")), offsetSetFromJson(j)};
    } catch (const nlohmann::json::parse_error& e) {
        const auto end = text.begin() + static_cast<std::ptrdiff_t>(std::min(e.byte, text.size()));
        return badInput("is no JSON from here on", path, 1 + std::count(text.begin(), end, '\n'));
    } catch (const std::exception& e) {
        return badInput(e.what(), path);
    }
}

Result<void> writeOffsetSet(const std::string& path, const std::string& name, const objects::OffsetSet& set) {
    nlohmann::ordered_json j{{"name", name}};
    const auto fields = offsetSetJson(set);
    for (const auto& [key, value] : fields.items()) j[key] = value;
    return replaceFile(path, j.dump(2) + "\n");
}

}  // namespace erdwerk::format
