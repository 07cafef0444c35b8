#pragma once
// A raster of heights.

#include <memory>
#include <string>

#include "core/objects/kind.h"
#include "core/survey/raster.h"

namespace erdwerk::objects {

/// A raster of heights, in its file.
struct HeightRaster {
    std::string file;
    std::shared_ptr<const survey::Raster> raster;  ///< null when the file could not be read
    std::string problem;
};

template <>
struct Kind<HeightRaster> : StandsAlone<HeightRaster> {
    static constexpr std::string_view name = "raster";
    static constexpr std::optional<Role> sourceRole = Role::Raster;
};

}  // namespace erdwerk::objects
