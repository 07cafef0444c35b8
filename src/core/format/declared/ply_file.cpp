// PLY: triangles, or points without any.

#include "core/format/formats.h"
#include "core/format/ply.h"

namespace erdwerk::format {

namespace {

Result<Imported> read(const document::Document& document, const std::string& path, const ImportOptions&,
                      const Context& context) {
    auto tin = readPly(path);
    if (tin) return addSurfaceOf(document, path, std::move(*tin));
    if (tin.error().code == ErrorCode::NotFound) return addCloud(document, path, context);
    return tl::unexpected(tin.error());
}

Result<ReadSurface> readSurface(const std::string& path) {
    auto tin = readPly(path);
    if (!tin) return tl::unexpected(tin.error());
    return ReadSurface{std::move(*tin), {}};
}

Result<void> writeOne(const std::string& path, const SurfaceToWrite& surface) {
    return writePly(path, surface.tin);
}

}  // namespace

Format plyFile() {
    return {.name = "PLY",
            .endings = {".ply"},
            .offered = {FileSort::Cloud},
            .read = read,
            .readSurface = readSurface,
            .writeSurface = writeOne};
}

}  // namespace erdwerk::format
