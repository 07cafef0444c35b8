#pragma once
// The ground and the surface that has earthworks in it.

#include "core/document/document.h"

namespace erdwerk::document {

/// The surface that begins with a ground and has earthworks in it; none when there is none yet.
ObjectId finishedOf(const Document& document, ObjectId ground);

}  // namespace erdwerk::document
