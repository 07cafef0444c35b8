// Vector files that are read through GDAL and not written.

#include "core/format/declared/vectors.h"
#include "core/format/vector_file.h"

namespace erdwerk::format {

Result<Imported> readVectors(const document::Document& document, const std::string& path,
                             const ImportOptions& options, const Context& context) {
    const auto content = readVectorFile(path, context);
    if (!content) return tl::unexpected(content.error());
    return addVectorContent(document, path, *content, options.keepZero);
}

Format otherVectors() {
    return {.name = "Other vector files", .endings = {".shp", ".gml"}, .read = readVectors};
}

}  // namespace erdwerk::format
