#pragma once
// What the formats that GDAL reads as vectors have in common.

#include "core/format/formats.h"

namespace erdwerk::format {

/// Lines, points and triangles of a vector file, see addVectorContent.
Result<Imported> readVectors(const document::Document& document, const std::string& path,
                             const ImportOptions& options, const Context& context);

}  // namespace erdwerk::format
