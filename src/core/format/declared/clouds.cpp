// Point clouds, which stay in their files.

#include "core/format/formats.h"

namespace erdwerk::format {

namespace {

Result<Imported> read(const document::Document& document, const std::string& path, const ImportOptions&,
                      const Context& context) {
    return addCloud(document, path, context);
}

}  // namespace

Format lasFile() {
    return {.name = "LAS", .endings = {".las", ".laz"}, .sort = FileSort::Cloud, .read = read};
}

Format textXyz() {
    return {.name = "Text x y z", .endings = {".xyz", ".pts", ".txt"}, .sort = FileSort::Cloud, .read = read};
}

}  // namespace erdwerk::format
