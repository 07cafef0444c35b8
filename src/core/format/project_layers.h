#pragma once
// What a project shows to other software: its derived geometry as ordinary vector layers.

#include "core/document/model.h"
#include "core/format/vector_file.h"

namespace erdwerk::format {

/// survey_points, lines, surface_triangles (surface_boundaries for surfaces of more than 200 000),
/// alignments, parcels; layers without content are left out.
std::vector<VectorLayer> projectLayers(const document::Derived& derived);

}  // namespace erdwerk::format
