#include "core/format/ply.h"

#include <algorithm>
#include <array>
#include <bit>
#include <cmath>
#include <cstring>
#include <map>
#include <sstream>

#include "core/format/output.h"
#include "core/geometry/predicates.h"

namespace erdwerk::format {

using geometry::Vec3;
static_assert(std::endian::native == std::endian::little);

Result<void> writePly(const std::string& path, const terrain::Tin& tin) {
    std::string out = "ply\nformat binary_little_endian 1.0\ncomment Erdwerk surface\nelement vertex " +
                      std::to_string(tin.vertexCount());
    out += "\nproperty double x\nproperty double y\nproperty double z\nelement face " +
           std::to_string(tin.triangleCount());
    out += "\nproperty list uchar int vertex_indices\nend_header\n";
    const std::size_t header = out.size();
    out.resize(header + tin.vertexCount() * sizeof(Vec3) + tin.triangleCount() * std::size_t{13});
    char* at = out.data() + header;
    if (tin.vertexCount() > 0) std::memcpy(at, tin.vertices().data(), tin.vertexCount() * sizeof(Vec3));
    at += tin.vertexCount() * sizeof(Vec3);
    for (std::uint32_t t = 0; t < tin.triangleCount(); ++t) {
        *at++ = 3;
        std::memcpy(at, tin.corners().data() + 3 * std::size_t{t}, 12);
        at += 12;
    }
    return replaceFile(path, out);
}

Result<terrain::Tin> surfaceFromTriangles(std::vector<Vec3> vertices, std::vector<std::uint32_t> corners,
                                          const std::string& file) {
    for (const Vec3& v : vertices)
        if (!std::isfinite(v.x) || !std::isfinite(v.y) || !std::isfinite(v.z))
            return badInput("a vertex is not a finite place", file);
    std::vector<std::array<std::uint32_t, 2>> sides;
    sides.reserve(corners.size());
    for (std::size_t t = 0; t + 2 < corners.size(); t += 3) {
        for (std::size_t i = 0; i < 3; ++i)
            if (corners[t + i] >= vertices.size())
                return badInput("triangle " + std::to_string(t / 3 + 1) + " names a vertex that is not there",
                                file);
        const int turn = geometry::orientation(vertices[corners[t]].plan(), vertices[corners[t + 1]].plan(),
                                               vertices[corners[t + 2]].plan());
        if (turn == 0)
            return badInput("triangle " + std::to_string(t / 3 + 1) + " has no area in plan", file);
        if (turn < 0) std::swap(corners[t + 1], corners[t + 2]);
        for (std::size_t i = 0; i < 3; ++i) sides.push_back({corners[t + i], corners[t + (i + 1) % 3]});
    }
    std::sort(sides.begin(), sides.end());
    if (std::adjacent_find(sides.begin(), sides.end()) != sides.end())
        return badInput("triangles overlap: a side is used twice in the same direction", file);
    return terrain::Tin(std::move(vertices), std::move(corners));
}

namespace {

std::size_t sizeOfType(const std::string& type) {
    static const std::map<std::string, std::size_t> sizes{
        {"char", 1},  {"uchar", 1},   {"int8", 1},   {"uint8", 1},  {"short", 2}, {"ushort", 2},
        {"int16", 2}, {"uint16", 2},  {"int", 4},    {"uint", 4},   {"int32", 4}, {"uint32", 4},
        {"float", 4}, {"float32", 4}, {"double", 8}, {"float64", 8}};
    const auto it = sizes.find(type);
    return it == sizes.end() ? 0 : it->second;
}

template <class T>
double load(const char* at) {
    T value;
    std::memcpy(&value, at, sizeof value);
    return static_cast<double>(value);
}

double valueOf(const std::string& type, const char* at) {
    if (type == "double" || type == "float64") return load<double>(at);
    if (type == "float" || type == "float32") return load<float>(at);
    if (type == "char" || type == "int8") return load<std::int8_t>(at);
    if (type == "uchar" || type == "uint8") return load<std::uint8_t>(at);
    if (type == "short" || type == "int16") return load<std::int16_t>(at);
    if (type == "ushort" || type == "uint16") return load<std::uint16_t>(at);
    if (type == "int" || type == "int32") return load<std::int32_t>(at);
    return load<std::uint32_t>(at);
}

struct Property {
    std::string name;
    std::string type;
    std::string countType;  ///< of a list; empty for a single value
};

struct Element {
    std::string name;
    std::size_t count = 0;
    std::vector<Property> properties;
};

struct Header {
    std::vector<Element> elements;
    std::size_t bytes = 0;
};

Result<Header> readHeader(const std::string& data, const std::string& path) {
    Header header;
    if (data.rfind("ply", 0) != 0) return badInput("is not a PLY file", path, 1);
    const std::size_t end = data.substr(0, std::min<std::size_t>(data.size(), 65536)).find("end_header\n");
    if (end == std::string::npos) return badInput("the header does not end", path, 1);
    header.bytes = end + 11;
    std::istringstream lines(data.substr(0, end));
    std::string line;
    for (long number = 1; std::getline(lines, line); ++number) {
        std::istringstream words(line);
        std::string word;
        words >> word;
        if (word == "format") {
            std::string kind;
            words >> kind;
            if (kind != "binary_little_endian")
                return fail(ErrorCode::Unsupported,
                            "format " + kind + " is not read; write binary_little_endian", path, number);
        } else if (word == "element") {
            Element element;
            if (!(words >> element.name >> element.count)) return badInput("bad element line", path, number);
            header.elements.push_back(element);
        } else if (word == "property") {
            if (header.elements.empty()) return badInput("a property before any element", path, number);
            Property p;
            words >> p.type;
            if (p.type == "list") words >> p.countType >> p.type;
            words >> p.name;
            if (sizeOfType(p.type) == 0 || (!p.countType.empty() && sizeOfType(p.countType) == 0))
                return badInput("unknown property type", path, number);
            header.elements.back().properties.push_back(p);
        }
    }
    return header;
}

}  // namespace

namespace {

struct Content {
    std::vector<Vec3> vertices;
    std::vector<std::uint32_t> corners;
};

Result<Content> readContent(const std::string& path) {
    const auto data = readFile(path);
    if (!data) return tl::unexpected(data.error());
    const auto header = readHeader(*data, path);
    if (!header) return tl::unexpected(header.error());
    Content content;
    std::size_t at = header->bytes;
    const auto truncated = [&] { return badInput("the file ends too early", path); };
    for (const Element& element : header->elements) {
        if (element.properties.empty()) continue;
        if (element.count > data->size()) return truncated();
        if (element.properties.empty() && element.count > 0)
            return badInput("element " + element.name + " has no properties", path);
        for (std::size_t i = 0; i < element.count; ++i) {
            Vec3 v;
            for (const Property& p : element.properties) {
                const std::size_t size = sizeOfType(p.type);
                std::size_t count = 1;
                if (!p.countType.empty()) {
                    if (at + sizeOfType(p.countType) > data->size()) return truncated();
                    const double n = valueOf(p.countType, data->data() + at);
                    at += sizeOfType(p.countType);
                    if (!(n >= 0 && n <= 1e6)) return badInput("a list has an absurd length", path);
                    count = static_cast<std::size_t>(n);
                }
                if (at + count * size > data->size()) return truncated();
                const char* from = data->data() + at;
                at += count * size;
                if (element.name == "vertex") {
                    if (p.name == "x") v.x = valueOf(p.type, from);
                    if (p.name == "y") v.y = valueOf(p.type, from);
                    if (p.name == "z") v.z = valueOf(p.type, from);
                } else if (element.name == "face" &&
                           (p.name == "vertex_indices" || p.name == "vertex_index")) {
                    if (count != 3)
                        return badInput("face " + std::to_string(i + 1) + " is not a triangle", path);
                    for (std::size_t k = 0; k < 3; ++k) {
                        const double index = valueOf(p.type, from + k * size);
                        content.corners.push_back(
                            index >= 0 && index < 4e9 ? static_cast<std::uint32_t>(index) : 0xffffffffU);
                    }
                }
            }
            if (element.name == "vertex") content.vertices.push_back(v);
        }
    }
    return content;
}

}  // namespace

Result<terrain::Tin> readPly(const std::string& path) {
    auto content = readContent(path);
    if (!content) return tl::unexpected(content.error());
    if (content->corners.empty()) return fail(ErrorCode::NotFound, "holds no triangles", path, 1);
    return surfaceFromTriangles(std::move(content->vertices), std::move(content->corners), path);
}

Result<std::vector<Vec3>> readPlyPoints(const std::string& path) {
    auto content = readContent(path);
    if (!content) return tl::unexpected(content.error());
    if (content->vertices.empty()) return badInput("holds no vertices", path, 1);
    for (std::size_t i = 0; i < content->vertices.size(); ++i) {
        const Vec3& v = content->vertices[i];
        if (!std::isfinite(v.x) || !std::isfinite(v.y) || !std::isfinite(v.z) ||
            std::max({std::abs(v.x), std::abs(v.y), std::abs(v.z)}) > 1e12)
            return badInput("vertex " + std::to_string(i + 1) + " is not a usable place", path);
    }
    return std::move(content->vertices);
}

}  // namespace erdwerk::format
