#pragma once
// Point clouds in any format that is read: LAS, PLY, and text with one place a line.

#include <string>

#include "core/survey/cloud.h"

namespace erdwerk::format {

/// Text: x y z and what follows (passed over), separated by blanks, tabs, commas or semicolons; a first line
/// of names and lines that begin with # or // are passed over. BadInput names the line.
Result<std::vector<geometry::Vec3>> readXyzPlaces(const std::string& path, const Context& context = {});

/// By what the file says it is, else by its ending.
Result<survey::PointCloud> readCloud(const std::string& path, const Context& context = {});

}  // namespace erdwerk::format
