#include "core/format/attached.h"

#include <zlib.h>

#include <filesystem>
#include <map>
#include <mutex>

#include "core/format/cloud_file.h"
#include "core/format/raster_file.h"

namespace erdwerk::format {

namespace {

/// What was read from a file, by its path, size and time of change.
template <class T>
class Shelf {
public:
    template <class Read>
    Result<std::shared_ptr<const T>> get(const std::string& path, const Read& read) {
        std::error_code error;
        const auto size = std::filesystem::file_size(path, error);
        if (error) return fail(ErrorCode::Io, error.message(), path);
        const auto time = std::filesystem::last_write_time(path, error).time_since_epoch().count();
        const Key key{path, size, time};
        {
            const std::lock_guard lock(mutex_);
            if (auto known = held_[key].lock()) return known;
        }
        auto value = read(path);
        if (!value) return tl::unexpected(value.error());
        auto shared = std::make_shared<const T>(std::move(*value));
        const std::lock_guard lock(mutex_);
        std::erase_if(held_, [](const auto& entry) { return entry.second.expired(); });
        held_[key] = shared;
        return shared;
    }

private:
    using Key = std::tuple<std::string, std::uintmax_t, std::int64_t>;
    std::mutex mutex_;
    std::map<Key, std::weak_ptr<const T>> held_;
};

constexpr char digits[] = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";

std::string base64(const std::string& bytes) {
    std::string out;
    out.reserve((bytes.size() + 2) / 3 * 4);
    for (std::size_t i = 0; i < bytes.size(); i += 3) {
        std::uint32_t word = 0;
        for (std::size_t k = 0; k < 3; ++k)
            word = word << 8U | (i + k < bytes.size() ? static_cast<unsigned char>(bytes[i + k]) : 0U);
        for (std::size_t k = 0; k < 4; ++k)
            out += i + k <= bytes.size() ? digits[(word >> (18U - 6U * k)) & 63U] : '=';
    }
    return out;
}

std::optional<std::string> fromBase64(const std::string& text) {
    std::array<int, 256> value{};
    value.fill(-1);
    for (int i = 0; i < 64; ++i) value[static_cast<unsigned char>(digits[i])] = i;
    std::string out;
    std::uint32_t word = 0;
    int bits = 0;
    for (const char c : text) {
        if (c == '=') break;
        const int v = value[static_cast<unsigned char>(c)];
        if (v < 0) return std::nullopt;
        word = word << 6U | static_cast<std::uint32_t>(v);
        bits += 6;
        if (bits < 8) continue;
        bits -= 8;
        out += static_cast<char>(word >> static_cast<unsigned>(bits) & 255U);
    }
    return out;
}

}  // namespace

Result<std::shared_ptr<const survey::PointCloud>> attachedCloud(const std::string& path,
                                                                const Context& context) {
    static Shelf<survey::PointCloud> shelf;
    return shelf.get(path, [&](const std::string& file) { return readCloud(file, context); });
}

Result<std::shared_ptr<const survey::Raster>> attachedRaster(const std::string& path,
                                                             const Context& context) {
    static Shelf<survey::Raster> shelf;
    return shelf.get(path, [&](const std::string& file) { return readRaster(file, context); });
}

Result<std::shared_ptr<const objects::Picture>> attachedPicture(const std::string& path,
                                                                const Context& context) {
    static Shelf<objects::Picture> shelf;
    return shelf.get(path, [&](const std::string& file) { return readPicture(file, context); });
}

std::string packed(const std::vector<std::uint8_t>& bytes) {
    uLongf size = ::compressBound(bytes.size());
    std::string out(size, '\0');
    ::compress2(reinterpret_cast<Bytef*>(out.data()), &size, bytes.data(), bytes.size(), 6);
    out.resize(size);
    return base64(out);
}

Result<std::vector<std::uint8_t>> unpacked(const std::string& text, std::size_t size) {
    const auto bytes = fromBase64(text);
    std::vector<std::uint8_t> out(size);
    uLongf got = size;
    if (!bytes ||
        ::uncompress(out.data(), &got, reinterpret_cast<const Bytef*>(bytes->data()), bytes->size()) !=
            Z_OK ||
        got != size)
        return badInput("packed bytes are damaged");
    return out;
}

}  // namespace erdwerk::format
