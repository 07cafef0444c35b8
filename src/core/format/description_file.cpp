#include "core/format/description_file.h"

#include <algorithm>
#include <cmath>
#include <nlohmann/json.hpp>
#include <set>

#include "core/format/json_file.h"
#include "core/format/named_table.h"

namespace erdwerk::format {

Result<parcel::DescriptionTemplate> parseWording(const std::string& text, const std::string& file,
                                                 const parcel::DescriptionTemplate& otherwise) {
    const auto j = parseJson(text, file);
    if (!j) return tl::unexpected(j.error());
    if (!j->is_object())
        return badInput("a template is an object with a sentence for each kind of part", file, 1);
    parcel::DescriptionTemplate out = otherwise;
    const auto keys = parcel::sentenceKeys();
    for (const auto& [key, value] : j->items()) {
        const std::string name = key;
        const auto known =
            std::find_if(keys.begin(), keys.end(), [&](const auto& k) { return k.key == name; });
        if (known == keys.end() && name != "name")
            return badInput("'" + name + "' is no sentence of a description", file, 1);
        if (!value.is_string()) return badInput("'" + name + "' is not a text", file, 1);
        (name == "name" ? out.name : out.*(known->sentence)) = value.get<std::string>();
    }
    if (auto good = parcel::validate(out); !good) return badInput(good.error().text, file, 1);
    return out;
}

Result<parcel::DescriptionTemplate> readWording(const std::string& path,
                                                const parcel::DescriptionTemplate& otherwise) {
    const auto text = readFile(path);
    if (!text) return tl::unexpected(text.error());
    return parseWording(*text, path, otherwise);
}

Result<void> writeWording(const std::string& path, const parcel::DescriptionTemplate& wording) {
    nlohmann::ordered_json fields;
    for (const auto& key : parcel::sentenceKeys()) fields[std::string(key.key)] = wording.*(key.sentence);
    return writeNamed(path, wording.name, fields);
}

Result<std::vector<parcel::SideNames>> parseSideNames(std::string_view bytes, const std::string& file,
                                                      std::size_t courses) {
    const auto table =
        NamedTable::read(bytes, file, {{"course", {}}, {"along", {}, false}, {"to", {}, false}});
    if (!table) return tl::unexpected(table.error());
    std::vector<parcel::SideNames> out(courses);
    std::set<double> seen;
    for (std::size_t i = 0; i < table->size(); ++i) {
        const auto course = table->needed(i, "course");
        if (!course) return tl::unexpected(course.error());
        if (*course < 1 || *course > static_cast<double>(courses) || *course != std::floor(*course))
            return table->bad(i, "course " + table->text(i, "course") + " is none of the parcel's " +
                                     std::to_string(courses));
        if (!seen.insert(*course).second)
            return table->bad(i, "course " + table->text(i, "course") + " comes twice");
        out[static_cast<std::size_t>(*course) - 1] = {table->text(i, "along"), table->text(i, "to")};
    }
    return out;
}

Result<std::vector<parcel::SideNames>> readSideNames(const std::string& path, std::size_t courses) {
    const auto bytes = readFile(path);
    if (!bytes) return tl::unexpected(bytes.error());
    return parseSideNames(*bytes, path, courses);
}

}  // namespace erdwerk::format
