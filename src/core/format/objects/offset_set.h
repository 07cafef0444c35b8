#pragma once
// The JSON of offset sets, in projects and in files of their own.

#include <nlohmann/json.hpp>

#include "core/objects/offset_set.h"

namespace erdwerk::format {

nlohmann::json offsetSetJson(const objects::OffsetSet& set);
/// Throws std::exception with words for people.
objects::OffsetSet offsetSetFromJson(const nlohmann::json& j);

}  // namespace erdwerk::format
