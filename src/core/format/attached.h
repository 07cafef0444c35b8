#pragma once
// Clouds, rasters and pictures that a project names and that stay in their own files.

#include <cstdint>
#include <memory>
#include <string>
#include <vector>

#include "core/base/progress.h"
#include "core/base/result.h"
#include "core/objects/backdrop.h"
#include "core/survey/cloud.h"
#include "core/survey/raster.h"

namespace erdwerk::format {

/// Read once and shared for as long as anything holds them: opening a project, replaying its journal and
/// undoing an import do not read a file again unless it changed.
Result<std::shared_ptr<const survey::PointCloud>> attachedCloud(const std::string& path,
                                                                const Context& context = {});
Result<std::shared_ptr<const survey::Raster>> attachedRaster(const std::string& path,
                                                             const Context& context = {});
/// Three or more bands as red, green, blue, or one as grey; reduced to at most 4096 columns and rows.
/// BadInput without a place in the world.
Result<std::shared_ptr<const objects::Picture>> attachedPicture(const std::string& path,
                                                                const Context& context = {});

/// Bytes as text: compressed (zlib) and in base 64 (RFC 4648).
std::string packed(const std::vector<std::uint8_t>& bytes);
Result<std::vector<std::uint8_t>> unpacked(const std::string& text, std::size_t size);

}  // namespace erdwerk::format
