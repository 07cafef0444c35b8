#pragma once
// Surfaces as PLY: binary, little-endian, double x y z, faces as vertex_indices.

#include "core/base/result.h"
#include "core/terrain/tin.h"

namespace erdwerk::format {

Result<void> writePly(const std::string& path, const terrain::Tin& tin);
/// Properties of vertices and faces may be more than needed, of any type; faces must be triangles. Clockwise
/// triangles are turned round. BadInput for anything that is not a surface (vertical or repeated triangles,
/// bad indices).
Result<terrain::Tin> readPly(const std::string& path);

/// Checks that triangles make a surface, turns clockwise ones round and links them.
Result<terrain::Tin> surfaceFromTriangles(std::vector<geometry::Vec3> vertices,
                                          std::vector<std::uint32_t> corners, const std::string& file);

/// The vertices alone, for a PLY file that holds a point cloud.
Result<std::vector<geometry::Vec3>> readPlyPoints(const std::string& path);

}  // namespace erdwerk::format
