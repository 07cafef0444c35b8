#include "core/format/cloud_file.h"

#include <algorithm>
#include <charconv>
#include <cmath>
#include <filesystem>
#include <string_view>

#include "core/format/las.h"
#include "core/format/output.h"
#include "core/format/ply.h"

namespace erdwerk::format {

using geometry::Vec3;

namespace {

bool separates(char c) {
    return c == ' ' || c == '\t' || c == ',' || c == ';' || c == '\r';
}

/// The next number of a line, moving on behind it; false when there is none.
bool nextNumber(std::string_view& rest, double& value) {
    while (!rest.empty() && separates(rest.front())) rest.remove_prefix(1);
    if (!rest.empty() && rest.front() == '+') rest.remove_prefix(1);
    const auto [end, error] = std::from_chars(rest.data(), rest.data() + rest.size(), value);
    if (error != std::errc{}) return false;
    rest.remove_prefix(static_cast<std::size_t>(end - rest.data()));
    return std::isfinite(value) && (rest.empty() || separates(rest.front()));
}

bool isComment(std::string_view line) {
    return line.empty() || line.front() == '#' || line.substr(0, 2) == "//" ||
           std::all_of(line.begin(), line.end(), separates);
}

}  // namespace

Result<std::vector<Vec3>> readXyzPlaces(const std::string& path, const Context& context) {
    const auto bytes = readFile(path);
    if (!bytes) return tl::unexpected(bytes.error());
    std::string_view text = *bytes;
    if (text.substr(0, 3) == "\xef\xbb\xbf") text.remove_prefix(3);
    std::vector<Vec3> places;
    long number = 0;
    bool anything = false;
    while (!text.empty()) {
        const std::size_t end = std::min(text.find('\n'), text.size());
        std::string_view line = text.substr(0, end);
        text.remove_prefix(std::min(end + 1, text.size()));
        ++number;
        if ((number & 0xffff) == 0) {
            if (context.isCancelled()) return cancelled();
            context.report(1 - static_cast<double>(text.size()) / static_cast<double>(bytes->size()));
        }
        if (isComment(line)) continue;
        Vec3 p;
        const std::string_view whole = line.substr(0, 60);
        if (nextNumber(line, p.x) && nextNumber(line, p.y) && nextNumber(line, p.z)) {
            if (std::max({std::abs(p.x), std::abs(p.y), std::abs(p.z)}) > 1e12)
                return badInput("a coordinate is beyond anything on Earth", path, number);
            places.push_back(p);
        } else if (anything) {
            return badInput("expected x y z, found '" + std::string(whole) + "'", path, number);
        }
        anything = true;
    }
    if (places.empty()) return badInput("holds no places", path, 1);
    return places;
}

Result<survey::PointCloud> readCloud(const std::string& path, const Context& context) {
    const std::string ending = endingOf(path);
    if (ending == ".las" || ending == ".laz") return readLas(path, context);
    if (ending == ".ply") {
        auto places = readPlyPoints(path);
        if (!places) return tl::unexpected(places.error());
        return survey::cloudFrom(*places);
    }
    if (readLasHeader(path)) return readLas(path, context);
    auto places = readXyzPlaces(path, context);
    if (!places) return tl::unexpected(places.error());
    return survey::cloudFrom(*places);
}

}  // namespace erdwerk::format
