#include "core/format/formats.h"

#include <algorithm>

#include "core/format/output.h"

namespace erdwerk::format {

const std::vector<Format>& formats() {
    static const std::vector<Format> all{project(),     landXml(),      geoPackage(), geoJson(),
                                         csvOfPoints(), otherVectors(), plyFile(),    objFile(),
                                         binaryGltf(),  lasFile(),      textXyz(),    rasters()};
    return all;
}

const Format* formatOf(std::string_view path) {
    const std::string ending = endingOf(std::string(path));
    for (const Format& format : formats())
        if (std::find(format.endings.begin(), format.endings.end(), ending) != format.endings.end())
            return &format;
    return nullptr;
}

std::string endingsThat(bool (*holds)(const Format&)) {
    std::vector<std::string> endings;
    for (const Format& format : formats())
        if (holds(format)) endings.emplace_back(format.endings.front());
    std::string out;
    for (std::size_t i = 0; i < endings.size(); ++i)
        out += (i == 0 ? "" : i + 1 == endings.size() ? " or " : ", ") + endings[i];
    return out;
}

FileSort sortOf(const std::string& path) {
    const Format* format = formatOf(path);
    return format == nullptr ? FileSort::Lines : format->sort;
}

}  // namespace erdwerk::format
