#pragma once
// What is meant when nothing is said.

#include "app/base/session.h"

namespace erdwerk::app {

/// The surface tools work on: the selected one, else the last.
ObjectId currentSurface(const Session& session);
/// The dense heights tools work on: the selected cloud, raster or surface, else the first cloud, the first
/// raster, the current surface.
ObjectId currentDense(const Session& session);

}  // namespace erdwerk::app
