#pragma once
// A closed line as the edge of a surface.

#include "core/linework/line3d.h"
#include "core/terrain/build.h"

namespace erdwerk::derive {

/// The ring of a closed line, arcs cut to `sagitta`, first corner not repeated; with its heights when every
/// vertex has one, else without any.
terrain::Boundary boundaryAlong(const linework::ResolvedLine& line, double sagitta);

}  // namespace erdwerk::derive
