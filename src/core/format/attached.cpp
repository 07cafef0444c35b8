#include "core/format/attached.h"

#include <cpl_string.h>
#include <zlib.h>

#include <filesystem>
#include <map>
#include <mutex>
#include <string_view>

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

/// GDAL's text buffer, freed.
std::string base64(const std::string& bytes) {
    const std::unique_ptr<char, decltype(&VSIFree)> text(
        CPLBase64Encode(static_cast<int>(bytes.size()), reinterpret_cast<const GByte*>(bytes.data())),
        VSIFree);
    return text.get();
}

std::optional<std::string> fromBase64(std::string text) {
    constexpr std::string_view signs = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/=";
    if (text.find_first_not_of(signs) != std::string::npos) return std::nullopt;
    text.resize(static_cast<std::size_t>(CPLBase64DecodeInPlace(reinterpret_cast<GByte*>(text.data()))));
    return text;
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
