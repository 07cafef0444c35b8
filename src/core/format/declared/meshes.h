#pragma once
// What the formats of triangles have in common.

#include "core/format/declared/left_behind.h"
#include "core/format/formats.h"
#include "core/format/mesh_file.h"

namespace erdwerk::format {

/// All surfaces of a project; empty when it has none.
std::vector<NamedTin> surfacesOf(const derive::Derived& derived);
/// What a file of nothing but surfaces leaves out.
std::vector<std::string> leftBySurfaces(const document::Document& document);

}  // namespace erdwerk::format
