#pragma once
// Places in JSON, for the files of this folder: [easting, northing].

#include <nlohmann/json.hpp>

#include "core/geometry/vec.h"

namespace erdwerk::format {

inline nlohmann::json place(geometry::Vec2 p) {
    return nlohmann::json::array({p.x, p.y});
}
inline geometry::Vec2 place(const nlohmann::json& j) {
    return {j.at(0).get<double>(), j.at(1).get<double>()};
}

}  // namespace erdwerk::format
