#pragma once
// A marking as JSON, in projects and in files of its own.

#include <nlohmann/json_fwd.hpp>

#include "core/objects/marking.h"

namespace erdwerk::format {

nlohmann::ordered_json markingJson(const route::MarkingSettings& marking);
/// Throws std::exception with words for people, also for keys that it does not know.
route::MarkingSettings markingFromJson(const nlohmann::json& j);

}  // namespace erdwerk::format
