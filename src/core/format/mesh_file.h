#pragma once
// Surfaces for other programs that show them: OBJ and binary glTF 2.0 (ISO/IEC 12113).

#include <string>
#include <utility>
#include <vector>

#include "core/base/result.h"
#include "core/terrain/tin.h"

namespace erdwerk::format {

struct NamedTin {
    std::string name;
    const terrain::Tin* tin = nullptr;
};

/// One object for each surface; x easting, y northing, z height, full precision, right-handed.
Result<void> writeObj(const std::string& path, const std::vector<NamedTin>& surfaces);
/// All triangles of a file as one surface; polygons are cut into fans. BadInput with the line for anything
/// that is not a surface.
Result<terrain::Tin> readObj(const std::string& path);

/// One mesh and node for each surface. glTF has y up and 32-bit numbers, so x is easting, y height, z minus
/// northing, all from the centre of the surfaces, which stands in the root node as `extras.origin` (easting,
/// northing, height in project units). Units are metres: `toMetres` is the factor of the project's unit.
Result<void> writeGlb(const std::string& path, const std::vector<NamedTin>& surfaces, double toMetres = 1);

/// The triangle meshes of a binary glTF, one surface for each mesh that a node of the first scene shows, with
/// the translations, rotations and scales of its nodes; `extras.origin` of the root is added as written by
/// writeGlb. In metres. BadInput for what is not a surface (vertical triangles) or not binary glTF 2.0;
/// Unsupported for compressed or sparse data and buffers in other files.
Result<std::vector<std::pair<std::string, terrain::Tin>>> readGlb(const std::string& path);

}  // namespace erdwerk::format
