#pragma once
// What a project shows to other software: its derived geometry as ordinary vector layers.

#include "core/derive/model.h"
#include "core/format/vector_file.h"

namespace erdwerk::format {

/// All lines with their rules as chains of chords; `chorded` counts those that had arcs.
VectorLayer chordedLines(const derive::Derived& derived, std::size_t* chorded);

/// survey_points, lines, curved_lines (those with arcs, as arcs), surface_triangles (surface_boundaries for
/// surfaces of more than 200 000), alignments, parcels; layers without content are left out.
/// With `rules` lines carry their height rules (see line_rules.h), for files that are read back; without them
/// they are only drawn, as part of a project that holds the rules itself.
std::vector<VectorLayer> projectLayers(const derive::Derived& derived, bool rules);

}  // namespace erdwerk::format
