#include "core/format/mesh_file.h"

#include <algorithm>
#include <cmath>
#include <cstring>
#include <limits>
#include <nlohmann/json.hpp>

#include "core/base/notation.h"
#include "core/format/output.h"
#include "core/format/ply.h"

namespace erdwerk::format {

using geometry::Vec3;

namespace {

/// A name on one line, without what a reader would take for structure.
std::string plainName(std::string name) {
    for (char& c : name)
        if (static_cast<unsigned char>(c) <= ' ') c = '_';
    return name.empty() ? "surface" : name;
}

template <class T>
void appendRaw(std::string& out, T value) {
    char bytes[sizeof(T)];
    std::memcpy(bytes, &value, sizeof(T));  // the machines this runs on are little-endian, as is the format
    out.append(bytes, sizeof(T));
}

class ObjReader {
public:
    ObjReader(std::string path, const std::string& text) : path_(std::move(path)), text_(text) {}

    Result<terrain::Tin> run() {
        std::size_t from = 0;
        while (from < text_.size()) {
            ++line_;
            auto to = text_.find('\n', from);
            if (to == std::string::npos) to = text_.size();
            if (auto read = readLine(text_.substr(from, to - from)); !read)
                return tl::unexpected(read.error());
            from = to + 1;
        }
        if (corners_.empty()) return badInput("has no faces", path_, line_);
        return surfaceFromTriangles(std::move(vertices_), std::move(corners_), path_);
    }

private:
    Result<void> readLine(const std::string& text) {
        std::vector<std::string> words;
        std::string word;
        for (const char c : text + ' ') {
            if (c != ' ' && c != '\t' && c != '\r') {
                word += c;
            } else if (!word.empty()) {
                words.push_back(std::move(word));
                word.clear();
            }
        }
        if (words.empty()) return {};
        if (words[0] == "v") return vertex(words);
        if (words[0] == "f") return face(words);
        return {};
    }

    Result<void> vertex(const std::vector<std::string>& words) {
        if (words.size() < 4) return badInput("a vertex needs three numbers", path_, line_);
        double v[3];
        for (std::size_t i = 0; i < 3; ++i) {
            const auto value = parseNumber(words[i + 1]);
            if (!value || std::abs(*value) > 1e12)
                return badInput("'" + words[i + 1].substr(0, 40) + "' is not a number in range", path_,
                                line_);
            v[i] = *value;
        }
        vertices_.push_back({v[0], v[1], v[2]});
        return {};
    }

    Result<void> face(const std::vector<std::string>& words) {
        std::vector<std::uint32_t> ring;
        for (std::size_t i = 1; i < words.size(); ++i) {
            const std::string index = words[i].substr(0, words[i].find('/'));
            const auto value = parseNumber(index);
            const double count = static_cast<double>(vertices_.size());
            // Negative numbers count from the last vertex.
            const double at = value ? (*value < 0 ? count + *value : *value - 1) : -1;
            if (!(at >= 0) || at >= count || at != std::floor(at))
                return badInput("the face names vertex " + index.substr(0, 40) + ", which is not there",
                                path_, line_);
            ring.push_back(static_cast<std::uint32_t>(at));
        }
        if (ring.size() < 3) return badInput("a face needs three corners", path_, line_);
        for (std::size_t i = 1; i + 1 < ring.size(); ++i)
            corners_.insert(corners_.end(), {ring[0], ring[i], ring[i + 1]});
        return {};
    }

