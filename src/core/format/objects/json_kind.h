#pragma once
// The JSON of each kind of object: a file of this folder each. A kind without one does not link.

#include <algorithm>
#include <nlohmann/json.hpp>
#include <stdexcept>
#include <string>
#include <vector>

#include "core/format/json_place.h"
#include "core/objects/object.h"
#include "core/objects/plan_part.h"

namespace erdwerk::format {

using nlohmann::json;

/// What reading and writing know besides the object.
template <class T>
struct JsonContext {
    std::string folder;         ///< files in it are named relative to it; empty: by their whole path
    const T* before = nullptr;  ///< what is large and is shared with it is left out
};

/// read throws std::exception with words for people.
template <class T>
struct Json {
    static json write(const T& object, const JsonContext<T>& context);
    static T read(const json& j, const JsonContext<T>& context);
};

// One value of just this type; another is refused, not converted.
double figure(const json& value);
std::uint64_t whole(const json& value);
bool flag(const json& value);
std::string word(const json& value);

json toJson(const objects::PlanPartsOff& off);
objects::PlanPartsOff planPartsFromJson(const json& value);

ObjectId idFrom(const json& j, const char* key);
std::string inFolder(const std::string& file, const std::string& folder);
/// A file that is not where it was is looked for in the folder itself, where a project was moved with its
/// files.
std::string fromFolder(const std::string& file, const std::string& folder);

template <class Names>
auto fromName(const std::string& name, const Names& all,
              std::string_view (*nameOf)(typename Names::value_type)) {
    for (const auto value : all)
        if (nameOf(value) == name) return value;
    throw std::runtime_error("unknown word '" + name + "'");
}

/// What an object written with `keeps` shares with the one before.
template <class T>
const T* kept(const json& j, const T* before) {
    if (!j.value("keeps", false)) return nullptr;
    if (before == nullptr) throw std::runtime_error("what it shares with the state before is not there");
    return before;
}

}  // namespace erdwerk::format
