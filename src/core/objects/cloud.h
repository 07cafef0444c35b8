#pragma once
// A point cloud that stays in its file.

#include <memory>
#include <string>

#include "core/objects/kind.h"
#include "core/survey/cloud.h"

namespace erdwerk::objects {

/// By what a cloud's points are coloured.
enum class CloudColouring { Height, Class, Intensity, Colour };
std::string_view colouringName(CloudColouring colouring);

/// A point cloud. It stays in its file; the project keeps where that is and what was changed of it.
struct Cloud {
    std::string file;                                 ///< absolute path
    std::shared_ptr<const survey::PointCloud> cloud;  ///< null when the file could not be read
    std::string problem;                              ///< why
    bool classified = false;                          ///< the classes are not those of the file
    CloudColouring colouring = CloudColouring::Height;
    survey::CloudFilter filter;  ///< classes, and the ring of a crop: what is shown and takes part
    double spacing = 0;          ///< least distance between points shown, for display only; 0: all
};

template <>
struct Kind<Cloud> : StandsAlone<Cloud> {
    static constexpr std::string_view name = "cloud";
    static constexpr std::optional<Role> sourceRole = Role::Cloud;
};

}  // namespace erdwerk::objects