    std::string path_;
    const std::string& text_;
    long line_ = 0;
    std::vector<Vec3> vertices_;
    std::vector<std::uint32_t> corners_;
};

}  // namespace

Result<void> writeObj(const std::string& path, const std::vector<NamedTin>& surfaces) {
    std::string text = "# Erdwerk: x easting, y northing, z height\n";
    std::size_t before = 1;
    for (const NamedTin& s : surfaces) {
        text += "o " + plainName(s.name) + "\n";
        for (const Vec3& v : s.tin->vertices())
            text += "v " + formatExact(v.x) + " " + formatExact(v.y) + " " + formatExact(v.z) + "\n";
        for (std::uint32_t t = 0; t < s.tin->triangleCount(); ++t) {
            text += "f";
            for (int i = 0; i < 3; ++i) text += " " + std::to_string(before + s.tin->corner(t, i));
            text += "\n";
        }
        before += s.tin->vertexCount();
    }
    return replaceFile(path, text);
}

Result<terrain::Tin> readObj(const std::string& path) {
    const auto text = readFile(path);
    if (!text) return tl::unexpected(text.error());
    return ObjReader(path, *text).run();
}

Result<void> writeGlb(const std::string& path, const std::vector<NamedTin>& surfaces, double toMetres) {
    using nlohmann::json;
    geometry::Box box;
    double lowest = std::numeric_limits<double>::infinity();
    double highest = -lowest;
    for (const NamedTin& s : surfaces)
        for (const Vec3& v : s.tin->vertices()) {
            box.add(v.plan());
            lowest = std::min(lowest, v.z);
            highest = std::max(highest, v.z);
        }
    if (box.empty()) return badInput("there is no surface to write", path);
    const Vec3 origin{box.centre().x, box.centre().y, (lowest + highest) / 2};
    std::string bytes;
    json views = json::array();
    json accessors = json::array();
    json meshes = json::array();
    json nodes = json::array({{{"name", "Erdwerk"},
                               {"extras", {{"origin", {origin.x, origin.y, origin.z}}}},
                               {"children", json::array()}}});
    for (const NamedTin& s : surfaces) {
        const std::size_t placesAt = bytes.size();
        float low[3] = {1e30F, 1e30F, 1e30F};
        float high[3] = {-1e30F, -1e30F, -1e30F};
        for (const Vec3& v : s.tin->vertices()) {
            const float p[3] = {static_cast<float>((v.x - origin.x) * toMetres),
                                static_cast<float>((v.z - origin.z) * toMetres),
                                static_cast<float>((origin.y - v.y) * toMetres)};
            for (int i = 0; i < 3; ++i) {
                low[i] = std::min(low[i], p[i]);
                high[i] = std::max(high[i], p[i]);
                appendRaw(bytes, p[i]);
            }
        }
        const std::size_t facesAt = bytes.size();
        for (const std::uint32_t c : s.tin->corners()) appendRaw(bytes, c);
        if (bytes.size() > std::numeric_limits<std::uint32_t>::max() / 2)
            return badInput("the surfaces are too large for this format", path);
        views.push_back(
            {{"buffer", 0}, {"byteOffset", placesAt}, {"byteLength", facesAt - placesAt}, {"target", 34962}});
        views.push_back({{"buffer", 0},
                         {"byteOffset", facesAt},
                         {"byteLength", bytes.size() - facesAt},
                         {"target", 34963}});
        const std::size_t n = accessors.size();
        accessors.push_back({{"bufferView", n},
                             {"componentType", 5126},
                             {"count", s.tin->vertexCount()},
                             {"type", "VEC3"},
                             {"min", low},
                             {"max", high}});
        accessors.push_back({{"bufferView", n + 1},
                             {"componentType", 5125},
                             {"count", s.tin->corners().size()},
                             {"type", "SCALAR"}});
        meshes.push_back(
            {{"name", s.name},
             {"primitives",
              json::array({{{"attributes", {{"POSITION", n}}}, {"indices", n + 1}, {"mode", 4}}})}});
        nodes[0]["children"].push_back(nodes.size());
        nodes.push_back({{"name", s.name}, {"mesh", meshes.size() - 1}});
    }
    const json document{{"asset", {{"version", "2.0"}, {"generator", "Erdwerk"}}},
                        {"scene", 0},
                        {"scenes", json::array({{{"nodes", json::array({0})}}})},
                        {"nodes", nodes},
                        {"meshes", meshes},
                        {"buffers", json::array({{{"byteLength", bytes.size()}}})},
                        {"bufferViews", views},
                        {"accessors", accessors}};
    std::string head = document.dump();
    while (head.size() % 4 != 0) head += ' ';
    while (bytes.size() % 4 != 0) bytes += '\0';
    std::string out = "glTF";
    appendRaw(out, std::uint32_t{2});
    appendRaw(out, static_cast<std::uint32_t>(12 + 8 + head.size() + 8 + bytes.size()));
    appendRaw(out, static_cast<std::uint32_t>(head.size()));
    out += "JSON" + head;
    appendRaw(out, static_cast<std::uint32_t>(bytes.size()));
    out += std::string("BIN\0", 4) + bytes;
    return replaceFile(path, out);
}

}  // namespace erdwerk::format
