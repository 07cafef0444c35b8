// GeoJSON.

#include "core/format/declared/left_behind.h"
#include "core/format/declared/vectors.h"
#include "core/format/project_layers.h"
#include "core/format/vector_file.h"

namespace erdwerk::format {

namespace {

/// One layer only: the lines, or the points when there are no lines.
Result<std::vector<std::string>> write(const std::string& path, const derive::Derived& derived, Figures) {
    const auto& document = derived.document;
    const bool lines = !derived.lines.empty();
    std::size_t chorded = 0;
    auto layers = projectLayers(derived, true);
    std::erase_if(layers, [](const VectorLayer& l) { return l.name != "survey_points"; });
    if (lines) layers = {chordedLines(derived, &chorded)};
    if (layers.empty()) return badInput("there are no lines or points to write", path);
    if (const auto done = writeVectorFile(path, layers); !done) return tl::unexpected(done.error());
    auto left = leftBehind(document, {"surface", "alignment", "profile", "parcel", "label", "sheet", "cloud",
                                      "raster", "backdrop"});
    if (lines)
        for (auto& text : leftBehind(document, {"points"})) left.push_back(text);
    if (chorded > 0)
        left.push_back("the arcs of " + std::to_string(chorded) + (chorded == 1 ? " line" : " lines") +
                       ", which became chords");
    return left;
}

}  // namespace

Format geoJson() {
    return {.name = "GeoJSON", .endings = {".geojson", ".json"}, .read = readVectors, .write = write};
}

}  // namespace erdwerk::format
