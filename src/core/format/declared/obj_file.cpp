// OBJ.

#include "core/format/declared/meshes.h"

namespace erdwerk::format {

namespace {

Result<Imported> read(const document::Document& document, const std::string& path, const ImportOptions&,
                      const Context&) {
    auto tin = readObj(path);
    if (!tin) return tl::unexpected(tin.error());
    return addSurfaceOf(document, path, std::move(*tin));
}

Result<std::vector<std::string>> write(const std::string& path, const derive::Derived& derived, Figures) {
    const auto surfaces = surfacesOf(derived);
    if (surfaces.empty()) return badInput("there is no surface to write", path);
    if (const auto done = writeObj(path, surfaces); !done) return tl::unexpected(done.error());
    return leftBySurfaces(derived.document);
}

Result<ReadSurface> readSurface(const std::string& path) {
    auto tin = readObj(path);
    if (!tin) return tl::unexpected(tin.error());
    return ReadSurface{std::move(*tin), {}};
}

Result<void> writeOne(const std::string& path, const SurfaceToWrite& surface) {
    return writeObj(path, {{surface.name, &surface.tin}});
}

}  // namespace

Format objFile() {
    return {.name = "OBJ",
            .endings = {".obj"},
            .read = read,
            .write = write,
            .readSurface = readSurface,
            .writeSurface = writeOne};
}

}  // namespace erdwerk::format
