#include "core/format/mesh_file.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <cstring>
#include <limits>
#include <nlohmann/json.hpp>

#include "core/base/notation.h"
#include "core/base/thrown.h"
#include "core/format/output.h"
#include "core/format/ply.h"

namespace erdwerk::format {

using nlohmann::json;

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

namespace {

/// Builds the one buffer and the JSON of a glTF file.
class GlbContent {
public:
    GlbContent(const Vec3& origin, double toMetres) : origin_(origin), toMetres_(toMetres) {}

    /// False when it does not fit the format.
    bool add(const NamedTin& s) {
        const std::size_t placesAt = bytes_.size();
        float low[3] = {1e30F, 1e30F, 1e30F};
        float high[3] = {-1e30F, -1e30F, -1e30F};
        for (const Vec3& v : s.tin->vertices()) {
            const float p[3] = {static_cast<float>((v.x - origin_.x) * toMetres_),
                                static_cast<float>((v.z - origin_.z) * toMetres_),
                                static_cast<float>((origin_.y - v.y) * toMetres_)};
            for (int i = 0; i < 3; ++i) {
                low[i] = std::min(low[i], p[i]);
                high[i] = std::max(high[i], p[i]);
                appendRaw(bytes_, p[i]);
            }
        }
        const std::size_t facesAt = bytes_.size();
        for (const std::uint32_t c : s.tin->corners()) appendRaw(bytes_, c);
        if (bytes_.size() > std::numeric_limits<std::uint32_t>::max() / 2) return false;
        views_.push_back(
            {{"buffer", 0}, {"byteOffset", placesAt}, {"byteLength", facesAt - placesAt}, {"target", 34962}});
        views_.push_back({{"buffer", 0},
                          {"byteOffset", facesAt},
                          {"byteLength", bytes_.size() - facesAt},
                          {"target", 34963}});
        const std::size_t n = accessors_.size();
        accessors_.push_back({{"bufferView", n},
                              {"componentType", 5126},
                              {"count", s.tin->vertexCount()},
                              {"type", "VEC3"},
                              {"min", low},
                              {"max", high}});
        accessors_.push_back({{"bufferView", n + 1},
                              {"componentType", 5125},
                              {"count", s.tin->corners().size()},
                              {"type", "SCALAR"}});
        meshes_.push_back(
            {{"name", s.name},
             {"primitives",
              json::array({{{"attributes", {{"POSITION", n}}}, {"indices", n + 1}, {"mode", 4}}})}});
        nodes_[0]["children"].push_back(nodes_.size());
        nodes_.push_back({{"name", s.name}, {"mesh", meshes_.size() - 1}});
        return true;
    }
    [[nodiscard]] const std::string& bytes() const { return bytes_; }
    [[nodiscard]] json document() const {
        return json{{"asset", {{"version", "2.0"}, {"generator", "Erdwerk"}}},
                    {"scene", 0},
                    {"scenes", json::array({{{"nodes", json::array({0})}}})},
                    {"nodes", nodes_},
                    {"meshes", meshes_},
                    {"buffers", json::array({{{"byteLength", bytes_.size()}}})},
                    {"bufferViews", views_},
                    {"accessors", accessors_}};
    }

private:
    Vec3 origin_;
    double toMetres_;
    std::string bytes_;
    json views_ = json::array();
    json accessors_ = json::array();
    json meshes_ = json::array();
    json nodes_ = json::array({{{"name", "Erdwerk"},
                                {"extras", {{"origin", {origin_.x, origin_.y, origin_.z}}}},
                                {"children", json::array()}}});
};

}  // namespace

Result<void> writeGlb(const std::string& path, const std::vector<NamedTin>& surfaces, double toMetres) {
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
    GlbContent content(origin, toMetres);
    for (const NamedTin& s : surfaces)
        if (!content.add(s)) return badInput("the surfaces are too large for this format", path);
    std::string bytes = content.bytes();
    std::string head = content.document().dump();
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

namespace {

/// A 4 x 4 matrix, column by column, as in glTF.
using Matrix = std::array<double, 16>;
constexpr Matrix identity{1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1};

Matrix product(const Matrix& a, const Matrix& b) {
    Matrix out{};
    for (std::size_t c = 0; c < 4; ++c)
        for (std::size_t r = 0; r < 4; ++r)
            for (std::size_t k = 0; k < 4; ++k) out[4 * c + r] += a[4 * k + r] * b[4 * c + k];
    return out;
}

Matrix matrixOf(const nlohmann::json& node) {
    if (node.contains("matrix")) return node.at("matrix").get<Matrix>();
    const auto t = node.value("translation", std::array<double, 3>{0, 0, 0});
    const auto q = node.value("rotation", std::array<double, 4>{0, 0, 0, 1});
    const auto s = node.value("scale", std::array<double, 3>{1, 1, 1});
    const auto [x, y, z, w] = q;
    return {(1 - 2 * (y * y + z * z)) * s[0],
            2 * (x * y + z * w) * s[0],
            2 * (x * z - y * w) * s[0],
            0,
            2 * (x * y - z * w) * s[1],
            (1 - 2 * (x * x + z * z)) * s[1],
            2 * (y * z + x * w) * s[1],
            0,
            2 * (x * z + y * w) * s[2],
            2 * (y * z - x * w) * s[2],
            (1 - 2 * (x * x + y * y)) * s[2],
            0,
            t[0],
            t[1],
            t[2],
            1};
}

class GlbReader {
public:
    GlbReader(std::string path, const std::string& bytes) : path_(std::move(path)), bytes_(bytes) {}

    Result<std::vector<std::pair<std::string, terrain::Tin>>> run() {
        const auto read = caught(
            [&] {
                chunks();
                const auto& scenes = json_.at("scenes");
                for (const auto& node : scenes.at(json_.value("scene", std::size_t{0})).at("nodes"))
                    walk(node.get<std::size_t>(), identity, 0);
            },
            path_);
        if (!read) return tl::unexpected(read.error());
        if (surfaces_.empty()) return badInput("holds no triangles", path_);
        return std::move(surfaces_);
    }

private:
    [[noreturn]] void bad(const std::string& reason) const {
        throw Thrown({ErrorCode::BadInput, reason, path_, 0});
    }

    [[nodiscard]] std::uint32_t word(std::size_t at) const {
        std::uint32_t v = 0;
        std::memcpy(&v, bytes_.data() + at, 4);
        return v;
    }

    void chunks() {
        if (bytes_.size() < 20 || bytes_.compare(0, 4, "glTF") != 0) bad("is not a binary glTF file");
        if (word(4) != 2) bad("is glTF of version " + std::to_string(word(4)) + "; 2 is read");
        std::size_t at = 12;
        while (at + 8 <= bytes_.size()) {
            const std::size_t size = word(at);
            const std::uint32_t kind = word(at + 4);
            if (size > bytes_.size() - at - 8) bad("ends in the middle");
            if (kind == 0x4E4F534AU)
                json_ = nlohmann::json::parse(bytes_.begin() + static_cast<std::ptrdiff_t>(at + 8),
                                              bytes_.begin() + static_cast<std::ptrdiff_t>(at + 8 + size));
            if (kind == 0x004E4942U && data_ == 0) {
                data_ = at + 8;
                dataSize_ = size;
            }
            at += 8 + size;
        }
        if (!json_.is_object()) bad("has no description");
    }

    void walk(std::size_t index, const Matrix& above, int depth) {
        if (depth > 64) bad("nodes are nested without end");
        const auto& node = json_.at("nodes").at(index);
        const Matrix here = product(above, matrixOf(node));
        if (const auto extras = node.find("extras"); extras != node.end() && extras->is_object() &&
                                                     extras->contains("origin") &&
                                                     (*extras)["origin"].is_array())
            origin_ = extras->at("origin").get<std::array<double, 3>>();
        if (node.contains("mesh")) mesh(node.at("mesh").get<std::size_t>(), here);
        for (const auto& child : node.value("children", nlohmann::json::array()))
            walk(child.get<std::size_t>(), here, depth + 1);
    }

    /// Where the values of an accessor stand: start, distance, count.
    struct View {
        std::size_t start = 0;
        std::size_t stride = 0;
        std::size_t count = 0;
        int component = 0;
    };
    [[nodiscard]] View view(const nlohmann::json& accessor, std::size_t components) const {
        if (accessor.contains("sparse") || !accessor.contains("bufferView"))
            throw Thrown({ErrorCode::Unsupported, "sparse or compressed data is not read", path_, 0});
        const auto& bufferView = json_.at("bufferViews").at(accessor.at("bufferView").get<std::size_t>());
        const auto& buffer = json_.at("buffers").at(bufferView.at("buffer").get<std::size_t>());
        if (buffer.contains("uri"))
            throw Thrown({ErrorCode::Unsupported, "a buffer in another file is not read", path_, 0});
        View out;
        out.component = accessor.at("componentType").get<int>();
        const std::size_t size = out.component == 5121 ? 1 : (out.component == 5123 ? 2 : 4);
        out.count = accessor.at("count").get<std::size_t>();
        out.start =
            bufferView.value("byteOffset", std::size_t{0}) + accessor.value("byteOffset", std::size_t{0});
        out.stride = bufferView.value("byteStride", size * components);
        const std::size_t last = size * components;
        if (out.count > 400'000'000 || out.stride > 4096 || out.stride < last || out.start > dataSize_ ||
            (out.count > 0 && (out.count - 1) * out.stride + last > dataSize_ - out.start))
            bad("an accessor points outside its buffer");
        return out;
    }

    void mesh(std::size_t index, const Matrix& m) {
        const auto& mesh = json_.at("meshes").at(index);
        std::vector<Vec3> vertices;
        std::vector<std::uint32_t> corners;
        for (const auto& primitive : mesh.at("primitives")) {
            if (primitive.value("mode", 4) != 4) continue;
            const auto& accessors = json_.at("accessors");
            const View places =
                view(accessors.at(primitive.at("attributes").at("POSITION").get<std::size_t>()), 3);
            if (places.component != 5126) bad("positions are not 32-bit floats");
            const auto first = static_cast<std::uint32_t>(vertices.size());
            for (std::size_t i = 0; i < places.count; ++i) {
                float p[3];
                std::memcpy(p, bytes_.data() + data_ + places.start + i * places.stride, sizeof p);
                double q[3];
                for (std::size_t r = 0; r < 3; ++r)
                    q[r] = m[r] * static_cast<double>(p[0]) + m[4 + r] * static_cast<double>(p[1]) +
                           m[8 + r] * static_cast<double>(p[2]) + m[12 + r];
                if (!std::isfinite(q[0] + q[1] + q[2])) bad("a position is not a finite number");
                // y is up and z is south.
                vertices.push_back({origin_[0] + q[0], origin_[1] - q[2], origin_[2] + q[1]});
            }
            if (!primitive.contains("indices")) {
                for (std::uint32_t i = 0; i + 2 < places.count; i += 3)
                    corners.insert(corners.end(), {first + i, first + i + 1, first + i + 2});
                continue;
            }
            const View indices = view(accessors.at(primitive.at("indices").get<std::size_t>()), 1);
            for (std::size_t i = 0; i < indices.count; ++i) {
                const char* at = bytes_.data() + data_ + indices.start + i * indices.stride;
                std::uint32_t v = 0;
                std::memcpy(&v, at, indices.component == 5121 ? 1 : (indices.component == 5123 ? 2 : 4));
                if (v >= places.count) bad("a triangle names a vertex that is not there");
                corners.push_back(first + v);
            }
        }
        if (corners.empty() || corners.size() % 3 != 0) return;
        auto tin = surfaceFromTriangles(std::move(vertices), std::move(corners), path_);
        if (!tin) throw Thrown(tin.error());
        surfaces_.emplace_back(mesh.value("name", std::string("Surface")), std::move(*tin));
    }

    std::string path_;
    const std::string& bytes_;
    nlohmann::json json_;
    std::size_t data_ = 0;
    std::size_t dataSize_ = 0;
    std::array<double, 3> origin_{0, 0, 0};
    std::vector<std::pair<std::string, terrain::Tin>> surfaces_;
};

}  // namespace

Result<std::vector<std::pair<std::string, terrain::Tin>>> readGlb(const std::string& path) {
    const auto bytes = readFile(path);
    if (!bytes) return tl::unexpected(bytes.error());
    return GlbReader(path, *bytes).run();
}

}  // namespace erdwerk::format
