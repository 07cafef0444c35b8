#pragma once
// A picture under the plan.

#include <array>
#include <memory>
#include <string>
#include <vector>

#include "core/objects/kind.h"

namespace erdwerk::objects {

/// A picture of the ground with a place in the world, in its file.
struct Picture {
    std::size_t columns = 0;
    std::size_t rows = 0;
    std::array<double, 6> transform{0, 1, 0, 0, 0, -1};  ///< as in survey::Raster
    std::vector<std::uint8_t> rgb;                       ///< row by row from the top
};
struct Backdrop {
    std::string file;
    std::shared_ptr<const Picture> picture;  ///< null when the file could not be read
    std::string problem;
};

template <>
struct Kind<Backdrop> : StandsAlone<Backdrop> {
    static constexpr std::string_view name = "backdrop";
    static constexpr std::optional<Role> sourceRole = std::nullopt;
};

}  // namespace erdwerk::objects
