// LandXML 1.2.

#include "core/format/formats.h"
#include "core/format/landxml.h"

namespace erdwerk::format {

namespace {

Result<Imported> read(const document::Document& document, const std::string& path, const ImportOptions&,
                      const Context& context) {
    const auto content = readLandXml(path, context);
    if (!content) return tl::unexpected(content.error());
    return addLandXml(document, path, *content);
}

Result<std::vector<std::string>> write(const std::string& path, const derive::Derived& derived, Figures) {
    const LandXml content = landXmlOf(derived);
    const auto done = writeLandXml(path, content, derived.document.settings().name);
    if (!done) return tl::unexpected(done.error());
    return content.left;
}

Result<ReadSurface> readSurface(const std::string& path) {
    auto content = readLandXml(path);
    if (!content) return tl::unexpected(content.error());
    if (content->surfaces.empty()) return badInput("holds no surface", path, 1);
    return ReadSurface{std::move(content->surfaces.front().tin), content->unit};
}

Result<void> writeOne(const std::string& path, const SurfaceToWrite& surface) {
    LandXml one;
    one.unit = surface.unit;
    if (surface.derived == nullptr) {
        one.surfaces.push_back({surface.name, surface.tin, {}});
        return writeLandXml(path, one, surface.name);
    }
    for (auto& s : landXmlOf(*surface.derived).surfaces)
        if (s.name == surface.name && one.surfaces.empty()) one.surfaces.push_back(s);
    return writeLandXml(path, one, surface.derived->document.settings().name);
}

}  // namespace

Format landXml() {
    return {.name = "LandXML 1.2",
            .endings = {".xml"},
            .read = read,
            .write = write,
            .readSurface = readSurface,
            .writeSurface = writeOne};
}

}  // namespace erdwerk::format
