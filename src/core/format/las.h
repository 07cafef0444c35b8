#pragma once
// Point clouds in LAS files, by the ASPRS LAS specification: versions 1.0 to 1.4, point formats 0 to 10,
// uncompressed.

#include <array>
#include <cstdint>
#include <string>

#include "core/survey/cloud.h"

namespace erdwerk::format {

struct LasHeader {
    int major = 1;
    int minor = 2;
    int pointFormat = 0;
    std::uint64_t points = 0;
    std::uint64_t pointsAt = 0;  ///< byte where the point records begin
    std::size_t recordLength = 0;
    geometry::Vec3 scale{0.01, 0.01, 0.01};
    geometry::Vec3 offset;
    [[nodiscard]] std::string version() const { return std::to_string(major) + "." + std::to_string(minor); }
};

/// BadInput for what is no LAS file, is cut short, or states what cannot be; Unsupported for compressed files
/// and newer versions, with what to do about it.
Result<LasHeader> readLasHeader(const std::string& path);

/// Reads in parallel; every point of the file, in order. Colours are the high bytes of the 16-bit channels,
/// or the channels themselves when none goes above 255. Points may share places.
Result<survey::PointCloud> readLas(const std::string& path, const Context& context = {});

/// LAS 1.4, point format 6 or (with colours) 7, or for `legacy` 1.2 with format 0 or 2.
Result<void> writeLas(const std::string& path, const survey::PointCloud& cloud, bool legacy = false);

/// A copy of the file in which only the classes of the points are others (one for each point, in order).
Result<void> writeLasWithClasses(const std::string& from, const std::string& to,
                                 const std::vector<std::uint8_t>& classes);

}  // namespace erdwerk::format
