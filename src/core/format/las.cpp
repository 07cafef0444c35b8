#include "core/format/las.h"

#include <fcntl.h>
#include <oneapi/tbb/parallel_for.h>
#include <sys/stat.h>
#include <unistd.h>

#include <algorithm>
#include <atomic>
#include <bit>
#include <cerrno>
#include <cmath>
#include <cstring>
#include <ctime>
#include <string_view>

#include "core/format/output.h"

namespace erdwerk::format {

using geometry::Vec3;
static_assert(std::endian::native == std::endian::little);

namespace {

/// Where the parts of a point record stand; 0: it has no such part.
struct Layout {
    std::size_t length;
    bool extended;  ///< formats 6 to 10
    std::size_t colour;
};

constexpr std::array<Layout, 11> layouts{{{20, false, 0},
                                          {28, false, 0},
                                          {26, false, 20},
                                          {34, false, 28},
                                          {57, false, 0},
                                          {63, false, 28},
                                          {30, true, 0},
                                          {36, true, 30},
                                          {38, true, 30},
                                          {59, true, 0},
                                          {67, true, 30}}};

template <class T>
T load(const char* at) {
    T value;
    std::memcpy(&value, at, sizeof value);
    return value;
}

template <class T>
void store(char* at, T value) {
    std::memcpy(at, &value, sizeof value);
}

/// A file that is open for reading at any place.
class Source {
public:
    explicit Source(const std::string& path) : fd_(::open(path.c_str(), O_RDONLY | O_CLOEXEC)) {
        struct stat info {};
        if (fd_ < 0)
            reason_ = std::strerror(errno);  // NOLINT(concurrency-mt-unsafe)
        else if (::fstat(fd_, &info) != 0 || S_ISDIR(info.st_mode))
            reason_ = "is a folder";
        size_ = static_cast<std::uint64_t>(info.st_size);
    }
    Source(const Source&) = delete;
    Source& operator=(const Source&) = delete;
    ~Source() {
        if (fd_ >= 0) ::close(fd_);
    }
    [[nodiscard]] const std::string& reason() const { return reason_; }
    [[nodiscard]] std::uint64_t size() const { return size_; }
    [[nodiscard]] bool read(std::uint64_t at, char* to, std::size_t count) const {
        while (count > 0) {
            const ssize_t got = ::pread(fd_, to, count, static_cast<off_t>(at));
            if (got <= 0) return false;
            to += got;
            at += static_cast<std::uint64_t>(got);
            count -= static_cast<std::size_t>(got);
        }
        return true;
    }

private:
    int fd_;
    std::uint64_t size_ = 0;
    std::string reason_;
};

Vec3 vector(const char* at) {
    return {load<double>(at), load<double>(at + 8), load<double>(at + 16)};
}

bool finite(const Vec3& v) {
    return std::isfinite(v.x) && std::isfinite(v.y) && std::isfinite(v.z);
}

Result<LasHeader> headerOf(const Source& source, const std::string& path) {
    if (!source.reason().empty()) return fail(ErrorCode::Io, source.reason(), path);
    std::array<char, 375> bytes{};
    const std::size_t there = static_cast<std::size_t>(std::min<std::uint64_t>(source.size(), bytes.size()));
    if (!source.read(0, bytes.data(), there)) return fail(ErrorCode::Io, "cannot be read", path);
    if (there < 4 || std::memcmp(bytes.data(), "LASF", 4) != 0) return badInput("is not a LAS file", path, 1);
    if (there < 227) return badInput("the file ends inside its header", path, 1);
    LasHeader h;
    h.major = static_cast<unsigned char>(bytes[24]);
    h.minor = static_cast<unsigned char>(bytes[25]);
    if (h.major != 1 || h.minor > 4)
        return fail(ErrorCode::Unsupported, "is LAS " + h.version() + "; versions 1.0 to 1.4 are read", path,
                    1);
    const auto headerSize = load<std::uint16_t>(bytes.data() + 94);
    h.pointsAt = load<std::uint32_t>(bytes.data() + 96);
    const int format = static_cast<unsigned char>(bytes[104]);
    if (format >= 0x40)
        return fail(ErrorCode::Unsupported,
                    "is a compressed LAS file; decompress it to a plain .las file first", path, 1);
    if (format > 10)
        return fail(ErrorCode::Unsupported, "point format " + std::to_string(format) + " is not known", path,
                    1);
    h.pointFormat = format;
    h.recordLength = load<std::uint16_t>(bytes.data() + 105);
    h.points = load<std::uint32_t>(bytes.data() + 107);
    if (h.minor == 4) {
        if (headerSize < 375 || there < 375) return badInput("the file ends inside its header", path, 1);
        const auto count = load<std::uint64_t>(bytes.data() + 247);
        if (count != 0) h.points = count;
    }
    h.scale = vector(bytes.data() + 131);
    h.offset = vector(bytes.data() + 155);
    if (h.pointsAt < headerSize || headerSize < 227)
        return badInput("the points are said to begin inside the header", path, 1);
    if (h.recordLength < layouts[static_cast<std::size_t>(format)].length)
        return badInput("a point record of " + std::to_string(h.recordLength) +
                            " bytes is too short for format " + std::to_string(format),
                        path, 1);
    // The farthest coordinate that can be written must be one that can be worked with.
    const auto usable = [](double scale, double offset) {
        return scale > 0 && std::abs(offset) + scale * 2147483648.0 <= 1e13;
    };
    if (!finite(h.scale) || !finite(h.offset) || !usable(h.scale.x, h.offset.x) ||
        !usable(h.scale.y, h.offset.y) || !usable(h.scale.z, h.offset.z))
        return badInput("scale or offset of the coordinates is not a usable number", path, 1);
    const std::uint64_t room = source.size() < h.pointsAt ? 0 : (source.size() - h.pointsAt) / h.recordLength;
    if (h.points > room)
        return badInput("the file ends early: it holds " + std::to_string(room) + " of the " +
                            std::to_string(h.points) + " points it states",
                        path, static_cast<long>(room + 1));
    return h;
}

constexpr std::size_t block = 1 << 16;  ///< points read at a time

/// Calls visit(first, count, bytes) for each block of records, on several threads. False when a read fails or
/// the work is cancelled.
template <class Visit>
bool eachBlock(const Source& source, const LasHeader& h, const Context& context, const Visit& visit) {
    const std::size_t blocks = (h.points + block - 1) / block;
    std::atomic<bool> good{true};
    std::atomic<std::size_t> done{0};
    tbb::parallel_for(std::size_t{0}, blocks, [&](std::size_t b) {
        if (!good || context.isCancelled()) return;
        thread_local std::vector<char> bytes;
        const std::size_t first = b * block;
        const std::size_t count = std::min<std::size_t>(block, h.points - first);
        bytes.resize(count * h.recordLength);
        if (!source.read(h.pointsAt + first * h.recordLength, bytes.data(), bytes.size())) {
            good = false;
            return;
        }
        visit(first, count, bytes.data());
        context.report(static_cast<double>(++done) / static_cast<double>(blocks));
    });
    return good && !context.isCancelled();
}

bool usesHighBytes(const char* bytes, std::size_t count, std::size_t length, std::size_t colour) {
    for (std::size_t i = 0; i < count; ++i)
        for (std::size_t k = 0; k < 3; ++k)
            if (load<std::uint16_t>(bytes + i * length + colour + 2 * k) > 255) return true;
    return false;
}

template <bool Extended>
void readBlock(survey::CloudColumns& out, std::size_t first, std::size_t count, const char* at,
               std::size_t length) {
    for (std::size_t i = first; i < first + count; ++i, at += length) {
        std::memcpy(&out.grid[i], at, 12);
        out.intensity[i] = load<std::uint16_t>(at + 12);
        const auto bits = static_cast<std::uint8_t>(at[14]);
        if constexpr (Extended) {
            out.returns[i] = bits;
            out.flags[i] = static_cast<std::uint8_t>(at[15] & 0x0f);
            out.classes[i] = static_cast<std::uint8_t>(at[16]);
        } else {
            out.returns[i] = static_cast<std::uint8_t>((bits & 7U) | ((bits >> 3U) & 7U) << 4U);
            const auto kind = static_cast<std::uint8_t>(at[15]);
            out.classes[i] = kind & 0x1fU;
            out.flags[i] = static_cast<std::uint8_t>(kind >> 5U);
        }
    }
}

}  // namespace

Result<LasHeader> readLasHeader(const std::string& path) {
    return headerOf(Source(path), path);
}

Result<survey::PointCloud> readLas(const std::string& path, const Context& context) {
    const Source source(path);
    const auto h = headerOf(source, path);
    if (!h) return tl::unexpected(h.error());
    if (h->points > 0xfffffff0U)
        return fail(ErrorCode::Unsupported, "more than four thousand million points in one cloud", path, 1);
    const Layout& layout = layouts[static_cast<std::size_t>(h->pointFormat)];
    survey::CloudColumns columns(h->points, layout.colour != 0);
    columns.scale = h->scale;
    columns.offset = h->offset;
    // Channels of 8 bits are common against the specification. What is read until the first larger value
    // shows up is the same in both readings only when it is 0, so the blocks say what they saw.
    std::atomic<bool> sixteenBits{false};
    std::vector<std::uint8_t> shifted((h->points + block - 1) / block, 0);
    const bool read =
        eachBlock(source, *h, context, [&](std::size_t first, std::size_t count, const char* at) {
            if (layout.extended)
                readBlock<true>(columns, first, count, at, h->recordLength);
            else
                readBlock<false>(columns, first, count, at, h->recordLength);
            if (layout.colour == 0) return;
            const bool wide = usesHighBytes(at, count, h->recordLength, layout.colour);
            if (wide) sixteenBits = true;
            shifted[first / block] = wide ? 1 : 0;
            for (std::size_t i = 0; i < count; ++i)
                for (std::size_t k = 0; k < 3; ++k) {
                    const auto c = load<std::uint16_t>(at + i * h->recordLength + layout.colour + 2 * k);
                    columns.colours[first + i][k] = static_cast<std::uint8_t>(wide ? c >> 8U : c);
                }
        });
    if (context.isCancelled()) return cancelled();
    if (!read) return fail(ErrorCode::Io, "cannot be read", path);
    if (sixteenBits)
        for (std::size_t b = 0; b < shifted.size(); ++b)
            if (shifted[b] == 0)  // all below 256 in a file of 16 bits: all but black
                for (std::size_t i = b * block; i < std::min<std::size_t>((b + 1) * block, h->points); ++i)
                    columns.colours[i] = {0, 0, 0};
    return survey::PointCloud(std::move(columns));
}

namespace {

/// What all headers of this size begin with; how many points there are of each return comes after.
void storeHeader(char* h, const survey::PointCloud& cloud, bool legacy, std::size_t headerSize, int format) {
    const auto text = [h](std::size_t at, std::string_view words) {
        std::copy(words.begin(), words.end(), h + at);
    };
    text(0, "LASF");
    h[24] = 1;
    h[25] = legacy ? 2 : 4;
    text(26, "OTHER");
    text(58, "Erdwerk");
    store<std::uint16_t>(h + 90, 1);
    store<std::uint16_t>(h + 92, 2026);
    store<std::uint16_t>(h + 94, static_cast<std::uint16_t>(headerSize));
    store<std::uint32_t>(h + 96, static_cast<std::uint32_t>(headerSize));
    h[104] = static_cast<char>(format);
    store<std::uint16_t>(h + 105,
                         static_cast<std::uint16_t>(layouts[static_cast<std::size_t>(format)].length));
    if (legacy) store<std::uint32_t>(h + 107, static_cast<std::uint32_t>(cloud.size()));
    const Vec3 zero;
    const Vec3& scale = cloud.empty() ? zero : cloud.scale();
    const Vec3& offset = cloud.empty() ? zero : cloud.offset();
    const std::array<double, 12> numbers{cloud.empty() ? 0.001 : scale.x,
                                         cloud.empty() ? 0.001 : scale.y,
                                         cloud.empty() ? 0.001 : scale.z,
                                         offset.x,
                                         offset.y,
                                         offset.z,
                                         cloud.max().x,
                                         cloud.min().x,
                                         cloud.max().y,
                                         cloud.min().y,
                                         cloud.max().z,
                                         cloud.min().z};
    std::memcpy(h + 131, numbers.data(), sizeof numbers);
}

void storeCounts(char* h, const survey::PointCloud& cloud, bool legacy) {
    std::array<std::uint64_t, 15> byReturn{};
    for (std::size_t i = 0; i < cloud.size(); ++i)
        if (const int number = cloud.returnNumber(i); number > 0)
            ++byReturn[static_cast<std::size_t>(number) - 1];
    if (legacy)
        for (std::size_t k = 0; k < 5; ++k) store(h + 111 + 4 * k, static_cast<std::uint32_t>(byReturn[k]));
    else {
        store<std::uint64_t>(h + 247, cloud.size());
        for (std::size_t k = 0; k < 15; ++k) store(h + 255 + 8 * k, byReturn[k]);
        h[6] = 0x10;  // coordinate system as WKT, which formats 6 and above must state
    }
}

void storePoints(char* at, const survey::PointCloud& cloud, bool legacy, const Layout& layout) {
    const Vec3& scale = cloud.scale();
    const Vec3& offset = cloud.offset();
    const bool coloured = cloud.coloured();
    for (std::size_t i = 0; i < cloud.size(); ++i, at += layout.length) {
        const Vec3 p = cloud.place(i);
        const auto grid = [](double v, double o, double s) {
            return static_cast<std::int32_t>(std::lround((v - o) / s));
        };
        store(at, grid(p.x, offset.x, scale.x));
        store(at + 4, grid(p.y, offset.y, scale.y));
        store(at + 8, grid(p.z, offset.z, scale.z));
        store(at + 12, cloud.intensity(i));
        const auto number = static_cast<unsigned>(cloud.returnNumber(i));
        const auto count = static_cast<unsigned>(cloud.returnCount(i));
        if (legacy) {
            at[14] = static_cast<char>((number & 7U) | (count & 7U) << 3U);
            at[15] = static_cast<char>((cloud.classOf(i) & 0x1fU) | (cloud.flags(i) & 7U) << 5U);
        } else {
            at[14] = static_cast<char>(number | count << 4U);
            at[15] = static_cast<char>(cloud.flags(i));
            at[16] = static_cast<char>(cloud.classOf(i));
        }
        if (coloured)
            for (std::size_t k = 0; k < 3; ++k)
                store(at + layout.colour + 2 * k, static_cast<std::uint16_t>(cloud.colour(i)[k] * 257U));
    }
}

}  // namespace

Result<void> writeLas(const std::string& path, const survey::PointCloud& cloud, bool legacy) {
    const bool coloured = cloud.coloured();
    const int format = legacy ? (coloured ? 2 : 0) : (coloured ? 7 : 6);
    const Layout& layout = layouts[static_cast<std::size_t>(format)];
    const std::size_t headerSize = legacy ? 227 : 375;
    if (legacy && cloud.size() > 0xffffffffU)
        return fail(ErrorCode::Unsupported, "LAS 1.2 holds no more than 4294967295 points", path);
    std::string out(headerSize + cloud.size() * layout.length, '\0');
    storeHeader(out.data(), cloud, legacy, headerSize, format);
    storeCounts(out.data(), cloud, legacy);
    if (!cloud.empty()) storePoints(out.data() + headerSize, cloud, legacy, layout);
    return replaceFile(path, out);
}

Result<void> writeLasWithClasses(const std::string& from, const std::string& to,
                                 const std::vector<std::uint8_t>& classes) {
    const auto header = readLasHeader(from);
    if (!header) return tl::unexpected(header.error());
    auto bytes = readFile(from);
    if (!bytes) return tl::unexpected(bytes.error());
    if (classes.size() != header->points ||
        bytes->size() < header->pointsAt + header->points * header->recordLength)
        return badInput("the file changed while it was read", from, 1);
    const bool extended = layouts[static_cast<std::size_t>(header->pointFormat)].extended;
    for (std::size_t i = 0; i < classes.size(); ++i) {
        char& kind = (*bytes)[header->pointsAt + i * header->recordLength + (extended ? 16 : 15)];
        kind = static_cast<char>(extended ? classes[i]
                                          : (static_cast<std::uint8_t>(kind) & 0xe0U) | (classes[i] & 0x1fU));
    }
    return replaceFile(to, *bytes);
}

}  // namespace erdwerk::format
