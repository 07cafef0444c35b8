// Binary glTF 2.0, in metres.

#include "core/format/declared/meshes.h"
#include "core/format/landxml.h"

namespace erdwerk::format {

namespace {

Result<Imported> read(const document::Document& document, const std::string& path, const ImportOptions&,
                      const Context&) {
    auto surfaces = readGlb(path);
    if (!surfaces) return tl::unexpected(surfaces.error());
    LandXml content;
    for (auto& s : *surfaces) content.surfaces.push_back({s.first, std::move(s.second), {}});
    return addLandXml(document, path, content);
}

Result<std::vector<std::string>> write(const std::string& path, const derive::Derived& derived, Figures) {
    const auto surfaces = surfacesOf(derived);
    if (surfaces.empty()) return badInput("there is no surface to write", path);
    const auto& document = derived.document;
    const auto done = writeGlb(path, surfaces, metresPer(document.settings().display.unit));
    if (!done) return tl::unexpected(done.error());
    return leftBySurfaces(document);
}

Result<void> writeOne(const std::string& path, const SurfaceToWrite& surface) {
    return writeGlb(path, {{surface.name, &surface.tin}}, metresPer(surface.unit));
}

}  // namespace

Format binaryGltf() {
    return {
        .name = "Binary glTF", .endings = {".glb"}, .read = read, .write = write, .writeSurface = writeOne};
}

}  // namespace erdwerk::format
