#pragma once
// How a set of points says which of them stand by station and offset.

#include <nlohmann/json_fwd.hpp>

#include "core/objects/points.h"

namespace erdwerk::format {

nlohmann::json tieJson(const objects::StationTie& tie);
/// Throws std::exception with words for people.
objects::StationTie tieFromJson(const nlohmann::json& j);

}  // namespace erdwerk::format
