// Survey points as CSV or text.

#include "core/format/declared/left_behind.h"
#include "core/format/formats.h"
#include "core/format/output.h"
#include "core/objects/points.h"

namespace erdwerk::format {

namespace {

Result<Imported> read(const document::Document& document, const std::string& path,
                      const ImportOptions& options, const Context&) {
    auto points = readPointFile(path, options, document.settings().display.unit);
    if (!points) return tl::unexpected(points.error());
    return addPoints(document, path, std::move(*points));
}

Result<std::vector<std::string>> write(const std::string& path, const derive::Derived& derived,
                                       Figures figures) {
    const auto& document = derived.document;
    std::vector<survey::SurveyPoint> all;
    for (const auto id : document.all<objects::Points>()) {
        const auto points = document.get<objects::Points>(id)->set.all();
        all.insert(all.end(), points.begin(), points.end());
    }
    const auto* display = figures == Figures::AsShown ? &document.settings().display : nullptr;
    if (auto done = replaceFile(path, writePoints(all, display)); !done) return tl::unexpected(done.error());
    return leftBehind(document, {"line", "surface", "alignment", "profile", "parcel", "label", "sheet",
                                 "cloud", "raster", "backdrop"});
}

}  // namespace

Format csvOfPoints() {
    return {.name = "CSV of points",
            .endings = {".csv", ".txt"},
            .sort = FileSort::Points,
            .read = read,
            .write = write,
            .hasFigures = true};
}

}  // namespace erdwerk::format
